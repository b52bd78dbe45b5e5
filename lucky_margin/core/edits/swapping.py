"""Another photo in a finish: what hung on the old one goes, everything else stays."""

from collections.abc import Callable, Iterable
from typing import Annotated, Any, Literal, TypeVar

from pydantic import Field

from lucky_margin.core.document import (
    MOST_SUBJECTS,
    Area,
    BandMask,
    Box,
    EllipseMask,
    Finish,
    Focus,
    Lift,
    PhotoAnchor,
    PhotoReference,
    Sha256,
    ShapeRegion,
    Size,
    Spots,
    Treatment,
    Turn,
    Window,
)
from lucky_margin.core.edits.cut_out import SetSubject, set_subject
from lucky_margin.core.edits.edited import Edited, changed
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.scene import Scene

Masked = TypeVar("Masked", Area, Treatment)


class SwapPhoto(EditBase):
    """Put another photo (by its SHA-256) in place of the finish's; ``focus`` and ``subjects``
    (photo space, a box each) are those of the new one."""

    kind: Literal["swap_photo"] = "swap_photo"
    sha256: Sha256
    focus: Focus | None = None
    subjects: Annotated[tuple[Box, ...], Field(max_length=MOST_SUBJECTS)] = ()


@carries_out(SwapPhoto)
def swap_photo(scene: Scene, edit: SwapPhoto) -> Edited:
    """The finish of the other photo, on all sizes, and what of the old one is gone. Where a subject
    that is cut out was placed by hand, the new one stands as tall on the same line.

    Raises:
        NotFound: there is no such photo.
    """
    scene.sources.facts(edit.sha256)
    before = scene.finish
    fields: dict[str, Any] = {field: _without_places(before, field) for field in _WITH_PLACES}
    after = before.model_copy(
        update={
            "photo": PhotoReference(sha256=edit.sha256),
            "focus": edit.focus,
            "turn": Turn(),
            "spots": Spots(),
            "export": changed(before.export, alt_text=""),
            "sizes": tuple(_framed_anew(size) for size in before.sizes),
            **fields,
        }
    )
    subject = SetSubject(boxes=edit.subjects, cut_out=False)
    after = set_subject(Scene.of(after, scene.size.id, scene.sources), subject).finish
    for size in before.sizes:
        if window := _window_of_the_new(Scene(before, size, scene.sources), after):
            framed = after.size(size.id)
            crop = framed.crop.model_copy(update={"window": window})
            after = after.with_size(framed.model_copy(update={"crop": crop}))
    return Edited.of(scene, after, _in_words(before, after))


def _is_placed(one: Area | Treatment) -> bool:
    """Whether a place on the photo says where it is."""
    return any(isinstance(mask, BandMask | EllipseMask) for mask in one.masks)


def _unplaced(all_of_them: Iterable[Masked]) -> tuple[Masked, ...]:
    return tuple(one for one in all_of_them if not _is_placed(one))


def _of_any_photo(lifts: Iterable[Lift]) -> tuple[Lift, ...]:
    return tuple(lift for lift in lifts if not isinstance(lift.region, ShapeRegion))


_WITH_PLACES: dict[str, tuple[str, Callable[[Any], tuple[Any, ...]]]] = {
    "tone": ("areas", _unplaced),
    "treatments": ("made", _unplaced),
    "lifts": ("lifted", _of_any_photo),
}
"""Steps that hold places on the photo: in which list, and what of it suits any photo."""


def _without_places(holder: Any, step: str) -> Any:
    """A step of a finish, or of a size's overrides, without what lies in a place of the photo."""
    value = getattr(holder, step)
    name, kept = _WITH_PLACES[step]
    listed = getattr(value, name)
    return changed(value, **{name: kept(listed)}) if listed else value


def _framed_anew(size: Size) -> Size:
    """The size with nothing of its own that hung on the photo."""
    own = {step: _without_places(size.overrides, step) for step in _WITH_PLACES}
    crop = size.crop.model_copy(update={"window": None})
    return size.with_overrides(turn={}, spots={}, **own).model_copy(update={"crop": crop})


def _window_of_the_new(old: Scene, after: Finish) -> Window | None:
    """The window that shows the new subject as tall as the old one, its middle above the same
    place and its foot on the same line; None where the old one was not placed by hand."""
    was, now = old.cut_out.box, after.cut_out.box
    if old.size.crop.window is None or not old.cut_out.on or was is None or now is None:
        return None
    new = Scene.of(after, old.size.id, old.sources)
    was = old.photo.turned_box(was.scaled(old.facts.width, old.facts.height))
    now = now.scaled(new.facts.width, new.facts.height)
    window, grown = old.frame.window, now.height / was.height
    return new.photo.window_of(
        Box(
            left=now.centre[0] - grown * (was.centre[0] - window.left),
            top=now.bottom - grown * (was.bottom - window.top),
            width=grown * window.width,
            height=grown * window.height,
        )
    )


def _in_words(before: Finish, after: Finish) -> str:
    """What went with the old photo, and what still lies where something was on it."""
    gone = [words for words in _gone(before, after) if words]
    held = sum(
        isinstance(piece.anchor, PhotoAnchor) or getattr(piece, "tip", None) is not None
        for piece in after.pieces
    )
    parts = [f"Gone with the old photo: {', '.join(gone)}."] if gone else []
    if held:
        pieces = _counted(held, "piece points", "pieces point")
        parts.append(f"{pieces} to a place on the old photo; see where to.")
    if after.cut_out.on and before.photo:
        parts.append("The subject is found anew; look at its edge.")
    return " ".join(parts)


def _gone(before: Finish, after: Finish) -> list[str]:
    framed = _framed_by_hand(before) - _framed_by_hand(after)
    strokes = len(before.cut_out.strokes)
    areas = len(before.tone.areas) - len(after.tone.areas)
    treatments = len(before.treatments.made) - len(after.treatments.made)
    lifts = len(before.lifts.lifted) - len(after.lifts.lifted)
    return [
        _counted(framed, "crop of your own", "crops of your own"),
        "the turning" if before.turn.is_set else "",
        "the squaring up" if before.photo and before.photo.square else "",
        _counted(len(before.spots.filled), "spot", "spots"),
        _counted(strokes, "stroke of the cut-out", "strokes of the cut-out"),
        _counted(areas, "area of tone", "areas of tone"),
        _counted(treatments, "treatment of a place", "treatments of a place"),
        _counted(lifts, "lift", "lifts"),
        "the alternative text" if before.export.alt_text else "",
    ]


def _framed_by_hand(finish: Finish) -> int:
    return sum(size.crop.window is not None for size in finish.sizes)


def _counted(number: int, one: str, several: str) -> str:
    """``number`` with its noun; nothing for none."""
    if number == 0:
        return ""
    return f"{number} {one if number == 1 else several}"
