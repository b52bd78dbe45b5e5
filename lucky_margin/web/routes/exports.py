"""Weighing, saving and finding exports again."""

import tempfile
from collections.abc import Sequence
from itertools import chain
from pathlib import Path
from typing import Annotated

from fastapi import APIRouter, Query, Response
from fastapi.responses import FileResponse
from pydantic import Field
from starlette.background import BackgroundTask
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.document import (
    ExportChanges,
    FixedPixels,
    Identifier,
    Sha256,
    Value,
)
from lucky_margin.core.document.summaries import FORMAT_NAMES
from lucky_margin.core.edits.sizes import SetPixels
from lucky_margin.core.edits.steps import SetExport
from lucky_margin.core.errors import Conflict
from lucky_margin.core.export import (
    ALT_TEXT_TABLE,
    LAYERS_TYPE,
    MEDIA_TYPES,
    ExportedFile,
    FewerColours,
    OtherFormat,
    Remedy,
    alt_text_table,
    export,
    export_reveal,
    layers_name,
    open_raster,
    pages_together,
    safe_stem,
    zip_into,
)
from lucky_margin.core.progress import Progress, untold
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import ImageFormat
from lucky_margin.store import ExportRecord, full_disk_is_said
from lucky_margin.web.app_state import AppState, AppStateDep, ExportKey, bytes_to_draw
from lucky_margin.web.examples import REVISION, example
from lucky_margin.web.job_results import SuggestedEdit, WeighedFile
from lucky_margin.web.pictures import FILE, FOREVER, attached
from lucky_margin.web.routes.finishes import AtEtag, FinishId, FinishState, RowId, state_of
from lucky_margin.web.routes.jobs import JobTold, told_soon
from lucky_margin.web.work_desk import Priority

router = APIRouter(tags=["exports"])

MOST_ZIPPED = 1000
MOST_PAGES = 100
"""Files in one archive."""

LAYERS_AT_ONCE = 3
"""What a file of layers takes at its peak, in pictures being drawn."""

SEVERAL = "Finished photos"
"""What an archive of several finishes is called."""


class SizeAtRevision(Value):
    """One size of the finish at ``revision``, or the animation that reveals its lifts."""

    revision: RowId
    size_id: Identifier
    reveal: bool = False


class WeighWanted(SizeAtRevision):
    """The file to make. Newest wins among requests of one ``channel`` (tab and view)."""

    model_config = example(revision=REVISION, size_id="main", channel="tab-1-export")

    channel: str = Field(max_length=80)


class SaveWanted(SizeAtRevision):
    """The weighed file to save."""

    model_config = example(revision=REVISION, size_id="main", sha256="5f" * 32)

    sha256: Sha256


class Exported(Value):
    """A file that was saved."""

    id: int
    finish_id: str
    revision: int
    size_name: str
    file_name: str
    image_format: ImageFormat
    sha256: Sha256
    bytes: int
    width: int
    height: int
    created_at: str


class ExportedList(Value):
    exports: list[Exported]


@router.post("/finishes/{finish_id}/weigh")
async def weigh(finish_id: FinishId, wanted: WeighWanted, state: AppStateDep) -> JobTold:
    """Make the file of one size, without saving it, and say what it weighs (a ``WeighedFile``)."""
    scene = await run_in_threadpool(_scene_to_export, finish_id, wanted, state)

    def work(progress: Progress) -> WeighedFile:
        return _told(_weighed(finish_id, wanted, scene, state, progress))

    job = state.jobs.start(f"weigh {wanted.channel}", work, memory=bytes_to_draw(scene))
    return await told_soon(job)


def _told(file: ExportedFile) -> WeighedFile:
    return WeighedFile(
        sha256=file.sha256,
        bytes=len(file.data),
        width=file.width,
        height=file.height,
        quality=file.quality,
        image_format=file.image_format,
        file_name=file.file_name,
        meets_cap=file.meets_cap,
        suggestions=[_suggestion(remedy) for remedy in file.remedies],
    )


@router.get("/finishes/{finish_id}/weighed", response_class=Response, responses=FILE)
async def get_weighed(
    finish_id: FinishId, revision: RowId, size_id: Identifier, state: AppStateDep
) -> Response:
    """The very bytes of the file that would be saved of one size, to be shown; they stay the same
    for a revision."""
    wanted = SizeAtRevision(revision=revision, size_id=size_id)
    scene = await run_in_threadpool(_scene_to_export, finish_id, wanted, state)

    def make() -> Response:
        file = _weighed(finish_id, wanted, scene, state)
        return Response(file.data, media_type=MEDIA_TYPES[file.image_format], headers=FOREVER)

    return await state.desk.run(make, Priority.CHECK, memory=bytes_to_draw(scene))


@router.get("/finishes/{finish_id}/layers", response_class=Response, responses=FILE)
async def get_layers(
    finish_id: FinishId, revision: RowId, size_id: Identifier, state: AppStateDep
) -> Response:
    """One size with its parts as layers, as OpenRaster."""
    wanted = SizeAtRevision(revision=revision, size_id=size_id)
    scene = await run_in_threadpool(_scene_to_export, finish_id, wanted, state)

    def make() -> Response:
        name = layers_name(scene)
        return Response(open_raster(scene), media_type=LAYERS_TYPE, headers=attached(name))

    return await state.desk.run(make, Priority.JOB, memory=LAYERS_AT_ONCE * bytes_to_draw(scene))


