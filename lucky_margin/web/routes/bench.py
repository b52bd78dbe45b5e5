"""The bench: editing a draft and seeing it. Nothing here is kept; saving is in ``finishes``."""

from typing import Any, Literal

from fastapi import APIRouter, Response
from pydantic import Field, create_model

from lucky_margin.core.checks import Check, check
from lucky_margin.core.document import (
    Colour,
    Finish,
    FixedPixels,
    Identifier,
    Piece,
    Size,
    Value,
)
from lucky_margin.core.document.docket import STEPS, VALUES, DocketLine, docket_of
from lucky_margin.core.document.summaries import (
    Override,
    overrides_in_words,
)
from lucky_margin.core.edits import Edit, Guide, apply_edit
from lucky_margin.core.finding import DEFAULT_TOLERANCE
from lucky_margin.core.framing import frame_of
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.proposals import (
    Proposal,
    focus_proposal,
    neutral_proposal,
    tone_proposal,
    trim_proposal,
)
from lucky_margin.core.render import Layout, View, layout, measure_tone, picked_colour, render
from lucky_margin.core.tone import curve_line
from lucky_margin.web.examples import FINISH, example
from lucky_margin.web.pictures import FRESH, PICTURE, picture_response
from lucky_margin.web.preview_desk import Superseded
from lucky_margin.web.studio import StudioHere

router = APIRouter(prefix="/bench", tags=["bench"])

PRIORITY = {"stage": 0, "proof": 1}

CURVE_STEPS = 64


class Draft(Value):
    """A document in any state of work, the size in hand, and perhaps an edit to make first."""

    model_config = example(
        document=FINISH, size_id="main", edit={"kind": "rename", "name": "Friday mugs"}
    )

    document: Finish
    size_id: Identifier
    edit: Edit | None = None


class SizeLaid(Value):
    """One size of the draft, as a list of them shows it."""

    id: Identifier
    name: str
    width: int = Field(description="Output pixels.")
    height: int = Field(description="Output pixels.")
    seen_width: int
    on_paper: str = Field(description="Its measures on paper, or empty.")
    overridden: list[str] = Field(description="The steps that it overrides.")


_STEPS_HERE: dict[str, Any] = {field: (model, ...) for field, model in VALUES.items()}


class StepsHere(create_model("Values", __base__=Value, **_STEPS_HERE)):  # type: ignore[misc]
    """The steps as the size in hand has them."""

    pieces: list[Piece] = Field(description="Back to front; those switched off too.")
    overrides: list[Override] = Field(description="What the size does differently.")


class Laid(Value):
    """A draft after its edit, with everything a screen needs to draw and say about it."""

    document: Finish
    size_id: Identifier = Field(description="The size that is in hand now.")
    message: str
    guides: tuple[Guide, ...] = Field(description="What a drag was drawn to, and how far it is.")
    layout: Layout
    here: StepsHere
    sizes: list[SizeLaid]
    docket: list[DocketLine] = Field(description="Its lines for the size in hand.")


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
    rough: bool = Field(default=False, description="Quick rather than true, when small.")
    area: int = Field(default=0, ge=0, description="Which one the mask view shows.")
    held: tuple[Identifier, ...] = Field(
        default=(), description="Pieces being dragged: alone in the piece view, in no other."
    )


class PixelWanted(Value):
    """One pixel of a draft: output pixels, or photo pixels in the photo view."""

    model_config = example(document=FINISH, size_id="main", view="final", x=540, y=675)

    document: Finish
    size_id: Identifier
    view: View
    x: int = Field(ge=0)
    y: int = Field(ge=0)
    radius: int = Field(default=0, ge=0, le=64, description="Of the disc that is averaged.")


class Pixel(Value):
    """What one pixel is; null where it is fully transparent."""

    colour: str | None


class CheckList(Value):
    checks: list[Check]


class StepOffered(Value):
    """A step of the docket, and its fields as they come."""

    key: str
    title: str
    has_switch: bool
    fresh: dict[str, Any] = Field(description="Its fields on the finish, nothing set.")


class StepList(Value):
    steps: list[StepOffered]


class ToneFigures(Value):
    """The toned photo inside the window, measured; the histogram's parts each sum to 1."""

    red: tuple[float, ...]
    green: tuple[float, ...]
    blue: tuple[float, ...]
    brightness: tuple[float, ...]
    curve: tuple[float, ...] = Field(description="The own curve at even places, 0..1.")
    newly_high: float = Field(description="Share of pixels that the tone clips to white.")
    newly_low: float = Field(description="Share of pixels that the tone clips to black.")


class TrimWanted(Value):
    """The plain margin to look for; ``tolerance`` is in 8-bit steps."""

    model_config = example(document=FINISH, size_id="main", tolerance=6)

    document: Finish
    size_id: Identifier
    tolerance: float = Field(default=DEFAULT_TOLERANCE, ge=0, le=64)


