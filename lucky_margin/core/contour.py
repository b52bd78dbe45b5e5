"""Lines that follow the contour of an alpha channel: where it is half covered."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.types import Mask

Floats = NDArray[np.float32]

FAR = np.float32(1e6)
"""Stands for a distance that was not looked for."""

_NEIGHBOURS = ((0, 1), (0, -1), (1, 0), (-1, 0))


def distance_to_contour(alpha: Floats, reach: float) -> Floats:
    """The distance of each pixel's centre from the contour of ``alpha`` (0..1), in pixels: below 0
    inside, exact to a fraction of a pixel up to ``reach``, and ``FAR`` either way beyond.

    The contour crosses between two neighbours where the straight line between their alphas is half
    covered; as in S. Gustavson and R. Strand, "Anti-aliased Euclidean distance transform", 2011,
    each pixel measures to the crossings of the boundary pixel nearest to it.
    """
    inside = alpha >= 0.5
    distance = np.where(inside, -FAR, FAR).astype(np.float32)
    crossings = _crossings(alpha, inside)
    boundary = (crossings < FAR).any(axis=0)
    if not boundary.any():
        return distance
    rough, labels = cv2.distanceTransformWithLabels(
        np.asarray(~boundary, np.uint8), cv2.DIST_L2, 5, labelType=cv2.DIST_LABEL_PIXEL
    )
    own_y, own_x = np.nonzero(boundary)
    order = np.empty(int(labels.max()) + 1, np.intp)
    order[labels[boundary]] = np.arange(len(own_y))
    near = rough <= reach + 2
    y, x = np.nonzero(near)
    nearest = order[labels[near]]
    dy, dx = (own_y[nearest] - y).astype(np.float32), (own_x[nearest] - x).astype(np.float32)
    ways = crossings[:, boundary][:, nearest]
    squared = [
        (dy + step_y * along) ** 2 + (dx + step_x * along) ** 2
        for (step_y, step_x), along in zip(_NEIGHBOURS, ways, strict=True)
    ]
    least = np.sqrt(np.minimum.reduce(squared))
    distance[near] = np.where(inside[near], -least, least)
    return distance


def _crossings(alpha: Floats, inside: NDArray[np.bool_]) -> Floats:
    """How far (0..1) it is from each pixel to the contour on the way to each of its four
    neighbours, shape (4, rows, columns); ``FAR`` where the contour is not between them."""
    found = np.full((4, *alpha.shape), FAR, np.float32)
    for way, (y, x) in enumerate(_NEIGHBOURS):
        here, there = _all_but_last(alpha, y, x), _all_but_last(alpha, -y, -x)
        crosses = inside[here] != inside[there]
        step = alpha[there][crosses] - alpha[here][crosses]
        found[way][here][crosses] = (0.5 - alpha[here][crosses]) / step
    return found


def _all_but_last(alpha: Floats, y: int, x: int) -> tuple[slice, slice]:
    """The pixels that have a neighbour in this direction."""
    rows, columns = alpha.shape
    return slice(max(0, -y), rows - max(0, y)), slice(max(0, -x), columns - max(0, x))


def line_mask(
    distance: Floats, *, gap: float, width: float, softness: float, strength: float, inside: bool
) -> Mask:
    """How much (0..255) a line covers of each pixel, by its ``distance`` from the contour.

    The line is ``width`` pixels wide and ``gap`` pixels away from the contour, outside or
    ``inside``. ``softness`` (0..1) is the share of its width over which it fades out;
    ``strength`` multiplies what is left of it there. An outside line without a gap goes on under
    the edge, so that nothing shines through between.
    """
    away = -distance if inside else distance
    outer = gap + width
    fade = max(1.0, softness * width)
    cover = np.clip((outer + 0.5 - away) / fade, 0, 1)
    if softness > 0:
        cover = np.clip(strength * cover * cover * (3 - 2 * cover), 0, 1)
    inner = gap if gap > 0 or inside else -width
    cover *= np.clip(away - inner + 0.5, 0, 1)
    return np.asarray(np.rint(255 * cover), np.uint8)
