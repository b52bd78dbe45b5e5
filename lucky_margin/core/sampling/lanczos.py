"""Interpolating a photo with C. Lanczos' kernel of three lobes, kept from ringing.

Of the kernels that were measured (three lobes of Lanczos, two and three of Kaiser, cubics) this
keeps the most of fine contrast, and the same of it wherever a pixel falls between those of the
photo. What it overshoots beside an edge is taken off again: a value stays between its two
neighbours along the line, and the mean of what it covers, unless both slopes beyond rise above
them or fall below, as they do at the crest of a fine pattern but not on the flat beside an edge.

The photo is gone through along its lines first, then across them (E. Catmull and A. R. Smith,
"3-D transformations of images in scanline order", SIGGRAPH 1980): where each line begins a little
further along than the last, and each column a little further down, the picture is turned.
"""

from functools import lru_cache
from typing import NamedTuple

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine
from lucky_margin.core.arrays import read_only
from lucky_margin.core.sampling.lines import dither
from lucky_margin.core.sampling.srgb import decode_table, encode_table
from lucky_margin.core.sampling.stored import store_pixel, store_row
from lucky_margin.core.sampling.vector_maths import FAST
from lucky_margin.core.types import AnyPicture, Region

LOBES = 3

MOST_STEP = 3.0
"""Photo pixels to one output pixel; with more, more would have to be read than is worth it."""

PHASES = 512
"""Places between two photo pixels that are told apart."""

TILE = 512
"""Output pixels; the half-made lines of one tile are all that is held at a time."""

Planes = NDArray[np.float32]
"""Lines of light, shape (rows, channels, columns)."""


class Taps(NamedTuple):
    """What photo pixels weigh at each of ``PHASES + 1`` places between two of them."""

    weights: NDArray[np.float32]
    """Shape (n, PHASES + 1), n even: the middle two are the neighbours."""
    covered: NDArray[np.float32]
    """Shape (4, PHASES + 1): what the pixel covers of the four in the middle; sums to 1."""


@lru_cache
def taps_for(step: float) -> Taps:
    """For ``step`` (0..``MOST_STEP``) photo pixels to one output pixel."""
    wide = max(1.0, step)
    half = int(np.ceil(LOBES * wide))
    between = np.linspace(0, 1, PHASES + 1)
    off = (np.arange(1 - half, half + 1)[:, None] - between) / wide
    weights = np.where(np.abs(off) < LOBES, np.sinc(off) * np.sinc(off / LOBES), 0)
    weights /= weights.sum(axis=0)
    middle = np.arange(-1, 3)[:, None] - between
    covered = np.clip(
        np.minimum(middle + 0.5, wide / 2) - np.maximum(middle - 0.5, -wide / 2), 0, None
    )
    covered /= covered.sum(axis=0)
    return Taps(weights.astype(np.float32), covered.astype(np.float32))


def interpolate_into(out: AnyPicture, photo: AnyPicture, mapping: Affine, region: Region) -> None:
    """``region`` (output pixels) of the picture under whose pixels ``mapping`` lays ``photo``, by
    at most ``MOST_STEP`` photo pixels to one of its own and turned by at most 45 degrees.

    Past the photo's edge its last pixels go on.
    """
    x, y, width, height = region
    photo = read_only(photo)
    for top in range(0, height, TILE):
        for left in range(0, width, TILE):
            tile = (x + left, y + top, min(TILE, width - left), min(TILE, height - top))
            drawn = out[top : top + tile[3], left : left + tile[2]]
            _tile_into(drawn, photo, mapping, tile)


def _tile_into(out: AnyPicture, photo: AnyPicture, mapping: Affine, tile: Region) -> None:
    a, b, c, d = float(mapping.a), float(mapping.b), float(mapping.c), float(mapping.d)
    x, y, width, height = tile
    channels = photo.shape[2]
    # A line of the photo is met by the column x at (its own row - c x) / d.
    step_along, lean = a - b * c / d, b / d
    along, across = taps_for(abs(step_along)), taps_for(abs(d))
    reach = across.weights.shape[0] // 2 + 1
    ends = [mapping(x + dx, y + dy)[1] for dx in (0, width) for dy in (0, height)]
    first = int(np.floor(min(ends))) - reach
    lines = np.empty((int(np.ceil(max(ends))) + reach - first, channels, width), np.float32)
    begin = float(mapping.x0 - lean * mapping.y0 + lean * first + (x + 0.5) * step_along)
    _go_along(photo, decode_table(photo.dtype), along, first, step_along, lean, begin, lines)
    drawn = np.empty((height, width, channels), out.dtype)
    begin = float(mapping.y0 + c * (x + 0.5) + d * (y + 0.5) - first)
    _go_across(lines, across, c, d, begin, encode_table(), x, y, drawn)
    out[:] = drawn


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def _go_along(
    photo: AnyPicture,
    decode: NDArray[np.float32],
    taps: Taps,
    first: int,
    step: float,
    lean: float,
    begin: float,
    lines: Planes,
) -> None:
    """Each line of the photo from row ``first`` on, in linear light (premultiplied where there is
    alpha), at the columns of the output; the upper end of the first begins at ``begin``."""
    height, channels = photo.shape[0], photo.shape[2]
    half = taps.weights.shape[0] // 2
    columns = lines.shape[2]
    for row in numba.prange(lines.shape[0]):
        line = photo[min(max(first + row, 0), height - 1)]
        start = begin + lean * (row + 0.5) - 0.5
        end = start + (columns - 1) * step
        left = int(np.floor(min(start, end))) - half
        right = int(np.floor(max(start, end))) + half + 2
        light = np.empty((channels, right - left), np.float32)
        _light_of(line, left, decode, light)
        bases, phases = np.empty(columns, np.uint32), np.empty(columns, np.uint32)
        for i in range(columns):
            place = start - left + i * step
            bases[i] = np.uint32(place)
            phases[i] = np.uint32((place - bases[i]) * PHASES + 0.5)
        for k in range(channels):
            _read_along(light[k], bases, phases, taps, lines[row, k])


