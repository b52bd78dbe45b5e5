"""The border: up to three bands along the shape's outline, from the outside inwards."""

from typing import Annotated, Literal, Self, get_args

from pydantic import Field, model_validator

from lucky_margin.core.document.pieces import PictureRatio
from lucky_margin.core.document.values import (
    Colour,
    Opacity,
    PhotoBox,
    Sha256,
    Sides,
    Value,
)
from lucky_margin.core.document.washes import BlendMode

MOST_BANDS = 3
MOST_THICKNESS = 0.45
"""Of a side's bands together, a fraction of the size's short side."""

LineStyle = Literal["solid", "double", "dashed", "dotted"]
Corners = Literal["square", "round", "cut"]
Profile = Literal["board", "sloped", "round", "stepped"]
Texture = Literal["smooth", "paper", "linen"]
BrushedLook = Literal["paint", "chalk", "torn", "dry", "ink", "dots", "mosaic"]
StockPattern = Literal[
    "beads",
    "bricks",
    "chain",
    "checks",
    "crosses",
    "diamonds",
    "fans",
    "hearts",
    "key",
    "leaves",
    "ripples",
    "scallops",
    "slant",
    "stars",
    "stitches",
    "stripes",
    "tiles",
    "zigzag",
]
STOCK_PATTERNS: tuple[StockPattern, ...] = get_args(StockPattern)

_THINNEST_SLICE = 1e-3
"""Of the picture's height."""

_Seed = Annotated[int, Field(ge=0, le=9999)]


class BandBase(Value):
    """What all bands have. ``thickness`` counts in short sides and snaps to whole output pixels; an
    ``around`` band makes the photo's box smaller, any other covers the photo's edge."""

    thickness: Sides = Sides.all(0.025)
    around: bool = False
    opacity: Opacity = 1


class LineBand(BandBase):
    """A line in one colour. The corners of its inner edge may be round or cut, ``corner_size``
    short sides large."""

    kind: Literal["line"] = "line"
    colour: Colour = "#FFFFFF"
    line: LineStyle = "solid"
    corners: Corners = "square"
    corner_size: float = Field(default=0.04, ge=0, le=0.3)


class MatBand(BandBase):
    """A mat or a moulding, lit from ``light`` (degrees clockwise from above).

    A ``board`` is level; the other profiles are mouldings whose face slopes towards the photo, is
    half round, or goes down in steps. Its window is cut at 45 degrees over ``bevel``, showing the
    ``core``; its edge throws a shadow of ``depth`` onto what lies inside, fading with ``softness``.
    Lengths in short sides.
    """

    kind: Literal["mat"] = "mat"
    colour: Colour = "#F5F1E8"
    texture: Texture = "paper"
    profile: Profile = "board"
    bevel: float = Field(default=0.006, ge=0, le=0.05)
    core: Colour = "#FFFFFF"
    light: float = Field(default=-45, ge=-360, le=360)
    depth: float = Field(default=0.012, ge=0, le=0.1)
    softness: float = Field(default=0.5, ge=0, le=1)


class BandPicture(Value):
    """An own picture along a band, its sides in ``ratio`` (width over height).

    With a ``window`` (photo space) it is the picture of a frame: its corners keep their
    proportions, and what lies between them is repeated a whole number of times, or stretched.
    Without, it is a strip, outer edge uppermost, that is repeated along every side.
    """

    sha256: Sha256
    ratio: PictureRatio
    window: PhotoBox | None = None
    stretch: bool = False

    @model_validator(mode="after")
    def _has_a_side(self) -> Self:
        if self.slices.thickest < _THINNEST_SLICE and self.window:
            raise ValueError("the window of a frame's picture has to leave something of the frame")
        return self

    @property
    def slices(self) -> Sides:
        """What of a frame's picture lies on each side of its window, in heights of the picture."""
        window = self.window or _ALL
        return Sides.model_construct(
            top=window.top,
            right=(1 - window.right) * self.ratio,
            bottom=1 - window.bottom,
            left=window.left * self.ratio,
        )


class PatternBand(BandBase):
    """A stock pattern in one colour on another, or an own ``picture`` in its place; without
    ``ground`` what is behind shows."""

    kind: Literal["pattern"] = "pattern"
    thickness: Sides = Sides.all(0.05)
    pattern: StockPattern = "leaves"
    colour: Colour = "#1F6B4B"
    ground: Colour | None = "#F5F1E8"
    picture: BandPicture | None = None


