"""The small validated values that documents are made of.

Spaces and units: *photo pixels* count pixels of the upright original from its top left;
*photo space* is the same as 0..1; *output pixels* count pixels of a size; *fractions* are of
a size's short side.
"""

from typing import Annotated, Literal

from pydantic import (
    AfterValidator,
    BaseModel,
    ConfigDict,
    Field,
    StringConstraints,
    model_validator,
)

MAX_SIDE = 16_000
"""Longest side of an output, in pixels."""

MAX_OUTPUT_PIXELS = 120_000_000
"""Most pixels of an output."""

MAX_PHOTO_SIDE = 200_000
"""Longest side a window coordinate can speak of, in photo pixels."""


class Value(BaseModel):
    """A frozen value that knows no extra fields, no NaN and no infinity."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9A-Fa-f]{6}$"), AfterValidator(str.upper)]
"""An opaque sRGB colour, ``#RRGGBB``."""


def rgb_of(colour: Colour) -> tuple[int, int, int]:
    """Red, green and blue of ``#RRGGBB``, 0..255."""
    red, green, blue = (int(colour[place : place + 2], 16) for place in (1, 3, 5))
    return red, green, blue


Sha256 = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
"""A SHA-256 in lower-case hexadecimal."""

Identifier = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]
"""A short name that is safe in addresses."""

Opacity = Annotated[float, Field(ge=0, le=1)]
"""0 is invisible, 1 is opaque."""

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
"""What people call a thing."""

PixelSide = Annotated[int, Field(ge=1, le=MAX_SIDE)]
"""One side of an output, in output pixels."""

UnitCoordinate = Annotated[float, Field(ge=0, le=1)]
"""A coordinate in photo space."""

Warmth = Annotated[float, Field(ge=2500, le=15_000, description="Kelvin.")]
"""The light that a photo is taken to be lit by: 2500 is a candle, 15,000 a blue sky."""

SignedPercent = Annotated[float, Field(ge=-100, le=100)]
"""How much of a change, either way; 0 is none."""

Percent = Annotated[float, Field(ge=0, le=100)]
"""A percentage."""


class Box(Value):
    """An upright rectangle; the field that holds it names its space.

    Right and bottom are exclusive: a box with ``left=0, width=10`` ends at 10.
    """

    left: float
    top: float
    width: float = Field(gt=0)
    height: float = Field(gt=0)

    @property
    def right(self) -> float:
        """Its right edge, in the box's own unit."""
        return self.left + self.width

    @property
    def bottom(self) -> float:
        """Its bottom edge, in the box's own unit."""
        return self.top + self.height

    @property
    def edges(self) -> tuple[float, float, float, float]:
        """Its left, top, right and bottom edge, in the box's own unit."""
        return self.left, self.top, self.right, self.bottom

    @property
    def centre(self) -> tuple[float, float]:
        """Its middle, in the box's own unit."""
        return self.left + self.width / 2, self.top + self.height / 2

    @property
    def ratio(self) -> float:
        """Width over height."""
        return self.width / self.height

    def meets(self, other: "Box") -> bool:
        """Whether the two have any area in common."""
        return (
            self.left < other.right
            and other.left < self.right
            and self.top < other.bottom
            and other.top < self.bottom
        )

    def moved(self, x: float, y: float) -> "Box":
        """The same box this much further right and down."""
        return Box(left=self.left + x, top=self.top + y, width=self.width, height=self.height)

    def scaled(self, factor_x: float, factor_y: float | None = None) -> "Box":
        """The same box in units ``factor_x`` (and ``factor_y``) times finer."""
        y = factor_x if factor_y is None else factor_y
        return Box(
            left=self.left * factor_x,
            top=self.top * y,
            width=self.width * factor_x,
            height=self.height * y,
        )


def _on_the_photo(box: Box) -> Box:
    # Sums of decimals may come out a trifle over 1.
    if box.left < 0 or box.top < 0 or max(box.right, box.bottom) > 1 + 1e-9:
        raise ValueError("this box has to lie inside the photo (0 to 1)")
    return box


PhotoBox = Annotated[Box, AfterValidator(_on_the_photo)]
"""A box in photo space that lies on the photo."""


class Point(Value):
    """A point in photo space."""

    x: UnitCoordinate
    y: UnitCoordinate


class PhotoPoint(Value):
    """A point in photo space that may lie beside the photo."""

    x: float = Field(ge=-2, le=3)
    y: float = Field(ge=-2, le=3)


class Ratio(Value):
    """Width to height, as two numbers people would say ("4:5", "7:9.5")."""

    width: float = Field(gt=0, le=MAX_PHOTO_SIDE)
    height: float = Field(gt=0, le=MAX_PHOTO_SIDE)

    @model_validator(mode="after")
    def _not_a_line(self) -> "Ratio":
        if not 1 / MAX_SIDE <= self.value <= MAX_SIDE:
            raise ValueError(f"a ratio goes from 1:{MAX_SIDE} to {MAX_SIDE}:1")
        return self

    @property
    def value(self) -> float:
        """Width over height."""
        return self.width / self.height

    @property
    def label(self) -> str:
        """Both sides: "4:5"."""
        return f"{self.width:g}:{self.height:g}"


