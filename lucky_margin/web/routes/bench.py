"""The bench: editing a draft and seeing it. Nothing here is kept; saving is in ``finishes``."""

from typing import Any, Literal

from fastapi import APIRouter, Request, Response
from pydantic import Field
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.checks import Check, check
from lucky_margin.core.document import (
    Colour,
    Identifier,
    Sha256,
    Value,
)
from lucky_margin.core.document.docket import STEPS
from lucky_margin.core.edits import Edit, Guide, MaskPlace
from lucky_margin.core.export import cut_line, mask_file, safe_stem
from lucky_margin.core.finding import DEFAULT_TOLERANCE
from lucky_margin.core.proposals import (
    Proposal,
    ToneProposals,
    focus_proposal,
    found_subject,
    neutral_proposal,
    placing_proposal,
    swap_proposal,
    tone_proposals,
    trim_proposal,
)
from lucky_margin.core.render import View, measure_tone, picked_colour, render
from lucky_margin.core.tone import curve_line
from lucky_margin.web.app_state import AppStateDep, InDraft, bytes_to_draw
from lucky_margin.web.examples import DRAFT, FINISH, example
from lucky_margin.web.laid import DraftLaid, told
from lucky_margin.web.leaving import GoneAway, while_there
from lucky_margin.web.pictures import FILE, FRESH, PICTURE, attached, picture_response
from lucky_margin.web.routes.jobs import JobTold, told_soon
from lucky_margin.web.work_desk import Priority, Superseded

router = APIRouter(prefix="/bench", tags=["bench"])

PRIORITY = {"stage": Priority.STAGE, "proof": Priority.PROOF}

CURVE_STEPS = 64


class EditWanted(InDraft):
    """An edit to make, or null to lay the draft out as it is."""

    model_config = example(
        draft=DRAFT, size_id="main", edit={"kind": "rename", "name": "Friday mugs"}
    )

    edit: Edit | None = None
    since: Sha256 | None = Field(
        default=None,
        description="The draft that the page has laid out for this size; the answer is a patch "
        "of it while it is known here.",
    )


class PreviewWanted(InDraft):
    """A picture of a draft. Newest wins among requests of one ``channel`` (tab and view)."""

    model_config = example(draft=DRAFT, size_id="main", channel="tab-1-stage", scale=0.5)

    edit: Edit | None = None
    channel: str = Field(max_length=80)
    place: Literal["stage", "proof"] = "stage"
    view: View = "final"
    scale: float = Field(gt=0, le=1)
    region: tuple[int, int, int, int] | None = None
    lossless: bool = False
    rough: bool = Field(default=False, description="Quick rather than true, when small.")
    area: int = Field(default=0, ge=0, description="Which one the mask view shows.")
    masks_of: MaskPlace = "area"
    held: tuple[Identifier, ...] = Field(
        default=(), description="Pieces being dragged: alone in the piece view, in no other."
    )


class PixelWanted(InDraft):
    """One pixel of a draft: output pixels, or photo pixels in the photo view."""

    model_config = example(draft=DRAFT, size_id="main", view="final", x=540, y=675)

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


class TrimWanted(InDraft):
    """The plain margin to look for; ``tolerance`` is in 8-bit steps."""

    model_config = example(draft=DRAFT, size_id="main", tolerance=6)

    tolerance: float = Field(default=DEFAULT_TOLERANCE, ge=0, le=64)


class SwapWanted(InDraft):
    """The photo to put in place of the draft's. Newest wins among requests of one ``channel``."""

    model_config = example(
        draft=DRAFT, size_id="main", sha256=FINISH["photo"]["sha256"], channel="tab-1-swap"
    )

    sha256: Sha256
    channel: str = Field(max_length=80)


class FindingWanted(InDraft):
    """The draft in which to find a subject. Newest wins among requests of one ``channel``. One that
    is not to be ``cut_out`` is only found, for the areas of tone."""

    model_config = example(draft=DRAFT, size_id="main", channel="tab-1-subject")

    channel: str = Field(max_length=80)
    cut_out: bool = True


class PlacingWanted(InDraft):
    """How the subject is to fill the size; ``margin`` is a share of its own sides."""

    model_config = example(draft=DRAFT, size_id="main", margin=0.05)

    margin: float = Field(default=0.05, ge=0, le=4)


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


@router.post("/draft", response_model=DraftLaid)
def lay_out(wanted: EditWanted, state: AppStateDep) -> Response:
    """Make an edit and lay the draft out."""
    draft, size_id, message = state.drafts.get(wanted.draft), wanted.size_id, ""
    guides: tuple[Guide, ...] = ()
    if wanted.edit is not None:
        draft, edited = state.drafts.edited(wanted.draft, size_id, wanted.edit)
        size_id, message, guides = edited.size_id, edited.message, edited.guides
    since = state.drafts.find(wanted.since) if size_id == wanted.size_id else None
    body = told(
        draft,
        size_id,
        message,
        guides,
        state.layings.of(draft, size_id),
        None if since is None else state.layings.of(since, size_id),
    )
    return Response(body, media_type="application/json")


