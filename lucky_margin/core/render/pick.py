"""Picking colours from a picture."""

import numpy as np

from lucky_margin.core.render.render import View, render
from lucky_margin.core.sampling import encode_16_bits, to_linear
from lucky_margin.core.scene import Scene


def picked_colour(scene: Scene, *, view: View, x: int, y: int, radius: int = 0) -> str | None:
    """The colour (``#RRGGBB``) at a pixel of a view, or the mean in linear light over a disc of
    ``radius`` pixels around it; None where all of it is transparent.

    Raises:
        BadInput: the pixel is outside the picture.
    """
    if radius == 0:
        pixels = render(scene, region=(x, y, 1, 1), view=view)
        inside = np.ones((1, 1), bool)
    else:
        columns, rows = scene.frame.photo.whole_sides if view == "photo" else scene.sides
        left, top = max(0, x - radius), max(0, y - radius)
        width, height = min(columns, x + radius + 1) - left, min(rows, y + radius + 1) - top
        pixels = render(scene, region=(left, top, width, height), view=view)
        down, across = np.mgrid[top : top + height, left : left + width]
        inside = (across - x) ** 2 + (down - y) ** 2 <= radius**2
    linear = to_linear(pixels)[inside]
    weights = linear[:, 3] if linear.shape[1] == 4 else np.ones(len(linear), np.float32)
    if weights.sum() <= 0:
        return None
    mean = (linear[:, :3] * weights[:, None]).sum(axis=0) / weights.sum()
    steps = np.rint(encode_16_bits(mean.reshape(1, 1, 3).astype(np.float32))[0, 0] / 257)
    return "#{:02X}{:02X}{:02X}".format(*(int(step) for step in steps))
