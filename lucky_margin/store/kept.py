"""What was saved for reuse, such as own sizes, looks and marks: short lists of named values."""

import json
import sqlite3
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from pydantic import TypeAdapter

from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.store.database import Database, now

MOST = 200
"""Values of one kind that are kept; a longer list could not be searched by eye."""

Item = TypeVar("Item")


@dataclass(frozen=True)
class Kept(Generic[Item]):
    """A value that was saved for reuse; every change of it raises ``version``."""

    id: int
    name: str
    version: int
    value: Item


class KeptStore(Generic[Item]):
    """The values of one ``kind`` in a data folder. ``noun`` is what it is called in messages;
    ``upgrade`` takes a value of an earlier version up to date."""

    def __init__(
        self,
        database: Database,
        kind: str,
        model: Any,
        noun: str,
        upgrade: Callable[[Any], Any] = lambda value: value,
    ) -> None:
        self._database = database
        self._kind = kind
        self._adapter: TypeAdapter[Item] = TypeAdapter(model)
        self._noun = noun
        self._upgrade = upgrade

    def add(self, name: str, value: Item) -> Kept[Item]:
        """Keep a new value.

        Raises:
            BadInput: there are too many.
        """
        with self._database.write() as connection:
            if len(self._all(connection)) >= MOST:
                raise BadInput(f"{MOST} {self._noun}s can be saved at most; remove one first.")
            cursor = connection.execute(
                "INSERT INTO kept (kind, name, version, tags, value, changed_at)"
                " VALUES (?, ?, 1, '[]', ?, ?)",
                (self._kind, name, self._json(value), now()),
            )
            assert cursor.lastrowid is not None  # an INSERT always has one
            return Kept(cursor.lastrowid, name, 1, value)

    def put(self, name: str, value: Item) -> Kept[Item]:
        """Keep a value in place of all that have its name.

        Raises:
            BadInput: there are too many.
        """
        with self._database.write() as connection:
            connection.execute("DELETE FROM kept WHERE kind = ? AND name = ?", (self._kind, name))
            return self.add(name, value)

    def change(self, kept_id: int, name: str, value: Item) -> Kept[Item]:
        """A new version of a value; the same under the same name is none.

        Raises:
            NotFound: there is no such value.
        """
        with self._database.write() as connection:
            kept = self._get(connection, kept_id)
            if (kept.name, kept.value) != (name, value):
                connection.execute(
                    "UPDATE kept SET name = ?, version = version + 1, value = ?, changed_at = ?"
                    " WHERE id = ?",
                    (name, self._json(value), now(), kept_id),
                )
            return self._get(connection, kept_id)

    def get(self, kept_id: int) -> Kept[Item]:
        """
        Raises:
            NotFound: there is no such value.
        """
        with self._database.read() as connection:
            return self._get(connection, kept_id)

    def list(self) -> Sequence[Kept[Item]]:
        """All of them, the one changed last first."""
        with self._database.read() as connection:
            return self._all(connection)

    def delete(self, kept_id: int) -> None:
        """Forget a value; finishes that use it keep it.

        Raises:
            NotFound: there is no such value.
        """
        with self._database.write() as connection:
            self._get(connection, kept_id)
            connection.execute("DELETE FROM kept WHERE id = ?", (kept_id,))

    def _get(self, connection: sqlite3.Connection, kept_id: int) -> Kept[Item]:
        row = connection.execute(
            "SELECT * FROM kept WHERE kind = ? AND id = ?", (self._kind, kept_id)
        ).fetchone()
        if row is None:
            raise NotFound(f"This {self._noun} was removed; finishes that use it still have it.")
        return self._record(row)

    def _all(self, connection: sqlite3.Connection) -> Sequence[Kept[Item]]:
        rows = connection.execute(
            "SELECT * FROM kept WHERE kind = ? ORDER BY changed_at DESC, id DESC", (self._kind,)
        )
        return [self._record(row) for row in rows]

    def _record(self, row: sqlite3.Row) -> Kept[Item]:
        value = self._adapter.validate_python(self._upgrade(json.loads(row["value"])))
        return Kept(row["id"], row["name"], row["version"], value)

    def _json(self, value: Item) -> str:
        return self._adapter.dump_json(value).decode()
