"""The fonts that words can be set in."""

from typing import Annotated

import numpy as np
from fastapi import APIRouter, Query, Response

from lucky_margin.core.document import FamilyKey, Value
from lucky_margin.core.text import FAMILIES, word_picture
from lucky_margin.web.pictures import FOREVER, PICTURE, picture_response

router = APIRouter(prefix="/fonts", tags=["fonts"])

SAMPLE_HEIGHT = 56
"""Pixels of a sample; it is shown at half of that."""

Words = Annotated[str, Query(max_length=60)]


class FontOffered(Value):
    key: FamilyKey
    name: str
    kind: str
    weights: tuple[int, ...]
    has_italic: bool


class FontList(Value):
    fonts: list[FontOffered]


@router.get("")
def list_fonts() -> FontList:
    """The families that ship with the application."""
    fonts = [
        FontOffered(
            key=family.key,
            name=family.name,
            kind=family.kind,
            weights=family.weights,
            has_italic=bool(family.italic_weights),
        )
        for family in FAMILIES.values()
    ]
    return FontList(fonts=fonts)


@router.get("/{key}/sample", response_class=Response, responses=PICTURE)
def get_sample(key: FamilyKey, words: Words = "Pebblewick", weight: int = 400) -> Response:
    """The user's own words in a family, dark on transparent."""
    coverage = word_picture(words or " ", key, weight, SAMPLE_HEIGHT)
    picture = np.empty((*coverage.shape, 4), np.uint8)
    picture[:] = (30, 42, 47, 0)
    picture[:, :, 3] = coverage
    return picture_response(picture, headers=FOREVER)
