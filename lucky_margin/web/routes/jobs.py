"""Following and cancelling long work. An answer waits for news, but never for long."""

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import Field

from lucky_margin.core.document import Value
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.job_results import JobResult
from lucky_margin.web.jobs import Job, State
from lucky_margin.web.problems import Problem, problem_of

router = APIRouter(prefix="/jobs", tags=["jobs"])

LONGEST_WAIT = 15.0
"""Seconds that an answer waits for news."""

QUICK = 0.2
"""Seconds in which most work is done, so that its result comes with the first answer."""

JobId = Annotated[str, Field(pattern=r"^[0-9a-f]{32}$")]


class JobTold(Value):
    """How far a job has come; its result when it is done, the problem when it failed."""

    id: JobId
    news: int = Field(description="Raised with every change; name it to wait for the next one.")
    state: State
    progress: float = Field(description="The share that is done, 0..1.")
    result: JobResult | None
    problem: Problem | None


@router.get("/{job_id}")
async def follow(
    job_id: JobId, state: AppStateDep, news: Annotated[int, Query(ge=-1, lt=2**31)] = -1
) -> JobTold:
    """How far a job has come, as soon as there is more to tell than after ``news``."""
    job = state.jobs.get(job_id)
    await job.news_after(news, LONGEST_WAIT)
    return told(job)


@router.delete("/{job_id}", status_code=204)
async def cancel(job_id: JobId, state: AppStateDep) -> None:
    """Stop a job; one that is over stays as it is."""
    state.jobs.cancel(job_id)


async def told_soon(job: Job) -> JobTold:
    """How far a job has come after a moment, in which most are done.

    Raises:
        LuckyMarginError: what the job was refused for meanwhile.
    """
    await job.over(QUICK)
    if job.error:
        raise job.error
    return told(job)


def told(job: Job) -> JobTold:
    """A job as it is told."""
    return JobTold(
        id=job.id,
        news=job.news,
        state=job.state,
        progress=job.progress,
        result=job.result,
        problem=problem_of(job.error) if job.error else None,
    )
