"""The colour of the light that a photo was taken in, when it shows.

Four cues, each of which is fooled by other photos: the mean of the darker half and of the lightest
tenth (G. Buchsbaum, "A spatial processor model for object colour perception", 1980), the fourth
norm of the brighter half (G. Finlayson and E. Trezzi, "Shades of gray and colour constancy",
2004), and what changes along edges (J. van de Weijer, T. Gevers and A. Gijsenij, "Edge-based color
constancy", 2007). A cast tints all of them alike; coloured things, a kiln's glow or an evening sky
do not, so it is only taken off as far as the cues agree.
"""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.tone.bases import LUMINANCE

AGREEMENT = 0.4
"""How far the cues may lie apart, in natural logarithms of red and blue to green."""

UNSEEN = 0.1
"""A cast up to this, in the same measure, is the photo's own."""

TAKEN_OFF = 0.7
"""Of what goes beyond that, so that about half of a usual cast goes."""

NORM = 4
LIGHTEST = 90
"""Percentile of brightness from which pixels are the lightest."""

BLUR = 1 / 200
"""Of the long side (standard deviation): colours of noise are no cue."""

LEAST_LIGHT, NEARLY_CLIPPED = 0.004, 0.97
LEAST_PIXELS = 50

Floats = NDArray[np.float64]


def cast_of(light: NDArray[np.float32]) -> Floats:
    """The light's own colour as gains of red, green and blue to take off, linear, shape (3,);
    ones when there is none. ``light`` is linear, shape (rows, columns, 3)."""
    cues = _cues(light)
    if cues is None:
        return np.ones(3)
    middle = cues.mean(axis=0)
    apart = np.sqrt(((cues - middle) ** 2).sum(axis=1).mean())
    size = max(float(np.hypot(*middle)), 1e-6)
    share = TAKEN_OFF * np.exp(-((apart / AGREEMENT) ** 2)) * max(0.0, size - UNSEEN) / size
    red, blue = np.exp(share * middle)
    return np.array([red, 1.0, blue])


def _cues(light: NDArray[np.float32]) -> Floats | None:
    """The logarithms of red and of blue to green by each cue, shape (4, 2)."""
    smooth = cv2.GaussianBlur(light, (0, 0), max(0.5, BLUR * max(light.shape[:2])))
    pixels = smooth.reshape(-1, 3).astype(np.float64)
    brightness = pixels @ LUMINANCE
    told = (pixels.max(axis=1) < NEARLY_CLIPPED) & (brightness > LEAST_LIGHT)
    if told.sum() < LEAST_PIXELS:
        return None
    pixels, brightness = pixels[told], brightness[told]
    is_bright = brightness > np.median(brightness)
    if is_bright.all() or not is_bright.any():
        return None
    across = np.diff(smooth, axis=1)[:-1]
    down = np.diff(smooth, axis=0)[:, :-1]
    edges = np.hypot(across, down).reshape(-1, 3).astype(np.float64)
    colours = (
        pixels[~is_bright].mean(axis=0),
        (pixels[is_bright] ** NORM).mean(axis=0) ** (1 / NORM),
        np.sqrt((edges**2).mean(axis=0)),
        pixels[brightness >= np.percentile(brightness, LIGHTEST)].mean(axis=0),
    )
    logs = np.log(np.maximum(colours, 1e-5))
    found: Floats = logs[:, [0, 2]] - logs[:, 1:2]
    return found
