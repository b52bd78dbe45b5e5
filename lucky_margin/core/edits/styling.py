"""Edits of the house style: a finish takes one over, goes back to it, or lets it go."""

from typing import Annotated, Literal

from pydantic import Field

from lucky_margin.core.document import (
    MOST_SUBJECTS,
    PARTS,
    Box,
    Finish,
    FixedPixels,
    HouseStyle,
    PartKey,
    Row,
    Settings,
    parts_alike,
    with_style,
    without_style,
)
from lucky_margin.core.edits.cut_out import SetSubject, set_subject
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene


class UseStyle(EditBase):
    """Take a house style over: the parts ``put``, by default all that nobody changed since the
    finish got it. ``light`` and ``subjects`` (photo space, a box each) are what was found for the
    photo, where the style asks for it; ``row`` is what a table says of it."""

    kind: Literal["use_style"] = "use_style"
    style: HouseStyle
    put: tuple[PartKey, ...] | None = None
    light: Settings | None = None
    row: Row | None = None
    subjects: Annotated[tuple[Box, ...], Field(max_length=MOST_SUBJECTS)] = ()


@carries_out(UseStyle)
def use_style(scene: Scene, edit: UseStyle) -> Edited:
    """The finish in the style, with its subject where it had none.

    Raises:
        BadInput: there is no photo, and sizes of the style need one.
    """
    _check_sizes(scene.finish, edit)
    styled = with_style(scene.finish, edit.style, put=edit.put, light=edit.light, row=edit.row)
    if edit.subjects and lacks_subject(styled):
        subject = SetSubject(boxes=edit.subjects, cut_out=False)
        size = styled.sizes[0]
        styled = set_subject(Scene(styled, size, scene.sources), subject).finish
        assert styled.style is not None  # it was put there above
        found = styled.style.model_copy(update={"found": edit.subjects})
        styled = styled.model_copy(update={"style": found})
    return _with_a_size(scene, styled)


def _check_sizes(finish: Finish, edit: UseStyle) -> None:
    sizes = edit.style.parts.sizes or ()
    are_put = edit.put is None or "sizes" in edit.put
    follow_photo = any(not isinstance(size.pixels, FixedPixels) for size in sizes)
    if finish.photo is None and are_put and follow_photo:
        raise BadInput(
            f"Sizes of “{edit.style.name}” follow a photo, and this finish has none; untick the "
            "sizes, or put a photo in first."
        )


def lacks_subject(finish: Finish) -> bool:
    """Whether the subject is to be cut out and nobody has said yet what it is."""
    cut_out = finish.cut_out
    return cut_out.on and not (cut_out.boxes or cut_out.strokes or cut_out.mask)


class AdoptStyle(EditBase):
    """Name the finish as one of a style that was kept from it; nothing in it looks different."""

    kind: Literal["adopt_style"] = "adopt_style"
    style: HouseStyle


@carries_out(AdoptStyle)
def adopt_style(scene: Scene, edit: AdoptStyle) -> Edited:
    """What hangs on the photo, and so is no part of the style, stays as one's own."""
    alike = parts_alike(scene.finish, edit.style)
    return Edited.of(scene, with_style(scene.finish, edit.style, put=alike))


class RemoveStyle(EditBase):
    """Let the house style go; what nobody changed is as it was before."""

    kind: Literal["remove_style"] = "remove_style"


@carries_out(RemoveStyle)
def remove_style(scene: Scene, _: RemoveStyle) -> Edited:
    """The finish without a style."""
    return _with_a_size(scene, without_style(scene.finish))


class TakeStylePart(EditBase):
    """Have a part as the house style gave it once more."""

    kind: Literal["take_style_part"] = "take_style_part"
    part: PartKey


@carries_out(TakeStylePart)
def take_style_part(scene: Scene, edit: TakeStylePart) -> Edited:
    """
    Raises:
        BadInput: the finish has no style that gave it.
    """
    use = scene.finish.style
    if use is None or edit.part not in use.gave.given:
        raise BadInput("This is no part of the finish's house style.")
    part = next(part for part in PARTS if part.key == edit.part)
    return _with_a_size(scene, part.put(scene.finish, getattr(use.gave, edit.part)))


def _with_a_size(scene: Scene, finish: Finish) -> Edited:
    """``finish`` with the same size in hand, or its first where that is gone."""
    ids = [size.id for size in finish.sizes]
    return Edited(finish, scene.size.id if scene.size.id in ids else ids[0])
