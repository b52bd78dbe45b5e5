"""Finding things in a photo: the picture inside plain margins, and what to keep in view."""

from lucky_margin.core.finding.focus import FocusProposal, enough_to_look_at, propose_focus
from lucky_margin.core.finding.trim import DEFAULT_TOLERANCE, Trimmed, find_picture

__all__ = [
    "DEFAULT_TOLERANCE",
    "FocusProposal",
    "Trimmed",
    "enough_to_look_at",
    "find_picture",
    "propose_focus",
]
