"""The edge-aware brightness of a photo's regions, for highlights, shadows and local contrast."""

import numpy as np

from lucky_margin.core.tone.guided import GuidedLines, fitted, working_light
from lucky_margin.core.types import AnyPicture

VERSION = 2
"""Of the lines; raised whenever the same photo gives others."""

REACH = 1 / 24
"""Of the photo's long side: how far a region reaches."""

EDGE = 0.25
"""EV: brightness that varies by more within a window is an edge and is kept."""

MIDDLE_GREY = 0.18
DARKEST = 2.0**-12
"""Linear light below which all is equally dark."""

LUMINANCE = (0.2126390059, 0.7151686788, 0.0721923154)
"""Of linear sRGB (IEC 61966-2-1)."""


def bases_of(photo: AnyPicture, photo_width: int) -> GuidedLines:
    """The bases of a photo of ``photo_width`` pixels across, from a copy of it of any size:
    brightness in EV from mid-grey, as lines of a pixel's own."""
    light = working_light(photo)
    luminance = light @ np.array(LUMINANCE, np.float32)
    brightness = np.log2(np.maximum(luminance, DARKEST) / MIDDLE_GREY).astype(np.float32)
    lines = fitted(brightness, brightness, REACH, EDGE)
    return GuidedLines(lines, lines.shape[1] / photo_width)
