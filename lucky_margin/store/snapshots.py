"""Daily copies of the database, so that a damaged one costs a day at most."""

import sqlite3
from contextlib import closing
from datetime import date
from pathlib import Path

from lucky_margin.core.errors import NotFound, StorageFull
from lucky_margin.store.database import Database, full_disk_is_said
from lucky_margin.store.files import UNFINISHED

DATABASE = "lucky-margin.sqlite3"
FOLDER = "snapshots"
KEPT = 7

LOGS = ("-wal", "-shm")
"""What SQLite keeps beside a database in WAL mode."""


def take_snapshot(database: Database, folder: Path, today: date) -> bool:
    """Copy the database of a data ``folder`` as ``snapshots/<day>.sqlite3``, unless that was done
    today, and keep the newest seven; whether it was copied. A damaged database is not copied, and
    a full disk leaves the older copies alone.
    """
    path = folder / FOLDER / f"{today.isoformat()}.sqlite3"
    if path.exists():
        return False
    fresh = path.with_name(f"{UNFINISHED}{path.name}")
    path.parent.mkdir(exist_ok=True)
    fresh.unlink(missing_ok=True)
    try:
        with full_disk_is_said(), database.read() as connection:
            if not is_sound(connection):
                return False
            connection.execute("VACUUM INTO ?", (str(fresh),))
        fresh.replace(path)
    except StorageFull:
        fresh.unlink(missing_ok=True)
        return False
    for day in snapshot_days(folder)[KEPT:]:
        (folder / FOLDER / f"{day}.sqlite3").unlink(missing_ok=True)
    return True


def database_in(folder: Path) -> Path:
    """The database of a data folder.

    Raises:
        NotFound: it has none.
    """
    path = folder / DATABASE
    if not path.exists():
        raise NotFound(f"There is no shelf in “{folder}”; choose its folder with --data.")
    return path


def snapshot_days(folder: Path) -> list[str]:
    """The days (ISO 8601) of which there is a copy, the newest first."""
    copies = (folder / FOLDER).glob("????-??-??.sqlite3")
    return sorted((path.stem for path in copies), reverse=True)


def go_back(folder: Path, day: str) -> Path:
    """Put the copy of a day in the database's place; returns where the present one is put aside.

    Nobody else may have the folder in use.

    Raises:
        NotFound: there is no sound copy of that day.
        StorageFull: the disk took no more bytes; nothing was changed.
    """
    copy = folder / FOLDER / f"{day}.sqlite3"
    days = snapshot_days(folder)
    if day not in days:
        raise NotFound(f"There is no snapshot of {day}; there is {', '.join(days) or 'none'}.")
    with closing(sqlite3.connect(f"{copy.absolute().as_uri()}?mode=ro", uri=True)) as connection:
        if not is_sound(connection):
            raise NotFound(f"The snapshot of {day} is damaged too; try {', '.join(days)}.")
    present = folder / DATABASE
    fresh = folder / f"{UNFINISHED}{DATABASE}"
    with full_disk_is_said():
        fresh.write_bytes(copy.read_bytes())
    aside = _free_name(folder / f"before-{day}.sqlite3")
    if present.exists():
        present.rename(aside)
    for ending in LOGS:
        log = present.with_name(present.name + ending)
        if log.exists():
            log.rename(aside.with_name(aside.name + ending))
    fresh.rename(present)
    return aside


def is_sound(connection: sqlite3.Connection) -> bool:
    """Whether SQLite finds nothing wrong with a database."""
    try:
        return [row[0] for row in connection.execute("PRAGMA quick_check(1)")] == ["ok"]
    except sqlite3.DatabaseError:
        return False


def _free_name(path: Path) -> Path:
    number = 1
    free = path
    while free.exists():
        number += 1
        free = path.with_stem(f"{path.stem}-{number}")
    return free
