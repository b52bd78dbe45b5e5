"""The relief of what the photo lies on, and the grain of film: textures over the photo."""

import math
from collections.abc import Callable

import numba
import numpy as np

from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import Grain, Relief
from lucky_margin.core.noise import fractal, noise
from lucky_margin.core.treatments.working import Floats, Pixels
from lucky_margin.core.types import Picture8

LIT = 0.24
"""How much of the light a full depth takes or gives, at a usual slope."""

STRONGEST = 44.0
"""Deviation of the grain at its full amount in the middle tones, of 255."""


def relief_texture(relief: Relief, pixels: Pixels) -> Floats:
    """The light on the ground at each pixel: 0 where it is level, about -1..1."""
    angle = math.radians(relief.light)
    reach = relief.grain / 4
    towards_x, towards_y = reach * math.sin(angle), -reach * math.cos(angle)
    x, y = pixels.places
    if relief.ground == "canvas":
        return _woven(relief.grain, (towards_x, towards_y), x, y, pixels)

    def risen(x: Floats, y: Floats) -> Floats:
        before = _height(relief, x - np.float32(towards_x), y - np.float32(towards_y), pixels)
        return before - _height(
            relief, x + np.float32(towards_x), y + np.float32(towards_y), pixels
        )

    return np.clip(_averaged(risen, x, y, pixels), -2, 2)


def draw_relief(relief: Relief, light: Floats, picture: Picture8, _: Pixels) -> Picture8:
    """``picture`` with the light on its ground."""
    gain = 1 + np.float32(LIT * relief.depth / 100) * light
    return np.asarray(np.rint(np.clip(picture * gain[:, :, None], 0, 255)), np.uint8)


def _averaged(
    texture: Callable[[Floats, Floats], Floats], x: Floats, y: Floats, pixels: Pixels
) -> Floats:
    """The mean of two by two points of each pixel, since a grain may be hardly larger than one."""
    away = np.float32(pixels.pixel / 4)
    total = np.zeros(x.shape, np.float32)
    for across, down in ((-away, -away), (away, -away), (-away, away), (away, away)):
        total += texture(x + across, y + down)
    return total / np.float32(4)


def _height(relief: Relief, x: Floats, y: Floats, pixels: Pixels) -> Floats:
    finest = pixels.pixel / 2
    if relief.ground == "paper":
        return fractal(x, y, relief.grain, 61, finest, 2)
    return fractal(x, y, 3 * relief.grain, 71, finest, 3) * np.float32(1.4)


def _woven(
    grain: float, towards: tuple[float, float], x: Floats, y: Floats, pixels: Pixels
) -> Floats:
    """The light on a plain weave, of which every second thread of warp and weft lies above."""
    waver = np.float32(0.35) * noise(x, y, 4 * grain, 81, pixels.pixel)
    lit = np.empty(x.shape, np.float32)
    places = (read_only(x), read_only(y), read_only(waver))
    _light_weave(*places, math.pi / grain, pixels.pixel, *towards, lit)
    return lit


@numba.njit(cache=True, nogil=True, error_model="numpy", fastmath=True)
def _weave(u: float, v: float) -> float:
    """How high a weave is; both in half turns of a thread."""
    sin_u, sin_v = math.sin(u), math.sin(v)
    above = 0.5 + 0.5 * min(max(6.0 * sin_u * sin_v, -1.0), 1.0)
    return 1.6 * (abs(sin_u) * above + abs(sin_v) * (1.0 - above))


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _light_weave(
    x: Floats, y: Floats, waver: Floats, turn: float, pixel: float,
    towards_x: float, towards_y: float, lit: Floats,
) -> None:  # fmt: skip
    """The mean of two by two points of each pixel, since threads may be hardly wider than one."""
    rows, columns = x.shape
    for row in numba.prange(rows):
        for column in range(columns):
            total = 0.0
            for part in range(4):
                px = x[row, column] + (part % 2 - 0.5) * pixel / 2
                py = y[row, column] + (part // 2 - 0.5) * pixel / 2
                off = waver[row, column]
                total += _weave((px - towards_x) * turn + off, (py - towards_y) * turn - off)
                total -= _weave((px + towards_x) * turn + off, (py + towards_y) * turn - off)
            lit[row, column] = total / 4


def grain_texture(grain: Grain, pixels: Pixels) -> Floats:
    """Noise of deviation 1, shape (height, width, 1), or one for each channel."""
    x, y = pixels.places
    seeds = [grain.seed + 7 * channel for channel in range(3 if grain.coloured else 1)]

    def of(seed: int) -> Callable[[Floats, Floats], Floats]:
        return lambda x, y: noise(x, y, grain.size, seed, pixels.pixel / 2)

    return np.dstack([_averaged(of(seed), x, y, pixels) for seed in seeds])


def draw_grain(grain: Grain, texture: Floats, picture: Picture8, _: Pixels) -> Picture8:
    """``picture`` with grain."""
    levels = np.arange(256, dtype=np.float32) / 255
    # Film has most grain in the middle tones and none where it is clear or full.
    strength = STRONGEST * grain.amount / 100 * np.sqrt(4 * levels * (1 - levels))
    out = picture + strength.astype(np.float32)[picture] * texture
    return np.asarray(np.rint(np.clip(out, 0, 255)), np.uint8)


def warm_up() -> None:
    """Compile the loop, or load it from disk."""
    relief_texture(Relief(ground="canvas"), Pixels((0, 0, 1, 1), 1, 1, 1.0, 1.0))
