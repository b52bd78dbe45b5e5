"""``lucky-margin watch``: a folder whose photos are finished as they come."""

import argparse
import sys
import time
from collections.abc import Callable
from pathlib import Path

from lucky_margin.cli.batch import BatchOutcome, Stopped, finish_folder
from lucky_margin.cli.files import PHOTO_SUFFIXES
from lucky_margin.core.errors import BadInput, LuckyMarginError

POLL_SECONDS = 2.0
"""Between two looks; what is alike in both is taken to be written whole."""

Listing = dict[Path, tuple[int, int]]
"""When files were changed last, in nanoseconds, and their bytes."""


def watch_folder(chosen: argparse.Namespace, tell: Callable[[BatchOutcome], None]) -> None:
    """Finish the photos of a folder, and those that come into it or change, until somebody ends it.
    What is wrong is said; the next change has it tried again.

    Raises:
        BadInput: there is no such folder.
        Stopped: it was interrupted while it worked.
        KeyboardInterrupt: it was interrupted while it waited.
    """
    if not chosen.folder.is_dir():
        raise BadInput(f"{chosen.folder} is no folder; name one that photos come into.")
    finished, before = Listing(), Listing()
    while True:
        now = _listing(chosen)
        if now == before and now != finished:
            finished = now
            try:
                tell(finish_folder(chosen))
            except Stopped:
                raise
            except (LuckyMarginError, OSError) as error:
                print(error, file=sys.stderr)
        before = now
        time.sleep(POLL_SECONDS)


def _listing(chosen: argparse.Namespace) -> Listing:
    """The photos of the folder, and the table."""
    files = [path for path in chosen.folder.iterdir() if path.suffix.lower() in PHOTO_SUFFIXES]
    if not files:
        return {}
    found = {}
    for path in [*files, *([chosen.table] if chosen.table else [])]:
        try:
            stat = path.stat()
        except FileNotFoundError:
            continue  # it has just gone
        found[path] = (stat.st_mtime_ns, stat.st_size)
    return found
