"""Measuring a toned picture: its histogram and what is clipped."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.tone.bases import LUMINANCE
from lucky_margin.core.types import Picture8

BINS = 64


@dataclass(frozen=True)
class Histogram:
    """How many pixels, of all, lie in each of ``BINS`` steps of encoded value; each sums to 1."""

    red: tuple[float, ...]
    green: tuple[float, ...]
    blue: tuple[float, ...]
    brightness: tuple[float, ...]


@dataclass(frozen=True)
class Clipping:
    """Shares of pixels (0..1) with a channel at the top, and with all of them at the bottom."""

    high: float
    low: float


def histogram_of(picture: Picture8) -> Histogram:
    """The histogram of a picture's pixels that are not fully transparent; each part sums to 1."""
    colours = _seen(picture)
    brightness = colours @ np.array(LUMINANCE)
    parts = (*colours.T, brightness)
    counts = [np.histogram(part, BINS, (0, 256))[0] / max(len(colours), 1) for part in parts]
    red, green, blue, grey = (tuple(count.round(6).tolist()) for count in counts)
    return Histogram(red, green, blue, grey)


def clipping_of(picture: Picture8) -> Clipping:
    """The share (0..1) of pixels with a channel at its top, and of those with all at the bottom."""
    colours = _seen(picture)
    if not len(colours):
        return Clipping(0.0, 0.0)
    high = (colours == 255).any(axis=1).mean()
    low = (colours == 0).all(axis=1).mean()
    return Clipping(float(high), float(low))


def _seen(picture: Picture8) -> NDArray[np.uint8]:
    """The colours of the pixels that are not transparent, shape (n, 3)."""
    colours = picture[:, :, :3].reshape(-1, 3)
    return colours if picture.shape[2] == 3 else colours[picture[:, :, 3].ravel() > 0]
