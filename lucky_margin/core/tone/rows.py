"""Loops over rows of numbers, each so plain that the compiler makes vector code of it.

Reading tables keeps it from that, so ``look_up`` does this alone and others only calculate.

Colours are three rows, changed in place.
"""

import numba
import numpy as np

from lucky_margin.core.sampling.vector_maths import FAST, ONE, TINY, Row
from lucky_margin.core.tone.bases import LUMINANCE

RED, GREEN, BLUE = LUMINANCE
DARK = 1e-6
"""Luminance below which a colour has none."""

_THIRD_OF_BIAS = np.uint32((ONE - ONE // 3) >> 32)
"""Added to a third of the upper half of a number's bits, this gives the upper half of nearly its
cube root's."""


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def smooth(t: float) -> float:
    """A smooth step from 0 to 1."""
    t = min(max(t, 0.0), 1.0)
    return t * t * (3.0 - 2.0 * t)


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def cube_root(x: float) -> float:
    """A guess from the bits, made good by E. Halley's method twice."""
    size = abs(x) + TINY
    high = np.uint32(np.float64(size).view(np.int64) >> 32) // np.uint32(3)
    guess = np.int64(np.int64(high + _THIRD_OF_BIAS) << 32).view(np.float64)
    cubed = guess * guess * guess
    guess *= (cubed + 2.0 * size) / (2.0 * cubed + size)
    cubed = guess * guess * guess
    guess *= (cubed + 2.0 * size) / (2.0 * cubed + size)
    return guess if x >= 0.0 else -guess


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def angle(y: float, x: float) -> float:
    """``atan2`` to 2e-8 radians, by a polynomial on the first octant: M. Abramowitz and I. Stegun,
    "Handbook of Mathematical Functions" (1964), 4.4.49."""
    ax, ay = abs(x), abs(y)
    a = min(ax, ay) / max(max(ax, ay), 1e-12)
    s = a * a
    series = 0.0429096138 + s * (-0.0161657367 + s * 0.0028662257)
    series = 0.1065626393 + s * (-0.0752896400 + s * series)
    series = -0.3333314528 + s * (0.1999355085 + s * (-0.1420889944 + s * series))
    turn = a + a * s * series
    turn = 0.5 * np.pi - turn if ay > ax else turn
    turn = np.pi - turn if x < 0.0 else turn
    return -turn if y < 0.0 else turn


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def luminance(r: float, g: float, b: float) -> float:
    """Luminance of linear sRGB (IEC 61966-2-1)."""
    return RED * r + GREEN * g + BLUE * b


@numba.njit(error_model="numpy", fastmath=FAST)
def look_up(table: Row, places: Row, out: Row) -> None:
    """``table`` at ``places``, in steps of it, interpolated."""
    steps = table.size - 1
    for i in range(places.size):
        step = np.uint32(np.int32(min(max(places[i], 0.0), steps - 1.0)))
        low = table[step]
        out[i] = low + (table[step + np.uint32(1)] - low) * (places[i] - step)


@numba.njit(error_model="numpy", fastmath=FAST)
def copy(source: Row, target: Row) -> None:
    """Copy one row into another."""
    for i in range(source.size):
        target[i] = source[i]


@numba.njit(error_model="numpy", fastmath=FAST)
def highest(row: Row) -> float:
    """The highest value of a row."""
    out = row[0]
    for i in range(1, row.size):
        out = max(out, row[i])
    return out


@numba.njit(error_model="numpy", fastmath=FAST)
def mix(share: Row, source: Row, target: Row) -> None:
    """``target`` moved towards ``source`` by its share."""
    for i in range(target.size):
        target[i] += share[i] * (source[i] - target[i])


@numba.njit(error_model="numpy", fastmath=FAST)
def multiply(matrix: Row, r: Row, g: Row, b: Row) -> None:
    """Colours times a 3 x 3 matrix, given by rows."""
    m0, m1, m2, m3, m4, m5, m6, m7, m8 = (
        matrix[0], matrix[1], matrix[2], matrix[3], matrix[4], matrix[5], matrix[6], matrix[7],
        matrix[8],
    )  # fmt: skip
    for i in range(r.size):
        red, green, blue = r[i], g[i], b[i]
        r[i] = m0 * red + m1 * green + m2 * blue
        g[i] = m3 * red + m4 * green + m5 * blue
        b[i] = m6 * red + m7 * green + m8 * blue


@numba.njit(error_model="numpy", fastmath=FAST)
def into_gamut(r: Row, g: Row, b: Row) -> None:
    """Towards the grey of the same luminance, by as little as brings all three into 0..1.

    What is inside stays as it is, and what is hardly outside hardly moves.
    """
    for i in range(r.size):
        red, green, blue = r[i], g[i], b[i]
        high, low = max(red, max(green, blue)), min(red, min(green, blue))
        y = min(max(luminance(red, green, blue), 0.0), 1.0)
        above = (1.0 - y) / max(high - y, DARK) if high > 1.0 else 1.0
        below = y / max(y - low, DARK) if low < 0.0 else 1.0
        share = min(above, below)
        r[i] = y + share * (red - y)
        g[i] = y + share * (green - y)
        b[i] = y + share * (blue - y)
