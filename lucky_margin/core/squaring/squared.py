"""A flat thing in a photo, seen straight on."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling import to_linear
from lucky_margin.core.sampling.srgb import encode
from lucky_margin.core.squaring.homography import Points, mapped, onto_corners, seen_sides
from lucky_margin.core.types import AnyPicture

STRIP = 256
"""Rows that are made at a time."""

ROOM = 4
"""Pixels of the photo around a strip that its interpolation may touch."""

MOST_PIXELS = 120_000_000


def squared_sides(corners: Points, ratio: float) -> tuple[int, int]:
    """Width and height in pixels: of this ratio, and as many pixels as the corners hold."""
    across, down = seen_sides(corners)
    pixels = min(across * down, MOST_PIXELS)
    width, height = np.sqrt(pixels * ratio), np.sqrt(pixels / ratio)
    return max(1, round(width)), max(1, round(height))


def squared(photo: AnyPicture, corners: Points, width: int, height: int) -> AnyPicture:
    """What lies between four corners of ``photo`` (its pixels, clockwise from the top left) as a
    picture of these sides, of the photo's type; bicubic, in linear light."""
    matrix = onto_corners(corners, width, height)
    out = np.empty((height, width, photo.shape[2]), photo.dtype)
    for top in range(0, height, STRIP):
        rows = min(STRIP, height - top)
        x, y = np.meshgrid(np.arange(width) + 0.5, np.arange(top, top + rows) + 0.5)
        on_photo = mapped(np.column_stack([x.ravel(), y.ravel()]), matrix)
        places = on_photo.reshape(rows, width, 2) - 0.5
        out[top : top + rows] = _sampled(photo, places)
    return out


def _sampled(photo: AnyPicture, places: NDArray[np.float64]) -> AnyPicture:
    """The photo's pixels at places in pixel indices."""
    low = np.floor(places.min(axis=(0, 1))).astype(int) - ROOM
    high = np.ceil(places.max(axis=(0, 1))).astype(int) + ROOM
    left, top = np.clip(low, 0, (photo.shape[1] - 1, photo.shape[0] - 1))
    right, foot = np.clip(high, (left + 1, top + 1), (photo.shape[1], photo.shape[0]))
    part = to_linear(photo[top:foot, left:right].copy())
    way = (places - (left, top)).astype(np.float32)
    linear = np.asarray(
        cv2.remap(
            part, way[:, :, 0], way[:, :, 1], cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE
        ),
        np.float64,
    ).reshape(*places.shape[:2], photo.shape[2])
    encoded = np.clip(linear, 0, 1)
    encoded[:, :, :3] = encode(encoded[:, :, :3])
    out: AnyPicture = np.empty(encoded.shape, photo.dtype)
    out[:] = np.rint(np.iinfo(photo.dtype).max * encoded)
    return out
