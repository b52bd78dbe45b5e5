"""Proposals about the photo: its margin, what stays in view, its tone."""

from lucky_margin.core.document import Box, Focus, ToneChanges
from lucky_margin.core.document.summaries import tone_in_words
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.cut_out import SetSubject
from lucky_margin.core.edits.framing import SetFocus, SetWindow
from lucky_margin.core.edits.steps import SetTone
from lucky_margin.core.edits.swapping import SwapPhoto
from lucky_margin.core.errors import BadInput
from lucky_margin.core.finding import (
    DEFAULT_TOLERANCE,
    LEAST_SURE,
    FoundBy,
    find_picture,
    focus_candidates,
)
from lucky_margin.core.framing import focus_box, within
from lucky_margin.core.progress import Progress, untold
from lucky_margin.core.proposals.proposal import HowMuch, Proposal, ToneChoice, ToneProposals
from lucky_margin.core.render.shown import shown_photo, turned_subject_box
from lucky_margin.core.scene import Scene
from lucky_margin.core.tone import PROPOSED, neutral_settings, propose_tone, scaled

NOTHING_TO_TRIM = {
    "no margin": "There is no plain margin to trim.",
    "all plain": "Everything here is plain at this tolerance, so there is no margin to trim.",
}
NO_FOCUS = "Nothing stands out in this photo; click what has to stay in view."
FOUND: dict[FoundBy, str] = {
    "faces": "a face",
    "people": "a person",
    "things": "a thing that stands by itself",
    "contrast": "what stands out in colour and sharpness",
}
LOOKED_AROUND = 0.4
"""The share of finding a subject that is done once it is known where to look."""
NEEDS_NOTHING = "This photo needs nothing: its light and colours are well as they are."
HOW_MUCH: dict[HowMuch, float] = {"gentle": 0.5, "as measured": 1.0, "bold": 1.5}
"""How much of what was measured each suggested tone is."""


def trim_proposal(scene: Scene, tolerance: float = DEFAULT_TOLERANCE) -> Proposal:
    """The window on the picture inside the photo's plain margin; ``tolerance`` is that of
    ``find_picture``.

    Raises:
        NotFound: the photo is not known.
    """
    trimmed = find_picture(scene.taken.level(0), tolerance)
    if trimmed.found != "picture":
        return Proposal(message=NOTHING_TO_TRIM[trimmed.found])
    box, photo, facts = trimmed.box, scene.photo, scene.facts
    margin = {
        "left": box.left,
        "top": box.top,
        "right": facts.width - box.right,
        "bottom": facts.height - box.bottom,
    }
    cut = ", ".join(f"{side} {width:.0f}" for side, width in margin.items())
    return Proposal(
        message=f"The picture is {box.width:.0f} × {box.height:.0f} px; its margin is {cut} px.",
        box=photo.turned_box(box),
        edit=SetWindow(window=within(box, photo, scene.frame.held_ratio)),
    )


def proposed_focus(scene: Scene) -> Focus | None:
    """What to keep in view of a photo that has just come in; None where that is a mere guess.

    Raises:
        NotFound: the photo is not known.
    """
    found = focus_candidates(scene.taken)[:1]
    return found[0].focus if found and found[0].sureness >= LEAST_SURE else None


def focus_proposal(scene: Scene) -> Proposal:
    """What to keep in view; the next candidate when one is the focus already.

    Raises:
        NotFound: the photo is not known.
    """
    found = focus_candidates(scene.taken)
    if not found:
        return Proposal(message=NO_FOCUS)
    focuses = [one.focus for one in found]
    now = focuses.index(scene.finish.focus) if scene.finish.focus in focuses else -1
    number = (now + 1) % len(found)
    next_one = found[number]
    begins = "Found: " if next_one.sureness >= LEAST_SURE else "Not sure: perhaps "
    said = f"{begins}{FOUND[next_one.found_by]}, {100 * next_one.sureness:.0f} % sure."
    if len(found) > 1:
        said += f" This is {number + 1} of {len(found)}; ask again for the next."
    return Proposal(
        message=said,
        box=focus_box(next_one.focus, scene.photo),
        edit=SetFocus(focus=next_one.focus),
    )


def subject_proposal(scene: Scene, *, cut_out: bool = True) -> Proposal:
    """The box in which a subject is looked for, and the edit that cuts it out: the focus box where
    somebody set one, else what stands out; the next candidate when one is cut out already. The
    edit of one that is not to be ``cut_out`` only says what the subject is.

    Raises:
        NotFound: the photo is not known.
    """
    photo = shown_photo(scene).whole
    if photo.brings_own:
        return Proposal(
            message="This photo is already cut out; its transparency is used.",
            edit=SetSubject(keep_strokes=True, cut_out=cut_out),
        )
    now, told = scene.cut_out, _told_box(scene)
    candidates = [told] if told else photo.candidates()
    found: list[tuple[Box, ...]] = [(box,) for box in candidates]
    was_seen = (now.on or not cut_out) and now.boxes in found
    next_one = found.index(now.boxes) + 1 if was_seen else 0
    boxes = found[next_one % len(found)]
    message = (
        f"This is subject {next_one % len(found) + 1} of {len(found)}; “Find again” tries the next."
        if len(found) > 1
        else ""
    )
    turned = scene.photo.turned_box(boxes[0].scaled(scene.facts.width, scene.facts.height))
    return Proposal(message=message, box=turned, edit=SetSubject(boxes=boxes, cut_out=cut_out))


