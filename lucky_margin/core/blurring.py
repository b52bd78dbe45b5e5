"""Blurs of any width in a short time."""

import cv2
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float32]

FINEST = 3.0
"""Standard deviation, in pixels, from twice which on a blur is done on a smaller picture."""


def blurred(values: Floats, deviation: float) -> Floats:
    """``values`` (rows, columns) blurred by a Gaussian of this standard deviation, in pixels; what
    lies past the edges is as what lies on them."""
    if deviation <= 0:
        return values
    rows, columns = values.shape
    shrink = max(1, int(deviation / FINEST))
    sides = max(1, columns // shrink), max(1, rows // shrink)
    small = cv2.resize(values, sides, interpolation=cv2.INTER_AREA)
    border = cv2.BORDER_REPLICATE
    small = cv2.GaussianBlur(small, (0, 0), deviation / shrink, borderType=border)
    return np.asarray(cv2.resize(small, (columns, rows)), np.float32)
