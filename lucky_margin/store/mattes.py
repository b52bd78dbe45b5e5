"""The mattes of what was saved, kept for good: how far a subject covers each pixel of its photo.

Pictures that can be made again may be removed to make room, and a newer version of the finding
would make another subject of the same boxes and strokes. So the matte of every saved change is kept
besides, as a lossless file by the SHA-256 of its bytes.
"""

from collections.abc import Collection

from lucky_margin.core.cut_out import WORKING_SIDE, matte_file, read_matte
from lucky_margin.core.scene import MATTE, DerivedKey
from lucky_margin.core.types import Mask
from lucky_margin.store.database import Database
from lucky_margin.store.files import FileStore


class MatteStore:
    """The mattes of a data folder."""

    def __init__(self, database: Database, files: FileStore) -> None:
        self._database = database
        self._files = files

    def load(self, key: DerivedKey) -> Mask | None:
        """The matte kept under ``key``; None where there is none, or its file is of no use."""
        data = self.data(key)
        return None if data is None else read_matte(data, WORKING_SIDE)

    def data(self, key: DerivedKey) -> bytes | None:
        """The file of that; None where there is none."""
        with self._database.read() as connection:
            row = connection.execute(
                "SELECT sha256 FROM mattes WHERE key = ?", (key.name,)
            ).fetchone()
        if row is None or row["sha256"] not in self._files:
            return None
        return self._files.read(row["sha256"])

    def keep(self, key: DerivedKey, matte: Mask) -> None:
        """Keep a matte if a saved change is drawn with it, and none is kept under its ``key``.

        Raises:
            StorageFull: the disk took no more bytes; nothing is kept.
        """
        with self._database.read() as connection:
            is_wanted = connection.execute(
                "SELECT 1 FROM refers_to WHERE kind = ? AND key = ?", (MATTE, key.name)
            ).fetchone()
        if is_wanted and self.data(key) is None:
            data = matte_file(matte)
            with self._files.adding(data) as sha256, self._database.write() as connection:
                connection.execute(
                    "INSERT OR REPLACE INTO mattes VALUES (?, ?, ?)", (key.name, sha256, len(data))
                )

    def sweep(self, kept: Collection[DerivedKey]) -> None:
        """Remove the mattes that no saved change is drawn with any more, but for those ``kept``."""
        with self._database.write() as connection:
            unused = connection.execute(
                "SELECT key FROM mattes WHERE NOT EXISTS"
                " (SELECT 1 FROM refers_to WHERE kind = ? AND refers_to.key = mattes.key)",
                (MATTE,),
            ).fetchall()
            spared = {key.name for key in kept}
            gone = [(row["key"],) for row in unused if row["key"] not in spared]
            connection.executemany("DELETE FROM mattes WHERE key = ?", gone)
            wanted = {row["sha256"] for row in connection.execute("SELECT sha256 FROM mattes")}
        self._files.sweep(wanted)
