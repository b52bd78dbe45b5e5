"""Laying photos under a picture, from the copy that has just enough pixels."""

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.render.sources import Sources
from lucky_margin.core.sampling import place
from lucky_margin.core.types import AnyPicture, Picture8, Region

LEAST_DETAIL = 2
"""Pixels of a halved copy for each picture pixel, along one side. With only one, a fine weave
comes out up to 2/255 different on average from the same picture drawn large and shrunk."""


def placed(sha256: str, mapping: Affine, region: Region, sources: Sources) -> Picture8:
    """``region`` of a picture under whose pixels ``mapping`` lays the photo (photo pixels)."""

    def make() -> Picture8:
        photo, onto_copy = enough_of(sha256, mapping, sources)
        return place(photo, onto_copy, region)

    return sources.cache.get_or_make(("placed", sha256, mapping, region), make)


def enough_of(sha256: str, mapping: Affine, sources: Sources) -> tuple[AnyPicture, Affine]:
    """The most often halved copy that still has ``LEAST_DETAIL`` pixels for a picture pixel, and
    ``mapping`` onto its pixels."""
    facts = sources.facts(sha256)
    number, step = 0, mapping.length
    while step >= 2 * LEAST_DETAIL and min(facts.width, facts.height) >= 2 ** (number + 1):
        step /= 2
        number += 1
    share = 0.5**number
    return sources.level(sha256, number), scaling(share, share).after(mapping)
