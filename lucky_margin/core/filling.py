"""Colours where there are none, from those around: push and pull over a pyramid, after S. Gortler
et al., "The Lumigraph", SIGGRAPH 1996."""

import cv2
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float32]

SMALLEST_SIDE = 3


def filled(colours: Floats, weights: Floats) -> Floats:
    """``colours`` (rows, columns, channels) where ``weights`` (rows, columns, 0..1) are 1; where
    they are less, the more of what lies around."""
    rows, columns = weights.shape
    if min(rows, columns) <= SMALLEST_SIDE:
        total = max(float(weights.sum()), 1e-6)
        mean = (colours * weights[:, :, None]).sum(axis=(0, 1)) / total
        return np.broadcast_to(mean, colours.shape).astype(np.float32)
    smaller_weights = np.asarray(cv2.pyrDown(weights), np.float32)
    # OpenCV drops the axis of a single channel.
    weighted = cv2.pyrDown(colours * weights[:, :, None]).reshape(*smaller_weights.shape, -1)
    smaller = np.asarray(weighted / np.maximum(smaller_weights, 1e-6)[:, :, None], np.float32)
    below = filled(smaller, np.minimum(1, 2 * smaller_weights).astype(np.float32))
    around = cv2.resize(below, (columns, rows), interpolation=cv2.INTER_LINEAR)
    around = around.reshape(colours.shape)
    share = weights[:, :, None]
    return np.asarray(share * colours + (1 - share) * around, np.float32)
