"""Archives of several files, and the list of what they show."""

import csv
import errno
import io
import zipfile
import zlib
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from typing import IO

from lucky_margin.core.errors import BadDocument
from lucky_margin.core.export.names import unlike

NO_DATE = (1980, 1, 1, 0, 0, 0)
"""The earliest date an archive can say, so that the same files give the same archive."""


ALT_TEXT_TABLE = "alternative-text.csv"

_FORMULA = ("=", "+", "-", "@", "\t", "\r")
"""How a cell begins that a spreadsheet would work out."""


def alt_text_table(rows: list[tuple[str, str]]) -> bytes:
    """File names and their alternative texts as CSV (RFC 4180), in UTF-8 with the mark by which
    spreadsheets know it. What would be worked out as a formula is marked as text."""
    table = io.StringIO()
    writer = csv.writer(table)
    writer.writerow(("File", "Alternative text"))
    for row in rows:
        writer.writerow(f"'{cell}" if cell.startswith(_FORMULA) else cell for cell in row)
    return table.getvalue().encode("utf-8-sig")


@contextmanager
def damage_is_said(words: str) -> Iterator[None]:
    """Translate what the library says of an archive that is none or is damaged; of one whose places
    lie before its beginning that is what a file or a buffer says of them.

    Raises:
        BadDocument: with these ``words``, in place of its errors.
    """
    try:
        yield
    except _DAMAGE as error:
        raise BadDocument(words) from error
    except OSError as error:
        if error.errno != errno.EINVAL:
            raise
        raise BadDocument(words) from error


_DAMAGE = (
    *(zipfile.BadZipFile, zlib.error, NotImplementedError, RuntimeError),
    *(EOFError, ValueError, OverflowError),
)


def zipped(files: Iterable[tuple[str, bytes]]) -> bytes:
    """``files`` (name and bytes) as one archive."""
    buffer = io.BytesIO()
    zip_into(buffer, files)
    return buffer.getvalue()


def zip_into(file: IO[bytes], files: Iterable[tuple[str, bytes]]) -> None:
    """Write ``files`` (name and bytes) as one archive, one at a time; pictures are not compressed
    again. What would be a second file of the same name gets a number."""
    names: set[str] = set()
    with zipfile.ZipFile(file, "w", zipfile.ZIP_STORED) as archive:
        for wanted, data in files:
            name = unlike(wanted, names)
            names.add(name)
            archive.writestr(zipfile.ZipInfo(name, NO_DATE), data)
