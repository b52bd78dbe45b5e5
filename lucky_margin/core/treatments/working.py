"""What treatments are made from: the photo at a fixed resolution, and the pixels to be drawn.

A treatment is planned on all of a size's photo at one resolution, whatever the scale of the
picture it is drawn in, and drawn by places counted in short sides; so every scale and every region
of it looks alike.
"""

from dataclasses import dataclass
from functools import cached_property

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import UNCHANGED, Affine
from lucky_margin.core.blurring import blurred_small
from lucky_margin.core.document import PhotoPoint
from lucky_margin.core.sampling import sample, to_linear
from lucky_margin.core.types import AnyPicture, Picture8, Region

Floats = NDArray[np.float32]


class Plan:
    """A base for plans of several arrays, which are kept while there is room for them."""

    @property
    def nbytes(self) -> int:
        """How many bytes its arrays take."""
        return sum(part.nbytes for part in vars(self).values() if isinstance(part, np.ndarray))


WORKING_SIDE = 1200
"""Longest side, in pixels, of what treatments are planned on."""

LUMINANCE = np.array([0.2126, 0.7152, 0.0722], np.float32)
"""Of linear sRGB, by IEC 61966-2-1."""


@dataclass(frozen=True, eq=False)
class Working:
    """All of a size's photo, to plan a treatment on.

    ``picture`` has 3 channels. ``share`` (rows, columns) says how much (0..1) of each pixel is
    treated, and so counts. ``per_short`` is pixels to a short side.
    """

    picture: Picture8
    share: Floats
    per_short: float

    @cached_property
    def light(self) -> Floats:
        """Linear, 0..1; shape (rows, columns, 3)."""
        return to_linear(self.picture)

    @property
    def luminance(self) -> Floats:
        """Linear, 0..1; shape (rows, columns)."""
        return np.asarray(self.light @ LUMINANCE, np.float32)

    @property
    def width(self) -> float:
        """In short sides."""
        return float(self.share.shape[1] / self.per_short)

    @property
    def height(self) -> float:
        """In short sides."""
        return float(self.share.shape[0] / self.per_short)

    @cached_property
    def weighted(self) -> Floats:
        """The light times what counts of it, and that itself; shape (rows, columns, 4). What
        hardly counts still has a colour where nothing else is near."""
        share = np.maximum(self.share, _LEAST_SHARE)[:, :, None]
        return np.dstack([self.light * share, share])

    def spread(self, deviation: float) -> Floats:
        """The light of what counts, blurred by a Gaussian of this deviation (short sides); as small
        as it was made."""
        if deviation * self.per_short < _LEAST_BLUR:
            return self.light
        weighted = blurred_small(self.weighted, deviation * self.per_short, _FINEST)
        return np.asarray(weighted[:, :, :3] / weighted[:, :, 3:], np.float32)


_LEAST_BLUR = 0.3
_FINEST = 1.5
_LEAST_SHARE = np.float32(1e-3)


@dataclass(frozen=True)
class Pixels:
    """The pixels to draw: ``region`` of a picture of ``columns`` x ``rows``, which is ``width`` x
    ``height`` short sides large. ``from_photo`` leads there, in short sides, from photo space."""

    region: Region
    columns: int
    rows: int
    width: float
    height: float
    from_photo: Affine = UNCHANGED

    @property
    def pixel(self) -> float:
        """The distance of two neighbours, in short sides."""
        return (self.width / self.columns + self.height / self.rows) / 2

    @property
    def places(self) -> tuple[Floats, Floats]:
        """x and y of each pixel's middle, in short sides; both of shape (height, width)."""
        left, top, wide, high = self.region
        x = (np.arange(left, left + wide) + 0.5) * (self.width / self.columns)
        y = (np.arange(top, top + high) + 0.5) * (self.height / self.rows)
        across, down = np.meshgrid(x.astype(np.float32), y.astype(np.float32))
        return np.ascontiguousarray(across), np.ascontiguousarray(down)

    def of_photo(self, point: PhotoPoint) -> tuple[float, float]:
        """Where a point of the photo lies, in short sides."""
        return self.from_photo(point.x, point.y)

    def laid(self, plane: Floats) -> Floats:
        """``plane`` (rows, columns, perhaps channels), which covers the whole picture, under these
        pixels."""
        left, top, wide, high = self.region
        if plane.shape[1] > self.columns:
            whole = cv2.resize(plane, (self.columns, self.rows), interpolation=cv2.INTER_AREA)
            return np.ascontiguousarray(whole[top : top + high, left : left + wide], np.float32)
        x, y = plane.shape[1] / self.columns, plane.shape[0] / self.rows
        # Pixels count from their middles here.
        onto = np.array([[x, 0, (left + 0.5) * x - 0.5], [0, y, (top + 0.5) * y - 0.5]], np.float64)
        flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
        border = cv2.BORDER_REPLICATE
        laid = cv2.warpAffine(plane, onto, (wide, high), flags=flags, borderMode=border)
        return np.asarray(laid, np.float32)

    def picture(self, whole: AnyPicture) -> Picture8:
        """A picture that covers the whole one, under these pixels, dithered to 8 bits."""
        rows, columns = whole.shape[:2]
        return sample(
            whole,
            left=0,
            top=0,
            step_x=columns / self.columns,
            step_y=rows / self.rows,
            region=self.region,
        )
