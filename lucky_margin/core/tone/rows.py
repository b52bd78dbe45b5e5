"""Loops over rows of numbers, each so plain that the compiler makes vector code of it.

Reading tables keeps it from that, so ``look_up`` does this alone and others only calculate. The
numbers in them are singles, since one double makes doubles of the others (see ``vector_maths``).

Colours are three rows, changed in place.
"""

import numba
import numpy as np

from lucky_margin.core.sampling.vector_maths import (
    BITS_OF_ONE,
    FAST,
    ONE,
    THREE,
    TINY,
    TWO,
    ZERO,
    Number,
    Row,
    singles,
)
from lucky_margin.core.tone.bases import LUMINANCE

RED, GREEN, BLUE = singles(*LUMINANCE)
DARK = np.float32(1e-6)
"""Luminance below which a colour has none."""

_THIRD_OF_BIAS = np.int32(BITS_OF_ONE - BITS_OF_ONE // 3)
"""Added to a third of a number's bits, this gives nearly its cube root's."""

_PI, _QUARTER_TURN, _NO_LENGTH = singles(np.pi, np.pi / 2, 1e-12)
_ANGLE = singles(
    *(-0.3333314528, 0.1999355085, -0.1420889944, 0.1065626393),
    *(-0.0752896400, 0.0429096138, -0.0161657367, 0.0028662257),
)


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def smooth(t: Number) -> Number:
    """A smooth step from 0 to 1."""
    t = min(max(t, ZERO), ONE)
    return t * t * (THREE - TWO * t)


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def cube_root(x: Number) -> Number:
    """A guess from the bits, made good by E. Halley's method twice."""
    size = np.float32(abs(x)) + TINY
    bits = np.float32(size).view(np.int32)
    guess = np.int32(bits // np.int32(3) + _THIRD_OF_BIAS).view(np.float32)
    cubed = guess * guess * guess
    guess *= (cubed + TWO * size) / (TWO * cubed + size)
    cubed = guess * guess * guess
    guess *= (cubed + TWO * size) / (TWO * cubed + size)
    return guess if x >= ZERO else -guess


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def angle(y: Number, x: Number) -> Number:
    """``atan2`` to 3e-7 radians, by a polynomial on the first octant: M. Abramowitz and I. Stegun,
    "Handbook of Mathematical Functions" (1964), 4.4.49."""
    ax, ay = abs(x), abs(y)
    a = min(ax, ay) / max(max(ax, ay), _NO_LENGTH)
    s = a * a
    series = _ANGLE[5] + s * (_ANGLE[6] + s * _ANGLE[7])
    series = _ANGLE[3] + s * (_ANGLE[4] + s * series)
    series = _ANGLE[0] + s * (_ANGLE[1] + s * (_ANGLE[2] + s * series))
    turn = a + a * s * series
    turn = _QUARTER_TURN - turn if ay > ax else turn
    turn = _PI - turn if x < ZERO else turn
    return -turn if y < ZERO else turn


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def luminance(r: Number, g: Number, b: Number) -> Number:
    """Luminance of linear sRGB (IEC 61966-2-1)."""
    return RED * r + GREEN * g + BLUE * b


@numba.njit(error_model="numpy", fastmath=FAST)
def look_up(table: Row, places: Row, out: Row) -> None:
    """``table`` at ``places``, in steps of it, interpolated."""
    last = np.float32(table.size - 2)
    for i in range(places.size):
        step = np.uint32(np.int32(min(max(places[i], ZERO), last)))
        low = table[step]
        out[i] = low + (table[step + np.uint32(1)] - low) * (places[i] - np.float32(step))


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
        y = min(max(luminance(red, green, blue), ZERO), ONE)
        above = (ONE - y) / max(high - y, DARK) if high > ONE else ONE
        below = y / max(y - low, DARK) if low < ZERO else ONE
        share = min(above, below)
        r[i] = y + share * (red - y)
        g[i] = y + share * (green - y)
        b[i] = y + share * (blue - y)
