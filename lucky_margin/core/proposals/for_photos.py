"""Proposals about the photo: its margin, what stays in view, its tone."""

from lucky_margin.core.document import ToneChanges
from lucky_margin.core.document.summaries import tone_in_words
from lucky_margin.core.edits.framing import SetFocus, SetWindow
from lucky_margin.core.edits.steps import SetTone
from lucky_margin.core.finding import (
    DEFAULT_TOLERANCE,
    enough_to_look_at,
    find_picture,
    propose_focus,
)
from lucky_margin.core.framing import focus_box, within
from lucky_margin.core.proposals.proposal import Proposal
from lucky_margin.core.scene import Scene
from lucky_margin.core.tone import neutral_settings, propose_tone

NOTHING_TO_TRIM = {
    "no margin": "There is no plain margin to trim.",
    "all plain": "Everything here is plain at this tolerance, so there is no margin to trim.",
}
NO_FOCUS = "Nothing stands out in this photo; click what has to stay in view."
FOUND_BY = {"faces": "a face", "contrast": "what stands out in colour and sharpness"}
PROPOSED_SETTINGS = (
    "exposure",
    "contrast",
    "highlights",
    "shadows",
    "black_point",
    "white_point",
    "muted_colours",
)


def trim_proposal(scene: Scene, tolerance: float = DEFAULT_TOLERANCE) -> Proposal:
    """The window on the picture inside the photo's plain margin; ``tolerance`` is that of
    ``find_picture``.

    Raises:
        NotFound: the photo is not known.
    """
    trimmed = find_picture(scene.sources.level(scene.photo_sha256, 0), tolerance)
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


def focus_proposal(scene: Scene) -> Proposal:
    """What to keep in view.

    Raises:
        NotFound: the photo is not known.
    """
    found = propose_focus(enough_to_look_at(scene.photo_sha256, scene.sources))
    if found is None:
        return Proposal(message=NO_FOCUS)
    return Proposal(
        message=f"Found by {FOUND_BY[found.found_by]}, {100 * found.sureness:.0f} % sure.",
        box=focus_box(found.focus, scene.photo),
        edit=SetFocus(focus=found.focus),
    )


def tone_proposal(scene: Scene) -> Proposal:
    """Brightness, the end points and muted colours as the photo wants them.

    Raises:
        NotFound: the photo is not known.
    """
    tone = propose_tone(scene.sources.level(scene.photo_sha256, 0))
    settings = {name: getattr(tone, name) for name in PROPOSED_SETTINGS}
    return Proposal(
        message=f"Proposed: {tone_in_words(tone)}.",
        edit=SetTone(changes=ToneChanges(on=True, **settings)),
    )


def neutral_proposal(colour: str) -> Proposal:
    """The warmth and tint under which a colour (``#RRGGBB``) of the photo is grey."""
    neutral = neutral_settings(colour)
    settings = f"Warmth {neutral.warmth:g} K and tint {neutral.tint:+g}"
    message = f"{settings} make that grey."
    if not neutral.is_reached:
        message = f"{settings} go as far as they can, but that stays coloured; pick a greyer spot."
    changes = ToneChanges(on=True, warmth=neutral.warmth, tint=neutral.tint)
    return Proposal(message=message, edit=SetTone(changes=changes))