def _told_box(scene: Scene) -> Box | None:
    """The focus box, unless it is what was proposed: that keeps a subject in view, but is no box
    around it."""
    focus = scene.finish.focus
    if focus is None or focus.box is None:
        return None
    proposed = [one.focus for one in focus_candidates(scene.taken)]
    return None if focus in proposed else focus.box


def found_subject(scene: Scene, progress: Progress = untold, *, cut_out: bool = True) -> Proposal:
    """``subject_proposal``, with its subject found already, so that taking it shows it at once.

    Raises:
        NotFound: the photo is not known.
        Cancelled: by ``progress``.
    """
    proposal = subject_proposal(scene, cut_out=cut_out)
    progress(LOOKED_AROUND)
    if proposal.edit is not None:
        finish = apply_edit(scene, proposal.edit).finish
        shown_photo(Scene.of(finish, scene.size.id, scene.sources)).matte()
    progress(1)
    return proposal


def swap_proposal(scene: Scene, sha256: str, progress: Progress = untold) -> Proposal:
    """Another photo in the finish, with what to keep in view of it, and with its subject where the
    finish knows the old one's.

    Raises:
        NotFound: there is no such photo.
        Cancelled: by ``progress``.
    """
    swapped = apply_edit(scene, SwapPhoto(sha256=sha256)).finish
    new = Scene.of(swapped, scene.size.id, scene.sources)
    subjects: tuple[Box, ...] = ()
    if scene.finish.cut_out.on or scene.finish.cut_out.boxes:
        found = found_subject(new, progress, cut_out=False).edit
        subjects = found.boxes if isinstance(found, SetSubject) else ()
    # Where a subject is cut out, it is what stays in view.
    focus = None if scene.finish.cut_out.on and subjects else proposed_focus(new)
    edit = SwapPhoto(sha256=sha256, focus=focus, subjects=subjects)
    return Proposal(message="", edit=edit)


def placing_proposal(scene: Scene, margin: float) -> Proposal:
    """The window that shows the subject with ``margin`` around it, a share of the subject's own
    sides; beyond the photo's edges where it has to.

    Raises:
        BadInput: nothing is cut out.
        NotFound: the photo is not known.
    """
    box = turned_subject_box(scene)
    if box is None and scene.cut_out.on:
        raise BadInput("Nothing was found to place; draw a box around the subject.")
    if box is None:
        raise BadInput("Nothing is cut out yet; find the subject first.")
    width, height = box.width * (1 + 2 * margin), box.height * (1 + 2 * margin)
    ratio = scene.frame.held_ratio
    if ratio is None:  # the same room on all sides
        room = 2 * margin * max(box.width, box.height)
        width, height = box.width + room, box.height + room
    else:
        width, height = max(width, height * ratio), max(height, width / ratio)
    x, y = box.centre
    window = Box(left=x - width / 2, top=y - height / 2, width=width, height=height)
    return Proposal(message="", box=window, edit=SetWindow(window=window))


def tone_proposal(scene: Scene) -> Proposal:
    """The ordinary controls of tone as the photo wants them.

    Raises:
        NotFound: the photo is not known.
    """
    found = tone_proposals(scene)
    edits = {choice.name: choice.edit for choice in found.choices}
    return Proposal(message=found.message, edit=edits.get("as measured"))


def tone_proposals(scene: Scene) -> ToneProposals:
    """The same, and less and more of it.

    Raises:
        NotFound: the photo is not known.
    """
    focus = scene.finish.focus
    tone = propose_tone(scene.taken.level(0), focus.box if focus else None)
    if not tone.is_set:
        return ToneProposals(message=NEEDS_NOTHING)
    choices = []
    for name, share in HOW_MUCH.items():
        settings = {field: getattr(scaled(tone, share), field) for field in PROPOSED}
        edit = SetTone(changes=ToneChanges(on=True, **settings))
        choices.append(ToneChoice(name=name, edit=edit))
    return ToneProposals(message=f"Suggested: {tone_in_words(tone)}.", choices=tuple(choices))


def neutral_proposal(colour: str) -> Proposal:
    """The warmth and tint under which a colour (``#RRGGBB``) of the photo is grey."""
    neutral = neutral_settings(colour)
    settings = f"Warmth {neutral.warmth:g} K and tint {neutral.tint:+g}"
    message = f"{settings} make that spot grey."
    if not neutral.is_reached:
        message = (
            f"{settings} are as far as they go, but that spot stays coloured; pick a greyer one."
        )
    changes = ToneChanges(on=True, warmth=neutral.warmth, tint=neutral.tint)
    return Proposal(message=message, edit=SetTone(changes=changes))
