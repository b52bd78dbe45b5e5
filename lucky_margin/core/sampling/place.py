"""Placing a photo under an output by any turn: mirrored, by quarters, or askew.

Mirrored and quarter-turned photos are sampled as they lie and the result is turned, so that
these are exact. A photo that lies askew is first sampled upright at twice the output's
resolution, which takes care of its scale, and then each output pixel is the mean of two by two
points of that, read bilinearly, in linear light.
"""

import numpy as np

from lucky_margin.core.affine import Affine
from lucky_margin.core.sampling import kernels
from lucky_margin.core.sampling.sample import sample_into
from lucky_margin.core.sampling.srgb import decode_table, encode_table
from lucky_margin.core.types import AnyPicture, Picture8, Picture16, Region

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
    out = np.empty((region[3], region[2], photo.shape[2]), np.uint8)
    _place_into(out, photo, mapping, region)
    return out


def place_at_16_bits(photo: AnyPicture, mapping: Affine, region: Region) -> Picture16:
    """``place``, at 16 bits and so without dither."""
    out = np.empty((region[3], region[2], photo.shape[2]), np.uint16)
    _place_into(out, photo, mapping, region)
    return out


def _place_into(out: AnyPicture, photo: AnyPicture, mapping: Affine, region: Region) -> None:
    a, b, c, d = mapping.a, mapping.b, mapping.c, mapping.d
    x, y, width, height = region
    if b == 0 and c == 0:
        _upright(out, photo, mapping, region)
    elif a == 0 and d == 0:
        swapped = Affine(b, 0, 0, c, mapping.x0, mapping.y0)
        turned = np.empty((width, height, photo.shape[2]), out.dtype)
        _upright(turned, photo, swapped, (y, x, height, width))
        out[:] = turned.transpose(1, 0, 2)
    else:
        _askew(out, photo, mapping, region)


def _upright(out: AnyPicture, photo: AnyPicture, mapping: Affine, region: Region) -> None:
    """A photo that is at most mirrored.

    Output pixel ``i`` of a mirrored axis is pixel ``-1 - i`` of the same axis run the other way.
    """
    x, y, width, height = region
    flip_x, flip_y = mapping.a < 0, mapping.d < 0
    sample_into(
        out,
        photo,
        left=mapping.x0,
        top=mapping.y0,
        step_x=abs(mapping.a),
        step_y=abs(mapping.d),
        region=(-x - width if flip_x else x, -y - height if flip_y else y, width, height),
    )
    if flip_x or flip_y:
        out[:] = out[:: -1 if flip_y else 1, :: -1 if flip_x else 1].copy()


def _askew(out: AnyPicture, photo: AnyPicture, mapping: Affine, region: Region) -> None:
    x, y, width, height = region
    for top in range(0, height, TILE):
        for left in range(0, width, TILE):
            tile = (x + left, y + top, min(TILE, width - left), min(TILE, height - top))
            # In an array of its own, so that one compiled loop serves all.
            drawn = np.empty((tile[3], tile[2], photo.shape[2]), out.dtype)
            _askew_tile(drawn, photo, mapping, tile)
            out[top : top + tile[3], left : left + tile[2]] = drawn


def _askew_tile(out: AnyPicture, photo: AnyPicture, mapping: Affine, tile: Region) -> None:
    # The grid of upright samples starts at the photo's corner whatever the tile, so that tiles
    # and regions of a picture fit together exactly.
    step = mapping.mean_scale / OVERSAMPLING
    x, y, width, height = tile
    corners = [mapping(x + dx, y + dy) for dx in (0, width) for dy in (0, height)]
    across, down = zip(*corners, strict=True)
    left, top = (int(np.floor(min(part) / step)) - _REACH for part in (across, down))
    right, bottom = (int(np.ceil(max(part) / step)) + _REACH for part in (across, down))
    upright = np.empty((bottom - top, right - left, photo.shape[2]), out.dtype)
    sample_into(
        upright,
        photo,
        left=0,
        top=0,
        step_x=step,
        step_y=step,
        region=(left, top, right - left, bottom - top),
    )
    kernels.turn(
        upright,
        decode_table(upright.dtype),
        encode_table(),
        np.array([mapping.a, mapping.b, mapping.c, mapping.d]) / step,
        mapping.x0 / step - left,
        mapping.y0 / step - top,
        x,
        y,
        out,
    )
