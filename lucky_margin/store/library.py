"""What of the shelf and of stock is a favourite, what was taken last, how much each is used."""

from lucky_margin.store.database import Database, now

MOST_RECENT = 200
"""Keys of what was taken last, of all kinds together."""


class LibraryStore:
    """Of things that are known by a ``key`` such as ``backdrop:linen`` or ``photo:<SHA-256>``."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def set_favourite(self, key: str, favourite: bool) -> None:
        """Make something a favourite, or none any more."""
        with self._database.write() as connection:
            connection.execute(
                "INSERT INTO library (key, favourite) VALUES (?, ?)"
                " ON CONFLICT (key) DO UPDATE SET favourite = excluded.favourite",
                (key, int(favourite)),
            )

    def note_use(self, key: str) -> None:
        """Something was taken just now."""
        with self._database.write() as connection:
            connection.execute(
                "INSERT INTO library (key, used_at) VALUES (?, ?)"
                " ON CONFLICT (key) DO UPDATE SET used_at = excluded.used_at",
                (key, now()),
            )

    def favourites(self) -> frozenset[str]:
        """The keys of all favourites."""
        with self._database.read() as connection:
            rows = connection.execute("SELECT key FROM library WHERE favourite")
            return frozenset(row["key"] for row in rows)

    def recent(self) -> list[str]:
        """The keys of what was taken last, that first."""
        with self._database.read() as connection:
            rows = connection.execute(
                "SELECT key FROM library WHERE used_at IS NOT NULL ORDER BY used_at DESC LIMIT ?",
                (MOST_RECENT,),
            )
            return [row["key"] for row in rows]

    def counts(self, kind: str) -> dict[str, int]:
        """How many finishes on the shelf refer to each thing of a kind as they are now."""
        with self._database.read() as connection:
            rows = connection.execute(
                """
                SELECT refers_to.key, count(*) AS total
                FROM finishes JOIN refers_to ON refers_to.revision_id = finishes.head
                WHERE refers_to.kind = ? AND binned_at IS NULL
                GROUP BY refers_to.key
                """,
                (kind,),
            )
            return {row["key"]: row["total"] for row in rows}
