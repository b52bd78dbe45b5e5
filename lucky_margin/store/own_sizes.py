"""Own sizes: those that were saved for reuse."""

from dataclasses import dataclass

from lucky_margin.core.document import SizePlan
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.store.database import Database, now

MOST = 200
"""Own sizes that are kept; a longer list could not be searched by eye."""


@dataclass(frozen=True)
class OwnSize:
    """A size that was saved for reuse."""

    id: int
    plan: SizePlan


class OwnSizeStore:
    """The own sizes of a data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(self, plan: SizePlan) -> OwnSize:
        """Keep a size; one of the same name takes the place of the older one.

        Raises:
            BadInput: there are too many.
        """
        same = [own.id for own in self.list() if own.plan.name == plan.name]
        with self._database.write() as connection:
            connection.executemany("DELETE FROM own_sizes WHERE id = ?", [(one,) for one in same])
            row = connection.execute("SELECT count(*) AS total FROM own_sizes").fetchone()
            if row["total"] >= MOST:
                raise BadInput(f"{MOST} own sizes are kept at most; delete one first.")
            cursor = connection.execute(
                "INSERT INTO own_sizes (plan, created_at) VALUES (?, ?)",
                (plan.model_dump_json(), now()),
            )
            assert cursor.lastrowid is not None  # an INSERT always has one
            return OwnSize(cursor.lastrowid, plan)

    def list(self) -> list[OwnSize]:
        """All own sizes, the newest first."""
        with self._database.read() as connection:
            rows = connection.execute("SELECT id, plan FROM own_sizes ORDER BY id DESC")
            return [OwnSize(row["id"], SizePlan.model_validate_json(row["plan"])) for row in rows]

    def delete(self, size_id: int) -> None:
        """
        Raises:
            NotFound: there is no such size.
        """
        with self._database.write() as connection:
            cursor = connection.execute("DELETE FROM own_sizes WHERE id = ?", (size_id,))
            if cursor.rowcount == 0:
                raise NotFound("There is no such own size (any more).")
