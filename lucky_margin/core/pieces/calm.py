"""A calm place for words: where a picture has little going on.

How busy a box is, is the mean of two things over it, each 0..1: how much lightness changes from
pixel to pixel (strong edges count in full) and how far it strays from the box's own mean. A box
that touches what has to stay in view counts as busier by the share of it that does, times
``FOCUS``; one that is far from the middle and the edges alike by a little, so that words come to
lie in line with something. Both are added up over boxes by integral images, at a small fixed size.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box
from lucky_margin.core.oklab import from_light
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.types import Picture8

FOCUS = 3.0
STRONG_EDGE = 0.12
"""OKLab lightness from one pixel to the next."""

WIDE_SPREAD = 0.25
OUT_OF_LINE = 0.03
_MOST_PLACES = 8
_APART = 0.5
"""Of a box's sides: how far the next best place is from a better one at least."""

Plane = NDArray[np.float64]


@dataclass(frozen=True)
class CalmPlace:
    """A middle for the box, in the units of ``inside``, how busy it is there (0 is bare) and the
    median OKLab lightness of what is behind."""

    x: float
    y: float
    busy: float
    lightness: float


def calm_places(
    picture: Picture8,
    inside: Box,
    width: float,
    height: float,
    avoid: Sequence[Box] = (),
    subject: Plane | None = None,
) -> list[CalmPlace]:
    """Places for a box of ``width`` x ``height`` within ``inside``, the calmest first.

    All lengths are in the picture's pixels. What lies in a box to ``avoid`` has to stay in view,
    and so has the ``subject``, by how much (0..1) it covers of each pixel. Empty when the box does
    not fit.
    """
    room_x, room_y = inside.width - width, inside.height - height
    if room_x < 0 or room_y < 0:
        return []
    light = from_light(decode(picture[:, :, :3] / 255))[:, :, 0]
    edges = np.minimum(np.abs(_slope(light)) / STRONG_EDGE, 1)
    kept = _covered(light, avoid)
    if subject is not None:
        kept = np.maximum(kept, subject)
    planes = (edges, light, light * light, kept)
    sums = [np.asarray(cv2.integral(plane), np.float64) for plane in planes]
    lefts = np.unique(np.linspace(inside.left, inside.left + room_x, 41))
    tops = np.unique(np.linspace(inside.top, inside.top + room_y, 41))
    x, y = np.meshgrid(lefts, tops)
    edge, mean, square, covered = (_means(total, x, y, width, height) for total in sums)
    spread = np.sqrt(np.maximum(square - mean * mean, 0)) / WIDE_SPREAD
    busy = (edge + np.minimum(spread, 1)) / 2 + FOCUS * covered
    off = _out_of_line(x, inside.left, room_x) + _out_of_line(y, inside.top, room_y)
    busy += OUT_OF_LINE * off
    return _best(x, y, busy, light, width, height)


def _slope(light: Plane) -> Plane:
    down, across = np.gradient(light) if min(light.shape) > 1 else (light * 0, light * 0)
    return np.hypot(down, across)


def _covered(light: Plane, boxes: Sequence[Box]) -> Plane:
    plane = np.zeros(light.shape)
    for box in boxes:
        top, left = max(0, round(box.top)), max(0, round(box.left))
        plane[top : max(top, round(box.bottom)), left : max(left, round(box.right))] = 1
    return plane


def _means(total: Plane, x: Plane, y: Plane, width: float, height: float) -> Plane:
    """The mean over each box, from the sums up to its corners."""
    rows, columns = total.shape[0] - 1, total.shape[1] - 1
    x0 = np.clip(np.rint(x).astype(int), 0, columns - 1)
    y0 = np.clip(np.rint(y).astype(int), 0, rows - 1)
    x1 = np.clip(np.rint(x + width).astype(int), x0 + 1, columns)
    y1 = np.clip(np.rint(y + height).astype(int), y0 + 1, rows)
    sums = total[y1, x1] - total[y0, x1] - total[y1, x0] + total[y0, x0]
    return np.asarray(sums / ((x1 - x0) * (y1 - y0)))


def _out_of_line(start: Plane, low: float, room: float) -> Plane:
    """How far from an end or the middle a box lies, 0..1."""
    if room <= 0:
        return np.zeros_like(start)
    share = (start - low) / room
    return np.asarray(4 * np.minimum(np.minimum(share, 1 - share), np.abs(share - 0.5)))


def _best(
    x: Plane, y: Plane, busy: Plane, light: Plane, width: float, height: float
) -> list[CalmPlace]:
    """The calmest places that do not lie on a better one."""
    places: list[CalmPlace] = []
    for index in np.argsort(busy, axis=None, kind="stable"):
        left, top = float(x.flat[index]), float(y.flat[index])
        middle = left + width / 2, top + height / 2
        if all(
            abs(one.x - middle[0]) >= _APART * width or abs(one.y - middle[1]) >= height
            for one in places
        ):
            part = light[
                max(0, int(top)) : int(top + height) + 1, max(0, int(left)) : int(left + width) + 1
            ]
            lightness = float(np.median(part)) if part.size else 0.0
            places.append(CalmPlace(*middle, float(busy.flat[index]), lightness))
        if len(places) == _MOST_PLACES:
            break
    return places
