"""Finding things in a photo: the picture inside plain margins, and what to keep in view."""

from lucky_margin.core.finding.focus import (
    FOCUS_VERSION,
    FocusProposal,
    as_numbers,
    enough_to_look_at,
    of_numbers,
    propose_focus,
)
from lucky_margin.core.finding.trim import DEFAULT_TOLERANCE, Trimmed, find_picture

__all__ = [
    "DEFAULT_TOLERANCE",
    "FOCUS_VERSION",
    "FocusProposal",
    "Trimmed",
    "as_numbers",
    "enough_to_look_at",
    "find_picture",
    "of_numbers",
    "propose_focus",
]
