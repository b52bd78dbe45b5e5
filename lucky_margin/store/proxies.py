"""Decoded photos and their halved copies on disk, so that no preview decodes an original again.

They can always be made again from the original, so the folder is bounded: the photos that were
used longest ago go first.
"""

import io
import os
import time
from pathlib import Path
from typing import cast

import numpy as np

from lucky_margin.core.sampling import halved
from lucky_margin.core.types import AnyPicture
from lucky_margin.store.files import GRACE_SECONDS, UNFINISHED, write_whole

MAX_PROXY_BYTES = 6_000_000_000

SMALLEST_SIDE = 64
"""Halving stops before a copy's short side gets under this many pixels."""


class ProxyStore:
    """Uncompressed pictures in a folder, read by mapping them into memory."""

    def __init__(self, folder: Path, max_bytes: int = MAX_PROXY_BYTES) -> None:
        self._folder = folder
        self._max_bytes = max_bytes
        folder.mkdir(parents=True, exist_ok=True)

    def load(self, sha256: str, number: int) -> AnyPicture | None:
        """The photo halved ``number`` times, or None when it is not kept."""
        path = self._path(sha256, number)
        try:
            mapped = np.load(path, mmap_mode="r")
            os.utime(path)
        except (FileNotFoundError, ValueError):
            return None
        return cast(AnyPicture, np.asarray(mapped))

    def keep(self, sha256: str, picture: AnyPicture) -> None:
        """Keep a decoded photo and all its halved copies.

        Raises:
            StorageFull: the disk took no more bytes.
        """
        number = 0
        while True:
            buffer = io.BytesIO()
            np.save(buffer, picture)
            write_whole(self._path(sha256, number), buffer.getbuffer(), durable=False)
            if min(picture.shape[:2]) < 2 * SMALLEST_SIDE:
                break
            picture = halved(picture)
            number += 1
        self._prune(sha256)

    def sweep(self) -> None:
        """Remove what was never finished."""
        oldest = time.time() - GRACE_SECONDS
        for path in self._folder.glob(f"{UNFINISHED}*"):
            if path.stat().st_mtime < oldest:
                path.unlink(missing_ok=True)

    def remove(self, sha256: str) -> None:
        """Forget the photo's pictures."""
        for path in self._folder.glob(f"{sha256}-*.npy"):
            path.unlink(missing_ok=True)

    def _path(self, sha256: str, number: int) -> Path:
        return self._folder / f"{sha256}-{number}.npy"

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