@numba.njit(error_model="numpy", fastmath=FAST)
def _light_of(
    line: AnyPicture, left: int, decode: NDArray[np.float32], light: NDArray[np.float32]
) -> None:
    """Linear light of a line's pixels from column ``left`` on; past its ends the last go on."""
    last = line.shape[0] - 1
    for i in range(light.shape[1]):
        at = np.uint32(min(max(left + i, 0), last))
        light[0, i] = decode[line[at, 0]]
        light[1, i] = decode[line[at, 1]]
        light[2, i] = decode[line[at, 2]]
    if light.shape[0] == 4:
        top = np.float32(decode.shape[0] - 1)
        for i in range(light.shape[1]):
            share = line[min(max(left + i, 0), last), 3] / top
            light[3, i] = share
            light[0, i] *= share
            light[1, i] *= share
            light[2, i] *= share


@numba.njit(error_model="numpy", fastmath=FAST)
def _read_along(
    light: NDArray[np.float32],
    bases: NDArray[np.uint32],
    phases: NDArray[np.uint32],
    taps: Taps,
    out: NDArray[np.float32],
) -> None:
    """``light`` after its pixels ``bases``, by ``phases`` of the way to the next."""
    count = taps.weights.shape[0]
    for i in range(out.size):
        out[i] = np.float32(0)
    for tap in range(count):
        weights, shifted = taps.weights[tap], light[tap:]
        for i in range(out.size):
            out[i] += weights[phases[i]] * shifted[bases[i] - np.uint32(count // 2 - 1)]
    one, two, three, four = taps.covered
    for i in range(out.size):
        base, at = bases[i], phases[i]
        p, q = light[base - np.uint32(1)], light[base]
        r, s = light[base + np.uint32(1)], light[base + np.uint32(2)]
        mean = one[at] * p + two[at] * q + three[at] * r + four[at] * s
        out[i] = _limited(out[i], p, q, r, s, mean)


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def _go_across(
    lines: Planes,
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
        rows = np.empty((4, width))
        light = np.empty((channels, width), np.float32)
        phases = np.empty(width, np.uint32)
        start = begin + step * j - 0.5
        left = 0
        while left < width:
            # Columns that lie between the same two lines are read together.
            base = int(np.floor(start + slope * left))
            right = left
            while right < width and int(np.floor(start + slope * right)) == base:
                phases[right] = np.uint32((start + slope * right - base) * PHASES + 0.5)
                right += 1
            for k in range(channels):
                _read_across(lines, k, base, taps, phases[left:right], left, light[k, left:right])
            left = right
        if channels == 4:
            for i in range(width):
                noise = dither(x_origin + i, y_origin + j)
                store_pixel(
                    out[j, i], light[0, i], light[1, i], light[2, i], light[3, i], encoding, noise
                )
        else:
            for k in range(3):
                rows[k] = light[k]
            store_row(rows[0], rows[1], rows[2], rows[3], x_origin, y_origin + j, out[j])


@numba.njit(error_model="numpy", fastmath=FAST)
def _read_across(
    lines: Planes,
    channel: int,
    base: int,
    taps: Taps,
    phases: NDArray[np.uint32],
    left: int,
    out: NDArray[np.float32],
) -> None:
    """Columns from ``left`` on whose places, told by ``phases``, lie between the lines ``base`` and
    the next."""
    count, right = taps.weights.shape[0], left + out.size
    first = base - count // 2 + 1
    for i in range(out.size):
        out[i] = np.float32(0)
    for tap in range(count):
        line, weights = lines[first + tap, channel, left:right], taps.weights[tap]
        for i in range(out.size):
            out[i] += weights[phases[i]] * line[i]
    p, q = lines[base - 1, channel, left:right], lines[base, channel, left:right]
    r, s = lines[base + 1, channel, left:right], lines[base + 2, channel, left:right]
    one, two, three, four = taps.covered
    for i in range(out.size):
        at = phases[i]
        mean = one[at] * p[i] + two[at] * q[i] + three[at] * r[i] + four[at] * s[i]
        out[i] = _limited(out[i], p[i], q[i], r[i], s[i], mean)


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def _limited(
    value: np.float32,
    p: np.float32,
    q: np.float32,
    r: np.float32,
    s: np.float32,
    mean: np.float32,
) -> np.float32:
    """``value`` within what the neighbours ``q`` and ``r``, and the slopes beyond them to ``p`` and
    ``s``, allow."""
    crest = max(min(q - p, r - s), np.float32(0))
    hollow = max(min(p - q, s - r), np.float32(0))
    least, most = min(q, r, mean) - hollow, max(q, r, mean) + crest
    return min(max(value, least), most)
