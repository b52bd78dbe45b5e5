"""Another photo in a finish: what hung on the old one goes, everything else stays."""

from typing import Annotated, Literal

from pydantic import Field

from lucky_margin.core.document import (
    MOST_SUBJECTS,
    Box,
    Finish,
    Focus,
    PhotoAnchor,
    PhotoReference,
    Sha256,
    Window,
    placeless,
)
from lucky_margin.core.edits.cut_out import SetSubject, set_subject
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.scene import Scene


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
    after = placeless(before).model_copy(
        update={"photo": PhotoReference(sha256=edit.sha256), "focus": edit.focus}
    )
    subject = SetSubject(boxes=edit.subjects, cut_out=False)
    after = set_subject(Scene.of(after, scene.size.id, scene.sources), subject).finish
    for size in before.sizes:
        if window := _window_of_the_new(Scene(before, size, scene.sources), after):
            framed = after.size(size.id)
            crop = framed.crop.model_copy(update={"window": window})
            after = after.with_size(framed.model_copy(update={"crop": crop}))
    return Edited.of(scene, after, _in_words(before, after))


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
