"""House styles: kept from a finish, given to others, and out and in as files."""

from typing import Annotated

from fastapi import APIRouter, Request, Response
from pydantic import Field
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.document import (
    PARTS,
    Colour,
    FixedPixels,
    HouseStyle,
    Name,
    PartKey,
    Size,
    StyleId,
    Transparent,
    Value,
    blank_finish,
    chosen_colours,
    columns_of,
    families_of,
    kept_style,
)
from lucky_margin.core.errors import TooLarge
from lucky_margin.core.export import MAX_PACKAGE_BYTES, STYLE, safe_stem
from lucky_margin.core.proposals import PartChange, style_changes, style_proposal
from lucky_margin.store import export_style, import_style, new_style_id
from lucky_margin.web.app_state import AppState, AppStateDep, InDraft, bytes_to_draw
from lucky_margin.web.bodies import BYTES, body_of
from lucky_margin.web.examples import DRAFT, example
from lucky_margin.web.pictures import FILE, attached
from lucky_margin.web.routes.jobs import JobTold, told_soon
from lucky_margin.web.routes.marks import Renewed

router = APIRouter(prefix="/styles", tags=["styles"])

_STYLE = {"id": "0123456789abcdef", "name": "Shop", "parts": {"watermark": {"text": "Pebblewick"}}}


_UNTOUCHED = blank_finish(
    name="Untouched",
    size=Size(id="none", name="None", pixels=FixedPixels(width=1, height=1)),
    ground=Transparent(),
)
"""A finish in which nothing is set."""


class KeptStyle(Value):
    """A house style, and how many finishes use an earlier version of it."""

    style: HouseStyle
    gives: list[str] = Field(description="Its parts, in words.")
    colours: list[Colour] = Field(description="Those that are set in it, the most used first.")
    fonts: list[str] = Field(description="What its words are set in.")
    columns: list[str] = Field(description="The columns of a table that its words name.")
    older_uses: int


class StyleList(Value):
    styles: list[KeptStyle]
    default: StyleId | None = Field(description="The one that new photos get.")


class PartOffered(Value):
    """A part of a finish that a style may give, in words, and whether anything is set in it."""

    key: PartKey
    title: str
    summary: str
    is_set: bool


class PartList(Value):
    parts: list[PartOffered]


class NewStyle(InDraft):
    """Parts of a draft to keep as a style: a new one, or a new version of the one that is named."""

    model_config = example(draft=DRAFT, size_id="main", name="Shop", parts=["border", "watermark"])

    name: Name
    parts: tuple[PartKey, ...]
    suggest_light: bool = False
    id: StyleId | None = None


class StyleWanted(InDraft):
    """A style for a draft."""

    model_config = example(draft=DRAFT, size_id="main", style=_STYLE)

    style: HouseStyle


class StyleTaken(StyleWanted):
    """The parts of it to take over; null is all that nobody changed since it was given. Newest wins
    among requests of one ``channel``."""

    model_config = example(draft=DRAFT, size_id="main", style=_STYLE, channel="tab-1-style")

    put: tuple[PartKey, ...] | None = None
    channel: Annotated[str, Field(max_length=80)]


class ChangeList(Value):
    changes: list[PartChange]


class DefaultStyle(Value):
    model_config = example(id=_STYLE["id"])

    id: StyleId | None


@router.get("")
def list_styles(state: AppStateDep) -> StyleList:
    """Kept styles, the one changed last first."""
    default = state.store.styles.default
    return StyleList(
        styles=[_told(style, state) for style in state.store.styles.list()],
        default=default.id if default else None,
    )


@router.post("", status_code=201)
def keep_style(new: NewStyle, state: AppStateDep) -> KeptStyle:
    """Keep parts of a draft as a style; finishes that use an earlier version keep theirs until they
    are renewed."""
    finish = state.drafts.get(new.draft).finish
    style_id = new.id or new_style_id()
    style = kept_style(finish, style_id, new.name, new.parts, suggest_light=new.suggest_light)
    return _told(state.store.styles.keep(style), state)


