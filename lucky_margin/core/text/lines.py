"""Breaking text into lines, where Unicode (UAX 14, and ICU's dictionary for Thai) allows it."""

from icu4py.breakers import LineBreaker

from lucky_margin.core.text.shaping import Item, clusters, code_points, shape

NEAR = 0.25
"""In ems: more than kerning ever draws two letters together."""


def broken(items: list[Item], spacing: float, widest: float | None) -> list[tuple[int, int]]:
    """Where lines of at most ``widest`` ems (None: one line) begin and end in a paragraph's items.

    The widths are those of the whole paragraph, shaped once; a line that comes near ``widest`` is
    shaped alone, since its last letter was drawn towards the next. A word that is wider than a line
    is broken between letters; spaces at a line's end do not count and are dropped.
    """
    if widest is None or not items:
        return [(0, len(items))]
    text = "".join(item.character for item in items)
    widths = _widths(items, spacing)

    def is_too_wide(first: int, last: int) -> bool:
        width = sum(widths[first:last])
        if abs(width - widest) < NEAR:
            width = shape(items[first:last], spacing).advance
        return width > widest

    starts = [0]
    start = end = 0
    for stop in _words(text):
        seen = end + len(text[end:stop].rstrip())
        if end > start and is_too_wide(start, seen):
            starts.append(end)
            start = end
        # A word wider than a line of its own is broken between letters.
        for letter in _letters(text[start:seen], start):
            if end > start and is_too_wide(start, letter):
                starts.append(end)
                start = end
            end = letter
        end = stop
    ends = [*starts[1:], len(items)]
    return [
        (first, _without_spaces(items, first, end)) for first, end in zip(starts, ends, strict=True)
    ]


def _widths(items: list[Item], spacing: float) -> list[float]:
    """What each character adds to the width, in ems; a cluster's is that of its first one."""
    widths = [0.0] * len(items)
    for glyph in shape(items, spacing).glyphs:
        widths[glyph.character] += glyph.advance
    return widths


def _words(text: str) -> list[int]:
    """Where lines may end: never within a letter, where ICU would part a space from the mark on
    it."""
    places = code_points(text)
    letters = {end for _, end in clusters(text)}
    stops = (places[end] for _, end in LineBreaker(text, "en").segments())
    return [stop for stop in stops if stop in letters]


def _letters(word: str, start: int) -> list[int]:
    """Where the letters of a stretch that begins at ``start`` end."""
    return [start + end for _, end in clusters(word)]


def _without_spaces(items: list[Item], first: int, end: int) -> int:
    """Where a line ends without the spaces at its end."""
    while end > first and items[end - 1].character.isspace():
        end -= 1
    return end
