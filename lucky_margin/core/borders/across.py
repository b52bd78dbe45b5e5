"""How pixels lie in a band of a border: how far across it, and along which edge of the outline.

Every pixel belongs to the edge that is nearest, in thicknesses of the band there; so bands meet
in mitres at corners, and each pixel belongs to one edge only. At a corner that points inwards, as
in the notch of a heart, the edges go on straight until they meet.
"""

import math
from dataclasses import dataclass
from functools import cached_property

import cv2
import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.outlines import CORNER_DEGREES, Outline, corner_angles
from lucky_margin.core.outlines.outline import Points
from lucky_margin.core.types import Region

Floats = NDArray[np.float32]
Thickness = tuple[float, float, float, float]
"""Top, right, bottom, left, in pixels."""

BLOCK = 16
"""Side of the squares of pixels that share the edges they may be nearest to."""

REACH = 1.5
"""How far in, in thicknesses, pixels are told apart; what lies further in only is at ``BEYOND``."""

BEYOND = 9.0

_SAME = 1e-7
_THINNEST = 1e-3
"""Stands for the thickness of a side that has none, in pixels."""


@dataclass(frozen=True, eq=False)
class Edges:
    """The straight edges of an outline's rings, one after the other, and a band's thickness along
    them; in pixels. ``normals`` point inwards at both ends of an edge, shape (count, 2, 2): where
    the outline is curved, those of two edges that meet are the same."""

    starts: Points
    steps: Points
    thickness: NDArray[np.float64]
    normals: Points
    rings: NDArray[np.int64]
    """How many edges each ring has."""
    beside: NDArray[np.int64]
    """The numbers of the edges before and after each, shape (count, 2)."""

    @classmethod
    def of(cls, outline: Outline, thickness: Thickness) -> "Edges":
        """The edges of ``outline``; only four may be of several thicknesses."""
        rings = [_tidy(ring) for ring in outline.rings]
        starts = np.concatenate(rings)
        steps = np.concatenate([np.roll(ring, -1, axis=0) - ring for ring in rings])
        even = max(thickness)
        counts = np.array([len(ring) for ring in rings])
        numbers = np.split(np.arange(len(starts)), np.cumsum(counts)[:-1])
        beside = [np.column_stack([np.roll(one, 1), np.roll(one, -1)]) for one in numbers]
        widths = [max(_THINNEST, side) for side in thickness]
        return cls(
            starts,
            steps,
            np.array(widths) if len(starts) == 4 else np.full(len(starts), max(_THINNEST, even)),
            np.concatenate([_normals(ring) for ring in rings]),
            counts,
            np.concatenate(beside),
        )

    @cached_property
    def spans(self) -> NDArray[np.int64]:
        """The number of each edge's stretch between two corners."""
        turns = (np.abs(np.roll(self.normals[:, 1], 1, axis=0) - self.normals[:, 0]) > 1e-6).any(1)
        return np.cumsum(turns)

    @cached_property
    def stations(self) -> NDArray[np.float64]:
        """How far along its ring each edge begins, in pixels."""
        rings = np.split(self.lengths, np.cumsum(self.rings)[:-1])
        return np.concatenate([np.cumsum(ring) - ring for ring in rings])

    @cached_property
    def round_length(self) -> NDArray[np.float64]:
        """The whole length of the ring of each edge, in pixels."""
        rings = np.split(self.lengths, np.cumsum(self.rings)[:-1])
        return np.concatenate([np.full(len(ring), ring.sum()) for ring in rings])

    @cached_property
    def lengths(self) -> NDArray[np.float64]:
        """Of each edge, in pixels."""
        return np.asarray(np.hypot(*self.steps.T), np.float64)


