"""What the stage marks on the photo: what is clipped, and what lies outside an area."""

import numpy as np

from lucky_margin.core.types import Mask, Picture8, Region

HATCHING, LINE = 6, 2
"""Picture pixels from one line of the hatching to the next, and of the line itself."""

DARK, LIGHT = (30, 42, 47), (245, 241, 232)
"""Of the lines: dark on what is clipped to white, light on what is clipped to black."""

VEIL, VEIL_OPACITY = (128, 128, 128), 0.78
"""Laid over what is outside an area: a grey without a tint, so that colours are judged rightly."""


def with_clipping(photo: Picture8, region: Region) -> Picture8:
    """``photo`` with fine diagonal lines over its clipped pixels; ``region`` is its place in the
    picture, so that the lines of two parts fit together.

    Clipped to white is what has a channel at the top, to black what has all at the bottom.
    """
    left, top, width, height = region
    y, x = np.mgrid[top : top + height, left : left + width]
    colours = photo[:, :, :3]
    marked = photo.copy()
    rising = (x + y) % HATCHING < LINE
    falling = (x - y) % HATCHING < LINE
    marked[:, :, :3][(colours == 255).any(axis=2) & rising] = DARK
    marked[:, :, :3][(colours == 0).all(axis=2) & falling] = LIGHT
    return marked


def with_veil(photo: Picture8, area: Mask) -> Picture8:
    """``photo`` with a veil over what is outside ``area``."""
    share = VEIL_OPACITY * (255 - area[:, :, None].astype(np.float32)) / 255
    marked = photo.copy()
    marked[:, :, :3] = np.rint(photo[:, :, :3] * (1 - share) + np.array(VEIL) * share)
    return marked
