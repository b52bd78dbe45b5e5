"""Sizes: one output wanted of a finish, with its pixels, shape, framing and margin."""

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError, model_validator

from lucky_margin.core.document.covered import Covered
from lucky_margin.core.document.invalid import describe_validation_error
from lucky_margin.core.document.measures import Printed
from lucky_margin.core.document.overrides import Overrides
from lucky_margin.core.document.shapes import Rectangle, Shape
from lucky_margin.core.document.values import (
    MAX_OUTPUT_PIXELS,
    MAX_PHOTO_SIDE,
    Identifier,
    Name,
    PixelSide,
    Ratio,
    Value,
)
from lucky_margin.core.errors import TooLarge

DEFAULT_MARGIN = 0.04
MIN_WINDOW_SIDE = 0.001
"""Photo pixels; a shorter side could not be told from nothing."""

DEFAULT_SEEN_WIDTH = 600
"""Pixels; how wide people usually see an output, unless its size knows better."""


class FixedPixels(Value):
    """Exactly this many output pixels; the ratio is theirs.

    ``printed`` is how they are measured on paper, for a size that is meant for it.
    """

    kind: Literal["fixed"] = "fixed"
    width: PixelSide
    height: PixelSide
    printed: Printed | None = None

    @classmethod
    def on_paper(cls, printed: Printed) -> "FixedPixels":
        """The pixels of a size measured on paper.

        Raises:
            TooLarge: they come to more than a file may have.
        """
        width, height = printed.pixels
        try:
            return cls(width=width, height=height, printed=printed)
        except ValidationError as error:
            raise TooLarge(describe_validation_error(error)) from error

    @model_validator(mode="after")
    def _not_too_many(self) -> "FixedPixels":
        if self.printed and self.printed.pixels != (self.width, self.height):
            raise ValueError(
                f"{self.printed.label} at {self.printed.ppi:g} ppi comes to other pixels than "
                f"{self.width} × {self.height}"
            )
        if self.width * self.height > MAX_OUTPUT_PIXELS:
            raise ValueError(
                f"{self.width} × {self.height} is over {MAX_OUTPUT_PIXELS // 1_000_000} "
                "megapixels; ask for fewer"
            )
        return self

    @property
    def ratio(self) -> Ratio:
        """The ratio of its pixels."""
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
    """The part of the photo that shows, as typed, in photo pixels.

    The centre is a point of the upright original, so that turning the photo keeps what is in
    the middle; width and height go along the turned photo's axes.
    """

    centre_x: float = Field(ge=-MAX_PHOTO_SIDE, le=MAX_PHOTO_SIDE)
    centre_y: float = Field(ge=-MAX_PHOTO_SIDE, le=MAX_PHOTO_SIDE)
    width: float = Field(ge=MIN_WINDOW_SIDE, le=MAX_PHOTO_SIDE)
    height: float = Field(ge=MIN_WINDOW_SIDE, le=MAX_PHOTO_SIDE)


class Crop(Value):
    """The framing of one size: a window of its own, or none to follow the focus.

    The window covers the size, or with ``contain`` shows whole, of any ratio, with the backdrop
    in the rest.
    """

    window: Window | None = None
    contain: bool = False


class Size(Value):
    """One output wanted of a finish.

    ``default_shape`` is what a reset of the crop goes back to: the shape it was chosen with.
    A size ``in_column`` is shown in a page's column that is ``seen_width`` pixels wide.
    """

    id: Identifier
    name: Name
    pixels: Pixels
    crop: Crop = Crop()
    shape: Shape = Rectangle()
    default_shape: Shape = Rectangle()
    margin: float = Field(default=DEFAULT_MARGIN, ge=0, le=0.4)
    seen_width: PixelSide = DEFAULT_SEEN_WIDTH
    in_column: bool = False
    covered: Covered = ()
    overrides: Overrides = Overrides()

    def with_overrides(self, **changed: Any) -> "Size":
        """The size with these overrides, by step, in place of those it has there."""
        overrides = self.overrides.model_dump() | changed
        return self.model_copy(update={"overrides": Overrides.model_validate(overrides)})

    @property
    def ratio(self) -> Ratio | None:
        """The ratio the window is held to, or None when it is free."""
        return self.pixels.ratio
