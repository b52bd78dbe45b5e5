"""Edits of what a size shows: window, focus, turning, shape and margin."""

import math

from lucky_margin.core.document import Box, Crop, Finish, Focus, Point, Turn, TurnChanges
from lucky_margin.core.edits import edit as edits
from lucky_margin.core.edits.context import Context, Edited, changed
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing import dragged, drawn, scaled, typed
from lucky_margin.core.framing.rooms import clamped

MOST_STRAIGHTENING = 45.0

LEAST_BOX = 1.0
"""Photo pixels; a focus box with a shorter side is a point."""


def drag_window(here: Context, edit: edits.DragWindow) -> Edited:
    box = dragged(
        here.frame.window,
        here.photo.window_room,
        grip=edit.grip,
        dx=edit.dx,
        dy=edit.dy,
        ratio=here.frame.held_ratio,
        pull=edit.snap,
    )
    return here.with_window(box)


def draw_window(here: Context, edit: edits.DrawWindow) -> Edited:
    box = drawn(
        here.photo.window_room,
        x0=edit.x0,
        y0=edit.y0,
        x1=edit.x1,
        y1=edit.y1,
        ratio=here.frame.held_ratio,
    )
    return here.with_window(box)


def type_window(here: Context, edit: edits.TypeWindow) -> Edited:
    frame = here.frame
    box = typed(
        frame.window,
        here.photo.window_room,
        field=edit.field,
        value=edit.value,
        ratio=frame.held_ratio,
    )
    edited = here.with_window(box)
    read = {"from_left": "left", "from_top": "top"}.get(edit.field, edit.field)
    reached = getattr(box, read)
    if abs(reached - edit.value) < 1:
        return edited
    return here.edited(
        edited.finish, f"The photo allows {reached:.0f} px here, so that is what it became."
    )


def set_window(here: Context, edit: edits.SetWindow) -> Edited:
    if edit.window is None:
        return here.with_crop(window=None)
    return here.with_window(here.photo.window_room.moved_inside(edit.window))


def scale_window(here: Context, edit: edits.ScaleWindow) -> Edited:
    return here.with_window(scaled(here.frame.window, here.photo.window_room, factor=edit.factor))


def set_contain(here: Context, edit: edits.SetContain) -> Edited:
    return here.with_crop(contain=edit.contain)


def set_focus(here: Context, edit: edits.SetFocus) -> Edited:
    return here.edited(changed(here.finish, focus=edit.focus))


def draw_focus(here: Context, edit: edits.DrawFocus) -> Edited:
    corners = [here.photo.to_photo(x, y) for x in (edit.x0, edit.x1) for y in (edit.y0, edit.y1)]
    xs = [clamped(x / here.facts.width, 0, 1) for x, _ in corners]
    ys = [clamped(y / here.facts.height, 0, 1) for _, y in corners]
    left, top, width, height = min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
    point = Point(x=left + width / 2, y=top + height / 2)
    box = None
    if width * here.facts.width >= LEAST_BOX and height * here.facts.height >= LEAST_BOX:
        # Rounding may not carry the far edges past the photo.
        box = Box(left=left, top=top, width=min(width, 1 - left), height=min(height, 1 - top))
    return here.edited(changed(here.finish, focus=Focus(point=point, box=box)))


def set_turn(here: Context, edit: edits.SetTurn) -> Edited:
    return step_changed(here, "turn", edit.changes, edit.only_this_size)


def turn_quarter(here: Context, edit: edits.TurnQuarter) -> Edited:
    turn = here.photo.turn
    quarters = (turn.quarters + (1 if edit.way == "right" else 3)) % 4
    edited = step_changed(here, "turn", TurnChanges(quarters=quarters), edit.only_this_size)
    return here.edited(_with_windows_turned(here.finish, edited.finish))


def mirror(here: Context, edit: edits.Mirror) -> Edited:
    """Mirroring what is seen runs every turn the other way round."""
    turn = here.photo.turn
    half = 0 if edit.way == "across" else 2
    changes = TurnChanges(
        mirrored=not turn.mirrored,
        quarters=(half - turn.quarters) % 4,
        straighten=-turn.straighten,
    )
    return step_changed(here, "turn", changes, edit.only_this_size)


def level_line(here: Context, edit: edits.LevelLine) -> Edited:
    dx, dy = edit.x1 - edit.x0, edit.y1 - edit.y0
    if dx == dy == 0:
        raise BadInput("A line needs two ends; draw it along something level or upright.")
    slope = math.degrees(math.atan2(dy, dx))
    off = (slope + 45) % 90 - 45  # from the nearer of level and upright, -45 to 45
    limit = MOST_STRAIGHTENING
    straighten = clamped(here.photo.turn.straighten - off, -limit, limit)
    changes = TurnChanges(straighten=round(straighten, 2))
    return step_changed(here, "turn", changes, edit.only_this_size)


def reset_crop(here: Context) -> Edited:
    """Follow the focus again, no turn, and the shape the size came with."""
    own = here.size.own.model_copy(update={"turn": TurnChanges()})
    finish = here.finish.model_copy(update={"turn": Turn()})
    size = here.size.model_copy(update={"crop": Crop(), "shape": here.size.came_as, "own": own})
    return here.edited(finish.with_size(size))


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
