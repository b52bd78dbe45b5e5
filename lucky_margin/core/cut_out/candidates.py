"""Where the subject of a photo may be, when nobody has drawn a box."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.network import THINGS_SIDE, certainty, guessed, guessed_people
from lucky_margin.core.cut_out.places import WHOLE_PHOTO
from lucky_margin.core.document import Box
from lucky_margin.core.finding import propose_focus

ROOM = 0.06
"""What is added round a box that was found, of its sides."""

RIM = 0.06
"""What of the photo's sides is taken to be background for the network's sake."""

SOME_PEOPLE, MOST_UNSURE = 0.1, 0.3
"""Shares of the photo that must be people for certain, and may be unsure, for people to come
first."""

CENTRE = 0.65
"""How much less a part counts in the photo's corner than in its middle."""

LEAST_AREA = 0.004
"""Of the photo that a candidate covers."""

MOST_ALIKE = 0.7
"""Shared area of two boxes, of what both cover, from which they are one candidate."""


def subject_candidates(working: NDArray[np.float32]) -> list[Box]:
    """Boxes (photo space) that may hold the subject, the likeliest first; at least one.

    Those are people, the separate things that the networks see in the whole photo, and what stands
    out in colour and sharpness. ``working`` has shape (rows, columns, 3)
    with encoded sRGB 0..1.
    """
    found: list[Box] = []
    focus = propose_focus(np.rint(255 * working).astype(np.uint8))
    stands_out = [focus.focus.box] if focus and focus.focus.box else []
    for box in (*_people(working), *_things(working), *stands_out):
        wider = _with_room(box)
        if all(_alike(wider, other) < MOST_ALIKE for other in found):
            found.append(wider)
    return found or [WHOLE_PHOTO]


def _people(working: NDArray[np.float32]) -> list[Box]:
    """The boxes of people, if it is sure that there are some."""
    guess = guessed_people(working)
    certain, unsure = certainty(guess)
    return _parts(guess)[:1] if certain >= SOME_PEOPLE and unsure <= MOST_UNSURE else []


def _things(working: NDArray[np.float32]) -> list[Box]:
    """The boxes of the separate parts of what may be things."""
    rows, columns = working.shape[:2]
    within = np.zeros((rows, columns), np.bool_)
    rim_y, rim_x = int(RIM * rows), int(RIM * columns)
    within[rim_y : rows - rim_y, rim_x : columns - rim_x] = True
    return _parts(guessed(working, within))


def _parts(guess: NDArray[np.float32]) -> list[Box]:
    """The boxes of the separate parts of a guess, by how much of the photo it is sure of in them;
    what lies in the middle counts more."""
    side = THINGS_SIDE
    small = np.asarray(cv2.resize(guess, (side, side)), np.float32)
    count, labels, stats, centres = cv2.connectedComponentsWithStats((small > 0.5).astype(np.uint8))
    sureness = np.bincount(labels.ravel(), weights=small.ravel(), minlength=count)
    off_centre = np.linalg.norm(centres / side - 0.5, axis=1) / np.hypot(0.5, 0.5)
    weights = (sureness * (1 - CENTRE * off_centre))[1:]
    parts = []
    for number in 1 + np.argsort(-weights, kind="stable"):
        left, top, width, height, area = (int(value) for value in stats[number])
        if area >= LEAST_AREA * side**2:
            parts.append(Box(left=left, top=top, width=width, height=height).scaled(1 / side))
    return parts


def _with_room(box: Box) -> Box:
    left, top = max(0.0, box.left - ROOM * box.width), max(0.0, box.top - ROOM * box.height)
    right = min(1.0, box.right + ROOM * box.width)
    bottom = min(1.0, box.bottom + ROOM * box.height)
    return Box(left=left, top=top, width=right - left, height=bottom - top)


def _alike(one: Box, other: Box) -> float:
    """What two boxes share, of what both cover."""
    width = max(0.0, min(one.right, other.right) - max(one.left, other.left))
    height = max(0.0, min(one.bottom, other.bottom) - max(one.top, other.top))
    shared = width * height
    return shared / (one.width * one.height + other.width * other.height - shared)