@router.post("/parts")
def list_parts(wanted: InDraft, state: AppStateDep) -> PartList:
    """What of a draft can be kept as a style."""
    finish = state.drafts.get(wanted.draft).finish
    keys = tuple(part.key for part in PARTS if part.key != "light")
    style = kept_style(finish, new_style_id(), finish.name, keys, suggest_light=False)
    return PartList(parts=[_offered(key, style) for key in keys])


@router.post("/changes")
def list_changes(wanted: StyleWanted, state: AppStateDep) -> ChangeList:
    """What a style would change in a draft, part by part."""
    finish = state.drafts.get(wanted.draft).finish
    return ChangeList(changes=style_changes(finish, wanted.style))


@router.post("/use")
async def propose_style(wanted: StyleTaken, state: AppStateDep) -> JobTold:
    """Propose the draft in a style, its photo looked at where the style asks for that (a
    ``Proposal``)."""
    scene = state.scene(wanted)
    job = state.jobs.start(
        f"style {wanted.channel}",
        lambda progress: style_proposal(scene, wanted.style, wanted.put, progress),
        memory=bytes_to_draw(scene),
    )
    return await told_soon(job)


@router.put("/default")
def set_default(chosen: DefaultStyle, state: AppStateDep) -> StyleList:
    """Choose the style that new photos get, or none."""
    state.store.styles.set_default(chosen.id)
    return list_styles(state)


@router.post("/file", status_code=201, openapi_extra=BYTES)
async def add_file(request: Request, state: AppStateDep) -> KeptStyle:
    """Keep the style of a file, the request's body, with all that is in it."""
    too_large = TooLarge(
        f"A house style may have {MAX_PACKAGE_BYTES // 1_000_000} MB at most; choose another file."
    )
    data = await body_of(request, MAX_PACKAGE_BYTES, too_large)
    return await run_in_threadpool(lambda: _told(import_style(state.store, data), state))


@router.get("/{style_id}/file", response_class=Response, responses=FILE)
def get_file(style_id: StyleId, state: AppStateDep) -> Response:
    """A style as one file, with its pictures, fonts and colour tables."""
    style = state.store.styles.get(style_id)
    headers = attached(f"{safe_stem(style.name)}{STYLE.suffix}")
    data = export_style(state.store, style)
    return Response(data, media_type="application/zip", headers=headers)


@router.post("/{style_id}/renew")
def renew(style_id: StyleId, state: AppStateDep) -> Renewed:
    """The present version in every finish that uses an earlier one, a change in each."""
    return Renewed(finishes=state.store.finishes.renew(state.store.styles.get(style_id)))


@router.delete("/{style_id}", status_code=204)
def forget_style(style_id: StyleId, state: AppStateDep) -> None:
    """Forget a style; finishes that use it keep it."""
    state.store.styles.remove(style_id)


def _told(style: HouseStyle, state: AppState) -> KeptStyle:
    gives = [
        f"{part.title}: {part.in_words(given)}"
        for part in PARTS
        if (given := getattr(style.parts, part.key)) is not None
    ]
    if style.suggest_light:
        gives.append("Light and colour as suggested for each photo")
    return KeptStyle(
        style=style,
        gives=gives,
        colours=chosen_colours(style.parts),
        fonts=families_of(style.parts),
        columns=columns_of(style.parts.pieces, style.parts.watermark),
        older_uses=state.store.finishes.count_older_uses(style),
    )


def _offered(key: PartKey, style: HouseStyle) -> PartOffered:
    """A part of a style that has them all; sizes are always set."""
    part = next(part for part in PARTS if part.key == key)
    value = getattr(style.parts, key)
    return PartOffered(
        key=key,
        title=part.title,
        summary=part.in_words(value),
        is_set=value != part.of(_UNTOUCHED),
    )
