"""The bands of a border, drawn: each one's paint, and where it lies between its neighbours."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.blurring import blurred
from lucky_margin.core.borders import (
    MOSAIC_CELLS,
    Across,
    Edges,
    Places,
    across,
    mat_picture,
    paint_on,
    pattern_ink,
    picture_paint,
    sheet_of,
    sheet_sides,
)
from lucky_margin.core.document import (
    BorderBand,
    Box,
    BrushedBand,
    LineBand,
    MatBand,
    PatternBand,
)
from lucky_margin.core.outlines import Outline, RoundedBox, line_coverage
from lucky_margin.core.render.compose import AnyLayer, Group, Layer, compose
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.pieces import enough_of
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Mask, Picture8, Region

Floats = NDArray[np.float32]

TILE = 128
"""Side of the squares in which bands are drawn, in pixels; those without any of it are left out."""

FINER = 2
"""Along mitres bands are drawn so many times finer, then shrunk, so that those are smooth."""

SHADOW = "#000000"
SHADOW_OPACITY = 0.5


def covered(outline: Outline, grid: Grid, scene: Scene) -> Mask:
    """What ``outline`` (output pixels) covers of the grid's region."""
    return grid.cut(_covered_whole(outline.scaled(grid.scale_x, grid.scale_y), grid, scene))


def border_layers(scene: Scene, grid: Grid) -> list[AnyLayer]:
    """The border over all that it frames; ``beside_photo`` says when that is not enough."""
    border = scene.border
    if len(border.bands) == 1 and isinstance(border.bands[0], LineBand):
        return [_plain_line(border.bands[0], scene, grid)]
    return _sheet(scene, grid, 0, len(border.bands))


def beside_photo(
    scene: Scene, grid: Grid, framed: list[AnyLayer], backdrop: list[AnyLayer]
) -> list[AnyLayer]:
    """What is framed, and the bands around it with the backdrop behind them, each covering exactly
    what the other leaves; for bands around the photo that can be seen through."""
    border = scene.border
    inside = covered(scene.edges[border.around], grid, scene)
    outside = np.asarray(255 - inside, np.uint8)
    framed = [*framed, *_sheet(scene, grid, border.around, len(border.bands))]
    around = (*backdrop, *_sheet(scene, grid, 0, border.around))
    return [Group(tuple(framed), inside), Group(around, outside, added=True)]


def is_seen_through(band: BorderBand) -> bool:
    """Whether what is behind a band may show."""
    if band.opacity < 1 or isinstance(band, BrushedBand):
        return True
    is_broken = isinstance(band, LineBand) and band.line != "solid"
    return is_broken or (isinstance(band, PatternBand) and band.ground is None)


def _sheet(scene: Scene, grid: Grid, first: int, end: int) -> list[AnyLayer]:
    """The bands from ``first`` up to ``end`` with the shadows that they throw inwards, as one
    picture; those that blend with what is below lie over it."""
    numbers = [number for number in range(first, end) if scene.frame.output.bands[number].any]
    if not numbers:
        return []
    drawn = [_Drawn(scene.border.bands[number], number, scene, grid) for number in numbers]
    blended = [one for one in drawn if _blends(one.band)]

    def put_together() -> Picture8:
        rings = [
            Group(tuple(one.layers), ring, added=True)
            for one, ring in _rings([one for one in drawn if not one.is_brushed])
        ]
        shadows = [one.shadow for one in drawn if isinstance(one.band, MatBand) and one.band.depth]
        brushed = [one.brushed for one in drawn if one.is_brushed and one not in blended]
        return compose([Group(tuple(rings), None), *shadows, *brushed], grid.sides)

    key = ("bands", tuple(one.key for one in drawn), grid)
    sheet = scene.sources.cache.get_or_make(key, put_together)
    shade = max((one.shadow_reach for one in drawn), default=0.0)
    clear = _clear(scene.edges[end], grid, shade)
    return [Layer(sheet, spared=clear), *[one.brushed for one in blended]]


def _clear(edge: Outline, grid: Grid, shade: float = 0.0) -> Box | None:
    """Where the region certainly has nothing of what lies outside ``edge``, nor of a shadow that
    reaches so far inside it."""
    clear = edge.scaled(grid.scale_x, grid.scale_y).clear
    if clear is None or min(clear.width, clear.height) <= 2 * shade:
        return None
    inset = RoundedBox(clear).inset(shade, shade, shade, shade).box
    return inset.moved(-grid.region[0], -grid.region[1])


