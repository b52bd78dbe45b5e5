"""Breaking text into lines, where Unicode (UAX 14, and ICU's dictionary for Thai) allows it."""

from icu4py.breakers import LineBreaker

from lucky_margin.core.text.shaping import Item, clusters, code_points, shape


def broken(items: list[Item], spacing: float, widest: float | None) -> list[list[Item]]:
    """One paragraph's items as lines of at most ``widest`` ems (None: one line).

    The widths are those of the whole paragraph, shaped once. A word that is wider than a line is
    broken between letters; spaces at a line's end do not count and are dropped.
    """
    if widest is None or not items:
        return [items]
    text = "".join(item.character for item in items)
    widths = _widths(items, spacing)
    lines: list[list[Item]] = []
    start = end = 0
    for stop in _words(text):
        seen = end + len(text[end:stop].rstrip())
        if sum(widths[start:seen]) > widest and end > start:
            lines.append(items[start:end])
            start = end
        # A word wider than a line of its own is broken between letters.
        for letter in _letters(text[start:seen], start):
            if sum(widths[start:letter]) > widest and end > start:
                lines.append(items[start:end])
                start = end
            end = letter
        end = stop
    lines.append(items[start:])
    return [_without_spaces(line) for line in lines]


def _widths(items: list[Item], spacing: float) -> list[float]:
    """What each character adds to the width, in ems; a cluster's is that of its first one."""
    widths = [0.0] * len(items)
    for glyph in shape(items, spacing).glyphs:
        widths[glyph.character] += glyph.advance
    return widths


def _words(text: str) -> list[int]:
    """Where lines may end."""
    places = code_points(text)
    return [places[end] for _, end in LineBreaker(text, "en").segments()]


def _letters(word: str, start: int) -> list[int]:
    """Where the letters of a stretch that begins at ``start`` end."""
    return [start + end for _, end in clusters(word)]


def _without_spaces(line: list[Item]) -> list[Item]:
    end = len(line)
    while end and line[end - 1].character.isspace():
        end -= 1
    return line[:end]
