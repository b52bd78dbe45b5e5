"""Looking after a data folder: copies of it, going back, and whether it is sound."""

import argparse
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path

from tqdm import tqdm

from lucky_margin.cli.data import data_folder
from lucky_margin.cli.files import written
from lucky_margin.core.errors import BadInput
from lucky_margin.core.progress import Progress
from lucky_margin.store import (
    FolderLock,
    Soundness,
    Store,
    ThinningRule,
    database_in,
    go_back,
    look_over,
    mend,
    restore_backup,
    snapshot_days,
)

UNSOUND = 1
"""The exit code of a folder in which something is wrong."""

MB = 1_000_000


def add_commands(add: Callable[..., argparse.ArgumentParser]) -> None:
    """The commands of this module and their options; ``add`` makes one of a name."""
    backup = add("backup", help="save the whole shelf as one archive")
    backup.add_argument("-o", "--out", required=True, type=Path, metavar="BACKUP.zip")
    backup.add_argument("--replace", action="store_true", help="overwrite it if it exists")
    backup.set_defaults(run=_backup)
    restore = add("restore", help="make an empty data folder what a backup holds")
    restore.add_argument("backup", type=Path, metavar="BACKUP.zip")
    restore.set_defaults(run=_restore)
    check = add("check", help="verify every file of the data folder")
    check.add_argument("--mend", action="store_true", help="remove what is damaged or unused")
    check.set_defaults(run=_check)
    days = add("snapshots", help="the days the database can go back to")
    days.set_defaults(run=_snapshots)
    back = add("go-back", help="put the database of a day in place")
    back.add_argument("day", metavar="YYYY-MM-DD")
    back.set_defaults(run=_go_back)
    thin = add("thin", help="count, or remove, old changes and old saved files")
    thin.add_argument("--days", type=int, default=90, metavar="N", help="what is older; default 90")
    thin.add_argument("--files", action="store_true", help="saved files too, not only changes")
    thin.add_argument("--remove", action="store_true", help="remove them; can't be taken back")
    thin.set_defaults(run=_thin)
    for command in (backup, restore, check, days, back, thin):
        command.add_argument("--data", type=Path, default=data_folder(), metavar="FOLDER")


def _backup(chosen: argparse.Namespace) -> int:
    database_in(chosen.data)  # none is made where there is none
    store = Store(chosen.data)
    try:
        with written(chosen.out, chosen.replace) as file, _told("Backing up") as progress:
            store.write_backup(file, progress)
    finally:
        store.close()
    print(f"The shelf is saved as {chosen.out}, {chosen.out.stat().st_size / MB:.1f} MB.")
    return 0


def _restore(chosen: argparse.Namespace) -> int:
    lock = FolderLock(chosen.data)
    try:
        with chosen.backup.open("rb") as file, _told("Restoring") as progress:
            restore_backup(file, chosen.data, progress)
    finally:
        lock.close()
    print(f"The shelf is in {chosen.data}.")
    return 0


def _check(chosen: argparse.Namespace) -> int:
    lock = FolderLock(chosen.data) if chosen.mend else None
    try:
        with _told("Checking") as progress:
            found = look_over(chosen.data, progress)
        print("\n".join(_in_words(found)))
        if chosen.mend and found.database:
            mend(found)
            print(f"Removed {len(found.unused)} unused and {len(found.damaged)} damaged files.")
    finally:
        if lock:
            lock.close()
    return 0 if found.is_sound else UNSOUND


def _in_words(found: Soundness) -> list[str]:
    if not found.database:
        return [
            "The database is damaged; “lucky-margin snapshots” lists the days you can go back to."
        ]
    lines = [f"{found.checked} files checked; the database is sound."]
    lines += [f"Damaged: {path}" for path in found.damaged]
    lines += [f"Missing: {words}; add the same file again." for words in found.missing]
    if found.unused:
        lines.append(f"Unused: {len(found.unused)} files, {found.unused_bytes / MB:.1f} MB.")
    lines.append(f"Pictures that can be made again: {found.derived_bytes / MB:.1f} MB.")
    return lines


def _snapshots(chosen: argparse.Namespace) -> int:
    print("\n".join(snapshot_days(chosen.data)) or "There is no snapshot yet.")
    return 0


def _go_back(chosen: argparse.Namespace) -> int:
    lock = FolderLock(chosen.data)
    try:
        aside = go_back(chosen.data, chosen.day)
    finally:
        lock.close()
    print(f"The shelf is as it was on {chosen.day}; the other database is kept as {aside}.")
    return 0


def _thin(chosen: argparse.Namespace) -> int:
    if chosen.days < 1:
        raise BadInput(f"--days is 1 or more, not {chosen.days}.")
    database_in(chosen.data)  # none is made where there is none
    lock = FolderLock(chosen.data)
    try:
        with closing(Store(chosen.data)) as store:
            rule = ThinningRule(days=chosen.days, files=chosen.files)
            thinned = store.thin(rule, remove=chosen.remove)
    finally:
        lock.close()
    what = f"{thinned.changes} changes and {thinned.files} saved files, {thinned.bytes / MB:.1f} MB"
    print(f"Removed {what}." if chosen.remove else f"{what} would go; --remove does it.")
    return 0


@contextmanager
def _told(what: str) -> Iterator[Progress]:
    """A bar of how far something is, where standard error is a terminal."""
    with tqdm(total=1.0, desc=what, bar_format="{desc} {percentage:.0f} %", disable=None) as bar:
        yield lambda share: bar.update(share - bar.n)
