"""Kept marks: designs that any finish may use, in versions."""

import sqlite3

from lucky_margin.core.document import MarkDesign, UsedMark
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.store.database import Database, now

MOST = 200


class MarkStore:
    """The marks of a data folder. A finish holds a mark as it was when it was taken."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(self, name: str, design: MarkDesign) -> UsedMark:
        """Keep a new mark.

        Raises:
            BadInput: there are too many.
        """
        with self._database.write() as connection:
            row = connection.execute("SELECT count(*) AS total FROM marks").fetchone()
            if row["total"] >= MOST:
                raise BadInput(f"{MOST} marks are kept at most; delete one first.")
            cursor = connection.execute(
                "INSERT INTO marks (name, version, design, changed_at) VALUES (?, 1, ?, ?)",
                (name, design.model_dump_json(), now()),
            )
            return self._get(connection, cursor.lastrowid or 0)

    def change(self, mark_id: int, name: str, design: MarkDesign) -> UsedMark:
        """A new version of a mark; the same design under the same name is none.

        Raises:
            NotFound: there is no such mark.
        """
        with self._database.write() as connection:
            kept = self._get(connection, mark_id)
            if (kept.name, kept.design) != (name, design):
                connection.execute(
                    "UPDATE marks SET name = ?, version = version + 1, design = ?, changed_at = ?"
                    " WHERE id = ?",
                    (name, design.model_dump_json(), now(), mark_id),
                )
            return self._get(connection, mark_id)

    def get(self, mark_id: int) -> UsedMark:
        """
        Raises:
            NotFound: there is no such mark.
        """
        with self._database.read() as connection:
            return self._get(connection, mark_id)

    def list(self) -> list[UsedMark]:
        """All of them, the one changed last first."""
        with self._database.read() as connection:
            rows = connection.execute("SELECT * FROM marks ORDER BY changed_at DESC, id DESC")
            return [_mark(row) for row in rows]

    def delete(self, mark_id: int) -> None:
        """Forget a mark; finishes that use it keep it.

        Raises:
            NotFound: there is no such mark.
        """
        with self._database.write() as connection:
            self._get(connection, mark_id)
            connection.execute("DELETE FROM marks WHERE id = ?", (mark_id,))

    def _get(self, connection: sqlite3.Connection, mark_id: int) -> UsedMark:
        row = connection.execute("SELECT * FROM marks WHERE id = ?", (mark_id,)).fetchone()
        if row is None:
            raise NotFound("This mark is not kept any more; finishes that use it still have it.")
        return _mark(row)


def _mark(row: sqlite3.Row) -> UsedMark:
    return UsedMark(
        id=row["id"],
        name=row["name"],
        version=row["version"],
        design=MarkDesign.model_validate_json(row["design"]),
    )
