"""Backdrops drawn by code. They are drawn once at a fixed working size, so that a preview and an
export show the same.

What a key draws from its colours and seed never changes: a drawing that is to be better gets a key
that is new.
"""

import numpy as np

from lucky_margin.core.document import StockBackdrop, rgb_of
from lucky_margin.core.document.values import BackdropKey
from lucky_margin.core.grounds.stock.boards import BOARDS
from lucky_margin.core.grounds.stock.cloths import CLOTHS
from lucky_margin.core.grounds.stock.lights import LIGHTS
from lucky_margin.core.grounds.stock.means import Draw, Random
from lucky_margin.core.grounds.stock.papers import PAPERS
from lucky_margin.core.grounds.stock.patterns import PATTERNS
from lucky_margin.core.grounds.stock.seasons import SEASONS
from lucky_margin.core.grounds.stock.walls import WALLS
from lucky_margin.core.types import Picture8

SHORT_SIDE = 1200
"""Of the working size, in pixels."""

LONGEST_SIDE = 3600

DRAWINGS: dict[BackdropKey, Draw] = {
    **LIGHTS,
    **PAPERS,
    **CLOTHS,
    **WALLS,
    **BOARDS,
    **PATTERNS,
    **SEASONS,
}


def stock_backdrop(ground: StockBackdrop, ratio: float) -> Picture8:
    """The backdrop for a size of ``ratio`` (width over height), at the working size."""
    columns = min(LONGEST_SIDE, round(SHORT_SIDE * max(1.0, ratio)))
    rows = min(LONGEST_SIDE, round(SHORT_SIDE / min(1.0, ratio)))
    last = ground.colours[-1]
    named = (*ground.colours, last, last)[:3]
    colours = np.array([rgb_of(colour) for colour in named], np.float32)
    random = Random(ground.seed)
    drawn = DRAWINGS[ground.key](rows, columns, colours, random)
    # A little noise, so that no steps show where shades change slowly.
    drawn = drawn + random.uniform(-0.5, 0.5, (rows, columns, 1)).astype(np.float32)
    return np.ascontiguousarray(np.rint(np.clip(drawn, 0, 255)), np.uint8)
