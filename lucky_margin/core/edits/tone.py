"""Edits of what tone has a place for: washes, areas and their masks.

All live in photo space; the screen speaks in output pixels.
"""

import math
from collections.abc import Callable
from typing import Any, Literal

import numpy as np
from pydantic import Field

from lucky_margin.core import oklab
from lucky_margin.core.document import (
    Area,
    AreaMask,
    BandMask,
    Colour,
    EllipseMask,
    HueMask,
    LightMask,
    PhotoPoint,
    SubjectAreaMask,
    Tone,
    ToneChanges,
    Wash,
    rgb_of,
)
from lucky_margin.core.document.areas import MOST_MASKS, AreaSetting
from lucky_margin.core.document.tone import MOST_AREAS, MOST_WASHES
from lucky_margin.core.edits.edited import Edited, changed
from lucky_margin.core.edits.registry import EditBase, MaskKind, ToneGrip, carries_out
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.scene import Scene

FIRST_RADIUS = 0.3
"""Of the shown part's short side: how large an ellipse begins."""

LIGHT_REACH = 14.0
"""OKLab lightness (0..100) to either side of a picked one."""

_SMALLEST = 0.005

_PLACELESS: dict[str, Callable[[], AreaMask]] = {
    "light": LightMask,
    "hue": HueMask,
    "subject": SubjectAreaMask,
}
"""Masks that are nowhere in particular."""


class AddWash(EditBase):
    """Add a wash over what is shown."""

    kind: Literal["add_wash"] = "add_wash"
    only_this_size: bool = False


@carries_out(AddWash)
def add_wash(scene: Scene, edit: AddWash) -> Edited:
    """A wash from the top of what is shown to its bottom."""
    washes = _tone(scene).washes
    if len(washes) >= MOST_WASHES:
        raise BadInput(f"A tone has {MOST_WASHES} washes at most; change one of them.")
    output = scene.frame.output
    ends = [_spot(scene, output.width / 2, y) for y in (0, output.height)]
    wash = Wash(start=ends[0], end=ends[1])
    return _with(scene, edit.only_this_size, washes=(*washes, wash))


class AddArea(EditBase):
    """Add an area under a mask of this kind, or under all but that, with some of its light and
    colour set."""

    kind: Literal["add_area"] = "add_area"
    mask: MaskKind
    inverted: bool = False
    settings: dict[AreaSetting, float] = Field(default_factory=dict)
    only_this_size: bool = False


@carries_out(AddArea)
def add_area(scene: Scene, edit: AddArea) -> Edited:
    """An area of one mask that lies in what is shown.

    Raises:
        BadInput: there are too many.
        pydantic.ValidationError: a setting is out of range.
    """
    areas = _tone(scene).areas
    if len(areas) >= MOST_AREAS:
        raise BadInput(f"A tone has {MOST_AREAS} areas at most; change one of them.")
    mask = changed(_fresh_mask(scene, edit.mask), inverted=edit.inverted)
    area = Area.model_validate({"masks": (mask,), **edit.settings})
    return _with(scene, edit.only_this_size, areas=(*areas, area))


class AddMask(EditBase):
    """Narrow an area down by one more mask."""

    kind: Literal["add_mask"] = "add_mask"
    number: int
    mask: MaskKind
    only_this_size: bool = False


@carries_out(AddMask)
def add_mask(scene: Scene, edit: AddMask) -> Edited:
    """One more mask, to narrow an area down."""
    area = _area(scene, edit.number)
    if len(area.masks) >= MOST_MASKS:
        raise BadInput(f"An area has {MOST_MASKS} masks at most; change one of them.")
    masks = (*area.masks, _fresh_mask(scene, edit.mask))
    return _with_area(scene, edit, changed(area, masks=masks))


class PickForMask(EditBase):
    """Set the range of an area's mask around a colour of the photo."""

    kind: Literal["pick_for_mask"] = "pick_for_mask"
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


class DragWash(EditBase):
    """Drag a wash by one of its grips, in output pixels."""

    kind: Literal["drag_wash"] = "drag_wash"
    number: int
    grip: ToneGrip
    dx: float
    dy: float
    only_this_size: bool = False


@carries_out(DragWash)
def drag_wash(scene: Scene, edit: DragWash) -> Edited:
    """A wash with one of its ends elsewhere, or all of it."""
    washes = list(_tone(scene).washes)
    if not 0 <= edit.number < len(washes):
        raise BadInput(f"There is no wash {edit.number + 1} any more.")
    washes[edit.number] = _line_dragged(scene, washes[edit.number], edit)
    return _with(scene, edit.only_this_size, washes=tuple(washes))


class DragMask(EditBase):
    """Drag a band or an ellipse by one of its grips, in output pixels."""

    kind: Literal["drag_mask"] = "drag_mask"
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
        return _with_mask(scene, edit, _line_dragged(scene, mask, edit))
    if isinstance(mask, EllipseMask):
        return _with_mask(scene, edit, _ellipse_dragged(scene, mask, edit))
    raise BadInput("Only a band or an ellipse is dragged.")


