"""Mosaics: cells of one colour each.

The cells are the Voronoi cells of a lattice about the middle of the size: of a square one squares,
of a triangular one hexagons, of one that is shaken by a seed pebbles. How far a pixel is from the
edge between the two nearest sites is half the difference of its squared distances to them, over the
distance between them; so edges are smooth and joints even, at any scale.
"""

import math

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import Mosaic, rgb_of
from lucky_margin.core.sampling.srgb import ENCODE_STEPS, decode, encode, encode_table
from lucky_margin.core.treatments.working import Floats, Pixels, Working
from lucky_margin.core.types import Picture8

SHAKEN = 0.62
"""How far a pebble's site may be from its place, both ways together, in cells."""

SEED = 5

BLOCKS = 8
"""Of rows whose cells are summed at the same time, each for itself."""

_ROW = math.sqrt(3) / 2
"""Distance of two rows of a triangular lattice, in cells."""


def plan_mosaic(mosaic: Mosaic, working: Working) -> Floats:
    """The mean light (0..1) of what is treated in each cell, shape (rows, columns, 3)."""
    sites = _sites(mosaic, working.width, working.height)
    sums = np.zeros((BLOCKS, *sites.shape[:2], 4))
    _sum_cells(
        read_only(working.light),
        read_only(np.maximum(working.share, np.float32(1e-3))),
        1 / working.per_short,
        *_lattice(mosaic, working.width, working.height),
        sites,
        sums,
    )
    total = sums.sum(axis=0)
    means = total[:, :, :3] / np.maximum(total[:, :, 3:], 1e-12)
    return np.asarray(means, np.float32)


def draw_mosaic(mosaic: Mosaic, cells: Floats, _: Picture8, pixels: Pixels) -> Picture8:
    """The cells over ``pixels``."""
    left, top, width, height = pixels.region
    out = np.empty((height, width, 3), np.uint8)
    step_x, step_y = pixels.width / pixels.columns, pixels.height / pixels.rows
    _draw_cells(
        left,
        top,
        step_x,
        step_y,
        *_lattice(mosaic, pixels.width, pixels.height),
        _sites(mosaic, pixels.width, pixels.height),
        mosaic.joint * mosaic.cell,
        decode(np.array(rgb_of(mosaic.joint_colour)) / 255).astype(np.float32),
        read_only(cells),
        read_only(np.rint(255 * encode(cells.astype(np.float64))).astype(np.uint8)),
        encode_table(),
        out,
    )
    return out


def _lattice(
    mosaic: Mosaic, width: float, height: float
) -> tuple[float, float, float, float, bool]:
    """Its middle, a cell and a row's height (short sides), and whether every second row is
    shifted by half a cell."""
    is_square = mosaic.form == "square"
    row = mosaic.cell * (1.0 if is_square else _ROW)
    return width / 2, height / 2, mosaic.cell, row, not is_square


def _sites(mosaic: Mosaic, width: float, height: float) -> NDArray[np.float64]:
    """x and y of each site that may count on a size of these sides, from its middle; all in short
    sides. Shape (rows, columns, 2), both odd, the middle one in the middle."""
    _, _, cell, row, shifted = _lattice(mosaic, width, height)
    half_rows, half_columns = math.ceil(height / 2 / row) + 2, math.ceil(width / 2 / cell) + 2
    j, i = np.mgrid[-half_rows : half_rows + 1, -half_columns : half_columns + 1]
    x, y = (i + np.where(shifted & (j % 2 == 1), 0.5, 0.0)) * cell, j * row
    if mosaic.form == "pebble":
        x = x + SHAKEN * cell * _scattered(i, j, SEED)
        y = y + SHAKEN * cell * _scattered(i, j, SEED + 1)
    return read_only(np.dstack([x, y]))


def _scattered(column: NDArray[np.int64], row: NDArray[np.int64], seed: int) -> NDArray[np.float64]:
    """A number from -0.5 to 0.5 for each site, the same whatever lies around it."""
    mixed = (column * 374761393 + row * 668265263 + seed * 974711) & 0xFFFFFFFF
    mixed = ((mixed ^ (mixed >> 13)) * 1274126177) & 0xFFFFFFFF
    return np.asarray(((mixed ^ (mixed >> 16)) & 0xFFFF) / 65536 - 0.5, np.float64)