@dataclass(frozen=True, eq=False)
class Across:
    """Pixels of a band, all of shape (rows, columns)."""

    depth: Floats
    """0 at the outer edge of the band, 1 at its inner edge, and on beyond both."""
    edge: NDArray[np.int32]
    """The number of the edge that is nearest."""
    along: Floats
    """0 where that edge begins, 1 where it ends; beyond that where it goes on."""

    def mitres(self, edges: Edges) -> Region | None:
        """The box of pixels around the lines where edges that meet in a corner share the band;
        None where there is no such line."""
        if int(self.edge.min()) == int(self.edge.max()):
            return None
        spans = np.where(self.depth < REACH, edges.spans[self.edge], -1)
        known = spans >= 0
        line = np.zeros(spans.shape, np.uint8)
        down = (spans[1:] != spans[:-1]) & known[1:] & known[:-1]
        onwards = (spans[:, 1:] != spans[:, :-1]) & known[:, 1:] & known[:, :-1]
        line[1:] |= down
        line[:-1] |= down
        line[:, 1:] |= onwards
        line[:, :-1] |= onwards
        left, top, width, height = cv2.boundingRect(line)
        return (left, top, width, height) if width else None

    def normals(self, edges: Edges) -> tuple[Floats, Floats]:
        """The direction inwards, as x and y of length about 1."""
        first, last = edges.normals[:, 0].astype(np.float32), edges.normals[:, 1].astype(np.float32)
        share = np.clip(self.along, 0, 1)
        x, y = (
            first[self.edge, axis] * (1 - share) + last[self.edge, axis] * share for axis in (0, 1)
        )
        return x, y


def across(edges: Edges, left: float, top: float, step: float, columns: int, rows: int) -> Across:
    """For pixels that are ``step`` apart, the first with its middle at ``left``, ``top``."""
    depth = np.empty((rows, columns), np.float32)
    edge = np.empty((rows, columns), np.int32)
    along = np.empty((rows, columns), np.float32)
    _nearest(
        read_only(np.ascontiguousarray(edges.starts)),
        read_only(np.ascontiguousarray(edges.steps)),
        read_only(np.ascontiguousarray(edges.thickness, np.float64)),
        read_only(np.ascontiguousarray(edges.beside)),
        float(left),
        float(top),
        float(step),
        depth,
        edge,
        along,
    )
    return Across(depth, edge, along)


def _tidy(ring: Points) -> Points:
    """Clockwise on the screen, and no point twice in a row, as where two round corners meet."""
    moves = np.abs(np.roll(ring, -1, axis=0) - ring).max(axis=1) > _SAME
    ring = ring[moves]
    x, y = ring.T
    is_clockwise = np.dot(x, np.roll(y, -1)) > np.dot(y, np.roll(x, -1))
    return ring if is_clockwise else ring[::-1]


def _normals(ring: Points) -> Points:
    steps = np.roll(ring, -1, axis=0) - ring
    plain = np.column_stack([-steps[:, 1], steps[:, 0]]) / np.linalg.norm(steps, axis=1)[:, None]
    at_points = plain + np.roll(plain, 1, axis=0)
    at_points /= np.maximum(np.linalg.norm(at_points, axis=1), 1e-9)[:, None]
    is_corner = (corner_angles(ring) > CORNER_DEGREES)[:, None]
    first = np.where(is_corner, plain, at_points)
    last = np.where(np.roll(is_corner, -1, axis=0), plain, np.roll(at_points, -1, axis=0))
    return np.stack([first, last], axis=1)


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy", fastmath=True)
def _nearest(
    starts: Points,
    steps: Points,
    thickness: NDArray[np.float64],
    beside: NDArray[np.int64],
    left: float,
    top: float,
    step: float,
    depth: Floats,
    edge: NDArray[np.int32],
    along: Floats,
) -> None:
    """Square by square: first the edges that may be nearest anywhere in it, then pixel by pixel
    among those."""
    rows, columns = depth.shape
    count = len(starts)
    down = (rows + BLOCK - 1) // BLOCK
    for block_row in numba.prange(down):
        near = np.empty(count, np.int64)
        distances = np.empty(count, np.float64)
        y0 = block_row * BLOCK
        y1 = min(rows, y0 + BLOCK)
        for x0 in range(0, columns, BLOCK):
            x1 = min(columns, x0 + BLOCK)
            middle_x = left + step * (x0 + x1 - 1) / 2
            middle_y = top + step * (y0 + y1 - 1) / 2
            half = step * math.hypot(x1 - x0, y1 - y0) / 2
            bound, least = 1e30, 1e30
            for number in range(count):
                distance, _ = _distance(starts, steps, number, middle_x, middle_y)
                distances[number] = distance
                bound = min(bound, (distance + half) / thickness[number])
                least = min(least, (distance - half) / thickness[number])
            if least > REACH:
                depth[y0:y1, x0:x1] = BEYOND
                edge[y0:y1, x0:x1] = 0
                along[y0:y1, x0:x1] = 0
                continue
            kept = 0
            for number in range(count):
                if (distances[number] - half) / thickness[number] <= bound:
                    near[kept] = number
                    kept += 1
            for row in range(y0, y1):
                for column in range(x0, x1):
                    x, y = left + step * column, top + step * row
                    found = _nearest_of(near[:kept], starts, steps, thickness, beside, x, y)
                    depth[row, column], edge[row, column], along[row, column] = found


