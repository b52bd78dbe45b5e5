"""Laying text out: lines one under the other, letters as one outline, and its boxes."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import groupby
from typing import Literal

import skia

from lucky_margin.core.document.values import Box
from lucky_margin.core.text.faces import Face, glyph_outline, shareable
from lucky_margin.core.text.families import face_in
from lucky_margin.core.text.lines import broken
from lucky_margin.core.text.shaping import Item, Shaped, is_right_to_left, itemize, shape

LINE_HEIGHT = 1.2
"""Of the font size, from one baseline to the next, at a line spacing of 1."""

BEARINGS = 0.25
"""Ems: more than the room beside a line's first and last letters together."""

STRIKE = 0.07
"""Of an em: the line through letters that are struck out, at half the height of a small x."""

_LAID_KEPT = 128
"""Texts that stay laid out, since a picture, its checks and its proofs ask for the same."""

_AFTER = 1e-4
"""How much larger, in shares, than where a line breaks is surely past it."""

_TRIES = 24
_SPACE = 1e-3


@dataclass(frozen=True)
class TextStyle:
    """How a text is set; lengths in ems."""

    family: str | Face
    """The key of a shipped family, or the face of an own font."""
    weight: int = 400
    italic: bool = False
    align: Literal["left", "centre", "right"] = "left"
    case: Literal["typed", "capitals", "lower"] = "typed"
    letter_spacing: float = 0
    line_spacing: float = 1
    bend: float = 0
    """Degrees of the arc that the longest line lies on; over a circle, or below 0 under one."""


@dataclass(frozen=True)
class PartStyle:
    """Characters from ``start`` up to ``end`` that are set in another way; None keeps the
    text's."""

    start: int
    end: int
    weight: int | None = None
    italic: bool | None = None
    colour: str | None = None
    struck: bool = False


@dataclass(frozen=True, eq=False)
class LaidText:
    """A text at ``size`` pixels to an em, its first baseline beginning at 0, 0.

    ``ink`` is the upright box of its letters, which for a text without any is that of its lines;
    ``missing`` are characters that no face has; ``advance`` is the longest line's length;
    ``coloured`` is what of the outline has a colour of its own. No line is wider than ``wrap``
    pixels; None kept them as they were typed.
    """

    outline: skia.Path
    ink: Box
    size: float
    wrap: float | None
    lines: int
    x_height: float
    missing: str
    advance: float
    coloured: tuple[tuple[str, skia.Path], ...] = ()


def lay_text(
    text: str,
    style: TextStyle,
    size: float,
    wrap: float | None = None,
    parts: Sequence[PartStyle] = (),
) -> LaidText:
    """``text`` at ``size`` pixels to an em, in lines of at most ``wrap`` pixels; None keeps the
    lines as they were typed, as does a bend."""
    as_typed = _kept(text, style, size, None, tuple(parts))
    if wrap is None or (as_typed.advance <= wrap and not _ends_in_space(text)):
        return as_typed  # the same for every width that it fits
    return _kept(text, style, size, wrap, tuple(parts))


def _ends_in_space(text: str) -> bool:
    """Whether there are spaces that breaking lines would drop."""
    return any(line != line.rstrip() for line in text.split("\n"))


@dataclass(frozen=True)
class Line:
    """One line of a text as it is set.

    ``items`` are its characters, of which the last ones may be spaces that are not ``shaped``;
    ``typed`` says where each was typed, and ``end`` where the next line or the line break was.
    """

    shaped: Shaped
    items: Sequence[Item]
    typed: Sequence[int]
    end: int
    drawn: int
    """How many of the items are shaped."""
    rtl: bool
    way: "Way"


