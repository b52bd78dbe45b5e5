"""``lucky-margin batch``: a folder of photos finished alike, several at a time.

What is done is written down beside the files, so that the same command goes on where it stopped.
"""

import argparse
import json
import os
import shutil
import signal
import sys
from concurrent.futures import (
    Executor,
    Future,
    ProcessPoolExecutor,
    ThreadPoolExecutor,
    as_completed,
)
from concurrent.futures.process import BrokenProcessPool
from contextlib import closing
from dataclasses import dataclass
from hashlib import sha256
from multiprocessing import get_context
from pathlib import Path

from pydantic import TypeAdapter, ValidationError
from tqdm import tqdm

from lucky_margin.cli.data import data_folder
from lucky_margin.cli.files import PHOTO_SUFFIXES, write
from lucky_margin.core.batch import Material, Model, finish_photo, names_of
from lucky_margin.core.document import NO_ROW, Row
from lucky_margin.core.errors import BadInput, FileExists, LuckyMarginError
from lucky_margin.core.export import FINISH, STYLE, PackageFiles, read_package
from lucky_margin.core.words_table import read_table, rows_for
from lucky_margin.store import Store, files_of, whole_file

JOURNAL = "batch.json"
"""What was done, in the folder of the finished files."""

_UNFINISHED = ".unfinished"


class Stopped(BadInput):
    """A batch was ended on its way."""


@dataclass(frozen=True, eq=False)
class Wanted:
    """A photo to finish: its file, the finish's name and its row of the table."""

    path: Path
    name: str
    row: Row


@dataclass(frozen=True)
class Done:
    """What was made of a photo: by what, and which files; and what asks for a look at them."""

    made_by: str
    files: tuple[str, ...]
    looks: tuple[str, ...]
    subject_is_doubtful: bool


@dataclass
class BatchOutcome:
    """How many photos were finished now, were finished before, failed, and are doubtful."""

    finished: int = 0
    known: int = 0
    failed: int = 0
    doubtful: int = 0


def finish_folder(chosen: argparse.Namespace) -> BatchOutcome:
    """Finish every photo of the folder that is not finished yet.

    Raises:
        LuckyMarginError: the style, the finish, the table or the folder can't be used.
    """
    model, files = _model(chosen)
    if chosen.out.resolve() == chosen.folder.resolve():
        raise BadInput("OUT has to be another folder than the one with the photos.")
    wanted = _wanted(chosen.folder, chosen.table)
    chosen.out.mkdir(parents=True, exist_ok=True)
    journal = Journal(chosen.out)
    key = sha256(model.model_dump_json().encode()).hexdigest()
    outcome = BatchOutcome()
    left = {}
    for one in wanted:
        made_by = _made_by(one, key)
        if journal.has(one.name, made_by):
            outcome.known += 1
        else:
            left[one] = made_by
    if left:
        _finish_all(left, model, files, journal, chosen, outcome)
        journal.clear()
    return outcome


def _finish_all(
    left: dict[Wanted, str],
    model: Model,
    files: PackageFiles,
    journal: "Journal",
    chosen: argparse.Namespace,
    outcome: BatchOutcome,
) -> None:
    Material.of(model, files)  # what is wrong with it is said here, not by every process
    workers = min(chosen.jobs or os.cpu_count() or 1, len(left))
    with _pool(workers, model, files) as pool:
        under_way = {
            pool.submit(_finish_one, one, made_by, journal.unfinished(one.name)): one
            for one, made_by in left.items()
        }
        shown = tqdm(
            as_completed(under_way),
            total=len(under_way),
            unit="photo",
            disable=not sys.stderr.isatty(),
        )
        try:
            for future in shown:
                _take(future, under_way[future], journal, chosen.replace, outcome)
        except (KeyboardInterrupt, BrokenProcessPool) as error:
            pool.shutdown(wait=False, cancel_futures=True)
            stopped = "Stopped" if isinstance(error, KeyboardInterrupt) else "A process was ended"
            raise Stopped(f"{stopped}; the same command goes on from here.") from None


def _pool(workers: int, model: Model, files: PackageFiles) -> Executor:
    """Processes that finish photos; a single one needs none of its own."""
    if workers == 1:
        return ThreadPoolExecutor(1, initializer=_prepare, initargs=(model, files))
    context = get_context("spawn")  # a fork of a process with threads may hang
    return ProcessPoolExecutor(workers, context, _prepare_process, (model, files))


