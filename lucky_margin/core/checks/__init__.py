"""Checks: measured statements about a size, each warning with the action that mends it.

A new check is a function of a scene and a line in ``CHECKS``.
"""

from collections.abc import Callable, Iterable

from lucky_margin.core.checks import (
    covered_checks,
    cut_out_checks,
    overlap_checks,
    piece_checks,
    size_checks,
)
from lucky_margin.core.checks.check import Check, CheckAction
from lucky_margin.core.checks.legibility import contrast_of, make_readable, text_on
from lucky_margin.core.scene import Scene

__all__ = [
    "CHECKS",
    "Check",
    "CheckAction",
    "check",
    "contrast_of",
    "make_readable",
    "text_on",
]

CHECKS: tuple[Callable[[Scene], Check | Iterable[Check] | None], ...] = (
    size_checks.sharpness,
    size_checks.window,
    size_checks.focus,
    size_checks.corners,
    cut_out_checks.subject,
    cut_out_checks.ended,
    cut_out_checks.outlines,
    cut_out_checks.white,
    size_checks.column,
    size_checks.clipping,
    size_checks.noise,
    piece_checks.piece_checks,
    piece_checks.columns,
    overlap_checks.overlapping,
    covered_checks.covered,
    piece_checks.watermark,
    piece_checks.watermark_font,
    size_checks.transparency,
)
"""In the order in which they are said."""


def check(scene: Scene) -> list[Check]:
    """The checks of a size: those that are fine and still worth saying, and the warnings.

    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    found: list[Check] = []
    for one in CHECKS:
        result = one(scene)
        if isinstance(result, Check):
            found.append(result)
        else:
            found += result or ()
    return found
