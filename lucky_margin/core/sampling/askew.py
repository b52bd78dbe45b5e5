"""Interpolating a photo that lies askew.

It is gone through along its lines first, then across them (E. Catmull and A. R. Smith, "3-D
transformations of images in scanline order", SIGGRAPH 1980): where each line begins a little
further along than the last, and each column a little further down, the picture is turned.
"""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.lanczos import PHASES, Light, Taps, light_of, limited
from lucky_margin.core.sampling.lines import dither
from lucky_margin.core.sampling.stored import store_pixel, store_row
from lucky_margin.core.sampling.vector_maths import FAST
from lucky_margin.core.types import AnyPicture


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def go_along(
    photo: AnyPicture,
    decode: NDArray[np.float32],
    taps: Taps,
    first: int,
    step: float,
    lean: float,
    begin: float,
    lines: Light,
) -> None:
    """Fill ``lines``, of shape (rows, columns, 4): each line of the photo from row ``first`` on at
    the columns of the output. The upper end of the first begins at ``begin``."""
    height, columns = photo.shape[0], lines.shape[1]
    half = taps.weights.shape[1] // 2
    for row in numba.prange(lines.shape[0]):
        line = photo[min(max(first + row, 0), height - 1)]
        start = begin + lean * (row + 0.5) - 0.5
        end = start + (columns - 1) * step
        left = int(np.floor(min(start, end))) - half
        right = int(np.floor(max(start, end))) + half + 2
        light = np.zeros((right - left, 1, 4), np.float32)
        light_of(line, left, decode, light[:, 0])
        for i in range(columns):
            _read(light, 0, start - left + i * step, taps, lines[row, i])


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def go_across(
    lines: Light,
    taps: Taps,
    slope: float,
    step: float,
    begin: float,
    encoding: NDArray[np.float32],
    x_origin: int,
    y_origin: int,
    out: AnyPicture,
) -> None:
    """The columns of ``lines`` at the rows of the output, as they are kept. The first column
    begins at ``begin``, each further one ``slope`` further down."""
    height, width, channels = out.shape
    for j in numba.prange(height):
        rows = np.empty((4, width), np.float32)
        pixel = np.empty(4, np.float32)
        start = begin + step * j - 0.5
        for i in range(width):
            _read(lines, i, start + slope * i, taps, pixel)
            if channels == 4:
                noise = dither(x_origin + i, y_origin + j)
                store_pixel(out[j, i], pixel[0], pixel[1], pixel[2], pixel[3], encoding, noise)
            else:
                for k in range(3):
                    rows[k, i] = pixel[k]
        if channels == 3:
            store_row(rows[0], rows[1], rows[2], rows[3], x_origin, y_origin + j, out[j])


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def _read(lines: Light, column: int, place: float, taps: Taps, out: Light) -> None:
    """A ``column`` of ``lines`` at ``place`` between two of them."""
    base = int(place)
    phase = int((place - base) * PHASES + 0.5)
    weights, covered = taps.weights[phase], taps.covered[phase]
    first = base - weights.size // 2 + 1
    red = green = blue = share = np.float32(0)
    for tap in range(weights.size):
        weight, pixel = weights[tap], lines[first + tap, column]
        red += weight * pixel[0]
        green += weight * pixel[1]
        blue += weight * pixel[2]
        share += weight * pixel[3]
    p, q = lines[base - 1, column], lines[base, column]
    r, s = lines[base + 1, column], lines[base + 2, column]
    out[0] = limited(red, p[0], q[0], r[0], s[0], covered)
    out[1] = limited(green, p[1], q[1], r[1], s[1], covered)
    out[2] = limited(blue, p[2], q[2], r[2], s[2], covered)
    out[3] = limited(share, p[3], q[3], r[3], s[3], covered)
