"""The one fixed way in which strokes are laid to judge a cut-out: along the middle of its largest
mistake. It knows the truth, so it stands for somebody who sees well what is wrong."""

from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import cv2
import numpy as np

from tests.truth.photos import Alpha

WRONG = 0.5
"""An error of more than this is a mistake that can be seen."""

STRETCHES = 8
"""Points of a stroke, one for each stretch of the mistake's length."""

THICKNESS = 0.5
"""Of a stroke's radius, of the mistake's own at its thickest place."""

LEAST_RADIUS, MOST_RADIUS = 0.0015, 0.02
"""In long sides of the photo."""


@dataclass(frozen=True)
class Stroke:
    """``points`` in photo space (0..1), ``radius`` in long sides of the photo."""

    kind: Literal["keep", "leave out"]
    points: tuple[tuple[float, float], ...]
    radius: float


def next_stroke(alpha: Alpha, truth: Alpha) -> Stroke | None:
    """The stroke that is laid next; None when no mistake is left."""
    wrong = (np.abs(alpha - truth) > WRONG).astype(np.uint8)
    count, labels, stats, _ = cv2.connectedComponentsWithStats(wrong, connectivity=8)
    if count < 2:
        return None
    mistake = labels == 1 + int(np.argmax(stats[1:, cv2.CC_STAT_AREA]))
    # A border of one pixel, so that a mistake at the photo's edge has its middle inside.
    inside = np.pad(mistake, 1).astype(np.uint8)
    depth = cv2.distanceTransform(inside, cv2.DIST_L2, 5)[1:-1, 1:-1]
    rows, columns = alpha.shape
    long_side = max(rows, columns)
    radius = np.clip(THICKNESS * depth.max() / long_side, LEAST_RADIUS, MOST_RADIUS)
    points = tuple(((x + 0.5) / columns, (y + 0.5) / rows) for x, y in _middle(mistake, depth))
    return Stroke("keep" if truth[mistake].mean() > 0.5 else "leave out", points, float(radius))


def _middle(mistake: np.ndarray, depth: np.ndarray) -> list[tuple[int, int]]:
    """The deepest pixel of each stretch along the mistake's longest axis."""
    y, x = np.nonzero(mistake)
    places = np.stack([x, y], axis=1).astype(np.float64)
    centred = places - places.mean(axis=0)
    axis = np.linalg.svd(centred, full_matrices=False)[2][0] if len(x) > 2 else np.array([1.0, 0.0])
    along = centred @ axis
    low, high = np.percentile(along, (5, 95))
    ends = np.linspace(low, high, STRETCHES + 1)
    middle = []
    for start, end in pairwise(ends):
        here = np.nonzero((along >= start) & (along <= end))[0]
        if len(here):
            deepest = here[np.argmax(depth[y[here], x[here]])]
            middle.append((int(x[deepest]), int(y[deepest])))
    return list(dict.fromkeys(middle))
