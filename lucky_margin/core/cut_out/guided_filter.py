"""Smoothing coverage, but not across the edges of the photo: the guided filter (K. He, J. Sun and
X. Tang, "Guided image filtering", 2010) with a photo in colour as its guide.

In each square window coverage is taken for a linear function of the photo's three colours, the one
that is off by the least; a pixel gets the mean of what the windows that it lies in say.
"""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.sampling.vector_maths import FAST

Floats = NDArray[np.float32]

SMOOTHNESS = 0.01
"""Added to the variances of the photo's colours (encoded sRGB 0..1), of which less is no edge."""

REACH = 2
"""How far away something can matter to a pixel, in radii of the windows."""

STRIP = 32
"""Lines that are filtered together. Sums over windows are carried on from line to line in a strip,
too few for rounding to add up."""

PIECE = 256
"""Pixels of a line that are fitted together."""

_SUMS = 13
"""Of red, green, blue, coverage, the six products of two colours, and each colour's with
coverage."""


def guided(photo: Floats, alpha: Floats, radius: int) -> Floats:
    """``alpha`` (0..1) smoothed in windows that reach ``radius`` pixels to each side. ``photo`` has
    shape (rows, columns, 3) with encoded sRGB 0..1."""
    guide = np.ascontiguousarray(photo.transpose(2, 0, 1), np.float32)
    rows, columns = alpha.shape
    fits = np.empty((4, rows, columns), np.float32)
    out = np.empty((rows, columns), np.float32)
    _fit(read_only(guide), read_only(np.ascontiguousarray(alpha, np.float32)), int(radius), fits)
    _apply(read_only(guide), read_only(fits), int(radius), out)
    return np.clip(out, 0, 1, out=out)


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy", fastmath=FAST)
def _fit(guide: Floats, alpha: Floats, radius: int, fits: Floats) -> None:
    """The linear function of each window, shape (4, rows, columns): what it takes of each colour,
    and what it adds."""
    rows, columns = alpha.shape
    widths = _shares_across(columns, radius)
    for strip in numba.prange((rows + STRIP - 1) // STRIP):
        top, bottom = strip * STRIP, min(rows, (strip + 1) * STRIP)
        down = np.zeros((_SUMS, columns + 2 * radius), np.float32)
        window, fitted = np.empty((_SUMS, PIECE), np.float32), np.empty((4, PIECE), np.float32)
        for y in range(max(0, top - radius), min(rows, top + radius)):
            _add_products(guide, alpha, y, np.float32(1), radius, down)
        for y in range(top, bottom):
            if y + radius < rows:
                _add_products(guide, alpha, y + radius, np.float32(1), radius, down)
            if y > top and y > radius:
                _add_products(guide, alpha, y - radius - 1, np.float32(-1), radius, down)
            shares = widths / np.float32(min(rows, y + radius + 1) - max(0, y - radius))
            for left in range(0, columns, PIECE):
                count = min(PIECE, columns - left)
                _mean_across(down, shares, left, count, radius, window)
                _solve(window, count, fitted)
                for plane in range(4):
                    for x in range(count):
                        fits[plane, y, left + x] = fitted[plane, x]


@numba.njit(nogil=True, error_model="numpy", fastmath=FAST)
def _add_products(
    guide: Floats, alpha: Floats, y: int, sign: np.float32, radius: int, down: Floats
) -> None:
    """Add a line of the photo to the sums down its columns, or take it off."""
    end = radius + alpha.shape[1]
    for colour in range(3):
        _add(guide[colour, y], sign, down[colour, radius:end])
        _add_product(guide[colour, y], alpha[y], sign, down[10 + colour, radius:end])
    _add(alpha[y], sign, down[3, radius:end])
    plane = 4
    for first in range(3):
        for second in range(first, 3):
            _add_product(guide[first, y], guide[second, y], sign, down[plane, radius:end])
            plane += 1


@numba.njit(nogil=True, error_model="numpy", fastmath=FAST)
def _add_fits(fits: Floats, y: int, sign: np.float32, radius: int, down: Floats) -> None:
    """Add the functions of a line's windows to the sums down their columns, or take them off."""
    end = radius + fits.shape[2]
    for plane in range(len(fits)):
        _add(fits[plane, y], sign, down[plane, radius:end])


@numba.njit(nogil=True, error_model="numpy", fastmath=FAST)
def _add(values: Floats, sign: np.float32, sums: Floats) -> None:
    for x in range(len(values)):
        sums[x] += sign * values[x]


@numba.njit(nogil=True, error_model="numpy", fastmath=FAST)
def _add_product(values: Floats, others: Floats, sign: np.float32, sums: Floats) -> None:
    for x in range(len(values)):
        sums[x] += sign * values[x] * others[x]


@numba.njit(nogil=True, error_model="numpy")
def _shares_across(columns: int, radius: int) -> Floats:
    """One over the number of pixels that a window has in its line."""
    shares = np.empty(columns, np.float32)
    for x in range(columns):
        shares[x] = 1 / (min(columns, x + radius + 1) - max(0, x - radius))
    return shares


@numba.njit(nogil=True, error_model="numpy", fastmath=FAST)
def _scale(values: Floats, shares: Floats) -> None:
    for x in range(len(shares)):
        values[x] *= shares[x]


@numba.njit(nogil=True, error_model="numpy", fastmath=FAST)
def _mean_across(
    down: Floats, shares: Floats, left: int, count: int, radius: int, window: Floats
) -> None:
    """The means over windows around ``count`` pixels, from the sums down their columns."""
    for plane in range(len(down)):
        window[plane] = 0
        for start in range(left, left + 2 * radius + 1):
            _add(down[plane, start : start + count], np.float32(1), window[plane])
        _scale(window[plane], shares[left : left + count])


@numba.njit(nogil=True, error_model="numpy", fastmath=FAST)
def _solve(mean: Floats, count: int, fitted: Floats) -> None:
    """Of means over windows, the linear functions: the inverse of the colours' covariances times
    those with coverage, by cofactors."""
    flat = np.float32(SMOOTHNESS)
    for x in range(count):
        r, g, b, p = mean[0, x], mean[1, x], mean[2, x], mean[3, x]
        rr, rg, rb = mean[4, x] - r * r + flat, mean[5, x] - r * g, mean[6, x] - r * b
        gg, gb, bb = mean[7, x] - g * g + flat, mean[8, x] - g * b, mean[9, x] - b * b + flat
        rp, gp, bp = mean[10, x] - r * p, mean[11, x] - g * p, mean[12, x] - b * p
        of_rr, of_rg, of_rb = gg * bb - gb * gb, rb * gb - rg * bb, rg * gb - rb * gg
        of_gg, of_gb, of_bb = rr * bb - rb * rb, rb * rg - rr * gb, rr * gg - rg * rg
        scale = np.float32(1) / (rr * of_rr + rg * of_rg + rb * of_rb)
        red = (of_rr * rp + of_rg * gp + of_rb * bp) * scale
        green = (of_rg * rp + of_gg * gp + of_gb * bp) * scale
        blue = (of_rb * rp + of_gb * gp + of_bb * bp) * scale
        fitted[0, x], fitted[1, x], fitted[2, x] = red, green, blue
        fitted[3, x] = p - red * r - green * g - blue * b


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy", fastmath=FAST)
def _apply(guide: Floats, fits: Floats, radius: int, out: Floats) -> None:
    """Each pixel by the mean of the windows' linear functions."""
    rows, columns = out.shape
    widths = _shares_across(columns, radius)
    for strip in numba.prange((rows + STRIP - 1) // STRIP):
        top, bottom = strip * STRIP, min(rows, (strip + 1) * STRIP)
        down = np.zeros((4, columns + 2 * radius), np.float32)
        window = np.empty((4, PIECE), np.float32)
        for y in range(max(0, top - radius), min(rows, top + radius)):
            _add_fits(fits, y, np.float32(1), radius, down)
        for y in range(top, bottom):
            if y + radius < rows:
                _add_fits(fits, y + radius, np.float32(1), radius, down)
            if y > top and y > radius:
                _add_fits(fits, y - radius - 1, np.float32(-1), radius, down)
            shares = widths / np.float32(min(rows, y + radius + 1) - max(0, y - radius))
            for left in range(0, columns, PIECE):
                count = min(PIECE, columns - left)
                _mean_across(down, shares, left, count, radius, window)
                for x in range(count):
                    said = window[3, x]
                    for colour in range(3):
                        said += window[colour, x] * guide[colour, y, left + x]
                    out[y, left + x] = said
