"""Copies of a piece, as one piece: in a row, round a ring or scattered."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box, Repeat

_TRIES, _MORE_TRIES = 24, 200


@dataclass(frozen=True)
class Copy:
    """Where a copy's middle lies from the middle of all, how it is turned (degrees), how large it
    is, and how blurred (the deviation, in the unit of its place)."""

    x: float = 0.0
    y: float = 0.0
    angle: float = 0.0
    size: float = 1.0
    blur: float = 0.0


ALONE = (Copy(),)


def copies_of(repeat: Repeat | None, unit: float, focus: Box | None = None) -> tuple[Copy, ...]:
    """The copies of a piece; lengths are ``unit`` times those of ``repeat``. ``focus`` is what is
    in focus, as it lies about the middle of all, where they heed that.

    Those of a row are evenly spaced and those of a ring at equal angles, the first at the top.
    Scattered ones keep apart as far as they can: each takes, of some random places, the one that
    is farthest from all before it (Mitchell's best candidate, 1991).
    """
    if repeat is None:
        return ALONE
    copies = _spread_out(repeat, unit, focus)
    if repeat.lean == "none" or focus is None:
        return copies
    return tuple(replace(copy, angle=_leaning(copy, repeat, focus)) for copy in copies)


def _leaning(copy: Copy, repeat: Repeat, focus: Box) -> float:
    """The angle at which a copy's top points to the focus, or away from it."""
    x, y = focus.centre
    angle = math.degrees(math.atan2(x - copy.x, copy.y - y))
    return angle if repeat.lean == "towards" else angle + 180


def _spread_out(repeat: Repeat, unit: float, focus: Box | None) -> tuple[Copy, ...]:
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
    return _scattered(repeat, unit, focus if repeat.keep_off else None)


def _scattered(repeat: Repeat, unit: float, avoided: Box | None) -> tuple[Copy, ...]:
    """The farthest first, so that nearer ones lie over them."""
    random, spread = np.random.default_rng(repeat.seed), repeat.spread * unit
    places = np.empty((0, 2))
    for _ in range(repeat.count):
        tried = random.uniform(-0.5, 0.5, (_TRIES, 2))
        if avoided:
            tried = _outside(avoided, random.uniform(-0.5, 0.5, (_MORE_TRIES, 2)), spread)
        away = np.linalg.norm(tried[:, None] - places[None], axis=2)
        best = tried[away.min(axis=1, initial=2.0).argmax()]
        places = np.vstack([places, best])
    angles = random.uniform(0, 360, repeat.count) if repeat.turned else np.zeros(repeat.count)
    nearness = random.uniform(0, 1, repeat.count)
    order = nearness.argsort(kind="stable") if _has_depth(repeat) else range(repeat.count)
    smallest = repeat.smallest / 100
    return tuple(
        Copy(
            x=float(places[i, 0]) * spread,
            y=float(places[i, 1]) * spread,
            angle=float(angles[i]),
            size=smallest + (1 - smallest) * float(nearness[i]),
            blur=repeat.near_blur * unit * float(nearness[i]) ** 2,
        )
        for i in order
    )


def _outside(avoided: Box, tried: NDArray[np.float64], spread: float) -> NDArray[np.float64]:
    """Those places that are not in a box; all of them where it leaves none."""
    x, y = (tried * spread).T
    inside = (x > avoided.left) & (x < avoided.right) & (y > avoided.top) & (y < avoided.bottom)
    return tried if inside.all() else tried[~inside]


def _has_depth(repeat: Repeat) -> bool:
    return repeat.smallest < 100 or repeat.near_blur > 0
