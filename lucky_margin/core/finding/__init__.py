"""Finding things in a photo: the picture inside plain margins, what to keep in view, and what may
be its subject."""

from lucky_margin.core.finding.focus import (
    FOCUS_VERSION,
    LEAST_SURE,
    FocusCandidate,
    FoundBy,
    as_numbers,
    enough_to_look_at,
    focus_candidates,
    look_for_focus,
    of_numbers,
)
from lucky_margin.core.finding.subject import subject_candidates
from lucky_margin.core.finding.trim import DEFAULT_TOLERANCE, Trimmed, find_picture

__all__ = [
    "DEFAULT_TOLERANCE",
    "FOCUS_VERSION",
    "LEAST_SURE",
    "FocusCandidate",
    "FoundBy",
    "Trimmed",
    "as_numbers",
    "enough_to_look_at",
    "find_picture",
    "focus_candidates",
    "look_for_focus",
    "of_numbers",
    "subject_candidates",
]
