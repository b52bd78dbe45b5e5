"""Lines of pixels to rows of numbers and back, and the dither on the way to 8 bits."""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.vector_maths import FAST, HALF, ZERO, Row, encoded, singles
from lucky_margin.core.types import AnyPicture, Picture8, Picture16

WHOLE = np.float32(0.03)
"""Of an 8-bit step: a value this near to a whole one is that value and is not dithered."""

_TOP, _TOP_AT_16_BITS, _LESS_THAN_A_STEP, _QUARTER = singles(255, 65535, 0.999, 0.25)


@numba.njit(inline="always")
def dither(x: int, y: int) -> float:
    """Noise in -0.5..0.5 that depends on the absolute output pixel only.

    Interleaved gradient noise: J. Jimenez, "Next Generation Post Processing in Call of Duty:
    Advanced Warfare", SIGGRAPH 2014 course notes, p. 122.
    """
    inner = 0.06711056 * x + 0.00583715 * y
    outer = 52.9829189 * (inner - np.floor(inner))
    return outer - np.floor(outer) - 0.5


@numba.njit(inline="always")
def to_8_bits(value: float, noise: float) -> int:
    """``value`` (0..255) rounded, dithered by less than half a step unless it is whole."""
    return int(_rounded(value, noise))


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def _rounded(value: float, noise: float) -> float:
    nearest = np.floor(value + HALF)
    dithered = np.floor(value + HALF + _LESS_THAN_A_STEP * noise)
    kept = nearest if abs(value - nearest) <= WHOLE else dithered
    return min(max(kept, ZERO), _TOP)


@numba.njit(error_model="numpy", fastmath=FAST)
def dither_noise(x: int, y: int, noise: Row) -> None:
    """``dither`` for the pixels of a line that begins at ``x``."""
    for i in range(noise.size):
        noise[i] = dither(x + i, y)


def dither_pattern(width: int, height: int) -> NDArray[np.float64]:
    """``dither`` for every pixel of a picture, shape (height, width)."""
    pattern = np.empty((height, width))
    for y in range(height):
        dither_noise(0, y, pattern[y])
    return pattern


@numba.njit(error_model="numpy", fastmath=FAST)
def quantise(noise: Row, row: Row) -> None:
    """Values (0..1) as whole steps of 0 to 255, as ``to_8_bits`` rounds them."""
    for i in range(row.size):
        row[i] = _rounded(_TOP * row[i], noise[i])


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
def store(r: Row, g: Row, b: Row, start: int, line: Picture8) -> None:
    """Whole steps into a line of pixels, from ``start`` on."""
    for i in range(r.size):
        at = np.uint32(start + i)
        line[at, 0] = np.uint8(np.int32(r[i]))
        line[at, 1] = np.uint8(np.int32(g[i]))
        line[at, 2] = np.uint8(np.int32(b[i]))


@numba.njit(error_model="numpy", fastmath=FAST)
def store_at_16_bits(r: Row, g: Row, b: Row, line: Picture16) -> None:
    """Values (0..1), rounded, into a line of pixels."""
    for i in range(r.size):
        line[i, 0] = np.uint16(np.int32(_TOP_AT_16_BITS * r[i] + HALF))
        line[i, 1] = np.uint16(np.int32(_TOP_AT_16_BITS * g[i] + HALF))
        line[i, 2] = np.uint16(np.int32(_TOP_AT_16_BITS * b[i] + HALF))


@numba.njit(fastmath=FAST)
def means(above: AnyPicture, below: AnyPicture, decode: NDArray[np.float32], line: Row) -> None:
    """Linear means of 2 x 2 pixels of two lines."""
    last = np.uint32(above.shape[0] - 1)
    for i in range(line.size // 3):
        left = np.uint32(2 * i)
        right = min(left + np.uint32(1), last)
        for c in range(3):
            sum_above = decode[above[left, c]] + decode[above[right, c]]
            sum_below = decode[below[left, c]] + decode[below[right, c]]
            line[3 * i + c] = _QUARTER * (sum_above + sum_below)


@numba.njit(fastmath=FAST)
def means_of_transparent(
    above: AnyPicture, below: AnyPicture, decode: NDArray[np.float32], top: float, line: Row
) -> None:
    """The same with alpha (0..1), by which colours are weighed where there is any."""
    last = above.shape[0] - 1
    for i in range(line.size // 4):
        left, right = 2 * i, min(2 * i + 1, last)
        a, b, c, d = (
            float(above[left, 3]), float(above[right, 3]), float(below[left, 3]),
            float(below[right, 3]),
        )  # fmt: skip
        alpha = a + b + c + d
        if alpha == 0.0:
            a = b = c = d = 1.0
        total = a + b + c + d
        for k in range(3):
            colour = a * decode[above[left, k]] + b * decode[above[right, k]]
            colour += c * decode[below[left, k]] + d * decode[below[right, k]]
            line[4 * i + k] = colour / total
        line[4 * i + 3] = alpha / (4.0 * top)


@numba.njit(fastmath=FAST)
def encode_colours(line: Row) -> None:
    """sRGB-encode the colours of a line of light, in place; every fourth value is alpha."""
    for i in range(line.size // 4):
        for k in range(3):
            line[4 * i + k] = encoded(line[4 * i + k])


@numba.njit(fastmath=FAST)
def store_line(line: Row, top: float, out: AnyPicture) -> None:
    """Round a line of 0..1 to whole steps up to ``top``."""
    channels = out.shape[1]
    for i in range(out.shape[0]):
        for c in range(channels):
            out[i, c] = int(top * line[channels * i + c] + 0.5)
