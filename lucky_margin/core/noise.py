"""Noise that looks the same at every scale: it is laid out in lengths of a picture, not in its
pixels."""

import math
from functools import lru_cache

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only

Floats = NDArray[np.float32]

CELLS = 512
"""Side of a lattice of noise, which repeats after that; a power of two."""

DEVIATION = 0.61
"""Of the smoothed noise, where that of its lattice is 1; measured."""


def noise(x: Floats, y: Floats, cell: float, seed: int, pixel: float) -> Floats:
    """Smooth noise of mean 0 and deviation 1 at places ``x``, ``y`` (same shape), whose cells are
    ``cell`` large; all in one unit. ``pixel`` is the distance between two neighbours: what is finer
    than that is left out, as shrinking a larger picture would.

    Value noise: a lattice of random numbers, in between by the smoothstep polynomial.
    """
    level = max(0, math.ceil(math.log2(max(pixel / cell, 1e-9))))
    level = min(level, CELLS.bit_length() - 1)
    found = np.empty(x.shape, np.float32)
    lattice = _lattice(seed, level)
    _fill(read_only(x), read_only(y), 1 / (cell * 2**level), lattice, found)
    return found


def fractal(x: Floats, y: Floats, cell: float, seed: int, pixel: float, octaves: int = 4) -> Floats:
    """Noise upon noise, each of half the size and half the strength; deviation about 1."""
    total = np.zeros(x.shape, np.float32)
    power = 0.0
    for octave in range(octaves):
        share = 0.5**octave
        total += np.float32(share) * noise(x, y, cell * share, seed + 101 * octave, pixel)
        power += share**2
    total /= np.float32(math.sqrt(power))
    return total


@lru_cache(maxsize=64)
def _lattice(seed: int, level: int) -> Floats:
    """Of ``CELLS`` to a side, or of half as many for each level, each the mean of four."""
    if level:
        finer = _lattice(seed, level - 1)
        return read_only((finer[::2] + finer[1::2]).reshape(len(finer) // 2, -1, 2).sum(2) / 4)
    # RandomState, whose numbers NumPy has promised to keep.
    cells = np.random.RandomState(seed).standard_normal((CELLS, CELLS)) / DEVIATION
    return read_only(cells.astype(np.float32))


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy", fastmath=True)
def _fill(x: Floats, y: Floats, per_unit: float, lattice: Floats, found: Floats) -> None:
    rows, columns = x.shape
    last = len(lattice) - 1
    for row in numba.prange(rows):
        for column in range(columns):
            across, down = x[row, column] * per_unit, y[row, column] * per_unit
            left, top = math.floor(across), math.floor(down)
            share_x, share_y = across - left, down - top
            share_x *= share_x * (3 - 2 * share_x)
            share_y *= share_y * (3 - 2 * share_y)
            x0, x1 = int(left) & last, (int(left) + 1) & last
            y0, y1 = int(top) & last, (int(top) + 1) & last
            upper = lattice[y0, x0] + (lattice[y0, x1] - lattice[y0, x0]) * share_x
            lower = lattice[y1, x0] + (lattice[y1, x1] - lattice[y1, x0]) * share_x
            found[row, column] = upper + (lower - upper) * share_y


def warm_up() -> None:
    """Compile the loop, or load it from disk."""
    nothing = np.zeros((1, 1), np.float32)
    noise(nothing, nothing, 1.0, 0, 1.0)
