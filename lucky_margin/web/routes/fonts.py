"""The fonts that words can be set in: those that ship, and own ones."""

from typing import Annotated

import numpy as np
from fastapi import APIRouter, Query, Request, Response
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.document import AnyFamily, Sha256, Value
from lucky_margin.core.errors import TooLarge
from lucky_margin.core.text import (
    FAMILIES,
    MAX_FONT_BYTES,
    STAND_IN,
    TOO_LARGE,
    is_own,
    typeface,
    word_picture,
)
from lucky_margin.store import FontRecord
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.bodies import BYTES, body_of
from lucky_margin.web.pictures import FOREVER, FRESH, PICTURE, picture_response

router = APIRouter(prefix="/fonts", tags=["fonts"])

SAMPLE_HEIGHT = 56
"""Pixels of a sample; it is shown at half of that."""

Words = Annotated[str, Query(max_length=60)]


class FontOffered(Value):
    """A family; the key of an own font is the SHA-256 of its file."""

    key: AnyFamily
    name: str
    kind: str
    weights: tuple[int, ...]
    has_italic: bool


class FontList(Value):
    fonts: list[FontOffered]


@router.get("")
def list_fonts(state: AppStateDep) -> FontList:
    """Own fonts, then the families that ship with the application."""
    shipped = [
        FontOffered(
            key=family.key,
            name=family.name,
            kind=family.kind,
            weights=family.weights,
            has_italic=bool(family.italic_weights),
        )
        for family in FAMILIES.values()
    ]
    return FontList(fonts=[*map(_own, state.store.fonts.list()), *shipped])


@router.post("", status_code=201, openapi_extra=BYTES)
async def add_font(request: Request, state: AppStateDep) -> FontOffered:
    """Add a TTF or OTF font, the request's body. The same bytes again are the same font."""
    data = await body_of(request, MAX_FONT_BYTES, TooLarge(TOO_LARGE))
    font = await run_in_threadpool(state.store.fonts.add, data)
    state.drafts.forget()
    return _own(font)


@router.delete("/{sha256}", status_code=204)
def remove_font(sha256: Sha256, state: AppStateDep) -> None:
    """Offer an own font no more; finishes that are set in it keep it."""
    state.store.fonts.remove(sha256)


@router.get("/{key}/sample", response_class=Response, responses=PICTURE)
def get_sample(
    key: AnyFamily, state: AppStateDep, words: Words = "Pebblewick", weight: int = 400
) -> Response:
    """The user's own words in a family, dark on transparent."""
    family = typeface(key, state.store.fonts.face)
    is_stand_in = is_own(key) and family == STAND_IN  # its font may be added again
    coverage = word_picture(words or " ", family, weight, SAMPLE_HEIGHT)
    picture = np.empty((*coverage.shape, 4), np.uint8)
    picture[:] = (30, 42, 47, 0)
    picture[:, :, 3] = coverage
    return picture_response(picture, headers=FRESH if is_stand_in else FOREVER)


def _own(font: FontRecord) -> FontOffered:
    return FontOffered(
        key=font.sha256, name=font.name, kind="own", weights=(font.weight,), has_italic=False
    )
