"""From characters to shaped runs: levels of direction, a face for each, HarfBuzz."""

import re
from dataclasses import dataclass
from itertools import groupby
from typing import Any

import uharfbuzz as hb
from bidi import algorithm as bidi
from icu4py.breakers import CharacterBreaker

from lucky_margin.core.text.faces import Face
from lucky_margin.core.text.families import FALLBACKS, face_in

JOINED = ("noto-sans-arabic", "noto-sans-devanagari")
"""Faces of scripts whose letters touch: spacing between them would tear words apart."""

_IGNORED = {
    "\u200b", "\u200c", "\u200d", "\u200e", "\u200f", "\u00ad", "\ufe0e", "\ufe0f", "\u2060",
}  # fmt: skip
"""Characters that no face has to have: joiners, marks of direction, variation selectors."""


@dataclass(frozen=True)
class Glyph:
    """One glyph at its place from the start of its line, in ems."""

    face: Face
    number: int
    x: float
    y: float
    advance: float
    """How far it moves the pen, with the gap after it."""
    character: int
    """Index of the first character it stands for, in the text that was shaped."""
    part: Any = None
    """What its item was marked with."""


@dataclass(frozen=True)
class Shaped:
    """A stretch of text as one line; ``advance`` is its width in ems."""

    glyphs: tuple[Glyph, ...]
    advance: float


@dataclass(frozen=True)
class Item:
    """A character before shaping."""

    character: str
    face: Face
    level: int
    missing: bool
    mark: Any = None
    """Whatever its letters are to be known by; unlike marks are shaped apart."""


def itemize(text: str, family: str | Face, weight: int, italic: bool) -> list[Item]:
    """A face and a level of direction (odd is right to left) for each character.

    What neither the family nor a fallback has is taken from the family, as its box for missing
    glyphs.
    """
    faces = [face_in(one, weight, italic) for one in (family, *FALLBACKS)]
    items: list[Item] = []
    levels = iter(levels_of(text))
    for word in re.findall(r"\s+|\S+", text):
        # One face for a whole word if any has it, so that no single letter looks borrowed.
        whole = next((face for face in faces if all(_covers(face, c) for c in word)), None)
        for start, end in clusters(word):
            part = word[start:end]
            best = whole or max(faces, key=lambda face: sum(_covers(face, c) for c in part))
            items += [Item(c, best, next(levels), not _covers(best, c)) for c in part]
    return items


def _covers(face: Face, character: str) -> bool:
    return character in _IGNORED or character.isspace() or face.has(character)


def levels_of(text: str) -> list[int]:
    """Levels of direction by UAX 9; the first strong letter says the paragraph's own."""
    if not text:
        return []
    # Characters that Unicode has not assigned have no class; they go from the left.
    known = "".join(c if bidi.bidirectional(c) else "a" for c in text)
    storage = bidi.get_empty_storage()
    base = bidi.get_base_level(known)
    storage["base_level"], storage["base_dir"] = base, ("L", "R")[base]
    bidi.get_embedding_levels(known, storage)
    bidi.explicit_embed_and_overrides(storage)
    bidi.resolve_weak_types(storage)
    _resolve_brackets(storage["chars"], base)
    bidi.resolve_neutral_types(storage, False)
    bidi.resolve_implicit_levels(storage, False)
    found = [entry["level"] for entry in storage["chars"]]
    # Formatting marks are taken out on the way (rule X9); they go with the letter before them.
    levels: list[int] = []
    left = iter(found)
    for character in known:
        removed = bidi.bidirectional(character) in bidi.X9_REMOVED
        levels.append((levels[-1] if levels else base) if removed else next(left, base))
    return levels


_CLOSING = {"(": ")", "[": "]", "{": "}"}


def _resolve_brackets(entries: list[dict[str, Any]], base: int) -> None:
    """Rule N0, which the library lacks: both brackets of a pair go the way of what they hold,
    if that is the paragraph's; else the way of what is before them, if that is what they hold."""
    opened: list[tuple[int, str]] = []
    own = "LR"[base]
    for place, entry in enumerate(entries):
        character = entry["ch"]
        if character in _CLOSING:
            opened.append((place, _CLOSING[character]))
        elif character in _CLOSING.values():
            while opened and opened[-1][1] != character:
                opened.pop()
            if opened:
                start = opened.pop()[0]
                _resolve_pair(entries, start, place, own)


