"""Lines that follow the contour of an alpha channel: where it is half covered."""

import math

import cv2
import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.blurring import blurred
from lucky_margin.core.types import Mask

Floats = NDArray[np.float32]

FAR = 1e6
"""Stands for a distance that was not looked for."""

ASIDE = 2
"""How far along the contour nearer places are looked for, in pixels."""

STRAIGHT = 4.0
"""Distance up to which the contour is taken to be straight, in pixels."""

LEAST_SCALE = 1.5
"""Over fewer pixels an edge can't be told from hair."""

PLAIN_EDGE = 0.27
"""What a plain anti-aliased edge leaves of partial coverage after blurring, times the blur's
standard deviation: two thirds of a pixel over the root of two pi."""

SOFT_FROM = 0.1
"""By so much more than twice that an edge is soft."""

END = 3.0
"""Side of the largest end of hairs that the contour leaves out, times the scale."""

ENVELOPE = 1.6
"""How much further out than half covered the contour of soft places runs."""

HERE = 99
"""Stands for the pixel's own place among the steps aside."""

NEIGHBOURS = ((0, 1), (0, -1), (1, 0), (-1, 0))


def distance_to_contour(alpha: Floats, reach: float) -> Floats:
    """The distance of each pixel's centre from the contour of ``alpha`` (0..1), in pixels: below 0
    inside, exact to a fraction of a pixel up to ``reach``, and ``FAR`` either way beyond.

    The contour crosses between two neighbours where the straight line between their alphas is half
    covered; as in S. Gustavson and R. Strand, "Anti-aliased Euclidean distance transform", 2011,
    each pixel measures to the crossings of the boundary pixel nearest to it.
    """
    inside = alpha >= 0.5
    distance = np.where(inside, -FAR, FAR).astype(np.float32)
    left, top, width, height = cv2.boundingRect(inside.astype(np.uint8))
    room = math.ceil(reach) + 3
    part = np.s_[
        max(0, top - room) : top + height + room, max(0, left - room) : left + width + room
    ]
    measured = distance[part].copy()
    _measure_part(measured, np.ascontiguousarray(alpha[part]), inside[part], float(reach))
    distance[part] = measured
    return distance


def _measure_part(distance: Floats, alpha: Floats, inside: NDArray[np.bool_], reach: float) -> None:
    crossings = _crossings(alpha, inside)
    boundary = (crossings < FAR).any(axis=0)
    if not boundary.any():
        return
    seeds = np.asarray(~boundary, np.uint8)
    apart = np.asarray(cv2.distanceTransform(seeds, cv2.DIST_L2, cv2.DIST_MASK_PRECISE), np.float32)
    _, labels = cv2.distanceTransformWithLabels(
        seeds, cv2.DIST_L2, 5, labelType=cv2.DIST_LABEL_PIXEL
    )
    number = np.zeros(int(labels.max()) + 1, np.int32)
    number[labels[boundary]] = np.arange(np.count_nonzero(boundary))
    _measure(
        distance,
        read_only(apart),
        read_only(number[labels]),
        read_only(np.argwhere(boundary).astype(np.int32)),
        read_only(np.ascontiguousarray(crossings[:, boundary].T)),
        read_only(np.ascontiguousarray(_normals(alpha)[:, boundary].T)),
        reach + 2,
    )


def warm_up() -> None:
    """Compile the loop, or load it, so that no first outline waits for that."""
    distance_to_contour(np.eye(3, dtype=np.float32), 1)


@numba.njit(nogil=True, cache=True)
def _measure(
    distance: Floats,
    apart: Floats,
    nearest: NDArray[np.int32],
    boundary: NDArray[np.int32],
    crossings: Floats,
    normals: Floats,
    reach: float,
) -> None:
    """Measure ``distance`` where boundary pixels are at most ``reach`` away.

    ``nearest`` numbers the boundary pixel next to each pixel: roughly far away, but rightly where
    the way down ``apart`` leads to, give or take a step along the contour.
    """
    rows, columns = apart.shape
    for y in range(rows):
        for x in range(columns):
            away = apart[y, x]
            if away > reach:
                continue
            down_y = (apart[min(y + 1, rows - 1), x] - apart[max(y - 1, 0), x]) / 2
            down_x = (apart[y, min(x + 1, columns - 1)] - apart[y, max(x - 1, 0)]) / 2
            least, straight = FAR, FAR
            for aside in (-ASIDE, 0, ASIDE, HERE):
                v, u = y, x
                if aside != HERE:
                    v = min(max(round(y - away * down_y + aside * down_x), 0), rows - 1)
                    u = min(max(round(x - away * down_x - aside * down_y), 0), columns - 1)
                one = nearest[v, u]
                for way in range(4):
                    along = crossings[one, way]
                    to_y = boundary[one, 0] - y + along * NEIGHBOURS[way][0]
                    to_x = boundary[one, 1] - x + along * NEIGHBOURS[way][1]
                    far = (to_y * to_y + to_x * to_x) ** 0.5
                    if far < least:
                        least = far
                        straight = abs(to_y * normals[one, 0] + to_x * normals[one, 1])
            # Crossings are up to a pixel apart; near the contour that counts, and it is straight.
            value = straight if least < STRAIGHT else least
            distance[y, x] = -value if distance[y, x] < 0 else value


