"""What the routes share: the data folder, the drafts, and the desk for heavy work."""

import threading
from collections.abc import Callable
from contextlib import ExitStack
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, TypeVar

from cachetools import LRUCache, cachedmethod
from fastapi import Depends, Request

from lucky_margin.core.document import Identifier, Sha256, Value
from lucky_margin.core.export import ExportedFile
from lucky_margin.core.scene import Scene
from lucky_margin.store import FolderLock, Store
from lucky_margin.web.backups import Backups
from lucky_margin.web.drafts import Drafts
from lucky_margin.web.examples import DRAFT, example
from lucky_margin.web.jobs import Jobs
from lucky_margin.web.laid import Layings
from lucky_margin.web.work_desk import BYTES_PER_PIXEL, CUT_OUT_BYTES_PER_PIXEL, Priority, WorkDesk

Measured = TypeVar("Measured")

WEIGHED_BYTES = 200_000_000
"""How many bytes of weighed but not yet saved files are remembered."""


@dataclass(frozen=True)
class ExportKey:
    """Which file was weighed: one size of one revision, or its reveal."""

    finish_id: str
    revision: int
    size_id: str
    reveal: bool = False


class ExportCache:
    """Files that were weighed and may be saved next; the oldest are forgotten first. Several that
    ask for one at the same time wait for each other."""

    def __init__(self) -> None:
        self._files: LRUCache[ExportKey, ExportedFile] = LRUCache(
            WEIGHED_BYTES, lambda file: len(file.data)
        )
        self._changed = threading.Condition()

    @cachedmethod(
        lambda self: self._files,
        key=lambda _self, key, _make: key,
        condition=lambda self: self._changed,
    )
    def get_or_make(self, _key: ExportKey, make: Callable[[], ExportedFile]) -> ExportedFile:
        """The file kept under the key, or the one that ``make`` gives, which is kept."""
        return make()


class InDraft(Value):
    """One size of a draft, which is named by its SHA-256 (see ``/drafts``)."""

    model_config = example(draft=DRAFT, size_id="main")

    draft: Sha256
    size_id: Identifier


class AppState:
    """One application's state; nothing of it is module-global. ``memory`` is how many bytes work
    under way may take, half of the computer's if not said.

    Raises:
        UnusableFolder: the data folder is a newer version's, or another process holds it.
    """

    def __init__(self, data: Path, memory: int | None = None) -> None:
        self._lock = FolderLock(data)
        with ExitStack() as undo:
            undo.callback(self._lock.close)
            self.store = Store(data)
            undo.pop_all()
        self.drafts = Drafts(self.store.photos)
        self.layings = Layings()
        self.desk = WorkDesk(budget=memory)
        self.jobs = Jobs(self.desk)
        self.weighed = ExportCache()
        self.backups = Backups()

    def scene(self, named: InDraft) -> Scene:
        """
        Raises:
            UnknownDraft: the draft has to be sent again.
            NotFound: it has no such size.
        """
        return self.drafts.get(named.draft).scene(named.size_id)

    async def measured(self, scene: Scene, measure: Callable[[], Measured]) -> Measured:
        """What ``measure`` returns, at its turn: it looks at the scene's photo or picture."""
        return await self.desk.run(measure, Priority.CHECK, memory=bytes_to_draw(scene))

    def close(self) -> None:
        """Stop jobs, finish what else is under way, and let the data folder go."""
        self.jobs.close()
        self.desk.close()
        self.backups.close()
        self.store.close()
        self._lock.close()


def bytes_to_draw(scene: Scene, scale: float = 1.0) -> int:
    """The memory that drawing a scene at a scale takes at its peak."""
    width, height = scene.sides
    drawing = round(width * height * scale * scale * BYTES_PER_PIXEL)
    if not scene.cut_out.on:
        return drawing
    return drawing + scene.facts.width * scene.facts.height * CUT_OUT_BYTES_PER_PIXEL


def _app_state(request: Request) -> AppState:
    state: AppState = request.app.state.shared
    return state


AppStateDep = Annotated[AppState, Depends(_app_state)]
"""The application's state, as a route's argument."""
