"""The shelf as a whole."""

import tempfile
from datetime import date
from pathlib import Path

from fastapi import APIRouter
from fastapi.responses import FileResponse
from starlette.background import BackgroundTask

from lucky_margin.store import full_disk_is_said
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.pictures import FILE, attached
from lucky_margin.web.work_desk import Priority

router = APIRouter(prefix="/shelf", tags=["shelf"])


@router.get("/backup", response_class=FileResponse, responses=FILE)
async def download_backup(state: AppStateDep) -> FileResponse:
    """The whole shelf as one archive, for “lucky-margin restore”."""

    def write() -> Path:
        with full_disk_is_said(), tempfile.NamedTemporaryFile(suffix=".zip", delete=False) as file:
            path = Path(file.name)
            try:
                state.store.write_backup(file)
            except BaseException:
                path.unlink()
                raise
        return path

    path = await state.desk.run(write, Priority.JOB)
    return FileResponse(
        path,
        media_type="application/zip",
        headers=attached(f"shelf-{date.today().isoformat()}.backup.zip"),
        background=BackgroundTask(path.unlink),
    )