def _line_dragged(scene: Scene, line: Any, edit: DragWash | DragMask) -> Any:
    """A wash or a band after a drag of its start, its end or its middle."""
    ends = {"start": ("start",), "end": ("end",)}.get(edit.grip, ("start", "end"))
    moved = {name: _moved(scene, getattr(line, name), edit.dx, edit.dy) for name in ends}
    return changed(line, **moved)


def _ellipse_dragged(scene: Scene, ellipse: EllipseMask, edit: DragMask) -> EllipseMask:
    """The rim to the right sets its radius and the angle, the rim below the other radius."""
    if edit.grip not in ("right", "below"):
        centre = _moved(scene, ellipse.centre, edit.dx, edit.dy)
        return changed(ellipse, centre=centre)
    long_side = max(scene.facts.width, scene.facts.height)
    angle = math.radians(ellipse.angle)
    right = edit.grip == "right"
    radius = (ellipse.radius_x if right else ellipse.radius_y) * long_side
    way = angle if right else angle + math.pi / 2
    dx, dy = _in_photo(scene, edit.dx, edit.dy)
    x, y = radius * math.cos(way) + dx, radius * math.sin(way) + dy
    if right:
        length = max(math.hypot(x, y) / long_side, _SMALLEST)
        turned = math.degrees(math.atan2(y, x))
        return changed(ellipse, radius_x=min(length, 3), angle=round(turned, 1))
    along = (x * math.cos(way) + y * math.sin(way)) / long_side
    return changed(ellipse, radius_y=min(max(along, _SMALLEST), 3))


def _fresh_mask(scene: Scene, kind: str) -> AreaMask:
    output = scene.frame.output
    middle = output.width / 2
    if kind == "band":
        start, end = (_spot(scene, middle, share * output.height) for share in (0.25, 0.6))
        return BandMask(start=start, end=end)
    if kind == "ellipse":
        x, y = _in_photo(scene, FIRST_RADIUS * output.short_side, 0)
        radius = math.hypot(x, y) / max(scene.facts.width, scene.facts.height)
        centre = _spot(scene, middle, output.height / 2)
        radius = min(max(radius, _SMALLEST), 3)
        return EllipseMask(centre=centre, radius_x=radius, radius_y=radius)
    return _PLACELESS[kind]()


def _spot(scene: Scene, x: float, y: float) -> PhotoPoint:
    """A place of the output in photo space."""
    px, py = scene.frame.from_output(x, y)
    return _kept(px / scene.facts.width, py / scene.facts.height)


def _moved(scene: Scene, spot: PhotoPoint, dx: float, dy: float) -> PhotoPoint:
    x, y = _in_photo(scene, dx, dy)
    return _kept(spot.x + x / scene.facts.width, spot.y + y / scene.facts.height)


def _kept(x: float, y: float) -> PhotoPoint:
    return PhotoPoint(x=round(min(max(x, -2), 3), 6), y=round(min(max(y, -2), 3), 6))


def _in_photo(scene: Scene, dx: float, dy: float) -> tuple[float, float]:
    """A way in output pixels as one in photo pixels."""
    onto = scene.frame.from_output
    return onto.a * dx + onto.b * dy, onto.c * dx + onto.d * dy


def _tone(scene: Scene) -> Tone:
    """The tone as the size in hand has it, on or off."""
    tone: Tone = scene.finish.as_set("tone", scene.size)
    return tone


def _area(scene: Scene, number: int) -> Area:
    areas = _tone(scene).areas
    if not 0 <= number < len(areas):
        raise BadInput(f"There is no area {number + 1} (any more).")
    return areas[number]


def _mask(scene: Scene, edit: PickForMask | DragMask) -> AreaMask:
    masks = _area(scene, edit.number).masks
    if not 0 <= edit.mask < len(masks):
        raise BadInput(f"Area {edit.number + 1} has no mask {edit.mask + 1} (any more).")
    return masks[edit.mask]


def _with_mask(scene: Scene, edit: PickForMask | DragMask, mask: AreaMask) -> Edited:
    area = _area(scene, edit.number)
    masks = list(area.masks)
    masks[edit.mask] = mask
    return _with_area(scene, edit, changed(area, masks=tuple(masks)))


def _with_area(scene: Scene, edit: AddMask | PickForMask | DragMask, area: Area) -> Edited:
    areas = list(_tone(scene).areas)
    areas[edit.number] = area
    return _with(scene, edit.only_this_size, areas=tuple(areas))


def _with(scene: Scene, only_this_size: bool, **fields: Any) -> Edited:
    return step_changed(scene, "tone", ToneChanges(on=True, **fields), only_this_size)
