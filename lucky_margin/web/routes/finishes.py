"""Finishes and their history."""

from functools import partial
from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import Field, StringConstraints
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.checks import Check, check
from lucky_margin.core.document import (
    NO_ROW,
    CutOut,
    Finish,
    FixedPixels,
    Ground,
    Identifier,
    Name,
    PhotoReference,
    Row,
    Sha256,
    Size,
    SizePlan,
    SolidColour,
    Square,
    StyleId,
    Value,
    blank_finish,
    columns_of,
    new_finish,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.sizes import size_of_plan
from lucky_margin.core.edits.subject_placing import StandSubject
from lucky_margin.core.errors import BadInput, LuckyMarginError
from lucky_margin.core.proposals import started, started_like
from lucky_margin.core.render import render
from lucky_margin.core.scene import Scene, scenes_of
from lucky_margin.store import (
    FinishEntry,
    FinishesWanted,
    FinishRecord,
    PhotoRecord,
    RevisionRecord,
)
from lucky_margin.web.app_state import AppState, AppStateDep, bytes_to_draw
from lucky_margin.web.examples import DRAFT, ETAG, FINISH, REVISION, example
from lucky_margin.web.pictures import FOREVER, FRESH, PICTURE, picture_response
from lucky_margin.web.routes.photos import Offset
from lucky_margin.web.work_desk import BYTES_PER_PIXEL, Priority

router = APIRouter(prefix="/finishes", tags=["finishes"])

PLAIN_GROUND = SolidColour(colour="#33566B")
"""What a finish without a photo begins with."""

FINISH_ID = r"^[0-9a-f]{16}$"
FinishId = Annotated[str, Field(pattern=FINISH_ID)]

MOST_TOGETHER = 200
"""Finishes that are shown together."""

LibraryKey = Annotated[
    str, StringConstraints(pattern=r"^(backdrop|badge|own badge|photo):[\w-]{1,64}$")
]
"""``backdrop:linen``, ``badge:sold-out``, ``own badge:3`` or ``photo:`` with a SHA-256."""

RowId = Annotated[int, Field(ge=0, lt=2**63)]
"""A row's number; SQLite holds no larger one."""


class FinishState(Value):
    """A finish as it stands; every write names the ``etag`` it is based on."""

    id: str
    etag: int
    revision: int
    changes: int
    draft: Sha256 = Field(description="How requests name the document (see ``/drafts``).")
    document: Finish
    can_undo: bool
    can_redo: bool
    changed_at: str
    binned: bool


class SizeFace(Value):
    """One size as the shelf shows it, in output pixels."""

    id: str
    name: str
    width: int
    height: int


class FinishFace(Value):
    """A finish as the shelf shows it."""

    id: str
    etag: int
    name: str
    photo: Sha256 | None
    sizes: list[SizeFace]
    changed_at: str
    problem: str = Field(default="", description="Why it can't be shown; empty when it can.")
    can_undo: bool = Field(description="Whether there is an earlier state to go back to.")
    columns: list[str] = Field(description="The columns of a table that its words name.")
    is_cut_out: bool = Field(description="Whether its subject stands on a ground.")


class FinishList(Value):
    finishes: list[FinishFace]
    total: int


class FacesWanted(Value):
    """Finishes to show together."""

    model_config = example(ids=["0123456789abcdef"])

    ids: Annotated[list[FinishId], Field(max_length=MOST_TOGETHER)]


class SizeLooks(Value):
    """The warnings about one size."""

    size_id: str
    warnings: list[Check]


class LooksList(Value):
    sizes: list[SizeLooks]


class Revision(Value):
    """One committed change."""

    id: int
    parent: int | None
    label: str
    version_name: str | None
    created_at: str


class RevisionList(Value):
    revisions: list[Revision]


class NewFinish(Value):
    """A finish to start: from a photo, perhaps with its subject cut out, from a draft, or from a
    size and a ground alone; perhaps under a name of its own."""

    model_config = example(photo=FINISH["photo"]["sha256"], name="Thursday mugs")

    photo: Sha256 | None = None
    name: Name | None = None
    draft: Sha256 | None = None
    cut_out: CutOut = CutOut()
    square: Square | None = None
    style: StyleId | None = Field(default=None, description="The house style of a new photo's.")
    like: str | None = Field(
        default=None,
        pattern=FINISH_ID,
        description="The finish that all but the photo is taken of.",
    )
    row: Row = Field(default=NO_ROW, description="What fills the columns in its words.")
    plan: SizePlan | None = Field(default=None, description="The size of one without a photo.")
    ground: Ground = PLAIN_GROUND


class FinishTried(Value):
    """A finish that was not kept: its document, the name of that draft (see ``/drafts``), and its
    sizes."""

    draft: Sha256
    document: Finish
    sizes: list[SizeFace]


class SaveFinish(Value):
    """The draft to save, named by its SHA-256 (see ``/drafts``)."""

    model_config = example(etag=ETAG, draft=DRAFT)

    etag: int
    draft: Sha256


class AtEtag(Value):
    model_config = example(etag=ETAG)

    etag: int


class Reopen(Value):
    model_config = example(etag=ETAG, revision=REVISION)

    etag: int
    revision: RowId


class NewName(Value):
    model_config = example(etag=ETAG, name="Friday mugs")

    etag: int
    name: Name


class StandWanted(AtEtag):
    """How high a subject stands, and on which line, as ``StandSubject`` has it."""

    model_config = example(etag=ETAG, height=0.7, line=0.88)

    height: float = Field(default=0.7, ge=0.1, le=1)
    line: float = Field(default=0.88, ge=0.1, le=1)


class VersionName(Value):
    model_config = example(name="Before the border")

    name: Name


@router.post("", status_code=201)
async def create_finish(new: NewFinish, state: AppStateDep) -> FinishState:
    """Start a finish from a photo or from a plain ground, or keep a document as one of its own."""
    if new.draft is not None:
        document = state.drafts.get(new.draft).finish
        document = document.model_copy(update={"name": new.name or document.name})
        return await run_in_threadpool(_created, document, state, "Started as a copy")
    document = await _document_of(new, state)
    if document.photo is not None:
        await run_in_threadpool(state.store.library.note_use, f"photo:{document.photo.sha256}")
    return await run_in_threadpool(_created, document, state)


@router.post("/trial")
async def try_finish(new: NewFinish, state: AppStateDep) -> FinishTried:
    """What would be started, without keeping it: a draft to look at."""
    document = await _document_of(new, state)
    return await run_in_threadpool(_tried, document, state)


async def _document_of(new: NewFinish, state: AppState) -> Finish:
    """A fresh finish of a photo, or of a size and a ground alone."""
    if new.plan is not None:
        size = size_of_plan(new.plan, "main")
        return blank_finish(name=new.name or size.name, size=size, ground=new.ground)
    photo = await run_in_threadpool(state.store.photos.get, new.photo or "")
    return await state.desk.run(
        lambda: _of_photo(photo, new, state),
        Priority.CHECK,
        memory=photo.facts.width * photo.facts.height * BYTES_PER_PIXEL,
    )


def _of_photo(photo: PhotoRecord, new: NewFinish, state: AppState) -> Finish:
    """A finish of a photo, which is looked at for it."""
    photos = state.store.photos
    name = new.name or new.row.get("name") or _plain(photo.name)
    if new.like:
        like = state.store.finishes.get(new.like).document
        return started_like(like, photo.sha256, name, photos, new.row)
    document = new_finish(name=name, photo_sha256=photo.sha256)
    taken = PhotoReference(sha256=photo.sha256, square=new.square)
    document = document.model_copy(update={"photo": taken, "cut_out": new.cut_out})
    style = state.store.styles.get(new.style) if new.style else None
    return started(document, photos, style, new.row)


def _tried(document: Finish, state: AppState) -> FinishTried:
    sizes = [_size_face(document, size, state) for size in document.sizes]
    return FinishTried(draft=state.drafts.keep(document).sha256, document=document, sizes=sizes)


def _created(document: Finish, state: AppState, label: str = "Started") -> FinishState:
    return state_of(state.store.finishes.create(document, label=label), state)


@router.get("")
def list_finishes(
    state: AppStateDep,
    search: Annotated[str, Query(max_length=120)] = "",
    binned: bool = False,
    uses: LibraryKey | None = None,
    offset: Offset = 0,
) -> FinishList:
    """One page of finishes, those changed last first; of a photo or backdrop, those with it."""
    store, wanted = state.store.finishes, FinishesWanted(search, binned, uses)
    return FinishList(
        finishes=[_face(entry, state) for entry in store.list(wanted, offset=offset)],
        total=store.count(wanted),
    )


@router.post("/faces")
def list_faces(wanted: FacesWanted, state: AppStateDep) -> FinishList:
    """These finishes, in this order."""
    entries = state.store.finishes.entries(wanted.ids)
    return FinishList(finishes=[_face(entry, state) for entry in entries], total=len(entries))


@router.get("/{finish_id}/looks")
async def list_looks(finish_id: FinishId, state: AppStateDep) -> LooksList:
    """What asks for a look in any size of a finish, measured on its pictures."""
    finish = (await run_in_threadpool(state.store.finishes.get, finish_id)).document
    sizes = []
    for scene in scenes_of(finish, state.store.photos).values():
        checks = await state.measured(scene, partial(check, scene))
        warnings = [one for one in checks if one.asks_for_a_look]
        sizes.append(SizeLooks(size_id=scene.size.id, warnings=warnings))
    return LooksList(sizes=sizes)


@router.get("/{finish_id}")
def get_finish(finish_id: FinishId, state: AppStateDep) -> FinishState:
    """One finish as it stands."""
    return state_of(state.store.finishes.get(finish_id), state)


@router.put("/{finish_id}")
def save_finish(finish_id: FinishId, save: SaveFinish, state: AppStateDep) -> FinishState:
    """Commit a change. A save based on an older ``etag`` is refused (412)."""
    document = state.drafts.get(save.draft).finish
    return state_of(state.store.finishes.save(finish_id, save.etag, document), state)


@router.post("/{finish_id}/undo")
def undo(finish_id: FinishId, at: AtEtag, state: AppStateDep) -> FinishState:
    """Take back the last change."""
    return state_of(state.store.finishes.undo(finish_id, at.etag), state)


@router.post("/{finish_id}/redo")
def redo(finish_id: FinishId, at: AtEtag, state: AppStateDep) -> FinishState:
    """Make the change again that was taken back last."""
    return state_of(state.store.finishes.redo(finish_id, at.etag), state)


@router.post("/{finish_id}/reopen")
def reopen(finish_id: FinishId, reopen: Reopen, state: AppStateDep) -> FinishState:
    """Go back to an earlier revision; undo leads to the present again."""
    return state_of(state.store.finishes.reopen(finish_id, reopen.etag, reopen.revision), state)


@router.post("/{finish_id}/original")
def back_to_the_original(finish_id: FinishId, at: AtEtag, state: AppStateDep) -> FinishState:
    """Set everything aside and show the whole photo as it was taken; undo brings it back."""
    document = state.store.finishes.get(finish_id).document
    if document.photo is None:
        raise BadInput("This finish has no photo to go back to.")
    fresh = new_finish(name=document.name, photo_sha256=document.photo.sha256)
    return state_of(state.store.finishes.save(finish_id, at.etag, fresh), state)


@router.post("/{finish_id}/rename")
def rename_finish(finish_id: FinishId, new: NewName, state: AppStateDep) -> FinishState:
    """Give a finish another name, without opening it."""
    document = state.store.finishes.get(finish_id).document
    renamed = document.model_copy(update={"name": new.name})
    return state_of(state.store.finishes.save(finish_id, new.etag, renamed), state)


@router.post("/{finish_id}/stand")
async def stand(finish_id: FinishId, wanted: StandWanted, state: AppStateDep) -> FinishState:
    """Have the subject stand as high, on the same line, as in other finishes."""
    document = (await run_in_threadpool(state.store.finishes.get, finish_id)).document
    scene = Scene(document, document.sizes[0], state.store.photos)
    edit = StandSubject(height=wanted.height, line=wanted.line)
    edited = await state.measured(scene, lambda: apply_edit(scene, edit))
    save = state.store.finishes.save
    return state_of(await run_in_threadpool(save, finish_id, wanted.etag, edited.finish), state)


@router.get("/{finish_id}/revisions")
def list_revisions(finish_id: FinishId, state: AppStateDep) -> RevisionList:
    """The history, newest first; versions are the revisions with a name."""
    records = state.store.finishes.revisions(finish_id)
    return RevisionList(revisions=[_revision(record) for record in records])


@router.post("/{finish_id}/versions", status_code=201)
def keep_version(finish_id: FinishId, version: VersionName, state: AppStateDep) -> Revision:
    """Name the present state, so that it is found again."""
    return _revision(state.store.finishes.keep_version(finish_id, version.name))


@router.post("/{finish_id}/duplicate", status_code=201)
def duplicate(finish_id: FinishId, state: AppStateDep) -> FinishState:
    """Start a new finish from the present state of this one."""
    document = state.store.finishes.get(finish_id).document
    copy = document.model_copy(update={"name": f"{document.name[:113]} (copy)"})
    return state_of(state.store.finishes.create(copy, label="Started as a copy"), state)


@router.post("/{finish_id}/bin", status_code=204)
def put_in_bin(finish_id: FinishId, state: AppStateDep) -> None:
    """Put a finish in the bin."""
    state.store.finishes.set_binned(finish_id, True)


@router.post("/{finish_id}/restore", status_code=204)
def restore(finish_id: FinishId, state: AppStateDep) -> None:
    """Put a finish from the bin back on the shelf."""
    state.store.finishes.set_binned(finish_id, False)


@router.delete("/{finish_id}", status_code=204)
def delete_finish(finish_id: FinishId, state: AppStateDep) -> None:
    """Delete a finish in the bin for good."""
    state.store.delete_finish(finish_id)


@router.get("/{finish_id}/picture", response_class=Response, responses=PICTURE)
async def get_picture(
    finish_id: FinishId,
    size_id: Identifier,
    state: AppStateDep,
    height: Annotated[int, Query(ge=16, le=1024)] = 150,
    etag: int | None = None,
) -> Response:
    """A small picture of one size; with its ``etag`` in the address it may be kept for good."""
    finish = (await run_in_threadpool(state.store.finishes.get, finish_id)).document
    scene = Scene.of(finish, size_id, state.store.photos)
    scale = min(1.0, height / scene.sides[1])

    def draw() -> Response:
        headers = FRESH if etag is None else FOREVER
        return picture_response(render(scene, scale=scale), headers=headers)

    return await state.desk.run(draw, Priority.THUMBNAIL, memory=bytes_to_draw(scene, scale))


def _plain(file_name: str) -> str:
    """A file's name as people would say it."""
    return file_name.rsplit(".", 1)[0].strip()[:120] or "Untitled"


def state_of(record: FinishRecord, state: AppState) -> FinishState:
    """A finish as it stands, its document ready to be named."""
    return FinishState(draft=state.drafts.keep(record.document).sha256, **vars(record))


def _revision(record: RevisionRecord) -> Revision:
    return Revision(**vars(record))


def _face(entry: FinishEntry, state: AppState) -> FinishFace:
    sizes: list[SizeFace] = []
    document, problem = entry.document, entry.problem
    if document is not None:
        try:
            sizes = [_size_face(document, size, state) for size in document.sizes]
        except LuckyMarginError as error:
            problem = str(error)
    return FinishFace(
        id=entry.id,
        etag=entry.etag,
        name=entry.name,
        photo=entry.photo_sha256,
        sizes=sizes,
        changed_at=entry.changed_at,
        problem=problem,
        can_undo=entry.can_undo,
        columns=columns_of(document.pieces, document.watermark) if document else [],
        is_cut_out=document is not None and document.cut_out.on,
    )


def _size_face(document: Finish, size: Size, state: AppState) -> SizeFace:
    pixels = size.pixels
    if isinstance(pixels, FixedPixels):  # which needs no look at the photo
        width, height = pixels.width, pixels.height
    else:
        width, height = Scene(document, size, state.store.photos).sides
    return SizeFace(id=size.id, name=size.name, width=width, height=height)
