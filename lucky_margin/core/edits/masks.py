"""Edits of the masks that narrow areas and treatments down.

Masks live in photo space; the screen speaks in output pixels.
"""

import math
from collections.abc import Callable
from typing import Any, Literal

import numpy as np

from lucky_margin.core import oklab
from lucky_margin.core.document import (
    AreaMask,
    BandMask,
    Colour,
    EllipseMask,
    HueMask,
    LightMask,
    SubjectAreaMask,
    rgb_of,
)
from lucky_margin.core.document.areas import MOST_MASKS
from lucky_margin.core.edits.edited import Edited, changed
from lucky_margin.core.edits.on_photo import line_dragged, moved, spot_at, way_in_photo
from lucky_margin.core.edits.registry import EditBase, MaskKind, MaskPlace, ToneGrip, carries_out
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.scene import Scene

FIRST_RADIUS = 0.3
"""Of the shown part's short side: how large an ellipse begins."""

LIGHT_REACH = 14.0
"""OKLab lightness (0..100) to either side of a picked one."""

_LISTS: dict[MaskPlace, tuple[str, str]] = {
    "area": ("tone", "areas"),
    "treatment": ("treatments", "made"),
}
"""The step and the list in it."""

_SMALLEST = 0.005

_PLACELESS: dict[str, Callable[[], AreaMask]] = {
    "light": LightMask,
    "hue": HueMask,
    "subject": SubjectAreaMask,
}
"""Masks that are nowhere in particular."""


class AddMask(EditBase):
    """Narrow an area or a treatment down by one more mask."""

    kind: Literal["add_mask"] = "add_mask"
    place: MaskPlace = "area"
    number: int
    mask: MaskKind
    only_this_size: bool = False


@carries_out(AddMask)
def add_mask(scene: Scene, edit: AddMask) -> Edited:
    """One more mask, to narrow down what it is of.

    Raises:
        BadInput: there is no such area or treatment, or it has too many masks.
    """
    masks = _masks(scene, edit)
    if len(masks) >= MOST_MASKS:
        raise BadInput(f"There are {MOST_MASKS} masks at most; change one of them.")
    return _with_masks(scene, edit, (*masks, fresh_mask(scene, edit.mask)))


class PickForMask(EditBase):
    """Set a mask's range around a colour of the photo."""

    kind: Literal["pick_for_mask"] = "pick_for_mask"
    place: MaskPlace = "area"
    number: int
    mask: int
    colour: Colour
    only_this_size: bool = False


@carries_out(PickForMask)
def pick_for_mask(scene: Scene, edit: PickForMask) -> Edited:
    """The range of a mask around a colour of the photo."""
    mask = _mask(scene, edit)
    lab = oklab.from_light(decode(np.array(rgb_of(edit.colour)) / 255))
    if isinstance(mask, LightMask):
        light = 100 * float(lab[0])
        low, high = max(0.0, light - LIGHT_REACH), min(100.0, light + LIGHT_REACH)
        picked: AreaMask = changed(mask, low=round(low), high=round(high))
    elif isinstance(mask, HueMask):
        hue = math.degrees(math.atan2(lab[2], lab[1])) % 360
        picked = changed(mask, hue=round(hue))
    else:
        raise BadInput("Only a range of lightness or of hue is picked from the photo.")
    return _with_mask(scene, edit, picked)


class DragMask(EditBase):
    """Drag a band or an ellipse by one of its grips, in output pixels."""

    kind: Literal["drag_mask"] = "drag_mask"
    place: MaskPlace = "area"
    number: int
    mask: int
    grip: ToneGrip
    dx: float
    dy: float
    only_this_size: bool = False


@carries_out(DragMask)
def drag_mask(scene: Scene, edit: DragMask) -> Edited:
    """A band or an ellipse with one of its grips elsewhere."""
    mask = _mask(scene, edit)
    if isinstance(mask, BandMask):
        return _with_mask(scene, edit, line_dragged(scene, mask, edit))
    if isinstance(mask, EllipseMask):
        return _with_mask(scene, edit, _ellipse_dragged(scene, mask, edit))
    raise BadInput("Only a band or an ellipse is dragged.")


def _ellipse_dragged(scene: Scene, ellipse: EllipseMask, edit: DragMask) -> EllipseMask:
    """The rim to the right sets its radius and the angle, the rim below the other radius."""
    if edit.grip not in ("right", "below"):
        centre = moved(scene, ellipse.centre, edit.dx, edit.dy)
        return changed(ellipse, centre=centre)
    long_side = max(scene.facts.width, scene.facts.height)
    angle = math.radians(ellipse.angle)
    right = edit.grip == "right"
    radius = (ellipse.radius_x if right else ellipse.radius_y) * long_side
    way = angle if right else angle + math.pi / 2
    dx, dy = way_in_photo(scene, edit.dx, edit.dy)
    x, y = radius * math.cos(way) + dx, radius * math.sin(way) + dy
    if right:
        length = max(math.hypot(x, y) / long_side, _SMALLEST)
        turned = math.degrees(math.atan2(y, x))
        return changed(ellipse, radius_x=min(length, 3), angle=round(turned, 1))
    along = (x * math.cos(way) + y * math.sin(way)) / long_side
    return changed(ellipse, radius_y=min(max(along, _SMALLEST), 3))


def fresh_mask(scene: Scene, kind: MaskKind) -> AreaMask:
    """A new mask of a kind, in what is shown."""
    output = scene.frame.output
    middle = output.width / 2
    if kind == "band":
        start, end = (spot_at(scene, middle, share * output.height) for share in (0.25, 0.6))
        return BandMask(start=start, end=end)
    if kind == "ellipse":
        x, y = way_in_photo(scene, FIRST_RADIUS * output.short_side, 0)
        radius = math.hypot(x, y) / max(scene.facts.width, scene.facts.height)
        centre = spot_at(scene, middle, output.height / 2)
        radius = min(max(radius, _SMALLEST), 3)
        return EllipseMask(centre=centre, radius_x=radius, radius_y=radius)
    return _PLACELESS[kind]()


MaskEdit = AddMask | PickForMask | DragMask


def _masks(scene: Scene, edit: MaskEdit) -> tuple[AreaMask, ...]:
    step, field = _LISTS[edit.place]
    found = getattr(scene.finish.as_set(step, scene.size), field)
    if not 0 <= edit.number < len(found):
        raise BadInput(f"There is no {edit.place} {edit.number + 1} (any more).")
    masks: tuple[AreaMask, ...] = found[edit.number].masks
    return masks


def _mask(scene: Scene, edit: PickForMask | DragMask) -> AreaMask:
    masks = _masks(scene, edit)
    if not 0 <= edit.mask < len(masks):
        raise BadInput(f"This {edit.place} has no mask {edit.mask + 1} (any more).")
    return masks[edit.mask]


def _with_mask(scene: Scene, edit: PickForMask | DragMask, mask: AreaMask) -> Edited:
    masks = list(_masks(scene, edit))
    masks[edit.mask] = mask
    return _with_masks(scene, edit, tuple(masks))


def _with_masks(scene: Scene, edit: MaskEdit, masks: tuple[AreaMask, ...]) -> Edited:
    """The step with other masks in what is edited; it is switched on by that."""
    step, field = _LISTS[edit.place]
    among = list(getattr(scene.finish.as_set(step, scene.size), field))
    among[edit.number] = changed(among[edit.number], masks=masks)
    changes: Any = type(getattr(scene.size.overrides, step))
    fields = {"on": True, field: tuple(among)}
    return step_changed(scene, step, changes(**fields), edit.only_this_size)
