"""The lines round a scene's subject, and what a stroke changed of it, on any grid."""

import math
from collections.abc import Iterator

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import scaling
from lucky_margin.core.contour import distance_to_contour, line_mask
from lucky_margin.core.document import SubjectOutline, rgb_of
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.laying import placed
from lucky_margin.core.render.shown import shown_photo
from lucky_margin.core.sampling import place
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Mask, Picture8

CHANGED = "#F2B632"
"""The colour in which a stroke's changes are shown."""


def lines_round_subject(
    scene: Scene, grid: Grid, *, inside: bool
) -> Iterator[tuple[SubjectOutline, Mask]]:
    """Each line outside the subject's edge, or ``inside`` it, and how much (0..255) it covers of
    the grid's region."""
    if scene.finish.photo is None or not scene.outlines.lines:
        return
    short = min(scene.sides) * (grid.scale_x + grid.scale_y) / 2
    distance = subject_distance(scene, grid, max(line.reach for line in scene.outlines.lines))
    for line in scene.outlines.lines:
        if line.inside != inside:
            continue
        yield (
            line,
            line_mask(
                distance,
                gap=line.gap * short,
                width=line.width * short,
                softness=line.softness,
                strength=line.strength,
                inside=line.inside,
            ),
        )


def subject_distance(scene: Scene, grid: Grid, reach: float) -> NDArray[np.float32]:
    """How far each pixel of the grid's region is from the subject's edge, in the grid's pixels, up
    to ``reach`` (short sides); below 0 inside.

    It is measured on the whole picture and beyond it, so that a region shows the same as the whole
    and no line runs along where the size cuts the subject.
    """
    photo, mapping = shown_photo(scene), scene.mapping(grid.to_full)
    pixels = reach * min(scene.sides) * max(grid.scale_x, grid.scale_y) + 2
    beyond = 2 ** math.ceil(math.log2(pixels))  # so that a wider line needs no new distances
    wide = (-beyond, -beyond, grid.columns + 2 * beyond, grid.rows + 2 * beyond)

    def make() -> NDArray[np.float32]:
        alpha = placed(photo, mapping, wide)[:, :, 3]
        distance = distance_to_contour(np.asarray(alpha, np.float32) / np.float32(255), beyond)
        return np.ascontiguousarray(distance[beyond:-beyond, beyond:-beyond])

    key = ("subject distance", photo.key, mapping, wide)
    distance = scene.sources.cache.get_or_make(key, make)
    left, top, width, height = grid.region
    return distance[top : top + height, left : left + width]


def changed_by_stroke(scene: Scene, grid: Grid) -> Picture8:
    """What the newest stroke brought or took, in one colour on nothing, over the grid's region."""
    photo = shown_photo(scene)
    if photo.cut_out is None:
        return np.zeros((*grid.sides[::-1], 4), np.uint8)
    matte = photo.matte()
    rows, columns = matte.shape
    changed = np.empty((rows, columns, 4), np.uint8)
    changed[:, :, :3] = rgb_of(CHANGED)
    changed[:, :, 3] = cv2.absdiff(matte, photo.before_last_stroke.matte())
    onto_matte = scaling(columns / scene.facts.width, rows / scene.facts.height)
    return place(changed, onto_matte.after(scene.mapping(grid.to_full)), grid.region)
