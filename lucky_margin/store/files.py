"""Files by the SHA-256 of their bytes: written once, whole, and never changed."""

import hashlib
import os
import tempfile
from pathlib import Path

from lucky_margin.store.database import full_disk_is_said


class FileStore:
    """A folder of files, each named by the SHA-256 of its bytes."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        folder.mkdir(parents=True, exist_ok=True)

    def path(self, sha256: str) -> Path:
        """Where the file is, or would be.

        Raises:
            ValueError: not a SHA-256, so that no name can lead out of the folder.
        """
        if len(sha256) != 64 or not set(sha256) <= set("0123456789abcdef"):
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
            write_whole(self.path(sha256), data)
        return sha256

    def read(self, sha256: str) -> bytes:
        """The file's bytes.

        Raises:
            FileNotFoundError: there is no such file.
        """
        return self.path(sha256).read_bytes()

    def remove(self, sha256: str) -> None:
        """Remove the file, if it is there."""
        self.path(sha256).unlink(missing_ok=True)


def write_whole(path: Path, data: bytes | memoryview) -> None:
    """Write a file that appears at ``path`` complete or not at all, even in a crash.

    Raises:
        StorageFull: the disk took no more bytes.
    """
    with full_disk_is_said():
        path.parent.mkdir(parents=True, exist_ok=True)
        handle, temporary = tempfile.mkstemp(dir=path.parent, prefix=".new-")
        try:
            with os.fdopen(handle, "wb") as file:
                file.write(data)
                file.flush()
                os.fsync(file.fileno())
            os.replace(temporary, path)
        except BaseException:
            Path(temporary).unlink(missing_ok=True)
            raise
