"""The compiled loops of sampling: one fused pass from stored pixels to stored pixels.

Numba compiles them once and keeps the result on disk. The OpenMP threading layer is asked for
because it allows several callers at a time, which the server's workers are.
"""

import os

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.srgb import ENCODE_STEPS
from lucky_margin.core.sampling.vector_maths import FAST, Row, encode, encoded
from lucky_margin.core.types import AnyPicture, Picture8

# Threads that wait for work must not keep a core busy; set before OpenMP starts.
os.environ.setdefault("OMP_WAIT_POLICY", "passive")
numba.config.THREADING_LAYER = "omp"

WHOLE = 0.03
"""Of an 8-bit step: a value this near to a whole one is that value and is not dithered."""


@numba.njit(inline="always")
def _by_table(linear: float, table: NDArray[np.float32]) -> float:
    """sRGB encoding (0..1) of ``linear``, clipped to 0..1."""
    position = min(max(linear, 0.0), 1.0) * ENCODE_STEPS
    index = int(position)
    below = table[index]
    return below + (table[index + 1] - below) * (position - index)


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
    nearest = np.floor(value + 0.5)
    if abs(value - nearest) > WHOLE:
        nearest = np.floor(value + 0.5 + 0.999 * noise)
    return int(min(max(nearest, 0.0), 255.0))


@numba.njit(inline="always")
def _stored(value: float, noise: float, top: int) -> int:
    """``value`` (0..1) as it is stored: dithered at 8 bits, merely rounded at 16."""
    if top == 255:
        return to_8_bits(255.0 * value, noise)
    return int(min(max(value, 0.0), 1.0) * top + 0.5)


@numba.njit(inline="always")
def _store_pixel(
    pixel: NDArray[np.uint8] | NDArray[np.uint16],
    red: float,
    green: float,
    blue: float,
    share: float,
    encode: NDArray[np.float32],
    noise: float,
) -> None:
    """Linear light, premultiplied by ``share`` where there is a fourth channel, as it is kept."""
    top = 255 if pixel.itemsize == 1 else 65535
    if pixel.size == 4:
        pixel[3] = _stored(min(max(share, 0.0), 1.0), noise, top)
        scale = 1.0 / share if share > 0 else 0.0
        red, green, blue = red * scale, green * scale, blue * scale
    pixel[0] = _stored(_by_table(red, encode), noise, top)
    pixel[1] = _stored(_by_table(green, encode), noise, top)
    pixel[2] = _stored(_by_table(blue, encode), noise, top)


@numba.njit(parallel=True, nogil=True, cache=True)
def resample(
    source: AnyPicture,
    decode: NDArray[np.float32],
    encode: NDArray[np.float32],
    x_first: NDArray[np.int64],
    x_weights: NDArray[np.float32],
    y_first: NDArray[np.int64],
    y_weights: NDArray[np.float32],
    x_origin: int,
    y_origin: int,
    out: AnyPicture,
) -> None:
    """Separable resampling in linear light, premultiplied inside, into ``out``.

    ``x_origin`` and ``y_origin`` are the absolute output coordinates of the first pixel, which
    the dither needs.
    """
    channels = source.shape[2]
    height, width = y_first.shape[0], x_first.shape[0]
    left = x_first.min()
    right = x_first.max() + x_weights.shape[1]
    top = np.float32(decode.shape[0] - 1)
    for j in numba.prange(height):
        line = np.zeros((right - left) * channels, np.float32)
        for tap in range(y_weights.shape[1]):
            weight = y_weights[j, tap]
            if weight == 0:
                continue
            row = source[y_first[j] + tap, left:right].reshape(-1)
            if channels == 4:
                for x in range(0, row.size, 4):
                    alpha = weight * (row[x + 3] / top)
                    for c in range(3):
                        line[x + c] += alpha * decode[row[x + c]]
                    line[x + 3] += alpha
            else:
                for x in range(row.size):
                    line[x] += weight * decode[row[x]]
        for i in range(width):
            red = green = blue = share = np.float32(0)
            x = (x_first[i] - left) * channels
            for tap in range(x_weights.shape[1]):
                weight = x_weights[i, tap]
                red += weight * line[x]
                green += weight * line[x + 1]
                blue += weight * line[x + 2]
                if channels == 4:
                    share += weight * line[x + 3]
                x += channels
            noise = dither(x_origin + i, y_origin + j)
            _store_pixel(out[j, i], red, green, blue, share, encode, noise)