class NeutralWanted(Value):
    """A colour of the untouched photo that ought to be grey."""

    model_config = example(colour="#B9A58C")

    colour: Colour


@router.get("/steps")
def list_steps() -> StepList:
    """The steps of the docket in order."""
    return StepList(
        steps=[
            StepOffered(
                key=step.key,
                title=step.title,
                has_switch=step.has_switch,
                fresh={
                    field: model().model_dump(mode="json") for field, model in step.values.items()
                },
            )
            for step in STEPS
        ]
    )


@router.post("/draft")
def lay_out(draft: Draft, studio: StudioHere) -> Laid:
    """Make an edit and lay the draft out."""
    photos = studio.store.photos
    document, size_id, message = draft.document, draft.size_id, ""
    guides: tuple[Guide, ...] = ()
    facts = photos.facts(document.photo.sha256)
    if draft.edit is not None:
        edited = apply_edit(document, size_id, draft.edit, facts, studio.store.fonts.face)
        document, size_id, message = edited.finish, edited.size_id, edited.message
        guides = edited.guides
    size = document.size(size_id)
    here = StepsHere(
        **{field: document.as_set(field, size) for field in VALUES},
        pieces=document.pieces_as(size),
        overrides=overrides_in_words(size),
    )
    return Laid(
        document=document,
        size_id=size_id,
        message=message,
        guides=guides,
        layout=layout(document, size, photos),
        here=here,
        sizes=[_size_laid(document, one, facts) for one in document.sizes],
        docket=docket_of(document, size),
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
            font = studio.store.fonts.face
            document = apply_edit(document, wanted.size_id, wanted.edit, facts, font).finish
        picture = render(
            document,
            document.size(wanted.size_id),
            photos,
            scale=wanted.scale,
            region=wanted.region,
            view=wanted.view,
            rough=wanted.rough,
            area=wanted.area,
            held=wanted.held,
        )
        return picture_response(picture, headers=FRESH, lossless=wanted.lossless)

    try:
        return await studio.desk.draw(wanted.channel, PRIORITY[wanted.place], draw)
    except Superseded:
        return Response(status_code=204)


@router.post("/pixel")
def read_pixel(wanted: PixelWanted, studio: StudioHere) -> Pixel:
    """The exact colour of one pixel, or the mean of a disc around it."""
    document = wanted.document
    colour = picked_colour(
        document,
        document.size(wanted.size_id),
        studio.store.photos,
        view=wanted.view,
        x=wanted.x,
        y=wanted.y,
        radius=wanted.radius,
    )
    return Pixel(colour=colour)


@router.post("/checks")
def run_checks(draft: Draft, studio: StudioHere) -> CheckList:
    """The checks of one size."""
    size = draft.document.size(draft.size_id)
    return CheckList(checks=check(draft.document, size, studio.store.photos))


@router.post("/tone")
def measure(draft: Draft, studio: StudioHere) -> ToneFigures:
    """The histogram of the toned photo inside the window, and what the tone clips."""
    size = draft.document.size(draft.size_id)
    measured = measure_tone(draft.document, size, studio.store.photos)
    tone = draft.document.as_set("tone", size)
    return ToneFigures(
        **vars(measured.histogram),
        curve=tuple(curve_line(tone, CURVE_STEPS).round(4).tolist()),
        newly_high=measured.newly.high,
        newly_low=measured.newly.low,
    )


@router.post("/auto")
def propose_tone(draft: Draft, studio: StudioHere) -> Proposal:
    """Propose the ordinary controls of Tone."""
    return tone_proposal(draft.document, studio.store.photos)


@router.post("/neutral")
def propose_neutral(wanted: NeutralWanted) -> Proposal:
    """The warmth and tint under which a colour is grey."""
    return neutral_proposal(wanted.colour)


@router.post("/trim")
def propose_trim(wanted: TrimWanted, studio: StudioHere) -> Proposal:
    """Find the picture inside the photo's plain margin."""
    size = wanted.document.size(wanted.size_id)
    return trim_proposal(wanted.document, size, studio.store.photos, wanted.tolerance)


@router.post("/focus")
def propose_focus(draft: Draft, studio: StudioHere) -> Proposal:
    """Propose what to keep in view."""
    return focus_proposal(draft.document, draft.document.size(draft.size_id), studio.store.photos)


def _size_laid(document: Finish, size: Size, facts: PhotoFacts) -> SizeLaid:
    output = frame_of(document, size, facts.width, facts.height).output
    printed = size.pixels.printed if isinstance(size.pixels, FixedPixels) else None
    overridden = ["window"] if size.crop.window else []
    overridden += size.overrides.steps
    return SizeLaid(
        id=size.id,
        name=size.name,
        width=output.width,
        height=output.height,
        seen_width=size.seen_width,
        on_paper=f"{printed.label}, {printed.ppi:g} ppi" if printed else "",
        overridden=overridden,
    )
