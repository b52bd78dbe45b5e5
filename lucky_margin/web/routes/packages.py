"""Finishes as files: each with its photos, fonts and colour tables, for another Lucky Margin."""

from fastapi import APIRouter, Request, Response

from lucky_margin.core.errors import TooLarge
from lucky_margin.core.export import FINISH, MAX_PACKAGE_BYTES, safe_stem
from lucky_margin.store import export_finish, import_finish
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.bodies import BYTES, body_of
from lucky_margin.web.pictures import FILE, attached
from lucky_margin.web.routes.finishes import FinishId, FinishState, state_of
from lucky_margin.web.work_desk import Priority

router = APIRouter(prefix="/finishes", tags=["finishes"])


@router.post("/file", status_code=201, openapi_extra=BYTES)
async def open_file(request: Request, state: AppStateDep) -> FinishState:
    """A new finish from a file that one was saved to, with all that it needs."""
    too_large = TooLarge(
        f"A finish may have {MAX_PACKAGE_BYTES // 1_000_000} MB at most; choose another file."
    )
    data = await body_of(request, MAX_PACKAGE_BYTES, too_large)
    record = await state.desk.run(
        lambda: import_finish(state.store, data), Priority.CHECK, memory=3 * len(data)
    )
    return state_of(record, state)


@router.get("/{finish_id}/file", response_class=Response, responses=FILE)
async def download_file(finish_id: FinishId, state: AppStateDep) -> Response:
    """A finish as a file, with all that it needs."""

    def make() -> Response:
        finish = state.store.finishes.get(finish_id).document
        headers = attached(f"{safe_stem(finish.name)}{FINISH.suffix}")
        data = export_finish(state.store, finish)
        return Response(data, media_type="application/zip", headers=headers)

    return await state.desk.run(make, Priority.JOB)
