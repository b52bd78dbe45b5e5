"""Copies of a piece, as one piece: in a row, round a ring or scattered."""

import math
from dataclasses import dataclass

import numpy as np

from lucky_margin.core.document import Repeat

_TRIES = 24


@dataclass(frozen=True)
class Copy:
    """Where a copy's middle lies from the middle of all, and how it is turned (degrees)."""

    x: float = 0.0
    y: float = 0.0
    angle: float = 0.0


ALONE = (Copy(),)


def copies_of(repeat: Repeat | None, unit: float) -> tuple[Copy, ...]:
    """The copies of a piece; lengths are ``unit`` times those of ``repeat``.

    Those of a row are evenly spaced and those of a ring at equal angles, the first at the top.
    Scattered ones keep apart as far as they can: each takes, of some random places, the one that
    is farthest from all before it (Mitchell's best candidate, 1991).
    """
    if repeat is None:
        return ALONE
    spread, count = repeat.spread * unit, repeat.count
    if repeat.kind == "row":
        return tuple(Copy(x=spread * (i / (count - 1) - 0.5)) for i in range(count))
    if repeat.kind == "ring":
        turns = [360 * i / count for i in range(count)]
        return tuple(
            Copy(
                x=spread / 2 * math.sin(math.radians(turn)),
                y=-spread / 2 * math.cos(math.radians(turn)),
                angle=turn if repeat.turned else 0.0,
            )
            for turn in turns
        )
    return _scattered(repeat, spread)


def _scattered(repeat: Repeat, spread: float) -> tuple[Copy, ...]:
    random = np.random.default_rng(repeat.seed)
    places = np.empty((0, 2))
    for _ in range(repeat.count):
        tried = random.uniform(-0.5, 0.5, (_TRIES, 2))
        away = np.linalg.norm(tried[:, None] - places[None], axis=2)
        best = tried[away.min(axis=1, initial=2.0).argmax()]
        places = np.vstack([places, best])
    angles = random.uniform(0, 360, repeat.count) if repeat.turned else np.zeros(repeat.count)
    return tuple(
        Copy(x, y, angle)
        for (x, y), angle in zip((places * spread).tolist(), angles.tolist(), strict=True)
    )
