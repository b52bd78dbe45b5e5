"""Edits of what a size shows: window, focus, turning, shape and margin."""

import math
from typing import Literal

from pydantic import Field

from lucky_margin.core.document import Box, Crop, Finish, Focus, Point, Turn, TurnChanges
from lucky_margin.core.edits.edited import Edited, changed, with_crop, with_window
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing import Grip, WindowField, dragged, drawn, scaled, typed
from lucky_margin.core.framing.rooms import clamped
from lucky_margin.core.scene import Scene

MOST_STRAIGHTENING = 45.0

LEAST_BOX = 1.0
"""Photo pixels; a focus box with a shorter side is a point."""


class DragWindow(EditBase):
    """Drag the window or one of its grips, in pixels of the turned photo."""

    kind: Literal["drag_window"] = "drag_window"
    grip: Grip
    dx: float
    dy: float
    snap: float = Field(default=0, ge=0, description="How near a line draws it, in photo pixels.")


@carries_out(DragWindow)
def drag_window(scene: Scene, edit: DragWindow) -> Edited:
    """The window dragged by a grip, inside what it may show of the photo."""
    box = dragged(
        scene.frame.window,
        scene.photo.window_room,
        grip=edit.grip,
        dx=edit.dx,
        dy=edit.dy,
        ratio=scene.frame.held_ratio,
        pull=edit.snap,
    )
    return with_window(scene, box)


class DrawWindow(EditBase):
    """Draw a new window from one corner to the pointer, in pixels of the turned photo."""

    kind: Literal["draw_window"] = "draw_window"
    x0: float
    y0: float
    x1: float
    y1: float


@carries_out(DrawWindow)
def draw_window(scene: Scene, edit: DrawWindow) -> Edited:
    """A new window between two corners, of the ratio that the size holds."""
    box = drawn(
        scene.photo.window_room,
        x0=edit.x0,
        y0=edit.y0,
        x1=edit.x1,
        y1=edit.y1,
        ratio=scene.frame.held_ratio,
    )
    return with_window(scene, box)


class TypeWindow(EditBase):
    """Type one number of the window, in pixels of the turned photo."""

    kind: Literal["type_window"] = "type_window"
    field: WindowField
    value: float


@carries_out(TypeWindow)
def type_window(scene: Scene, edit: TypeWindow) -> Edited:
    """The window with one number typed; how far it got is said where that differs."""
    frame = scene.frame
    box = typed(
        frame.window,
        scene.photo.window_room,
        field=edit.field,
        value=edit.value,
        ratio=frame.held_ratio,
    )
    edited = with_window(scene, box)
    read = {"from_left": "left", "from_top": "top"}.get(edit.field, edit.field)
    reached = getattr(box, read)
    if abs(reached - edit.value) < 1:
        return edited
    return Edited.of(
        scene,
        edited.finish,
        f"The photo has room for only {reached:.0f} px here, so it was set to that.",
    )


class SetWindow(EditBase):
    """Give the size this window, in pixels of the turned photo; null follows the focus again."""

    kind: Literal["set_window"] = "set_window"
    window: Box | None


@carries_out(SetWindow)
def set_window(scene: Scene, edit: SetWindow) -> Edited:
    """This window, moved inside what it may show; without one the size follows the focus again."""
    if edit.window is None:
        return with_crop(scene, window=None)
    return with_window(scene, scene.photo.window_room.moved_inside(edit.window))


class ScaleWindow(EditBase):
    """Make the window larger or smaller about its centre."""

    kind: Literal["scale_window"] = "scale_window"
    factor: float = Field(gt=0.01, lt=100)


@carries_out(ScaleWindow)
def scale_window(scene: Scene, edit: ScaleWindow) -> Edited:
    """The window larger or smaller about its middle."""
    return with_window(
        scene, scaled(scene.frame.window, scene.photo.window_room, factor=edit.factor)
    )


class SetContain(EditBase):
    """Show the whole window with the backdrop beside it, or cover the size."""

    kind: Literal["set_contain"] = "set_contain"
    contain: bool


@carries_out(SetContain)
def set_contain(scene: Scene, edit: SetContain) -> Edited:
    """The whole window, or the size covered."""
    return with_crop(scene, contain=edit.contain)


class SetFocus(EditBase):
    """Say what must stay in view in every size (photo space); null forgets it."""

    kind: Literal["set_focus"] = "set_focus"
    focus: Focus | None


@carries_out(SetFocus)
def set_focus(scene: Scene, edit: SetFocus) -> Edited:
    """What every size keeps in view."""
    return Edited.of(scene, changed(scene.finish, focus=edit.focus))


class DrawFocus(EditBase):
    """Set the focus by a click or by a box, in pixels of the turned photo.

    Both corners in the same place set a point.
    """

    kind: Literal["draw_focus"] = "draw_focus"
    x0: float
    y0: float
    x1: float
    y1: float


