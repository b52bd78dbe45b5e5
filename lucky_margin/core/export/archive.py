"""Archives of several files."""

import io
import zipfile

from lucky_margin.core.export.names import unlike

_NO_DATE = (1980, 1, 1, 0, 0, 0)
"""The earliest date an archive can say, so that the same files give the same archive."""


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
