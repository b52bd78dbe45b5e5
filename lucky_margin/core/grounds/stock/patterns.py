"""Backdrops with a pattern of plain forms."""

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
    places,
)


def dots(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Round dots of the second colour."""
    form = skia.Path()
    for _row, x, y in lattice(rows, columns, 80):
        form.addCircle(x, y, 16)
    return _with(rows, columns, colours, form)


def checks(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Squares of the first and second colour in turn."""
    form = skia.Path()
    for row, x, y in lattice(rows, columns, 100, 0):
        if (row + round(x / 100)) % 2:
            form.addRect(skia.Rect.MakeXYWH(x - 25, y - 50, 100, 100))
    return _with(rows, columns, colours, form)


def stripes(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Slanting stripes, broad ones of the second colour and narrow ones of the third."""
    down, along = places(rows, columns)
    at = (down + along) / np.float32(np.sqrt(2)) % 120
    base = flat(rows, columns, colours[0])
    for number, start, end in ((1, 20, 60), (2, 78, 88)):
        share = np.clip(at - start + 0.5, 0, 1) * np.clip(end - at + 0.5, 0, 1)
        base = inked(base, colours[number], share)
    return base


def waves(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Lines of the second colour that swing up and down."""
    form = skia.Path()
    for row in range(-1, int(rows / 48) + 2):
        y = 48.0 * row
        form.moveTo(-80, y)
        for x in range(-80, columns + 160, 80):
            form.quadTo(x + 20, y - 26, x + 40, y)
            form.quadTo(x + 60, y + 26, x + 80, y)
    return _with(rows, columns, colours, form, 7)


def triangles(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Triangles in shades between the three colours."""
    wide, high = 150.0, 130.0
    base = flat(rows, columns, colours[0])
    shades = [skia.Path() for _ in range(5)]
    for row in range(-1, int(rows / high) + 1):
        for column in range(-1, int(2 * columns / wide) + 2):
            left, top = column * wide / 2 - (row % 2) * wide / 2, row * high
            peak, foot = (top, top + high) if column % 2 else (top + high, top)
            corners = [(left, foot), (left + wide, foot), (left + wide / 2, peak)]
            points = [skia.Point(*corner) for corner in corners]
            shades[int(random.randint(0, 5))].addPoly(points, True)
    mixes = [(0.85, 0.15, 0), (0.5, 0.5, 0), (0.2, 0.6, 0.2), (0.4, 0.2, 0.4), (0.2, 0.1, 0.7)]
    for mix, form in zip(mixes, shades, strict=True):
        base = inked(base, np.array(mix, np.float32) @ colours, covered(rows, columns, form))
    return base


def arches(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Arches within arches, in rows that overlap like scales."""
    radius = 75.0
    down, along = places(rows, columns)
    base = flat(rows, columns, colours[0])
    for lower in range(-1, 2):  # the rows of circles that reach a pixel, the lowest in front
        row = np.floor(down / radius) + lower
        x = (along + (row % 2) * radius) % (2 * radius) - radius
        away = np.hypot(x, down - row * radius)
        rings = base
        for share, ink in ((1.0, 0), (0.94, 1), (0.74, 0), (0.64, 2), (0.42, 0), (0.32, 1)):
            within = np.clip(share * radius - away + 0.5, 0, 1)
            rings = inked(rings, colours[ink], within)
        base = rings
    return base


def rays(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Rays of the second colour from a place below the middle."""
    form = skia.Path()
    x, y, reach = columns / 2, 0.62 * rows, float(rows + columns)
    for turn in np.arange(0, 2 * np.pi, np.pi / 12):
        form.moveTo(x, y)
        for edge in (turn - np.pi / 48, turn + np.pi / 48):
            form.lineTo(float(x + reach * np.sin(edge)), float(y - reach * np.cos(edge)))
        form.close()
    return _with(rows, columns, colours, form)


def lozenges(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Squares on their corners, with a thin line of the third colour across them."""
    form, lines = skia.Path(), skia.Path()
    for row, x, y in lattice(rows, columns, 140, 0):
        if row % 2:
            continue
        for middle in (y - 70, y + 70):
            across = x if middle < y else x + 70
            corners = [(across, middle - 140), (across + 70, middle), (across, middle + 140)]
            points = [skia.Point(*corner) for corner in [*corners, (across - 70, middle)]]
            if middle < y:
                form.addPoly(points, True)
            lines.addPoly(points, True)
    base = _with(rows, columns, colours, form)
    shift = skia.Path()
    lines.transform(skia.Matrix().setTranslate(35, 0), shift)
    return inked(base, colours[2], 0.8 * covered(rows, columns, shift, 2.5))


def blocks(rows: int, columns: int, colours: Floats, _: Random) -> Floats:
    """Three large fields: a half circle and a quarter circle on a ground."""
    short = min(rows, columns)
    base = flat(rows, columns, colours[0])
    low, high = skia.Path(), skia.Path()
    low.addCircle(0.78 * columns, rows, 0.52 * short)
    high.addCircle(0, 0, 0.44 * short)
    base = inked(base, colours[1], covered(rows, columns, low))
    return inked(base, colours[2], covered(rows, columns, high))


def _with(
    rows: int, columns: int, colours: Floats, form: skia.Path, width: float | None = None
) -> Floats:
    """A form of the second colour on the first."""
    base = flat(rows, columns, colours[0])
    return inked(base, colours[1], covered(rows, columns, form, width))


PATTERNS: dict[BackdropKey, Draw] = {
    "dots": dots,
    "checks": checks,
    "stripes": stripes,
    "waves": waves,
    "triangles": triangles,
    "arches": arches,
    "rays": rays,
    "lozenges": lozenges,
    "blocks": blocks,
}
