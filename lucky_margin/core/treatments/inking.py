"""Ink of one colour on paper.

A pixel that ink covers in part is mixed in linear light, as shrinking mixes it; so a raster keeps
its light, and a preview looks like its export.
"""

import numba
import numpy as np

from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import rgb_of
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.treatments.working import Floats
from lucky_margin.core.types import Picture8

SHADES = 1024
"""Steps of the table from paper to ink."""


def inked(covered: Floats, ink: str, paper: str) -> Picture8:
    """``paper`` (``#RRGGBB``) covered (0..1) by ``ink`` at each pixel.

    ``covered`` has shape (rows, columns, inks): one for all channels, or three, each of which takes
    its own away.
    """
    out = np.empty((*covered.shape[:2], 3), np.uint8)
    dark, bright = (decode(np.array(rgb_of(colour)) / 255) for colour in (ink, paper))
    shares = np.linspace(0, 1, SHADES)[:, None]
    table = np.rint(255 * encode(bright + shares * (dark - bright))).astype(np.uint8)
    _mix(read_only(covered), read_only(table), out)
    return out


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _mix(covered: Floats, table: Picture8, out: Picture8) -> None:
    height, width, inks = covered.shape
    last = len(table) - 1
    for v in numba.prange(height):
        for u in range(width):
            for channel in range(3):
                share = covered[v, u, channel % inks]
                out[v, u, channel] = table[int(share * last + 0.5), channel]


def warm_up() -> None:
    """Compile the loop, or load it from disk."""
    inked(np.zeros((1, 1, 1), np.float32), "#000000", "#FFFFFF")
