"""Even transitions between two colours."""

import numpy as np

from lucky_margin.core.sampling import kernels
from lucky_margin.core.types import Picture8, Region

Rgb = tuple[int, int, int]
"""Encoded sRGB, 0..255."""


Slope = tuple[float, float, float]
"""a, b and c of ``a x + b y + c``, x and y in output pixels."""


def linear_gradient(start: Rgb, end: Rgb, *, along: Slope, region: Region) -> Picture8:
    """The pixels of ``region``, mixed in encoded sRGB and dithered, so that no hues show.

    A pixel has as much of ``end`` as ``along`` says of its centre, kept within 0..1.
    """
    return _gradient(start, end, along, (0, 0, 0), region)


def radial_gradient(
    start: Rgb, end: Rgb, *, along: Slope, across: Slope, region: Region
) -> Picture8:
    """As ``linear_gradient``, with as much of ``end`` as the vector of ``along`` and ``across`` is
    long."""
    return _gradient(start, end, along, across, region)


def _gradient(start: Rgb, end: Rgb, along: Slope, across: Slope, region: Region) -> Picture8:
    first, last, one, other = (np.array(part, np.float64) for part in (start, end, along, across))
    return kernels.gradient(first, last, one, other, *region)
