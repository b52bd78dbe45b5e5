"""Mats and mouldings: their relief, lit from one side."""

import math

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import MatBand, Profile, Texture, rgb_of
from lucky_margin.core.noise import fractal, noise
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.types import Picture8

Floats = NDArray[np.float32]

ALTITUDE = math.radians(50)
"""How high the light stands."""

AMBIENT = 0.35
"""Share of the light that comes from everywhere."""

BRIGHTEST = 2.0
SHADES = 1024
"""Steps of the table from shade to colour, up to ``BRIGHTEST``."""

STEPS = ((0.0, 0.1, 1.2), (0.42, 0.52, -1.0), (0.86, 1.0, -1.4))
"""Where the stepped profile rises or falls: from and to (0 outside, 1 inside), and how steeply."""

SLOPE = -0.6
STEEPEST = 2.5

_TEXTURES: dict[Texture, float] = {"smooth": 0.0, "paper": 0.018, "linen": 0.06}
"""How much the texture changes the shade."""


def slope_of(profile: Profile, depth: Floats) -> Floats:
    """How steeply the profile rises inwards at ``depth`` (0 outside, 1 inside)."""
    if profile == "sloped":
        return np.full(depth.shape, SLOPE, np.float32)
    if profile == "round":
        # Half a circle over the band: dz/dx at x of the radius is -x / sqrt(1 - x^2).
        from_middle = np.clip(2 * depth - 1, -0.999, 0.999)
        rise = -from_middle / np.sqrt(1 - from_middle**2)
        return np.asarray(np.clip(rise, -STEEPEST, STEEPEST), np.float32)
    slope = np.zeros(depth.shape, np.float32)
    if profile == "stepped":
        for start, end, steep in STEPS:
            slope[(depth >= start) & (depth < end)] = steep
    return slope


def shade(slope: Floats, normal_x: Floats, normal_y: Floats, light: float) -> Floats:
    """Light on a surface that rises inwards by ``slope``, against that on a level one (1).

    Lambert's cosine law with some ambient light; ``light`` is where it comes from, degrees
    clockwise from above, and the normals point inwards.
    """
    angle = math.radians(light)
    towards = np.float32(math.sin(angle)) * normal_x - np.float32(math.cos(angle)) * normal_y
    level = math.sin(ALTITUDE)
    lit = (level - slope * towards * math.cos(ALTITUDE)) / np.sqrt(1 + slope**2)
    return np.asarray(AMBIENT + (1 - AMBIENT) * np.maximum(lit, 0) / level, np.float32)


def mat_picture(
    band: MatBand,
    depth: Floats,
    normals: tuple[Floats, Floats],
    bevel: Floats,
    places: tuple[Floats, Floats],
    pixel: float,
) -> Picture8:
    """A mat's colours, shape (rows, columns, 3).

    ``depth`` is 0 at its outer edge and 1 where its bevel begins; ``bevel`` says how much of each
    pixel (0..1) is bevel. ``places`` are x and y in short sides, ``pixel`` the distance between
    two.
    """
    face = shade(slope_of(band.profile, depth), *normals, band.light)
    strength = _TEXTURES[band.texture]
    if strength:
        face *= 1 + strength * _texture(band.texture, *places, pixel)
    picture = _coloured(band.colour, face)
    if bevel.any():
        cut = shade(np.full(depth.shape, -1, np.float32), *normals, band.light)
        share = bevel[:, :, None]
        mixed = picture * (1 - share) + _coloured(band.core, cut) * share
        picture = np.rint(mixed).astype(np.uint8)
    return picture


def _texture(texture: Texture, x: Floats, y: Floats, pixel: float) -> Floats:
    if texture == "paper":
        return fractal(x, y, 0.003, 7, pixel, 2)
    threads = noise(x, y * 0.08, 0.0022, 11, pixel) + noise(x * 0.08, y, 0.0022, 12, pixel)
    return np.asarray(0.7 * threads, np.float32)


def _coloured(colour: str, shades: Floats) -> Picture8:
    """Linear light times the shade."""
    steps = np.linspace(0, BRIGHTEST, SHADES)[:, None]
    light = decode(np.array(rgb_of(colour)) / 255)
    table = np.rint(255 * encode(np.clip(light * steps, 0, 1))).astype(np.uint8)
    numbers = np.clip(shades * ((SHADES - 1) / BRIGHTEST) + 0.5, 0, SHADES - 1)
    return np.asarray(table[numbers.astype(np.int32)], np.uint8)
