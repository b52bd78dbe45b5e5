"""Vignettes: a colour towards the corners."""

import numpy as np

from lucky_margin.core.document import Vignette, rgb_of
from lucky_margin.core.treatments.working import Floats, Pixels
from lucky_margin.core.types import Picture8


def vignette_texture(vignette: Vignette, pixels: Pixels) -> Floats:
    """How much (0..1) of each pixel is the vignette's colour.

    Ways are counted in the ellipse through the size's corners: 0 in the middle, 1 there.
    """
    x, y = pixels.places
    across, down = 2 * x / pixels.width - 1, 2 * y / pixels.height - 1
    way = np.sqrt((across * across + down * down) / 2)
    softness = max(vignette.softness / 100, 0.01)
    grown = np.clip((way - vignette.reach / 100) / softness, 0, 1)
    share = grown * grown * (3 - 2 * grown)
    return np.asarray(vignette.amount / 100 * share, np.float32)


def draw_vignette(vignette: Vignette, share: Floats, picture: Picture8, _: Pixels) -> Picture8:
    """``picture`` mixed with the colour."""
    colour = np.array(rgb_of(vignette.colour), np.float32)
    return np.asarray(np.rint(picture + share[:, :, None] * (colour - picture)), np.uint8)
