"""A house style or a finish as a file: an archive of its document and of everything that this
needs."""

import hashlib
import io
import json
import zipfile
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Generic, TypeVar

from pydantic import ValidationError

from lucky_margin.core.document import (
    VERSION,
    HouseStyle,
    Value,
    describe_validation_error,
    read_finish,
)
from lucky_margin.core.document.references import fonts_of, photos_of, tables_of
from lucky_margin.core.errors import BadDocument, TooLarge
from lucky_margin.core.export.archive import damage_is_said, zipped

MAX_PACKAGE_BYTES = 300_000_000
"""Of all that is in the archive."""

MOST_FILES = 200

Packed = TypeVar("Packed", bound=Value)
Kind = TypeVar("Kind", bound=Value, covariant=True)


@dataclass(frozen=True)
class PackageKind(Generic[Kind]):
    """What is in a package: the ``key`` of its document, what that is called in messages, where it
    comes from, and what reads it (raises BadDocument or ValidationError)."""

    key: str
    noun: str
    source: str
    read: Callable[[Any], Kind]

    @property
    def format(self) -> str:
        """The name by which its document is known."""
        return f"lucky-margin-{self.key}"

    @property
    def suffix(self) -> str:
        """Of its files."""
        return f".{self.key}.zip"

    @property
    def none(self) -> str:
        """What is said of a file that is no such package."""
        return f"This is no {self.noun}; choose a file that was saved from “{self.source}”."


STYLE = PackageKind("style", "house style", "House styles", HouseStyle.model_validate)
FINISH = PackageKind("finish", "finish", "Finish as a file", read_finish)


@dataclass(frozen=True)
class PackageFiles:
    """The files that a style or a finish needs, by their SHA-256; photos with their names. Those of
    ``mattes``, which it can do without, by what names each of them."""

    photos: dict[str, tuple[str, bytes]] = field(default_factory=dict)
    fonts: dict[str, bytes] = field(default_factory=dict)
    tables: dict[str, bytes] = field(default_factory=dict)
    mattes: dict[str, bytes] = field(default_factory=dict)


def package(kind: PackageKind[Packed], value: Packed, files: PackageFiles) -> bytes:
    """The archive; the same value gives the same bytes."""
    document = {"format": kind.format, "version": VERSION, kind.key: value.model_dump(mode="json")}
    text = json.dumps(document, ensure_ascii=False, indent=1).encode()
    entries = [(f"{kind.key}.json", text)]
    entries += [
        (f"photos/{sha256}/{_safe(name)}", data)
        for sha256, (name, data) in sorted(files.photos.items())
    ]
    entries += [(f"fonts/{sha256}", data) for sha256, data in sorted(files.fonts.items())]
    entries += [(f"tables/{sha256}", data) for sha256, data in sorted(files.tables.items())]
    entries += [(f"mattes/{name}", data) for name, data in sorted(files.mattes.items())]
    return zipped(entries)


def read_package(kind: PackageKind[Packed], data: bytes) -> tuple[Packed, PackageFiles]:
    """What is in such an archive and its files, each of which has the bytes that its name says.

    Raises:
        BadDocument: it is no such archive, is of a newer version, or lacks what it needs.
        TooLarge: it holds more than is read.
    """
    with damage_is_said(kind.none), zipfile.ZipFile(io.BytesIO(data)) as archive:
        entries = _entries(archive, kind)
    value = _value(entries.pop(f"{kind.key}.json", b""), kind)
    files = PackageFiles()
    for path, content in entries.items():
        folder, key, *name = path.split("/", 2)
        if folder == "mattes":
            files.mattes[key] = content
        elif hashlib.sha256(content).hexdigest() != key:
            raise BadDocument(f"“{path}” in this {kind.noun} is damaged; save it anew.")
        elif folder == "photos":
            files.photos[key] = (name[0], content)
        else:
            (files.fonts if folder == "fonts" else files.tables)[key] = content
    lacking = (
        (photos_of(value) - files.photos.keys())
        | (fonts_of(value) - files.fonts.keys())
        | (tables_of(value) - files.tables.keys())
    )
    if lacking:
        what = "a file" if len(lacking) == 1 else f"{len(lacking)} files"
        raise BadDocument(f"This {kind.noun} lacks {what} that it needs; save it anew.")
    return value, files


def _entries(archive: zipfile.ZipFile, kind: PackageKind[Packed]) -> dict[str, bytes]:
    """The archive's files that such a package has; others are left alone."""
    listed = [
        entry
        for entry in archive.infolist()
        if entry.filename == f"{kind.key}.json" or _is_known(entry.filename)
    ]
    if len(listed) > MOST_FILES or sum(entry.file_size for entry in listed) > MAX_PACKAGE_BYTES:
        raise TooLarge(
            f"A {kind.noun} may hold {MOST_FILES} files and {MAX_PACKAGE_BYTES // 1_000_000} MB "
            "at most; leave large pictures out of it."
        )
    return {entry.filename: archive.read(entry) for entry in listed}


def _is_known(path: str) -> bool:
    folder, *rest = path.split("/", 2)
    return len(rest) == {"photos": 2, "fonts": 1, "tables": 1, "mattes": 1}.get(folder)


def _value(text: bytes, kind: PackageKind[Packed]) -> Packed:
    try:
        document: Any = json.loads(text)
    except ValueError as error:
        raise BadDocument(kind.none) from error
    if not isinstance(document, dict) or document.get("format") != kind.format:
        raise BadDocument(kind.none)
    version = document.get("version")
    if isinstance(version, int) and version > VERSION:
        raise BadDocument(
            f"This {kind.noun} was saved by a newer Lucky Margin; update this one first."
        )
    try:
        return kind.read(document.get(kind.key))
    except ValidationError as error:
        raise BadDocument(describe_validation_error(error)) from error


def _safe(name: str) -> str:
    """A photo's name that is no path."""
    return name.replace("/", "-").replace("\\", "-") or "photo"
