"""Proposing what to keep in view: faces, else what stands out.

Faces are found by the cascade of P. Viola and M. Jones ("Rapid object detection using a boosted
cascade of simple features", CVPR 2001) that OpenCV ships. Where there is none, what stands out
is what has a colour that the picture's rim does not have (its distance in CIELAB to the nearest
of the rim's main colours) or is sharp, and lies towards the middle.
"""

from dataclasses import dataclass
from typing import Literal, get_args

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box, Focus, Point
from lucky_margin.core.sampling import encode_16_bits, to_linear
from lucky_margin.core.scene import TakenPhoto
from lucky_margin.core.types import AnyPicture

FOCUS_VERSION = 1
"""Of how it is found; proposals of older ones are made anew."""

FoundBy = Literal["faces", "contrast"]
_WAYS: tuple[FoundBy, ...] = get_args(FoundBy)
_NOTHING = -1.0

FACE_SIDE = 960
"""Longest side at which faces are looked for, in pixels."""

STANDING_OUT_SIDE = 192
"""Longest side at which colours are compared, in pixels."""

SHARPNESS_SIDE = 768
"""The same for sharpness, which needs detail."""

SHARPNESS_WEIGHT = 0.4
"""Against colour; with more, rough cloth outweighs a smooth bowl."""

RIM, RIM_COLOURS = 0.04, 4
"""How wide the rim is, of the short side, and how many main colours it has."""

REACH = 0.33
"""Of the sides: how fast what stands out counts less away from the middle (as a Gaussian)."""

TAILS, AIR = 0.03, 0.05
"""What may stand out beyond each edge of the box, and what is added to the box there."""

SURE_OF_A_FACE, LEAST_FACE_SCORE = 8.0, 2.0
"""The cascade's scores from which a face is taken as certain, and as one at all."""

LEAST_FACE = 0.04
"""The smallest side of a face that is looked for, of the picture's short side."""

_FACE_AIR = 0.25
"""What is added round faces, of the box's sides: hair and chin."""

_Map = NDArray[np.float32]


@dataclass(frozen=True)
class FocusProposal:
    """A focus, what it was found by, and how sure that is (0..1)."""

    focus: Focus
    found_by: FoundBy
    sureness: float


def as_numbers(found: FocusProposal | None) -> NDArray[np.float64]:
    """A proposal as an array that can be kept."""
    if found is None or found.focus.box is None:
        return np.array([_NOTHING])
    box = found.focus.box
    by = _WAYS.index(found.found_by)
    return np.array([by, found.sureness, box.left, box.top, box.width, box.height])


def of_numbers(numbers: NDArray[np.float64]) -> FocusProposal | None:
    """The proposal that ``as_numbers`` was given."""
    if numbers[0] == _NOTHING:
        return None
    by, sureness, left, top, width, height = numbers.tolist()
    box = Box(left=left, top=top, width=width, height=height)
    return FocusProposal(_around(box), _WAYS[int(by)], sureness)


def propose_focus(photo: AnyPicture) -> FocusProposal | None:
    """What to keep in view of ``photo``; None when nothing stands out."""
    small = _small(photo, FACE_SIDE)
    return _by_faces(small) or _by_contrast(small)


def enough_to_look_at(taken: TakenPhoto) -> AnyPicture:
    """The photo's smallest halved copy that is no smaller than what is looked at."""
    facts = taken.facts
    longest, number = max(facts.width, facts.height), 0
    while longest / 2 >= FACE_SIDE and min(facts.width, facts.height) >= 2 ** (number + 1):
        longest, number = longest // 2, number + 1
    return taken.level(number)


def _by_faces(picture: NDArray[np.uint8]) -> FocusProposal | None:
    grey = cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY)
    least = max(24, round(LEAST_FACE * min(grey.shape)))
    faces, _, scores = _face_cascade().detectMultiScale3(
        cv2.equalizeHist(grey),
        scaleFactor=1.08,
        minNeighbors=6,
        minSize=(least, least),
        outputRejectLevels=True,
    )
    score = float(np.max(scores)) if len(faces) else 0.0
    if score < LEAST_FACE_SCORE:
        return None
    left, top = faces[:, :2].min(axis=0)
    right, bottom = (faces[:, :2] + faces[:, 2:]).max(axis=0)
    wide, high = right - left, bottom - top
    box = _unit_box(
        left - _FACE_AIR * wide,
        top - _FACE_AIR * high,
        right + _FACE_AIR * wide,
        bottom + _FACE_AIR * high,
        grey,
    )
    return FocusProposal(_around(box), "faces", min(1.0, score / SURE_OF_A_FACE))


