"""The compiled loops of sampling: one fused pass from stored pixels to stored pixels.

Numba compiles them once and keeps the result on disk. The OpenMP threading layer is asked for
because it allows several callers at a time, which the server's workers are.
"""

import os

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.lines import (
    dither,
    encode_colours,
    means,
    means_of_transparent,
    store_line,
    to_8_bits,
)
from lucky_margin.core.sampling.stored import store_pixel, store_row
from lucky_margin.core.sampling.vector_maths import FAST, Row, encode
from lucky_margin.core.types import AnyPicture, Picture8

# Threads that wait for work must not keep a core busy; set before OpenMP starts.
os.environ.setdefault("OMP_WAIT_POLICY", "passive")
numba.config.THREADING_LAYER = "omp"


@numba.njit(parallel=True, nogil=True, cache=True)
def resample(
    source: AnyPicture,
    decode: NDArray[np.float32],
    x_first: NDArray[np.int64],
    x_weights: NDArray[np.float32],
    y_first: NDArray[np.int64],
    y_weights: NDArray[np.float32],
    x_origin: int,
    y_origin: int,
    out: AnyPicture,
) -> None:
    """Separable resampling of an opaque picture, in linear light, into ``out``.

    ``x_origin`` and ``y_origin`` are the absolute output coordinates of the first pixel, which
    the dither needs.
    """
    left = x_first.min()
    right = x_first.max() + x_weights.shape[1]
    for j in numba.prange(y_first.shape[0]):
        line = np.zeros((right - left) * 3, np.float32)
        for tap in range(y_weights.shape[1]):
            if y_weights[j, tap] != 0:
                row = source[y_first[j] + tap, left:right].reshape(-1)
                _add_line(row, y_weights[j, tap], decode, line)
        rows = np.empty((4, x_first.shape[0]), np.float32)
        r, g, b, noise = rows[0], rows[1], rows[2], rows[3]
        _weigh_across(line, x_first, left, x_weights, r, g, b)
        store_row(r, g, b, noise, x_origin, y_origin + j, out[j])


@numba.njit(fastmath=FAST)
def _add_line(
    row: NDArray[np.unsignedinteger], weight: float, decode: NDArray[np.float32],
    line: NDArray[np.float32],
) -> None:  # fmt: skip
    for x in range(row.size):
        line[x] += weight * decode[row[x]]


@numba.njit(fastmath=FAST)
def _weigh_across(
    line: NDArray[np.float32], first: NDArray[np.int64], left: int,
    weights: NDArray[np.float32], r: Row, g: Row, b: Row,
) -> None:  # fmt: skip
    """What each pixel sums up of a line, its colours beside each other."""
    for i in range(r.size):
        red = green = blue = np.float32(0)
        x = np.uint32(3 * (first[i] - left))
        for tap in range(weights.shape[1]):
            weight = weights[i, tap]
            red += weight * line[x]
            green += weight * line[x + np.uint32(1)]
            blue += weight * line[x + np.uint32(2)]
            x += np.uint32(3)
        r[i], g[i], b[i] = red, green, blue


@numba.njit(parallel=True, nogil=True, cache=True)
def resample_transparent(
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
    """``resample`` for pictures with alpha, premultiplied inside."""
    height, width = y_first.shape[0], x_first.shape[0]
    left = x_first.min()
    right = x_first.max() + x_weights.shape[1]
    top = np.float32(decode.shape[0] - 1)
    for j in numba.prange(height):
        line = np.zeros((right - left) * 4, np.float32)
        for tap in range(y_weights.shape[1]):
            weight = y_weights[j, tap]
            if weight == 0:
                continue
            row = source[y_first[j] + tap, left:right].reshape(-1)
            for x in range(0, row.size, 4):
                alpha = weight * (row[x + 3] / top)
                for c in range(3):
                    line[x + c] += alpha * decode[row[x + c]]
                line[x + 3] += alpha
        for i in range(width):
            red = green = blue = share = np.float32(0)
            x = (x_first[i] - left) * 4
            for tap in range(x_weights.shape[1]):
                weight = x_weights[i, tap]
                red += weight * line[x]
                green += weight * line[x + 1]
                blue += weight * line[x + 2]
                share += weight * line[x + 3]
                x += 4
            noise = dither(x_origin + i, y_origin + j)
            store_pixel(out[j, i], red, green, blue, share, encode, noise)


@numba.njit(parallel=True, nogil=True, cache=True)
def halve(source: AnyPicture, decode: NDArray[np.float32]) -> AnyPicture:
    """A copy of half the sides (rounded up), each pixel the linear-light mean of 2 x 2; at an
    odd end the last row or column counts twice."""
    rows, columns, channels = source.shape
    out = np.empty(((rows + 1) // 2, (columns + 1) // 2, channels), source.dtype)
    top = np.float64(decode.shape[0] - 1)
    for j in numba.prange(out.shape[0]):
        above, below = source[2 * j], source[min(2 * j + 1, rows - 1)]
        line = np.empty(out.shape[1] * channels, np.float32)
        if channels == 4:
            means_of_transparent(above, below, decode, top, line)
        else:
            means(above, below, decode, line)
        if channels == 4:
            encode_colours(line)
        else:
            encode(line)
        store_line(line, top, out[j])
    return out


@numba.njit(parallel=True, nogil=True, cache=True)
def gradient(
    start: NDArray[np.float64],
    end: NDArray[np.float64],
    along: NDArray[np.float64],
    across: NDArray[np.float64],
    x_origin: int,
    y_origin: int,
    width: int,
    height: int,
) -> Picture8:
    """From colour ``start`` to ``end`` (0..255, encoded), dithered.

    A pixel's share of ``end`` is ``along[0] x + along[1] y + along[2]`` at its centre, in
    absolute output pixels, kept within 0..1; where ``across`` is not all 0, the length of the
    vector of that and the same of ``across``.
    """
    is_radial = (across != 0).any()
    out = np.empty((height, width, 3), np.uint8)
    for j in numba.prange(height):
        for i in range(width):
            x, y = x_origin + i, y_origin + j
            share = along[0] * (x + 0.5) + along[1] * (y + 0.5) + along[2]
            if is_radial:
                other = across[0] * (x + 0.5) + across[1] * (y + 0.5) + across[2]
                share = (share * share + other * other) ** 0.5
            share = min(max(share, 0.0), 1.0)
            noise = dither(x, y)
            for c in range(3):
                out[j, i, c] = to_8_bits(start[c] + (end[c] - start[c]) * share, noise)
    return out
