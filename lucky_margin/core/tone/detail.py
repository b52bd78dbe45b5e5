"""Detail: noise reduction, fine detail and sharpening, before light and colour are changed.

All work on the encoded luminance of the sampled picture (BT.709 weights), so that colours stay;
noise of colour is smoothed in the two colour differences. Lengths that belong to the photo, its
noise and its texture, are in photo pixels and follow the picture's scale; sharpening belongs to
the output. So a preview shows what the export will have.

* noise of brightness: a bilateral filter (C. Tomasi and R. Manduchi, "Bilateral filtering for
  gray and color images", ICCV 1998);
* noise of colour: a guided filter by the luminance (K. He, J. Sun and X. Tang, "Guided image
  filtering", ECCV 2010);
* fine detail: a band of it between two Gaussians, stronger or weaker;
* sharpening: an unsharp mask.
"""

import math
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Tone
from lucky_margin.core.types import Picture16

NOISE_REACH, COLOUR_REACH = 2.5, 9.0
"""Photo pixels over which noise of brightness and of colour is averaged (standard deviation and
radius)."""

MOST_NOISE = 0.16
"""The difference that full smoothing takes for noise, of encoded brightness, in a photo pixel."""

COLOUR_EDGE = 0.06
"""Encoded brightness that varies by more within a window keeps its colours apart."""

FINE_DETAIL_FROM, FINE_DETAIL_TO = 0.0004, 0.0022
"""Of the photo's long side: the band of detail that is made stronger or weaker, as standard
deviations."""

FINE_DETAIL = 1.6
SHARPEN_REACH, SHARPEN = 0.8, 1.5
"""Output pixels, and the most that is added of what a blur by them takes away."""

LEAST_REACH = 0.25
"""Picture pixels; what is finer can't be seen in them."""

_WEIGHTS = np.array([0.2126, 0.7152, 0.0722], np.float32)
_Plane = NDArray[np.floating[Any]]


def needs_detail(tone: Tone) -> bool:
    """Whether any of it is set."""
    return bool(
        tone.noise_reduction or tone.colour_noise_reduction or tone.fine_detail or tone.sharpening
    )


def apron(tone: Tone, step: float, long_side: int) -> int:
    """Picture pixels beyond a region that its own pixels depend on.

    ``step`` is photo pixels to one picture pixel, ``long_side`` the photo's.
    """
    reaches = [2.0]
    if tone.noise_reduction:
        reaches.append(3 * NOISE_REACH / step)
    if tone.colour_noise_reduction:
        reaches.append(2 * COLOUR_REACH / step)
    if tone.fine_detail:
        reaches.append(4 * FINE_DETAIL_TO * long_side / step)
    if tone.sharpening:
        reaches.append(4 * SHARPEN_REACH)
    return math.ceil(max(reaches)) + 1


def detailed(
    picture: Picture16, tone: Tone, *, step: float, scale: float, long_side: int
) -> Picture16:
    """``picture`` with the tone's detail settings.

    ``step`` is photo pixels to one picture pixel, ``scale`` picture pixels to one output pixel.
    """
    colours: _Plane = picture[:, :, :3].astype(np.float32) / 65_535
    light: _Plane = colours @ _WEIGHTS
    if tone.colour_noise_reduction:
        colours = _smooth_colours(colours, light, tone.colour_noise_reduction / 100, step)
    changed: _Plane = light
    if tone.noise_reduction:
        changed = _smooth_light(light, tone.noise_reduction / 100, step)
    if tone.fine_detail:
        unit = long_side / step
        band = _blur(changed, FINE_DETAIL_FROM * unit) - _blur(changed, FINE_DETAIL_TO * unit)
        changed = changed + FINE_DETAIL * tone.fine_detail / 100 * band
    if tone.sharpening:
        edges = changed - _blur(changed, SHARPEN_REACH * scale)
        changed = changed + SHARPEN * tone.sharpening / 100 * edges
    colours += (changed - light)[:, :, None]
    out = picture.copy()
    out[:, :, :3] = np.rint(np.clip(colours, 0, 1) * 65_535)
    return out


def _smooth_light(light: _Plane, strength: float, step: float) -> _Plane:
    """In a smaller picture each pixel is a mean of several, whose noise is as much less."""
    noise = MOST_NOISE * strength / max(1.0, step)
    reach = NOISE_REACH / max(1.0, step)
    diameter = 2 * math.ceil(1.5 * reach) + 1
    return cv2.bilateralFilter(light, diameter, noise, reach).astype(np.float32, copy=False)


def _smooth_colours(colours: _Plane, light: _Plane, strength: float, step: float) -> _Plane:
    window = 2 * max(1, round(COLOUR_REACH / step)) + 1
    middle = _mean(light, window)
    variance = _mean(light * light, window) - middle * middle
    planes = []
    for channel in (0, 2):
        difference = colours[:, :, channel] - light
        mean = _mean(difference, window)
        slope = (_mean(light * difference, window) - middle * mean) / (variance + COLOUR_EDGE**2)
        offset = mean - slope * middle
        smooth = _mean(slope, window) * light + _mean(offset, window)
        planes.append(light + difference + strength * (smooth - difference))
    red, blue = planes
    green = (light - _WEIGHTS[0] * red - _WEIGHTS[2] * blue) / _WEIGHTS[1]
    return np.dstack([red, green, blue]).astype(np.float32, copy=False)


def _mean(plane: _Plane, window: int) -> _Plane:
    return cv2.blur(plane, (window, window), borderType=cv2.BORDER_REFLECT).astype(
        np.float32, copy=False
    )


def _blur(plane: _Plane, sigma: float) -> _Plane:
    if sigma < LEAST_REACH:
        return plane
    return cv2.GaussianBlur(plane, (0, 0), sigma, borderType=cv2.BORDER_REFLECT).astype(
        np.float32, copy=False
    )
