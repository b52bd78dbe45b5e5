"""Backdrops drawn by code. They are drawn once at a fixed working size, so that a preview and an
export show the same.

What a key draws from its colours and seed never changes: a drawing that is to be better gets a key
of its own. Noise comes from ``RandomState``, whose numbers NumPy has promised to keep.
"""

from collections.abc import Callable

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import StockBackdrop, rgb_of
from lucky_margin.core.document.values import BackdropKey
from lucky_margin.core.types import Picture8

Floats = NDArray[np.float32]
Random = np.random.RandomState
Draw = Callable[[int, int, Floats, Random], Floats]
"""From rows, columns, three colours (encoded sRGB 0..255) and a source of noise to a picture."""

SHORT_SIDE = 1200
"""Of the working size, in pixels."""

LONGEST_SIDE = 3600


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


def _noise(
    rows: int, columns: int, random: Random, down: float, across: float | None = None
) -> Floats:
    """Smooth noise of mean 0 and deviation 1, shape (rows, columns, 1); ``down`` and ``across`` say
    how smooth, in pixels."""
    across = down if across is None else across
    shrink_y, shrink_x = max(1, int(down / 3)), max(1, int(across / 3))
    small = random.standard_normal((rows // shrink_y + 8, columns // shrink_x + 8))
    soft = cv2.GaussianBlur(
        small.astype(np.float32),
        (0, 0),
        sigmaX=max(0.3, across / shrink_x),
        sigmaY=max(0.3, down / shrink_y),
        borderType=cv2.BORDER_REFLECT,
    )
    wide = cv2.resize(soft, (columns, rows), interpolation=cv2.INTER_CUBIC)
    return np.asarray((wide / soft.std())[:, :, None], np.float32)


def _flat(rows: int, columns: int, colour: Floats) -> Floats:
    return np.broadcast_to(colour, (rows, columns, 3)).astype(np.float32)


def _between(colours: Floats, share: Floats) -> Floats:
    """From the first colour to the second by ``share`` (0..1), shape (rows, columns, 1)."""
    return np.asarray(colours[0] + (colours[1] - colours[0]) * np.clip(share, 0, 1), np.float32)


def _smooth(share: Floats) -> Floats:
    share = np.clip(share, 0, 1)
    return np.asarray(share * share * (3 - 2 * share), np.float32)


def _from_middle(rows: int, columns: int, y: float = 0.5, x: float = 0.5) -> Floats:
    """Distance from a place, in halves of the longer side, shape (rows, columns, 1)."""
    down, along = np.mgrid[:rows, :columns].astype(np.float32)
    half = max(rows, columns) / 2
    return np.asarray(np.hypot(down - y * rows, along - x * columns)[:, :, None] / half, np.float32)


def _paper(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    grain = 2.4 * _noise(rows, columns, random, 0.8) + 2.0 * _noise(rows, columns, random, 5)
    return _flat(rows, columns, colours[0]) + grain + 1.5 * _noise(rows, columns, random, 90)


def _laid(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Paper with the lines of its mould."""
    down, along = np.mgrid[:rows, :columns].astype(np.float32)
    ribs = 2.6 * np.sin(2 * np.pi * down / 9)
    chains = -5 * np.exp(-(((along % 150) - 75) ** 2) / 8)
    lines = (ribs + chains)[:, :, None] * (0.7 + 0.3 * _noise(rows, columns, random, 30))
    return np.asarray(_paper(rows, columns, colours, random) + lines, np.float32)


def _plaster(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    height = _noise(rows, columns, random, 60) + 0.5 * _noise(rows, columns, random, 14)
    height += 0.16 * _noise(rows, columns, random, 2)
    lit = cv2.Sobel(height[:, :, 0], cv2.CV_32F, 1, 1, ksize=3)[:, :, None]
    plain = _flat(rows, columns, colours[0])
    return np.asarray(plain + 4 * height + np.clip(26 * lit, -9, 9), np.float32)


def _limewash(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Two shades in broad strokes of a brush."""
    cloud = 0.5 + 0.22 * _noise(rows, columns, random, 70, 110)
    cloud += 0.1 * _noise(rows, columns, random, 8, 60) + 0.08 * _noise(
        rows, columns, random, 60, 8
    )
    return _between(colours, _smooth(cloud)) + 1.6 * _noise(rows, columns, random, 1)


def _linen(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    down, along = np.mgrid[:rows, :columns].astype(np.float32)
    weave = np.sin(np.pi * down / 2.5) * np.sin(np.pi * along / 2.5)
    threads = _noise(rows, columns, random, 1.2, 60) + _noise(rows, columns, random, 60, 1.2)
    cloth = 4.5 * threads + 5 * weave[:, :, None] + 1.5 * _noise(rows, columns, random, 0.7)
    return np.asarray(_flat(rows, columns, colours[0]) + cloth, np.float32)


def _felt(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    fibres = sum(
        _noise(rows, columns, random, down, across)
        for down, across in ((1, 9), (9, 1), (3, 3), (1.5, 5))
    )
    return np.asarray(_flat(rows, columns, colours[0]) + 3.2 * fibres, np.float32)


def _stone(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Soft clouds of the second colour, and fine veins of the third."""
    cloud = (
        0.35 + 0.25 * _noise(rows, columns, random, 110) + 0.1 * _noise(rows, columns, random, 25)
    )
    paths = _noise(rows, columns, random, 170) + 0.2 * _noise(rows, columns, random, 45)
    veins = np.exp(-((paths / 0.035) ** 2)) * _smooth(
        0.5 + 0.5 * _noise(rows, columns, random, 150)
    )
    base = _between(colours, _smooth(cloud))
    return np.asarray(base + 0.5 * veins * (colours[2] - base), np.float32)


def _sand(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    down = np.mgrid[:rows, :columns][0].astype(np.float32)[:, :, None]
    bent = down + 26 * _noise(rows, columns, random, 120, 200)
    ripples = 5 * np.sin(2 * np.pi * bent / 58)
    grains = 7 * _noise(rows, columns, random, 0.7)
    return np.asarray(_flat(rows, columns, colours[0]) + ripples + grains, np.float32)


def _speckle(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A glaze with spots of the second colour."""
    spots = np.zeros((rows, columns), np.uint8)
    for _ in range(int(rows * columns / 2600)):
        x, y = int(random.randint(0, columns * 16)), int(random.randint(0, rows * 16))
        radius = int(16 * (0.6 + 3.2 * random.random_sample() ** 4))
        shade = int(random.randint(110, 235))
        cv2.circle(spots, (x, y), radius, shade, -1, cv2.LINE_AA, 4)
    soft = np.asarray(cv2.GaussianBlur(spots, (0, 0), 0.7), np.float32)
    share = soft[:, :, None] / np.float32(255)
    return _between(colours, share) + 2 * _noise(rows, columns, random, 40)


def _glow(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Light from a little above the middle, which falls off to the second colour."""
    return _between(colours, _smooth(_from_middle(rows, columns, y=0.42) / 1.15))


def _sweep(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """A sheet that is a floor in front and rises behind, lit from above."""
    down = (np.mgrid[:rows, :columns][0].astype(np.float32) / rows)[:, :, None]
    wall = _smooth(down / 0.66)
    floor = _smooth((down - 0.6) / 0.16)
    edges = 9 * _smooth(_from_middle(rows, columns, y=0.6) - 0.35)
    base = _between(colours, 0.75 * wall - 0.6 * floor)
    return np.asarray(base - edges, np.float32)


def _bloom(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Wide soft patches of the second and third colour."""
    out = _flat(rows, columns, colours[0])
    for number in range(5):
        y, x = random.uniform(-0.1, 1.1, 2)
        patch = 0.75 * _smooth(1 - _from_middle(rows, columns, y, x) / random.uniform(0.7, 1.2))
        out = out + patch * (colours[1 + number % 2] - out)
    return np.asarray(out, np.float32)


DRAWINGS: dict[BackdropKey, Draw] = {
    "paper": _paper,
    "laid": _laid,
    "plaster": _plaster,
    "limewash": _limewash,
    "linen": _linen,
    "felt": _felt,
    "stone": _stone,
    "sand": _sand,
    "speckle": _speckle,
    "glow": _glow,
    "sweep": _sweep,
    "bloom": _bloom,
}
