"""Gradients of two colours along a line, as CSS Images 3 (section 3.1) lays them."""

import math

from lucky_margin.core.document import Gradient, rgb_of
from lucky_margin.core.sampling import linear_gradient
from lucky_margin.core.types import Picture8, Region


def gradient_over(ground: Gradient, width: float, height: float, region: Region) -> Picture8:
    """The pixels of ``region`` of a picture of these sides; the corners have the end colours.

    Mixed in encoded sRGB and dithered.
    """
    angle = math.radians(ground.angle)
    x, y = math.sin(angle), -math.cos(angle)
    # The line is as long as it takes for its ends to lie level with two corners.
    length = abs(width * x) + abs(height * y)
    along = (x / length, y / length, 0.5 - (width * x + height * y) / 2 / length)
    return linear_gradient(rgb_of(ground.start), rgb_of(ground.end), along=along, region=region)