def lines_of(
    text: str, style: TextStyle, size: float, wrap: float | None, parts: Sequence[PartStyle] = ()
) -> list[Line]:
    """The lines of ``text`` at ``size`` pixels to an em, each at most ``wrap`` pixels wide."""
    widest = None if wrap is None or style.bend else max(wrap / size, _SPACE)
    cased, of_part, typed = _cased(text, style, parts)
    found: list[tuple[Shaped, tuple[list[Item], list[int], int, int], bool]] = []
    start = 0
    for paragraph in cased.split("\n"):
        stop = start + len(paragraph)
        items = _items(paragraph, style, of_part[start:stop])
        places = [*typed[start:stop], typed[stop] if stop < len(typed) else len(text)]
        broken_up = broken(items, style.letter_spacing, widest)
        firsts = [first for first, _ in broken_up] + [len(items)]
        for (first, last), following in zip(broken_up, firsts[1:], strict=True):
            shaped = shape(items[first:last], style.letter_spacing)
            rtl = is_right_to_left(paragraph)
            own = items[first:following], places[first:following], places[following], last - first
            found.append((shaped, own, rtl))
        start = stop + 1
    width = max(shaped.advance for shaped, *_ in found)
    lines = []
    for number, (shaped, own, rtl) in enumerate(found):
        left = _start(width - shaped.advance, style.align, rtl)
        way = Way(left, number * LINE_HEIGHT * style.line_spacing, size, width, style.bend)
        lines.append(Line(shaped, *own, rtl, way))
    return lines


def _lay(
    text: str, style: TextStyle, size: float, wrap: float | None, parts: tuple[PartStyle, ...]
) -> LaidText:
    lines = lines_of(text, style, size, wrap, parts)
    missing = dict.fromkeys(item.character for line in lines for item in line.items if item.missing)
    inks = _Inks()
    for line in lines:
        _add_line(inks, line.shaped, line.way)
    width = lines[0].way.width
    face = face_in(style.family, style.weight, style.italic)
    ink = _ink(inks.whole) or Box(
        left=0,
        top=-face.ascent * size,
        width=max(width * size, _SPACE),
        height=(face.ascent + face.descent) * size,
    )
    return LaidText(
        outline=shareable(inks.whole),
        ink=ink,
        size=size,
        wrap=wrap,
        lines=len(lines),
        x_height=face.x_height * size,
        missing="".join(missing),
        advance=width * size,
        coloured=tuple((colour, shareable(path)) for colour, path in inks.coloured.items()),
    )


_kept = lru_cache(_LAID_KEPT)(_lay)


def fitted_text(
    text: str,
    style: TextStyle,
    width: float,
    height: float,
    parts: Sequence[PartStyle] = (),
) -> LaidText:
    """``text`` at the largest size at which its ink fits ``width`` x ``height`` pixels without
    breaking a word, found by bisection to far below a pixel.

    Lines may be a little longer than the ink, by the room beside their first and last letters.
    """
    return _fitted(text, style, width, height, tuple(parts))


@lru_cache(_LAID_KEPT)
def _fitted(
    text: str, style: TextStyle, width: float, height: float, parts: tuple[PartStyle, ...]
) -> LaidText:
    most = min(4 * max(width, height), width / _widest_word(text, style))

    def laid(size: float) -> LaidText:
        return _lay(text, style, size, width + BEARINGS * size, parts)

    def fits(size: float) -> bool:
        ink = laid(size).ink
        return ink.width <= width and ink.height <= height

    size = _largest(fits, _SPACE, most)
    while True:
        # A little larger a line may be too long, and larger still break into two that fit again.
        lines = laid(size).lines

        def is_unbroken(tried: float, lines: int = lines) -> bool:
            return laid(tried).lines <= lines

        further = _largest(is_unbroken, size, most) * (1 + _AFTER)
        if further >= most or not fits(further):
            return laid(size)
        size = _largest(fits, further, most)


def _largest(holds: Callable[[float], bool], low: float, high: float) -> float:
    """The largest size up to ``high`` for which ``holds``, which it does at ``low``."""
    for _ in range(_TRIES):
        middle = (low + high) / 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low


def _widest_word(text: str, style: TextStyle) -> float:
    """In ems, so that no word is broken between letters."""
    words = {word for line in text.split("\n") for word in line.split()}
    return max((_lay(word, style, 1, None, ()).ink.width for word in words), default=_SPACE)


