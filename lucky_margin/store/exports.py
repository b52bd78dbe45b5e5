"""Exports: files that were weighed, and the record of those that were saved."""

import sqlite3
from dataclasses import dataclass

from lucky_margin.core.errors import NotFound
from lucky_margin.core.export import ExportedFile
from lucky_margin.store.database import Database, now
from lucky_margin.store.files import FileStore


@dataclass(frozen=True)
class ExportRecord:
    """A file that was saved."""

    id: int
    finish_id: str
    revision: int
    size_name: str
    file_name: str
    image_format: str
    sha256: str
    bytes: int
    width: int
    height: int
    created_at: str


class ExportStore:
    """The exports of a data folder; their bytes are kept, so that they can be had again."""

    def __init__(self, database: Database, files: FileStore) -> None:
        self._database = database
        self._files = files

    def add(
        self, file: ExportedFile, *, finish_id: str, revision: int, size_name: str
    ) -> ExportRecord:
        """Keep a saved file and the revision it came from.

        Raises:
            StorageFull: the disk took no more bytes; nothing is recorded.
        """
        fields = (
            *(finish_id, revision, size_name, file.file_name, file.image_format),
            *(file.sha256, len(file.data), file.width, file.height, now()),
        )
        with self._files.adding(file.data), self._database.write() as connection:
            cursor = connection.execute(
                "INSERT INTO exports (finish_id, revision_id, size_name, file_name, image_format,"
                " sha256, bytes, width, height, created_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
                fields,
            )
            number = cursor.lastrowid
        assert number is not None  # an INSERT always has one
        return self.get(number)

    def get(self, number: int) -> ExportRecord:
        """
        Raises:
            NotFound: there is no such export.
        """
        with self._database.read() as connection:
            row = connection.execute("SELECT * FROM exports WHERE id = ?", (number,)).fetchone()
        if row is None:
            raise NotFound("There is no such export; save the size again.")
        return _record(row)

    def list(self, finish_id: str) -> list[ExportRecord]:
        """The exports of a finish, newest first."""
        with self._database.read() as connection:
            rows = connection.execute(
                "SELECT * FROM exports WHERE finish_id = ? ORDER BY id DESC", (finish_id,)
            )
            return [_record(row) for row in rows]

    def remove_unrecorded(self, hashes: set[str]) -> None:
        """Remove the files of these SHA-256 that no record names any more."""
        with self._database.read() as connection:
            kept = {row["sha256"] for row in connection.execute("SELECT sha256 FROM exports")}
        for sha256 in hashes - kept:
            self._files.remove(sha256)

    def data(self, record: ExportRecord) -> bytes:
        """The saved file's bytes.

        Raises:
            NotFound: they are gone from the data folder.
        """
        try:
            return self._files.read(record.sha256)
        except FileNotFoundError:
            raise NotFound("This file is gone from the data folder; save the size again.") from None


def _record(row: sqlite3.Row) -> ExportRecord:
    fields = {key: row[key] for key in row.keys() if key != "revision_id"}  # noqa: SIM118 - a Row iterates over values
    return ExportRecord(**fields, revision=row["revision_id"])
