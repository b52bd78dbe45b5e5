"""Blurs as by a lens, everywhere or beyond a zone that stays sharp."""

import math

import cv2
import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.blurring import lens_blurred
from lucky_margin.core.document import LensBlur, SharpZone
from lucky_margin.core.sampling import encode_16_bits
from lucky_margin.core.sampling.lines import dither, to_8_bits
from lucky_margin.core.treatments.working import Pixels, Working
from lucky_margin.core.types import Picture8, Picture16

LEVELS = (0.25, 0.5, 1.0)
"""Of a growing blur: each a share of its full radius; in between they are mixed."""

MOST_RADIUS = 4.5
"""Of a lens's disc in pixels; a wider one is laid over a smaller picture."""


def plan_blur(blur: LensBlur, working: Working) -> Picture16:
    """The blurred photo."""
    return _blurred(working, blur.radius)


def draw_blur(_: LensBlur, blurred: Picture16, __: Picture8, pixels: Pixels) -> Picture8:
    """The blurred photo over ``pixels``."""
    return pixels.picture(blurred)


def plan_sharp_zone(zone: SharpZone, working: Working) -> Picture16:
    """The photo blurred by each of ``LEVELS``, shape (levels, rows, columns, 3)."""
    blurred = [_blurred(working, level * zone.radius) for level in LEVELS]
    sides = blurred[0].shape[1::-1]
    return np.stack([cv2.resize(level, sides) for level in blurred]).astype(np.uint16, copy=False)


def draw_sharp_zone(
    zone: SharpZone,
    levels: Picture16,
    picture: Picture8,
    pixels: Pixels,
) -> Picture8:
    """``picture``, the more blurred the farther from the zone."""
    middle_x, middle_y = pixels.of_photo(zone.centre)
    left, top, _, _ = pixels.region
    step_x, step_y = pixels.width / pixels.columns, pixels.height / pixels.rows
    turn = math.radians(zone.angle)
    out = np.empty_like(picture)
    _mix_levels(
        read_only(picture),
        read_only(levels),
        np.array(LEVELS),
        left,
        top,
        levels.shape[2] / pixels.columns,
        levels.shape[1] / pixels.rows,
        step_x,
        step_y,
        middle_x,
        middle_y,
        zone.form == "round",
        math.cos(turn),
        math.sin(turn),
        zone.sharp,
        zone.fade,
        out,
    )
    return out


@numba.njit(cache=True, nogil=True, inline="always")
def _read(level: Picture16, i: int, j: int, x: float, y: float, channel: int) -> float:
    """Between four pixels, 0..255."""
    last_row, last_column = level.shape[0] - 1, level.shape[1] - 1
    right, below = min(i + 1, last_column), min(j + 1, last_row)
    upper = level[j, i, channel] * (1 - x) + level[j, right, channel] * x
    lower = level[below, i, channel] * (1 - x) + level[below, right, channel] * x
    return float(upper + (lower - upper) * y) / 257


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy")
def _mix_levels(
    picture: Picture8, levels: Picture16, shares: NDArray[np.float64], left: int, top: int,
    onto_x: float, onto_y: float, step_x: float, step_y: float, middle_x: float, middle_y: float,
    is_round: bool, cos: float, sin: float, sharp: float, fade: float, out: Picture8,
) -> None:  # fmt: skip
    """Each pixel between the two levels that are nearest to its blur, read bilinearly."""
    height, width, _ = picture.shape
    _, rows, columns, _ = levels.shape
    for v in numba.prange(height):
        y = (top + v + 0.5) * step_y - middle_y
        for u in range(width):
            x = (left + u + 0.5) * step_x - middle_x
            way = math.sqrt(x * x + y * y) if is_round else abs(cos * y - sin * x)
            grown = min(max((way - sharp) / fade, 0.0), 1.0)
            blur = grown * grown * (3 - 2 * grown)
            number = 0
            while number < len(shares) - 1 and blur > shares[number]:
                number += 1
            before = shares[number - 1] if number else 0.0
            share = (blur - before) / (shares[number] - before)
            at_x = min(max((left + u + 0.5) * onto_x - 0.5, 0.0), columns - 1.001)
            at_y = min(max((top + v + 0.5) * onto_y - 0.5, 0.0), rows - 1.001)
            i, j = int(at_x), int(at_y)
            part_x, part_y = at_x - i, at_y - j
            noise = dither(left + u, top + v)
            for channel in range(3):
                value = float(picture[v, u, channel])
                if share > 0 or number:
                    if number:
                        value = _read(levels[number - 1], i, j, part_x, part_y, channel)
                    blurred = _read(levels[number], i, j, part_x, part_y, channel)
                    value += share * (blurred - value)
                out[v, u, channel] = to_8_bits(value, noise)


def _blurred(working: Working, radius: float) -> Picture16:
    """By a disc of ``radius`` (short sides), of what is treated alone; as small as it was made."""
    weighted = working.weighted
    pixels = radius * working.per_short
    if pixels > MOST_RADIUS:
        part = MOST_RADIUS / pixels
        smaller = cv2.resize(weighted, None, fx=part, fy=part, interpolation=cv2.INTER_AREA)
        weighted = np.asarray(smaller, np.float32)
        pixels = MOST_RADIUS
    soft = lens_blurred(weighted, pixels)
    return encode_16_bits(np.asarray(soft[:, :, :3] / soft[:, :, 3:], np.float32))


def warm_up() -> None:
    """Compile the loop, or load it from disk."""
    levels = np.zeros((len(LEVELS), 1, 1, 3), np.uint16)
    pixels = Pixels((0, 0, 1, 1), 1, 1, 1.0, 1.0)
    draw_sharp_zone(SharpZone(), levels, np.zeros((1, 1, 3), np.uint8), pixels)
