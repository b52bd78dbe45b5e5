"""A matte as a file, without loss."""

import io

import numpy as np
from PIL import Image, UnidentifiedImageError

from lucky_margin.core.png import png
from lucky_margin.core.types import Mask


def matte_file(matte: Mask) -> bytes:
    """A grey PNG picture of how far (0..255) each pixel is covered."""
    return png(matte)


def read_matte(data: bytes, longest: int) -> Mask | None:
    """The matte in such a file; None where it is none, is damaged, or is over ``longest``."""
    try:
        with Image.open(io.BytesIO(data), formats=("PNG",)) as picture:
            if picture.mode != "L" or max(picture.size) > longest:
                return None
            return np.array(picture, np.uint8)
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError):
        return None
