"""Measuring the toned photo inside a size's window: no border, shape or ground."""

from dataclasses import dataclass

import numpy as np

from lucky_margin.core.document import Finish, Size, Tone
from lucky_margin.core.framing import frame_of
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.render import photo_under
from lucky_margin.core.render.sources import Sources
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


def measure_noise(finish: Finish, size: Size, sources: Sources) -> float:
    """Noise of the toned photo in the size's own pixels (see ``noise_of``); of large sizes on
    tiles spread evenly over them.

    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    facts = sources.facts(finish.photo.sha256)
    frame = frame_of(finish, size, facts.width, facts.height)
    width, height = frame.output.width, frame.output.height
    tone = finish.tone_of(size)

    def seen(region: Region) -> Picture8:
        grid = Grid.of(width, height, 1, region)
        return photo_under(finish.photo.sha256, tone, frame, grid, sources)

    if min(width, height) < TILES * NOISE_TILE:
        wide, high = (min(side, TILES * NOISE_TILE) for side in (width, height))
        return noise_of(seen(((width - wide) // 2, (height - high) // 2, wide, high)))
    lefts, tops = (
        np.linspace(0, side - NOISE_TILE, TILES).round().astype(int).tolist()
        for side in (width, height)
    )
    tiles = [seen((left, top, NOISE_TILE, NOISE_TILE)) for top in tops for left in lefts]
    return noise_of(np.vstack(tiles))


def measure_tone(finish: Finish, size: Size, sources: Sources) -> ToneMeasured:
    """
    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    facts = sources.facts(finish.photo.sha256)
    frame = frame_of(finish, size, facts.width, facts.height)
    width, height = frame.output.width, frame.output.height
    grid = Grid.of(width, height, min(1.0, MEASURED_SIDE / max(width, height)), None)
    sha256 = finish.photo.sha256
    before = clipping_of(photo_under(sha256, Tone(), frame, grid, sources))
    picture = photo_under(sha256, finish.tone_of(size), frame, grid, sources)
    after = clipping_of(picture)
    newly = Clipping(max(0.0, after.high - before.high), max(0.0, after.low - before.low))
    return ToneMeasured(histogram_of(picture), newly)
