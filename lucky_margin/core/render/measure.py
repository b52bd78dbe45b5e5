"""Measuring the toned photo inside a size's window: no border, shape or ground."""

from dataclasses import dataclass

import numpy as np

from lucky_margin.core.document import Tone
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.layers import photo_under
from lucky_margin.core.scene import Scene
from lucky_margin.core.tone import Clipping, Histogram, clipping_of, histogram_of, noise_of
from lucky_margin.core.types import Picture8, Region

MEASURED_SIDE = 480
"""Longest side at which tone is measured, in output pixels."""


NOISE_TILE, TILES = 208, 3
"""Side of the tiles on which noise is measured, in output pixels, and how many along a side."""


@dataclass(frozen=True)
class ToneMeasured:
    """The toned photo, and what its tone clipped that was not clipped before (shares, 0..1)."""

    histogram: Histogram
    newly: Clipping


def measure_noise(scene: Scene) -> float:
    """Noise of the toned photo in the size's own pixels (see ``noise_of``); of large sizes on
    tiles spread evenly over them.

    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    width, height = scene.sides

    def seen(region: Region) -> Picture8:
        return photo_under(scene, scene.tone, Grid.of(width, height, 1, region))

    if min(width, height) < TILES * NOISE_TILE:
        wide, high = (min(side, TILES * NOISE_TILE) for side in (width, height))
        return noise_of(seen(((width - wide) // 2, (height - high) // 2, wide, high)))
    lefts, tops = (
        np.linspace(0, side - NOISE_TILE, TILES).round().astype(int).tolist()
        for side in (width, height)
    )
    tiles = [seen((left, top, NOISE_TILE, NOISE_TILE)) for top in tops for left in lefts]
    return noise_of(np.vstack(tiles))


def measure_tone(scene: Scene) -> ToneMeasured:
    """
    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    grid = Grid.of(*scene.sides, scene.scale_for(MEASURED_SIDE), None)
    before = clipping_of(photo_under(scene, Tone(), grid))
    picture = photo_under(scene, scene.tone, grid)
    after = clipping_of(picture)
    newly = Clipping(max(0.0, after.high - before.high), max(0.0, after.low - before.low))
    return ToneMeasured(histogram_of(picture), newly)
