"""Whether everything of a data folder is there and is what it was, and what is there in vain."""

import hashlib
import sqlite3
import time
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path

from lucky_margin.core.progress import Progress, untold
from lucky_margin.store.backup import files_of
from lucky_margin.store.files import GRACE_SECONDS
from lucky_margin.store.snapshots import database_in, is_sound

_NAMED = {
    "originals": "SELECT sha256, name FROM photos",
    "exports": "SELECT sha256, file_name AS name FROM exports",
    "fonts": "SELECT sha256, name FROM fonts"
    " UNION SELECT key, 'a font' FROM refers_to WHERE kind = 'font'",
    "mattes": "SELECT sha256, 'a subject that was found' AS name FROM mattes",
    "tables": "SELECT key AS sha256, 'a colour table' AS name FROM refers_to WHERE kind = 'table'",
}
"""What names the files of each folder."""


@dataclass
class Soundness:
    """What was found in a data folder; sizes are in bytes."""

    database: bool = True
    checked: int = 0
    damaged: list[Path] = field(default_factory=list)
    missing: list[str] = field(default_factory=list)
    """In words: what is missing and from where."""
    unused: list[Path] = field(default_factory=list)
    unused_bytes: int = 0
    derived_bytes: int = 0

    @property
    def is_sound(self) -> bool:
        """Whether nothing is damaged or missing."""
        return self.database and not self.damaged and not self.missing


def look_over(folder: Path, progress: Progress = untold, *, in_use: bool = False) -> Soundness:
    """Verify the database and the SHA-256 of every file of a data ``folder``. While it is
    ``in_use``, no file younger than a day counts as unused: it may be on its way in.

    Raises:
        NotFound: there is no shelf in it.
    """
    found = Soundness()
    database = database_in(folder).absolute().as_uri()
    with closing(sqlite3.connect(f"{database}?mode=ro", uri=True)) as connection:
        if not is_sound(connection):
            found.database = False
            return found
        named = {
            name: dict(connection.execute(script).fetchall()) for name, script in _NAMED.items()
        }
        kept = "\n".join(row[0] for row in connection.execute("SELECT value FROM kept"))
    paths = list(files_of(folder))
    oldest = time.time() - GRACE_SECONDS if in_use else time.time()
    for number, path in enumerate(paths, 1):
        if path.is_file():  # it may have been deleted since
            _look_at(path, named[path.parents[1].name], kept, oldest, found)
        progress(number / len(paths))
    for name, wanted in named.items():
        here = {path.name for path in paths if path.parents[1].name == name}
        found.missing += [f"{name}: {words}" for sha, words in wanted.items() if sha not in here]
    found.derived_bytes = sum(path.stat().st_size for path in derived_in(folder))
    return found


def derived_in(folder: Path) -> Iterator[Path]:
    """The files of pictures that can be made again."""
    return (folder / "derived").glob("*.npy")


def mend(found: Soundness) -> None:
    """Remove what is there in vain, and damaged files, which are of no use: a damaged original
    is then asked for again."""
    for path in (*found.unused, *found.damaged):
        path.unlink(missing_ok=True)


def _look_at(path: Path, named: dict[str, str], kept: str, oldest: float, found: Soundness) -> None:
    with path.open("rb") as file:
        is_whole = hashlib.file_digest(file, "sha256").hexdigest() == path.name
    found.checked += 1
    if not is_whole:
        found.damaged.append(path)
    elif path.name not in named and path.name not in kept and path.stat().st_mtime <= oldest:
        found.unused.append(path)
        found.unused_bytes += path.stat().st_size
