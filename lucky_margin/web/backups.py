"""The backup that was made last: an archive that may be larger than the memory should hold."""

import tempfile
import threading
import uuid
from pathlib import Path

from lucky_margin.core.errors import NotFound
from lucky_margin.core.progress import Progress
from lucky_margin.store import Store, full_disk_is_said
from lucky_margin.web.job_results import BackupMade


class Backups:
    """Keeps the newest archive until there is a newer one, or until it is closed."""

    def __init__(self) -> None:
        self._folder = tempfile.TemporaryDirectory(prefix="lucky-margin-")
        self._made: Path | None = None
        self._lock = threading.Lock()

    def make(self, store: Store, progress: Progress) -> BackupMade:
        """Write the whole shelf as an archive.

        Raises:
            Cancelled: by ``progress``.
            StorageFull: the disk took no more bytes.
        """
        path = Path(self._folder.name) / f"{uuid.uuid4().hex}.zip"
        try:
            with full_disk_is_said(), path.open("wb") as file:
                store.write_backup(file, progress)
        except BaseException:
            path.unlink(missing_ok=True)
            raise
        with self._lock:
            older, self._made = self._made, path
        if older:
            older.unlink(missing_ok=True)
        return BackupMade(id=path.stem, bytes=path.stat().st_size)

    def path(self, backup_id: str) -> Path:
        """
        Raises:
            NotFound: it is not the newest one.
        """
        made = self._made
        if made is None or made.stem != backup_id:
            raise NotFound("This backup is no longer here; make it again.")
        return made

    def close(self) -> None:
        """Remove the archive."""
        self._folder.cleanup()