@carries_out(DrawFocus)
def draw_focus(scene: Scene, edit: DrawFocus) -> Edited:
    """A focus point, or with a box when the corners are far enough apart."""
    box = photo_box(scene, edit.x0, edit.y0, edit.x1, edit.y1)
    xs, ys = _on_photo(scene, edit.x0, edit.y0, edit.x1, edit.y1)
    point = Point(x=(min(xs) + max(xs)) / 2, y=(min(ys) + max(ys)) / 2)
    return Edited.of(scene, changed(scene.finish, focus=Focus(point=point, box=box)))


def photo_box(scene: Scene, x0: float, y0: float, x1: float, y1: float) -> Box | None:
    """The box between two corners (turned pixels) in photo space, cut to the photo; None when it is
    hardly more than a point."""
    xs, ys = _on_photo(scene, x0, y0, x1, y1)
    left, top, width, height = min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
    if width * scene.facts.width < LEAST_BOX or height * scene.facts.height < LEAST_BOX:
        return None
    # Rounding may not carry the far edges past the photo.
    return Box(left=left, top=top, width=min(width, 1 - left), height=min(height, 1 - top))


def _on_photo(
    scene: Scene, x0: float, y0: float, x1: float, y1: float
) -> tuple[list[float], list[float]]:
    """All four corners, in photo space, inside the photo."""
    corners = [scene.photo.to_photo(x, y) for x in (x0, x1) for y in (y0, y1)]
    xs = [clamped(x / scene.facts.width, 0, 1) for x, _ in corners]
    ys = [clamped(y / scene.facts.height, 0, 1) for _, y in corners]
    return xs, ys


class TurnQuarter(EditBase):
    """Turn the photo by a quarter, as it is seen."""

    kind: Literal["turn_quarter"] = "turn_quarter"
    way: Literal["left", "right"]
    only_this_size: bool = False


@carries_out(TurnQuarter)
def turn_quarter(scene: Scene, edit: TurnQuarter) -> Edited:
    """The photo turned as it is seen; free own windows turn with it."""
    turn = scene.photo.turn
    quarters = (turn.quarters + (1 if edit.way == "right" else 3)) % 4
    edited = step_changed(scene, "turn", TurnChanges(quarters=quarters), edit.only_this_size)
    return Edited.of(scene, _with_windows_turned(scene.finish, edited.finish))


class Mirror(EditBase):
    """Mirror the photo as it is seen: ``across`` swaps left and right, ``down`` top and bottom."""

    kind: Literal["mirror"] = "mirror"
    way: Literal["across", "down"]
    only_this_size: bool = False


@carries_out(Mirror)
def mirror(scene: Scene, edit: Mirror) -> Edited:
    """Mirroring what is seen runs every turn the other way round."""
    turn = scene.photo.turn
    half = 0 if edit.way == "across" else 2
    changes = TurnChanges(
        mirrored=not turn.mirrored,
        quarters=(half - turn.quarters) % 4,
        straighten=-turn.straighten,
    )
    return step_changed(scene, "turn", changes, edit.only_this_size)


class LevelLine(EditBase):
    """Straighten so that a line drawn along a horizon or an upright (pixels of the turned
    photo) becomes level or upright, whichever is nearer."""

    kind: Literal["level_line"] = "level_line"
    x0: float
    y0: float
    x1: float
    y1: float
    only_this_size: bool = False


@carries_out(LevelLine)
def level_line(scene: Scene, edit: LevelLine) -> Edited:
    """The photo straightened by the line's angle.

    Raises:
        BadInput: the line has no length.
    """
    dx, dy = edit.x1 - edit.x0, edit.y1 - edit.y0
    if dx == dy == 0:
        raise BadInput("That was too short; drag along something level or upright.")
    slope = math.degrees(math.atan2(dy, dx))
    off = (slope + 45) % 90 - 45  # from the nearer of level and upright, -45 to 45
    limit = MOST_STRAIGHTENING
    straighten = clamped(scene.photo.turn.straighten - off, -limit, limit)
    changes = TurnChanges(straighten=round(straighten, 2))
    return step_changed(scene, "turn", changes, edit.only_this_size)


def reset_crop(scene: Scene) -> Edited:
    """Follow the focus again, no turn, and the shape the size came with."""
    finish = scene.finish.model_copy(update={"turn": Turn()})
    size = scene.size.with_overrides(turn=TurnChanges())
    size = size.model_copy(update={"crop": Crop(), "shape": size.default_shape})
    return Edited.of(scene, finish.with_size(size))


def _with_windows_turned(before: Finish, after: Finish) -> Finish:
    """Free own windows keep showing the same part when their photo is turned by a quarter."""
    for size in before.sizes:
        window = size.crop.window
        is_free = size.pixels.ratio is None or size.crop.contain
        if window and is_free and before.turn_of(size) != after.turn_of(after.size(size.id)):
            turned = changed(window, width=window.height, height=window.width)
            crop = changed(size.crop, window=turned)
            after = after.with_size(changed(after.size(size.id), crop=crop))
    return after