def _normals(alpha: Floats) -> Floats:
    """The direction in which ``alpha`` rises most, of length 1, shape (2, rows, columns)."""
    smooth = cv2.GaussianBlur(alpha, (0, 0), 1.0)
    ways = [cv2.Sobel(smooth, cv2.CV_32F, *way, ksize=3) for way in ((0, 1), (1, 0))]
    length = np.maximum(np.hypot(*ways), 1e-6)
    return np.asarray([way / length for way in ways], np.float32)


def _crossings(alpha: Floats, inside: NDArray[np.bool_]) -> Floats:
    """How far (0..1) it is from each pixel to the contour on the way to each of its four
    neighbours, shape (4, rows, columns); ``FAR`` where the contour is not between them."""
    found = np.full((4, *alpha.shape), FAR, np.float32)
    for way, (y, x) in enumerate(NEIGHBOURS):
        here, there = _all_but_last(alpha, y, x), _all_but_last(alpha, -y, -x)
        crosses = inside[here] != inside[there]
        step = alpha[there][crosses] - alpha[here][crosses]
        found[way][here][crosses] = (0.5 - alpha[here][crosses]) / step
    return found


def _all_but_last(alpha: Floats, y: int, x: int) -> tuple[slice, slice]:
    """The pixels that have a neighbour in this direction."""
    rows, columns = alpha.shape
    return slice(max(0, -y), rows - max(0, y)), slice(max(0, -x), columns - max(0, x))


def calmed(alpha: Floats, scale: float) -> Floats:
    """``alpha`` (0..1) whose contour runs smoothly round hair and grass, and as before elsewhere.

    Where more of it is partly covered than a plain edge leaves, it is averaged over ``scale``
    pixels, and the contour is moved out so that thin ends lie within.
    """
    scale = max(scale, LEAST_SCALE)
    partly = blurred(4 * alpha * (1 - alpha), scale)
    plain = PLAIN_EDGE / scale
    soft = np.clip((partly - 2 * plain) / max(plain, SOFT_FROM), 0, 1)
    if not soft.any():
        return alpha
    smooth = np.clip(ENVELOPE * blurred(alpha, scale), 0, 1)
    calm = alpha + blurred(soft, scale) * (smooth - alpha)
    # The ends of single hairs that stick out of what is averaged.
    count, labels, stats, _ = cv2.connectedComponentsWithStats((calm >= 0.5).astype(np.uint8))
    ends = 1 + np.nonzero(stats[1:, cv2.CC_STAT_AREA] < (END * scale) ** 2)[0]
    if 0 < len(ends) < count - 1:
        calm[np.isin(labels, ends)] = 0
    return np.asarray(calm, np.float32)


def line_mask(
    distance: Floats, *, gap: float, width: float, softness: float, strength: float, inside: bool
) -> Mask:
    """How much (0..255) a line covers of each pixel, by its ``distance`` from the contour.

    The line is ``width`` pixels wide and ``gap`` pixels away from the contour, outside or
    ``inside``. ``softness`` (0..1) is the share of its width over which it fades out;
    ``strength`` multiplies what is left of it there. An outside line without a gap goes on under
    the edge, so that nothing shines through between.
    """
    mask = np.zeros(distance.shape, np.uint8)
    sign, outer = np.float32(-1 if inside else 1), np.float32(gap + width)
    near = distance > -outer - 1 if inside else distance < outer + 1
    left, top, wide, high = cv2.boundingRect(near.astype(np.uint8))
    part = np.s_[top : top + high, left : left + wide]
    away = sign * distance[part]
    cover = (outer + np.float32(0.5) - away) / np.float32(max(1.0, softness * width))
    np.clip(cover, 0, 1, out=cover)
    if softness > 0:
        cover = np.clip(np.float32(strength) * cover * cover * (3 - 2 * cover), 0, 1)
    away -= np.float32((gap if gap > 0 or inside else -width) - 0.5)
    np.clip(away, 0, 1, out=away)
    cover *= away
    mask[part] = np.rint(255 * cover)
    return mask
