"""Laying photos under a picture, from the copy that has just enough pixels."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import UNCHANGED, Affine, scaling
from lucky_margin.core.document import Area, TableLook, Tone
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.shown import ShownPhoto
from lucky_margin.core.sampling import as_16_bits, place, place_at_16_bits
from lucky_margin.core.scene import DerivedKey, PictureCache, Scene
from lucky_margin.core.tone import (
    BASES_VERSION,
    GUIDED_SIDE,
    HAZE_VERSION,
    GuidedLines,
    OnPhoto,
    air_of,
    apron,
    area_coverage,
    bases_of,
    detailed,
    needs_bases,
    needs_detail,
    needs_regions,
    set_areas,
    subject_edges,
    toned,
    veil_of,
    with_haze,
    with_look,
    with_table,
)
from lucky_margin.core.types import AnyPicture, Mask, Picture8, Picture16, Region

MIN_SOURCE_PIXELS = 2
"""Pixels of a halved copy for each picture pixel, along one side. With only one, a fine weave
comes out up to 2/255 different on average from the same picture drawn large and shrunk."""


STRIP_PIXELS = 4_000_000
"""Pixels that are toned at a time."""


def placed(photo: ShownPhoto, mapping: Affine, region: Region) -> Picture8:
    """``region`` of a picture under whose pixels ``mapping`` lays the photo (photo pixels)."""

    def make() -> Picture8:
        copy, onto_copy = pick_level(photo, mapping)
        return place(copy, onto_copy, region)

    return photo.sources.cache.get_or_make(("placed", photo.key, mapping, region), make)


def placed_cover(cover: Mask, photo: ShownPhoto, mapping: Affine, region: Region) -> Mask:
    """What a plane over all of ``photo`` says (0..255), of any sides, under ``region`` of a picture
    under whose pixels ``mapping`` lays the photo."""
    rows, columns = cover.shape
    black = np.zeros((rows, columns, 4), np.uint8)
    black[:, :, 3] = cover
    onto_plane = scaling(columns / photo.facts.width, rows / photo.facts.height)
    return np.ascontiguousarray(place(black, onto_plane.after(mapping), region)[:, :, 3])


def under(
    photo: ShownPhoto, scene: Scene, tone: Tone, grid: Grid, moved: Affine = UNCHANGED
) -> Picture8:
    """``photo`` laid under ``grid`` as the scene frames it, with ``tone``; ``moved`` says where it
    shows what is to be seen at a place, both in output pixels."""
    mapping = scene.mapping(moved.after(grid.to_full))
    if not tone.is_set:
        return placed(photo, mapping, grid.region)
    return toned_photo(photo, tone, mapping, grid.scale_x, grid.region)


def toned_photo(
    photo: ShownPhoto, tone: Tone, mapping: Affine, scale: float, region: Region
) -> Picture8:
    """``placed``, with ``tone``; ``scale`` is picture pixels to one output pixel.

    It is kept, since words are typed and pieces dragged over it. A large picture is made in
    strips, so that 16 bits of all of it are never held at once.
    """
    left, top, width, height = region
    strip = _Strips(photo, with_look(tone), mapping, scale)
    if width * height <= STRIP_PIXELS:
        cache = photo.sources.cache
        key = ("toned", photo.key, photo.subject_alone.key, tone, mapping, scale, region)
        return cache.get_or_make(key, lambda: strip.toned(region, cache))
    rows = max(1, STRIP_PIXELS // width)
    first = strip.toned((left, top, width, min(rows, height)), NO_CACHE)
    out = np.empty((height, width, first.shape[2]), np.uint8)
    out[:rows] = first
    for down in range(rows, height, rows):
        part = (left, top + down, width, min(rows, height - down))
        out[down : down + rows] = strip.toned(part, NO_CACHE)
    return out


def area_under(
    photo: ShownPhoto, tone: Tone, area: Area, mapping: Affine, scale: float, region: Region
) -> Mask:
    """What of ``region`` lies in an ``area`` of ``tone``; the rest is as in ``toned_photo``."""
    return _Strips(photo, with_look(tone), mapping, scale).area(area, region)


NO_CACHE = PictureCache(max_bytes=0)
"""Keeps nothing: for strips of a picture so large that they would push out all else."""


@dataclass(frozen=True)
class _Strips:
    """One toned photo laid under a picture, any part of which can be made."""

    photo: ShownPhoto
    tone: Tone
    mapping: Affine
    scale: float

    def toned(self, region: Region, cache: PictureCache) -> Picture8:
        tone = self.tone
        picture = self._fine(region, cache)
        if tone.fade.amount and tone.fade.colour is None and picture.shape[2] == 3:
            opaque = np.full(picture.shape[:2], 65_535, np.uint16)
            picture = np.dstack([picture, opaque])
        return toned(
            picture,
            tone,
            on_photo=self._on_photo(),
            lines=self._lines(region, cache) if needs_bases(tone) else None,
            subject=self._subject(set_areas(tone), region, cache),
            origin=region[:2],
        )

    def area(self, area: Area, region: Region) -> Mask:
        """What of ``region`` lies in one of the tone's areas."""
        cache = self.photo.sources.cache
        coverage = area_coverage(
            self._fine(region, cache),
            area,
            on_photo=self._on_photo(),
            lines=self._lines(region, cache) if needs_regions(area) else None,
            subject=self._subject([area], region, cache),
            origin=region[:2],
        )
        return np.rint(255 * coverage).astype(np.uint8)

    def _subject(
        self, areas: Sequence[Area], region: Region, cache: PictureCache
    ) -> NDArray[np.float32]:
        """What the subject covers under ``region``, at each of the edges that areas ask for."""
        planes = [self._covered(*edge, region, cache) for edge in subject_edges(areas)]
        return np.array(planes, np.float32).reshape(-1, region[3], region[2])

    def _covered(
        self, shift: float, feather: float, region: Region, cache: PictureCache
    ) -> NDArray[np.float32]:
        """All of what is cut out is subject, and nothing of what is behind it."""
        photo = self.photo
        if photo.shows != "all":
            return np.full(region[:1:-1], photo.shows == "subject", np.float32)

        def make() -> NDArray[np.float32]:
            if shift == 0 and feather == 0:
                subject, onto_subject = pick_level(photo.subject_alone, self.mapping)
                cover = place(subject, onto_subject, region)[:, :, 3]
            else:
                cover = placed_cover(photo.covered(shift, feather), photo, self.mapping, region)
            return np.asarray(cover, np.float32) / np.float32(255)

        key = ("laid subject", photo.subject_alone.key, shift, feather, self.mapping, region)
        return cache.get_or_make(key, make)

    def _on_photo(self) -> OnPhoto:
        facts = self.photo.facts
        return OnPhoto(facts.width, facts.height, self.mapping)

    def _fine(self, region: Region, cache: PictureCache) -> Picture16:
        """The photo's pixels at 16 bits, with the tone's detail and haze; kept while light and
        colour are tried."""
        key = (self.photo.key, self.mapping, region, self._table_key)
        tone = self.tone
        if not (needs_detail(tone) or tone.haze):
            return cache.get_or_make(("at 16 bits", *key), lambda: self._sampled(region))
        settings = (
            tone.noise_reduction,
            tone.colour_noise_reduction,
            tone.fine_detail,
            tone.sharpening,
            tone.haze,
        )
        return cache.get_or_make(
            ("detailed", *key, self.scale, settings), lambda: self._detailed(region, cache)
        )

    def _sampled(self, region: Region) -> Picture16:
        photo, onto_copy = pick_level(self.photo, self.mapping)
        picture = place_at_16_bits(photo, onto_copy, region)
        return picture if self._table_key is None else self._under_table(picture, *self._table_key)

    @property
    def _table_key(self) -> tuple[str, float] | None:
        look = self.tone.look
        return (look.table, look.strength) if isinstance(look, TableLook) else None

    def _under_table(self, picture: AnyPicture, sha256: str, strength: float) -> Picture16:
        """The picture under the colour table of the tone's look."""
        return with_table(picture, self.photo.sources.table(sha256), strength / 100)

    def _detailed(self, region: Region, cache: PictureCache) -> Picture16:
        picture = self._sharp(region) if needs_detail(self.tone) else self._sampled(region)
        return self._without_haze(picture, self.mapping, region, cache)

    def _sharp(self, region: Region) -> Picture16:
        facts = self.photo.facts
        long_side, step = max(facts.width, facts.height), self.mapping.mean_scale
        left, top, width, height = region
        beyond = apron(self.tone, step, long_side)
        wider = (left - beyond, top - beyond, width + 2 * beyond, height + 2 * beyond)
        out = detailed(
            self._sampled(wider), self.tone, step=step, scale=self.scale, long_side=long_side
        )
        return np.ascontiguousarray(out[beyond:-beyond, beyond:-beyond])

    def _without_haze(
        self, picture: Picture16, mapping: Affine, region: Region, cache: PictureCache
    ) -> Picture16:
        """``picture``, which lies at ``region`` under ``mapping``, with the tone's haze."""
        if not self.tone.haze:
            return picture
        width = self.photo.facts.width
        air = self._kept("air", HAZE_VERSION, lambda: air_of(self._to_measure()))
        veil = self._kept(
            "veil", HAZE_VERSION, lambda: veil_of(self._to_measure(), air, width).lines
        )
        laid = cache.get_or_make(
            ("laid veil", self.photo.whole.key, self._table_key, mapping, region),
            lambda: GuidedLines(veil, veil.shape[1] / width).laid(mapping, region),
        )
        return with_haze(picture, self.tone.haze, air, laid)

    def _lines(self, region: Region, cache: PictureCache) -> NDArray[np.float32]:
        """The photo's bases under ``region``; made once for a photo, laid once for a picture."""
        width = self.photo.facts.width
        lines = self._haze_free_lines() if self.tone.haze else self._plain_lines()
        return cache.get_or_make(
            (
                "laid bases",
                self.photo.whole.key,
                self._table_key,
                self.tone.haze,
                self.mapping,
                region,
            ),
            lambda: GuidedLines(lines, lines.shape[1] / width).laid(self.mapping, region),
        )

    def _plain_lines(self) -> NDArray[np.float32]:
        width = self.photo.facts.width
        return self._kept("bases", BASES_VERSION, lambda: bases_of(self._to_measure(), width).lines)

    def _haze_free_lines(self) -> NDArray[np.float32]:
        """Those of the photo with its haze changed."""

        def make() -> NDArray[np.float32]:
            photo = self._to_measure()
            facts, (rows, columns) = self.photo.facts, photo.shape[:2]
            mapping = scaling(facts.width / columns, facts.height / rows)
            cleared = self._without_haze(
                as_16_bits(photo), mapping, (0, 0, columns, rows), NO_CACHE
            )
            return bases_of(cleared, facts.width).lines

        key = ("bases", self.photo.whole.key, self._table_key, self.tone.haze)
        return self.photo.sources.cache.get_or_make(key, make)

    def _to_measure(self) -> AnyPicture:
        """The whole photo, hardly larger than its regions are measured on, under the look's
        table."""
        facts = self.photo.facts
        step = max(facts.width, facts.height) / GUIDED_SIDE
        photo, _ = pick_level(self.photo.whole, scaling(step, step))
        return photo if self._table_key is None else self._under_table(photo, *self._table_key)

    def _kept(self, kind: str, version: int, make: Callable[[], NDArray[Any]]) -> NDArray[Any]:
        """What is measured on the photo alone is kept with what else is made of it."""
        taken = self.photo.taken
        if self._table_key is None and not self.photo.spots:
            return self.photo.sources.derived(
                DerivedKey(kind, taken.sha256, taken.inputs, version), make
            )
        key = (kind, self.photo.whole.key, self._table_key)
        return self.photo.sources.cache.get_or_make(key, make)


def pick_level(photo: ShownPhoto, mapping: Affine) -> tuple[AnyPicture, Affine]:
    """The most often halved copy that still has ``MIN_SOURCE_PIXELS`` for a picture pixel, and
    ``mapping`` onto its pixels."""
    facts = photo.facts
    number, step = 0, mapping.mean_scale
    while step >= 2 * MIN_SOURCE_PIXELS and min(facts.width, facts.height) >= 2 ** (number + 1):
        step /= 2
        number += 1
    copy, onto_copy = photo.copy(number)
    return copy, onto_copy.after(mapping)
