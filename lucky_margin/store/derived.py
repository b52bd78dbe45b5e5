"""Pictures that can be made again from a photo, such as its halved copies, kept on disk so that
none of them is worked out twice. They are read by mapping them into memory.

The folder is bounded: the pictures that were used longest ago go first.
"""

import os
import threading
import time
import weakref
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import shared
from lucky_margin.core.scene import DerivedKey
from lucky_margin.store.files import GRACE_SECONDS, UNFINISHED, whole_file

MAX_DERIVED_BYTES = 6_000_000_000


class DerivedStore:
    """Arrays in a folder, each under what it was made from. Safe to use from several threads."""

    def __init__(self, folder: Path, max_bytes: int = MAX_DERIVED_BYTES) -> None:
        self._folder = folder
        self._max_bytes = max_bytes
        self._making: weakref.WeakValueDictionary[DerivedKey, threading.Lock] = (
            weakref.WeakValueDictionary()
        )
        self._guard = threading.Lock()
        folder.mkdir(parents=True, exist_ok=True)

    def get_or_make(self, key: DerivedKey, make: Callable[[], NDArray[Any]]) -> NDArray[Any]:
        """The array kept under ``key``, or the one that ``make`` gives, which is kept. However many
        ask, it is made once.

        Raises:
            StorageFull: the disk took no more bytes.
        """
        kept = self.load(key)
        if kept is not None:
            return kept
        with self._guard:
            lock = self._making.setdefault(key, threading.Lock())
        with lock:
            kept = self.load(key)
            return self.keep(key, make()) if kept is None else kept

    def load(self, key: DerivedKey) -> NDArray[Any] | None:
        """The array kept under ``key``; None when there is none."""
        path = self._path(key)
        try:
            mapped = np.load(path, mmap_mode="r")
            os.utime(path)
        except (FileNotFoundError, ValueError):
            return None
        return np.asarray(mapped)

    def keep(self, key: DerivedKey, array: NDArray[Any]) -> NDArray[Any]:
        """Keep an array, and give it as it is read from disk.

        Raises:
            StorageFull: the disk took no more bytes.
        """
        with whole_file(self._path(key), durable=False) as file:
            np.save(file, array)
        self._prune(key.photo)
        kept = self.load(key)
        return shared(array) if kept is None else kept

    def remove(self, photo: str) -> None:
        """Forget everything made from a photo."""
        for path in self._folder.glob(f"{photo}-*.npy"):
            path.unlink(missing_ok=True)

    def sweep(self) -> None:
        """Remove what was never finished."""
        oldest = time.time() - GRACE_SECONDS
        for path in self._folder.glob(f"{UNFINISHED}*"):
            if path.stat().st_mtime < oldest:
                path.unlink(missing_ok=True)

    def _path(self, key: DerivedKey) -> Path:
        return self._folder / f"{key.name}.npy"

    def _prune(self, spared: str) -> None:
        """Remove the least recently used files over the bound, but none of photo ``spared``."""
        found = [(path, path.stat()) for path in self._folder.glob("*.npy")]
        used = sum(stat.st_size for _, stat in found)
        for path, stat in sorted(found, key=lambda item: item[1].st_mtime):
            if used <= self._max_bytes:
                return
            if not path.name.startswith(spared):
                path.unlink(missing_ok=True)
                used -= stat.st_size
