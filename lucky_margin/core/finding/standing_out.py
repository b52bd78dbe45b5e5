"""What stands out of a photo whatever it is: what has a colour that the picture's rim does not have
(its distance in CIELAB to the nearest of the rim's main colours) or is sharp, and lies towards the
middle.
"""

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box
from lucky_margin.core.finding.boxes import Floats, unit_box

COLOURS_SIDE = 192
"""Longest side at which colours are compared, in pixels."""

SHARPNESS_SIDE = 768
"""The same for sharpness, which needs detail."""

SHARPNESS_WEIGHT = 0.4
"""Against colour; with more, rough cloth outweighs a smooth bowl."""

RIM, RIM_COLOURS = 0.04, 4
"""How wide the rim is, of the short side, and how many main colours it has."""

REACH = 0.33
"""Of the sides: how fast what stands out counts less away from the middle (as a Gaussian)."""

MOST_PARTS, LEAST_WEIGHT = 3, 0.2
"""As many parts are told, as long as they have so much of the weightiest's weight."""

TAILS, AIR = 0.01, 0.02
"""What may stand out beyond each edge of the box, and what is added to the box there, of it."""


@dataclass(frozen=True)
class StandingOut:
    """Where most of it lies (photo space), and how far it stands out from the rest (0..1)."""

    box: Box
    sureness: float


def find_standing_out(picture: NDArray[np.uint8]) -> list[StandingOut]:
    """The connected parts of what stands out in ``picture`` (8-bit RGB), the weightiest first;
    empty when nothing does."""
    small = _shrunk(picture, COLOURS_SIDE)
    height, width = small.shape[:2]
    sharpness = cv2.resize(
        _sharpness(_shrunk(picture, SHARPNESS_SIDE)), (width, height), interpolation=cv2.INTER_AREA
    )
    colour = _unlike_the_rim(small)
    if float(np.ptp(colour)) < 1 and float(np.ptp(sharpness)) < 1:
        return []
    standing_out = _to_unit(colour) + SHARPNESS_WEIGHT * _to_unit(sharpness)
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    off_x, off_y = (x + 0.5) / width - 0.5, (y + 0.5) / height - 0.5
    standing_out *= np.exp(-(off_x**2 + off_y**2) / (2 * REACH**2))
    standing_out[:] = cv2.GaussianBlur(standing_out, (0, 0), COLOURS_SIDE / 48)
    return [_told(part, standing_out) for part in _weightiest_parts(standing_out)]


def _told(marked: Floats, standing_out: Floats) -> StandingOut:
    """One of the parts, of all that stands out."""
    left, right = _reach(marked.sum(axis=0))
    top, bottom = _reach(marked.sum(axis=1))
    box = unit_box(left, top, right, bottom, marked.shape[::-1])
    # What stands out evenly everywhere is no subject: compare its weight with its area.
    weight, area = float(marked.sum() / standing_out.sum()), float((marked > 0).mean())
    return StandingOut(box, max(0.0, (weight - area) / (1 - area)))


def _weightiest_parts(standing_out: Floats) -> list[Floats]:
    """``standing_out`` where it is above the threshold of Otsu, in each of the connected parts that
    have most of it, and 0 elsewhere."""
    levels = cv2.normalize(standing_out, None, 0, 255, cv2.NORM_MINMAX).astype(np.uint8)
    _, above = cv2.threshold(levels, 0, 1, cv2.THRESH_BINARY | cv2.THRESH_OTSU)
    _, parts = cv2.connectedComponents(above)
    weights = np.bincount(parts.ravel(), weights=standing_out.ravel())
    weights[0] = 0
    by_weight = np.argsort(-weights, kind="stable")[:MOST_PARTS]
    return [
        np.where(parts == part, standing_out, np.float32(0))
        for part in by_weight
        if weights[part] >= LEAST_WEIGHT * weights.max()
    ]


def _unlike_the_rim(small: NDArray[np.uint8]) -> Floats:
    """How far each pixel's colour is from the nearest of the rim's main colours, in CIELAB."""
    lab = cv2.cvtColor(small.astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
    lab = cv2.GaussianBlur(lab, (0, 0), COLOURS_SIDE / 96)
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
    nearest: Floats = distances.min(axis=0).astype(np.float32)
    return nearest


def _sharpness(picture: NDArray[np.uint8]) -> Floats:
    """The mean strength of fine detail around each pixel, in 8-bit steps."""
    grey = cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY).astype(np.float32)
    detail = np.abs(grey - cv2.GaussianBlur(grey, (0, 0), 2))
    return cv2.GaussianBlur(detail, (0, 0), SHARPNESS_SIDE / 64).astype(np.float32, copy=False)


def _to_unit(values: Floats) -> Floats:
    """Usual values as 0 and the strongest as 1."""
    above = values - np.percentile(values, 5)
    return np.clip(above / max(float(np.percentile(above, 99)), 1e-6), 0, 1).astype(np.float32)


def _reach(weights: Floats) -> tuple[float, float]:
    """From where to where most of ``weights`` lies, with some air."""
    share = np.cumsum(weights) / weights.sum()
    start, end = np.searchsorted(share, (TAILS, 1 - TAILS))
    air = AIR * (end + 1 - start)
    return float(start) - air, float(end) + 1 + air


def _shrunk(picture: NDArray[np.uint8], longest: int) -> NDArray[np.uint8]:
    """``picture`` with sides of at most ``longest``, its light averaged as it is stored: only
    differences count here."""
    height, width = picture.shape[:2]
    scale = min(1.0, longest / max(width, height))
    sides = (max(1, round(width * scale)), max(1, round(height * scale)))
    return np.asarray(cv2.resize(picture, sides, interpolation=cv2.INTER_AREA), np.uint8)
