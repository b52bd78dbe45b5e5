"""Gradients of two colours, along a line or outwards from the middle, as CSS Images 3 (sections
3.1 and 3.2) lays them."""

import math

from lucky_margin.core.document import Gradient, rgb_of
from lucky_margin.core.sampling import linear_gradient, radial_gradient
from lucky_margin.core.types import Picture8, Region


def gradient_over(ground: Gradient, width: float, height: float, region: Region) -> Picture8:
    """The pixels of ``region`` of a picture of these sides; the corners have the end colours.

    Mixed in encoded sRGB and dithered.
    """
    start, end = rgb_of(ground.start), rgb_of(ground.end)
    if ground.form == "radial":
        x, y = math.sqrt(2) / width, math.sqrt(2) / height
        along, across = (x, 0, -math.sqrt(0.5)), (0, y, -math.sqrt(0.5))
        return radial_gradient(start, end, along=along, across=across, region=region)
    angle = math.radians(ground.angle)
    x, y = math.sin(angle), -math.cos(angle)
    # The line is as long as it takes for its ends to lie level with two corners.
    length = abs(width * x) + abs(height * y)
    line = (x / length, y / length, 0.5 - (width * x + height * y) / 2 / length)
    return linear_gradient(start, end, along=line, region=region)
