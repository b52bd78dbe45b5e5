"""Backdrops of cloth."""

import numpy as np
import skia

from lucky_margin.core.document.values import BackdropKey
from lucky_margin.core.grounds.stock.means import (
    Draw,
    Floats,
    Random,
    covered,
    flat,
    inked,
    noise,
    places,
    softened,
)


def linen(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Fine cloth with uneven threads."""
    down, along = np.mgrid[:rows, :columns].astype(np.float32)
    weave = np.sin(np.pi * down / 2.5) * np.sin(np.pi * along / 2.5)
    threads = noise(rows, columns, random, 1.2, 60) + noise(rows, columns, random, 60, 1.2)
    cloth = 4.5 * threads + 5 * weave[:, :, None] + 1.5 * noise(rows, columns, random, 0.7)
    return np.asarray(flat(rows, columns, colours[0]) + cloth, np.float32)


def felt(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Pressed wool: short fibres in all directions."""
    fibres = sum(
        noise(rows, columns, random, down, across)
        for down, across in ((1, 9), (9, 1), (3, 3), (1.5, 5))
    )
    return np.asarray(flat(rows, columns, colours[0]) + 3.2 * fibres, np.float32)


def canvas(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Coarse cloth: threads over and under each other."""
    down, along = places(rows, columns)
    side = 9.0
    over = (np.floor(down / side) + np.floor(along / side)) % 2
    round_across = np.sin(np.pi * (down % side) / side)
    round_down = np.sin(np.pi * (along % side) / side)
    lit = np.where(over > 0, round_across, round_down) - 0.62
    uneven = 3.4 * (noise(rows, columns, random, 4, 90) + noise(rows, columns, random, 90, 4))
    cloth = 15 * lit + uneven + 1.6 * noise(rows, columns, random, 0.8)
    return np.asarray(flat(rows, columns, colours[0]) + cloth, np.float32)


def velvet(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Heavy cloth that hangs in soft folds, bright where the pile turns to the light."""
    down, along = places(rows, columns)
    bent = along + 46 * noise(rows, columns, random, 500, 220) + 0.04 * down
    fold = 0.5 + 0.5 * np.sin(2 * np.pi * bent / 190 + 0.9 * np.sin(2 * np.pi * bent / 437))
    light = 0.62 + 0.5 * fold**2 + 0.16 * fold**9
    pile = 1.6 * noise(rows, columns, random, 1.1) + 2.2 * noise(rows, columns, random, 6)
    return np.asarray(colours[0] * light + pile, np.float32)


def knit(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A stocking stitch: pairs of leaning loops, row on row."""
    wide, high = 34.0, 26.0
    left, right = skia.Path(), skia.Path()
    for row in range(-1, int(rows / high) + 2):
        for column in range(-1, int(columns / wide) + 2):
            x, y = column * wide, row * high
            left.addPath(_loop(x + 0.27 * wide, y, 24))
            right.addPath(_loop(x + 0.73 * wide, y, -24))
    left_share, right_share = (covered(rows, columns, one) for one in (left, right))
    base = flat(rows, columns, 0.62 * colours[0])
    yarn = np.clip(left_share + right_share, 0, 1)
    light = 0.9 + 0.1 * softened(yarn, 5)
    lit = inked(base, colours[0], yarn * light)
    lit -= 7 * right_share * (1 - left_share)
    hairs = 3.2 * noise(rows, columns, random, 5, 1.2) + 2.4 * noise(rows, columns, random, 50)
    return np.asarray(lit + hairs, np.float32)


def _loop(x: float, y: float, degrees: float) -> skia.Path:
    half = skia.Path()
    half.addOval(skia.Rect.MakeLTRB(-8.6, -18, 8.6, 18))
    matrix = skia.Matrix().setRotate(-degrees)
    matrix.postTranslate(x, y)
    turned = skia.Path()
    half.transform(matrix, turned)
    return turned


def gingham(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A woven check: the second colour where both threads have it, half of it where one has."""
    down, along = places(rows, columns)
    side = 50.0
    stripes = [_stripe(at, side) for at in (down, along)]
    share = 0.5 * (stripes[0] + stripes[1])
    twill = 0.06 * np.sin(2 * np.pi * (down + along) / 7)
    base = flat(rows, columns, colours[0])
    cloth = inked(base, colours[1], np.clip(share * (1 + twill), 0, 1))
    return np.asarray(cloth + _threads(rows, columns, random), np.float32)


def ticking(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Upright stripes of the second colour, a broad one between two narrow ones."""
    _, along = places(rows, columns)
    at = along % 120.0
    share = np.zeros_like(at)
    for start, end in ((20, 26), (36, 64), (74, 80)):
        share = np.maximum(share, np.clip(at - start + 0.5, 0, 1) * np.clip(end - at + 0.5, 0, 1))
    base = flat(rows, columns, colours[0])
    uneven = np.clip(0.9 + 0.07 * noise(rows, columns, random, 3), 0, 1)
    cloth = inked(base, colours[1], share * uneven)
    return np.asarray(cloth + _threads(rows, columns, random), np.float32)


def _stripe(at: Floats, side: float) -> Floats:
    """1 in every other stripe of this width, with smooth edges."""
    place = at % (2 * side)
    return np.asarray(np.clip(place + 0.5, 0, 1) * np.clip(side - place + 0.5, 0, 1), np.float32)


def _threads(rows: int, columns: int, random: Random) -> Floats:
    threads = noise(rows, columns, random, 1.2, 50) + noise(rows, columns, random, 50, 1.2)
    return np.asarray(2.6 * threads + 1.4 * noise(rows, columns, random, 0.8), np.float32)


CLOTHS: dict[BackdropKey, Draw] = {
    "linen": linen,
    "felt": felt,
    "canvas": canvas,
    "velvet": velvet,
    "knit": knit,
    "gingham": gingham,
    "ticking": ticking,
}
