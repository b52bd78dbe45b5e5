"""Proposals: what could be done to a finish, in words and as an edit, measured on its pictures.

The service and the command line take them from here; a user takes or leaves them.
"""

from lucky_margin.core.proposals.for_photos import (
    focus_proposal,
    found_subject,
    neutral_proposal,
    placing_proposal,
    proposed_focus,
    subject_proposal,
    swap_proposal,
    tone_proposal,
    tone_proposals,
    trim_proposal,
)
from lucky_margin.core.proposals.for_styles import (
    PartChange,
    started,
    started_like,
    style_changes,
    style_proposal,
)
from lucky_margin.core.proposals.for_words import (
    alt_text_proposal,
    calm_place_proposal,
    readable_proposal,
)
from lucky_margin.core.proposals.proposal import Proposal, ToneProposals

__all__ = [
    "PartChange",
    "Proposal",
    "ToneProposals",
    "alt_text_proposal",
    "calm_place_proposal",
    "focus_proposal",
    "found_subject",
    "neutral_proposal",
    "placing_proposal",
    "proposed_focus",
    "readable_proposal",
    "started",
    "started_like",
    "style_changes",
    "style_proposal",
    "subject_proposal",
    "swap_proposal",
    "tone_proposal",
    "tone_proposals",
    "trim_proposal",
]
