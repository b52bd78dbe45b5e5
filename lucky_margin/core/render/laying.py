"""Laying photos under a picture, from the copy that has just enough pixels."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.document import Tone
from lucky_margin.core.render.cache import PictureCache
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
    strip = _Strips(sha256, with_look(tone), mapping, scale, sources)
    if width * height <= STRIP_PIXELS:
        return strip.toned(region, sources.cache)
    rows = max(1, STRIP_PIXELS // width)
    first = strip.toned((left, top, width, min(rows, height)), NO_CACHE)
    out = np.empty((height, width, first.shape[2]), np.uint8)
    out[:rows] = first
    for down in range(rows, height, rows):
        part = (left, top + down, width, min(rows, height - down))
        out[down : down + rows] = strip.toned(part, NO_CACHE)
    return out


NO_CACHE = PictureCache(max_bytes=0)
"""Keeps nothing: for strips of a picture so large that they would push out all else."""


@dataclass(frozen=True)
class _Strips:
    """One toned photo laid under a picture, any part of which can be made."""

    sha256: str
    tone: Tone
    mapping: Affine
    scale: float
    sources: Sources

    def toned(self, region: Region, cache: PictureCache) -> Picture8:
        tone = self.tone
        picture = self._fine(region, cache)
        if tone.fade.amount and tone.fade.colour is None and picture.shape[2] == 3:
            opaque = np.full(picture.shape[:2], 65_535, np.uint16)
            picture = np.dstack([picture, opaque])
        lines = self._lines(region, cache) if needs_bases(tone) else None
        return toned(picture, tone, lines=lines, origin=region[:2])

    def _fine(self, region: Region, cache: PictureCache) -> Picture16:
        """The photo's pixels at 16 bits, with the tone's detail; kept while light and colour
        are tried."""
        key = (self.sha256, self.mapping, region)
        if not needs_detail(self.tone):
            return cache.get_or_make(("at 16 bits", *key), lambda: self._sampled(region))
        tone = self.tone
        settings = (tone.smooth_light, tone.smooth_colour, tone.texture, tone.sharpen)
        return cache.get_or_make(
            ("detailed", *key, self.scale, settings), lambda: self._detailed(region)
        )

    def _sampled(self, region: Region) -> Picture16:
        photo, onto_copy = enough_of(self.sha256, self.mapping, self.sources)
        return place_at_16_bits(photo, onto_copy, region)

    def _detailed(self, region: Region) -> Picture16:
        facts = self.sources.facts(self.sha256)
        long_side, step = max(facts.width, facts.height), self.mapping.length
        left, top, width, height = region
        beyond = apron(self.tone, step, long_side)
        wider = (left - beyond, top - beyond, width + 2 * beyond, height + 2 * beyond)
        out = detailed(
            self._sampled(wider), self.tone, step=step, scale=self.scale, long_side=long_side
        )
        return np.ascontiguousarray(out[beyond:-beyond, beyond:-beyond])

    def _lines(self, region: Region, cache: PictureCache) -> NDArray[np.float32]:
        """The photo's bases under ``region``; made once for a photo, laid once for a picture."""
        facts = self.sources.facts(self.sha256)

        def make() -> NDArray[np.float32]:
            step = max(facts.width, facts.height) / BASES_SIDE
            photo, _ = enough_of(self.sha256, scaling(step, step), self.sources)
            return bases_of(photo, facts.width).lines

        lines = self.sources.cache.get_or_make(("bases", self.sha256), make)
        bases = Bases(lines, lines.shape[1] / facts.width)
        return cache.get_or_make(
            ("laid bases", self.sha256, self.mapping, region),
            lambda: bases.laid(self.mapping, region),
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