def _by_contrast(picture: NDArray[np.uint8]) -> FocusProposal | None:
    small = _small(picture, STANDING_OUT_SIDE)
    height, width = small.shape[:2]
    sharpness = cv2.resize(
        _sharpness(_small(picture, SHARPNESS_SIDE)), (width, height), interpolation=cv2.INTER_AREA
    )
    colour = _unlike_the_rim(small)
    if float(np.ptp(colour)) < 1 and float(np.ptp(sharpness)) < 1:
        return None
    standing_out = _to_unit(colour) + SHARPNESS_WEIGHT * _to_unit(sharpness)
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    off_x, off_y = (x + 0.5) / width - 0.5, (y + 0.5) / height - 0.5
    standing_out *= np.exp(-(off_x**2 + off_y**2) / (2 * REACH**2))
    standing_out[:] = cv2.GaussianBlur(standing_out, (0, 0), STANDING_OUT_SIDE / 48)
    levels = cv2.normalize(standing_out, None, 0, 255, cv2.NORM_MINMAX).astype(np.uint8)
    limit, _ = cv2.threshold(levels, 0, 255, cv2.THRESH_OTSU)
    marked = np.where(levels > limit, standing_out, 0)
    left, right = _reach(marked.sum(axis=0))
    top, bottom = _reach(marked.sum(axis=1))
    box = _unit_box(left, top, right, bottom, small)
    # What stands out evenly everywhere is no subject: compare its weight with its area.
    weight, area = float(marked.sum() / standing_out.sum()), float((marked > 0).mean())
    return FocusProposal(_around(box), "contrast", max(0.0, (weight - area) / (1 - area)))


def _unlike_the_rim(small: NDArray[np.uint8]) -> _Map:
    """How far each pixel's colour is from the nearest of the rim's main colours, in CIELAB."""
    lab = cv2.cvtColor(small.astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
    lab = cv2.GaussianBlur(lab, (0, 0), STANDING_OUT_SIDE / 96)
    band = max(1, round(RIM * min(small.shape[:2])))
    edges = (lab[:band], lab[-band:], lab[:, :band], lab[:, -band:])
    rim = np.concatenate([edge.reshape(-1, 3) for edge in edges]).astype(np.float32)
    count = min(RIM_COLOURS, len(rim))
    # Beginning with groups of like lightness leaves nothing to chance.
    labels = np.empty((len(rim), 1), np.int32)
    labels[np.argsort(rim[:, 0], kind="stable"), 0] = np.arange(len(rim)) * count // len(rim)
    until = (cv2.TERM_CRITERIA_EPS + cv2.TERM_CRITERIA_MAX_ITER, 20, 0.5)
    _, _, colours = cv2.kmeans(rim, count, labels, until, 1, cv2.KMEANS_USE_INITIAL_LABELS)
    distances = np.stack([np.linalg.norm(lab - colour, axis=2) for colour in colours])
    nearest: _Map = distances.min(axis=0).astype(np.float32)
    return nearest


def _sharpness(picture: NDArray[np.uint8]) -> _Map:
    """The mean strength of fine detail around each pixel, in 8-bit steps."""
    grey = cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY).astype(np.float32)
    detail = np.abs(grey - cv2.GaussianBlur(grey, (0, 0), 2))
    return cv2.GaussianBlur(detail, (0, 0), SHARPNESS_SIDE / 64).astype(np.float32, copy=False)


def _to_unit(values: _Map) -> _Map:
    """Usual values as 0 and the strongest as 1."""
    above = values - np.percentile(values, 5)
    return np.clip(above / max(float(np.percentile(above, 99)), 1e-6), 0, 1).astype(np.float32)


def _reach(weights: NDArray[np.float32]) -> tuple[float, float]:
    """From where to where most of ``weights`` lies, with some air."""
    share = np.cumsum(weights) / weights.sum()
    start, end = np.searchsorted(share, (TAILS, 1 - TAILS))
    air = AIR * len(weights)
    return float(start) - air, float(end) + 1 + air


def _small(photo: AnyPicture, longest: int) -> NDArray[np.uint8]:
    """``photo`` at 8 bits with sides of at most ``longest``, transparency on grey."""
    height, width = photo.shape[:2]
    scale = min(1.0, longest / max(width, height))
    sides = (max(1, round(width * scale)), max(1, round(height * scale)))
    linear = cv2.resize(to_linear(photo), sides, interpolation=cv2.INTER_AREA)
    if linear.shape[2] == 4:
        alpha = linear[:, :, 3:]
        linear = linear[:, :, :3] * alpha + 0.2 * (1 - alpha)
    return (encode_16_bits(linear) >> 8).astype(np.uint8)


def _unit_box(
    left: float, top: float, right: float, bottom: float, picture: NDArray[np.uint8]
) -> Box:
    """A box of a picture's pixels in photo space, kept inside it."""
    height, width = picture.shape[:2]
    x0, x1 = max(0.0, left / width), min(1.0, right / width)
    y0, y1 = max(0.0, top / height), min(1.0, bottom / height)
    return Box(left=x0, top=y0, width=min(x1 - x0, 1 - x0), height=min(y1 - y0, 1 - y0))


def _around(box: Box) -> Focus:
    x, y = box.centre
    return Focus(point=Point(x=x, y=y), box=box)


def _face_cascade() -> cv2.CascadeClassifier:
    """A classifier of the caller's own, since one must not serve two threads at once."""
    return cv2.CascadeClassifier(f"{cv2.data.haarcascades}haarcascade_frontalface_default.xml")