@numba.njit(parallel=True, nogil=True, cache=True)
def halve(source: AnyPicture, decode: NDArray[np.float32]) -> AnyPicture:
    """A copy of half the sides (rounded up), each pixel the linear-light mean of 2 x 2; at an
    odd end the last row or column counts twice."""
    rows, columns, channels = source.shape
    out = np.empty(((rows + 1) // 2, (columns + 1) // 2, channels), source.dtype)
    top = np.float64(decode.shape[0] - 1)
    for j in numba.prange(out.shape[0]):
        above, below = source[2 * j], source[min(2 * j + 1, rows - 1)]
        line = np.empty(out.shape[1] * channels)
        if channels == 4:
            _means_of_transparent(above, below, decode, top, line)
        else:
            _means(above, below, decode, line)
        if channels == 4:
            _encode_colours(line)
        else:
            encode(line)
        _store_line(line, top, out[j])
    return out


@numba.njit(fastmath=FAST)
def _means(above: AnyPicture, below: AnyPicture, decode: NDArray[np.float32], line: Row) -> None:
    """Linear means of 2 x 2 pixels of two lines."""
    last = np.uint32(above.shape[0] - 1)
    for i in range(line.size // 3):
        left = np.uint32(2 * i)
        right = min(left + np.uint32(1), last)
        for c in range(3):
            sum_above = decode[above[left, c]] + decode[above[right, c]]
            sum_below = decode[below[left, c]] + decode[below[right, c]]
            line[3 * i + c] = 0.25 * (sum_above + sum_below)


@numba.njit(fastmath=FAST)
def _means_of_transparent(
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
def _encode_colours(line: Row) -> None:
    for i in range(line.size // 4):
        for k in range(3):
            line[4 * i + k] = encoded(line[4 * i + k])


@numba.njit(fastmath=FAST)
def _store_line(line: Row, top: float, out: AnyPicture) -> None:
    channels = out.shape[1]
    for i in range(out.shape[0]):
        for c in range(channels):
            out[i, c] = int(top * line[channels * i + c] + 0.5)


@numba.njit(parallel=True, nogil=True, cache=True)
def turn(
    upright: AnyPicture,
    decode: NDArray[np.float32],
    encode: NDArray[np.float32],
    matrix: NDArray[np.float64],
    x0: float,
    y0: float,
    x_origin: int,
    y_origin: int,
    out: AnyPicture,
) -> None:
    """The mean of 2 x 2 bilinear reads of ``upright`` for each pixel of ``out``, in linear light.

    ``matrix`` (a, b, c, d) and ``x0``, ``y0`` lead from absolute output pixels, which begin at
    ``x_origin``, ``y_origin``, to pixels of ``upright``.
    """
    channels = upright.shape[2]
    a, b, c, d = matrix
    height, width = out.shape[:2]
    top = np.float64(decode.shape[0] - 1)
    for j in numba.prange(height):
        for i in range(width):
            red = green = blue = share = 0.0
            for part in range(4):
                px = x_origin + i + 0.25 + 0.5 * (part % 2)
                py = y_origin + j + 0.25 + 0.5 * (part // 2)
                sx = a * px + b * py + x0 - 0.5
                sy = c * px + d * py + y0 - 0.5
                left, above = int(np.floor(sx)), int(np.floor(sy))
                right_share, bottom_share = sx - left, sy - above
                for corner in range(4):
                    dx, dy = corner % 2, corner // 2
                    weight = 0.25 * (right_share if dx else 1 - right_share)
                    weight *= bottom_share if dy else 1 - bottom_share
                    pixel = upright[above + dy, left + dx]
                    if channels == 4:
                        weight *= pixel[3] / top
                    red += weight * decode[pixel[0]]
                    green += weight * decode[pixel[1]]
                    blue += weight * decode[pixel[2]]
                    share += weight
            noise = dither(x_origin + i, y_origin + j)
            _store_pixel(out[j, i], red, green, blue, share, encode, noise)


@numba.njit(parallel=True, nogil=True, cache=True)
def gradient(
    start: NDArray[np.float64],
    end: NDArray[np.float64],
    along: NDArray[np.float64],
    x_origin: int,
    y_origin: int,
    width: int,
    height: int,
) -> Picture8:
    """From colour ``start`` to ``end`` (0..255, encoded), dithered.

    A pixel's share of ``end`` is ``along[0] x + along[1] y + along[2]`` at its centre, in
    absolute output pixels, kept within 0..1.
    """
    out = np.empty((height, width, 3), np.uint8)
    for j in numba.prange(height):
        for i in range(width):
            x, y = x_origin + i, y_origin + j
            share = along[0] * (x + 0.5) + along[1] * (y + 0.5) + along[2]
            share = min(max(share, 0.0), 1.0)
            noise = dither(x, y)
            for c in range(3):
                out[j, i, c] = to_8_bits(start[c] + (end[c] - start[c]) * share, noise)
    return out
