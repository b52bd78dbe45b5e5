"""Lifts: parts of the photo raised in place over its own toned-down base."""

from typing import Annotated, Literal

from pydantic import Field

from lucky_margin.core.document.pieces import Shadow
from lucky_margin.core.document.shapes import Rectangle, Shape
from lucky_margin.core.document.values import Box, Colour, PhotoBox, Value

MOST_LIFTS = 20


class ShapeRegion(Value):
    """A shape in a box of the photo (photo space)."""

    kind: Literal["shape"] = "shape"
    shape: Shape = Rectangle()
    box: PhotoBox = Box(left=0.25, top=0.25, width=0.5, height=0.5)


class SubjectRegion(Value):
    """The subject of the photo, whether or not it is cut out."""

    kind: Literal["subject"] = "subject"


class Lift(Value):
    """A part of the photo that lies over its base exactly where it was taken from.

    It has an ``edge`` (its width in short sides) and a shadow, is turned by ``tilt`` (degrees,
    clockwise) and enlarged to ``size`` about its middle.
    """

    on: bool = True
    region: Annotated[ShapeRegion | SubjectRegion, Field(discriminator="kind")] = ShapeRegion()
    edge: float = Field(default=0.008, ge=0, le=0.1)
    edge_colour: Colour = "#FFFFFF"
    shadow: Shadow | None = Shadow(y=0.008, blur=0.012, opacity=0.5)
    tilt: float = Field(default=0, ge=-180, le=180)
    size: float = Field(default=1, ge=0.2, le=5)

    @property
    def is_plain(self) -> bool:
        """Whether it looks just like the photo it lies on."""
        return not self.edge and not self.shadow and self.tilt == 0 and self.size == 1


class LiftBase(Value):
    """What the photo becomes under its lifts: ``grey`` is how much of the colour is taken out,
    ``light`` how much lighter (above 0) or darker it is, ``blur`` the radius of a lens's disc in
    short sides."""

    grey: float = Field(default=0, ge=0, le=1)
    light: float = Field(default=0, ge=-1, le=1)
    blur: float = Field(default=0, ge=0, le=0.1)


class Lifts(Value):
    """All lifts, the lowest first, and what lies under them."""

    base: LiftBase = LiftBase()
    lifted: Annotated[tuple[Lift, ...], Field(max_length=MOST_LIFTS)] = ()

    @property
    def is_set(self) -> bool:
        """Whether anything is lifted."""
        return bool(self.seen)

    @property
    def seen(self) -> tuple[Lift, ...]:
        """Those that are on, the lowest first."""
        return tuple(lift for lift in self.lifted if lift.on)
