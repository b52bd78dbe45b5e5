"""The separate things and people that the networks of the cut-out see in a photo."""

import math
from dataclasses import dataclass, replace

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.network import THINGS_SIDE, certainty, guessed
from lucky_margin.core.cut_out.places import WHOLE_PHOTO, in_pixels, inside, looked_at
from lucky_margin.core.document import Box
from lucky_margin.core.finding.boxes import Floats, overlap, unit_box, with_room

RIM = 0.06
"""What of the photo's sides is taken to be background for the network's sake, and what room a box
gets before it is looked at again."""

ASIDE = 0.3
"""How much more of what lies beside a box is shown then, of its sides."""

SOME_PEOPLE, MOST_UNSURE = 0.1, 0.3
"""Shares of the photo that must be people for certain, and may be unsure, for people to be taken
for people."""

CENTRE = 0.65
"""How much less a part counts in the photo's corner than in its middle."""

LEAST_AREA = 0.004
"""Of the photo that a thing covers."""

MOST_THINGS = 3
"""As many of a photo are looked at again."""

AIR = 0.015
"""What is added round a thing, of its sides: the network sees no edge to the pixel."""

PROBABLE, SURER = 0.5, (0.6, 0.7, 0.9, 0.99)
"""From where on a place is part of a thing; and where things that lie close come apart."""

LEAST_KEPT, BETTER_FILLED = 0.5, 1.4
"""What of a part its surer core must keep, and how much better than the part it must fill its box,
to be a thing by itself."""


@dataclass(frozen=True, eq=False)
class Thing:
    """One connected part of what may be things."""

    box: Box
    weight: float
    """How much of the photo is surely in it (0..1)."""
    sureness: float
    """How sure its places are, in the mean (0..1)."""
    where: NDArray[np.bool_]
    """Shape (``THINGS_SIDE``, ``THINGS_SIDE``)."""

    @property
    def filled(self) -> float:
        """How much of its box it fills (0..1)."""
        return self.weight / (self.box.width * self.box.height)


def find_people(guess: Floats) -> Thing | None:
    """The largest person, if it is sure that there is one, of what ``guessed_people`` says."""
    certain, unsure = certainty(guess)
    if certain < SOME_PEOPLE or unsure > MOST_UNSURE:
        return None
    return next(iter(_parts(guess)), None)


def find_things(working: Floats) -> list[Thing]:
    """The largest and most central things, the surest first.

    ``working`` has shape (rows, columns, 3) with encoded sRGB 0..1.
    """
    middle = inside((with_room(WHOLE_PHOTO, -RIM),), WHOLE_PHOTO, *working.shape[:2])
    guess, _ = guessed(working, middle)
    all_sure = float(_small(guess).mean())
    found: list[Thing] = []
    for part in _parts(guess)[:MOST_THINGS]:
        core = _core(guess, part)
        found += [part] if core is None else [core, part]
    # Among many things none is surely the one that is meant.
    found = [
        replace(thing, sureness=thing.sureness * math.sqrt(min(1.0, thing.weight / all_sure)))
        for thing in found[:MOST_THINGS]
    ]
    seen = [_looked_at_again(working, thing) for thing in found]
    return sorted(seen, key=lambda thing: thing.sureness, reverse=True)


def _core(guess: Floats, part: Thing) -> Thing | None:
    """The surest thing in a part that runs over several, if there is one."""
    for limit in SURER:
        cores = _parts(np.where(part.where, _small(guess), np.float32(0)), limit)
        if (
            cores
            and cores[0].weight >= LEAST_KEPT * part.weight
            and cores[0].filled >= BETTER_FILLED * part.filled
        ):
            return cores[0]
    return None


def _looked_at_again(working: Floats, thing: Thing) -> Thing:
    """The thing with the box that the network gives it when it sees that part alone, larger: once
    with more of what lies to the left and above, once to the right and below. A thing stays where
    it is; what the network only imagines, as in noise, goes along with the box."""
    box = with_room(thing.box, RIM)
    across, down = ASIDE * box.width, ASIDE * box.height
    frames = (
        unit_box(box.left - across, box.top - down, box.right, box.bottom, (1, 1)),
        unit_box(box.left, box.top, box.right + across, box.bottom + down, (1, 1)),
    )
    one, other = (_seen_in(working, frame) for frame in frames)
    if one is None or other is None:
        return replace(thing, sureness=0.0)
    seen = unit_box(
        (one.left + other.left) / 2, (one.top + other.top) / 2,
        (one.right + other.right) / 2, (one.bottom + other.bottom) / 2, (1, 1),
    )  # fmt: skip
    # One that is found elsewhere now was no thing the first time, and to find that all of the
    # photo is a thing is to find nothing.
    trust = overlap(seen, thing.box) * overlap(one, other) * (1 - (seen.width * seen.height) ** 4)
    return replace(thing, box=with_room(seen, AIR), sureness=thing.sureness * trust)


def _seen_in(working: Floats, frame: Box) -> Box | None:
    """The box of the weightiest thing that the network sees in a part of the photo."""
    rows, columns = working.shape[:2]
    place = looked_at((frame,), (), columns / rows)
    crop = np.ascontiguousarray(working[in_pixels(place, rows, columns)])
    guess, _ = guessed(crop, inside((frame,), place, *crop.shape[:2]), mirrored=False)
    parts = _parts(guess)
    if not parts:
        return None
    nearer = parts[0].box
    return Box(
        left=place.left + nearer.left * place.width,
        top=place.top + nearer.top * place.height,
        width=nearer.width * place.width,
        height=nearer.height * place.height,
    )


def _parts(guess: Floats, limit: float = PROBABLE) -> list[Thing]:
    """The connected parts of a guess above ``limit``, by how much of the photo they are sure of;
    what lies in the middle counts more."""
    side = THINGS_SIDE
    small = _small(guess)
    count, labels, stats, centres = cv2.connectedComponentsWithStats(
        (small > limit).astype(np.uint8)
    )
    sure = np.bincount(labels.ravel(), weights=small.ravel(), minlength=count)
    off_centre = np.linalg.norm(centres / side - 0.5, axis=1) / np.hypot(0.5, 0.5)
    ranks = (sure * (1 - CENTRE * off_centre))[1:]
    parts = []
    for number in 1 + np.argsort(-ranks, kind="stable"):
        left, top, width, height, area = (int(value) for value in stats[number])
        if area >= LEAST_AREA * side**2:
            box = Box(left=left, top=top, width=width, height=height).scaled(1 / side)
            weight = float(sure[number])
            where = labels == number
            parts.append(Thing(box, weight / side**2, weight / area, where))
    return parts


def _small(guess: Floats) -> Floats:
    return np.asarray(cv2.resize(guess, (THINGS_SIDE, THINGS_SIDE)), np.float32)
