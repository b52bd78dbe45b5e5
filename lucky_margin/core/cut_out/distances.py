"""Distances that count what lies on the way, in compiled loops."""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only

PASSES = 4
"""Sweeps over the picture, each of two diagonals; more change less than a hundredth."""


def geodesic_distance(cost: NDArray[np.float32], start: NDArray[np.bool_]) -> NDArray[np.float32]:
    """The least sum of ``cost`` on any way from ``start`` to each pixel, shape (rows, columns).

    Each step between neighbours, diagonal ones too, costs its length times the mean of the two
    pixels' costs (P. Toivanen, "New geodesic distance transforms for gray-scale images", 1996).
    """
    distance = np.where(start, np.float32(0), np.float32(np.inf)).astype(np.float32)
    _swept(read_only(np.ascontiguousarray(cost, np.float32)), distance, PASSES)
    return distance


@numba.njit(nogil=True, cache=True)
def _swept(cost: NDArray[np.float32], distance: NDArray[np.float32], passes: int) -> None:
    rows, columns = cost.shape
    for turn in range(2 * passes):
        forward = turn % 2 == 0
        step = 1 if forward else -1
        for i in range(rows):
            y = i if forward else rows - 1 - i
            for j in range(columns):
                x = j if forward else columns - 1 - j
                here, best = cost[y, x], distance[y, x]
                for dy, dx, length in (
                    (-1, -1, 1.4142),
                    (-1, 0, 1.0),
                    (-1, 1, 1.4142),
                    (0, -1, 1.0),
                ):
                    v, u = y + dy * step, x + dx * step
                    if 0 <= v < rows and 0 <= u < columns:
                        reached = distance[v, u] + 0.5 * length * (here + cost[v, u])
                        if reached < best:
                            best = reached
                distance[y, x] = best
