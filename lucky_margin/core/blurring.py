"""Blurs of any width in a short time."""

import math

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.types import Mask

Floats = NDArray[np.float32]

FINEST = 3.0
"""Standard deviation, in pixels, from twice which on a blur is done on a smaller picture."""


def blurred(values: Floats, deviation: float) -> Floats:
    """``values`` (rows, columns) blurred by a Gaussian of this standard deviation, in pixels; what
    lies past the edges is as what lies on them."""
    if deviation <= 0:
        return values
    rows, columns = values.shape
    return np.asarray(cv2.resize(blurred_small(values, deviation), (columns, rows)), np.float32)


def blurred_small(values: Floats | Mask, deviation: float, finest: float = FINEST) -> Floats:
    """``blurred``, as small as it was made: so that the deviation is at least ``finest`` pixels;
    ``values`` may have channels, and be those of a mask (0..255)."""
    rows, columns = values.shape[:2]
    shrink = max(1, int(deviation / finest))
    sides = max(1, columns // shrink), max(1, rows // shrink)
    small = cv2.resize(values, sides, interpolation=cv2.INTER_AREA)
    border = cv2.BORDER_REPLICATE
    small = cv2.GaussianBlur(small, (0, 0), deviation / shrink, borderType=border)
    return np.asarray(small, np.float32)


def lens_blurred(light: Floats, radius: float) -> Floats:
    """``light`` (rows, columns, channels; linear) blurred as by a lens: by a disc of ``radius``
    pixels, whose edge is smooth; past its edges it is taken to go on mirrored."""
    reach = math.ceil(radius)
    y, x = np.mgrid[-reach : reach + 1, -reach : reach + 1]
    disc = np.clip(radius + 0.5 - np.hypot(x, y), 0, 1)
    kernel = np.asarray(disc / disc.sum(), np.float32)
    soft = cv2.filter2D(light, cv2.CV_32F, kernel, borderType=cv2.BORDER_REFLECT)
    return np.asarray(soft, np.float32).reshape(light.shape)
