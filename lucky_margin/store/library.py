"""What of the shelf and of stock is a favourite, what was taken last, where each is used."""

from collections import defaultdict

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

    def users(self, kind: str) -> dict[str, list[str]]:
        """The names of the finishes on the shelf that refer to each thing of a kind as they are
        now, those changed last first."""
        with self._database.read() as connection:
            rows = connection.execute(
                """
                SELECT refers_to.key, finishes.name
                FROM finishes JOIN refers_to ON refers_to.revision_id = finishes.head
                WHERE refers_to.kind = ? AND binned_at IS NULL
                ORDER BY finishes.changed_at DESC
                """,
                (kind,),
            )
            users = defaultdict[str, list[str]](list)
            for key, name in rows:
                users[key].append(name)
            return dict(users)