@numba.njit(inline="always", error_model="numpy", fastmath=True)
def _nearest_of(
    near: NDArray[np.int64],
    starts: Points,
    steps: Points,
    thickness: NDArray[np.float64],
    beside: NDArray[np.int64],
    x: float,
    y: float,
) -> tuple[float, int, float]:
    """Of the edges ``near``: the depth below it, its number and the place along it."""
    best, best_number, best_along = 1e30, 0, 0.0
    for number in near:
        distance, share = _distance(starts, steps, number, x, y)
        distance /= thickness[number]
        if distance < best:
            best, best_number, best_along = distance, number, share
    if 0 < best_along < 1:
        return best, best_number, best_along
    other = beside[best_number, int(best_along)]
    best, best_along = _to_line(starts, steps, best_number, x, y)
    from_other, along_other = _to_line(starts, steps, other, x, y)
    best, from_other = best / thickness[best_number], from_other / thickness[other]
    if from_other > best:
        return from_other, other, along_other
    return best, best_number, best_along


@numba.njit(inline="always", error_model="numpy", fastmath=True)
def _to_line(starts: Points, steps: Points, number: int, x: float, y: float) -> tuple[float, float]:
    """From a point to the straight line through an edge, and how far along that is."""
    from_x, from_y = x - starts[number, 0], y - starts[number, 1]
    step_x, step_y = steps[number, 0], steps[number, 1]
    length = math.hypot(step_x, step_y)
    away = abs(step_x * from_y - step_y * from_x) / length
    return away, (from_x * step_x + from_y * step_y) / (length * length)


@numba.njit(inline="always", error_model="numpy", fastmath=True)
def _distance(
    starts: Points, steps: Points, number: int, x: float, y: float
) -> tuple[float, float]:
    """From a point to an edge, and how far along that the nearest place is (0..1)."""
    from_x, from_y = x - starts[number, 0], y - starts[number, 1]
    step_x, step_y = steps[number, 0], steps[number, 1]
    share = (from_x * step_x + from_y * step_y) / (step_x * step_x + step_y * step_y)
    share = min(1.0, max(0.0, share))
    return math.hypot(from_x - share * step_x, from_y - share * step_y), share


def warm_up() -> None:
    """Compile the loops, or load them from disk."""
    square = np.array([[0.0, 0.0], [4.0, 0.0], [4.0, 4.0], [0.0, 4.0]])
    steps = np.roll(square, -1, axis=0) - square
    beside = np.zeros((4, 2), np.int64)
    across(
        Edges(square, steps, np.ones(4), np.zeros((4, 2, 2)), np.array([4]), beside),
        0.5,
        0.5,
        1.0,
        4,
        4,
    )
