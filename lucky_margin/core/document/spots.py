"""Spots: dust, wires and stickers that are filled from what lies around them."""

from typing import Annotated

from pydantic import Field

from lucky_margin.core.document.values import UnitCoordinate, Value

MOST_SPOTS = 200
MOST_SPOT_POINTS = 200


class Spot(Value):
    """A place of the photo that is filled: along ``points`` (x and y in photo space, 0..1), up to
    ``radius`` (in the photo's long sides) from them."""

    radius: float = Field(ge=0.0003, le=0.1)
    points: Annotated[
        tuple[tuple[UnitCoordinate, UnitCoordinate], ...],
        Field(min_length=1, max_length=MOST_SPOT_POINTS),
    ]


class Spots(Value):
    """What is filled, one after the other."""

    on: bool = True
    filled: Annotated[tuple[Spot, ...], Field(max_length=MOST_SPOTS)] = ()

    @property
    def is_set(self) -> bool:
        """Whether anything is filled."""
        return self.on and bool(self.filled)
