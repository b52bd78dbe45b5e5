"""Archives of several files, and the list of what they show."""

import csv
import io
import zipfile

from lucky_margin.core.export.names import unlike

_NO_DATE = (1980, 1, 1, 0, 0, 0)
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


def zipped(files: list[tuple[str, bytes]]) -> bytes:
    """``files`` (name and bytes) as one archive; pictures are not compressed again.

    What would be a second file of the same name gets a number.
    """
    names: list[str] = []
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_STORED) as archive:
        for name, data in files:
            names.append(unlike(name, names))
            archive.writestr(zipfile.ZipInfo(names[-1], _NO_DATE), data)
    return buffer.getvalue()
