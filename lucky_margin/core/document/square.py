"""The corners of something flat that is seen straight on."""

from typing import Annotated

from pydantic import Field

from lucky_margin.core.document.values import UnitCoordinate, Value

Corner = tuple[UnitCoordinate, UnitCoordinate]


class Square(Value):
    """What lies between four ``corners`` of the photo as it was taken (x and y, 0..1, clockwise
    from the top left) is shown straight on, ``ratio`` times as wide as it is high."""

    corners: Annotated[tuple[Corner, ...], Field(min_length=4, max_length=4)]
    ratio: float = Field(ge=0.05, le=20)
