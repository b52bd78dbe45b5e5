"""Shapes: the outlines a size can have.

Every shape lies in the size scaled by ``scale``; ``x`` and ``y`` say where in the room that is
left: 0 is flush left (top), 0.5 centred, 1 flush right (bottom).
"""

from typing import Annotated, Literal

from pydantic import Field

from lucky_margin.core.document.values import Value

MIN_CORNERS, MAX_CORNERS = 3, 24
MAX_SEED = 9_999


class Placed(Value):
    """Where a shape lies within its size."""

    scale: float = Field(default=1, ge=0.05, le=1)
    x: float = Field(default=0.5, ge=0, le=1)
    y: float = Field(default=0.5, ge=0, le=1)


class Rectangle(Placed):
    """All of the size; its corner radius is a fraction of the rectangle's short side."""

    kind: Literal["rectangle"] = "rectangle"
    radius: float = Field(default=0, ge=0, le=0.5)


class PlainShape(Placed):
    """A shape that needs no numbers. A circle and a heart keep their proportions, the others
    fill the size."""

    kind: Literal["circle", "oval", "arch", "triangle", "diamond", "heart", "bubble"]


class Polygon(Placed):
    """A regular polygon with a corner at the top, as large as fits."""

    kind: Literal["polygon"] = "polygon"
    sides: int = Field(default=6, ge=MIN_CORNERS, le=MAX_CORNERS)


class Star(Placed):
    """A regular star with a point at the top, as large as fits.

    ``depth`` is how far its inner corners are drawn in: 0 leaves a polygon, 1 would reach the
    centre.
    """

    kind: Literal["star"] = "star"
    points: int = Field(default=5, ge=MIN_CORNERS, le=MAX_CORNERS)
    depth: float = Field(default=0.5, ge=0.05, le=0.9)


class Blob(Placed):
    """A soft irregular form that fills the size; ``seed`` picks one of many."""

    kind: Literal["blob"] = "blob"
    seed: int = Field(default=1, ge=0, le=MAX_SEED)


Shape = Annotated[Rectangle | PlainShape | Polygon | Star | Blob, Field(discriminator="kind")]
