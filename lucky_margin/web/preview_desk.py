"""Drawing previews: the newest request of a channel wins, and nothing queues up behind it."""

import asyncio
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from itertools import count
from typing import Generic, TypeVar

Drawn = TypeVar("Drawn")


class Superseded(Exception):
    """A newer request of the same channel took this one's place before it was drawn."""


@dataclass
class _Job(Generic[Drawn]):
    urgency: tuple[int, int]
    draw: Callable[[], Drawn]
    future: "asyncio.Future[Drawn]"


class PreviewDesk(Generic[Drawn]):
    """One drawing at a time, the most urgent first; at most one waits per channel."""

    def __init__(self) -> None:
        self._pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="preview")
        self._waiting: dict[str, _Job[Drawn]] = {}
        self._order = count()
        self._busy = False

    async def draw(self, channel: str, priority: int, draw: Callable[[], Drawn]) -> Drawn:
        """What ``draw`` returns; a lower ``priority`` goes first.

        Raises:
            Superseded: ``channel`` was asked again before this request's turn came.
        """
        loop = asyncio.get_running_loop()
        older = self._waiting.pop(channel, None)
        if older and not older.future.done():
            older.future.set_exception(Superseded)
        future: asyncio.Future[Drawn] = loop.create_future()
        job = _Job((priority, next(self._order)), draw, future)
        self._waiting[channel] = job
        self._start_next()
        return await future

    def close(self) -> None:
        self._pool.shutdown(cancel_futures=True)

    def _start_next(self) -> None:
        if self._busy or not self._waiting:
            return None
        channel = min(self._waiting, key=lambda name: self._waiting[name].urgency)
        job = self._waiting.pop(channel)
        if job.future.cancelled():  # the client went away
            return self._start_next()
        self._busy = True
        running = asyncio.get_running_loop().run_in_executor(self._pool, job.draw)
        running.add_done_callback(lambda done: self._finish(job, done))
        return None

    def _finish(self, job: _Job[Drawn], done: "asyncio.Future[Drawn]") -> None:
        self._busy = False
        error = done.exception()
        if job.future.done():
            pass
        elif error:
            job.future.set_exception(error)
        else:
            job.future.set_result(done.result())
        self._start_next()
