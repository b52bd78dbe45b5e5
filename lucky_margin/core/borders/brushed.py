"""Brushed bands: paint along the edge that ends in strokes, grain, tears or dots, made by noise."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import BrushedBand, BrushedLook
from lucky_margin.core.noise import fractal, noise

Floats = NDArray[np.float32]

SOFTEST = 0.6
"""Over how much of the band the softest edge fades."""

DOT_CELLS = 7.0
"""Dots across a band."""

MOSAIC_CELLS = 7
"""Cells of a mosaic across a band."""


@dataclass(frozen=True, eq=False)
class Places:
    """Pixels of a band, in short sides: across it from its outer edge (in thicknesses), along its
    ring and the ring's length there, and on the picture; ``pixel`` is the distance between two."""

    depth: Floats
    along: Floats
    round_length: Floats
    x: Floats
    y: Floats
    thickness: float
    pixel: float


def paint_on(band: BrushedBand, places: Places) -> Floats:
    """How much paint there is at each pixel, 0..1."""
    return np.clip(_LOOKS[band.look](band, places), 0, 1).astype(np.float32, copy=False)


def _edge(
    band: BrushedBand, places: Places, strayed: NDArray[Any], hardness: float = 1.0
) -> Floats:
    """Full up to the edge, which strays inwards and outwards by that, then fading."""
    softness = max(SOFTEST * band.softness / hardness, 1.5 * places.pixel / places.thickness)
    reach = 0.62 + 0.38 * (1 - band.roughness) - 0.5 * softness
    return np.asarray((reach + strayed - places.depth) / softness + 0.5, np.float32)


def _streaks(places: Places, share: float, cell: float, seed: int) -> Floats:
    """Noise drawn out along the edge, 1 / ``share`` times as long as wide; it goes over into
    itself where the ring closes."""
    depth = places.depth * places.thickness

    def streaks(along: Floats) -> Floats:
        return noise(np.asarray(along * share, np.float32), depth, cell, seed, places.pixel)

    closing = np.clip(10 * (places.along / places.round_length - 0.9), 0, 1)
    before = streaks(places.along - places.round_length)
    return np.asarray(streaks(places.along) * (1 - closing) + before * closing, np.float32)


def _paint(band: BrushedBand, places: Places) -> Floats:
    """Long strokes along the edge, whose bristles run out one by one."""
    size, seed = places.thickness, band.seed
    bristles = _streaks(places, 0.1, 0.06 * size, seed)
    waves = fractal(places.x, places.y, 1.2 * size, seed + 1, places.pixel, 3)
    strayed = band.roughness * (0.13 * waves + 0.17 * bristles)
    return _edge(band, places, strayed)


def _chalk(band: BrushedBand, places: Places) -> Floats:
    """Grain that gets thinner inwards."""
    size, seed = places.thickness, band.seed
    grain = fractal(places.x, places.y, 0.05 * size, seed, places.pixel, 2)
    waves = fractal(places.x, places.y, 0.8 * size, seed + 1, places.pixel, 2)
    covered = _edge(band, places, 0.1 * band.roughness * waves, 0.3)
    return np.asarray(covered + band.roughness * grain, np.float32)


def _torn(band: BrushedBand, places: Places) -> Floats:
    """A sharp, ragged tear."""
    size, seed = places.thickness, band.seed
    ragged = fractal(places.x, places.y, 0.9 * size, seed, places.pixel, 6)
    return _edge(band, places, 0.22 * band.roughness * ragged, 4.0)


def _dry(band: BrushedBand, places: Places) -> Floats:
    """A brush with little paint: streaks along the edge with bare places between them."""
    size, seed = places.thickness, band.seed
    streaks = _streaks(places, 0.05, 0.045 * size, seed)
    patches = fractal(places.x, places.y, 1.5 * size, seed + 1, places.pixel, 3)
    covered = _edge(band, places, band.roughness * 0.2 * patches)
    left = 2.1 - 2.8 * band.roughness * np.clip(places.depth, 0, 1) ** 0.7
    return np.asarray(np.minimum(covered, left + 0.9 * band.roughness * streaks), np.float32)


def _ink(band: BrushedBand, places: Places) -> Floats:
    """Ink that has spread in tongues and left drops."""
    size, seed = places.thickness, band.seed
    tongues = fractal(places.x, places.y, 0.35 * size, seed, places.pixel, 3)
    drops = noise(places.x, places.y, 0.1 * size, seed + 1, places.pixel)
    spread = _edge(band, places, 0.2 * band.roughness * tongues, 1.5)
    loose = _edge(band, places, 0.35 * band.roughness * (drops - 1.1), 1.5)
    return np.maximum(spread, loose)


def _dots(band: BrushedBand, places: Places) -> Floats:
    """Dots on a lattice at 45 degrees that get smaller inwards: their share of a cell is the
    tone."""
    cell = places.thickness / DOT_CELLS
    u, v = (places.x + places.y) / (1.4142 * cell), (places.x - places.y) / (1.4142 * cell)
    waves = fractal(places.x, places.y, 1.2 * places.thickness, band.seed, places.pixel, 2)
    tone = np.clip(1.15 * (1 - places.depth) + 0.2 * band.roughness * waves, 0, 1)
    from_middle = np.hypot(u - np.floor(u) - 0.5, v - np.floor(v) - 0.5)
    # Above half the dots meet, so what is left bare is round instead.
    corner = np.hypot(np.abs(u - np.rint(u)), np.abs(v - np.rint(v)))
    is_light = tone < 0.5
    radius = np.sqrt(np.where(is_light, tone, 1 - tone) / np.pi)
    inside = np.where(is_light, radius - from_middle, corner - radius)
    soft = places.pixel / cell + 0.5 * band.softness
    return np.asarray(inside / soft + 0.5, np.float32)


def _mosaic(band: BrushedBand, places: Places) -> Floats:
    """Square cells that get rarer inwards; each is asked about at its middle alone."""
    cells = noise(places.x, places.y, places.pixel, band.seed, places.pixel)
    tone = 1.2 - 1.4 * places.depth + 0.35 * band.roughness * cells
    return np.asarray((tone - 0.5) / max(0.02, band.softness) + 0.5, np.float32)


_LOOKS: dict[BrushedLook, Callable[[BrushedBand, Places], Floats]] = {
    "paint": _paint,
    "chalk": _chalk,
    "torn": _torn,
    "dry": _dry,
    "ink": _ink,
    "dots": _dots,
    "mosaic": _mosaic,
}
