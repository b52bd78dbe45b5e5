"""Upright boxes inside an outline: the largest of a given ratio, or one at even distances."""

import cv2
import numpy as np
import shapely

from lucky_margin.core.document import Box
from lucky_margin.core.outlines.outline import Outline, PolygonOutline

GRID = 255
"""Cells along each side of the search grid, odd so that one lies at the outline's centre; the
search is then refined by bisection."""

_HALF_COVERED = 127
_HALVINGS = 40
_NOTHING = 1e-3
"""Square output pixels."""


def largest_box_inside(outline: Outline, ratio: float) -> Box | None:
    """The largest upright box of ``ratio`` (width over height) inside ``outline``; where several
    are as large, one at its centre. None when nothing is left of the outline.

    Stretched by 1 / ratio across, a box is a square, and the largest square around a point is
    the chessboard distance to the outside: its maximum over a grid says where the box is, to
    a cell, and bisection how large it can be there.
    """
    region = outline.region
    if region.area < _NOTHING:
        return None
    left, top, right, bottom = region.bounds
    cell_x, cell_y = max(right - left, 1e-9) / GRID, max(bottom - top, 1e-9) / GRID
    cell_y = max(cell_x / ratio, cell_y)
    cell_x = cell_y * ratio
    x0, y0 = (left + right) / 2 - cell_x * GRID / 2, (top + bottom) / 2 - cell_y * GRID / 2
    moved = shapely.transform(region, lambda points: (points - [x0, y0]) / [cell_x, cell_y])
    shapely.prepare(moved)
    inside = np.zeros((GRID + 2, GRID + 2), np.uint8)
    inside[1:-1, 1:-1] = PolygonOutline(moved).coverage(GRID, GRID) > _HALF_COVERED
    distance = cv2.distanceTransform(inside, cv2.DIST_C, 3)[1:-1, 1:-1]
    row, column = np.unravel_index(int(np.argmax(distance)), distance.shape)
    places = [(GRID / 2, GRID / 2), (column + 0.5, row + 0.5)]
    half, (x, y) = max(((_half_side(moved, place), place) for place in places), key=lambda p: p[0])
    return Box(
        left=x0 + (x - half) * cell_x,
        top=y0 + (y - half) * cell_y,
        width=max(2 * half * cell_x, 1e-6),
        height=max(2 * half * cell_y, 1e-6),
    )


def evenly_inside(outline: Outline) -> Box | None:
    """The largest upright box inside ``outline`` that is as far from its upright box on all four
    sides: for a rectangle all of it, for rounded corners up to them. None when nothing is left."""
    region = outline.region
    if region.area < _NOTHING:
        return None
    shapely.prepare(region)
    left, top, right, bottom = region.bounds
    low, high = 0.0, min(right - left, bottom - top) / 2
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        if region.covers(shapely.box(left + middle, top + middle, right - middle, bottom - middle)):
            high = middle
        else:
            low = middle
    sides = max(right - left - 2 * high, 1e-6), max(bottom - top - 2 * high, 1e-6)
    return Box(left=left + high, top=top + high, width=sides[0], height=sides[1])


def _half_side(region: shapely.Geometry, centre: tuple[float, float]) -> float:
    """Half the side of the largest square around ``centre`` inside ``region``, in cells."""
    x, y = centre
    low, high = 0.0, float(GRID)
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        if region.covers(shapely.box(x - middle, y - middle, x + middle, y + middle)):
            low = middle
        else:
            high = middle
    return low
