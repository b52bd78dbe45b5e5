"""The alpha of a scene's subject on any grid, and around it, past the picture's edges too."""

import math

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.laying import placed
from lucky_margin.core.render.shown import shown_photo, turned_subject_box
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Region

Floats = NDArray[np.float32]
Part = tuple[slice, slice]


def alpha_near_subject(scene: Scene, grid: Grid, part: Region) -> Floats:
    """How much (0..1) of each pixel of a part of the grid's whole picture is subject."""
    mapping = scene.mapping(grid.to_full)
    alpha = placed(shown_photo(scene), mapping, part)[:, :, 3].astype(np.float32)
    alpha /= np.float32(255)
    if not scene.frame.covers:
        alpha *= on_photo(scene, mapping, part)
    return alpha


def room_for(reach: float) -> int:
    """How far around the subject to look for something that reaches so far from it, in the grid's
    pixels: in large steps, so that what is made there serves while it is made larger."""
    return int(2 ** math.ceil(math.log2(reach + 2)))


def where_seen(part: Region, grid: Grid) -> Part:
    """Where in the grid's region a part of its whole picture lies."""
    (first_x, last_x), (first_y, last_y) = _shared(part, grid)
    x, y, _, _ = grid.region
    return np.s_[first_y - y : last_y - y, first_x - x : last_x - x]


def in_part(part: Region, grid: Grid) -> Part:
    """Where in a part of the grid's whole picture the grid's region lies."""
    (first_x, last_x), (first_y, last_y) = _shared(part, grid)
    left, top, _, _ = part
    return np.s_[first_y - top : last_y - top, first_x - left : last_x - left]


def _shared(part: Region, grid: Grid) -> tuple[tuple[int, int], tuple[int, int]]:
    """What a part and the grid's region share, in the whole picture's pixels."""
    (left, top, width, height), (x, y, wide, high) = part, grid.region
    first_x, first_y = max(left, x), max(top, y)
    last_x = max(first_x, min(left + width, x + wide))
    last_y = max(first_y, min(top + height, y + high))
    return (first_x, last_x), (first_y, last_y)


def part_round_subject(scene: Scene, grid: Grid, beyond: int) -> Region:
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


def on_photo(scene: Scene, mapping: Affine, part: Region) -> Floats:
    """How far (0..1) each pixel of a part lies on the photo, which sampling takes to go on past its
    edges."""
    left, top, width, height = part
    y, x = np.mgrid[top : top + height, left : left + width].astype(np.float32) + np.float32(0.5)
    on_x, on_y = mapping(x, y)
    ends = (on_x, scene.facts.width - on_x, on_y, scene.facts.height - on_y)
    inside = np.minimum.reduce(ends) / mapping.mean_scale
    return np.asarray(np.clip(inside + 0.5, 0, 1), np.float32)
