"""The database: one writer, read-only readers, and numbered migrations in plain SQL."""

import errno
import sqlite3
import threading
from collections import deque
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from datetime import UTC, datetime
from pathlib import Path

from lucky_margin.core.errors import StorageFull, UnusableFolder
from lucky_margin.core.stock import folded

MIGRATIONS = Path(__file__).with_name("migrations")

PAGE = 60
"""Entries on one page of a list."""

BUSY_TIMEOUT_MS = 5000

FULL = "The disk is full, so nothing was saved; free some space and try again."


def now() -> str:
    """The present moment, ISO 8601 in UTC, as it is stored."""
    return datetime.now(UTC).isoformat(timespec="microseconds")


@contextmanager
def full_disk_is_said() -> Iterator[None]:
    """Translate what SQLite and the file system say of a full disk.

    Raises:
        StorageFull: in place of their errors.
    """
    try:
        yield
    except sqlite3.Error as error:
        if getattr(error, "sqlite_errorcode", None) == sqlite3.SQLITE_FULL:
            raise StorageFull(FULL) from error
        raise
    except OSError as error:
        if error.errno in (errno.ENOSPC, errno.EDQUOT):
            raise StorageFull(FULL) from error
        raise


@contextmanager
def unusable_is_said(path: Path) -> Iterator[None]:
    """Translate what SQLite says of a database that can't be worked on.

    Raises:
        UnusableFolder: in place of its errors; the sentence says the way out.
        StorageFull: the disk is full.
    """
    try:
        with full_disk_is_said():
            yield
    except sqlite3.DatabaseError as error:
        code = getattr(error, "sqlite_errorcode", 0) & 0xFF  # without SQLite's details
        words = _WRONG.get(code)
        if words is None:
            raise
        raise UnusableFolder(f"The shelf's database “{path}” {words}") from error


_DAMAGED = (
    "is damaged; “lucky-margin snapshots” lists the days you can go back to, and "
    "“lucky-margin go-back DAY” does it."
)
_CLOSED = "can't be written; allow that, or choose another folder with --data or LUCKY_MARGIN_DATA."
_WRONG = {
    sqlite3.SQLITE_NOTADB: _DAMAGED,
    sqlite3.SQLITE_CORRUPT: _DAMAGED,
    sqlite3.SQLITE_READONLY: _CLOSED,
    sqlite3.SQLITE_CANTOPEN: _CLOSED,
    sqlite3.SQLITE_PERM: _CLOSED,
    sqlite3.SQLITE_IOERR: "can't be read or written; see whether its disk is still there.",
    sqlite3.SQLITE_BUSY: "is locked by another program; close that one and try again.",
    sqlite3.SQLITE_LOCKED: "is locked by another program; close that one and try again.",
}


