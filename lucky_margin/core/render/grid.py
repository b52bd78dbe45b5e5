"""The pixels that are drawn: a region of a picture at a scale."""

from dataclasses import dataclass

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.errors import BadInput
from lucky_margin.core.types import Mask, Region


def scaled_sides(width: int, height: int, scale: float) -> tuple[int, int]:
    """The whole pixels of a picture of these sides at ``scale``; at least 1 x 1."""
    return max(1, round(width * scale)), max(1, round(height * scale))


@dataclass(frozen=True)
class Grid:
    """``region`` of a picture of ``columns`` x ``rows``, and the picture's true scale, which
    rounding to whole pixels makes differ a little between the axes."""

    columns: int
    rows: int
    scale_x: float
    scale_y: float
    region: Region

    @classmethod
    def of(cls, width: int, height: int, scale: float, region: Region | None) -> "Grid":
        """
        Raises:
            BadInput: the region is empty or reaches past the picture.
        """
        columns, rows = scaled_sides(width, height, scale)
        left, top, wide, high = region or (0, 0, columns, rows)
        if left < 0 or top < 0 or wide < 1 or high < 1:
            raise BadInput("A region needs a corner from 0 on and at least one pixel.")
        if left + wide > columns or top + high > rows:
            raise BadInput(f"The region reaches past the picture's {columns} × {rows} pixels.")
        return cls(columns, rows, columns / width, rows / height, (left, top, wide, high))

    @property
    def sides(self) -> tuple[int, int]:
        """Width and height of the region."""
        return self.region[2:]

    @property
    def mean_scale(self) -> float:
        """Pixels of the grid to a pixel of the picture at scale 1, over both axes."""
        return (self.scale_x + self.scale_y) / 2

    @property
    def to_full(self) -> Affine:
        """From the grid's pixels to those of the picture at scale 1."""
        return scaling(1 / self.scale_x, 1 / self.scale_y)

    def cut(self, mask: Mask) -> Mask:
        """The region's part of a mask of the whole picture."""
        left, top, width, height = self.region
        return mask[top : top + height, left : left + width]
