"""Edits that place the subject on a size."""

from dataclasses import replace
from typing import Literal

from pydantic import Field

from lucky_margin.core.document import Box
from lucky_margin.core.edits.edited import Edited, with_window
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.edits.snapping import ends_and_middle, snapped_box
from lucky_margin.core.errors import BadInput
from lucky_margin.core.render.shown import subject_on_size, turned_subject_box
from lucky_margin.core.scene import Scene


class DragSubject(EditBase):
    """Move the subject on the size in hand, in output pixels."""

    kind: Literal["drag_subject"] = "drag_subject"
    dx: float
    dy: float
    snap: float = Field(default=0, ge=0, description="How near a line draws, in output pixels.")


@carries_out(DragSubject)
def drag_subject(scene: Scene, edit: DragSubject) -> Edited:
    """The window moved the other way, so that the subject's sides or middle come to lie on the
    size's sides, thirds or middle, or on those of the margin box, where they are near.

    Raises:
        BadInput: nothing is cut out.
    """
    shown = subject_on_size(scene)
    if shown is None:
        raise BadInput("Nothing is cut out yet; find the subject first.")
    frame, room = scene.frame, scene.margins.box
    output, scale = frame.output, frame.enlargement
    drawn_x, drawn_y, guides = snapped_box(
        shown.moved(edit.dx, edit.dy),
        (*_sides_and_thirds(output.width), *ends_and_middle(room.left, room.width)),
        (*_sides_and_thirds(output.height), *ends_and_middle(room.top, room.height)),
        edit.snap,
        output,
    )
    window = frame.window.moved(-(edit.dx + drawn_x) / scale, -(edit.dy + drawn_y) / scale)
    moved = with_window(scene, scene.photo.window_room.moved_inside(window))
    return replace(moved, guides=tuple(guides))


def _sides_and_thirds(length: float) -> tuple[float, ...]:
    return (0, length / 3, length / 2, length * 2 / 3, length)


MOST_ACROSS = 0.92
"""Share of a size's width that a subject takes up at most; a wider one is less high."""


class StandSubject(EditBase):
    """Have the subject stand as high, on the same line, on every size, as in other finishes:
    ``height`` and ``line`` (from the top) are shares of the height of the photo's box."""

    kind: Literal["stand_subject"] = "stand_subject"
    height: float = Field(default=0.7, ge=0.1, le=1)
    line: float = Field(default=0.88, ge=0.1, le=1)


@carries_out(StandSubject)
def stand_subject(scene: Scene, edit: StandSubject) -> Edited:
    """The windows in which the subject stands so, past the photo's edges where it has to.

    Raises:
        BadInput: nothing is cut out.
    """
    finish, stands = scene.finish, False
    for size in scene.finish.sizes:
        one = Scene.of(finish, size.id, scene.sources)
        box = turned_subject_box(one)
        if box is None:
            continue
        stands = True
        finish = with_window(one, _standing(box, one, edit)).finish
    if not stands:
        raise BadInput("Nothing is cut out yet; find the subject first.")
    return Edited.of(scene, finish)


def _standing(box: Box, scene: Scene, edit: StandSubject) -> Box:
    """The window, in turned pixels, in which a subject's box stands so. Its middle stays where it
    is across the size, as far as all of it then shows."""
    now = scene.frame.window
    ratio = now.width / now.height
    height = max(box.height / edit.height, box.width / MOST_ACROSS / ratio)
    width = height * ratio
    half = box.width / width / 2
    across = min(max((box.centre[0] - now.left) / now.width, half), 1 - half)
    left, top = box.centre[0] - across * width, box.bottom - edit.line * height
    return Box(left=left, top=top, width=width, height=height)
