"""Values that change slowly over a photo and yet follow its edges.

K. He and J. Sun, "Fast guided filter" (2015): at a small fixed size the values are fitted in
windows as a line of the photo's own brightness, ``a * I + b``; read at any resolution against the
pixel's brightness ``I``, the line keeps edges as sharp as the picture has them, so no halo
appears.
"""

from dataclasses import dataclass

import cv2
import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.arrays import read_only
from lucky_margin.core.sampling import shrunk, to_linear
from lucky_margin.core.sampling.vector_maths import FAST
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
        # From pixel centre to pixel centre.
        x0, y0 = onto(0.5, 0.5)
        out = np.empty((height, width, 2), np.float32)
        across, down = (onto.a, onto.b, x0 - 0.5), (onto.c, onto.d, y0 - 0.5)
        _read_between(read_only(self.lines), across, down, left, top, out)
        return out


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy", fastmath=FAST)
def _read_between(
    lines: NDArray[np.float32],
    across: tuple[float, float, float],
    down: tuple[float, float, float],
    left: int,
    top: int,
    out: NDArray[np.float32],
) -> None:
    """Fill ``out``, whose first pixel is that of column ``left`` and row ``top``, from places
    between the pixels of ``lines``. They depend on a pixel's own column and row alone, so that a
    part of a picture is what it is in the whole."""
    last_x, last_y = lines.shape[1] - 1, lines.shape[0] - 1
    for j in numba.prange(out.shape[0]):
        for i in range(out.shape[1]):
            x = across[0] * (left + i) + across[1] * (top + j) + across[2]
            y = down[0] * (left + i) + down[1] * (top + j) + down[2]
            x, y = min(max(x, 0.0), last_x), min(max(y, 0.0), last_y)
            x0, y0 = np.uint32(np.int32(x)), np.uint32(np.int32(y))
            x1, y1 = np.uint32(min(x0 + 1, last_x)), np.uint32(min(y0 + 1, last_y))
            from_left, from_top = np.float32(x - x0), np.float32(y - y0)
            for k in range(2):
                above = lines[y0, x0, k] + (lines[y0, x1, k] - lines[y0, x0, k]) * from_left
                below = lines[y1, x0, k] + (lines[y1, x1, k] - lines[y1, x0, k]) * from_left
                out[j, i, k] = above + (below - above) * from_top


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
