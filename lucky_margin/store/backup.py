"""A whole shelf as one archive, and back: the database as it is at one moment, and every file, each
checked by its SHA-256."""

import hashlib
import json
import shutil
import sqlite3
import tempfile
import time
import zipfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import IO

from lucky_margin.core.errors import BadDocument, Conflict, UnusableFolder
from lucky_margin.core.export.archive import NO_DATE, damage_is_said
from lucky_margin.core.progress import Progress, untold
from lucky_margin.store.database import Database, full_disk_is_said, migrate
from lucky_margin.store.files import FILE_NAME, GRACE_SECONDS, UNFINISHED
from lucky_margin.store.snapshots import DATABASE, is_sound

FORMAT, VERSION = "lucky-margin-backup", 2
FILE_FOLDERS = ("originals", "fonts", "tables", "exports", "mattes")
"""Of a data folder, whose files are named by the SHA-256 of their bytes."""

_MANIFEST = "backup.json"
_BLOCK = 1 << 20

NO_BACKUP = "This is no backup of a shelf, or it is damaged; choose a file that “backup” wrote."

NEWER = "This backup was written by a newer Lucky Margin; update this one first."


def write_backup(folder: Path, file: IO[bytes], progress: Progress = untold) -> None:
    """Write the shelf in a data ``folder`` as an archive. The shelf may be in use meanwhile.

    Raises:
        Cancelled: by ``progress``.
        BadDocument: the folder has no sound database.
        StorageFull: the disk took no more bytes.
    """
    with (
        full_disk_is_said(),
        tempfile.TemporaryDirectory(dir=folder, prefix=UNFINISHED) as scratch,
        zipfile.ZipFile(file, "w", zipfile.ZIP_STORED) as archive,
    ):
        copy = Path(scratch) / DATABASE
        _copy_database(folder / DATABASE, copy)
        paths = sorted(files_of(folder))
        manifest = {"format": FORMAT, "version": VERSION, "database": _sha256(copy)}
        archive.writestr(zipfile.ZipInfo(_MANIFEST, NO_DATE), json.dumps(manifest))
        _put(archive, DATABASE, copy)
        for number, path in enumerate(paths, 1):
            if path.is_file():  # it may have been deleted since
                _put(archive, f"{path.parents[1].name}/{path.name}", path)
            progress(number / len(paths))


def restore_backup(file: IO[bytes], folder: Path, progress: Progress = untold) -> None:
    """Make the data ``folder``, which has to be new or empty of a shelf, what a backup holds. All
    of it is checked before anything of it is there.

    Raises:
        Cancelled: by ``progress``.
        Conflict: the folder has a shelf already.
        BadDocument: the archive is none of a shelf, is damaged, or of a newer version.
        StorageFull: the disk took no more bytes; nothing is kept.
    """
    if (folder / DATABASE).exists():
        raise Conflict(
            f"There is a shelf in “{folder}” already; restore into an empty folder with --data."
        )
    folder.mkdir(parents=True, exist_ok=True)
    with _unpacked(file, folder, progress) as fresh:
        _move_files(fresh, folder)
        (fresh / DATABASE).rename(folder / DATABASE)  # the last, so that it is all there or not


def restore_into(database: Database, file: IO[bytes], folder: Path, progress: Progress) -> None:
    """The same for the ``database`` in use of a data ``folder``, which may hold nothing yet.

    Raises:
        Cancelled, BadDocument, StorageFull: as above; nothing is changed.
        Conflict: the shelf is not empty.
    """
    with _unpacked(file, folder, progress) as fresh:
        other = Database(fresh / DATABASE)
        try:
            migrate(other)
        except UnusableFolder as error:
            raise BadDocument(NEWER) from error
        finally:
            other.close()
        with database.read() as connection:
            _check_empty(connection)
        _move_files(fresh, folder)
        database.adopt(fresh / DATABASE, _check_empty)


def _check_empty(connection: sqlite3.Connection) -> None:
    if any(connection.execute(f"SELECT 1 FROM {name}").fetchone() for name in _OWN):
        raise Conflict(
            "This shelf is not empty; restore into another data folder: "
            "“lucky-margin restore FILE --data FOLDER”."
        )


