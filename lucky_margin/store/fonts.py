"""Own fonts: their files, kept for good, since finishes refer to them, and which are offered."""

import hashlib
import sqlite3
import threading
from collections.abc import Hashable
from dataclasses import dataclass

from cachetools import LRUCache, cachedmethod

from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.text import Face, read_font
from lucky_margin.store.database import Database, now
from lucky_margin.store.files import FileStore

MOST = 200

_FACES_KEPT = 16
"""Own fonts that are kept read; one may take 30 MB."""


@dataclass(frozen=True)
class FontRecord:
    """An own font that is offered."""

    sha256: str
    name: str
    weight: int


class FontStore:
    """The own fonts of a data folder."""

    def __init__(self, database: Database, files: FileStore) -> None:
        self._database = database
        self._files = files
        self._faces: LRUCache[Hashable, Face] = LRUCache(_FACES_KEPT)
        self._changed = threading.Condition()

    def add(self, data: bytes) -> FontRecord:
        """Keep a font file and offer it; the same bytes again are the same font.

        Raises:
            UnreadableFont: it is not taken; nothing is kept.
            BadInput: there are too many.
            StorageFull: the disk took no more bytes; nothing is kept.
        """
        sha256 = hashlib.sha256(data).hexdigest()
        font = read_font(data, sha256)
        record = FontRecord(sha256, font.name, font.weight)
        with self._files.adding(data), self._database.write() as connection:
            row = connection.execute("SELECT count(*) AS total FROM fonts").fetchone()
            if row["total"] >= MOST:
                raise BadInput(f"{MOST} own fonts can be added at most; remove one first.")
            connection.execute(
                "INSERT INTO fonts VALUES (?, ?, ?, ?) ON CONFLICT (sha256) DO NOTHING",
                (sha256, font.name, font.weight, now()),
            )
        return record

    def list(self) -> list[FontRecord]:
        """Those that are offered, by name."""
        with self._database.read() as connection:
            rows = connection.execute("SELECT * FROM fonts ORDER BY name COLLATE NOCASE, sha256")
            return [_record(row) for row in rows]

    def remove(self, sha256: str) -> None:
        """Offer a font no more; finishes that are set in it keep it.

        Raises:
            NotFound: there is no such font.
        """
        with self._database.write() as connection:
            cursor = connection.execute("DELETE FROM fonts WHERE sha256 = ?", (sha256,))
            if cursor.rowcount == 0:
                raise NotFound("There is no such own font (any more).")

    def data(self, sha256: str) -> bytes:
        """The font's file.

        Raises:
            NotFound: it is gone.
        """
        if sha256 not in self._files:
            raise NotFound("An own font is missing; add its file again.")
        return self._files.read(sha256)

    def face(self, sha256: str) -> Face | None:
        """See ``core.render.Sources.font``."""
        if sha256 not in self._files:
            return None
        return self._face(sha256)

    @cachedmethod(lambda self: self._faces, condition=lambda self: self._changed)
    def _face(self, sha256: str) -> Face:
        return read_font(self._files.read(sha256), sha256).face


def _record(row: sqlite3.Row) -> FontRecord:
    return FontRecord(row["sha256"], row["name"], row["weight"])
