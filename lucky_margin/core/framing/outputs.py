"""How many pixels a size has, how thick its border's bands are there, and where the photo goes.

All lengths are whole output pixels at scale 1. A band's thickness is a fraction of the
size's short side, so a size whose sides follow its window has to solve for that side first.
"""

from dataclasses import dataclass

from lucky_margin.core.document import (
    MAX_OUTPUT_PIXELS,
    MAX_SIDE,
    AsCropped,
    Border,
    Box,
    FixedPixels,
    OneSide,
    Sides,
    Size,
)
from lucky_margin.core.errors import TooLarge


@dataclass(frozen=True)
class Band:
    """A band's thickness on each side, in whole output pixels."""

    top: int = 0
    right: int = 0
    bottom: int = 0
    left: int = 0

    @property
    def across(self) -> int:
        """Left and right together."""
        return self.left + self.right

    @property
    def down(self) -> int:
        """Top and bottom together."""
        return self.top + self.bottom

    @property
    def any(self) -> bool:
        """Whether it has a pixel on any side."""
        return max(self.top, self.right, self.bottom, self.left) > 0

    def __add__(self, other: "Band") -> "Band":
        return Band(
            self.top + other.top,
            self.right + other.right,
            self.bottom + other.bottom,
            self.left + other.left,
        )


@dataclass(frozen=True)
class Output:
    """The pixels of a size: its sides, its border's bands from the outside and the photo box."""

    width: int
    height: int
    bands: tuple[Band, ...]
    photo_box: Box
    """Where the photo is framed: what the bands around it leave."""

    @property
    def band(self) -> Band:
        """All bands together."""
        return sum(self.bands, Band())

    @property
    def short_side(self) -> int:
        """Output pixels."""
        return min(self.width, self.height)


def output_of(size: Size, border: Border, window: Box) -> Output:
    """The output pixels of ``size`` when it shows ``window`` (photo pixels).

    Raises:
        TooLarge: the sides that follow from the window come to too many pixels.
    """
    room = border.room if border.is_set else Sides()
    width, height = _sides(size, room, window)
    if width * height > MAX_OUTPUT_PIXELS:
        raise TooLarge(
            f"This size comes to {width} × {height} pixels, over the "
            f"{MAX_OUTPUT_PIXELS // 1_000_000} megapixels a file may have; "
            "ask for a shorter side or a smaller window."
        )
    bands = _snap([band.thickness for band in border.bands], width, height)
    kept = sum(bands[: border.around], Band())
    box = Box(left=kept.left, top=kept.top, width=width - kept.across, height=height - kept.down)
    return Output(width=width, height=height, bands=bands, photo_box=box)


def _sides(size: Size, room: Sides, window: Box) -> tuple[int, int]:
    """Whole output width and height; ``room`` is what an outside border adds or takes."""
    pixels = size.pixels
    if isinstance(pixels, FixedPixels):
        return pixels.width, pixels.height
    if isinstance(pixels, AsCropped):
        return _around_box(_side(window.width), _side(window.height), room)
    return _beside(pixels, pixels.ratio.value if pixels.ratio else window.ratio, room)


def _around_box(width: int, height: int, room: Sides) -> tuple[int, int]:
    """The output whose photo box has exactly these sides."""
    across, down = room.left + room.right, room.top + room.bottom
    # The short side s solves  s = box side + thickness * s  for whichever side is shorter.
    short = width / (1 - across)
    if height + down * short < short:
        short = height / (1 - down)
    band = Band(*(_round(part * short) for part in (room.top, room.right, room.bottom, room.left)))
    return _side(width + band.across), _side(height + band.down)


def _beside(pixels: OneSide, ratio: float, room: Sides) -> tuple[int, int]:
    """The output with one side given, whose photo box has ``ratio`` (width over height)."""
    given, other = (room.left + room.right, room.top + room.bottom)
    if pixels.side == "height":
        given, other, ratio = other, given, 1 / ratio
    length = pixels.length
    # other side = (length - given * short) / ratio + other * short, with the short side first
    # taken to be the given one, then, when that proves wrong, the other one.
    follows = (length - given * length) / ratio + other * length
    if follows < length:
        follows = (length / ratio) / (1 + given / ratio - other)
    second = _side(follows)
    return (length, second) if pixels.side == "width" else (second, length)


def _snap(thicknesses: list[Sides], width: int, height: int) -> tuple[Band, ...]:
    """Each in whole pixels, leaving at least one pixel between opposite sides."""
    short, used, bands = min(width, height), Band(), []
    for sides in thicknesses:
        top, right, bottom, left = (
            _round(part * short) for part in (sides.top, sides.right, sides.bottom, sides.left)
        )
        top, bottom = _leave_one(top, bottom, height - used.down)
        left, right = _leave_one(left, right, width - used.across)
        bands.append(Band(top=top, right=right, bottom=bottom, left=left))
        used += bands[-1]
    return tuple(bands)


def _leave_one(first: int, second: int, length: int) -> tuple[int, int]:
    excess = max(0, first + second - (length - 1))
    taken = min(first, (excess + 1) // 2)
    return first - taken, max(0, second - (excess - taken))


def _round(length: float) -> int:
    """To the nearest whole pixel, halves up (Python's round would go to even)."""
    return int(length + 0.5)


def _side(length: float) -> int:
    return min(MAX_SIDE, max(1, _round(length)))
