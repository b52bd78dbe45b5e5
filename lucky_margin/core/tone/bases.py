"""The edge-aware brightness of a photo's regions, for highlights, shadows and local_contrast.

K. He and J. Sun, "Fast guided filter" (2015): at a small fixed size, brightness is fitted in
windows as a line of itself, ``a * I + b``; read at any resolution against the pixel's own
brightness ``I``, the line keeps edges as sharp as the picture has them, so no halo appears.
"""

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.sampling import to_linear
from lucky_margin.core.types import AnyPicture, Region

WORKING_SIDE = 768
"""Longest side at which the lines are fitted, in pixels."""

VERSION = 1
"""Of the lines; raised whenever the same photo gives others."""

RADIUS = 1 / 24
"""Of the working size's long side: how far a region reaches."""

EDGE = 0.25
"""EV: brightness that varies by more within a window is an edge and is kept."""

MIDDLE_GREY = 0.18
DARKEST = 2.0**-12
"""Linear light below which all is equally dark."""

LUMINANCE = (0.2126390059, 0.7151686788, 0.0721923154)
"""Of linear sRGB (IEC 61966-2-1)."""


@dataclass(frozen=True)
class Bases:
    """``lines`` has shape (rows, columns, 2): ``a`` and ``b`` for brightness in EV from
    mid-grey; ``scale`` is its pixels to one photo pixel."""

    lines: NDArray[np.float32]
    scale: float

    def laid(self, mapping: Affine, region: Region) -> NDArray[np.float32]:
        """The lines under a picture's ``region`` when ``mapping`` leads from its pixels to photo
        pixels; shape (height, width, 2)."""
        left, top, width, height = region
        onto = scaling(self.scale, self.scale).after(mapping)
        # OpenCV counts from pixel centres.
        x, y = onto(left + 0.5, top + 0.5)
        matrix = np.array([[onto.a, onto.b, x - 0.5], [onto.c, onto.d, y - 0.5]])
        return cv2.warpAffine(
            self.lines,
            matrix,
            (width, height),
            flags=cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP,
            borderMode=cv2.BORDER_REPLICATE,
        ).astype(np.float32, copy=False)


def bases_of(photo: AnyPicture, photo_width: int) -> Bases:
    """The bases of a photo of ``photo_width`` pixels across, from a copy of it of any size."""
    height, width = photo.shape[:2]
    shrink = min(1.0, WORKING_SIDE / max(width, height))
    sides = max(1, round(width * shrink)), max(1, round(height * shrink))
    linear = cv2.resize(to_linear(photo), sides, interpolation=cv2.INTER_AREA)
    luminance = linear[:, :, :3] @ np.array(LUMINANCE, np.float32)
    brightness = np.log2(np.maximum(luminance, DARKEST) / MIDDLE_GREY).astype(np.float32)
    window = 2 * max(1, round(RADIUS * max(sides))) + 1

    def mean(values: NDArray[np.float32]) -> NDArray[np.float32]:
        return cv2.blur(values, (window, window), borderType=cv2.BORDER_REFLECT).astype(np.float32)

    middle = mean(brightness)
    variance = np.maximum(mean(brightness * brightness) - middle * middle, np.float32(0))
    a = (variance / (variance + EDGE**2)).astype(np.float32)
    b = middle * (1 - a)
    lines = np.ascontiguousarray(np.dstack([mean(a), mean(b)]), np.float32)
    return Bases(lines, sides[0] / photo_width)
