"""Colour profiles: from whatever a photo carries to sRGB encoding.

Intents are relative colorimetric with black point compensation, the usual choice for photos:
colours that sRGB has stay exactly where they are.
"""

import io
from collections.abc import Callable
from functools import lru_cache
from typing import Any, cast

import imagecodecs
import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageCms

from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.types import AnyPicture

_INTENT = ImageCms.Intent.RELATIVE_COLORIMETRIC
_FLAGS = ImageCms.Flags.BLACKPOINTCOMPENSATION

_BAND_PIXELS = 500_000
"""Pixels that are converted at once, so that the floats in between stay few."""

_TRIALS, _TRIAL_SEED = 4096, 1
_ADDED_TOLERANCE = 0.75 / 255
"""How far a trial colour may be off, in sRGB encoding."""


@lru_cache
def srgb_profile() -> bytes:
    """An sRGB ICC profile whose bytes are the same every time."""
    profile = bytearray(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    # ICC.1:2010 header: creation date at 24..35, profile ID (an optional digest) at 84..99.
    profile[24:36] = bytes(12)
    profile[84:100] = bytes(16)
    return bytes(profile)


def is_srgb(profile: bytes) -> bool:
    """Whether a profile is sRGB in all but name: no colour moves by more than one step.

    One that is broken, or of another colour space, is not.
    """
    levels = np.linspace(0, 255, 9).round().astype(np.uint8)
    grid = np.stack(np.meshgrid(levels, levels, levels), axis=-1).reshape(27, 27, 3)
    try:
        moved = to_srgb(profile, "RGB")(Image.fromarray(np.ascontiguousarray(grid)))
    except (ImageCms.PyCMSError, OSError, ValueError):
        return False
    return bool(np.abs(np.asarray(moved, np.int16) - grid).max() <= 1)


def to_srgb(profile: bytes, mode: str) -> Callable[[Image.Image], Image.Image]:
    """What converts 8-bit images of a ``mode`` (RGB, CMYK or L) and this profile to RGB in sRGB.

    Raises:
        PIL.ImageCms.PyCMSError, OSError: the profile is broken or of another colour space.
    """
    transform = ImageCms.buildTransform(
        ImageCms.ImageCmsProfile(io.BytesIO(profile)),
        ImageCms.ImageCmsProfile(io.BytesIO(srgb_profile())),
        mode,
        "RGB",
        renderingIntent=_INTENT,
        flags=_FLAGS,
    )
    return transform.apply


def array_to_srgb(colours: AnyPicture, profile: bytes) -> AnyPicture:
    """Grey or RGB of this profile, shape (height, width, 1 or 3), as RGB in sRGB, same type.

    The library's own quick way goes by a coarse table of colours, which is off by up to 20 of
    255 for wide profiles, and its exact way takes a second a megapixel. But nearly all profiles of
    photos are one curve to a channel and a matrix, so in linear light the channels simply add up;
    where trial colours show that they do, each channel is a table.

    Raises:
        imagecodecs.CmsError, RuntimeError, ValueError: the profile is broken or of another
            colour space.
    """
    top = int(np.iinfo(colours.dtype).max)
    shares = _linear_shares(colours.shape[2], top, profile)
    converted = np.empty((*colours.shape[:2], 3), colours.dtype)
    rows = max(1, _BAND_PIXELS // colours.shape[1])
    for first in range(0, colours.shape[0], rows):
        band = colours[first : first + rows]
        if shares is not None:
            linear = sum(table[band[:, :, number]] for number, table in enumerate(shares))
            encoded = encode(np.clip(np.asarray(linear, np.float64), 0, 1))
        else:
            encoded = np.clip(_exactly(band / np.float32(top), profile), 0, 1)
        if colours.shape[2] == 1:
            encoded = encoded[:, :, 1:2]  # grey to the last bit
        converted[first : first + rows] = np.rint(encoded * top)
    return cast(AnyPicture, converted)


def _linear_shares(channels: int, top: int, profile: bytes) -> list[NDArray[np.float32]] | None:
    """What each channel's every value adds to linear sRGB; None when they do not add up."""
    ramps = np.zeros((channels, top + 1, channels), np.float32)
    for channel in range(channels):
        ramps[channel, :, channel] = np.linspace(0, 1, top + 1)
    shares = _linear(_exactly(ramps, profile))
    black = shares[0, 0].copy()
    shares[1:] -= black  # the first channel's table brings it once for all
    trials = np.random.default_rng(_TRIAL_SEED).integers(0, top + 1, (_TRIALS, channels))
    exact = _exactly(trials[np.newaxis] / np.float32(top), profile)[0]
    added = sum(shares[number][trials[:, number]] for number in range(channels))
    error = np.abs(encode(np.clip(added, 0, 1)) - np.clip(exact, 0, 1)).max()
    return list(shares.astype(np.float32)) if error <= _ADDED_TOLERANCE else None


def _exactly(colours: NDArray[Any], profile: bytes) -> NDArray[np.float32]:
    """Colours (0..1) of this profile in sRGB encoding, unclipped, without tables."""
    transformed = imagecodecs.cms_transform(
        np.ascontiguousarray(colours, dtype=np.float32),
        profile,
        srgb_profile(),
        colorspace="GRAY" if colours.shape[2] == 1 else "RGB",
        outcolorspace="RGB",
        intent=int(_INTENT),
        flags=int(_FLAGS | ImageCms.Flags.NOOPTIMIZE),
    )
    # From grey it comes with the single channel as an axis before the three.
    return cast("NDArray[np.float32]", transformed.reshape(*colours.shape[:2], 3))


def _linear(encoded: NDArray[np.float32]) -> NDArray[np.float64]:
    """Linear light of encoded values that may lie outside 0..1."""
    wide = encoded.astype(np.float64)
    return np.sign(wide) * decode(np.abs(wide))
