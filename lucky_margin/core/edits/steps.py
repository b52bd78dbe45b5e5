"""Edits of the docket's steps, which the finish sets and a size may do in its own way."""

from typing import Any

from lucky_margin.core.document import OwnWays, Size
from lucky_margin.core.document.own_ways import Changes
from lucky_margin.core.edits import edit as edits
from lucky_margin.core.edits.context import Context, Edited, changed


def step_changed(here: Context, step: str, changes: Changes, only_this_size: bool) -> Edited:
    """The finish with ``changes`` to one step, for every size or only the one in hand.

    A size that has its own way in a field keeps it, unless it is the one in hand: what is
    changed there has to be seen there, so its own way gives way.
    """
    finish, size = here.finish, here.size
    own = getattr(size.own, step)
    if only_this_size and len(finish.sizes) > 1:
        ways = with_own(size, **{step: changed(own, **changes.model_dump())})
        return here.edited(finish.with_size(ways))
    finish = finish.model_copy(update={step: changes.applied_to(getattr(finish, step))})
    kept = type(own)(
        **{key: value for key, value in own.model_dump().items() if key not in changes.given}
    )
    return here.edited(finish.with_size(with_own(size, **{step: kept})))


def set_tone(here: Context, edit: edits.SetTone) -> Edited:
    return step_changed(here, "tone", edit.changes, edit.only_this_size)


def set_border(here: Context, edit: edits.SetBorder) -> Edited:
    return step_changed(here, "border", edit.changes, edit.only_this_size)


def set_watermark(here: Context, edit: edits.SetWatermark) -> Edited:
    return step_changed(here, "watermark", edit.changes, edit.only_this_size)


def set_export(here: Context, edit: edits.SetExport) -> Edited:
    return step_changed(here, "export", edit.changes, edit.only_this_size)


def follow(here: Context, edit: edits.Follow) -> Edited:
    return here.edited(here.finish.with_size(with_own(here.size, **{edit.step: {}})))


def set_ground(here: Context, edit: edits.SetGround) -> Edited:
    return here.edited(here.finish.model_copy(update={edit.place: edit.ground}))


def set_file_details(here: Context, edit: edits.SetFileDetails) -> Edited:
    fields = edit.model_dump(exclude_none=True, exclude={"kind"})
    return here.edited(
        here.finish.model_copy(update={"export": changed(here.finish.export, **fields)})
    )


def rename(here: Context, edit: edits.Rename) -> Edited:
    return here.edited(changed(here.finish, name=edit.name))


def reset_step(here: Context, step: str) -> Edited:
    """The step's default for the finish, and no own way of the size in hand."""
    if step == "pieces":
        finish = here.finish.model_copy(update={"pieces": ()})
        for size in finish.sizes:
            finish = finish.with_size(with_own(size, pieces={}))
        return here.edited(finish)
    default = type(getattr(here.finish, step))()
    reset = here.finish.model_copy(update={step: default})
    return here.edited(reset.with_size(with_own(here.size, **{step: {}})))


def with_own(size: Size, **ways: Any) -> Size:
    """The size with other own ways in these steps."""
    return size.model_copy(update={"own": OwnWays.model_validate(size.own.model_dump() | ways)})
