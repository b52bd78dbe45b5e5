"""Plain backdrops, and how light falls on one."""

import numpy as np
import skia

from lucky_margin.core.document.values import BackdropKey
from lucky_margin.core.grounds.stock.means import (
    Draw,
    Floats,
    Random,
    between,
    covered,
    flat,
    from_middle,
    inked,
    noise,
    placed,
    places,
    scattered,
    smooth,
    softened,
)


def glow(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Light from a little above the middle, which falls off to the second colour."""
    return between(colours, smooth(from_middle(rows, columns, y=0.42) / 1.15))


def sweep(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """A sheet that is a floor in front and rises behind, lit from above."""
    down = (np.mgrid[:rows, :columns][0].astype(np.float32) / rows)[:, :, None]
    wall = smooth(down / 0.66)
    floor = smooth((down - 0.6) / 0.16)
    edges = 9 * smooth(from_middle(rows, columns, y=0.6) - 0.35)
    base = between(colours, 0.75 * wall - 0.6 * floor)
    return np.asarray(base - edges, np.float32)


def bloom(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Wide soft patches of the second and third colour."""
    out = flat(rows, columns, colours[0])
    for number in range(5):
        y, x = random.uniform(-0.1, 1.1, 2)
        patch = 0.75 * smooth(1 - from_middle(rows, columns, y, x) / random.uniform(0.7, 1.2))
        out = out + patch * (colours[1 + number % 2] - out)
    return np.asarray(out, np.float32)


def plain(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """One colour."""
    return flat(rows, columns, colours[0])


def horizon(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """A wall of the first colour on a floor of the second, as of two sheets of card."""
    down = places(rows, columns)[0]
    edge = 0.66 * rows
    wall = colours[0] - 12 * np.exp(-np.clip(edge - down, 0, None) / 40)
    floor = colours[1] - 8 * smooth(1 - (down - edge) / (0.2 * rows))
    share = np.clip(down - edge + 0.5, 0, 1)
    return np.asarray(wall + (floor - wall) * share + np.zeros((rows, columns, 3)), np.float32)


def fade(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """From the first colour above to the second below."""
    down = places(rows, columns)[0]
    share = np.asarray(down / rows, np.float32)
    return between(colours, share) + np.zeros((rows, columns, 3), np.float32)


def corner(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """From the first colour at the upper left to the second at the lower right."""
    down, along = places(rows, columns)
    return between(colours, smooth(0.5 * (down / rows + along / columns)))


def dusk(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Three colours one above the other, each going over into the next."""
    down = places(rows, columns)[0]
    above = between(colours, smooth(down / rows / 0.55))
    below = smooth((down / rows - 0.45) / 0.55)
    return inked(above, colours[2], below) + np.zeros((rows, columns, 3), np.float32)


def halo(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """A soft ring of the second colour about the middle."""
    away = from_middle(rows, columns) * max(rows, columns) / min(rows, columns)
    ring = np.exp(-(((away - 0.72) / 0.2) ** 2))
    return between(colours, ring)


def bokeh(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Lights far out of focus, of the second and third colour; smaller ones are sharper."""
    edge = smooth(0.8 * from_middle(rows, columns))
    base = inked(flat(rows, columns, colours[0]), 0.6 * colours[0], edge)
    discs = [(skia.Path(), colours[1 + number % 2], number) for number in range(6)]
    for x, y, chance in scattered(rows, columns, random, 165):
        number = 2 * min(2, int(3 * chance)) + int(random.randint(0, 2))
        discs[number][0].addCircle(x, y, 18 + 62 * chance)
    for form, ink, number in discs:
        soft = softened(covered(rows, columns, form), 1.5 + number)
        base = np.asarray(base + (0.44 - 0.05 * number) * soft * (255 - base) * ink / 255)
    return base


def window(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """The light of a window with panes on a wall, leaning."""
    panes = skia.Path()
    wide, high, bar = 0.2 * columns, 0.24 * rows, 0.02 * min(rows, columns)
    left, top = 0.34 * columns, 0.1 * rows
    for column in range(2):
        for row in range(3):
            panes.addRect(
                skia.Rect.MakeXYWH(
                    left + column * (wide + bar), top + row * (high + bar), wide, high
                )
            )
    panes.transform(skia.Matrix().setSkew(-0.32, 0.1, left, top))
    light = softened(covered(rows, columns, panes), 0.007 * min(rows, columns))
    wall = flat(rows, columns, colours[0]) + 1.8 * noise(rows, columns, random, 1.5)
    wall = wall + 2.5 * noise(rows, columns, random, 70)
    return np.asarray(inked(0.83 * wall, colours[1], 0.85 * light), np.float32)


def foliage(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """The shadow of a twig on a sunlit wall."""
    twigs, leaves = skia.Path(), skia.Path()
    leaf = skia.Path()
    leaf.moveTo(0, 0)
    leaf.cubicTo(0.35, -0.3, 0.75, -0.2, 1, 0)
    leaf.cubicTo(0.75, 0.2, 0.35, 0.3, 0, 0)
    reach = 0.9 * max(rows, columns)
    for turn in (0.5, 0.85, 1.2):
        twigs.moveTo(0, 0)
        for step in range(1, 24):
            away, bent = reach * step / 24, turn + 0.012 * step
            x, y = away * np.cos(bent), away * np.sin(bent)
            twigs.lineTo(float(x), float(y))
            for side in (-1, 1):
                degrees = np.degrees(bent) + side * random.uniform(32, 66)
                size = random.uniform(0.07, 0.12) * reach
                leaves.addPath(placed(leaf, float(x), float(y), float(size), float(degrees)))
    near = softened(covered(rows, columns, leaves), 5)
    shade = np.maximum(near, softened(covered(rows, columns, twigs, 7), 4))
    wall = flat(rows, columns, colours[0]) + 2 * noise(rows, columns, random, 2)
    sun = inked(wall, colours[1], 0.5 * smooth(1 - from_middle(rows, columns, 0.6, 0.6)))
    return np.asarray(sun * (1 - 0.3 * shade), np.float32)


def beam(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A broad stripe of light across a wall."""
    down, along = places(rows, columns)
    short = min(rows, columns)
    across = (along - 0.5 * columns + 0.55 * (down - 0.5 * rows)) / short
    light = smooth((across + 0.34) / 0.05) * smooth((0.3 - across) / 0.09)
    wall = flat(rows, columns, colours[0]) + 1.6 * noise(rows, columns, random, 2)
    return np.asarray(inked(0.86 * wall, colours[1], 0.8 * light), np.float32)


def spot(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A round light on a dark wall, brightest a little above the middle."""
    away = from_middle(rows, columns, 0.45) * np.float32(max(rows, columns) / min(rows, columns))
    light = 0.8 * smooth((0.78 - away) / 0.5) + 0.2 * smooth(1.3 - away)
    wall = flat(rows, columns, colours[0]) + 1.6 * noise(rows, columns, random, 2)
    return inked(wall, colours[1], light)


LIGHTS: dict[BackdropKey, Draw] = {
    "glow": glow,
    "sweep": sweep,
    "bloom": bloom,
    "plain": plain,
    "horizon": horizon,
    "fade": fade,
    "corner": corner,
    "dusk": dusk,
    "halo": halo,
    "bokeh": bokeh,
    "window": window,
    "foliage": foliage,
    "beam": beam,
    "spot": spot,
}
