"""Files by the SHA-256 of their bytes: written once, whole, and never changed."""

import hashlib
import os
import re
import tempfile
import threading
import time
import weakref
from collections.abc import Container, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import BinaryIO

from lucky_margin.store.database import full_disk_is_said

GRACE_SECONDS = 86_400
"""How old something unfinished has to be before it is swept away; younger, it may be under way."""

UNFINISHED = ".new-"

FILE_NAME = re.compile("[0-9a-f]{64}")
"""A SHA-256 in hexadecimal digits."""


class FileStore:
    """A folder of files, each named by the SHA-256 of its bytes."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._adding: weakref.WeakValueDictionary[str, threading.Lock] = (
            weakref.WeakValueDictionary()
        )
        self._guard = threading.Lock()
        folder.mkdir(parents=True, exist_ok=True)

    def path(self, sha256: str) -> Path:
        """Where the file is, or would be.

        Raises:
            ValueError: not a SHA-256, so that no name can lead out of the folder.
        """
        if not FILE_NAME.fullmatch(sha256):
            raise ValueError(f"not a SHA-256: {sha256!r}")
        return self._folder / sha256[:2] / sha256

    def __contains__(self, sha256: str) -> bool:
        return self.path(sha256).is_file()

    def add(self, data: bytes) -> str:
        """Keep ``data`` and return its SHA-256. The file appears whole or not at all.

        Raises:
            StorageFull: the disk took no more bytes.
        """
        sha256 = hashlib.sha256(data).hexdigest()
        if sha256 not in self:
            with whole_file(self.path(sha256)) as file:
                file.write(data)
        return sha256

    @contextmanager
    def adding(self, data: bytes) -> Iterator[str]:
        """Keep ``data`` while something is done that needs it, and go on keeping it when that
        succeeds; where it fails, a file that was not here before is removed again.

        The same bytes are added by one at a time.

        Raises:
            StorageFull: the disk took no more bytes.
        """
        sha256 = hashlib.sha256(data).hexdigest()
        with self._guard:
            lock = self._adding.setdefault(sha256, threading.Lock())
        with lock:
            was_here = sha256 in self
            try:
                yield self.add(data)
            except BaseException:
                if not was_here:
                    self.remove(sha256)
                raise

    def read(self, sha256: str) -> bytes:
        """The file's bytes.

        Raises:
            FileNotFoundError: there is no such file.
        """
        return self.path(sha256).read_bytes()

    def remove(self, sha256: str) -> None:
        """Remove the file, if it is there."""
        self.path(sha256).unlink(missing_ok=True)

    def sweep(self, wanted: Container[str] | None = None) -> None:
        """Remove what was never finished and, given the ``wanted`` SHA-256s, all other files;
        only what is older than a day."""
        oldest = time.time() - GRACE_SECONDS
        for path in self._folder.glob("*/*"):
            is_waste = path.name.startswith(UNFINISHED) or (
                wanted is not None and path.name not in wanted
            )
            if is_waste and path.stat().st_mtime < oldest:
                path.unlink(missing_ok=True)


@contextmanager
def whole_file(path: Path, *, durable: bool = True) -> Iterator[BinaryIO]:
    """A file to write to that appears at ``path`` complete or not at all, even in a crash.

    A ``durable`` one is still there after a power cut.

    Raises:
        StorageFull: the disk took no more bytes.
    """
    with full_disk_is_said():
        path.parent.mkdir(parents=True, exist_ok=True)
        handle, temporary = tempfile.mkstemp(dir=path.parent, prefix=UNFINISHED)
        try:
            with os.fdopen(handle, "wb") as file:
                yield file
                file.flush()
                if durable:
                    os.fsync(file.fileno())
            os.replace(temporary, path)
        except BaseException:
            Path(temporary).unlink(missing_ok=True)
            raise
        if durable:
            _sync_folder(path.parent)
            _sync_folder(path.parent.parent)


def _sync_folder(folder: Path) -> None:
    """Have the names in a folder written; until then a new file may be lost in a power cut."""
    handle = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
