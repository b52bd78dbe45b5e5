"""Backdrops with motifs of the seasons and of feasts, scattered on a plain ground."""

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
    lattice,
    placed,
    scattered,
    softened,
)


def snow(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Flakes of the second colour, some far and soft, some crystals of six arms."""
    base = flat(rows, columns, colours[0])
    far, near = skia.Path(), skia.Path()
    for x, y, chance in scattered(rows, columns, random, 46):
        far.addCircle(x, y, 2 + 5 * chance**3)
    for x, y, chance in scattered(rows, columns, random, 190):
        near.addPath(placed(_crystal(), x, y, 24 + 34 * chance, 60 * chance))
    base = inked(base, colours[1], 0.6 * softened(covered(rows, columns, far), 1.6))
    return inked(base, colours[1], covered(rows, columns, near, 3))


def _crystal() -> skia.Path:
    form = skia.Path()
    for number in range(6):
        arm = skia.Path()
        arm.moveTo(0, 0)
        arm.lineTo(1, 0)
        for at, reach in ((0.45, 0.25), (0.7, 0.18)):
            for side in (-1, 1):
                arm.moveTo(at, 0)
                arm.lineTo(at + reach * 0.7, side * reach)
        form.addPath(placed(arm, 0, 0, 1, 60 * number))
    return form


def petals(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Blossoms of five petals and single ones that fall."""
    petal = skia.Path()
    petal.moveTo(0, 0)
    petal.cubicTo(0.5, -0.55, 1.05, -0.35, 0.94, -0.06)
    petal.lineTo(0.86, 0)
    petal.lineTo(0.94, 0.06)
    petal.cubicTo(1.05, 0.35, 0.5, 0.55, 0, 0)
    single, blossoms, hearts = skia.Path(), skia.Path(), skia.Path()
    for x, y, chance in scattered(rows, columns, random, 120):
        if chance < 0.6:
            single.addPath(placed(petal, x, y, 22 + 24 * chance, 360 * chance * 7))
            continue
        for number in range(5):
            blossoms.addPath(placed(petal, x, y, 46 * chance, 72 * number + 360 * chance))
        hearts.addCircle(x, y, 5)
    base = flat(rows, columns, colours[0])
    base = inked(base, (colours[0] + colours[1]) / 2, covered(rows, columns, single))
    base = inked(base, colours[1], covered(rows, columns, blossoms))
    return inked(base, colours[2], covered(rows, columns, hearts))


def leaf_fall(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Leaves with a stalk and a rib, of the second and third colour."""
    leaf = skia.Path()
    leaf.moveTo(0, 0)
    leaf.cubicTo(0.25, -0.42, 0.7, -0.36, 1, 0)
    leaf.cubicTo(0.7, 0.36, 0.25, 0.42, 0, 0)
    rib = skia.Path()
    rib.moveTo(-0.28, 0.03)
    rib.quadTo(0.2, -0.03, 0.86, 0)
    leaves, ribs = (skia.Path(), skia.Path()), skia.Path()
    for number, (x, y, chance) in enumerate(scattered(rows, columns, random, 135)):
        at = (x, y, 60 + 50 * chance, float(random.uniform(0, 360)))
        leaves[number % 2].addPath(placed(leaf, *at))
        ribs.addPath(placed(rib, *at))
    base = flat(rows, columns, colours[0])
    for ink, form in zip(colours[1:], leaves, strict=True):
        base = inked(base, ink, covered(rows, columns, form))
    return inked(base, 0.75 * colours[0] + 0.25 * colours[1], covered(rows, columns, ribs, 2.5))


def hearts(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Hearts of the second and third colour."""
    heart = skia.Path()
    heart.moveTo(0, 0.9)
    heart.cubicTo(-1.3, 0, -0.8, -1, 0, -0.4)
    heart.cubicTo(0.8, -1, 1.3, 0, 0, 0.9)
    forms = skia.Path(), skia.Path()
    for number, (x, y, chance) in enumerate(scattered(rows, columns, random, 125)):
        forms[number % 2].addPath(placed(heart, x, y, 17 + 20 * chance, 50 * chance - 25))
    base = flat(rows, columns, colours[0])
    for ink, form in zip(colours[1:], forms, strict=True):
        base = inked(base, ink, covered(rows, columns, form))
    return base


def stars(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Five-pointed stars of the second colour and small dots of the third."""
    star = skia.Path()
    turns = np.arange(10) * np.pi / 5
    reach = np.where(np.arange(10) % 2, 0.42, 1.0)
    star.addPoly(
        [
            skia.Point(float(r * np.sin(turn)), float(-r * np.cos(turn)))
            for turn, r in zip(turns, reach, strict=True)
        ],
        True,
    )
    form, small = skia.Path(), skia.Path()
    for x, y, chance in scattered(rows, columns, random, 130):
        form.addPath(placed(star, x, y, 9 + 27 * chance**2, 72 * chance))
    for x, y, chance in scattered(rows, columns, random, 74):
        small.addCircle(x, y, 1.5 + 2.5 * chance)
    base = inked(flat(rows, columns, colours[0]), colours[2], covered(rows, columns, small))
    return inked(base, colours[1], covered(rows, columns, form))


def eggs(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Eggs in rows, plain, with a band, or dotted."""
    egg = skia.Path()
    egg.moveTo(0, -1)
    egg.cubicTo(0.62, -1, 0.8, 0.85, 0, 0.85)
    egg.cubicTo(-0.8, 0.85, -0.62, -1, 0, -1)
    forms, extras = (skia.Path(), skia.Path()), skia.Path()
    for number, (row, x, y) in enumerate(lattice(rows, columns, 150)):
        forms[row % 2].addPath(placed(egg, x, y, 50))
        if number % 3 == 0:
            for at in (-0.05, 0.2):
                extras.addRect(skia.Rect.MakeXYWH(x - 29, y + 50 * at, 58, 6))
        elif number % 3 == 1:
            for dx, dy in ((-12, -8), (11, -16), (2, 12), (-15, 20), (17, 12)):
                extras.addCircle(x + dx, y + dy, 4.5)
    base = flat(rows, columns, colours[0])
    for ink, form in zip(colours[1:], forms, strict=True):
        base = inked(base, ink, covered(rows, columns, form))
    return inked(base, colours[0], covered(rows, columns, extras))


def fir(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Little fir trees of three tiers, with stems of the third colour."""
    tree = skia.Path()
    for top, foot, half in ((-1.0, -0.3, 0.34), (-0.62, 0.15, 0.46), (-0.2, 0.66, 0.58)):
        corners = [(0, top), (half, foot), (-half, foot)]
        tree.addPoly([skia.Point(*corner) for corner in corners], True)
    trees, stems, flakes = skia.Path(), skia.Path(), skia.Path()
    for row, x, y in lattice(rows, columns, 160):
        size = 46 + 14 * (row % 3) * 0.5
        trees.addPath(placed(tree, x, y, size))
        stems.addRect(skia.Rect.MakeXYWH(x - 5, y + 0.6 * size, 10, 0.36 * size))
    for x, y, chance in scattered(rows, columns, random, 80):
        flakes.addCircle(x, y, 2 + 2 * chance)
    base = flat(rows, columns, colours[0])
    base = inked(base, 0.5 * (colours[0] + 255), covered(rows, columns, flakes))
    base = inked(base, colours[2], covered(rows, columns, stems))
    return inked(base, colours[1], covered(rows, columns, trees))


def sparks(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Fireworks: bursts of thin rays in the second and third colour on a dark ground."""
    base = flat(rows, columns, colours[0])
    bursts = skia.Path(), skia.Path()
    for number, (x, y, chance) in enumerate(scattered(rows, columns, random, 300)):
        arms, reach = int(16 + 12 * chance), 60 + 70 * chance
        for turn in np.arange(arms) * 2 * np.pi / arms:
            cos, sin = float(np.cos(turn)), float(np.sin(turn))
            long = reach * float(random.uniform(0.75, 1))
            bursts[number % 2].moveTo(x + 0.3 * reach * cos, y + 0.3 * reach * sin)
            bursts[number % 2].lineTo(x + long * cos, y + long * sin)
            bursts[number % 2].addCircle(x + 1.1 * long * cos, y + 1.1 * long * sin, 0.6)
    for ink, form in zip(colours[1:], bursts, strict=True):
        lines = covered(rows, columns, form, 2.6)
        base = inked(base, ink, np.clip(lines + 0.5 * softened(lines, 9), 0, 1))
    return base


SEASONS: dict[BackdropKey, Draw] = {
    "snow": snow,
    "petals": petals,
    "leaf-fall": leaf_fall,
    "hearts": hearts,
    "stars": stars,
    "eggs": eggs,
    "fir": fir,
    "sparks": sparks,
}
