"""What the routes share: the data folder, the preview desk and the files that were weighed."""

import threading
from collections import OrderedDict
from collections.abc import Callable
from contextlib import ExitStack
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated

from fastapi import Depends, Request, Response

from lucky_margin.core.export import ExportedFile
from lucky_margin.store import FolderLock, Store
from lucky_margin.web.preview_desk import PreviewDesk

WEIGHED_BYTES = 200_000_000
"""How many bytes of weighed but not yet saved files are remembered."""


@dataclass(frozen=True)
class WeighKey:
    """Which file was weighed: one size of one revision."""

    finish_id: str
    revision: int
    size_id: str


class Weighed:
    """Files that were weighed and may be saved next; the oldest are forgotten first."""

    def __init__(self) -> None:
        self._files: OrderedDict[WeighKey, ExportedFile] = OrderedDict()
        self._lock = threading.Lock()

    def get_or_make(self, key: WeighKey, make: Callable[[], ExportedFile]) -> ExportedFile:
        with self._lock:
            if key in self._files:
                self._files.move_to_end(key)
                return self._files[key]
        made = make()
        with self._lock:
            self._files[key] = made
            while len(self._files) > 1 and self._used() > WEIGHED_BYTES:
                self._files.popitem(last=False)
        return made

    def _used(self) -> int:
        return sum(len(file.data) for file in self._files.values())


class Studio:
    """One application's state; nothing of it is module-global.

    Raises:
        UnusableFolder: the data folder is a newer version's, or another process holds it.
    """

    def __init__(self, data: Path) -> None:
        self._lock = FolderLock(data)
        with ExitStack() as undo:
            undo.callback(self._lock.close)
            self.store = Store(data)
            undo.pop_all()
        self.desk: PreviewDesk[Response] = PreviewDesk()
        self.weighed = Weighed()

    def close(self) -> None:
        self.desk.close()
        self.store.close()
        self._lock.close()


def _studio(request: Request) -> Studio:
    studio: Studio = request.app.state.studio
    return studio


StudioHere = Annotated[Studio, Depends(_studio)]
"""The application's studio, as a route's argument."""
