"""Edits of a size's shape and margin."""

from lucky_margin.core.document import Rectangle
from lucky_margin.core.edits import edit as edits
from lucky_margin.core.edits.context import Context, Edited, changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing.rooms import clamped
from lucky_margin.core.outlines import outline_of

MOST_MARGIN = 0.4
LEAST_SCALE = 0.05


def set_shape(here: Context, edit: edits.SetShape) -> Edited:
    return here.with_size(shape=edit.shape)


def set_margin(here: Context, edit: edits.SetMargin) -> Edited:
    return here.with_size(margin=edit.margin)


def drag_margin(here: Context, edit: edits.DragMargin) -> Edited:
    margin = here.size.margin + edit.by / here.frame.output.short_side
    return here.with_size(margin=clamped(margin, 0, MOST_MARGIN))


def drag_shape(here: Context, edit: edits.DragShape) -> Edited:
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


def _drag_radius(here: Context, edit: edits.DragShape) -> Edited:
    shape, output = here.size.shape, here.frame.output
    if not isinstance(shape, Rectangle):
        raise BadInput("Only a rectangle has a corner radius; choose that shape first.")
    short = output.short_side * shape.scale
    radius = clamped(shape.radius + (edit.dx + edit.dy) / 2 / short, 0, 0.5)
    return here.with_size(shape=changed(shape, radius=radius))


def _share(start: float, room: float, otherwise: float) -> float:
    """Where in the room that is left a shape lies, 0..1; as before when there is none."""
    return clamped(start / room, 0, 1) if room >= 1 else otherwise
