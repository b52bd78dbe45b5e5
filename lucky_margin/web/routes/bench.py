"""The bench: editing a draft and seeing it. Nothing here is kept; saving is in ``finishes``."""

from typing import Literal

from fastapi import APIRouter, Response
from pydantic import Field

from lucky_margin.core.document import Finish, Identifier, Value
from lucky_margin.core.document.size_library import SIZE_LIBRARY, LibrarySize
from lucky_margin.core.document.words import border_in_words, crop_in_words, export_in_words
from lucky_margin.core.edits import Edit, apply_edit
from lucky_margin.core.render import Check, Layout, View, check, layout, render
from lucky_margin.web.examples import FINISH, example
from lucky_margin.web.pictures import FRESH, PICTURE, picture_response
from lucky_margin.web.preview_desk import Superseded
from lucky_margin.web.studio import StudioHere

router = APIRouter(prefix="/bench", tags=["bench"])

PRIORITY = {"stage": 0, "proof": 1}


class Draft(Value):
    """A document in any state of work, the size in hand, and perhaps an edit to make first."""

    model_config = example(
        document=FINISH, size_id="main", edit={"kind": "rename", "name": "Friday mugs"}
    )

    document: Finish
    size_id: Identifier
    edit: Edit | None = None


class Laid(Value):
    """A draft after its edit, with everything a screen needs to draw and say about it."""

    document: Finish
    said: str
    layout: Layout
    crop: str = Field(description="The Crop line in words.")
    border: str = Field(description="The Border line in words.")
    export: str = Field(description="The Export line in words.")


class PreviewWanted(Value):
    """A picture of a draft. Newest wins among requests of one ``channel`` (tab and view)."""

    model_config = example(document=FINISH, size_id="main", channel="tab-1-stage", scale=0.5)

    document: Finish
    size_id: Identifier
    edit: Edit | None = None
    channel: str = Field(max_length=80)
    place: Literal["stage", "proof"] = "stage"
    view: View = "final"
    scale: float = Field(gt=0, le=1)
    region: tuple[int, int, int, int] | None = None
    lossless: bool = False


class PixelWanted(Value):
    """One pixel of a draft: output pixels, or photo pixels in the photo view."""

    model_config = example(document=FINISH, size_id="main", view="final", x=540, y=675)

    document: Finish
    size_id: Identifier
    view: View
    x: int = Field(ge=0)
    y: int = Field(ge=0)


class Pixel(Value):
    """What one pixel is; null where it is fully transparent."""

    colour: str | None


class CheckList(Value):
    checks: list[Check]


class SizeLibrary(Value):
    sizes: tuple[LibrarySize, ...]


@router.get("/sizes")
def list_library_sizes() -> SizeLibrary:
    """Sizes by purpose."""
    return SizeLibrary(sizes=SIZE_LIBRARY)


@router.post("/draft")
def lay_out(draft: Draft, studio: StudioHere) -> Laid:
    """Make an edit and lay the draft out."""
    photos = studio.store.photos
    document, said = draft.document, ""
    if draft.edit is not None:
        facts = photos.facts(document.photo.sha256)
        edited = apply_edit(document, draft.size_id, draft.edit, facts)
        document, said = edited.finish, edited.said
    size = document.size(draft.size_id)
    return Laid(
        document=document,
        said=said,
        layout=layout(document, size, photos),
        crop=crop_in_words(document, size),
        border=border_in_words(size.own.border.applied_to(document.border)),
        export=export_in_words(document.export_of(size)),
    )


@router.post(
    "/preview",
    response_class=Response,
    responses={
        **PICTURE,
        204: {"description": "A newer request of the channel took this one's place."},
    },
)
async def preview(wanted: PreviewWanted, studio: StudioHere) -> Response:
    """The picture of a draft (after its edit, if it names one)."""
    photos = studio.store.photos

    def draw() -> Response:
        document = wanted.document
        if wanted.edit is not None:
            facts = photos.facts(document.photo.sha256)
            document = apply_edit(document, wanted.size_id, wanted.edit, facts).finish
        picture = render(
            document,
            document.size(wanted.size_id),
            photos,
            scale=wanted.scale,
            region=wanted.region,
            view=wanted.view,
        )
        return picture_response(picture, headers=FRESH, lossless=wanted.lossless)

    try:
        return await studio.desk.draw(wanted.channel, PRIORITY[wanted.place], draw)
    except Superseded:
        return Response(status_code=204)


@router.post("/pixel")
def read_pixel(wanted: PixelWanted, studio: StudioHere) -> Pixel:
    """The exact colour of one pixel."""
    document = wanted.document
    size = document.size(wanted.size_id)
    region = (wanted.x, wanted.y, 1, 1)
    picture = render(document, size, studio.store.photos, region=region, view=wanted.view)
    values = [int(value) for value in picture[0, 0]]
    if len(values) == 4 and values[3] == 0:
        return Pixel(colour=None)
    return Pixel(colour="#{:02X}{:02X}{:02X}".format(*values[:3]))


@router.post("/checks")
def run_checks(draft: Draft, studio: StudioHere) -> CheckList:
    """The checks of the size in hand."""
    size = draft.document.size(draft.size_id)
    return CheckList(checks=check(draft.document, size, studio.store.photos))
