"""Proposing what to keep in view: faces, else people, else things and what stands out."""

from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.network import guessed_people
from lucky_margin.core.document import Box, Focus, Point
from lucky_margin.core.finding.boxes import overlap
from lucky_margin.core.finding.faces import FACE_SIDE, find_faces
from lucky_margin.core.finding.standing_out import find_standing_out
from lucky_margin.core.finding.things import find_people, find_things
from lucky_margin.core.sampling import encode_16_bits, shrunk, to_linear
from lucky_margin.core.scene import DerivedKey, TakenPhoto
from lucky_margin.core.types import AnyPicture

FOCUS_VERSION = 7
"""Of how it is found; proposals of older ones are made anew."""

FoundBy = Literal["faces", "people", "things", "contrast"]
_WAYS: tuple[FoundBy, ...] = get_args(FoundBy)
_SIDES = ("left", "top", "width", "height")

LEAST_SURE = 0.4
"""How sure, 0 to 1, a focus has to be that it is set without being asked for; one that is less sure
is said to be so. Pure noise comes to 0.30."""

WORTH_SHOWING = 0.1
"""What is less sure than this is offered only where there is nothing else."""

MOST_ALIKE = 0.7
"""What two boxes share, of what both cover, from which they are one candidate."""

_TRANSPARENT = 0.2
"""The grey (linear light) that transparent places are looked at on."""


@dataclass(frozen=True)
class FocusCandidate:
    """What may be meant (photo space), what it was found by, and how sure that is (0..1)."""

    box: Box
    found_by: FoundBy
    sureness: float

    @property
    def focus(self) -> Focus:
        """A focus on it."""
        x, y = self.box.centre
        return Focus(point=Point(x=x, y=y), box=self.box)


def focus_candidates(taken: TakenPhoto) -> tuple[FocusCandidate, ...]:
    """What may have to stay in view of a photo, the likeliest first; nothing when nothing stands
    out. Looking takes a while, so what was found is kept with the photo.

    Raises:
        NotFound: the photo is not known.
    """
    key = DerivedKey("focus", taken.sha256, taken.inputs, FOCUS_VERSION)
    found = taken.sources.derived(key, lambda: as_numbers(look_for_focus(enough_to_look_at(taken))))
    return of_numbers(found)


def look_for_focus(photo: AnyPicture) -> tuple[FocusCandidate, ...]:
    """``focus_candidates`` of a photo's pixels."""
    picture = _small(photo, FACE_SIDE)
    standing_out = find_standing_out(picture)
    if not standing_out:
        return ()
    working = picture.astype(np.float32) / np.float32(255)
    guess = guessed_people(working)
    found: list[FocusCandidate] = []
    if faces := find_faces(picture, guess):
        found.append(FocusCandidate(faces.box, "faces", faces.sureness))
    if people := find_people(guess):
        found.append(FocusCandidate(people.box, "people", people.sureness))
    others = [FocusCandidate(thing.box, "things", thing.sureness) for thing in find_things(working)]
    others += [FocusCandidate(part.box, "contrast", part.sureness) for part in standing_out]
    found += sorted(others, key=lambda one: one.sureness, reverse=True)
    worth = [one for one in found if one.sureness >= WORTH_SHOWING]
    return tuple(_unlike_each_other(worth or found[:1]))


def as_numbers(found: tuple[FocusCandidate, ...]) -> NDArray[np.float64]:
    """Candidates as an array that can be kept, a row each."""
    rows = [
        (_WAYS.index(one.found_by), one.sureness, *(getattr(one.box, side) for side in _SIDES))
        for one in found
    ]
    return np.array(rows, np.float64).reshape(-1, 2 + len(_SIDES))


def of_numbers(numbers: NDArray[np.float64]) -> tuple[FocusCandidate, ...]:
    """The candidates that ``as_numbers`` was given."""
    return tuple(
        FocusCandidate(Box(**dict(zip(_SIDES, sides, strict=True))), _WAYS[int(by)], sureness)
        for by, sureness, *sides in numbers.tolist()
    )


def enough_to_look_at(taken: TakenPhoto) -> AnyPicture:
    """The photo's smallest halved copy that is no smaller than what is looked at."""
    facts = taken.facts
    longest, number = max(facts.width, facts.height), 0
    while longest / 2 >= FACE_SIDE and min(facts.width, facts.height) >= 2 ** (number + 1):
        longest, number = longest // 2, number + 1
    return taken.level(number)


def _unlike_each_other(found: list[FocusCandidate]) -> list[FocusCandidate]:
    """Without those that are hardly other than an earlier one."""
    kept: list[FocusCandidate] = []
    for one in found:
        if all(overlap(one.box, other.box) < MOST_ALIKE for other in kept):
            kept.append(one)
    return kept


def _small(photo: AnyPicture, longest: int) -> NDArray[np.uint8]:
    """``photo`` at 8 bits with sides of at most ``longest``, transparency on grey."""
    height, width = photo.shape[:2]
    scale = min(1.0, longest / max(width, height))
    sides = (max(1, round(width * scale)), max(1, round(height * scale)))
    small = shrunk(photo, *sides)
    if small.shape[2] == 4:
        linear = to_linear(small)
        alpha = linear[:, :, 3:]
        small = encode_16_bits(linear[:, :, :3] * alpha + _TRANSPARENT * (1 - alpha))
    return (small >> 8).astype(np.uint8)