class Sides(Value):
    """One fraction of the short side for each side of a frame."""

    top: float = Field(default=0, ge=0, le=0.45)
    right: float = Field(default=0, ge=0, le=0.45)
    bottom: float = Field(default=0, ge=0, le=0.45)
    left: float = Field(default=0, ge=0, le=0.45)

    @classmethod
    def all(cls, thickness: float) -> "Sides":
        """The same thickness on every side, a fraction of the short side."""
        return cls(top=thickness, right=thickness, bottom=thickness, left=thickness)

    @property
    def thickest(self) -> float:
        """The thickest side's, a fraction of the short side."""
        return max(self.top, self.right, self.bottom, self.left)

    @property
    def any(self) -> bool:
        """Whether any side has a thickness."""
        return self.thickest > 0

    @property
    def even(self) -> bool:
        """Whether all sides have the same."""
        return self.top == self.right == self.bottom == self.left


class Transparent(Value):
    """A ground that is not there."""

    kind: Literal["transparent"] = "transparent"


class SolidColour(Value):
    """A ground of one opaque colour."""

    kind: Literal["colour"] = "colour"
    colour: Colour = "#FFFFFF"


class Gradient(Value):
    """A ground that goes evenly from one colour to another: along a line, or from the middle to the
    corners.

    ``angle`` is in degrees, clockwise from upwards: 180 goes from top to bottom, 90 from left
    to right (as in CSS Images 3).
    """

    kind: Literal["gradient"] = "gradient"
    form: Literal["linear", "radial"] = "linear"
    start: Colour = "#FFFFFF"
    end: Colour = "#000000"
    angle: float = Field(default=180, ge=-360, le=360)


class BlurredPhoto(Value):
    """The finish's own photo, enlarged to cover the size and blurred.

    ``blur`` is the standard deviation of the blur as a fraction of the size's short side.
    """

    kind: Literal["blurred"] = "blurred"
    blur: float = Field(default=0.04, ge=0.01, le=0.2)


class ThisPhoto(Value):
    """The photo itself where it lies, filled in behind its subject.

    ``blur`` is the radius of a lens's disc as a fraction of the photo's long side, ``grey`` how
    much of the colour is taken out, ``light`` how much lighter (above 0) or darker it is.
    """

    kind: Literal["this_photo"] = "this_photo"
    blur: float = Field(default=0.012, ge=0, le=0.1)
    grey: float = Field(default=0, ge=0, le=1)
    light: float = Field(default=0, ge=-1, le=1)


BackdropKey = Literal[
    "plain",
    "horizon",
    "fade",
    "corner",
    "dusk",
    "halo",
    "paper",
    "laid",
    "kraft",
    "silk-paper",
    "creased",
    "torn",
    "linen",
    "felt",
    "canvas",
    "velvet",
    "knit",
    "gingham",
    "ticking",
    "plaster",
    "limewash",
    "stone",
    "sand",
    "speckle",
    "concrete",
    "terrazzo",
    "slate",
    "tiles",
    "brick",
    "oak",
    "planks",
    "tabletop",
    "glow",
    "sweep",
    "bloom",
    "bokeh",
    "window",
    "foliage",
    "beam",
    "spot",
    "dots",
    "checks",
    "stripes",
    "waves",
    "triangles",
    "arches",
    "rays",
    "lozenges",
    "blocks",
    "snow",
    "petals",
    "leaf-fall",
    "hearts",
    "stars",
    "eggs",
    "fir",
    "sparks",
]


class PlacedGround(Value):
    """A ground that is larger than the size, of which a part shows.

    It is enlarged by ``zoom``, and shows its part at ``x``, ``y``: 0 is the left or top end, 1 the
    right or bottom one.
    """

    zoom: float = Field(default=1, ge=1, le=8)
    x: UnitCoordinate = 0.5
    y: UnitCoordinate = 0.5

    def part_of(self, whole: Box, ratio: float) -> Box:
        """The part of a whole picture that shows on a size of ``ratio`` (width over height)."""
        width = min(whole.width, whole.height * ratio) / self.zoom
        height = width / ratio
        left = whole.left + self.x * (whole.width - width)
        top = whole.top + self.y * (whole.height - height)
        return Box(left=left, top=top, width=width, height=height)


class StockBackdrop(PlacedGround):
    """A backdrop drawn by this application; what a key draws never changes.

    ``lucky_margin.core.stock`` lists the colours that each comes in. The last ``colours`` fill in
    for those that a drawing has besides.
    """

    kind: Literal["stock"] = "stock"
    key: BackdropKey = "paper"
    colours: Annotated[tuple[Colour, ...], Field(min_length=1, max_length=3)] = ("#EFE9DD",)
    seed: int = Field(default=1, ge=0, le=9999)


class OtherPhoto(PlacedGround):
    """Another photo of the shelf, covering the size."""

    kind: Literal["photo"] = "photo"
    sha256: Sha256


Ground = Annotated[
    Transparent | SolidColour | Gradient | BlurredPhoto | ThisPhoto | StockBackdrop | OtherPhoto,
    Field(discriminator="kind"),
]
"""What shows where there is no picture."""

GroundPlace = Literal["backdrop", "outside"]
GROUND_PLACES: tuple[GroundPlace, ...] = ("backdrop", "outside")
"""Where a ground lies: behind the photo, or outside the shape."""