class Database:
    """A SQLite file in WAL mode."""

    def __init__(self, path: Path) -> None:
        self._path = path
        self._lock = threading.RLock()
        self._idle_readers: deque[sqlite3.Connection] = deque()
        with unusable_is_said(path):
            self._writer = self._connect("rwc")
            self._writer.execute("PRAGMA journal_mode = WAL")
            self._writer.execute("PRAGMA synchronous = FULL")

    def close(self) -> None:
        """Close all readers that are not in use, and the writer, which as the last one puts all
        that is in the log into the database itself."""
        while self._idle_readers:
            self._idle_readers.pop().close()
        with self._lock:
            self._writer.close()

    @contextmanager
    def write(self) -> Iterator[sqlite3.Connection]:
        """A transaction: committed at the end, rolled back on any error.

        Transactions nest: an inner one that fails takes back only its own changes.

        Raises:
            StorageFull: the disk took no more bytes; nothing was changed.
            UnusableFolder: the database is gone, or can't be worked on any more.
        """
        with self._lock, unusable_is_said(self._path):
            nested = self._writer.in_transaction
            self._check_there()
            self._writer.execute("SAVEPOINT part" if nested else "BEGIN IMMEDIATE")
            try:
                yield self._writer
                self._writer.execute("RELEASE part" if nested else "COMMIT")
            except BaseException:
                if nested:
                    self._writer.execute("ROLLBACK TO part")
                    self._writer.execute("RELEASE part")
                elif self._writer.in_transaction:
                    self._writer.execute("ROLLBACK")
                raise

    def compact(self) -> None:
        """Give the room of what was removed back to the disk, where there is room to do so."""
        with self._lock, suppress(StorageFull), full_disk_is_said():
            self._writer.execute("VACUUM")

    def adopt(self, path: Path, check: Callable[[sqlite3.Connection], None]) -> None:
        """Take over every row of another sound database that has run the same migrations, in place
        of what is here, or nothing. ``check`` may refuse it, in the same transaction.

        Raises:
            StorageFull: the disk took no more bytes; nothing was changed.
        """
        with self._lock:
            self._writer.execute("ATTACH ? AS other", (f"{path.absolute().as_uri()}?mode=ro",))
            self._writer.execute("PRAGMA foreign_keys = OFF")  # no order of tables would do
            try:
                with self.write() as connection:
                    check(connection)
                    for table in _tables(connection):
                        connection.execute(f"DELETE FROM main.{table}")
                        connection.execute(f"INSERT INTO main.{table} SELECT * FROM other.{table}")
            finally:
                self._writer.execute("PRAGMA foreign_keys = ON")
                self._writer.execute("DETACH other")

    @contextmanager
    def read(self) -> Iterator[sqlite3.Connection]:
        """A connection that cannot write and sees only what is committed.

        It is kept for the next reader, so there are as many as ever read at once.

        Raises:
            UnusableFolder: the database is gone, or can't be worked on any more.
        """
        with unusable_is_said(self._path):
            self._check_there()
            try:
                connection = self._idle_readers.pop()
            except IndexError:
                connection = self._connect("ro")
            try:
                yield connection
            finally:
                self._idle_readers.append(connection)

    def _check_there(self) -> None:
        """An open file can be written to after its folder was removed, but nobody finds it."""
        if not self._path.exists():
            raise UnusableFolder(
                f"The shelf's database “{self._path}” is gone; bring its folder or disk back."
            )

    def _connect(self, mode: str) -> sqlite3.Connection:
        connection = sqlite3.connect(
            f"{self._path.absolute().as_uri()}?mode={mode}",
            uri=True,
            isolation_level=None,
            check_same_thread=False,
        )
        connection.row_factory = sqlite3.Row
        connection.create_function("folded", 1, folded, deterministic=True)
        connection.execute("PRAGMA foreign_keys = ON")
        connection.execute(f"PRAGMA busy_timeout = {BUSY_TIMEOUT_MS}")
        return connection


def _tables(connection: sqlite3.Connection) -> list[str]:
    """All that hold something, SQLite's own counters and what triggers fill the last."""
    rows = connection.execute(
        "SELECT name FROM main.sqlite_schema WHERE type = 'table' AND name <> 'migrations'"
        " ORDER BY name IN ('refers_to', 'sqlite_sequence'), name"
    )
    return [row["name"] for row in rows]


def migrate(database: Database, folder: Path = MIGRATIONS) -> list[str]:
    """Run every migration in ``folder`` that has not run yet, each in a transaction of its own.

    Files are named ``NNNN_what.sql`` and run in that order. A failing one leaves no trace, stays
    pending, and stops the ones after it. Returns the names of those that ran.

    Raises:
        UnusableFolder: migrations have run that are not in ``folder``.
    """
    with database.write() as connection:
        connection.execute(
            "CREATE TABLE IF NOT EXISTS migrations "
            "(name TEXT PRIMARY KEY, applied_at TEXT NOT NULL)"
        )
    with database.read() as connection:
        done = {row["name"] for row in connection.execute("SELECT name FROM migrations")}
    scripts = sorted(folder.glob("*.sql"))
    if done - {path.stem for path in scripts}:
        raise UnusableFolder(
            "This data folder was last used by a newer Lucky Margin; "
            "use that one, or set LUCKY_MARGIN_DATA to another folder."
        )
    ran = []
    for path in scripts:
        if path.stem in done:
            continue
        with database.write() as connection:
            for statement in statements(path.read_text()):
                connection.execute(statement)
            connection.execute("INSERT INTO migrations VALUES (?, ?)", (path.stem, now()))
        ran.append(path.stem)
    return ran


def statements(script: str) -> Iterator[str]:
    """The single statements of a script. (``executescript`` would commit the transaction.)"""
    statement = ""
    for line in script.splitlines(keepends=True):
        statement += line
        if sqlite3.complete_statement(statement):
            yield statement
            statement = ""
    if statement.strip():
        yield statement
