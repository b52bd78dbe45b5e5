"""Detail: noise reduction, fine detail and sharpening, before light and colour are changed.

All work on encoded colours, where noise is about as strong in the dark as in the light. Noise of
brightness is smoothed in the luminance (BT.709 weights), noise of colour in what is left without
it. Lengths that belong to the photo, its noise and its texture, are in photo pixels and follow the
picture's scale; sharpening belongs to the output. So a preview shows what the export will have.

* noise: a bilateral filter that looks at all three channels for what belongs together (C. Tomasi
  and R. Manduchi, "Bilateral filtering for gray and color images", ICCV 1998);
* fine detail: a band of it between two Gaussians, stronger or weaker;
* sharpening: an unsharp mask.
"""

import math
from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Tone
from lucky_margin.core.types import Picture16


@dataclass(frozen=True)
class _Smoothing:
    """A bilateral filter at full strength, in a photo pixel."""

    reach: float
    """Standard deviation, in photo pixels."""
    most: float
    """The difference of encoded colours, over all channels, that is taken for noise."""

    def of(self, colours: "_Plane", strength: float, step: float) -> "_Plane":
        """``colours`` by ``strength`` (0..1). In a smaller picture each pixel is a mean of several,
        whose noise is as much less."""
        step = max(1.0, step)
        noise = self.most * strength**GENTLY / step
        size = 2 * math.ceil(1.5 * self.reach / step) + 1
        smooth = cv2.bilateralFilter(colours, size, noise, self.reach / step)
        return smooth.astype(np.float32, copy=False)


GENTLY = 1.6
"""So much more slowly does the strength of smoothing set in."""

LIGHT, COLOUR = _Smoothing(1.8, 0.25), _Smoothing(2.5, 0.3)
"""What smooths noise of brightness, and of colour. Measured on clear photos with noise that grows
with the light and is shared a little by neighbours."""

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
        reaches.append(2 * LIGHT.reach / step)
    if tone.colour_noise_reduction:
        reaches.append(2 * COLOUR.reach / step)
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
    changed: _Plane = light
    if tone.noise_reduction:
        changed = LIGHT.of(colours, tone.noise_reduction / 100, step) @ _WEIGHTS
    if tone.colour_noise_reduction:
        colours = COLOUR.of(colours, tone.colour_noise_reduction / 100, step)
    if tone.fine_detail:
        unit = long_side / step
        band = _blur(changed, FINE_DETAIL_FROM * unit) - _blur(changed, FINE_DETAIL_TO * unit)
        changed = changed + FINE_DETAIL * tone.fine_detail / 100 * band
    if tone.sharpening:
        edges = changed - _blur(changed, SHARPEN_REACH * scale)
        changed = changed + SHARPEN * tone.sharpening / 100 * edges
    colours = colours + (changed - colours @ _WEIGHTS)[:, :, None]
    out = picture.copy()
    out[:, :, :3] = np.rint(np.clip(colours, 0, 1) * 65_535)
    return out


def _blur(plane: _Plane, sigma: float) -> _Plane:
    if sigma < LEAST_REACH:
        return plane
    return cv2.GaussianBlur(plane, (0, 0), sigma, borderType=cv2.BORDER_REFLECT).astype(
        np.float32, copy=False
    )
