"""Edits of the zones of a size that are covered where it is shown."""

from typing import Literal

from pydantic import Field

from lucky_margin.core.document import Box, Covered
from lucky_margin.core.edits.edited import Edited, with_size
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import NotFound
from lucky_margin.core.scene import Scene

LEAST_SIDE = 0.02
"""Of the size's side; a smaller zone could not be taken hold of."""


class SetCovered(EditBase):
    """Say which zones of the size in hand are covered."""

    kind: Literal["set_covered"] = "set_covered"
    covered: Covered


@carries_out(SetCovered)
def set_covered(scene: Scene, edit: SetCovered) -> Edited:
    """The size with these zones."""
    return with_size(scene, covered=edit.covered)


class DragCovered(EditBase):
    """Move a covered zone of the size in hand, or its lower right corner, in output pixels."""

    kind: Literal["drag_covered"] = "drag_covered"
    number: int = Field(ge=0)
    grip: Literal["move", "corner"] = "move"
    dx: float
    dy: float


@carries_out(DragCovered)
def drag_covered(scene: Scene, edit: DragCovered) -> Edited:
    """The zone moved or made larger, within the size.

    Raises:
        NotFound: there is no such zone.
    """
    zones = scene.size.covered
    if edit.number >= len(zones):
        raise NotFound("This covered zone was removed; undo brings it back.")
    width, height = scene.sides
    box = zones[edit.number].box
    left, across = _dragged(box.left, box.width, edit.dx / width, edit.grip)
    top, down = _dragged(box.top, box.height, edit.dy / height, edit.grip)
    moved = Box(left=left, top=top, width=across, height=down)
    zone = zones[edit.number].model_copy(update={"box": moved})
    covered = tuple(zone if n == edit.number else one for n, one in enumerate(zones))
    return with_size(scene, covered=[one.model_dump() for one in covered])


def _dragged(start: float, length: float, by: float, grip: str) -> tuple[float, float]:
    """Start and length along one side after a drag, both within 0..1."""
    if grip == "move":
        return min(max(start + by, 0.0), 1 - length), length
    return start, min(max(length + by, LEAST_SIDE), 1 - start)
