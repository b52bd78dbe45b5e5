"""A picture in the light and colours of what lies around it.

Mean and spread of OKLab are taken over: E. Reinhard, M. Ashikhmin, B. Gooch and P. Shirley, "Color
transfer between images", 2001.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box
from lucky_margin.core.oklab import from_light, to_light
from lucky_margin.core.sampling import as_8_bits, to_linear
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.tone import ColourTable, with_table
from lucky_margin.core.types import Picture8

Floats = NDArray[np.float64]

AROUND = 0.5
"""How far around a piece the picture is looked at, of the piece's own sides."""

LEAST_SPREAD, MOST_SPREAD = 0.6, 1.6
"""By how much contrasts are made less or more at the most: a plain wall is no measure for them."""

SMALLEST_SPREAD = 0.01
"""Of a picture in one colour, which has none to be made more of."""

TABLE_SIDE = 33


@dataclass(frozen=True)
class Light:
    """Mean and spread (standard deviation) of OKLab's lightness, a and b."""

    mean: tuple[float, ...]
    spread: tuple[float, ...]


def light_of(picture: Picture8) -> Light | None:
    """The light of a picture, its pixels counted as far as they are opaque; None where none is."""
    linear = to_linear(picture).astype(np.float64)
    lab = from_light(linear[:, :, :3]).reshape(-1, 3)
    weights = linear[:, :, 3].ravel() if picture.shape[2] == 4 else np.ones(len(lab))
    if not weights.sum():
        return None
    mean = np.average(lab, axis=0, weights=weights)
    spread = np.sqrt(np.average((lab - mean) ** 2, axis=0, weights=weights))
    # Rounded, so that the same light is told from a cache.
    return Light(tuple(mean.round(4).tolist()), tuple(spread.round(4).tolist()))


def light_around(box: Box, picture: Picture8) -> Light | None:
    """The light of what lies in and around ``box`` (shares of the picture's sides, 0..1)."""
    rows, columns = picture.shape[:2]
    right, down = AROUND * box.width, AROUND * box.height
    left, top = max(0, int((box.left - right) * columns)), max(0, int((box.top - down) * rows))
    end = min(columns, int((box.right + right) * columns) + 1)
    foot = min(rows, int((box.bottom + down) * rows) + 1)
    return light_of(picture[top:foot, left:end]) if end > left and foot > top else None


def matched(picture: Picture8, around: Light, share: float) -> Picture8:
    """``picture`` with so much (0..1) of the light ``around``."""
    own = light_of(picture)
    return picture if own is None else as_8_bits(with_table(picture, _table(own, around), share))


def _table(own: Light, around: Light) -> ColourTable:
    steps = decode(np.linspace(0, 1, TABLE_SIDE))
    blue, green, red = np.meshgrid(steps, steps, steps, indexing="ij")
    lab = from_light(np.stack([red, green, blue], axis=-1))
    ratio = np.array(around.spread) / np.maximum(own.spread, SMALLEST_SPREAD)
    factor = np.clip(ratio, LEAST_SPREAD, MOST_SPREAD)
    moved = (lab - own.mean) * factor + around.mean
    colours = encode(np.clip(to_light(moved), 0, 1))
    return ColourTable("matched", colours.astype(np.float32))
