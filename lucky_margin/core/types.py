"""Names for the arrays and plain values that the core passes around."""

from typing import Literal

import numpy as np
from numpy.typing import NDArray

Picture8 = NDArray[np.uint8]
"""A picture at 8 bits (see the image contract in ``lucky_margin.core``)."""

Picture16 = NDArray[np.uint16]
"""A picture at 16 bits."""

AnyPicture = NDArray[np.uint8] | NDArray[np.uint16]
"""A picture at 8 or 16 bits."""

Mask = NDArray[np.uint8]
"""Coverage, shape (height, width): 0 is none of a pixel, 255 all of it."""

Region = tuple[int, int, int, int]
"""Left, top, width and height in whole output pixels."""

ImageFormat = Literal["jpeg", "png", "webp", "avif", "tiff", "gif", "bmp", "pdf"]
"""The formats an export can have."""

OPAQUE_FORMATS: frozenset[ImageFormat] = frozenset({"jpeg", "bmp", "pdf"})
"""Those without transparency."""

LOSSLESS_FORMATS: frozenset[ImageFormat] = frozenset({"png", "tiff", "gif", "bmp"})
"""Those that know no quality."""
