"""Loops over rows of numbers, each so plain that the compiler makes vector code of it.

Reading tables keeps it from that, so ``look_up`` does this alone and others only calculate.

Colours are three rows, changed in place.
"""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.kernels import WHOLE
from lucky_margin.core.sampling.vector_maths import FAST, ONE, TINY, Row
from lucky_margin.core.tone.bases import LUMINANCE
from lucky_margin.core.types import Picture8, Picture16

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
    """``atan2`` to 0.0004 radians, by a polynomial on the first octant (Abramowitz and Stegun,
    "Handbook of Mathematical Functions", 4.4.49, shortened)."""
    ax, ay = abs(x), abs(y)
    a = min(ax, ay) / max(max(ax, ay), 1e-12)
    s = a * a
    turn = ((-0.0464964749 * s + 0.15931422) * s - 0.327622764) * s * a + a
    turn = 0.5 * np.pi - turn if ay > ax else turn
    turn = np.pi - turn if x < 0.0 else turn
    return -turn if y < 0.0 else turn


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def luminance(r: float, g: float, b: float) -> float:
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
def load(line: Picture16, start: int, decode: NDArray[np.float32], r: Row, g: Row, b: Row) -> None:
    """Linear light of a line of pixels, from ``start`` on."""
    for i in range(r.size):
        # An unsigned place is not asked whether it counts from the end.
        at = np.uint32(start + i)
        r[i] = decode[line[at, 0]]
        g[i] = decode[line[at, 1]]
        b[i] = decode[line[at, 2]]


@numba.njit(error_model="numpy", fastmath=FAST)
def copy(source: Row, target: Row) -> None:
    for i in range(source.size):
        target[i] = source[i]


@numba.njit(error_model="numpy", fastmath=FAST)
def highest(row: Row) -> float:
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


@numba.njit(error_model="numpy", fastmath=FAST)
def dither_noise(x: int, y: int, noise: Row) -> None:
    """``kernels.dither`` for the pixels of a line that begins at ``x``."""
    for i in range(noise.size):
        inner = 0.06711056 * (x + i) + 0.00583715 * y
        outer = 52.9829189 * (inner - np.floor(inner))
        noise[i] = outer - np.floor(outer) - 0.5


@numba.njit(error_model="numpy", fastmath=FAST)
def quantise(noise: Row, row: Row) -> None:
    """Values (0..1) as whole steps of 0 to 255, as ``kernels.to_8_bits`` rounds them."""
    for i in range(row.size):
        value = 255.0 * row[i]
        nearest = np.floor(value + 0.5)
        dithered = np.floor(value + 0.5 + 0.999 * noise[i])
        kept = nearest if abs(value - nearest) <= WHOLE else dithered
        row[i] = min(max(kept, 0.0), 255.0)


@numba.njit(error_model="numpy", fastmath=FAST)
def store(r: Row, g: Row, b: Row, start: int, line: Picture8) -> None:
    """Whole steps into a line of pixels, from ``start`` on."""
    for i in range(r.size):
        at = np.uint32(start + i)
        line[at, 0] = np.uint8(np.int32(r[i]))
        line[at, 1] = np.uint8(np.int32(g[i]))
        line[at, 2] = np.uint8(np.int32(b[i]))
