"""Sizes: one output wanted of a finish, with its pixels, shape, framing and margin."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from lucky_margin.core.document.own_ways import OwnWays
from lucky_margin.core.document.values import (
    MAX_OUTPUT_PIXELS,
    MAX_PHOTO_SIDE,
    Box,
    Identifier,
    Name,
    PixelSide,
    Ratio,
    Value,
)

DEFAULT_MARGIN = 0.04
MIN_WINDOW_SIDE = 0.001
"""Photo pixels; a shorter side could not be told from nothing."""

DEFAULT_SEEN_WIDTH = 600
"""Pixels; how wide people usually see an output, unless its size knows better."""


class FixedPixels(Value):
    """Exactly this many output pixels; the ratio is theirs."""

    kind: Literal["fixed"] = "fixed"
    width: PixelSide
    height: PixelSide

    @model_validator(mode="after")
    def _not_too_many(self) -> "FixedPixels":
        if self.width * self.height > MAX_OUTPUT_PIXELS:
            raise ValueError(
                f"{self.width} x {self.height} is over {MAX_OUTPUT_PIXELS // 1_000_000} "
                "megapixels; ask for fewer"
            )
        return self

    @property
    def ratio(self) -> Ratio:
        return Ratio(width=self.width, height=self.height)


class OneSide(Value):
    """One side in output pixels; the other follows the window (or the locked ratio)."""

    kind: Literal["one_side"] = "one_side"
    side: Literal["width", "height"]
    length: PixelSide
    ratio: Ratio | None = None


class AsCropped(Value):
    """One output pixel for each photo pixel of the window."""

    kind: Literal["as_cropped"] = "as_cropped"
    ratio: Ratio | None = None


Pixels = Annotated[FixedPixels | OneSide | AsCropped, Field(discriminator="kind")]


class Window(Value):
    """The part of the photo that shows, as typed: a centre and sides in photo pixels."""

    center_x: float = Field(ge=-MAX_PHOTO_SIDE, le=MAX_PHOTO_SIDE)
    center_y: float = Field(ge=-MAX_PHOTO_SIDE, le=MAX_PHOTO_SIDE)
    width: float = Field(ge=MIN_WINDOW_SIDE, le=MAX_PHOTO_SIDE)
    height: float = Field(ge=MIN_WINDOW_SIDE, le=MAX_PHOTO_SIDE)

    @classmethod
    def around(cls, box: Box) -> "Window":
        x, y = box.center
        return cls(center_x=x, center_y=y, width=box.width, height=box.height)

    @property
    def box(self) -> Box:
        """The window as a box in photo pixels."""
        return Box(
            left=self.center_x - self.width / 2,
            top=self.center_y - self.height / 2,
            width=self.width,
            height=self.height,
        )


class Crop(Value):
    """The framing of one size: a window of its own, or none to follow the focus."""

    window: Window | None = None


class Shape(Value):
    """The outline of one size: a rectangle; its corner radius is a fraction of the short side."""

    kind: Literal["rectangle"] = "rectangle"
    radius: float = Field(default=0, ge=0, le=0.5)


class Size(Value):
    """One output wanted of a finish."""

    id: Identifier
    name: Name
    pixels: Pixels
    crop: Crop = Crop()
    shape: Shape = Shape()
    margin: float = Field(default=DEFAULT_MARGIN, ge=0, le=0.4)
    seen_width: PixelSide = DEFAULT_SEEN_WIDTH
    own: OwnWays = OwnWays()

    @property
    def ratio(self) -> Ratio | None:
        """The ratio the window is held to, or None when it is free."""
        return self.pixels.ratio
