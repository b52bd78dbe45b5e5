"""Backdrops of paper."""

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
    smooth,
    softened,
)


def paper(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Smooth paper with a little grain."""
    grain = 2.4 * noise(rows, columns, random, 0.8) + 2.0 * noise(rows, columns, random, 5)
    return flat(rows, columns, colours[0]) + grain + 1.5 * noise(rows, columns, random, 90)


def laid(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Paper with the lines of its mould."""
    down, along = np.mgrid[:rows, :columns].astype(np.float32)
    ribs = 2.6 * np.sin(2 * np.pi * down / 9)
    chains = -5 * np.exp(-(((along % 150) - 75) ** 2) / 8)
    lines = (ribs + chains)[:, :, None] * (0.7 + 0.3 * noise(rows, columns, random, 30))
    return np.asarray(paper(rows, columns, colours, random) + lines, np.float32)


def kraft(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Brown wrapping paper: ribs across, and fibres of the second colour."""
    down, _ = places(rows, columns)
    ribs = 2.2 * np.sin(2 * np.pi * down / 13) * (0.8 + 0.4 * noise(rows, columns, random, 20))
    fibres = skia.Path()
    for _ in range(rows * columns // 4200):
        x, y = random.uniform(0, columns), random.uniform(0, rows)
        turn, length = random.uniform(0, 2 * np.pi), random.uniform(4, 20)
        fibres.moveTo(x, y)
        fibres.quadTo(
            x + length * np.cos(turn),
            y + length * np.sin(turn),
            x + 1.7 * length * np.cos(turn + 0.5),
            y + 1.7 * length * np.sin(turn + 0.5),
        )
    base = paper(rows, columns, colours, random) + ribs + 2.5 * noise(rows, columns, random, 1, 7)
    return inked(base, colours[1], 0.4 * covered(rows, columns, fibres, 1.1))


def silk_paper(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Soft handmade paper with long light threads of the second colour."""
    base = paper(rows, columns, colours, random) + 3.5 * noise(rows, columns, random, 34)
    for width, share in ((1.5, 0.95), (3.0, 0.8), (6.0, 0.5)):
        threads = skia.Path()
        for _ in range(rows * columns // 20000):
            x, y = random.uniform(-60, columns + 60), random.uniform(-60, rows + 60)
            bends = random.uniform(-150, 150, 6)
            threads.moveTo(x, y)
            threads.cubicTo(*(float(one) for one in bends + np.array([x, y] * 3)))
        base = inked(base, colours[1], share * covered(rows, columns, threads, width))
    return base


def creased(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Paper that was crumpled and smoothed out again: flat pieces, each lit a little otherwise."""
    down, along = places(rows, columns)
    height = np.zeros((rows, columns, 1), np.float32)
    uneven = 14 * noise(rows, columns, random, 140)
    for _ in range(18):
        turn = random.uniform(0, 2 * np.pi)
        x, y = random.uniform(0, columns), random.uniform(0, rows)
        across = (along - x) * np.cos(turn) + (down - y) * np.sin(turn)
        height += np.abs(across + uneven) * random.uniform(-0.5, 0.5)
    slope = np.gradient(height[:, :, 0])
    lit = (slope[0] + slope[1])[:, :, None]
    lit = lit / max(float(lit.std()), 1e-6)
    return np.asarray(paper(rows, columns, colours, random) + 5.5 * np.clip(lit, -3, 3), np.float32)


def torn(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A sheet of the first colour torn off across, over one of the second."""
    _, along = places(rows, columns)
    base = paper(rows, columns, colours[1:], random)
    top = paper(rows, columns, colours, random)
    down, _ = places(rows, columns)
    edge = 0.62 * rows + 0.06 * columns * (0.5 - along / columns)
    wave = 16 * noise(rows, columns, random, 400, 90) + 4 * noise(rows, columns, random, 400, 14)
    ragged = 2.2 * noise(rows, columns, random, 3)
    sheet = np.clip(edge + wave + ragged - down + 0.5, 0, 1)
    core = np.clip(edge + wave + ragged + 9 + 3 * noise(rows, columns, random, 30) - down, 0, 1)
    shadow = softened(core, 14)
    lit = inked(base, np.float32(0) * base, 0.28 * shadow)
    rim = inked(lit, np.array([252, 250, 245], np.float32), core)
    return np.asarray(rim + (top - rim) * smooth(sheet), np.float32)


PAPERS: dict[BackdropKey, Draw] = {
    "paper": paper,
    "laid": laid,
    "kraft": kraft,
    "silk-paper": silk_paper,
    "creased": creased,
    "torn": torn,
}
