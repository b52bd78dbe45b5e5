"""The lines round a scene's subject, and what a stroke changed of it, on any grid."""

import math
from collections.abc import Iterator

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.contour import FAR, calmed, distance_to_contour, line_mask
from lucky_margin.core.document import SubjectOutline, rgb_of
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.laying import placed
from lucky_margin.core.render.shown import shown_photo, turned_subject_box
from lucky_margin.core.sampling import place
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Mask, Picture8, Region

Floats = NDArray[np.float32]

CALM = 0.01
"""Over how much of the short side a line evens out hair and grass."""

CHANGED = "#F2B632"
"""The colour in which a stroke's changes are shown."""


def lines_round_subject(
    scene: Scene, grid: Grid, *, inside: bool
) -> Iterator[tuple[SubjectOutline, Mask]]:
    """Each line outside the subject's edge, or ``inside`` it, and how much (0..255) it covers of
    the grid's region."""
    lines = scene.outlines.lines
    if scene.finish.photo is None or not any(line.inside == inside for line in lines):
        return
    short = min(scene.sides) * grid.mean_scale
    distance, at = _near_subject(scene, grid, max(line.reach for line in lines))
    for line in lines:
        if line.inside != inside:
            continue
        mask = np.zeros(grid.sides[::-1], np.uint8)
        mask[at] = line_mask(
            distance,
            gap=line.gap * short,
            width=line.width * short,
            softness=line.softness,
            strength=line.strength,
            inside=inside,
        )
        yield line, mask


def subject_distance(scene: Scene, grid: Grid, reach: float) -> Floats:
    """How far each pixel of the grid's region is from the subject's edge, in the grid's pixels, up
    to ``reach`` (short sides), and very far beyond; below 0 inside."""
    whole = np.full(grid.sides[::-1], FAR, np.float32)
    near, at = _near_subject(scene, grid, reach)
    whole[at] = near
    return whole


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


def _near_subject(scene: Scene, grid: Grid, reach: float) -> tuple[Floats, tuple[slice, slice]]:
    """``subject_distance`` where the subject is near, and where in the grid's region that is.

    It is measured on the whole picture and beyond it, so that a region shows the same as the whole
    and no line runs along where the size cuts the subject.
    """
    photo, mapping = shown_photo(scene), scene.mapping(grid.to_full)
    pixels = reach * min(scene.sides) * max(grid.scale_x, grid.scale_y) + 2
    beyond = 2 ** math.ceil(math.log2(pixels))  # so that a wider line needs no new distances
    left, top, width, height = part = _part_round_subject(scene, grid, beyond)
    covers, along_cuts = scene.frame.covers, scene.outlines.along_cuts

    def make() -> Floats:
        alpha = placed(photo, mapping, part)[:, :, 3].astype(np.float32) / np.float32(255)
        if along_cuts:
            _leave_out_beyond(alpha, part, grid)
        if not covers:
            alpha *= _on_photo(scene, mapping, part)
        calm = calmed(alpha, CALM * min(scene.sides) * grid.mean_scale)
        return distance_to_contour(calm, beyond)

    key = ("subject distance", photo.key, mapping, part, beyond, covers, along_cuts)
    distance = scene.sources.cache.get_or_make(key, make)
    x, y, wide, high = grid.region
    first_x, first_y = max(left, x), max(top, y)
    last_x = max(first_x, min(left + width, x + wide))
    last_y = max(first_y, min(top + height, y + high))
    seen = distance[first_y - top : last_y - top, first_x - left : last_x - left]
    return seen, np.s_[first_y - y : last_y - y, first_x - x : last_x - x]


def _leave_out_beyond(alpha: Floats, part: Region, grid: Grid) -> None:
    """Leave nothing of a part's alpha past the edges of the whole picture."""
    left, top, _, _ = part
    alpha[: max(0, -top)] = 0
    alpha[:, : max(0, -left)] = 0
    alpha[max(0, grid.rows - top) :] = 0
    alpha[:, max(0, grid.columns - left) :] = 0


def _part_round_subject(scene: Scene, grid: Grid, beyond: int) -> Region:
    """The part of the grid's whole picture, and of ``beyond`` around it, where the subject and all
    that is so near to it can be."""
    box = turned_subject_box(scene)
    if box is None:
        return 0, 0, 1, 1
    to_grid = scaling(grid.scale_x, grid.scale_y).after(scene.frame.to_output)
    (left, top), (right, bottom) = to_grid(box.left, box.top), to_grid(box.right, box.bottom)
    # The box was measured on the matte, whose pixels are large where the photo is enlarged.
    rows, columns = shown_photo(scene).matte().shape
    room = beyond + 2 + math.ceil(2 * (right - left + bottom - top) / min(rows, columns))
    low = max(math.floor(left) - room, -beyond), max(math.floor(top) - room, -beyond)
    high = (
        min(math.ceil(right) + room, grid.columns + beyond),
        min(math.ceil(bottom) + room, grid.rows + beyond),
    )
    return (*low, max(1, high[0] - low[0]), max(1, high[1] - low[1]))


def _on_photo(scene: Scene, mapping: Affine, part: Region) -> Floats:
    """How far (0..1) each pixel of a part lies on the photo, which sampling takes to go on past its
    edges."""
    left, top, width, height = part
    y, x = np.mgrid[top : top + height, left : left + width].astype(np.float32) + np.float32(0.5)
    on_x, on_y = mapping(x, y)
    ends = (on_x, scene.facts.width - on_x, on_y, scene.facts.height - on_y)
    inside = np.minimum.reduce(ends) / mapping.mean_scale
    return np.asarray(np.clip(inside + 0.5, 0, 1), np.float32)
