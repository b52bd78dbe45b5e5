"""Where a text piece is written on a size: its letters and the places of its caret."""

import skia

from lucky_margin.core.document import Box, TextPiece, Value
from lucky_margin.core.errors import NotFound
from lucky_margin.core.pieces import LaidPiece, text_setting
from lucky_margin.core.scene import Scene
from lucky_margin.core.text import Upright, letters_of


class WrittenLetter(Value):
    """One letter (a grapheme cluster): the characters of the text from ``start`` up to ``end``,
    the number of its line, and its edges as x and y of an upper and a lower end, in output
    pixels. The leading edge is the right one where writing runs from the right."""

    start: int
    end: int
    line: int
    leading: Upright
    trailing: Upright


class WrittenEnd(Value):
    """The caret after a line's last letter: before the character ``at``, in output pixels."""

    at: int
    line: int
    edge: Upright


class Writing(Value):
    """The letters of a text, line by line in the order of typing, and the ends of its lines."""

    letters: tuple[WrittenLetter, ...]
    ends: tuple[WrittenEnd, ...]


def writing_of(scene: Scene, piece_id: str) -> Writing:
    """Where the text ``piece_id`` is written; of its copies the first one.

    Raises:
        NotFound: no text of this name is on the size.
    """
    laid = next((one for one in scene.pieces if one.piece.id == piece_id), None)
    if laid is None or not isinstance(laid.piece, TextPiece) or laid.text is None:
        raise NotFound("This text is not on this size; switch it on first.")
    piece, text = laid.piece, laid.text
    style, parts = text_setting(piece, scene.sources.font)
    letters, ends = letters_of(piece.text, style, text, parts)
    matrix = _to_output(laid, text.ink)
    return Writing(
        letters=tuple(
            WrittenLetter(
                start=letter.start,
                end=letter.end,
                line=letter.line,
                leading=_mapped(matrix, letter.leading),
                trailing=_mapped(matrix, letter.trailing),
            )
            for letter in letters
        ),
        ends=tuple(
            WrittenEnd(at=end.at, line=end.line, edge=_mapped(matrix, end.edge)) for end in ends
        ),
    )


def _to_output(laid: LaidPiece, ink: Box) -> skia.Matrix:
    """From pixels of the laid text to those of the output, as a copy is drawn."""
    copy = laid.copies[0]
    matrix = laid.to_output
    matrix.preTranslate(copy.x, copy.y)
    matrix.preRotate(copy.angle)
    matrix.preScale(copy.size, copy.size)
    matrix.preTranslate(-ink.left - ink.width / 2, -ink.top - ink.height / 2)
    return matrix


def _mapped(matrix: skia.Matrix, edge: Upright) -> Upright:
    x0, y0, x1, y1 = edge
    top, bottom = matrix.mapPoints([skia.Point(x0, y0), skia.Point(x1, y1)])
    return (
        round(top.x(), 2),
        round(top.y(), 2),
        round(bottom.x(), 2),
        round(bottom.y(), 2),
    )
