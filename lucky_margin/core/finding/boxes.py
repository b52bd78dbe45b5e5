"""Boxes of what was found, in photo space (0..1)."""

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box

Floats = NDArray[np.float32]


def unit_box(left: float, top: float, right: float, bottom: float, sides: tuple[int, int]) -> Box:
    """A box in pixels of a picture of these ``sides`` (width, height), kept inside it."""
    width, height = sides
    x0, x1 = max(0.0, left / width), min(1.0, right / width)
    y0, y1 = max(0.0, top / height), min(1.0, bottom / height)
    return Box(left=x0, top=y0, width=min(x1 - x0, 1 - x0), height=min(y1 - y0, 1 - y0))


def with_room(box: Box, room: float) -> Box:
    """A box with ``room``, a share of its sides, on all four, kept inside the photo."""
    across, down = room * box.width, room * box.height
    return unit_box(
        box.left - across, box.top - down, box.right + across, box.bottom + down, (1, 1)
    )


def overlap(one: Box, other: Box) -> float:
    """What two boxes share, of what both cover: 0 apart, 1 the same."""
    width = max(0.0, min(one.right, other.right) - max(one.left, other.left))
    height = max(0.0, min(one.bottom, other.bottom) - max(one.top, other.top))
    shared = width * height
    return shared / (one.width * one.height + other.width * other.height - shared)
