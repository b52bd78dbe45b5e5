"""Columns in words: ``{price}`` stands for what a table says of each photo."""

import re
from collections.abc import Iterable, Mapping
from typing import TypeVar

from lucky_margin.core.document.finish import Finish
from lucky_margin.core.document.pieces import BadgePiece, Piece, TextPart, TextPiece, Watermark
from lucky_margin.core.document.row import Row

_COLUMN = re.compile(r"\{([^{}\n]{1,60})\}")

Worded = TypeVar("Worded", BadgePiece, Watermark)


def columns_in(text: str) -> list[str]:
    """The columns that a text names, each once, in order."""
    return list(dict.fromkeys(found.strip() for found in _COLUMN.findall(text)))


def columns_of(pieces: Iterable[Piece] | None, watermark: Watermark | None) -> list[str]:
    """The columns that pieces and a watermark name, each once, in order."""
    texts = [text for piece in pieces or () if (text := getattr(piece, "text", ""))]
    texts += [watermark.text] if watermark else []
    return list(dict.fromkeys(name for text in texts for name in columns_in(text)))


def with_words(finish: Finish, row: Row) -> Finish:
    """``finish`` with its columns filled; its own name fills ``{name}`` unless the row does."""
    row = row_of(finish, row)
    pieces = filled_pieces(finish.pieces, row)
    watermark = filled_watermark(finish.watermark, row)
    return finish.model_copy(update={"pieces": pieces, "watermark": watermark})


def row_of(finish: Finish, row: Row) -> Row:
    """What fills the columns of a finish's words."""
    return {"name": finish.name} | row


def filled_pieces(pieces: Iterable[Piece], row: Row) -> tuple[Piece, ...]:
    """Pieces with their columns filled. A column that the row does not have, or has nothing in,
    stays as it is, so that nobody overlooks it."""
    cells = _cells(row)
    return tuple(_filled_piece(piece, cells) for piece in pieces)


def filled_watermark(watermark: Watermark, row: Row) -> Watermark:
    """The watermark with its columns filled, likewise."""
    return _with_text_filled(watermark, _cells(row))


def _cells(row: Row) -> dict[str, str]:
    """The cells that say something, by their columns' names in one case."""
    return {_folded(name): cell.strip() for name, cell in row.items() if cell.strip()}


def _folded(name: str) -> str:
    return " ".join(name.split()).casefold()


def _filled_piece(piece: Piece, cells: Mapping[str, str]) -> Piece:
    if isinstance(piece, BadgePiece):
        return _with_text_filled(piece, cells)
    if not isinstance(piece, TextPiece):
        return piece
    text, moved = _filled(piece.text, cells)
    parts = tuple(_moved(part, moved) for part in piece.parts)
    return piece.model_copy(update={"text": text, "parts": parts})


def _with_text_filled(worded: Worded, cells: Mapping[str, str]) -> Worded:
    return worded.model_copy(update={"text": _filled(worded.text, cells)[0]})


def _moved(part: TextPart, moved: list[int]) -> TextPart:
    last = len(moved) - 1
    start, end = moved[min(part.start, last)], moved[min(part.end, last)]
    return part.model_copy(update={"start": start, "end": end})


def _filled(text: str, cells: Mapping[str, str]) -> tuple[str, list[int]]:
    """The text with its columns filled, and where each place between its letters is now; a place
    inside a column is at the end of what fills it."""
    filled, moved, done = "", list[int](), 0
    for found in _COLUMN.finditer(text):
        cell = cells.get(_folded(found[1]))
        if cell is None:
            continue
        moved += range(len(filled), len(filled) + found.start() - done + 1)
        filled += text[done : found.start()] + cell
        moved += [len(filled)] * (len(found[0]) - 1)
        done = found.end()
    moved += range(len(filled), len(filled) + len(text) - done + 1)
    return filled + text[done:], moved
