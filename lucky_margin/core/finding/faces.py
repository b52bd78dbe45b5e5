"""Finding faces, which need two signs to be taken for faces.

The first is the cascade of P. Viola and M. Jones ("Rapid object detection using a boosted cascade
of simple features", CVPR 2001) that OpenCV ships. Round pots and clay animals pass it too, so what
it finds must have two eyes that are level, by another such cascade, or lie in a person.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box
from lucky_margin.core.finding.boxes import Floats, unit_box

FACE_SIDE = 960
"""Longest side of the picture in which faces are looked for, in pixels."""

SURE_OF_A_FACE, LEAST_FACE_SCORE = 8.0, 2.0
"""The cascade's scores from which a face is taken as certain, and as one at all."""

LEAST_FACE = 0.04
"""The smallest side of a face that is looked for, of the picture's short side."""

OWN_SIDE = 24
"""Of the cascade, in pixels: no face is smaller. Of faces up to twice as large it looks at every
other place only."""

PASSES, PASSES_SMALL = 5, 2
"""How often a face has to be found, at places and sizes that hardly differ, and how often one of
those smaller ones."""

SIZE_STEP = 1.06
"""From one size of faces to the next."""

SHRINK = 0.5
"""Faces are looked for at this share of its sides, which takes a third of the time. Those that are
too small for it, whose eyes would not be seen anyway, are looked for only among people."""

LEAST_PERSON = 0.6
"""How surely what lies in the face must be a person, in the mean, where no eyes are found."""

FACE_AIR = 0.25
"""What is added round faces, of the box's sides: hair and chin."""

EYES_SIDE = 160
"""Faces are enlarged or shrunk to this side to look for eyes, in pixels."""

EYES_HEIGHT = 0.6
"""How far down a face eyes lie at most, of its side."""

MOST_TILT = 0.35
"""How much higher one eye lies at most, of how far apart they are."""

Grey = NDArray[np.uint8]
Mask = NDArray[np.bool_]

_Rectangle = tuple[int, int, int, int]


@dataclass(frozen=True)
class Faces:
    """All faces of a photo in one box (photo space), and how sure it is (0..1) that they are."""

    box: Box
    sureness: float


def find_faces(picture: NDArray[np.uint8], people: Floats) -> Faces | None:
    """The faces in ``picture`` (8-bit RGB, sides of at most ``FACE_SIDE``).

    ``people`` says how surely each place is part of a person, 0..1; it covers the same photo at any
    size.
    """
    grey = np.asarray(cv2.equalizeHist(cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY)), np.uint8)
    sides = (grey.shape[1], grey.shape[0])
    at_this_size = np.asarray(cv2.resize(people, sides), np.float32)
    faces: list[_Rectangle] = []
    score = 0.0
    for left, top, side, certain in _seeming_faces(grey, at_this_size >= LEAST_PERSON):
        part = np.s_[top : top + side, left : left + side]
        if certain >= LEAST_FACE_SCORE and (
            at_this_size[part].mean() >= LEAST_PERSON or _has_eyes(grey[part])
        ):
            faces.append((left, top, left + side, top + side))
            score = max(score, certain)
    if not faces:
        return None
    corners = np.array(faces, np.float64)
    left, top = corners[:, :2].min(axis=0)
    right, bottom = corners[:, 2:].max(axis=0)
    air_x, air_y = FACE_AIR * (right - left), FACE_AIR * (bottom - top)
    box = unit_box(left - air_x, top - air_y, right + air_x, bottom + air_y, sides)
    return Faces(box, min(1.0, score / SURE_OF_A_FACE))


def _seeming_faces(grey: Grey, are_people: Mask) -> Iterator[tuple[int, int, int, float]]:
    """What passes for a face by the first sign: left, top, side and score."""
    cascade = _cascade("frontalface_default")
    rows, columns = (max(1, round(SHRINK * side)) for side in grey.shape)
    shrunk = np.asarray(cv2.resize(grey, (columns, rows), interpolation=cv2.INTER_AREA), np.uint8)
    least = max(OWN_SIDE, round(LEAST_FACE * min(grey.shape)))
    at_least = max(OWN_SIDE, round(SHRINK * least))
    for x, y, side, score in (
        *_passing(cascade, shrunk, at_least, 2 * OWN_SIDE, PASSES_SMALL),
        *_passing(cascade, shrunk, max(at_least, 2 * OWN_SIDE), FACE_SIDE, PASSES),
    ):
        yield round(x / SHRINK), round(y / SHRINK), round(side / SHRINK), score
    left, top, width, height = cv2.boundingRect(are_people.astype(np.uint8))
    if width:
        among = np.ascontiguousarray(grey[top : top + height, left : left + width])
        for x, y, side, score in _passing(cascade, among, least, 2 * OWN_SIDE, PASSES):
            yield left + x, top + y, side, score


def _passing(
    cascade: cv2.CascadeClassifier, grey: Grey, least: int, most: int, passes: int
) -> Iterator[tuple[int, int, int, float]]:
    """The same for sides from ``least`` to ``most``, of what is found ``passes`` times."""
    found, _, scores = cascade.detectMultiScale3(
        grey, scaleFactor=SIZE_STEP, minNeighbors=passes, minSize=(least, least),
        maxSize=(most, most), outputRejectLevels=True,
    )  # fmt: skip
    for (left, top, side, _), score in zip(found, scores, strict=True):
        yield int(left), int(top), int(side), float(score)


def _has_eyes(face: NDArray[np.uint8]) -> bool:
    """Whether there are two in the upper half, beside each other and about level."""
    square = cv2.equalizeHist(np.asarray(cv2.resize(face, (EYES_SIDE, EYES_SIDE)), np.uint8))
    found = _cascade("eye").detectMultiScale(
        square, scaleFactor=1.05, minNeighbors=4, minSize=(EYES_SIDE // 7, EYES_SIDE // 7)
    )
    middles = [(left + wide / 2, top + high / 2) for left, top, wide, high in found]
    upper = [(x, y) for x, y in middles if y < EYES_HEIGHT * EYES_SIDE]
    left_ones = [eye for eye in upper if eye[0] < EYES_SIDE / 2]
    right_ones = [eye for eye in upper if eye[0] >= EYES_SIDE / 2]
    return any(
        abs(left[1] - right[1]) <= MOST_TILT * (right[0] - left[0])
        for left in left_ones
        for right in right_ones
    )


def _cascade(name: str) -> cv2.CascadeClassifier:
    """A classifier of the caller's own, since one must not serve two threads at once."""
    return cv2.CascadeClassifier(f"{cv2.data.haarcascades}haarcascade_{name}.xml")