@router.post("/finishes/{finish_id}/exports", status_code=201)
async def save_export(finish_id: FinishId, wanted: SaveWanted, state: AppStateDep) -> Exported:
    """Save the file that was weighed and record it."""
    scene = await run_in_threadpool(_scene_to_export, finish_id, wanted, state)

    def save() -> Exported:
        file = _weighed(finish_id, wanted, scene, state)
        if file.sha256 != wanted.sha256:
            raise Conflict("The file is no longer the one that was weighed; weigh it again.")
        record = state.store.exports.add(
            file, finish_id=finish_id, revision=wanted.revision, size_name=scene.size.name
        )
        return _exported(record)

    return await state.desk.run(save, Priority.JOB, memory=bytes_to_draw(scene))


@router.get("/finishes/{finish_id}/exports")
def list_exports(finish_id: FinishId, state: AppStateDep) -> ExportedList:
    """Saved files of a finish, newest first."""
    state.store.finishes.get(finish_id)
    return ExportedList(exports=[_exported(r) for r in state.store.exports.list(finish_id)])


@router.get("/exports/{export_id}/file", response_class=Response, responses=FILE)
def download(export_id: RowId, state: AppStateDep) -> Response:
    """The saved file, as a download under its name."""
    record = state.store.exports.get(export_id)
    data = state.store.exports.data(record)
    media_type = MEDIA_TYPES[_exported(record).image_format]
    return Response(data, media_type=media_type, headers=attached(record.file_name))


@router.get("/exports/zip", response_class=FileResponse, responses=FILE)
def download_zip(
    state: AppStateDep, ids: Annotated[list[RowId], Query(min_length=1, max_length=MOST_ZIPPED)]
) -> FileResponse:
    """Several saved files in one archive, with a table of their alternative texts if there are
    any."""
    records = [state.store.exports.get(one) for one in ids]
    finishes = {record.finish_id for record in records}
    name = SEVERAL
    if len(finishes) == 1:
        name = state.store.finishes.get(records[0].finish_id).document.name
    path = _zip_file(records, state)
    return FileResponse(
        path,
        media_type="application/zip",
        headers=attached(f"{safe_stem(name)}.zip"),
        background=BackgroundTask(path.unlink),
    )


@router.get("/exports/pdf", response_class=Response, responses=FILE)
async def download_pdf(
    state: AppStateDep, ids: Annotated[list[RowId], Query(min_length=1, max_length=MOST_PAGES)]
) -> Response:
    """Several saved files as the pages of one PDF."""

    def make() -> Response:
        records = [state.store.exports.get(one) for one in ids]
        name = state.store.finishes.get(records[0].finish_id).document.name
        data = pages_together([state.store.exports.data(record) for record in records])
        return Response(
            data, media_type="application/pdf", headers=attached(f"{safe_stem(name)}.pdf")
        )

    return await state.desk.run(make, Priority.JOB)


def _zip_file(records: Sequence[ExportRecord], state: AppState) -> Path:
    """The archive as a file, since it may be larger than the memory should hold."""
    told = [(record.file_name, _alt_text(record, state)) for record in records]
    files = ((record.file_name, state.store.exports.data(record)) for record in records)
    table = [(ALT_TEXT_TABLE, alt_text_table(told))] if any(text for _, text in told) else []
    with full_disk_is_said(), tempfile.NamedTemporaryFile(suffix=".zip", delete=False) as file:
        try:
            zip_into(file.file, chain(files, table))
        except BaseException:
            Path(file.name).unlink()
            raise
    return Path(file.name)


@router.post("/exports/{export_id}/open")
def open_as_it_was(export_id: RowId, at: AtEtag, state: AppStateDep) -> FinishState:
    """Go back to the state the file was saved from; undo leads to the present again."""
    record = state.store.exports.get(export_id)
    finish = state.store.finishes.reopen(record.finish_id, at.etag, record.revision)
    return state_of(finish, state)


def _scene_to_export(finish_id: str, wanted: SizeAtRevision, state: AppState) -> Scene:
    document = state.store.finishes.revision_document(finish_id, wanted.revision)
    return Scene.of(document, wanted.size_id, state.store.photos)


def _weighed(
    finish_id: str,
    wanted: SizeAtRevision,
    scene: Scene,
    state: AppState,
    progress: Progress = untold,
) -> ExportedFile:
    key = ExportKey(finish_id, wanted.revision, wanted.size_id, wanted.reveal)
    make = export_reveal if wanted.reveal else export
    return state.weighed.get_or_make(key, lambda: make(scene, progress))


def _suggestion(remedy: Remedy) -> SuggestedEdit:
    if isinstance(remedy, OtherFormat):
        changes = ExportChanges(format=remedy.image_format)
        return SuggestedEdit(
            label=f"{FORMAT_NAMES[remedy.image_format]} would do",
            edit=SetExport(changes=changes, only_this_size=True),
        )
    if isinstance(remedy, FewerColours):
        return SuggestedEdit(
            label=f"{remedy.colours} colours would do",
            edit=SetExport(changes=ExportChanges(colours=remedy.colours), only_this_size=True),
        )
    return SuggestedEdit(
        label=f"{remedy.width} × {remedy.height} px would do",
        edit=SetPixels(pixels=FixedPixels(width=remedy.width, height=remedy.height)),
    )


def _alt_text(record: ExportRecord, state: AppState) -> str:
    """What the finish said the picture shows when the file was saved."""
    document = state.store.finishes.revision_document(record.finish_id, record.revision)
    return document.export.alt_text


def _exported(record: ExportRecord) -> Exported:
    return Exported.model_validate(vars(record))