class BrushedBand(BandBase):
    """A band with a broken inner edge, made by noise from a ``seed``; it lies over the photo.

    ``roughness`` (0..1) is how far the edge strays, ``softness`` (0..1) how softly it ends.
    """

    kind: Literal["brushed"] = "brushed"
    thickness: Sides = Sides.all(0.07)
    around: Literal[False] = False
    look: BrushedLook = "paint"
    colour: Colour = "#FFFFFF"
    blend: BlendMode = "normal"
    roughness: float = Field(default=0.5, ge=0, le=1)
    softness: float = Field(default=0.12, ge=0, le=1)
    seed: _Seed = 1


BorderBand = Annotated[LineBand | MatBand | PatternBand | BrushedBand, Field(discriminator="kind")]


class Border(Value):
    """Bands along the shape's outline, from the outside inwards.

    A band outside one that is around the photo is so too. The file keeps its exact pixels either
    way. Along a shape that is no rectangle every band has one thickness, that of its thickest side.
    """

    on: bool = True
    bands: Annotated[tuple[BorderBand, ...], Field(max_length=MOST_BANDS)] = ()

    @model_validator(mode="after")
    def _leaves_room(self) -> Self:
        if any(side > MOST_THICKNESS + 1e-9 for side in self._together):
            raise ValueError(
                f"the bands take more than {MOST_THICKNESS:.0%} of the short side on one side; "
                "make one thinner"
            )
        return self

    @classmethod
    def of(cls, *bands: BorderBand) -> "Border":
        """A border of these bands, from the outside inwards."""
        return cls(bands=bands)

    @property
    def is_set(self) -> bool:
        """Whether anything of it would be drawn or would move the photo."""
        return self.on and any(band.thickness.any for band in self.bands)

    @property
    def around(self) -> int:
        """How many bands, from the outside, are around the photo."""
        return max((number for number, band in enumerate(self.bands, 1) if band.around), default=0)

    @property
    def room(self) -> Sides:
        """What the bands around the photo take, each side a fraction of the short side."""
        return _sum([band.thickness for band in self.bands[: self.around]])

    @property
    def leaves_strip(self) -> bool:
        """Whether it is nothing but a line around the photo, whose strip is room for words."""
        return all(band.kind == "line" and band.around for band in self.bands)

    @property
    def _together(self) -> list[float]:
        sides = [band.thickness for band in self.bands]
        return [sum(getattr(one, name) for one in sides) for name in _NAMES]

    def even(self, is_rectangle: bool) -> "Border":
        """The same border as it can be drawn: one thickness all round for bands that cannot have
        several, as long as there is room."""
        bands, can_differ, used = [], is_rectangle, 0.0
        for band in self.bands:
            is_cut = isinstance(band, LineBand) and band.corners == "cut"
            is_plain = not isinstance(band, LineBand) or band.line == "solid"
            kept = band.thickness.even or (can_differ and is_plain and not is_cut)
            thickness = band.thickness if kept else Sides.all(band.thickness.thickest)
            if isinstance(band, PatternBand) and band.picture and band.picture.window:
                thickness = _in_proportion(band, can_differ)
            thickness = _at_most(thickness, MOST_THICKNESS - used)
            used += thickness.thickest
            bands.append(band.model_copy(update={"thickness": thickness}))
            can_differ = can_differ and not is_cut
        return self.model_copy(update={"bands": tuple(bands)})


_NAMES = ("top", "right", "bottom", "left")
_ALL = PhotoBox(left=0, top=0, width=1, height=1)


def _in_proportion(band: PatternBand, can_differ: bool) -> Sides:
    """A frame's picture is as thick on each side as it is drawn, so that its corners fit."""
    thickest = band.thickness.thickest
    slices = band.picture.slices if band.picture and can_differ else Sides.all(0.1)
    return slices.model_copy(
        update={name: thickest * getattr(slices, name) / slices.thickest for name in _NAMES}
    )


def _at_most(sides: Sides, most: float) -> Sides:
    if sides.thickest <= most:
        return sides
    share = max(0.0, most) / sides.thickest
    return sides.model_copy(update={name: share * getattr(sides, name) for name in _NAMES})


def _sum(sides: list[Sides]) -> Sides:
    return Sides(**{name: sum(getattr(one, name) for one in sides) for name in _NAMES})
