"""Photos on the shelf."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request, Response
from fastapi.responses import FileResponse
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.document import Name, Sha256, Value, new_finish
from lucky_margin.core.errors import TooLarge
from lucky_margin.core.palette import ColourName
from lucky_margin.core.photos import MAX_PHOTO_BYTES, pixels_of
from lucky_margin.core.render import render
from lucky_margin.core.scene import Scene
from lucky_margin.store import PhotoRecord, PhotosWanted
from lucky_margin.web.app_state import AppStateDep, bytes_to_draw
from lucky_margin.web.bodies import BYTES, body_of
from lucky_margin.web.pictures import FILE, FOREVER, PICTURE, picture_response
from lucky_margin.web.work_desk import BYTES_PER_PIXEL, Priority

router = APIRouter(prefix="/photos", tags=["photos"])

Height = Annotated[int, Query(ge=16, le=1024, description="Pixels.")]


Offset = Annotated[int, Query(ge=0, lt=2**63)]
"""How many entries of a list come before its page."""

Search = Annotated[str, Query(max_length=200)]
Only = Literal["favourites", "recent"]


class Photo(Value):
    """A photo on the shelf; sides are those of the upright photo, in pixels."""

    sha256: Sha256
    name: str
    bytes: int
    width: int
    height: int
    file_format: str
    bits: int
    has_alpha: bool
    notes: tuple[str, ...]
    created_at: str
    favourite: bool
    uses: int
    known: bool = False


class PhotoList(Value):
    photos: list[Photo]
    total: int


@router.post(
    "",
    status_code=201,
    openapi_extra=BYTES,
)
async def add_photo(request: Request, name: Name, state: AppStateDep) -> Photo:
    """Add a photo: its bytes are the request's body. The same bytes again are the same photo."""
    too_large = TooLarge(
        f"“{name}” has more than the {MAX_PHOTO_BYTES // 1_000_000} MB that are accepted; "
        "save it smaller first."
    )
    data = await body_of(request, MAX_PHOTO_BYTES, too_large)
    record, known = await state.desk.run(
        lambda: state.store.photos.add(data, name),
        Priority.CHECK,
        memory=BYTES_PER_PIXEL * await run_in_threadpool(pixels_of, data),
    )
    return told_photo(record, known)


@router.get("")
def list_photos(
    state: AppStateDep,
    search: Search = "",
    colour: ColourName | None = None,
    only: Only | None = None,
    offset: Offset = 0,
) -> PhotoList:
    """One page of photos, newest first."""
    page = state.store.photos.page(PhotosWanted(search, colour, only), offset=offset)
    return PhotoList(photos=[told_photo(record) for record in page.photos], total=page.total)


@router.get("/{sha256}")
def get_photo(sha256: Sha256, state: AppStateDep) -> Photo:
    """One photo."""
    return told_photo(state.store.photos.get(sha256))


@router.get("/{sha256}/thumbnail", response_class=Response, responses=PICTURE)
async def get_thumbnail(sha256: Sha256, state: AppStateDep, height: Height = 184) -> Response:
    """A small picture of the whole photo."""
    facts = state.store.photos.get(sha256).facts
    finish = new_finish(name="thumbnail", photo_sha256=sha256)
    scene = Scene(finish, finish.sizes[0], state.store.photos)
    scale = min(1.0, height / facts.height, 4 * height / facts.width)

    def draw() -> Response:
        state.store.photos.learn_colours(sha256)
        return picture_response(render(scene, scale=scale, view="photo"), headers=FOREVER)

    return await state.desk.run(draw, Priority.THUMBNAIL, memory=bytes_to_draw(scene, scale))


@router.get("/{sha256}/original", response_class=FileResponse, responses=FILE)
def get_original(sha256: Sha256, state: AppStateDep) -> FileResponse:
    """The original's untouched bytes, as a download."""
    path = state.store.photos.original(sha256)
    name = state.store.photos.get(sha256).name
    return FileResponse(path, filename=name, media_type="application/octet-stream")


@router.delete("/{sha256}", status_code=204)
def delete_photo(sha256: Sha256, state: AppStateDep) -> None:
    """Delete a photo that no finish uses."""
    state.store.photos.delete(sha256)


def told_photo(record: PhotoRecord, known: bool = False) -> Photo:
    """A photo as it is told; whether it was there before it was added."""
    facts = record.facts
    return Photo(
        sha256=record.sha256,
        name=record.name,
        bytes=record.bytes,
        width=facts.width,
        height=facts.height,
        file_format=facts.file_format,
        bits=facts.bits,
        has_alpha=facts.has_alpha,
        notes=facts.notes,
        created_at=record.created_at,
        favourite=record.favourite,
        uses=record.uses,
        known=known,
    )
