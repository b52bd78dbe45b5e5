"""Interpolating a photo, upright in strips or askew in tiles."""

import numpy as np

from lucky_margin.core.affine import Affine
from lucky_margin.core.arrays import read_only
from lucky_margin.core.sampling.askew import go_across, go_along
from lucky_margin.core.sampling.lanczos import taps_for
from lucky_margin.core.sampling.srgb import decode_table, encode_table
from lucky_margin.core.sampling.upright import interpolate_upright
from lucky_margin.core.types import AnyPicture, Region

MOST_STEP = 3.0
"""Photo pixels to one output pixel; with more, more would have to be read than is worth it."""

TILE = 512
"""Output pixels to a side of a tile, and lines of a strip; what is half made of one is all that is
held at a time."""


def interpolate_into(out: AnyPicture, photo: AnyPicture, mapping: Affine, region: Region) -> None:
    """``region`` (output pixels) of the picture under whose pixels ``mapping`` lays ``photo``, by
    at most ``MOST_STEP`` photo pixels to one of its own and turned by at most 45 degrees.

    Past the photo's edge its last pixels go on.
    """
    photo = read_only(photo)
    x, y, width, height = region
    is_upright = mapping.b == mapping.c == 0
    wide, part_into = (width, _upright_into) if is_upright else (TILE, _askew_into)
    for top in range(0, height, TILE):
        for left in range(0, width, wide):
            part = (x + left, y + top, min(wide, width - left), min(TILE, height - top))
            drawn = np.empty((part[3], part[2], photo.shape[2]), out.dtype)
            part_into(drawn, photo, mapping, part)
            out[top : top + part[3], left : left + part[2]] = drawn


def _upright_into(out: AnyPicture, photo: AnyPicture, mapping: Affine, part: Region) -> None:
    x, y = part[:2]
    step_x, step_y = float(mapping.a), float(mapping.d)
    left = float(mapping.x0 + step_x * (x + 0.5) - 0.5)
    top = float(mapping.y0 + step_y * (y + 0.5) - 0.5)
    tables = decode_table(photo.dtype), encode_table()
    taps = taps_for(step_x), taps_for(step_y)
    interpolate_upright(photo, *tables, *taps, left, top, step_x, step_y, x, y, out)


def _askew_into(out: AnyPicture, photo: AnyPicture, mapping: Affine, part: Region) -> None:
    a, b, c, d = float(mapping.a), float(mapping.b), float(mapping.c), float(mapping.d)
    x, y, width, height = part
    # A line of the photo is met by the column x at (its own row - c x) / d.
    step_along, lean = a - b * c / d, b / d
    along, across = taps_for(abs(step_along)), taps_for(abs(d))
    reach = across.weights.shape[1] // 2 + 1
    ends = [mapping(x + dx, y + dy)[1] for dx in (0, width) for dy in (0, height)]
    first = int(np.floor(min(ends))) - reach
    lines = np.empty((int(np.ceil(max(ends))) + reach - first, width, 4), np.float32)
    begin = float(mapping.x0 - lean * mapping.y0 + lean * first + (x + 0.5) * step_along)
    go_along(photo, decode_table(photo.dtype), along, first, step_along, lean, begin, lines)
    begin = float(mapping.y0 + c * (x + 0.5) + d * (y + 0.5) - first)
    go_across(lines, across, c, d, begin, encode_table(), x, y, out)