def _cased(
    text: str, style: TextStyle, parts: Sequence[PartStyle]
) -> tuple[str, list[PartStyle | None], list[int]]:
    """The text as it is set, without what no face can draw; the part that each of its characters
    is in, and where it was typed. Capitals may be more letters than were typed."""
    change = _CHANGES[style.case]
    whole = change(text)
    # A letter may change with its neighbours, as a sigma at a word's end does.
    letters = whole if len(whole) == len(text) else [change(letter) for letter in text]
    out: list[str] = []
    of_part: list[PartStyle | None] = []
    typed: list[int] = []
    for place, letter in enumerate(letters):
        part = next((one for one in parts if one.start <= place < one.end), None)
        shown = " " if letter == "\t" else letter
        if shown == "\n" or shown.isprintable() or ord(shown[0]) >= 0xA0:
            out.append(shown)
            of_part += [part] * len(shown)
            typed += [place] * len(shown)
    return "".join(out), of_part, typed


_CHANGES: dict[str, Callable[[str], str]] = {
    "typed": str,
    "capitals": str.upper,
    "lower": str.lower,
}


def _items(paragraph: str, style: TextStyle, of_part: Sequence[PartStyle | None]) -> list[Item]:
    """Faces and levels of a paragraph; those of a part are of its own weight and slant."""
    items = itemize(paragraph, style.family, style.weight, style.italic)
    for part, group in groupby(range(len(items)), key=lambda place: of_part[place]):
        if part is None:
            continue
        places = list(group)
        weight = style.weight if part.weight is None else part.weight
        italic = style.italic if part.italic is None else part.italic
        own = itemize(paragraph[places[0] : places[-1] + 1], style.family, weight, italic)
        for place, item in zip(places, own, strict=True):
            items[place] = replace(item, level=items[place].level, mark=part)
    return items


def _start(room: float, align: str, rtl: bool) -> float:
    if align == "centre":
        return room / 2
    return room if (align == "right") != rtl else 0.0


class _Inks:
    """Letters as outlines: all of them, and by colour those of parts that have one."""

    def __init__(self) -> None:
        self.whole = skia.Path()
        self.coloured: dict[str, skia.Path] = {}

    def add(self, path: skia.Path, matrix: skia.Matrix, part: PartStyle | None) -> None:
        self.whole.addPath(path, matrix)
        if part and part.colour:
            self.coloured.setdefault(part.colour, skia.Path()).addPath(path, matrix)


@dataclass(frozen=True)
class Way:
    """Where a line lies: from ``left`` on ``baseline``, in ems, of a text ``width`` ems wide."""

    left: float
    baseline: float
    size: float
    width: float
    bend: float

    def matrix(self, x: float, y: float, advance: float, scale: float) -> skia.Matrix:
        """From a glyph's own units to pixels; on an arc its middle touches the arc."""
        size = self.size
        if not self.bend:
            matrix = skia.Matrix.Translate((self.left + x) * size, (self.baseline + y) * size)
            return matrix.preScale(scale, scale)
        radius = self.width / math.radians(self.bend)
        half = advance / 2
        turn = (self.left + x + half - self.width / 2) / radius
        matrix = skia.Matrix.Translate(self.width / 2 * size, radius * size)
        matrix.preRotate(math.degrees(turn))
        matrix.preTranslate(-half * size, (self.baseline + y - radius) * size)
        return matrix.preScale(scale, scale)


def _add_line(inks: _Inks, line: Shaped, way: Way) -> None:
    for glyph in line.glyphs:
        scale = way.size / glyph.face.units
        matrix = way.matrix(glyph.x, glyph.y, glyph.advance, scale)
        inks.add(glyph_outline(glyph.face, glyph.number), matrix, glyph.part)
        if glyph.part and glyph.part.struck:
            units = glyph.face.units
            height = glyph.face.x_height * units / 2
            thick = STRIKE * units / 2
            bar = skia.Path()
            bar.addRect(
                skia.Rect.MakeLTRB(0, -height - thick, glyph.advance * units, -height + thick)
            )
            inks.add(bar, matrix, glyph.part)


def _ink(outline: skia.Path) -> Box | None:
    if outline.isEmpty():
        return None
    bounds = outline.computeTightBounds()
    if bounds.isEmpty():
        return None
    return Box(left=bounds.left(), top=bounds.top(), width=bounds.width(), height=bounds.height())
