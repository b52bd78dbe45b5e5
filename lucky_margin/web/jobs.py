"""Jobs: work that takes long enough to be followed and cancelled. The newest of a key wins."""

import asyncio
import logging
import uuid
from collections import OrderedDict
from collections.abc import Callable
from contextlib import suppress
from typing import Literal

from lucky_margin.core.errors import LuckyMarginError, NotFound
from lucky_margin.core.progress import Cancelled, Progress
from lucky_margin.web.job_results import JobResult
from lucky_margin.web.work_desk import Priority, WorkDesk

log = logging.getLogger("lucky_margin")

KEPT_JOBS = 100
"""Jobs that can be asked about; the oldest are forgotten."""

State = Literal["waiting", "running", "done", "failed", "cancelled"]

Work = Callable[[Progress], JobResult]


class Job:
    """One piece of work. What is said of it changes on the event loop alone."""

    def __init__(self, key: str) -> None:
        self.id = uuid.uuid4().hex
        self.key = key
        self.state: State = "waiting"
        self.progress = 0.0
        self.news = 0
        """Raised with everything that changes."""
        self.result: JobResult | None = None
        self.error: Exception | None = None
        self.is_cancelled = False
        self._changed = asyncio.Event()

    @property
    def is_over(self) -> bool:
        """Whether nothing of it can change any more."""
        return self.state in ("done", "failed", "cancelled")

    async def news_after(self, news: int, seconds: float) -> None:
        """Wait until there is more to tell than after ``news``, or for so long."""
        if self.news <= news and not self.is_over:
            with suppress(TimeoutError):
                await asyncio.wait_for(self._changed.wait(), seconds)

    async def over(self, seconds: float) -> None:
        """Wait until it is over, or for so long."""
        ends = asyncio.get_running_loop().time() + seconds
        while not self.is_over and (left := ends - asyncio.get_running_loop().time()) > 0:
            await self.news_after(self.news, left)

    def tell(self, state: State, progress: float) -> None:
        """Say what there is to say, to all who wait for news."""
        self.state, self.progress = state, progress
        self.news += 1
        self._changed.set()
        self._changed = asyncio.Event()


class Jobs:
    """The jobs of one application, done at its desk. Belongs to one event loop."""

    def __init__(self, desk: WorkDesk) -> None:
        self._desk = desk
        self._jobs: OrderedDict[str, Job] = OrderedDict()
        self._tasks: set[asyncio.Task[None]] = set()

    def start(self, key: str, work: Work, *, memory: int = 0) -> Job:
        """Begin ``work``, in place of what is under way for the same ``key``."""
        for older in self._jobs.values():
            if older.key == key:
                self._cancel(older)
        job = Job(key)
        self._jobs[job.id] = job
        while len(self._jobs) > KEPT_JOBS:
            _, oldest = self._jobs.popitem(last=False)
            self._cancel(oldest)
        task = asyncio.create_task(self._do(job, work, memory))
        self._tasks.add(task)
        task.add_done_callback(self._tasks.discard)
        return job

    def get(self, job_id: str) -> Job:
        """
        Raises:
            NotFound: there is no such job (any more).
        """
        try:
            return self._jobs[job_id]
        except KeyError:
            raise NotFound("This work is no longer known here; start it again.") from None

    def cancel(self, job_id: str) -> None:
        """Stop a job; one that is over stays as it is.

        Raises:
            NotFound: there is no such job (any more).
        """
        self._cancel(self.get(job_id))

    def close(self) -> None:
        """Stop all jobs; nobody follows them any more."""
        for job in self._jobs.values():
            self._cancel(job)

    def _cancel(self, job: Job) -> None:
        if not job.is_over:
            job.is_cancelled = True
            job.tell("cancelled", job.progress)

    async def _do(self, job: Job, work: Work, memory: int) -> None:
        loop = asyncio.get_running_loop()

        def told(share: float) -> None:
            if job.is_cancelled:
                raise Cancelled
            loop.call_soon_threadsafe(_tell_running, job, share)

        def run() -> JobResult:
            told(0)
            return work(told)

        try:
            job.result = await self._desk.run(run, Priority.JOB, memory=memory)
            state: State = "done"
        except Cancelled:
            return
        except Exception as error:
            if not isinstance(error, LuckyMarginError):
                log.error("a job failed: %s", job.key, exc_info=error)
            job.error = error
            state = "failed"
        if not job.is_cancelled:
            job.tell(state, 1.0)


def _tell_running(job: Job, share: float) -> None:
    if not job.is_over:
        job.tell("running", share)
