"""One desk for all heavy work: what the screen waits for first, and no more at a time than
threads and memory allow. What has to wait, waits; nothing is refused."""

import asyncio
import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from enum import IntEnum
from functools import partial
from itertools import count
from typing import Any, TypeVar

Result = TypeVar("Result")

BYTES_PER_PIXEL = 20
"""What drawing or decoding takes at its peak for each pixel, measured on 100 megapixels."""

CUT_OUT_BYTES_PER_PIXEL = 25
"""What cutting out the subject takes besides, for each pixel of the photo; measured on 12 to 48
megapixels."""

LEAST_THREADS = 3
"""For the screen, for jobs, and for what is shorter than they are."""


class Priority(IntEnum):
    """What goes first. ``STAGE`` and ``PROOF`` are pictures that the screen waits for, ``CHECK`` is
    all that somebody waits for besides, such as photos that come in."""

    STAGE = 0
    PROOF = 1
    CHECK = 2
    JOB = 3
    THUMBNAIL = 4


class Superseded(Exception):
    """A newer request of the same channel took this one's place before its turn came."""


@dataclass(eq=False)
class _Task:
    priority: Priority
    number: int
    work: Callable[[], Any]
    memory: int
    future: "asyncio.Future[Any]"

    @property
    def is_for_screen(self) -> bool:
        return self.priority <= Priority.PROOF

    @property
    def can_wait(self) -> bool:
        """Whether nobody sits before it: an export under way, a thumbnail."""
        return self.priority >= Priority.JOB

    @property
    def urgency(self) -> tuple[int, int]:
        return self.priority, self.number


class WorkDesk:
    """Runs work in threads, the most urgent first. Belongs to one event loop.

    One thread draws for the screen alone, one picture at a time, since drawing takes all cores;
    another is kept from jobs and thumbnails, so that no long work is in the way of checks or of
    photos that come in.
    """

    def __init__(self, threads: int | None = None, budget: int | None = None) -> None:
        self._threads = max(LEAST_THREADS, threads or os.cpu_count() or 1)
        self._budget = budget or _half_of_memory()
        self._pool = ThreadPoolExecutor(self._threads, thread_name_prefix="work")
        self._waiting: list[_Task] = []
        self._running: set[_Task] = set()
        self._newest: dict[str, _Task] = {}
        self._numbers = count()

    async def run(
        self,
        work: Callable[[], Result],
        priority: Priority,
        *,
        channel: str | None = None,
        memory: int = 0,
    ) -> Result:
        """What ``work`` returns. At most one of a ``channel`` waits: the newest. ``memory`` is what
        it takes at its peak, in bytes.

        Raises:
            Superseded: ``channel`` was asked again before this request's turn came.
        """
        future: asyncio.Future[Result] = asyncio.get_running_loop().create_future()
        task = _Task(priority, next(self._numbers), work, memory, future)
        if channel is not None:
            self._supersede(channel, task)
        self._waiting.append(task)
        self._waiting.sort(key=lambda one: one.urgency)
        self._start()
        try:
            return await future
        finally:
            if channel is not None and self._newest.get(channel) is task:
                del self._newest[channel]

    def close(self) -> None:
        """Take no more work, and wait for what is under way."""
        self._pool.shutdown(cancel_futures=True)

    def _supersede(self, channel: str, task: _Task) -> None:
        older = self._newest.get(channel)
        if older in self._waiting:
            self._waiting.remove(older)
            if not older.future.done():
                older.future.set_exception(Superseded)
        self._newest[channel] = task

    def _start(self) -> None:
        self._waiting = [task for task in self._waiting if not task.future.done()]
        for task in list(self._waiting):
            if not self._has_thread_for(task):
                continue
            if not self._has_memory_for(task):
                return  # nothing less urgent goes before it, or its turn might never come
            self._waiting.remove(task)
            self._running.add(task)
            running = asyncio.get_running_loop().run_in_executor(self._pool, task.work)
            running.add_done_callback(partial(self._finish, task))

    def _has_thread_for(self, task: _Task) -> bool:
        alike = [one for one in self._running if one.is_for_screen == task.is_for_screen]
        if task.is_for_screen:
            return not alike
        can_wait = [one for one in alike if one.can_wait]
        if task.can_wait and len(can_wait) >= self._threads - 2:
            return False
        return len(alike) < self._threads - 1

    def _has_memory_for(self, task: _Task) -> bool:
        used = sum(one.memory for one in self._running)
        return not self._running or used + task.memory <= self._budget

    def _finish(self, task: _Task, done: "asyncio.Future[Any]") -> None:
        self._running.discard(task)
        if done.cancelled():  # the service is closing
            task.future.cancel()
            return
        error = done.exception()
        if task.future.done():  # who asked went away
            pass
        elif error:
            task.future.set_exception(error)
        else:
            task.future.set_result(done.result())
        self._start()


def _half_of_memory() -> int:
    """Half of the computer's memory, in bytes."""
    return os.sysconf("SC_PAGE_SIZE") * os.sysconf("SC_PHYS_PAGES") // 2
