"""Edits of what tone has a place for: washes and areas.

Both live in photo space; the screen speaks in output pixels.
"""

from typing import Any, Literal

from pydantic import Field

from lucky_margin.core.document import Area, Tone, ToneChanges, Wash
from lucky_margin.core.document.areas import AreaSetting
from lucky_margin.core.document.tone import MOST_AREAS, MOST_WASHES
from lucky_margin.core.edits.edited import Edited, changed
from lucky_margin.core.edits.masks import fresh_mask
from lucky_margin.core.edits.on_photo import line_dragged, spot_at
from lucky_margin.core.edits.registry import EditBase, MaskKind, ToneGrip, carries_out
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene


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
    ends = [spot_at(scene, output.width / 2, y) for y in (0, output.height)]
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
    mask = changed(fresh_mask(scene, edit.mask), inverted=edit.inverted)
    area = Area.model_validate({"masks": (mask,), **edit.settings})
    return _with(scene, edit.only_this_size, areas=(*areas, area))


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
    washes[edit.number] = line_dragged(scene, washes[edit.number], edit)
    return _with(scene, edit.only_this_size, washes=tuple(washes))


def _tone(scene: Scene) -> Tone:
    """The tone as the size in hand has it, on or off."""
    tone: Tone = scene.finish.as_set("tone", scene.size)
    return tone


def _with(scene: Scene, only_this_size: bool, **fields: Any) -> Edited:
    return step_changed(scene, "tone", ToneChanges(on=True, **fields), only_this_size)
