"""Telling how far long work has come, and stopping it on the way."""

from collections.abc import Callable

Progress = Callable[[float], None]
"""Called now and then with the share (0..1) that is done. Raises ``Cancelled`` to stop the work."""


class Cancelled(Exception):
    """The work is no longer wanted."""


def untold(share: float) -> None:
    """A ``Progress`` that nobody follows."""


def part_of(progress: Progress, start: float, end: float) -> Progress:
    """The progress of a part that reaches from ``start`` to ``end`` of the whole (0..1)."""
    return lambda share: progress(start + share * (end - start))
