"""Edits of a size's shape and margin."""

from typing import Literal

from lucky_margin.core.document import Rectangle, Shape
from lucky_margin.core.edits.edited import Edited, changed, with_size
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing.rooms import clamped
from lucky_margin.core.outlines import outline_of
from lucky_margin.core.scene import Scene

MOST_MARGIN = 0.4
LEAST_SCALE = 0.05


class SetShape(EditBase):
    """Give the size another outline."""

    kind: Literal["set_shape"] = "set_shape"
    shape: Shape


@carries_out(SetShape)
def set_shape(scene: Scene, edit: SetShape) -> Edited:
    """The size in another shape."""
    return with_size(scene, shape=edit.shape)


class SetMargin(EditBase):
    """Give the size another margin, as a fraction of its short side."""

    kind: Literal["set_margin"] = "set_margin"
    margin: float


@carries_out(SetMargin)
def set_margin(scene: Scene, edit: SetMargin) -> Edited:
    """The size with another margin, a fraction of its short side."""
    return with_size(scene, margin=edit.margin)


class DragMargin(EditBase):
    """Make the margin wider by so many output pixels."""

    kind: Literal["drag_margin"] = "drag_margin"
    by: float


@carries_out(DragMargin)
def drag_margin(scene: Scene, edit: DragMargin) -> Edited:
    """The margin changed by so many output pixels."""
    margin = scene.size.margin + edit.by / scene.frame.output.short_side
    return with_size(scene, margin=clamped(margin, 0, MOST_MARGIN))


class DragShape(EditBase):
    """Drag the shape, the grip at its lower right or that of its corner radius, in output
    pixels."""

    kind: Literal["drag_shape"] = "drag_shape"
    grip: Literal["move", "scale", "radius"]
    dx: float
    dy: float


@carries_out(DragShape)
def drag_shape(scene: Scene, edit: DragShape) -> Edited:
    """The shape moved, scaled or rounded by a grip."""
    if edit.grip == "radius":
        return _drag_radius(scene, edit)
    output, shape = scene.frame.output, scene.size.shape
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
    return with_size(scene, shape=changed(shape, scale=scale, x=x, y=y))


def _drag_radius(scene: Scene, edit: DragShape) -> Edited:
    shape, output = scene.size.shape, scene.frame.output
    if not isinstance(shape, Rectangle):
        raise BadInput("Only a rectangle has a corner radius; choose that shape first.")
    short = output.short_side * shape.scale
    radius = clamped(shape.radius + (edit.dx + edit.dy) / 2 / short, 0, 0.5)
    return with_size(scene, shape=changed(shape, radius=radius))


def _share(start: float, room: float, otherwise: float) -> float:
    """Where in the room that is left a shape lies, 0..1; as before when there is none."""
    return clamped(start / room, 0, 1) if room >= 1 else otherwise
