"""The icons that ship with the application: line drawings on a square of 24 units.

They are a part of Lucide 1.62 (ISC, ``lucky_margin/icons/LICENSE``); curves are written with the
commands M, L, Q, C and Z alone, in absolute units.
"""

import json
import re
from dataclasses import dataclass
from functools import cache
from pathlib import Path

import skia

from lucky_margin.core.errors import NotFound
from lucky_margin.core.text.faces import shareable

FILE = Path(__file__).parents[1] / "icons" / "icons.json"

SIDE = 24.0
LINE = 2.0
"""Units of the line that icons are drawn with."""

_FINE = 50
"""How much larger icons may be drawn, for how finely their lines are followed."""


@dataclass(frozen=True)
class Icon:
    """``tags`` are words to find it by."""

    name: str
    tags: str
    path: str


@cache
def all_icons() -> dict[str, Icon]:
    """Every icon that ships, by its name."""
    known = json.loads(FILE.read_text())
    return {name: Icon(name, entry["tags"], entry["path"]) for name, entry in known.items()}


def icons_like(words: str) -> list[Icon]:
    """Those whose name or tags have every one of ``words`` at a word's beginning."""
    wanted = words.lower().split()
    return [icon for icon in all_icons().values() if all(_has(icon, word) for word in wanted)]


def _has(icon: Icon, word: str) -> bool:
    known = f"{icon.name.replace('-', ' ')} {icon.tags}".split()
    return any(one.startswith(word) for one in known)


def icon_outline(name: str, side: float) -> skia.Path:
    """What the lines cover of an icon that is drawn in a square of ``side``; the middle of what
    they cover is at 0, 0.

    Raises:
        NotFound: there is no such icon.
    """
    scale = side / SIDE
    path = skia.Path(_covered(name))
    ink = path.computeTightBounds()
    to_middle = skia.Matrix.Translate(-ink.centerX(), -ink.centerY())
    path.transform(to_middle.postScale(scale, scale))
    return path


@cache
def _covered(name: str) -> skia.Path:
    if name not in all_icons():
        raise NotFound(f"There is no icon “{name}”; pick one of the list.")
    pen = skia.Paint(
        Style=skia.Paint.kStroke_Style,
        StrokeWidth=LINE,
        StrokeCap=skia.Paint.kRound_Cap,
        StrokeJoin=skia.Paint.kRound_Join,
    )
    covered = skia.Path()
    pen.getFillPath(_drawn(all_icons()[name].path), covered, None, _FINE)
    return shareable(covered)


def _drawn(data: str) -> skia.Path:
    path = skia.Path()
    for command, numbers in re.findall(r"([MLQCZ])([^MLQCZ]*)", data):
        values = [float(number) for number in numbers.split()]
        match command:
            case "M":
                path.moveTo(*values)
            case "L":
                path.lineTo(*values)
            case "Q":
                path.quadTo(*values)
            case "C":
                path.cubicTo(*values)
            case _:
                path.close()
    return path
