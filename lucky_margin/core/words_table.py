"""Tables of words: a row for each photo, typed, pasted from a spreadsheet or read from CSV.

Cells are text and nothing else; what looks like a formula is never worked out.
"""

import csv
import io
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import PurePath

from lucky_margin.core.document import LONGEST_CELL, MOST_COLUMNS, NO_ROW, Row
from lucky_margin.core.errors import BadInput

MOST_ROWS = 10_000

PHOTO_COLUMNS = ("file", "photo", "picture")
"""Names of the column that says which photo a row is about."""

_ENCODINGS = ("utf-8-sig", "utf-16", "cp1252")
_DELIMITERS = "\t;,"


@dataclass(frozen=True)
class WordsTable:
    """Named columns, and rows of as many cells."""

    columns: tuple[str, ...] = ()
    rows: tuple[tuple[str, ...], ...] = ()

    def row(self, number: int) -> Row:
        """One row by the names of its columns."""
        return dict(zip(self.columns, self.rows[number], strict=True))

    def as_text(self) -> str:
        """The table as it is pasted from a spreadsheet: cells divided by tabs."""
        text = io.StringIO()
        csv.writer(text, "excel-tab", lineterminator="\n").writerows([self.columns, *self.rows])
        return text.getvalue()


def read_table(data: bytes | str) -> WordsTable:
    """The table in a file or in pasted text: its first line names the columns. Cells are divided by
    tabs, semicolons or commas, whichever the first line has most of.

    Raises:
        BadInput: it is no table, or too large.
    """
    text = (data if isinstance(data, str) else _decoded(data)).lstrip("\ufeff")
    lines = [line for line in _lines(text) if any(cell.strip() for cell in line)]
    if not lines:
        return WordsTable()
    columns = tuple(" ".join(name.split()) for name in lines[0])
    while columns and not columns[-1]:
        columns = columns[:-1]
    _check_columns(columns)
    if len(lines) - 1 > MOST_ROWS:
        raise BadInput(f"A table may have {MOST_ROWS:,} rows at most; divide it.")
    rows = tuple(_row(line, len(columns), number) for number, line in enumerate(lines[1:], 2))
    return WordsTable(columns, rows)


def read_cells(text: str) -> list[list[str]]:
    """The lines and cells of a block that was copied in a spreadsheet: divided by tabs, and those
    with several lines in quotes.

    Raises:
        BadInput: it can't be read so.
    """
    return [[cell.strip() for cell in line] for line in _split(text.rstrip("\r\n"), "\t")]


def rows_for(table: WordsTable, photos: Sequence[str]) -> list[Row]:
    """The row of each photo: that which names it, or else by their order.

    Raises:
        BadInput: a photo has no row or two, or there are not as many rows as photos.
    """
    if not table.columns:
        return [NO_ROW] * len(photos)
    naming = [n for n, name in enumerate(table.columns) if name.casefold() in PHOTO_COLUMNS]
    if naming:
        return _named_rows(table, naming[0], photos)
    if len(table.rows) != len(photos):
        raise BadInput(
            f"The table has {_counted(len(table.rows), 'row')} for "
            f"{_counted(len(photos), 'photo')}; add the missing ones, or a column “file” that "
            "names each photo."
        )
    return [table.row(number) for number in range(len(table.rows))]


def _named_rows(table: WordsTable, naming: int, photos: Sequence[str]) -> list[Row]:
    numbers: dict[str, int] = {}
    for number, cells in enumerate(table.rows):
        name = _stem(cells[naming])
        if name and numbers.setdefault(name, number) != number:
            raise BadInput(f"Two rows of the table name “{cells[naming]}”; leave one of them out.")
    lacking = [photo for photo in photos if _stem(photo) not in numbers]
    if lacking:
        more = f" and {len(lacking) - 1} more" if len(lacking) > 1 else ""
        raise BadInput(f"No row of the table names “{lacking[0]}”{more}; add it.")
    return [table.row(numbers[_stem(photo)]) for photo in photos]


def _stem(name: str) -> str:
    """A file's name as it is compared: without suffix, case, or the way its accents are coded."""
    return PurePath(unicodedata.normalize("NFC", name.strip()).casefold()).stem


def _decoded(data: bytes) -> str:
    for encoding in _ENCODINGS:
        if encoding == "utf-16" and data[:2] not in (b"\xff\xfe", b"\xfe\xff"):
            continue
        try:
            return data.decode(encoding)
        except UnicodeDecodeError:
            continue
    raise BadInput("This table is no text; save it as CSV in UTF-8.")


def _lines(text: str) -> list[list[str]]:
    first = text.lstrip().partition("\n")[0]
    return _split(text, max(_DELIMITERS, key=first.count))


def _split(text: str, delimiter: str) -> list[list[str]]:
    try:
        return list(csv.reader(io.StringIO(text, newline=""), delimiter=delimiter))
    except csv.Error as error:
        raise BadInput("This table can't be read; save it as CSV.") from error


def _check_columns(columns: tuple[str, ...]) -> None:
    if "" in columns:
        raise BadInput("A column of the table has no name; the first line names the columns.")
    if len(columns) > MOST_COLUMNS:
        raise BadInput(f"A table may have {MOST_COLUMNS} columns at most.")
    folded = [name.casefold() for name in columns]
    if twice := next((name for name in columns if folded.count(name.casefold()) > 1), None):
        raise BadInput(f"Two columns of the table are called “{twice}”; rename one.")


def _row(cells: list[str], count: int, number: int) -> tuple[str, ...]:
    """The cells of a line, as many as there are columns."""
    if any(cell.strip() for cell in cells[count:]):
        raise BadInput(f"Line {number} of the table has more cells than there are columns.")
    row = tuple(cell.strip() for cell in [*cells, *[""] * count][:count])
    if any(len(cell) > LONGEST_CELL for cell in row):
        raise BadInput(f"Line {number} of the table has a cell of over {LONGEST_CELL} letters.")
    return row


def _counted(number: int, noun: str) -> str:
    return f"{number} {noun}{'' if number == 1 else 's'}"
