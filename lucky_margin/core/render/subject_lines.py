"""The lines round a scene's subject, and what a stroke changed of it, on any grid."""

from collections.abc import Iterator

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import scaling
from lucky_margin.core.contour import FAR, calmed, distance_to_contour, line_mask
from lucky_margin.core.document import SubjectOutline, rgb_of
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.shown import shown_photo
from lucky_margin.core.render.subject_alpha import (
    alpha_near_subject,
    in_part,
    part_round_subject,
    room_for,
    where_seen,
)
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
    if photo.shows != "subject":
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
    beyond = room_for(reach * min(scene.sides) * max(grid.scale_x, grid.scale_y))
    part = part_round_subject(scene, grid, beyond)
    along_cuts = scene.outlines.along_cuts

    def make() -> Floats:
        alpha = alpha_near_subject(scene, grid, part)
        if along_cuts:
            _leave_out_beyond(alpha, part, grid)
        calm = calmed(alpha, CALM * min(scene.sides) * grid.mean_scale)
        return distance_to_contour(calm, beyond)

    key = ("subject distance", photo.key, mapping, part, beyond, scene.frame.covers, along_cuts)
    distance = scene.sources.cache.get_or_make(key, make)
    return distance[in_part(part, grid)], where_seen(part, grid)


def _leave_out_beyond(alpha: Floats, part: Region, grid: Grid) -> None:
    """Leave nothing of a part's alpha past the edges of the whole picture."""
    left, top, _, _ = part
    alpha[: max(0, -top)] = 0
    alpha[:, : max(0, -left)] = 0
    alpha[max(0, grid.rows - top) :] = 0
    alpha[:, max(0, grid.columns - left) :] = 0
