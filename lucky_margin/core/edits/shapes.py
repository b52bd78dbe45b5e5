"""Edits of a size's shape and margin."""

from typing import Literal

from lucky_margin.core.document import Rectangle, Shape
from lucky_margin.core.edits.context import Context, Edited, changed
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing.rooms import clamped
from lucky_margin.core.outlines import outline_of

MOST_MARGIN = 0.4
LEAST_SCALE = 0.05


class SetShape(EditBase):
    """Give the size another outline."""

    kind: Literal["set_shape"] = "set_shape"
    shape: Shape


@carries_out(SetShape)
def set_shape(here: Context, edit: SetShape) -> Edited:
    return here.with_size(shape=edit.shape)


class SetMargin(EditBase):
    """Give the size another margin, as a fraction of its short side."""

    kind: Literal["set_margin"] = "set_margin"
    margin: float


@carries_out(SetMargin)
def set_margin(here: Context, edit: SetMargin) -> Edited:
    return here.with_size(margin=edit.margin)


class DragMargin(EditBase):
    """Make the margin wider by so many output pixels."""

    kind: Literal["drag_margin"] = "drag_margin"
    by: float


@carries_out(DragMargin)
def drag_margin(here: Context, edit: DragMargin) -> Edited:
    margin = here.size.margin + edit.by / here.frame.output.short_side
    return here.with_size(margin=clamped(margin, 0, MOST_MARGIN))


class DragShape(EditBase):
    """Drag the shape, the grip at its lower right or that of its corner radius, in output
    pixels."""

    kind: Literal["drag_shape"] = "drag_shape"
    grip: Literal["move", "scale", "radius"]
    dx: float
    dy: float


@carries_out(DragShape)
def drag_shape(here: Context, edit: DragShape) -> Edited:
    if edit.grip == "radius":
        return _drag_radius(here, edit)
    output, shape = here.frame.output, here.size.shape
    left, top, right, bottom = outline_of(shape, output.width, output.height).region.bounds
    width, height, scale = right - left, bottom - top, shape.scale
    if edit.grip == "move":
        left, top = left + edit.dx, top + edit.dy
    else:
        # The pointer's way along the diagonal decides; the upper left corner stays.
        diagonal = width * width + height * height
        factor = ((width + edit.dx) * width + (height + edit.dy) * height) / diagonal
        scale = clamped(shape.scale * factor, LEAST_SCALE, 1)
        width, height = width * scale / shape.scale, height * scale / shape.scale
    x = _share(left, output.width - width, shape.x)
    y = _share(top, output.height - height, shape.y)
    return here.with_size(shape=changed(shape, scale=scale, x=x, y=y))


def _drag_radius(here: Context, edit: DragShape) -> Edited:
    shape, output = here.size.shape, here.frame.output
    if not isinstance(shape, Rectangle):
        raise BadInput("Only a rectangle has a corner radius; choose that shape first.")
    short = output.short_side * shape.scale
    radius = clamped(shape.radius + (edit.dx + edit.dy) / 2 / short, 0, 0.5)
    return here.with_size(shape=changed(shape, radius=radius))


def _share(start: float, room: float, otherwise: float) -> float:
    """Where in the room that is left a shape lies, 0..1; as before when there is none."""
    return clamped(start / room, 0, 1) if room >= 1 else otherwise
