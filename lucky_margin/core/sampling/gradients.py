"""Even transitions between two colours."""

import numpy as np

from lucky_margin.core.sampling import kernels
from lucky_margin.core.types import Picture8, Region

Rgb = tuple[int, int, int]
"""Encoded sRGB, 0..255."""


def linear_gradient(
    start: Rgb, end: Rgb, *, along: tuple[float, float, float], region: Region
) -> Picture8:
    """The pixels of ``region``, mixed in encoded sRGB and dithered, so that no hues show.

    A pixel whose centre is at ``x, y`` (output pixels) has a share of ``end`` of
    ``along[0] x + along[1] y + along[2]``, kept within 0..1.
    """
    return kernels.gradient(
        np.array(start, np.float64), np.array(end, np.float64), np.array(along, np.float64), *region
    )
