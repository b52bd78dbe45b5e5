"""Carrying out edits. Pure: a finish goes in, the changed one and perhaps a remark come out."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import ValidationError

from lucky_margin.core.document import (
    AsCropped,
    BorderChanges,
    Box,
    Crop,
    ExportChanges,
    Finish,
    FixedPixels,
    OneSide,
    OwnWays,
    Ratio,
    Shape,
    Size,
    Value,
    Window,
    describe_validation_error,
)
from lucky_margin.core.edits import edit as edits
from lucky_margin.core.errors import BadDocument
from lucky_margin.core.framing import dragged, drawn, frame_of, moved_inside, typed, whole
from lucky_margin.core.photos import PhotoFacts

AnyValue = TypeVar("AnyValue", bound=Value)


@dataclass(frozen=True)
class Edited:
    """What an edit made of a finish; ``said`` is a remark for the user, or empty."""

    finish: Finish
    said: str = ""


def apply_edit(finish: Finish, size_id: str, edit: edits.Edit, facts: PhotoFacts) -> Edited:
    """``finish`` after ``edit``, which concerns the size ``size_id`` where it concerns one.

    Raises:
        BadDocument: the edit asks for a value out of range.
        NotFound: there is no such size.
        TooLarge: the size would come to too many pixels.
    """
    size = finish.size(size_id)
    try:
        edited = _APPLY[type(edit)](finish, size, edit, facts)
        checked = Finish.model_validate(edited.finish.model_dump())
    except ValidationError as error:
        raise BadDocument(describe_validation_error(error)) from error
    frame_of(checked, checked.size(size_id), facts.width, facts.height)
    return Edited(checked, edited.said)


def _changed(value: AnyValue, **fields: Any) -> AnyValue:
    """A copy of ``value`` with other fields, validated."""
    return type(value).model_validate(value.model_dump() | fields)


def _with_window(finish: Finish, size: Size, box: Box) -> Edited:
    crop = Crop(window=Window.around(box))
    return Edited(finish.with_size(size.model_copy(update={"crop": crop})))


def _choose_ratio(finish: Finish, size: Size, edit: edits.ChooseRatio, facts: PhotoFacts) -> Edited:
    if edit.ratio is None:
        return _free_ratio(finish, size, facts)
    ratio = (
        Ratio(width=facts.width, height=facts.height) if edit.ratio == "original" else edit.ratio
    )
    pixels, said = size.pixels, ""
    if isinstance(pixels, FixedPixels):
        long = max(pixels.width, pixels.height)
        width = long if ratio.value >= 1 else max(1, round(long * ratio.value))
        height = long if ratio.value <= 1 else max(1, round(long / ratio.value))
        if (width, height) != (pixels.width, pixels.height):
            said = f"The size is now {width} × {height} px: its shorter side follows the ratio."
        changed = size.model_copy(update={"pixels": FixedPixels(width=width, height=height)})
    else:
        changed = size.model_copy(update={"pixels": _changed(pixels, ratio=ratio)})
    return Edited(_reframed(finish, changed, facts), said)


def _free_ratio(finish: Finish, size: Size, facts: PhotoFacts) -> Edited:
    """Freeing keeps what shows; a fixed size keeps its longer side and says so."""
    window = frame_of(finish, size, facts.width, facts.height).window
    pixels, said = size.pixels, ""
    if isinstance(pixels, FixedPixels):
        wide = pixels.width >= pixels.height
        length = max(pixels.width, pixels.height)
        freed: OneSide | AsCropped = OneSide(side="width" if wide else "height", length=length)
        said = (
            f"The {'width' if wide else 'height'} stays {length} px; "
            f"the {'height' if wide else 'width'} now follows the window."
        )
    else:
        freed = _changed(pixels, ratio=None)
    return Edited(
        _with_window(finish, size.model_copy(update={"pixels": freed}), window).finish, said
    )


def _set_pixels(finish: Finish, size: Size, edit: edits.SetPixels, facts: PhotoFacts) -> Edited:
    fields = {"pixels": edit.pixels} | ({"name": edit.name} if edit.name else {})
    return Edited(_reframed(finish, size.model_copy(update=fields), facts))


def _reframed(finish: Finish, size: Size, facts: PhotoFacts) -> Finish:
    """The finish with ``size``, whose own window takes the ratio it is now held to.

    The window keeps its centre and, as far as the photo allows, its area.
    """
    own = size.crop.window
    held = frame_of(finish, size, facts.width, facts.height).held_ratio
    if own is None or held is None:
        return finish.with_size(size)
    photo = whole(facts.width, facts.height)
    area = own.width * own.height
    width = min((area * held) ** 0.5, photo.width, photo.height * held)
    height = width / held
    box = Box(
        left=own.center_x - width / 2, top=own.center_y - height / 2, width=width, height=height
    )
    return _with_window(finish, size, moved_inside(box, photo)).finish


def _drag_window(finish: Finish, size: Size, edit: edits.DragWindow, facts: PhotoFacts) -> Edited:
    frame = frame_of(finish, size, facts.width, facts.height)
    box = dragged(
        frame.window,
        whole(facts.width, facts.height),
        grip=edit.grip,
        dx=edit.dx,
        dy=edit.dy,
        ratio=frame.held_ratio,
    )
    return _with_window(finish, size, box)


def _draw_window(finish: Finish, size: Size, edit: edits.DrawWindow, facts: PhotoFacts) -> Edited:
    held = frame_of(finish, size, facts.width, facts.height).held_ratio
    photo = whole(facts.width, facts.height)
    box = drawn(photo, x0=edit.x0, y0=edit.y0, x1=edit.x1, y1=edit.y1, ratio=held)
    return _with_window(finish, size, box)


def _type_window(finish: Finish, size: Size, edit: edits.TypeWindow, facts: PhotoFacts) -> Edited:
    frame = frame_of(finish, size, facts.width, facts.height)
    photo = whole(facts.width, facts.height)
    box = typed(frame.window, photo, field=edit.field, value=edit.value, ratio=frame.held_ratio)
    edited = _with_window(finish, size, box)
    reached = box.left if edit.field == "from_left" else box.top
    reached = reached if edit.field.startswith("from_") else getattr(box, edit.field)
    if abs(reached - edit.value) < 1:
        return edited
    return Edited(
        edited.finish, f"The photo allows {reached:.0f} px here, so that is what it became."
    )


def _set_window(finish: Finish, size: Size, edit: edits.SetWindow, facts: PhotoFacts) -> Edited:
    if edit.window is None:
        return Edited(finish.with_size(size.model_copy(update={"crop": Crop()})))
    return _with_window(finish, size, moved_inside(edit.window, whole(facts.width, facts.height)))


def _set_focus(finish: Finish, size: Size, edit: edits.SetFocus, facts: PhotoFacts) -> Edited:
    return Edited(_changed(finish, focus=edit.focus))


def _set_shape(finish: Finish, size: Size, edit: edits.SetShape, facts: PhotoFacts) -> Edited:
    return Edited(finish.with_size(size.model_copy(update={"shape": edit.shape})))


def _set_margin(finish: Finish, size: Size, edit: edits.SetMargin, facts: PhotoFacts) -> Edited:
    return Edited(finish.with_size(_changed(size, margin=edit.margin)))


def _set_ground(finish: Finish, size: Size, edit: edits.SetGround, facts: PhotoFacts) -> Edited:
    return Edited(finish.model_copy(update={edit.place: edit.ground}))


def _set_border(finish: Finish, size: Size, edit: edits.SetBorder, facts: PhotoFacts) -> Edited:
    return _set_step(finish, size, "border", edit.changes, edit.only_this_size)


def _set_export(finish: Finish, size: Size, edit: edits.SetExport, facts: PhotoFacts) -> Edited:
    return _set_step(finish, size, "export", edit.changes, edit.only_this_size)


def _set_step(
    finish: Finish,
    size: Size,
    step: str,
    changes: BorderChanges | ExportChanges,
    only_this_size: bool,
) -> Edited:
    own = getattr(size.own, step)
    if only_this_size and len(finish.sizes) > 1:
        changed_own = _changed(own, **changes.model_dump())
        ways = size.own.model_copy(update={step: changed_own})
        return Edited(finish.with_size(size.model_copy(update={"own": ways})))
    return Edited(finish.model_copy(update={step: changes.applied_to(getattr(finish, step))}))


def _set_file_details(
    finish: Finish, size: Size, edit: edits.SetFileDetails, facts: PhotoFacts
) -> Edited:
    fields = edit.model_dump(exclude_none=True, exclude={"kind"})
    return Edited(finish.model_copy(update={"export": _changed(finish.export, **fields)}))


def _rename(finish: Finish, size: Size, edit: edits.Rename, facts: PhotoFacts) -> Edited:
    return Edited(_changed(finish, name=edit.name))


def _reset_step(finish: Finish, size: Size, edit: edits.ResetStep, facts: PhotoFacts) -> Edited:
    if edit.step == "crop":
        return Edited(finish.with_size(size.model_copy(update={"crop": Crop(), "shape": Shape()})))
    default = type(getattr(finish, edit.step))()
    ways = OwnWays.model_validate(size.own.model_dump() | {edit.step: {}})
    reset = finish.model_copy(update={edit.step: default})
    return Edited(reset.with_size(size.model_copy(update={"own": ways})))


_APPLY: dict[type[Value], Callable[[Finish, Size, Any, PhotoFacts], Edited]] = {
    edits.ChooseRatio: _choose_ratio,
    edits.SetPixels: _set_pixels,
    edits.DragWindow: _drag_window,
    edits.DrawWindow: _draw_window,
    edits.TypeWindow: _type_window,
    edits.SetWindow: _set_window,
    edits.SetFocus: _set_focus,
    edits.SetShape: _set_shape,
    edits.SetMargin: _set_margin,
    edits.SetGround: _set_ground,
    edits.SetBorder: _set_border,
    edits.SetExport: _set_export,
    edits.SetFileDetails: _set_file_details,
    edits.Rename: _rename,
    edits.ResetStep: _reset_step,
}
