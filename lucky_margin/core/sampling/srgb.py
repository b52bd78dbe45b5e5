"""The sRGB transfer function as tables, for turning pictures into linear light and back.

Source: IEC 61966-2-1:1999, the piecewise curve with its toe at 0.0031308 / 0.04045.
"""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.types import AnyPicture, Picture8, Picture16

ENCODE_STEPS = 65_535
"""Intervals of the encoding table. Read with linear interpolation its error is below 1e-7 of
full scale, well under a 16-bit step."""


def decode(encoded: NDArray[np.float64]) -> NDArray[np.float64]:
    """Linear light (0..1) of sRGB-encoded values (0..1)."""
    return np.where(encoded <= 0.04045, encoded / 12.92, ((encoded + 0.055) / 1.055) ** 2.4)


def encode(linear: NDArray[np.float64]) -> NDArray[np.float64]:
    """sRGB-encoded values (0..1) of linear light (0..1)."""
    return np.where(linear <= 0.0031308, linear * 12.92, 1.055 * linear ** (1 / 2.4) - 0.055)


@lru_cache
def decode_table(dtype: np.dtype[np.uint8] | np.dtype[np.uint16]) -> NDArray[np.float32]:
    """Linear light for every value of an 8-bit or 16-bit picture."""
    top = np.iinfo(dtype).max
    return decode(np.arange(top + 1) / top).astype(np.float32)


@lru_cache
def encode_table() -> NDArray[np.float32]:
    """sRGB encoding (0..1) at ``ENCODE_STEPS + 1`` even steps of linear light, and one more
    entry so that interpolation may read past the end."""
    steps = encode(np.arange(ENCODE_STEPS + 1) / ENCODE_STEPS)
    return np.append(steps, steps[-1]).astype(np.float32)


def to_linear(picture: AnyPicture) -> NDArray[np.float32]:
    """A picture's colours as linear light and its alpha, if any, as it is; both 0..1."""
    linear = decode_table(picture.dtype)[picture]
    if picture.shape[2] == 4:
        linear[:, :, 3] = picture[:, :, 3] / np.float32(np.iinfo(picture.dtype).max)
    return linear


def as_8_bits(picture: AnyPicture) -> Picture8:
    """A picture at 8 bits, rounded."""
    if picture.dtype == np.uint8:
        return picture.astype(np.uint8, copy=False)
    return ((picture.astype(np.uint32) + 128) // 257).astype(np.uint8)


def as_16_bits(picture: AnyPicture) -> Picture16:
    """A picture at 16 bits, so that 255 becomes 65535."""
    return picture.astype(np.uint16) * np.uint16(65_535 // np.iinfo(picture.dtype).max)


def encode_16_bits(linear: NDArray[np.float32]) -> Picture16:
    """The inverse of ``to_linear``, at 16 bits; values outside 0..1 are clipped."""
    clipped = np.clip(linear, 0, 1)
    encoded = encode(clipped[:, :, :3].astype(np.float64))
    if clipped.shape[2] == 4:
        encoded = np.concatenate([encoded, clipped[:, :, 3:]], axis=2)
    return np.rint(encoded * 65_535).astype(np.uint16)
