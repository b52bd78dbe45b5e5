"""A house style as a file: an archive of its document and of everything that this needs."""

import hashlib
import io
import json
import zipfile
from dataclasses import dataclass, field
from typing import Any

from pydantic import ValidationError

from lucky_margin.core.document import VERSION, HouseStyle, describe_validation_error
from lucky_margin.core.document.references import fonts_of, photos_of, tables_of
from lucky_margin.core.errors import BadDocument, TooLarge
from lucky_margin.core.export.archive import zipped

STYLE_FORMAT = "lucky-margin-style"
STYLE_SUFFIX = ".style.zip"
MAX_STYLE_BYTES = 200_000_000
"""Of all that is in the archive."""

MOST_FILES = 200
_DOCUMENT = "style.json"
NO_STYLE = "This is no house style; choose a file that was saved from “House styles”."


@dataclass(frozen=True)
class StyleFiles:
    """The files that a style needs, by their SHA-256; photos with their names."""

    photos: dict[str, tuple[str, bytes]] = field(default_factory=dict)
    fonts: dict[str, bytes] = field(default_factory=dict)
    tables: dict[str, bytes] = field(default_factory=dict)


def style_file(style: HouseStyle, files: StyleFiles) -> bytes:
    """The archive; the same style gives the same bytes."""
    document = {"format": STYLE_FORMAT, "version": VERSION, "style": style.model_dump(mode="json")}
    text = json.dumps(document, ensure_ascii=False, indent=1).encode()
    entries = [(_DOCUMENT, text)]
    entries += [
        (f"photos/{sha256}/{_safe(name)}", data)
        for sha256, (name, data) in sorted(files.photos.items())
    ]
    entries += [(f"fonts/{sha256}", data) for sha256, data in sorted(files.fonts.items())]
    entries += [(f"tables/{sha256}", data) for sha256, data in sorted(files.tables.items())]
    return zipped(entries)


def read_style_file(data: bytes) -> tuple[HouseStyle, StyleFiles]:
    """The style of such an archive and its files, each of which has the bytes that its name says.

    Raises:
        BadDocument: it is no such archive, is of a newer version, or lacks what the style needs.
        TooLarge: it holds more than is read.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            entries = _entries(archive)
    except (zipfile.BadZipFile, NotImplementedError, EOFError, RuntimeError) as error:
        raise BadDocument(NO_STYLE) from error
    style = _style(entries.pop(_DOCUMENT, b""))
    files = StyleFiles()
    for path, content in entries.items():
        kind, sha256, *name = path.split("/", 2)
        if hashlib.sha256(content).hexdigest() != sha256:
            raise BadDocument(f"“{path}” in this house style is damaged; save the style anew.")
        if kind == "photos":
            files.photos[sha256] = (name[0], content)
        else:
            (files.fonts if kind == "fonts" else files.tables)[sha256] = content
    lacking = (
        (photos_of(style) - files.photos.keys())
        | (fonts_of(style) - files.fonts.keys())
        | (tables_of(style) - files.tables.keys())
    )
    if lacking:
        what = "a file" if len(lacking) == 1 else f"{len(lacking)} files"
        raise BadDocument(f"This house style lacks {what} that it needs; save the style anew.")
    return style, files


def _entries(archive: zipfile.ZipFile) -> dict[str, bytes]:
    """The archive's files that a style has; others are left alone."""
    listed = [entry for entry in archive.infolist() if _is_known(entry.filename)]
    if len(listed) > MOST_FILES or sum(entry.file_size for entry in listed) > MAX_STYLE_BYTES:
        raise TooLarge(
            f"A house style may hold {MOST_FILES} files and {MAX_STYLE_BYTES // 1_000_000} MB at "
            "most; leave large pictures out of it."
        )
    return {entry.filename: archive.read(entry) for entry in listed}


def _is_known(path: str) -> bool:
    if path == _DOCUMENT:
        return True
    kind, *rest = path.split("/", 2)
    return len(rest) == {"photos": 2, "fonts": 1, "tables": 1}.get(kind)


def _style(text: bytes) -> HouseStyle:
    try:
        document: Any = json.loads(text)
    except ValueError as error:
        raise BadDocument(NO_STYLE) from error
    if not isinstance(document, dict) or document.get("format") != STYLE_FORMAT:
        raise BadDocument(NO_STYLE)
    version = document.get("version")
    if isinstance(version, int) and version > VERSION:
        raise BadDocument(
            "This house style was saved by a newer Lucky Margin; update this one first."
        )
    try:
        return HouseStyle.model_validate(document.get("style"))
    except ValidationError as error:
        raise BadDocument(describe_validation_error(error)) from error


def _safe(name: str) -> str:
    """A photo's name that is no path."""
    return name.replace("/", "-").replace("\\", "-") or "photo"