def _resolve_pair(entries: list[dict[str, Any]], start: int, end: int, own: str) -> None:
    inside = {_STRONG[e["type"]] for e in entries[start + 1 : end] if e["type"] in _STRONG}
    if not inside:
        return
    before = [_STRONG[e["type"]] for e in entries[:start] if e["type"] in _STRONG]
    other = "L" if own == "R" else "R"
    takes_other = own not in inside and before[-1:] == [other]
    entries[start]["type"] = entries[end]["type"] = other if takes_other else own


_STRONG = {"L": "L", "R": "R", "EN": "R", "AN": "R"}
"""What counts as strong for brackets; numbers go with the right."""


def is_right_to_left(text: str) -> bool:
    """Whether the first strong letter says so (UAX 9)."""
    return bool(text) and bidi.get_base_level(text) == 1


def clusters(text: str) -> list[tuple[int, int]]:
    """Grapheme clusters (UAX 29): what a reader takes for one letter."""
    places = code_points(text)
    return [(places[start], places[end]) for start, end in CharacterBreaker(text, "en").segments()]


def code_points(text: str) -> dict[int, int]:
    """Code points by UTF-16 offset, which ICU counts in."""
    places, offset = {}, 0
    for index, character in enumerate(text):
        places[offset] = index
        offset += 2 if ord(character) > 0xFFFF else 1
    places[offset] = len(text)
    return places


def shape(items: list[Item], spacing: float) -> Shaped:
    """One line of items, in visual order; ``spacing`` (ems) goes between grapheme clusters."""
    text = "".join(item.character for item in items)
    ends = {end for _, end in clusters(text)}
    runs = [list(run) for _, run in groupby(range(len(items)), key=lambda i: _alike(items[i]))]
    glyphs: list[Glyph] = []
    pen = last = 0.0
    for run in _in_visual_order(runs, [items[run[0]].level for run in runs]):
        last = 0.0 if items[run[0]].face.key in JOINED else spacing
        shaped, pen = _shape_run(items, run, text, pen, last, ends)
        glyphs += shaped
    # No gap goes after the last letter.
    return Shaped(tuple(glyphs), max(0.0, pen - last))


def _alike(item: Item) -> tuple[int, int, Any]:
    """Letters that agree in this are shaped together."""
    return item.level, id(item.face), item.mark


def _shape_run(
    items: list[Item], run: list[int], text: str, pen: float, gap: float, ends: set[int]
) -> tuple[list[Glyph], float]:
    face = items[run[0]].face
    buffer = hb.Buffer()
    buffer.add_str(text[run[0] : run[-1] + 1])
    buffer.guess_segment_properties()
    backwards = items[run[0]].level % 2 == 1
    buffer.direction = "rtl" if backwards else "ltr"
    hb.shape(face.font, buffer)
    glyphs = []
    infos, positions = buffer.glyph_infos, buffer.glyph_positions
    firsts = [run[0] + info.cluster for info in infos]
    for number, (info, place) in enumerate(zip(infos, positions, strict=True)):
        x, y = pen + place.x_offset / face.units, -place.y_offset / face.units
        advance = place.x_advance / face.units
        # The gap comes after the last glyph of what a reader takes for one letter.
        following = firsts[number + 1] if number + 1 < len(firsts) else None
        if following != firsts[number] and (backwards or following is None or following in ends):
            advance += gap
        glyphs.append(
            Glyph(face, info.codepoint, x, y, advance, firsts[number], items[run[0]].mark)
        )
        pen += advance
    return glyphs, pen


def _in_visual_order(runs: list[list[int]], levels: list[int]) -> list[list[int]]:
    """Rule L2: from the highest level down, turn round what is at it or above."""
    order = list(range(len(runs)))
    for level in range(max(levels, default=0), 0, -1):
        start = 0
        while start < len(order):
            if levels[order[start]] < level:
                start += 1
                continue
            end = start
            while end < len(order) and levels[order[end]] >= level:
                end += 1
            order[start:end] = reversed(order[start:end])
            start = end
    return [runs[place] for place in order]
