"""Backdrops like wood."""

import numpy as np

from lucky_margin.core.document.values import BackdropKey
from lucky_margin.core.grounds.stock.means import (
    Draw,
    Floats,
    Random,
    between,
    noise,
    places,
    smooth,
)


def oak(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """One wide board: rings cut lengthwise, and pores of the second colour."""
    return _grain(rows, columns, colours, random, _rings(rows, columns, random))


def planks(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Boards side by side, upright, each cut from another place."""
    _, along = places(rows, columns)
    wide = 150.0
    board = np.floor(along / wide)
    shades = random.uniform(-11, 11, 64).astype(np.float32)[board.astype(int) % 64]
    shifts = random.uniform(0, 40, 64).astype(np.float32)[board.astype(int) % 64]
    upright = np.swapaxes(_rings(columns, rows, random), 0, 1)
    wood = np.swapaxes(
        _grain(columns, rows, colours, random, np.swapaxes(upright + shifts, 0, 1)), 0, 1
    )
    gap = np.minimum(along % wide, wide - along % wide)
    edge = 60 * np.exp(-((gap / 2.2) ** 2)) + 9 * np.exp(-gap / 6)
    return np.asarray(wood + shades - edge, np.float32)


def tabletop(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A table of wood in front of a plain wall of the third colour, for something to stand on."""
    down, along = places(rows, columns)
    edge = 0.64 * rows
    wood = _grain(rows, columns, colours, random, _rings(rows, columns, random))
    depth = np.clip((down - edge) / max(1.0, rows - edge), 0, 1)
    table = wood * (0.8 + 0.24 * smooth(depth))
    fall = smooth(np.abs(along / columns - 0.42) * 1.3)
    wall = colours[2] * (1.05 - 0.16 * fall) + 1.8 * noise(rows, columns, random, 2)
    contact = 26 * np.exp(-np.clip(edge - down, 0, None) / 26)
    stands = smooth((down - edge + 1.5) / 3)
    behind = wall - contact
    return np.asarray(behind + (table - behind) * stands, np.float32)


def _rings(rows: int, columns: int, random: Random) -> Floats:
    """Which year ring each pixel is of, along a board that lies across."""
    down, along = places(rows, columns)
    middle = rows * (0.35 + 0.3 * random.random_sample())
    bow = 0.00004 * (along - columns * random.random_sample()) ** 2
    bent = down - middle + 26 * noise(rows, columns, random, 120, 520)
    return np.asarray(np.sqrt(bent**2 + 900) / 17 + bow * np.sign(bent), np.float32)


def _grain(rows: int, columns: int, colours: Floats, random: Random, rings: Floats) -> Floats:
    year = rings - np.floor(rings)
    late = np.exp(-(1 - year) * 5) * 0.75 + 0.12 * noise(rows, columns, random, 2, 90)
    pores = np.clip(noise(rows, columns, random, 0.9, 16) - 1.25, 0, 1)
    base = between(colours, 0.15 + 0.62 * late + 0.3 * pores)
    return np.asarray(base + 3.2 * noise(rows, columns, random, 40, 400), np.float32)


BOARDS: dict[BackdropKey, Draw] = {"oak": oak, "planks": planks, "tabletop": tabletop}
