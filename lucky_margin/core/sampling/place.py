"""Placing a photo under an output by any turn: mirrored, by quarters, or askew.

Mirrored and quarter-turned photos are sampled as they lie and the result is turned, so that
these are exact. A photo that lies askew is interpolated as it lies; where that would read very
many of its pixels, it is first shrunk upright to one and a half times the output's resolution.
"""

import numpy as np

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.sampling.interpolate import MOST_STEP, TILE, interpolate_into
from lucky_margin.core.sampling.sample import cover_into, sample_into
from lucky_margin.core.types import AnyPicture, Picture8, Picture16, Region

OVERSAMPLING = 1.5
"""Upright samples to one output pixel, along one side, of a photo that is shrunk first."""

_REACH = 9
"""Samples beyond a tile's corners that its interpolation reads."""


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
    a, b, c, d = mapping.a, mapping.b, mapping.c, mapping.d
    if abs(b * c) > abs(a * d):
        lying: AnyPicture = photo.transpose(1, 0, 2).copy()
        _askew(out, lying, Affine(c, d, a, b, mapping.y0, mapping.x0), region)
    elif mapping.mean_scale < MOST_STEP:
        interpolate_into(out, photo, mapping, region)
    else:
        _askew_from_smaller(out, photo, mapping, region)


def _askew_from_smaller(
    out: AnyPicture, photo: AnyPicture, mapping: Affine, region: Region
) -> None:
    """By way of upright samples, whose grid starts at the photo's corner whatever the region, so
    that regions of a picture fit together exactly."""
    x, y, width, height = region
    step = mapping.mean_scale / OVERSAMPLING
    onto_samples = scaling(1 / step, 1 / step).after(mapping)
    for top in range(0, height, TILE):
        for left in range(0, width, TILE):
            tile = (x + left, y + top, min(TILE, width - left), min(TILE, height - top))
            met = _met_by(tile, onto_samples)
            samples = np.empty((met[3], met[2], photo.shape[2]), np.uint16)
            cover_into(
                samples,
                photo,
                left=0,
                top=0,
                step_x=step,
                step_y=step,
                region=met,
            )
            moved = Affine(1, 0, 0, 1, -met[0], -met[1]).after(onto_samples)
            interpolate_into(out[top : top + tile[3], left : left + tile[2]], samples, moved, tile)


def _met_by(tile: Region, mapping: Affine) -> Region:
    """The part of a picture that ``tile`` and the kernel around it meet under ``mapping``."""
    x, y, width, height = tile
    corners = [mapping(x + dx, y + dy) for dx in (0, width) for dy in (0, height)]
    across, down = zip(*corners, strict=True)
    left, top = (int(np.floor(min(part))) - _REACH for part in (across, down))
    right, bottom = (int(np.ceil(max(part))) + _REACH for part in (across, down))
    return left, top, right - left, bottom - top
