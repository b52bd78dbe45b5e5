"""Washes: colour gradients blended over the photo. They live in photo space."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from lucky_margin.core.document.values import Colour, Percent, PhotoPoint, UnitCoordinate, Value

FEWEST_STOPS, MOST_STOPS = 2, 5

BlendMode = Literal[
    "normal",
    "darken",
    "multiply",
    "color-burn",
    "lighten",
    "screen",
    "color-dodge",
    "overlay",
    "soft-light",
    "hard-light",
    "difference",
    "exclusion",
    "hue",
    "saturation",
    "color",
    "luminosity",
]
"""The blend modes of W3C Compositing and Blending Level 1, by the names it gives them."""


class Stop(Value):
    """A colour of a wash; ``richer`` deepens and saturates it."""

    at: UnitCoordinate
    colour: Colour
    richer: Percent = 0


class Wash(Value):
    """A gradient along the line from ``start`` to ``end``, or from a centre to its rim.

    Below 100 ``reach`` leaves the middle clean: between the two ends of a linear wash, at the
    centre of a radial one.
    """

    on: bool = True
    form: Literal["linear", "radial"] = "linear"
    start: PhotoPoint = PhotoPoint(x=0.5, y=0)
    end: PhotoPoint = PhotoPoint(x=0.5, y=1)
    stops: Annotated[
        tuple[Stop, ...],
        Field(json_schema_extra={"minItems": FEWEST_STOPS, "maxItems": MOST_STOPS}),
    ] = (Stop(at=0, colour="#E39A4F"), Stop(at=1, colour="#3E5C76"))
    reach: Percent = 100
    opacity: Percent = 60
    blend: BlendMode = "soft-light"

    @model_validator(mode="after")
    def _is_a_gradient(self) -> "Wash":
        places = [stop.at for stop in self.stops]
        if not FEWEST_STOPS <= len(places) <= MOST_STOPS:
            raise ValueError(f"a wash needs two to five colours, not {len(places)}")
        if places != sorted(places):
            raise ValueError("the colours of a wash have to go from its start to its end")
        return self

    @property
    def is_set(self) -> bool:
        """Whether it changes anything."""
        return self.on and self.opacity > 0 and self.reach > 0
