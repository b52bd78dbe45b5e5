"""What was saved for reuse: short lists of named values, such as own sizes and own looks."""

import json
import sqlite3
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Generic, Protocol, TypeVar

from pydantic import TypeAdapter

from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.store.database import Database, now

MOST = 200
"""Values of one kind that are kept; a longer list could not be searched by eye."""


class Named(Protocol):
    """Anything with a name."""

    @property
    def name(self) -> str: ...


Item = TypeVar("Item", bound=Named)


@dataclass(frozen=True)
class Kept(Generic[Item]):
    """A value that was saved for reuse."""

    id: int
    value: Item


class KeptStore(Generic[Item]):
    """The values of one kind in a data folder; ``table`` and ``noun`` are the code's own words,
    never a user's; ``upgrade`` takes a value of an earlier version up to date."""

    def __init__(
        self,
        database: Database,
        table: str,
        kind: Any,
        noun: str,
        upgrade: Callable[[Any], Any] = lambda value: value,
    ) -> None:
        self._upgrade = upgrade
        self._database = database
        self._table = table
        self._adapter: TypeAdapter[Item] = TypeAdapter(kind)
        self._noun = noun

    def add(self, value: Item) -> Kept[Item]:
        """Keep a value; one of the same name takes the place of the older one.

        Raises:
            BadInput: there are too many.
        """
        with self._database.write() as connection:
            same = [(kept.id,) for kept in self._all(connection) if kept.value.name == value.name]
            connection.executemany(f"DELETE FROM {self._table} WHERE id = ?", same)
            row = connection.execute(f"SELECT count(*) AS total FROM {self._table}").fetchone()
            if row["total"] >= MOST:
                raise BadInput(f"{MOST} own {self._noun}s are kept at most; delete one first.")
            cursor = connection.execute(
                f"INSERT INTO {self._table} (value, created_at) VALUES (?, ?)",
                (self._adapter.dump_json(value).decode(), now()),
            )
            assert cursor.lastrowid is not None  # an INSERT always has one
            return Kept(cursor.lastrowid, value)

    def list(self) -> Sequence[Kept[Item]]:
        """All of them, the newest first."""
        with self._database.read() as connection:
            return self._all(connection)

    def delete(self, kept_id: int) -> None:
        """
        Raises:
            NotFound: there is no such value.
        """
        with self._database.write() as connection:
            cursor = connection.execute(f"DELETE FROM {self._table} WHERE id = ?", (kept_id,))
            if cursor.rowcount == 0:
                raise NotFound(f"There is no such own {self._noun} (any more).")

    def _all(self, connection: sqlite3.Connection) -> Sequence[Kept[Item]]:
        rows = connection.execute(f"SELECT id, value FROM {self._table} ORDER BY id DESC")
        return [Kept(row["id"], self._read(row["value"])) for row in rows]

    def _read(self, value: str) -> Item:
        return self._adapter.validate_python(self._upgrade(json.loads(value)))
