"""Words on the bench: where they are written, how well they are read, and what would help.

Nothing here is kept.
"""

from fastapi import APIRouter
from pydantic import Field

from lucky_margin.core.checks import contrast_of
from lucky_margin.core.document import Colour, Identifier, Sha256, Value
from lucky_margin.core.palette import palette_of
from lucky_margin.core.pieces import plain_background
from lucky_margin.core.proposals import (
    Proposal,
    alt_text_proposal,
    calm_place_proposal,
    readable_proposal,
)
from lucky_margin.core.render import Writing, writing_of
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.web.app_state import AppStateDep, InDraft
from lucky_margin.web.examples import DRAFT, example
from lucky_margin.web.work_desk import Priority

router = APIRouter(prefix="/bench", tags=["bench"])

JUDGED_PIXELS = 1_000_000

PALETTE_LEVEL = 3
"""How often the photo is halved before its colours are counted."""


class TextWanted(InDraft):
    model_config = example(draft=DRAFT, size_id="main", piece="text-1")

    piece: Identifier


class CalmWanted(TextWanted):
    """``place`` 0 is the calmest, 1 the next best."""

    place: int = Field(default=0, ge=0, le=100)


class Legibility(Value):
    """A text's contrast where it lies, and what is wanted there."""

    ratio: float
    wanted: float


class Palette(Value):
    """Colours of a photo, the most frequent first."""

    colours: list[Colour]


class PlainBackground(Value):
    """The one colour all around an opaque picture; null when there is none to knock out."""

    colour: str | None


@router.get("/background/{sha256}")
async def find_background(sha256: Sha256, state: AppStateDep) -> PlainBackground:
    """Whether a picture, such as a logo, lies on one plain colour."""
    facts = state.store.photos.facts(sha256)
    number = 0
    while (facts.width * facts.height) >> (2 * number) > JUDGED_PIXELS:
        number += 1

    def find() -> PlainBackground:
        picture = as_8_bits(state.store.photos.level(sha256, number))
        return PlainBackground(colour=plain_background(picture))

    return await state.desk.run(find, Priority.CHECK)


@router.get("/palette/{sha256}")
async def get_palette(sha256: Sha256, state: AppStateDep) -> Palette:
    """The colours that a photo is made of."""

    def count() -> Palette:
        photo = as_8_bits(state.store.photos.level(sha256, PALETTE_LEVEL))
        return Palette(colours=palette_of(photo))

    return await state.desk.run(count, Priority.CHECK)


@router.post("/writing")
def find_letters(wanted: TextWanted, state: AppStateDep) -> Writing:
    """Where the letters of a text and the places of its caret are."""
    return writing_of(state.scene(wanted), wanted.piece)


@router.post("/legibility")
async def judge(wanted: TextWanted, state: AppStateDep) -> Legibility:
    """How well a text can be read."""
    scene = state.scene(wanted)

    def measure() -> Legibility:
        found = contrast_of(scene, wanted.piece)
        return Legibility(
            ratio=found.ratio if found else 21,
            wanted=found.wanted if found else 1,
        )

    return await state.measured(scene, measure)


@router.post("/readable")
async def propose_readable(wanted: TextWanted, state: AppStateDep) -> Proposal:
    """The least that makes a text readable."""
    scene = state.scene(wanted)
    return await state.measured(scene, lambda: readable_proposal(scene, wanted.piece))


@router.post("/calm")
async def propose_calm_place(wanted: CalmWanted, state: AppStateDep) -> Proposal:
    """A place where the picture is quiet enough for words."""
    scene = state.scene(wanted)
    return await state.measured(
        scene, lambda: calm_place_proposal(scene, wanted.piece, wanted.place)
    )


@router.post("/alt-text")
def propose_alt_text(wanted: InDraft, state: AppStateDep) -> Proposal:
    """An alternative text from the finish's name and its words."""
    return alt_text_proposal(state.scene(wanted))
