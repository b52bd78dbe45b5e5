"""Sampling: part of a photo at an exact number of pixels, in linear light."""

from typing import Any

import numpy as np

from lucky_margin.core.affine import Affine
from lucky_margin.core.arrays import read_only
from lucky_margin.core.sampling import kernels
from lucky_margin.core.sampling.interpolate import interpolate_into
from lucky_margin.core.sampling.srgb import decode_table, encode_table
from lucky_margin.core.sampling.weights import axis_weights
from lucky_margin.core.types import AnyPicture, Picture8, Picture16, Region

AREA_STEP = 2.0
"""Photo pixels to one output pixel from which on each is the mean of what it covers, which keeps
nearly as much of fine contrast there and is several times faster."""


def sample(
    photo: AnyPicture, *, left: float, top: float, step_x: float, step_y: float, region: Region
) -> Picture8:
    """The pixels of ``region`` when ``photo`` is laid under the output.

    ``left`` and ``top`` are the photo pixels under the output's top left corner, ``step_x`` and
    ``step_y`` the photo pixels to one output pixel; ``region`` is in output pixels. Past the
    photo's edge its last pixels go on. Returns 8 bits, with the channels of ``photo``.

    Shrunk to half and less, a pixel is the mean of what it covers; else it is interpolated (see
    ``interpolate``), which passes through the photo's own pixels.

    One to one on whole photo pixels, an 8-bit photo is copied exactly.
    """
    out = np.empty((region[3], region[2], photo.shape[2]), np.uint8)
    sample_into(out, photo, left=left, top=top, step_x=step_x, step_y=step_y, region=region)
    return out


def sample_into(
    out: AnyPicture,
    photo: AnyPicture,
    *,
    left: float,
    top: float,
    step_x: float,
    step_y: float,
    region: Region,
) -> None:
    """``sample`` into an array of 8 or 16 bits."""
    x, y, width, height = region
    if _is_copy(photo, left, top, step_x, step_y):
        copied_x, copied_y = int(left) + x, int(top) + y
        inside = copied_x + width <= photo.shape[1] and copied_y + height <= photo.shape[0]
        if inside and copied_x >= 0 and copied_y >= 0:
            out[:] = photo[copied_y : copied_y + height, copied_x : copied_x + width]
            if out.dtype == np.uint16:
                out *= _PER_8_BIT_STEP
            return
    if min(step_x, step_y) < AREA_STEP:
        interpolate_into(out, photo, Affine(step_x, 0, 0, step_y, left, top), region)
        return
    cover_into(out, photo, left=left, top=top, step_x=step_x, step_y=step_y, region=region)


def cover_into(
    out: AnyPicture,
    photo: AnyPicture,
    *,
    left: float,
    top: float,
    step_x: float,
    step_y: float,
    region: Region,
) -> None:
    """``sample_into`` by the mean of what each output pixel covers."""
    x, y, width, height = region
    photo = read_only(photo)
    across = axis_weights(left, step_x, x, width, photo.shape[1])
    down = axis_weights(top, step_y, y, height, photo.shape[0])
    decode = decode_table(photo.dtype)
    taps = across.first, across.weights, down.first, down.weights
    if photo.shape[2] == 3:
        kernels.resample(photo, decode, *taps, x, y, out)
    else:
        kernels.resample_transparent(photo, decode, encode_table(), *taps, x, y, out)


def shrunk(photo: AnyPicture, width: int, height: int) -> Picture16:
    """All of ``photo`` at ``width`` x ``height``, at most its own, each pixel the mean of what it
    covers in linear light, at 16 bits."""
    rows, columns, channels = photo.shape
    out = np.empty((height, width, channels), np.uint16)
    step_x, step_y = columns / width, rows / height
    region = (0, 0, width, height)
    cover_into(out, photo, left=0, top=0, step_x=step_x, step_y=step_y, region=region)
    return out


_PER_8_BIT_STEP: Any = np.uint16(257)
"""Of the 16-bit steps, so that 255 becomes 65535."""


def halved(photo: AnyPicture) -> AnyPicture:
    """A copy at half the sides (rounded up), averaged in linear light, of the same dtype."""
    return kernels.halve(read_only(photo), decode_table(photo.dtype))


def _is_copy(photo: AnyPicture, left: float, top: float, step_x: float, step_y: float) -> bool:
    return (
        photo.dtype == np.uint8
        and step_x == 1
        and step_y == 1
        and float(left).is_integer()
        and float(top).is_integer()
    )
