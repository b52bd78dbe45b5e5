"""Measuring the noise that is left in a picture.

J. Immerkaer, "Fast noise variance estimation", Computer Vision and Image Understanding 64 (1996):
a mask that is blind to flat and evenly sloping brightness sees noise alone. Texture it sees too,
so the figure is that of the picture's quieter blocks.
"""

import cv2
import numpy as np

from lucky_margin.core.tone.bases import LUMINANCE
from lucky_margin.core.types import Picture8

BLOCK = 16
"""Side of a block, in pixels."""

QUIET_PERCENT = 25
"""Percentile of the blocks' noise that is taken."""

_MASK = np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], np.float32)
_NEAR_CLIPPED = 8
"""Mean brightness this near to black or white hides noise."""


def noise_of(picture: Picture8) -> float:
    """Standard deviation of the brightness noise, in 8-bit steps; 0 where none can be measured."""
    rows, columns = (picture.shape[0] - 2) // BLOCK, (picture.shape[1] - 2) // BLOCK
    if rows < 1 or columns < 1:
        return 0.0
    light = picture[:, :, :3].astype(np.float32) @ np.array(LUMINANCE, np.float32)
    seen = np.abs(cv2.filter2D(light, cv2.CV_32F, _MASK))[1:-1, 1:-1]
    means = [
        plane[: rows * BLOCK, : columns * BLOCK]
        .reshape(rows, BLOCK, columns, BLOCK)
        .mean(axis=(1, 3))
        for plane in (seen, light[1:-1, 1:-1])
    ]
    measured = means[0][(means[1] > _NEAR_CLIPPED) & (means[1] < 255 - _NEAR_CLIPPED)]
    if not measured.size:
        return 0.0
    return float(np.sqrt(np.pi / 2) / 6 * np.percentile(measured, QUIET_PERCENT))