def _blends(band: BorderBand) -> bool:
    return isinstance(band, BrushedBand) and band.blend != "normal"


@dataclass(frozen=True, eq=False)
class Lying:
    """Pixels from ``left``, ``top`` of the grid on, or ``finer`` ones to each side of a pixel, and
    how they lie in the band."""

    across: Across
    left: int
    top: int
    finer: int

    @property
    def places(self) -> tuple[Floats, Floats]:
        """The middles of the pixels, x and y on the grid."""
        rows, columns = self.across.depth.shape
        x = self.left + (np.arange(columns, dtype=np.float32) + 0.5) / self.finer
        y = self.top + (np.arange(rows, dtype=np.float32) + 0.5) / self.finer
        across_, down = np.meshgrid(x.astype(np.float32), y.astype(np.float32))
        return across_, down


@dataclass(frozen=True, eq=False)
class _Drawn:
    """One band on the grid."""

    band: BorderBand
    number: int
    scene: Scene
    grid: Grid

    @property
    def layers(self) -> list[AnyLayer]:
        """Its paint, which its place then cuts."""
        band = self.band
        if isinstance(band, LineBand):
            return [Layer(band.colour, self.line)]
        if isinstance(band, MatBand):
            return [Layer(self.mat)]
        if isinstance(band, PatternBand):
            ground: list[AnyLayer] = [Layer(band.ground)] if band.ground else []
            return [*ground, Layer(self.picture) if band.picture else Layer(band.colour, self.ink)]
        return []

    @property
    def line(self) -> Mask | None:
        """Where its line is; None everywhere."""
        assert isinstance(self.band, LineBand)
        style, grid = self.band.line, self.grid
        if style == "solid":
            return None
        mask = self.scene.sources.cache.get_or_make(
            ("line", style, self.outer, self.thickness, grid.columns, grid.rows),
            lambda: line_coverage(self.outer, self.thickness, style, grid.columns, grid.rows),
        )
        return grid.cut(mask)

    @property
    def mat(self) -> Picture8:
        """The mat's colours."""
        return self._painted(self._mat, 3)

    @property
    def picture(self) -> Picture8:
        """An own picture along the band."""
        assert isinstance(self.band, PatternBand)
        own = self.band.picture
        assert own is not None
        sides = sheet_sides(own, max(self.thickness))
        sources = self.scene.sources
        number = enough_of(sources.facts(own.sha256), 1, sides[0])
        sheet = sheet_of(own, as_8_bits(sources.level(own.sha256, number)), sides)
        return self._painted(lambda here: picture_paint(own, sheet, self.edges, here.across), 4)

    @property
    def ink(self) -> Mask:
        """Where the pattern's motif is."""
        return self._painted(self._ink, 1)

    @property
    def paint(self) -> Mask:
        """Where brushed paint is, up to its outer edge."""

        def draw() -> Mask:
            mask = self._painted(self._paint, 1)
            if not self.number:
                return mask
            limit = covered(self.scene.edges[self.number], self.grid, self.scene)
            return cv2.multiply(mask, limit, scale=1 / 255).astype(np.uint8, copy=False)

        return self.scene.sources.cache.get_or_make(("paint", *self.key, self.grid), draw)

    @property
    def brushed(self) -> Layer:
        """Its paint as it lies over all other bands."""
        assert isinstance(self.band, BrushedBand)
        return Layer(self.band.colour, self.paint, self.band.opacity, blend=self.band.blend)

    @property
    def shadow(self) -> Layer:
        """What the mat's edge keeps the light from, inside it."""
        band, grid, scene = self.band, self.grid, self.scene
        assert isinstance(band, MatBand)
        edge = scene.edges[self.number + 1].scaled(grid.scale_x, grid.scale_y)
        inside = _covered_whole(edge, grid, scene)
        length, angle = band.depth * self.short_side, np.radians(band.light)
        away = np.array([[1, 0, -length * np.sin(angle)], [0, 1, length * np.cos(angle)]])
        moved = cv2.warpAffine(inside, away, (grid.columns, grid.rows)).astype(np.float32)
        lit = blurred(moved, max(0.3, band.softness * length))
        dark = np.rint(inside * (1 - lit / 255)).astype(np.uint8)
        return Layer(SHADOW, grid.cut(dark), SHADOW_OPACITY * band.opacity)

    @property
    def shadow_reach(self) -> float:
        """How far inwards its shadow reaches at most, in the grid's pixels: a Gaussian is nothing
        four deviations away."""
        if not isinstance(self.band, MatBand):
            return 0.0
        return (1 + 4 * max(self.band.softness, 0.3)) * self.band.depth * self.short_side + 2

    @property
    def is_brushed(self) -> bool:
        """Whether it lies over the others rather than between them."""
        return isinstance(self.band, BrushedBand)

    @property
    def covered_inside(self) -> Mask:
        """How much of each pixel lies within its inner edge."""
        return covered(self.scene.edges[self.number + 1], self.grid, self.scene)

    @property
    def key(self) -> tuple[object, ...]:
        """All that its look depends on, besides the grid."""
        return self.band, self.scene.edges[self.number], self.scene.edges[self.number + 1]

    @cached_property
    def outer(self) -> Outline:
        """Its outer edge, in the grid's pixels."""
        return self.scene.edges[self.number].scaled(self.grid.scale_x, self.grid.scale_y)

    @cached_property
    def thickness(self) -> tuple[float, float, float, float]:
        """Top, right, bottom and left, in the grid's pixels."""
        sides, grid = self.scene.frame.output.bands[self.number], self.grid
        return (
            sides.top * grid.scale_y,
            sides.right * grid.scale_x,
            sides.bottom * grid.scale_y,
            sides.left * grid.scale_x,
        )

    @cached_property
    def edges(self) -> Edges:
        """Those of its outer edge, in the grid's pixels."""
        return Edges.of(self.outer, self.thickness)

    @property
    def short_side(self) -> float:
        """Of the whole picture, in the grid's pixels."""
        return self.scene.frame.output.short_side * self.grid.mean_scale

    def _painted(self, paint: Callable[[Lying], Floats], channels: int) -> Picture8:
        """The region, drawn square by square where there is any of the band. The squares are those
        of the whole picture, so that a region of it is the same."""
        grid = self.grid
        left, top, width, height = grid.region
        painted = np.zeros((height, width, channels)[: 2 + (channels > 1)], np.uint8)
        if not self.outer.rings:
            return painted  # the bands outside have left nothing
        for y in range(top // TILE * TILE, top + height, TILE):
            for x in range(left // TILE * TILE, left + width, TILE):
                lying = self._lying((x, y, min(TILE, grid.columns - x), min(TILE, grid.rows - y)))
                if lying is None:
                    continue
                part = self._part(lying, paint)
                from_x, from_y = max(lying.left, left), max(lying.top, top)
                to_x = min(lying.left + part.shape[1], left + width)
                to_y = min(lying.top + part.shape[0], top + height)
                if to_x > from_x and to_y > from_y:
                    shown = part[from_y - lying.top : to_y - lying.top,
                                 from_x - lying.left : to_x - lying.left]  # fmt: skip
                    painted[from_y - top : to_y - top, from_x - left : to_x - left] = shown
        return painted

    def _part(self, lying: Lying, paint: Callable[[Lying], Floats]) -> Picture8:
        values = paint(lying)
        if mitres := lying.across.mitres(self.edges):
            left, top, width, height = mitres
            finer = self._finer(lying.left + left, lying.top + top, width, height)
            shrunk = cv2.resize(paint(finer), (width, height), interpolation=cv2.INTER_AREA)
            values[top : top + height, left : left + width] = shrunk
        return np.clip(np.rint(values), 0, 255).astype(np.uint8)

    def _lying(self, square: Region) -> Lying | None:
        """The part of a square round all that there is of the band in it; None if there is none."""
        x, y, columns, rows = square
        found = across(self.edges, x + 0.5, y + 0.5, 1, columns, rows)
        near = (found.depth <= self._reach).astype(np.uint8)
        left, top, width, height = cv2.boundingRect(near)
        if not width:
            return None
        cut = np.s_[top : top + height, left : left + width]
        part = Across(found.depth[cut], found.edge[cut], found.along[cut])
        return Lying(part, x + left, y + top, 1)

    def _finer(self, left: int, top: int, columns: int, rows: int) -> Lying:
        start = 0.5 / FINER
        sides = FINER * columns, FINER * rows
        found = across(self.edges, left + start, top + start, 1 / FINER, *sides)
        return Lying(found, left, top, FINER)

    @property
    def _reach(self) -> float:
        """Depth from which nothing of it is seen."""
        return 1.0 + 2.0 / max(1.0, max(self.thickness)) + 0.4 * isinstance(self.band, BrushedBand)

    def _mat(self, here: Lying) -> Floats:
        band, lying = self.band, here.across
        assert isinstance(band, MatBand)
        short = self.short_side
        x, y = (place / np.float32(short) for place in here.places)
        thickness = self.edges.thickness.astype(np.float32)[lying.edge]
        bevel = np.minimum(np.float32(band.bevel * short), thickness)
        face = np.maximum(thickness - bevel, 1e-6)
        inwards = lying.depth * thickness
        share = np.clip((inwards - face) * here.finer + 0.5, 0, 1) * (bevel > 0)
        return mat_picture(
            band,
            np.clip(inwards / face, 0, 1),
            lying.normals(self.edges),
            share.astype(np.float32),
            (x, y),
            1 / (here.finer * short),
        ).astype(np.float32)

    def _ink(self, here: Lying) -> Floats:
        assert isinstance(self.band, PatternBand)
        return pattern_ink(self.band.pattern, self.edges, here.across, 1 / here.finer)

    def _paint(self, here: Lying) -> Floats:
        assert isinstance(self.band, BrushedBand)
        if self.band.look != "mosaic":
            places = self._places(here.across, *here.places, here.finer)
            return 255 * paint_on(self.band, places)
        # Cells are whole pixels at scale 1, and all of each is as its middle is.
        full = max(1, round(max(self.thickness) / self.grid.mean_scale / MOSAIC_CELLS))
        cell = full * self.grid.mean_scale
        across_, down = here.places
        columns, rows = (np.floor(one / cell).astype(int) for one in (across_[0], down[:, 0]))
        numbers = [np.arange(one[0], one[-1] + 1) for one in (columns, rows)]
        x, y = np.meshgrid(*((one + 0.5) * cell for one in numbers))
        first = float(x[0, 0]), float(y[0, 0])
        cells = across(self.edges, *first, cell, len(numbers[0]), len(numbers[1]))
        places = self._places(cells, x.astype(np.float32), y.astype(np.float32), 1 / cell)
        paint = 255 * paint_on(self.band, places)
        return np.asarray(paint[np.ix_(rows - rows[0], columns - columns[0])], np.float32)

    def _places(self, lying: Across, x: Floats, y: Floats, finer: float) -> Places:
        edges, short = self.edges, self.short_side
        along = edges.stations[lying.edge] + edges.lengths[lying.edge] * lying.along
        return Places(
            depth=lying.depth,
            along=(along / short).astype(np.float32),
            round_length=(edges.round_length[lying.edge] / short).astype(np.float32),
            x=x / np.float32(short),
            y=y / np.float32(short),
            thickness=max(self.thickness) / short,
            pixel=1 / (finer * short),
        )


def _rings(drawn: list[_Drawn]) -> Iterator[tuple[_Drawn, Mask]]:
    """Bands and how much of each pixel is theirs. The first one goes on outwards, where something
    else cuts it, so that no seam shows there."""
    outside: Mask | None = None
    for one in drawn:
        inside = one.covered_inside
        ring = 255 - inside if outside is None else cv2.subtract(outside, inside)
        if one.band.opacity < 1:
            ring = ring * one.band.opacity
        yield one, np.rint(ring).astype(np.uint8)
        outside = inside


def _plain_line(band: LineBand, scene: Scene, grid: Grid) -> Layer:
    """A line alone needs no sheet of its own."""
    drawn = _Drawn(band, 0, scene, grid)
    ring, line = np.asarray(255 - drawn.covered_inside, np.uint8), drawn.line
    if line is not None:
        ring = cv2.multiply(ring, line, scale=1 / 255).astype(np.uint8, copy=False)
    return Layer(band.colour, ring, band.opacity, _clear(scene.inner, grid))


def _covered_whole(scaled: Outline, grid: Grid, scene: Scene) -> Mask:
    return scene.sources.cache.get_or_make(
        ("coverage", scaled, grid.columns, grid.rows),
        lambda: scaled.coverage(grid.columns, grid.rows),
    )
