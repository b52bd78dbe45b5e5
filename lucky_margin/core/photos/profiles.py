"""Colour profiles: from whatever a photo carries to sRGB encoding.

Intents are relative colorimetric with black point compensation, the usual choice for photos:
colours that sRGB has stay exactly where they are.
"""

import io
from functools import lru_cache

import imagecodecs
import numpy as np
from PIL import Image, ImageCms

from lucky_margin.core.types import AnyPicture

_INTENT = ImageCms.Intent.RELATIVE_COLORIMETRIC
_FLAGS = ImageCms.Flags.BLACKPOINTCOMPENSATION


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
        moved = to_srgb(Image.fromarray(np.ascontiguousarray(grid)), profile)
    except (ImageCms.PyCMSError, OSError, ValueError):
        return False
    return bool(np.abs(np.asarray(moved, np.int16) - grid).max() <= 1)


def to_srgb(image: Image.Image, profile: bytes) -> Image.Image:
    """An 8-bit RGB, CMYK or grey image of this profile as RGB in sRGB.

    Raises:
        PIL.ImageCms.PyCMSError, OSError: the profile is broken or of another colour space.
    """
    converted = ImageCms.profileToProfile(
        image,
        ImageCms.ImageCmsProfile(io.BytesIO(profile)),
        ImageCms.ImageCmsProfile(io.BytesIO(srgb_profile())),
        renderingIntent=_INTENT,
        outputMode="RGB",
        flags=_FLAGS,
    )
    assert converted is not None  # it returns None only when told to work in place
    return converted


def to_srgb_16(colours: AnyPicture, profile: bytes) -> AnyPicture:
    """16-bit RGB of this profile, shape (height, width, 3), in sRGB at 16 bits."""
    return imagecodecs.cms_transform(
        colours,
        profile,
        srgb_profile(),
        colorspace="RGB",
        outcolorspace="RGB",
        intent=int(_INTENT),
        flags=int(_FLAGS),
    )
