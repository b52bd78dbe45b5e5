"""Values that change slowly over a photo and yet follow its edges.

K. He and J. Sun, "Fast guided filter" (2015): at a small fixed size the values are fitted in
windows as a line of the photo's own brightness, ``a * I + b``; read at any resolution against the
pixel's brightness ``I``, the line keeps edges as sharp as the picture has them, so no halo
appears.
"""

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.sampling import shrunk, to_linear
from lucky_margin.core.types import AnyPicture, Region

WORKING_SIDE = 768
"""Longest side at which lines are fitted, in pixels."""

Plane = NDArray[np.float32]


@dataclass(frozen=True)
class GuidedLines:
    """``lines`` has shape (rows, columns, 2): ``a`` and ``b``; ``scale`` is its pixels to one
    photo pixel."""

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


def working_light(photo: AnyPicture) -> NDArray[np.float32]:
    """Linear light of a copy with sides of at most ``WORKING_SIDE``, shape (rows, columns, 3)."""
    height, width = photo.shape[:2]
    shrink = min(1.0, WORKING_SIDE / max(width, height))
    small = shrunk(photo, max(1, round(width * shrink)), max(1, round(height * shrink)))
    return np.ascontiguousarray(to_linear(small)[:, :, :3])


def fitted(guide: Plane, values: Plane, reach: float, edge: float) -> NDArray[np.float32]:
    """``values`` as lines of ``guide``, shape (rows, columns, 2).

    ``reach`` is half a window, of the long side; a guide whose standard deviation within a window
    is over ``edge`` is an edge there, which is kept.
    """
    window = 2 * max(1, round(reach * max(guide.shape))) + 1

    def mean(plane: Plane) -> Plane:
        return cv2.blur(plane, (window, window), borderType=cv2.BORDER_REFLECT).astype(np.float32)

    middle, level = mean(guide), mean(values)
    variance = np.maximum(mean(guide * guide) - middle * middle, np.float32(0))
    together = variance if guide is values else mean(guide * values) - middle * level
    a = (together / (variance + edge**2)).astype(np.float32)
    b = level - a * middle
    return np.ascontiguousarray(np.dstack([mean(a), mean(b)]), np.float32)