@router.post(
    "/preview",
    response_class=Response,
    responses={
        **PICTURE,
        204: {"description": "A newer request of the channel took this one's place."},
    },
)
async def preview(wanted: PreviewWanted, state: AppStateDep, request: Request) -> Response:
    """The picture of a draft (after its edit, if it names one). Not drawn for one who has gone
    away."""
    scene = state.scene(wanted)

    def draw() -> Response:
        shown = scene
        if wanted.edit is not None:
            after, _ = state.drafts.edited(wanted.draft, wanted.size_id, wanted.edit)
            shown = after.scene(wanted.size_id)
        picture = render(
            shown,
            scale=wanted.scale,
            region=wanted.region,
            view=wanted.view,
            rough=wanted.rough,
            area=wanted.area,
            masks_of=wanted.masks_of,
            held=wanted.held,
        )
        return picture_response(picture, headers=FRESH, lossless=wanted.lossless)

    try:
        drawn = state.desk.run(
            draw,
            PRIORITY[wanted.place],
            channel=wanted.channel,
            memory=bytes_to_draw(scene, wanted.scale),
        )
        return await while_there(request, drawn)
    except (Superseded, GoneAway):
        return Response(status_code=204)


@router.post("/pixel")
def read_pixel(wanted: PixelWanted, state: AppStateDep) -> Pixel:
    """The exact colour of one pixel, or the mean of a disc around it."""
    colour = picked_colour(
        state.scene(wanted), view=wanted.view, x=wanted.x, y=wanted.y, radius=wanted.radius
    )
    return Pixel(colour=colour)


@router.post("/checks")
async def run_checks(wanted: InDraft, state: AppStateDep) -> CheckList:
    """The checks of one size."""
    scene = state.scene(wanted)
    return await state.measured(scene, lambda: CheckList(checks=check(scene)))


@router.post("/tone")
async def measure(wanted: InDraft, state: AppStateDep) -> ToneFigures:
    """The histogram of the toned photo inside the window, and what the tone clips."""
    scene = state.scene(wanted)

    def figures() -> ToneFigures:
        measured = measure_tone(scene)
        tone = scene.finish.as_set("tone", scene.size)
        return ToneFigures(
            **vars(measured.histogram),
            curve=tuple(curve_line(tone, CURVE_STEPS).round(4).tolist()),
            newly_high=measured.newly.high,
            newly_low=measured.newly.low,
        )

    return await state.measured(scene, figures)


@router.post("/auto")
async def propose_tone(wanted: InDraft, state: AppStateDep) -> ToneProposals:
    """Propose the ordinary controls of Tone, gently, as measured, and boldly."""
    scene = state.scene(wanted)
    return await state.measured(scene, lambda: tone_proposals(scene))


@router.post("/neutral")
def propose_neutral(wanted: NeutralWanted) -> Proposal:
    """The warmth and tint under which a colour is grey."""
    return neutral_proposal(wanted.colour)


@router.post("/trim")
async def propose_trim(wanted: TrimWanted, state: AppStateDep) -> Proposal:
    """Find the picture inside the photo's plain margin."""
    scene = state.scene(wanted)
    return await state.measured(scene, lambda: trim_proposal(scene, wanted.tolerance))


@router.post("/focus")
async def propose_focus(wanted: InDraft, state: AppStateDep) -> Proposal:
    """Propose what to keep in view."""
    scene = state.scene(wanted)
    return await state.measured(scene, lambda: focus_proposal(scene))


@router.post("/swap")
async def propose_swap(wanted: SwapWanted, state: AppStateDep) -> JobTold:
    """Propose another photo in place of the draft's, looked at for what matters in it (a
    ``Proposal``)."""
    scene = state.scene(wanted)
    await run_in_threadpool(state.store.photos.get, wanted.sha256)
    job = state.jobs.start(
        f"swap {wanted.channel}",
        lambda progress: swap_proposal(scene, wanted.sha256, progress),
        memory=bytes_to_draw(scene),
    )
    return await told_soon(job)


@router.post("/subject")
async def find_subject(wanted: FindingWanted, state: AppStateDep) -> JobTold:
    """Find what may be cut out (a ``Proposal``)."""
    scene = state.scene(wanted)
    job = state.jobs.start(
        f"subject {wanted.channel}",
        lambda progress: found_subject(scene, progress, cut_out=wanted.cut_out),
        memory=bytes_to_draw(scene),
    )
    return await told_soon(job)


@router.post("/mask", response_class=Response, responses=FILE)
async def save_mask(wanted: InDraft, state: AppStateDep) -> Response:
    """The cut-out of one size as a greyscale PNG over the whole photo: white is subject."""
    scene = state.scene(wanted)
    data = await state.measured(scene, lambda: mask_file(scene))
    name = f"{safe_stem(scene.finish.name)}-mask.png"
    return Response(data, media_type="image/png", headers=attached(name))


@router.post("/cut-line", response_class=Response, responses=FILE)
async def save_cut_line(wanted: InDraft, state: AppStateDep) -> Response:
    """The line round the subject of one size as an SVG drawing at its true millimetres."""
    scene = state.scene(wanted)
    data = await state.measured(scene, lambda: cut_line(scene))
    name = f"{safe_stem(scene.finish.name)}-cut-line.svg"
    return Response(data, media_type="image/svg+xml", headers=attached(name))


@router.post("/placing")
async def propose_placing(wanted: PlacingWanted, state: AppStateDep) -> Proposal:
    """Propose the window around the subject."""
    scene = state.scene(wanted)
    return await state.measured(scene, lambda: placing_proposal(scene, wanted.margin))
