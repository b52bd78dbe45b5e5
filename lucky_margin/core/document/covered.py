"""Covered zones: places of a size over which something lies where it is shown."""

from typing import Annotated

from pydantic import Field, StringConstraints

from lucky_margin.core.document.values import PhotoBox, Value

MOST_COVERED = 4


class CoveredZone(Value):
    """A place that a clock, a bar or a round picture lies over, in size space (0..1 of both sides);
    a ``round`` one is the ellipse in its box."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]
    box: PhotoBox
    round: bool = False


Covered = Annotated[tuple[CoveredZone, ...], Field(max_length=MOST_COVERED)]
