"""The photo of a scene with its treatments, on any grid."""

from collections.abc import Hashable
from dataclasses import dataclass, replace
from typing import Any

import cv2
import numpy as np

from lucky_margin.core.affine import UNCHANGED, Affine, scaling
from lucky_margin.core.document import Area, LensBlur, Treatment
from lucky_margin.core.render.compose import blended
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.laying import STRIP_PIXELS, area_under, under
from lucky_margin.core.render.shown import ShownPhoto
from lucky_margin.core.scene import Scene
from lucky_margin.core.treatments import WORKING_SIDE, Pixels, Working, method_of
from lucky_margin.core.types import Mask, Picture8

ROUGH_SCALE = 0.45
"""Pictures smaller than this are only drawn for comparing; they are planned on hardly more pixels
than they have."""

FINER = 2.0
"""Working pixels to one of a rough picture, along one side."""


def treated_under(
    photo: ShownPhoto,
    scene: Scene,
    grid: Grid,
    treatments: tuple[Treatment, ...],
    moved: Affine = UNCHANGED,
) -> Picture8:
    """``photo`` laid under ``grid`` as the scene frames it, with its tone and ``treatments``.

    ``moved`` says where the photo shows what is to be seen at a place, both in output pixels.
    """
    return _Treated(photo, scene, treatments, _working_grid(scene, grid), moved).on(grid)


def base_treatments(scene: Scene) -> tuple[Treatment, ...]:
    """What is made of the photo itself, under all lifts. A cut-out subject lies over those, so it
    is not blurred as their base is."""
    kept = tuple(one for one in scene.treatments if one.covers != "lifts")
    blur = scene.lifts.base.blur
    if not scene.lifts.is_set or not blur or scene.cut_out.on:
        return kept
    return (*kept, LensBlur(radius=blur))


def _working_grid(scene: Scene, grid: Grid) -> Grid:
    """The grid that treatments are planned on: the same for every picture but rough ones."""
    scale = scene.scale_for(WORKING_SIDE)
    if grid.mean_scale < ROUGH_SCALE:
        scale = min(scale, FINER * grid.mean_scale)
    return Grid.of(*scene.sides, scale, None)


@dataclass(frozen=True)
class _Treated:
    """A photo with some treatments, one after the other."""

    photo: ShownPhoto
    scene: Scene
    treatments: tuple[Treatment, ...]
    working_grid: Grid
    moved: Affine

    def on(self, grid: Grid) -> Picture8:
        """Its picture, with the photo's own alpha. It is kept, since checks and what is laid over
        it draw it again; a large one is made in strips."""
        if not self.treatments:
            return under(self.photo, self.scene, self.scene.tone, grid, self.moved)
        left, top, width, height = grid.region
        if width * height <= STRIP_PIXELS:
            key = ("treated", self._key, self._mapping(grid), grid)
            picture: Picture8 = self._cached(key, lambda: self._drawn(grid))
            return picture
        rows = max(1, STRIP_PIXELS // width)
        parts = ((top + down, min(rows, height - down)) for down in range(0, height, rows))
        strips = (replace(grid, region=(left, first, width, high)) for first, high in parts)
        return np.vstack([self._drawn(strip) for strip in strips])

    def _drawn(self, grid: Grid) -> Picture8:
        treatment, before = self.treatments[-1], self._before
        picture, pixels = before.on(grid), self._pixels(grid)
        colours = np.ascontiguousarray(picture[:, :, :3])
        method = method_of(treatment)
        made = self._plan() if method.plan else self._texture(pixels)
        drawn = method.draw(treatment, made, colours, pixels)
        share = self._share(treatment, grid)
        out = blended(colours, drawn, treatment.blend, share, treatment.strength / 100)
        return out if picture.shape[2] == 3 else np.dstack([out, picture[:, :, 3]])

    @property
    def _before(self) -> "_Treated":
        return replace(self, treatments=self.treatments[:-1])

    def _plan(self) -> Any:
        """What the last treatment makes of the photo with those before it."""
        treatment = self.treatments[-1].model_copy(update={"strength": 100, "blend": "normal"})
        key = ("treatment plan", self._before._key, treatment)
        plan = method_of(treatment).plan
        assert plan is not None
        return self._cached(key, lambda: plan(treatment, self._before._working(treatment)))

    def _texture(self, pixels: Pixels) -> Any:
        treatment = self.treatments[-1]
        texture = method_of(treatment).texture
        assert texture is not None
        if pixels.columns * pixels.rows > STRIP_PIXELS:
            return texture(treatment, pixels)
        return self._cached(("texture", treatment, pixels), lambda: texture(treatment, pixels))

    def _working(self, treatment: Treatment) -> Working:
        """All of the photo as a treatment sees it that comes next."""
        grid = self.working_grid
        picture: Picture8 = self._cached(("working", self._key), lambda: self.on(grid))
        share = self._share(treatment, grid)
        counts = np.full(picture.shape[:2], 255, np.uint8) if share is None else share
        if picture.shape[2] == 4:
            alpha = np.ascontiguousarray(picture[:, :, 3])
            counts = np.asarray(cv2.multiply(counts, alpha, scale=1 / 255), np.uint8)
        return Working(
            np.ascontiguousarray(picture[:, :, :3]),
            np.asarray(counts, np.float32) / np.float32(255),
            grid.mean_scale * min(self.scene.sides),
        )

    @property
    def _key(self) -> Hashable:
        """All that its working picture depends on; masks of tone and treatments may be the
        subject's."""
        photo, grid = self.photo, self.working_grid
        shown = photo.key, photo.subject_alone.key, self.scene.tone
        return *shown, self.treatments, self._mapping(grid), grid

    def _cached(self, key: Hashable, make: Any) -> Any:
        return self.scene.sources.cache.get_or_make(key, make)

    def _pixels(self, grid: Grid) -> Pixels:
        width, height = self.scene.sides
        short = min(width, height)
        facts = self.scene.facts
        onto_output = self.scene.frame.from_output.after(self.moved).inverse
        onto_size = scaling(1 / short, 1 / short).after(onto_output)
        return Pixels(
            grid.region,
            grid.columns,
            grid.rows,
            width / short,
            height / short,
            onto_size.after(scaling(facts.width, facts.height)),
        )

    def _mapping(self, grid: Grid) -> Affine:
        """From the grid's pixels to photo pixels."""
        return self.scene.mapping(self.moved.after(grid.to_full))

    def _share(self, treatment: Treatment, grid: Grid) -> Mask | None:
        """How much (0..255) of each pixel a treatment's masks let through; None is all."""
        if not treatment.masks:
            return None
        area = Area(masks=treatment.masks)
        mapping = self._mapping(grid)
        return area_under(self.photo, self.scene.tone, area, mapping, grid.scale_x, grid.region)
