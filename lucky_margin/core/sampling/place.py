"""Placing a photo under an output by any turn: mirrored, by quarters, or askew.

Mirrored and quarter-turned photos are sampled as they lie and the result is turned, so that
these are exact. A photo that lies askew is first sampled upright at twice the output's
resolution, which takes care of its scale, and then each output pixel is the mean of two by two
points of that, read bilinearly, in linear light.
"""

import numpy as np

from lucky_margin.core.affine import Affine
from lucky_margin.core.sampling import kernels
from lucky_margin.core.sampling.sample import sample
from lucky_margin.core.sampling.srgb import decode_table, encode_table
from lucky_margin.core.types import AnyPicture, Picture8, Region

TILE = 512
"""Output pixels; the upright samples of one tile are all that is held at a time."""

OVERSAMPLING = 2
"""Upright samples to one output pixel, along one side."""

_REACH = 2
"""Samples beyond a tile's corners that its bilinear reads may touch."""


def place(photo: AnyPicture, mapping: Affine, region: Region) -> Picture8:
    """The pixels of ``region`` (output pixels) when ``mapping`` says which point of ``photo``
    (its pixels) lies under an output point.

    Past the photo's edge its last pixels go on. Returns 8 bits, with the channels of ``photo``.
    """
    a, b, c, d = mapping.a, mapping.b, mapping.c, mapping.d
    x, y, width, height = region
    if b == 0 and c == 0:
        return _upright(photo, mapping, region)
    if a == 0 and d == 0:
        swapped = Affine(b, 0, 0, c, mapping.x0, mapping.y0)
        turned = _upright(photo, swapped, (y, x, height, width))
        return np.ascontiguousarray(turned.transpose(1, 0, 2))
    return _askew(photo, mapping, region)


def _upright(photo: AnyPicture, mapping: Affine, region: Region) -> Picture8:
    """``place`` for a photo that is at most mirrored.

    Output pixel ``i`` of a mirrored axis is pixel ``-1 - i`` of the same axis run the other way.
    """
    x, y, width, height = region
    flip_x, flip_y = mapping.a < 0, mapping.d < 0
    picture = sample(
        photo,
        left=mapping.x0,
        top=mapping.y0,
        step_x=abs(mapping.a),
        step_y=abs(mapping.d),
        region=(
            -x - width if flip_x else x,
            -y - height if flip_y else y,
            width,
            height,
        ),
    )
    if not flip_x and not flip_y:
        return picture
    return np.ascontiguousarray(picture[:: -1 if flip_y else 1, :: -1 if flip_x else 1])


def _askew(photo: AnyPicture, mapping: Affine, region: Region) -> Picture8:
    x, y, width, height = region
    out = np.empty((height, width, photo.shape[2]), np.uint8)
    for top in range(0, height, TILE):
        for left in range(0, width, TILE):
            tile = (x + left, y + top, min(TILE, width - left), min(TILE, height - top))
            drawn = _askew_tile(photo, mapping, tile)
            out[top : top + tile[3], left : left + tile[2]] = drawn
    return out


def _askew_tile(photo: AnyPicture, mapping: Affine, tile: Region) -> Picture8:
    # The grid of upright samples starts at the photo's corner whatever the tile, so that tiles
    # and regions of a picture fit together exactly.
    step = mapping.length / OVERSAMPLING
    x, y, width, height = tile
    corners = [mapping(x + dx, y + dy) for dx in (0, width) for dy in (0, height)]
    across, down = zip(*corners, strict=True)
    left, top = (int(np.floor(min(part) / step)) - _REACH for part in (across, down))
    right, bottom = (int(np.ceil(max(part) / step)) + _REACH for part in (across, down))
    upright = sample(
        photo,
        left=0,
        top=0,
        step_x=step,
        step_y=step,
        region=(left, top, right - left, bottom - top),
    )
    return kernels.turn(
        upright,
        decode_table(upright.dtype),
        encode_table(),
        np.array([mapping.a, mapping.b, mapping.c, mapping.d]) / step,
        mapping.x0 / step - left,
        mapping.y0 / step - top,
        x,
        y,
        width,
        height,
    )
