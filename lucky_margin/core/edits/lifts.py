"""Edits of lifts: adding one where it is wanted, and dragging its region over the photo."""

from dataclasses import replace
from typing import Any, Literal

from lucky_margin.core.document import (
    MOST_LIFTS,
    Box,
    Lift,
    LiftBase,
    Lifts,
    LiftsChanges,
    Shape,
    ShapeRegion,
    SubjectRegion,
    TreatmentsChanges,
)
from lucky_margin.core.edits.edited import Edited, changed
from lucky_margin.core.edits.on_photo import way_in_photo
from lucky_margin.core.edits.registry import EditBase, ToneGrip, carries_out
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene

FIRST_SHARE = 0.5
"""Of what the size shows: how much a new lift takes where no focus has a box."""

SMALLEST = 0.01
"""Of the photo's sides."""


class AddLift(EditBase):
    """Lift what is in focus, or the middle of what is shown, in a shape; or the subject."""

    kind: Literal["add_lift"] = "add_lift"
    shape: Shape | None = None
    only_this_size: bool = False


@carries_out(AddLift)
def add_lift(scene: Scene, edit: AddLift) -> Edited:
    """One more lift on top; the first one greys its base, so that it can be seen.

    Raises:
        BadInput: there is no photo, or there are too many lifts.
    """
    _ = scene.photo_sha256
    lifts = _lifts(scene)
    if len(lifts.lifted) >= MOST_LIFTS:
        raise BadInput(f"There are {MOST_LIFTS} lifts at most; change one of them.")
    region: Any = SubjectRegion()
    if edit.shape is not None:
        region = ShapeRegion(shape=edit.shape, box=_first_box(scene))
    fields: dict[str, Any] = {"lifted": (*lifts.lifted, Lift(region=region))}
    if not lifts.lifted and lifts.base == LiftBase():
        fields["base"] = LiftBase(grey=1)
    return _with(scene, edit.only_this_size, **fields)


class DragLift(EditBase):
    """Drag a lift's region over the photo by its middle, or by its upper left (start) or lower
    right (end) corner, in output pixels."""

    kind: Literal["drag_lift"] = "drag_lift"
    number: int
    grip: ToneGrip
    dx: float
    dy: float
    only_this_size: bool = False


@carries_out(DragLift)
def drag_lift(scene: Scene, edit: DragLift) -> Edited:
    """
    Raises:
        BadInput: there is no such lift, or it has the subject's own edge.
    """
    lifted = list(_lifts(scene).lifted)
    if not 0 <= edit.number < len(lifted):
        raise BadInput(f"There is no lift {edit.number + 1} (any more).")
    lift = lifted[edit.number]
    if not isinstance(lift.region, ShapeRegion):
        raise BadInput("The subject is lifted by its own edge; the cut-out's brushes change that.")
    x, y = way_in_photo(scene, edit.dx, edit.dy)
    box = _dragged(lift.region.box, edit.grip, x / scene.facts.width, y / scene.facts.height)
    lifted[edit.number] = changed(lift, region=changed(lift.region, box=box))
    return _with(scene, edit.only_this_size, lifted=tuple(lifted))


def _dragged(box: Box, grip: ToneGrip, x: float, y: float) -> Box:
    """The box moved, or with one corner elsewhere; always on the photo (0..1)."""
    left, top, right, bottom = box.edges
    if grip == "start":
        left = min(max(left + x, 0.0), right - SMALLEST)
        top = min(max(top + y, 0.0), bottom - SMALLEST)
    elif grip == "end":
        right = max(min(right + x, 1.0), left + SMALLEST)
        bottom = max(min(bottom + y, 1.0), top + SMALLEST)
    else:
        x = min(max(x, -left), 1 - right)
        y = min(max(y, -top), 1 - bottom)
        left, top, right, bottom = left + x, top + y, right + x, bottom + y
    left, top, right, bottom = (round(side, 6) for side in (left, top, right, bottom))
    return Box(left=left, top=top, width=right - left, height=bottom - top)


def _first_box(scene: Scene) -> Box:
    """What is in focus, or the middle of what is shown, in photo space."""
    if scene.focus and scene.focus.box:
        return scene.focus.box
    width, height = scene.sides
    margin = (1 - FIRST_SHARE) / 2
    corners = [
        scene.frame.from_output(x * width, y * height)
        for x in (margin, 1 - margin)
        for y in (margin, 1 - margin)
    ]
    xs = [min(max(x / scene.facts.width, 0.0), 1.0) for x, _ in corners]
    ys = [min(max(y / scene.facts.height, 0.0), 1.0) for _, y in corners]
    left, top = min(min(xs), 1 - SMALLEST), min(min(ys), 1 - SMALLEST)
    right, bottom = max(*xs, left + SMALLEST), max(*ys, top + SMALLEST)
    return Box(left=left, top=top, width=right - left, height=bottom - top)


def _lifts(scene: Scene) -> Lifts:
    """The lifts as the size in hand has them, seen or not."""
    lifts: Lifts = scene.finish.as_set("lifts", scene.size)
    return lifts


def _with(scene: Scene, only_this_size: bool, **fields: Any) -> Edited:
    """The lifts with other fields, switched on with the treatments they belong to."""
    edited = step_changed(scene, "lifts", LiftsChanges(**fields), only_this_size)
    if scene.finish.as_set("treatments", scene.size).on:
        return edited
    finish = edited.finish
    switched = replace(scene, finish=finish, size=finish.size(scene.size.id))
    return step_changed(switched, "treatments", TreatmentsChanges(on=True), only_this_size)
