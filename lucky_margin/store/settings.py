"""What the user chose once for the whole shelf."""

from lucky_margin.store.database import Database


class SettingsStore:
    """Named values of a data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def get(self, key: str) -> str | None:
        """The value of this name, if there is one."""
        with self._database.read() as connection:
            row = connection.execute("SELECT value FROM settings WHERE key = ?", (key,)).fetchone()
        return None if row is None else str(row["value"])

    def set(self, key: str, value: str | None) -> None:
        """Choose a value, or none any more."""
        with self._database.write() as connection:
            connection.execute("DELETE FROM settings WHERE key = ?", (key,))
            if value is not None:
                connection.execute("INSERT INTO settings VALUES (?, ?)", (key, value))
