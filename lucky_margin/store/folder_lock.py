"""One service to a data folder: two would sweep away what the other is just writing."""

import fcntl
from pathlib import Path

from lucky_margin.core.errors import UnusableFolder


class FolderLock:
    """Holds a folder, which is made when missing, until it is closed or the process ends.

    Raises:
        UnusableFolder: another process holds it.
    """

    def __init__(self, folder: Path) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self._file = (folder / "in-use").open("wb")
        try:
            fcntl.flock(self._file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as error:
            self._file.close()
            raise UnusableFolder(
                f"Another Lucky Margin is working on the data folder “{folder}”; "
                "stop that one, or set LUCKY_MARGIN_DATA to another folder."
            ) from error

    def close(self) -> None:
        """Let the folder go."""
        self._file.close()
