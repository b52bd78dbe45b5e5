"""Laying photos under a picture, from the copy that has just enough pixels."""

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.document import Tone
from lucky_margin.core.render.sources import Sources
from lucky_margin.core.sampling import place, place_at_16_bits
from lucky_margin.core.tone import (
    BASES_SIDE,
    Bases,
    apron,
    bases_of,
    detailed,
    needs_bases,
    needs_detail,
    toned,
    with_look,
)
from lucky_margin.core.types import AnyPicture, Picture8, Picture16, Region

LEAST_DETAIL = 2
"""Pixels of a halved copy for each picture pixel, along one side. With only one, a fine weave
comes out up to 2/255 different on average from the same picture drawn large and shrunk."""


STRIP_PIXELS = 4_000_000
"""Pixels that are toned at a time."""


def placed(sha256: str, mapping: Affine, region: Region, sources: Sources) -> Picture8:
    """``region`` of a picture under whose pixels ``mapping`` lays the photo (photo pixels)."""

    def make() -> Picture8:
        photo, onto_copy = enough_of(sha256, mapping, sources)
        return place(photo, onto_copy, region)

    return sources.cache.get_or_make(("placed", sha256, mapping, region), make)


def toned_photo(
    sha256: str, tone: Tone, mapping: Affine, scale: float, region: Region, sources: Sources
) -> Picture8:
    """``placed``, with ``tone``; ``scale`` is picture pixels to one output pixel.

    A large picture is made in strips, so that 16 bits of all of it are never held at once.
    """
    left, top, width, height = region
    whole = with_look(tone)
    rows = max(1, STRIP_PIXELS // width)
    strips = [
        _toned_strip(
            sha256,
            whole,
            mapping,
            scale,
            (left, top + down, width, min(rows, height - down)),
            sources,
        )
        for down in range(0, height, rows)
    ]
    return strips[0] if len(strips) == 1 else np.concatenate(strips)


def _toned_strip(
    sha256: str, tone: Tone, mapping: Affine, scale: float, region: Region, sources: Sources
) -> Picture8:
    picture = _fine(sha256, tone, mapping, scale, region, sources)
    if tone.fade.amount and tone.fade.colour is None and picture.shape[2] == 3:
        opaque = np.full(picture.shape[:2], 65_535, np.uint16)
        picture = np.dstack([picture, opaque])
    lines = _laid_lines(sha256, mapping, region, sources) if needs_bases(tone) else None
    return toned(picture, tone, lines=lines, origin=region[:2])


def _fine(
    sha256: str, tone: Tone, mapping: Affine, scale: float, region: Region, sources: Sources
) -> Picture16:
    """The photo's pixels at 16 bits, with the tone's detail, which is kept while light and
    colour are tried."""
    facts = sources.facts(sha256)
    long_side, step = max(facts.width, facts.height), mapping.length

    def sampled(wanted: Region) -> Picture16:
        photo, onto_copy = enough_of(sha256, mapping, sources)
        return place_at_16_bits(photo, onto_copy, wanted)

    if not needs_detail(tone):
        key = ("placed at 16 bits", sha256, mapping, region)
        return sources.cache.get_or_make(key, lambda: sampled(region))

    def made() -> Picture16:
        left, top, width, height = region
        beyond = apron(tone, step, long_side)
        wider = (left - beyond, top - beyond, width + 2 * beyond, height + 2 * beyond)
        out = detailed(sampled(wider), tone, step=step, scale=scale, long_side=long_side)
        return np.ascontiguousarray(out[beyond:-beyond, beyond:-beyond])

    settings = (tone.smooth_light, tone.smooth_colour, tone.texture, tone.sharpen)
    return sources.cache.get_or_make(("detailed", sha256, mapping, scale, region, settings), made)


def _laid_lines(
    sha256: str, mapping: Affine, region: Region, sources: Sources
) -> NDArray[np.float32]:
    """The photo's bases under ``region``; made once for a photo, and laid once for a picture."""
    facts = sources.facts(sha256)

    def make() -> NDArray[np.float32]:
        step = max(facts.width, facts.height) / BASES_SIDE
        photo, _ = enough_of(sha256, scaling(step, step), sources)
        return bases_of(photo, facts.width).lines

    lines = sources.cache.get_or_make(("bases", sha256), make)
    bases = Bases(lines, lines.shape[1] / facts.width)
    return sources.cache.get_or_make(
        ("laid bases", sha256, mapping, region), lambda: bases.laid(mapping, region)
    )


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
