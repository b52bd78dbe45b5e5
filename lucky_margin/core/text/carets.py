"""Where the caret stands in a text that is laid out, and where each of its letters is.

A letter is a grapheme cluster (UAX 29). Places are told by where they were typed: 0 is before the
first character of the text, its length is after the last one.
"""

from bisect import bisect
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby

import skia

from lucky_margin.core.text.families import face_in
from lucky_margin.core.text.layout import LaidText, Line, PartStyle, TextStyle, lines_of
from lucky_margin.core.text.shaping import clusters, shape

Upright = tuple[float, float, float, float]
"""A line across a line of text: x and y of its upper end, then of its lower one."""


@dataclass(frozen=True)
class Letter:
    """One letter in a text: where it was typed (``start`` up to ``end``), the number of its line,
    and its two edges in pixels of the laid text. Its leading edge is the right one in text that
    runs from the right."""

    start: int
    end: int
    line: int
    leading: Upright
    trailing: Upright


@dataclass(frozen=True)
class LineEnd:
    """Where the caret stands after the last letter of a line, before what breaks it."""

    at: int
    line: int
    edge: Upright


def letters_of(
    text: str, style: TextStyle, laid: LaidText, parts: Sequence[PartStyle] = ()
) -> tuple[list[Letter], list[LineEnd]]:
    """The letters of ``text`` as it was ``laid``, line by line in the order of typing, and the
    ends of its lines."""
    face = face_in(style.family, style.weight, style.italic)
    height = face.ascent, face.descent
    letters: list[Letter] = []
    ends: list[LineEnd] = []
    for number, line in enumerate(lines_of(text, style, laid.size, laid.wrap, parts)):
        edge, begun = 0.0, None
        for first, last, leading, trailing in _edges(line, style.letter_spacing):
            start = line.typed[first]
            end = line.typed[last] if last < len(line.typed) else line.end
            begun = leading if begun is None else begun
            if end > start:  # else one typed letter became several
                edges = (_upright(line, x, height) for x in (begun, trailing))
                letters.append(Letter(start, end, number, *edges))
                begun = None
            edge = trailing
        ends.append(LineEnd(line.end, number, _upright(line, edge, height)))
    return letters, ends


def _edges(line: Line, spacing: float) -> list[tuple[int, int, float, float]]:
    """First and last item of each letter of a line, its leading and its trailing edge in ems."""
    spans = _spans(line, spacing)
    firsts = sorted(spans)
    letters = clusters("".join(item.character for item in line.items))
    found = []
    # A ligature is one glyph for several letters, which share its width evenly.
    for glyph, group in groupby(letters, key=lambda letter: bisect(firsts, letter[0]) - 1):
        sharing = list(group)
        low, high = spans[firsts[max(glyph, 0)]]
        share = (high - low) / len(sharing)
        for place, (start, end) in enumerate(sharing):
            if line.items[start].level % 2:
                found.append((start, end, high - place * share, high - (place + 1) * share))
            else:
                found.append((start, end, low + place * share, low + (place + 1) * share))
    return found


def _spans(line: Line, spacing: float) -> dict[int, tuple[float, float]]:
    """From where to where, in ems, the glyphs of each item lie that has any; spaces that are not
    drawn lie beyond the line's end."""
    ended = shape(list(line.items[line.drawn :]), spacing)
    runs = [(line.shaped.glyphs, 0, 0.0)]
    beyond = -ended.advance if line.rtl else line.shaped.advance
    runs.append((ended.glyphs, line.drawn, beyond))
    spans: dict[int, tuple[float, float]] = {}
    for glyphs, first, pen in runs:
        for glyph in glyphs:
            low, _ = spans.get(first + glyph.character, (pen, pen))
            pen += glyph.advance
            spans[first + glyph.character] = (low, pen)
    return spans


def _upright(line: Line, x: float, height: tuple[float, float]) -> Upright:
    ascent, descent = height
    matrix = line.way.matrix(x, 0, 0, line.way.size)
    top, bottom = matrix.mapPoints([skia.Point(0, -ascent), skia.Point(0, descent)])
    return top.x(), top.y(), bottom.x(), bottom.y()