_OWN = ("photos", "finishes", "kept", "fonts")
"""The tables of what a person brought or made."""


@contextmanager
def _unpacked(file: IO[bytes], folder: Path, progress: Progress) -> Iterator[Path]:
    """A folder with what a backup holds, all of it checked; it is gone at the end."""
    with full_disk_is_said(), tempfile.TemporaryDirectory(dir=folder, prefix=UNFINISHED) as scratch:
        with damage_is_said(NO_BACKUP), zipfile.ZipFile(file) as archive:
            _unpack(archive, Path(scratch), progress)
        yield Path(scratch)


def _move_files(fresh: Path, folder: Path) -> None:
    for name in FILE_FOLDERS:
        if (fresh / name).is_dir():
            shutil.copytree(
                fresh / name, folder / name, dirs_exist_ok=True, copy_function=shutil.move
            )


def _copy_database(path: Path, copy: Path) -> None:
    try:
        with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as source:
            source.execute("VACUUM INTO ?", (str(copy),))
    except sqlite3.DatabaseError as error:
        raise BadDocument(f"There is no sound shelf in “{path.parent}” to back up.") from error


def sweep_scratch(folder: Path) -> None:
    """Remove what a backup or a restore left behind that was ended on the way, after a day."""
    oldest = time.time() - GRACE_SECONDS
    for path in folder.glob(f"{UNFINISHED}*"):
        if path.is_dir() and path.stat().st_mtime < oldest:
            shutil.rmtree(path, ignore_errors=True)


def files_of(folder: Path) -> Iterator[Path]:
    """All files of a data folder that are named by the SHA-256 of their bytes."""
    for name in FILE_FOLDERS:
        for path in (folder / name).glob("*/*"):
            if FILE_NAME.fullmatch(path.name):
                yield path


def _put(archive: zipfile.ZipFile, name: str, path: Path) -> None:
    entry = zipfile.ZipInfo(name, NO_DATE)
    entry.file_size = path.stat().st_size  # so that large ones are allowed for
    with path.open("rb") as source, archive.open(entry, "w") as target:
        shutil.copyfileobj(source, target, _BLOCK)


def _unpack(archive: zipfile.ZipFile, fresh: Path, progress: Progress) -> None:
    try:
        manifest = json.loads(archive.read(_MANIFEST))
        kind, version, database = (manifest[key] for key in ("format", "version", "database"))
    except (KeyError, TypeError, ValueError) as error:
        raise BadDocument(NO_BACKUP) from error
    if kind != FORMAT or not isinstance(version, int):
        raise BadDocument(NO_BACKUP)
    if version > VERSION:
        raise BadDocument(NEWER)
    entries = [entry for entry in archive.infolist() if entry.filename != _MANIFEST]
    if DATABASE not in {entry.filename for entry in entries}:
        raise BadDocument(NO_BACKUP)
    for number, entry in enumerate(entries, 1):
        path, wanted = _place_of(entry.filename, fresh, database)
        path.parent.mkdir(parents=True, exist_ok=True)
        with archive.open(entry) as source, path.open("wb") as target:
            shutil.copyfileobj(source, target, _BLOCK)
        if _sha256(path) != wanted:
            raise BadDocument(f"{NO_BACKUP.split(';')[0]}: {entry.filename} is not what it was.")
        progress(number / len(entries))
    with closing(sqlite3.connect(f"{(fresh / DATABASE).as_uri()}?mode=ro", uri=True)) as connection:
        if not is_sound(connection) or connection.execute("PRAGMA foreign_key_check").fetchone():
            raise BadDocument(NO_BACKUP)


def _place_of(name: str, fresh: Path, database: str) -> tuple[Path, str]:
    """Where an entry goes and the SHA-256 it has to have. No name leads out of the folder."""
    if name == DATABASE:
        return fresh / DATABASE, database
    kind, _, sha256 = name.partition("/")
    if kind not in FILE_FOLDERS or not FILE_NAME.fullmatch(sha256):
        raise BadDocument(NO_BACKUP)
    return fresh / kind / sha256[:2] / sha256, sha256


def _sha256(path: Path) -> str:
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()
