"""The shelf as a whole."""

import tempfile
from datetime import date

from fastapi import APIRouter, Request
from fastapi.responses import FileResponse

from lucky_margin.core.document import Value
from lucky_margin.core.progress import Progress
from lucky_margin.store import DiskUse, Soundness, Thinned, ThinningRule, mend
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.bodies import BYTES, body_into
from lucky_margin.web.examples import example
from lucky_margin.web.job_results import BackupMade, ShelfChecked
from lucky_margin.web.pictures import FILE, attached
from lucky_margin.web.routes.jobs import JobTold, told_soon
from lucky_margin.web.work_desk import Priority

router = APIRouter(prefix="/shelf", tags=["shelf"])


class CheckWanted(Value):
    """Whether what is damaged or unused is removed."""

    model_config = example(mend=False)

    mend: bool = False


class ThinningWanted(ThinningRule):
    """A rule, and whether to do it or only to count."""

    model_config = example(days=90, changes=True, files=False, remove=False)

    remove: bool = False


@router.get("/disk-use")
def get_disk_use(state: AppStateDep) -> DiskUse:
    """What the shelf's parts take on the disk."""
    return state.store.disk_use()


@router.post("/check")
async def check(wanted: CheckWanted, state: AppStateDep) -> JobTold:
    """Verify the database and every file by its SHA-256 (a ``ShelfChecked``)."""

    def work(progress: Progress) -> ShelfChecked:
        found = state.store.look_over(progress)
        if wanted.mend and found.database:
            mend(found)
        return _told(found)

    return await told_soon(state.jobs.start("check", work))


@router.post("/thin")
async def thin_out(wanted: ThinningWanted, state: AppStateDep) -> Thinned:
    """Count, or remove, old changes and old saved files."""
    rule = ThinningRule(**wanted.model_dump(exclude={"remove"}))
    return await state.desk.run(
        lambda: state.store.thin(rule, remove=wanted.remove), Priority.CHECK
    )


@router.post("/restore", openapi_extra=BYTES)
async def restore(request: Request, state: AppStateDep) -> DiskUse:
    """Fill this shelf, which has to be empty, with a backup."""
    with tempfile.TemporaryFile() as file:
        await body_into(file, request)
        await state.desk.run(lambda: state.store.restore(file), Priority.JOB)
    return state.store.disk_use()


@router.post("/backup")
async def back_up(state: AppStateDep) -> JobTold:
    """Make an archive of the whole shelf, for “lucky-margin restore” (a ``BackupMade``)."""

    def work(progress: Progress) -> BackupMade:
        return state.backups.make(state.store, progress)

    return await told_soon(state.jobs.start("backup", work))


@router.get("/backup/{backup_id}", response_class=FileResponse, responses=FILE)
def download_backup(backup_id: str, state: AppStateDep) -> FileResponse:
    """The archive that was made last."""
    return FileResponse(
        state.backups.path(backup_id),
        media_type="application/zip",
        headers=attached(f"shelf-{date.today().isoformat()}.backup.zip"),
    )


def _told(found: Soundness) -> ShelfChecked:
    return ShelfChecked(
        database=found.database,
        checked=found.checked,
        damaged=[f"{path.parents[1].name}/{path.name}" for path in found.damaged],
        missing=found.missing,
        unused=len(found.unused),
        unused_bytes=found.unused_bytes,
    )