def _take(
    future: "Future[Done]",
    one: Wanted,
    journal: "Journal",
    replace: bool,
    outcome: BatchOutcome,
) -> None:
    """Put a photo's files in their place, or say why there are none."""
    try:
        done = future.result()
        journal.keep(one.name, done, replace)
    except (LuckyMarginError, OSError) as error:
        outcome.failed += 1
        print(f"{one.path}: {error}", file=sys.stderr)
        return
    outcome.finished += 1
    outcome.doubtful += done.subject_is_doubtful
    for look in done.looks:
        print(f"{one.path}: {look}", file=sys.stderr)


class Journal:
    """What is finished in a folder, and the places in which files lie until they are whole."""

    _adapter = TypeAdapter(dict[str, Done])

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self.clear()
        try:
            self._done = self._adapter.validate_json((folder / JOURNAL).read_bytes())
        except FileNotFoundError:
            self._done = {}
        except ValidationError as error:
            raise BadInput(f"{folder / JOURNAL} is damaged; remove it to begin anew.") from error

    def has(self, name: str, made_by: str) -> bool:
        """Whether a photo is finished in this way, with all of its files."""
        done = self._done.get(name)
        return (
            done is not None
            and done.made_by == made_by
            and all((self._folder / file).is_file() for file in done.files)
        )

    def clear(self) -> None:
        """Remove what was begun and never finished."""
        shutil.rmtree(self._folder / _UNFINISHED, ignore_errors=True)

    def unfinished(self, name: str) -> Path:
        """A folder for the files of a photo that is under way."""
        return self._folder / _UNFINISHED / sha256(name.encode()).hexdigest()[:16]

    def keep(self, name: str, done: Done, replace: bool) -> None:
        """Move a photo's files where they belong, and write that down.

        Raises:
            FileExists: something else is there that may not be replaced.
        """
        known = self._done.get(name)
        own = set(known.files) if known else set()
        for file in done.files:
            if file not in own and not replace and (self._folder / file).exists():
                raise FileExists(
                    f"{self._folder / file} already exists; add --replace to overwrite it."
                )
        # Written down before they are moved: what is moved next is then known as the photo's own.
        self._done[name] = done
        with whole_file(self._folder / JOURNAL) as target:
            target.write(self._adapter.dump_json(self._done, indent=1))
        for file in done.files:
            (self.unfinished(name) / file).replace(self._folder / file)
        shutil.rmtree(self.unfinished(name))
        for file in own - set(done.files):
            (self._folder / file).unlink(missing_ok=True)


def _model(chosen: argparse.Namespace) -> tuple[Model, PackageFiles]:
    """The style or the finish that an option names: a file that holds one, or one of the shelf."""
    named: str = chosen.like or chosen.style
    if named.lower().endswith(".zip"):
        return read_package(FINISH if chosen.like else STYLE, Path(named).read_bytes())
    with closing(Store(data_folder())) as store:
        kept = store.finishes if chosen.like else store.styles
        model = kept.named(named)
        return model, files_of(store, model)


def _wanted(folder: Path, table: Path | None) -> list[Wanted]:
    if not folder.is_dir():
        raise BadInput(f"{folder} is no folder; name one with photos in it.")
    paths = sorted(path for path in folder.iterdir() if path.suffix.lower() in PHOTO_SUFFIXES)
    if not paths:
        raise BadInput(f"There are no photos in {folder}.")
    rows = [NO_ROW] * len(paths)
    if table:
        rows = rows_for(read_table(table.read_bytes()), [path.name for path in paths])
    names = names_of([path.stem for path in paths])
    return [Wanted(*one) for one in zip(paths, names, rows, strict=True)]


def _made_by(one: Wanted, model: str) -> str:
    """What a photo's files depend on: its bytes, what it is made like, its name and its row."""
    photo = sha256(one.path.read_bytes()).hexdigest()
    parts = json.dumps([photo, model, one.name, one.row], sort_keys=True)
    return sha256(parts.encode()).hexdigest()


_material: Material
"""Where photos are finished: what the batch makes them like."""


def _prepare(model: Model, files: PackageFiles) -> None:
    global _material
    _material = Material.of(model, files)


def _prepare_process(model: Model, files: PackageFiles) -> None:
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the parent is interrupted, and stops the others
    _prepare(model, files)


def _finish_one(one: Wanted, made_by: str, folder: Path) -> Done:
    """Write the files of a photo into ``folder``."""
    finished = finish_photo(one.path.read_bytes(), one.path.name, one.name, _material, one.row)
    shutil.rmtree(folder, ignore_errors=True)
    for file in finished.files:
        write(file, folder / file.file_name, replace=False)
    return Done(
        made_by,
        tuple(file.file_name for file in finished.files),
        finished.looks,
        finished.subject_is_doubtful,
    )
