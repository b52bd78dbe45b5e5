"""Printed rasters: ink covers as much of the paper as keeps the light that the photo has.

The dots are those of the Euclidean spot function: round in the light, a checker in the middle,
round holes in the dark. A pixel is ink where the spot function is over the threshold that leaves as
much area as is wanted; its edge is smooth over one pixel. Lines are as wide as that area.
"""

import math
from functools import lru_cache
from typing import Any

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import Dots, rgb_of
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.treatments.inking import inked
from lucky_margin.core.treatments.working import LUMINANCE, Floats, Pixels, Working
from lucky_margin.core.types import Picture8

EVENED = 0.4
"""Deviation of the blur under a raster, in pitches."""

PRINT_ANGLES = (15.0, 75.0, 45.0)
"""Of the inks that take red, green and blue from the light, in degrees, as is usual in print."""

BLACK = "#000000"

STEPS = 256
"""Of the table from area to threshold."""

_FINE = 512


def plan_dots(dots: Dots, working: Working) -> Floats:
    """How much (0..1) of each place ink covers, shape (rows, columns, inks)."""
    light = working.spread(EVENED * dots.pitch)
    paper = decode(np.array(rgb_of(dots.paper)) / 255)
    if dots.ink is None:
        return _lighter(1 - light / np.maximum(paper, 1e-3), dots)
    ink = decode(np.array(rgb_of(dots.ink)) / 255)
    bright, dark = float(paper @ LUMINANCE), float(ink @ LUMINANCE)
    apart = bright - dark
    if abs(apart) < 1e-3:
        apart = 1e-3
    covered = (bright - light @ LUMINANCE) / np.float32(apart)
    return _lighter(covered[:, :, None], dots)


def _lighter(covered: NDArray[np.floating[Any]], dots: Dots) -> Floats:
    share = np.clip(covered, 0, 1).astype(np.float32)
    return np.asarray(share ** np.float32(1 + dots.lighter / 50), np.float32)


def draw_dots(dots: Dots, covered: Floats, _: Picture8, pixels: Pixels) -> Picture8:
    """The raster over ``pixels``."""
    inks = covered.shape[2]
    laid = pixels.laid(covered).reshape(pixels.region[3], pixels.region[2], inks)
    left, top, width, height = pixels.region
    angles = [dots.angle] if inks == 1 else [dots.angle + angle for angle in PRINT_ANGLES]
    step_x, step_y = pixels.width / pixels.columns, pixels.height / pixels.rows
    printed = np.empty((inks, height, width), np.float32)
    for number, angle in enumerate(angles):
        place = (
            ((left + 0.5) * step_x - pixels.width / 2) / dots.pitch,
            ((top + 0.5) * step_y - pixels.height / 2) / dots.pitch,
            step_x / dots.pitch,
            step_y / dots.pitch,
            math.radians(angle),
        )
        wanted, ink = read_only(np.ascontiguousarray(laid[:, :, number])), printed[number]
        if dots.form == "line":
            _cover_by_lines(wanted, *place, ink)
        else:
            _cover_by_dots(wanted, *place, _thresholds(), ink)
    return inked(np.ascontiguousarray(np.moveaxis(printed, 0, 2)), dots.ink or BLACK, dots.paper)


@lru_cache
def _thresholds() -> Floats:
    """The value of the spot function over which a share of 0, 1/STEPS, ... 1 of the area is."""
    wave = np.cos(2 * np.pi * (np.arange(_FINE) + 0.5) / _FINE)
    spot = (wave[:, None] + wave[None, :]).ravel() / 2
    table = np.quantile(spot, np.linspace(1, 0, STEPS + 1))
    # Nothing and everything are so beyond a pixel's smooth edge.
    table[0], table[-1] = 2.0, -2.0
    return read_only(table.astype(np.float32))


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _cover_by_lines(
    covered: Floats, x: float, y: float, step_x: float, step_y: float, turn: float, ink: Floats,
) -> None:  # fmt: skip
    """How much of each pixel is line; ``x``, ``y`` and the steps are in pitches."""
    height, width = covered.shape
    pixel = (step_x + step_y) / 2
    cos, sin = math.cos(turn), math.sin(turn)
    for v in numba.prange(height):
        for u in range(width):
            across = cos * (y + v * step_y) - sin * (x + u * step_x)
            away = abs(across - math.floor(across + 0.5))
            share = covered[v, u]
            # Of line and gap, the narrower one counts: it may be less than a pixel.
            if share <= 0.5:
                ink[v, u] = _overlap(away, share / 2, pixel)
            else:
                ink[v, u] = 1.0 - _overlap(0.5 - away, (1.0 - share) / 2, pixel)


@numba.njit(cache=True, nogil=True, error_model="numpy", fastmath=True)
def _overlap(away: float, half: float, pixel: float) -> float:
    """How much of a pixel lies within ``half`` of a line that is ``away`` from its middle."""
    shared = min(away + pixel / 2, half) - max(away - pixel / 2, -half)
    return min(max(shared / pixel, 0.0), 1.0)


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _cover_by_dots(
    covered: Floats, x: float, y: float, step_x: float, step_y: float, turn: float,
    thresholds: Floats, ink: Floats,
) -> None:  # fmt: skip
    """How much of each pixel is dot; ``x``, ``y`` and the steps are in pitches."""
    height, width = covered.shape
    whole = 2 * math.pi
    pixel = (step_x + step_y) / 2
    last = thresholds.size - 1
    cos, sin = math.cos(turn), math.sin(turn)
    # Along a line both waves go on by the same angle from pixel to pixel.
    cos_a, sin_a = math.cos(whole * cos * step_x), math.sin(whole * cos * step_x)
    cos_b, sin_b = math.cos(-whole * sin * step_x), math.sin(-whole * sin * step_x)
    # Where the spot function is level its bend counts: a dot may be less than a pixel.
    bend = (whole * whole * pixel / 4) ** 2
    for v in numba.prange(height):
        down = y + v * step_y
        a, b = whole * (cos * x + sin * down), whole * (cos * down - sin * x)
        wave_a, slope_a, wave_b, slope_b = math.cos(a), math.sin(a), math.cos(b), math.sin(b)
        for u in range(width):
            spot, slope = (wave_a + wave_b) / 2, (slope_a * slope_a + slope_b * slope_b) / 4
            at = covered[v, u] * last
            below = min(int(at), last - 1)
            low, high = thresholds[below], thresholds[below + 1]
            edge = spot - (low + (at - below) * (high - low))
            edge /= math.sqrt(whole * whole * slope + bend) * pixel
            ink[v, u] = min(max(edge + 0.5, 0.0), 1.0)
            wave_a, slope_a = wave_a * cos_a - slope_a * sin_a, slope_a * cos_a + wave_a * sin_a
            wave_b, slope_b = wave_b * cos_b - slope_b * sin_b, slope_b * cos_b + wave_b * sin_b


def warm_up() -> None:
    """Compile both loops, or load them from disk."""
    pixels, wanted = Pixels((0, 0, 2, 2), 2, 2, 1.0, 1.0), np.zeros((2, 2, 1), np.float32)
    draw_dots(Dots(form="round"), wanted, np.zeros((2, 2, 3), np.uint8), pixels)
    draw_dots(Dots(form="line"), wanted, np.zeros((2, 2, 3), np.uint8), pixels)
