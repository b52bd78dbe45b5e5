"""Interpolating a photo that lies upright, some lines of the output at a time: down its columns
first, then along its lines. What is gone through at once lies side by side in memory, and has one
weight, so that the compiler makes vector code of it."""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.lanczos import PHASES, Light, Taps, light_of, limited
from lucky_margin.core.sampling.lines import dither
from lucky_margin.core.sampling.stored import store_pixel, store_row
from lucky_margin.core.sampling.vector_maths import FAST
from lucky_margin.core.types import AnyPicture

BLOCK = 16
"""Lines of the output that are made together."""


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def interpolate_upright(
    photo: AnyPicture,
    decode: NDArray[np.float32],
    encoding: NDArray[np.float32],
    across: Taps,
    down: Taps,
    left: float,
    top: float,
    step_x: float,
    step_y: float,
    x_origin: int,
    y_origin: int,
    out: AnyPicture,
) -> None:
    """Fill ``out``, whose first pixel is read at the photo's pixel ``left``, ``top`` (whole numbers
    are the middles of pixels), each next one a step on."""
    height, width, channels = out.shape
    half = across.weights.shape[1] // 2
    first = int(np.floor(left)) - half
    wide = int(np.floor(left + step_x * (width - 1))) + half + 2 - first
    for block in numba.prange((height + BLOCK - 1) // BLOCK):
        start = block * BLOCK
        count = min(BLOCK, height - start)
        columns = np.zeros((channels, wide, BLOCK), np.float32)
        _go_down(photo, decode, first, top + step_y * start, step_y, count, down, columns)
        light, read = np.empty((BLOCK, 4, width), np.float32), np.empty(BLOCK, np.float32)
        for k in range(channels):
            for i in range(width):
                _read(columns[k], left - first + step_x * i, across, read)
                for j in range(BLOCK):
                    light[j, k, i] = read[j]
        for j in range(count):
            _store(light[j], encoding, x_origin, y_origin + start + j, out[start + j])


@numba.njit(error_model="numpy")
def _go_down(
    photo: AnyPicture,
    decode: NDArray[np.float32],
    left: int,
    top: float,
    step: float,
    count: int,
    taps: Taps,
    columns: Light,
) -> None:
    """Fill ``columns``, of shape (channels, columns, ``BLOCK``): the photo's from ``left`` on, at
    ``count`` lines of the output from the photo's place ``top`` on."""
    channels, wide = columns.shape[:2]
    half = taps.weights.shape[1] // 2
    first = int(np.floor(top)) - half
    high = int(np.floor(top + step * (count - 1))) + half + 2 - first
    lines = np.empty((channels, high, wide), np.float32)
    for row in range(high):
        line = photo[min(max(first + row, 0), photo.shape[0] - 1)]
        light_of(line, left, decode, lines[:, row].T)
    read = np.empty(wide, np.float32)
    for k in range(channels):
        for j in range(count):
            _read(lines[k], top - first + step * j, taps, read)
            for i in range(wide):
                columns[k, i, j] = read[i]


@numba.njit(error_model="numpy")
def _store(light: Light, encoding: NDArray[np.float32], x: int, y: int, line: AnyPicture) -> None:
    """A line of ``light``, of shape (4, columns), as it is kept at ``x``, ``y`` of the output."""
    if line.shape[1] == 3:
        store_row(light[0], light[1], light[2], light[3], x, y, line)
        return
    for i in range(line.shape[0]):
        r, g, b, a = light[:, i]
        store_pixel(line[i], r, g, b, a, encoding, dither(x + i, y))


@numba.njit(error_model="numpy", fastmath=FAST)
def _read(lines: Light, place: float, taps: Taps, out: Light) -> None:
    """What lies at ``place`` between two of ``lines``; all at once, two taps at a time."""
    base = int(place)
    phase = int((place - base) * PHASES + 0.5)
    weights, covered = taps.weights[phase], taps.covered[phase]
    first = base - weights.size // 2 + 1
    out[:] = 0
    for tap in range(0, weights.size, 2):
        one, weight = lines[first + tap], weights[tap]
        other, other_weight = lines[first + tap + 1], weights[tap + 1]
        for i in range(out.size):
            out[i] += weight * one[i] + other_weight * other[i]
    p, q, r, s = lines[base - 1], lines[base], lines[base + 1], lines[base + 2]
    for i in range(out.size):
        out[i] = limited(out[i], p[i], q[i], r[i], s[i], covered)