@numba.njit(cache=True, nogil=True, error_model="numpy", fastmath=True)
def _nearest(
    x: float, y: float, cell: float, row: float, shifted: bool, sites: NDArray[np.float64]
) -> tuple[int, int, int, int, float]:
    """The two nearest sites by their columns and rows in the table, and how far the edge between
    them is."""
    half_rows, half_columns = sites.shape[0] // 2, sites.shape[1] // 2
    middle_row = math.floor(y / row + 0.5) + half_rows
    best = second = 1e30
    best_column = best_row = second_column = second_row = 0
    for j in range(middle_row - 1, middle_row + 2):
        shift = 0.5 if shifted and (j - half_rows) & 1 else 0.0
        middle = math.floor(x / cell - shift + 0.5) + half_columns
        for i in range(middle - 1, middle + 2):
            away = (x - sites[j, i, 0]) ** 2 + (y - sites[j, i, 1]) ** 2
            if away < best:
                second, second_column, second_row = best, best_column, best_row
                best, best_column, best_row = away, i, j
            elif away < second:
                second, second_column, second_row = away, i, j
    near, far = sites[best_row, best_column], sites[second_row, second_column]
    apart = math.sqrt((near[0] - far[0]) ** 2 + (near[1] - far[1]) ** 2)
    return best_column, best_row, second_column, second_row, (second - best) / (2 * apart)


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _sum_cells(
    light: Floats, share: Floats, pixel: float,
    middle_x: float, middle_y: float, cell: float, row: float, shifted: bool,
    sites: NDArray[np.float64], sums: NDArray[np.float64],
) -> None:  # fmt: skip
    rows, columns = share.shape
    blocks = len(sums)
    for block in numba.prange(blocks):
        for v in range(block * rows // blocks, (block + 1) * rows // blocks):
            for u in range(columns):
                x, y = (u + 0.5) * pixel - middle_x, (v + 0.5) * pixel - middle_y
                i, j, _, _, _ = _nearest(x, y, cell, row, shifted, sites)
                weight = share[v, u]
                for channel in range(3):
                    sums[block, j, i, channel] += weight * light[v, u, channel]
                sums[block, j, i, 3] += weight


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _draw_cells(
    left: int, top: int, step_x: float, step_y: float,
    middle_x: float, middle_y: float, cell: float, row: float, shifted: bool,
    sites: NDArray[np.float64], joint: float, joint_light: Floats, light: Floats, colours: Picture8,
    table: Floats, out: Picture8,
) -> None:  # fmt: skip
    """Edges are mixed in linear light, as shrinking mixes them."""
    height, width, _ = out.shape
    pixel = (step_x + step_y) / 2
    for v in numba.prange(height):
        y = (top + v + 0.5) * step_y - middle_y
        for u in range(width):
            x = (left + u + 0.5) * step_x - middle_x
            i, j, other_i, other_j, edge = _nearest(x, y, cell, row, shifted, sites)
            edge /= pixel
            beyond = max(0.0, 0.5 - edge)
            # A joint thinner than a pixel covers as much of it as it is wide.
            within = joint / 2 / pixel
            covered = min(edge + 0.5, within) - max(edge - 0.5, -within)
            covered = min(max(covered, 0.0), 1.0)
            if beyond == 0 and covered == 0:
                out[v, u] = colours[j, i]
                continue
            for channel in range(3):
                near = light[j, i, channel]
                mixed = near + beyond * (light[other_j, other_i, channel] - near)
                mixed += covered * (joint_light[channel] - mixed)
                out[v, u, channel] = int(255 * table[int(mixed * ENCODE_STEPS + 0.5)] + 0.5)


def warm_up() -> None:
    """Compile both loops, or load them from disk."""
    black = np.zeros((2, 2, 3), np.uint8)
    cells = plan_mosaic(Mosaic(), Working(black, np.ones((2, 2), np.float32), 2.0))
    draw_mosaic(Mosaic(), cells, black, Pixels((0, 0, 2, 2), 2, 2, 1.0, 1.0))
