"""Haze: the veil of scattered light over a photo, taken off or laid on.

A veiled photo is ``I = J t + A (1 - t)`` in linear light: what is there, ``J``, comes through by
the share ``t``, and the air adds its own light ``A``. Near any place of a clear photo something
has hardly any light in one of its channels; what is found there is the veil (K. He, J. Sun and
X. Tang, "Single image haze removal using dark channel prior", CVPR 2009). Its share ``1 - t``
follows the photo's edges (``guided``), read against encoded brightness.
"""

import cv2
import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.sampling.lines import store_at_16_bits
from lucky_margin.core.sampling.srgb import decode_table, encode
from lucky_margin.core.sampling.vector_maths import FAST, Row, encoded
from lucky_margin.core.tone.bases import LUMINANCE
from lucky_margin.core.tone.guided import GuidedLines, Plane, fitted, working_light
from lucky_margin.core.tone.rows import into_gamut, luminance
from lucky_margin.core.types import AnyPicture, Picture16

VERSION = 2
"""Of the veil; raised whenever the same photo gives another."""

NEAR = 1 / 40
"""Of the long side: how near something dark is expected."""

REACH, EDGE = 1 / 16, 0.03
"""Half a window of the long side, and the encoded brightness that is an edge."""

AIR_SHARE = 0.005
"""Of the photo: its most veiled part, whose light is the air's."""

LEAST_AIR = 0.75
"""Luminance that the air has at least, in linear light: the most veiled part is seldom air
alone."""

TAKEN, LEAST_THROUGH = 0.95, 0.1
"""How much of the veil is taken off at most, so that distance is still felt, and the share of
what is there that is never taken to be less."""

LAID_ON = 0.6
"""How much of the light is the air's when haze is added in full."""

Light = NDArray[np.float32]


def air_of(photo: AnyPicture) -> NDArray[np.float64]:
    """The air's light, shape (3,), linear, from a copy of the photo of any size."""
    light = working_light(photo)
    dark = _darkest_near(light).ravel()
    count = max(1, round(AIR_SHARE * dark.size))
    air = light.reshape(-1, 3)[np.argsort(dark, kind="stable")[-count:]].mean(axis=0)
    air = np.maximum(air.astype(np.float64), 1e-3)
    lit: NDArray[np.float64] = air * max(1.0, LEAST_AIR / float(air @ LUMINANCE))
    return np.minimum(lit, 1.0)


def veil_of(photo: AnyPicture, air: NDArray[np.float64], photo_width: int) -> GuidedLines:
    """How much of a photo's light is the air's (``1 - t``, 0..1), as lines of a pixel's encoded
    brightness; the photo is ``photo_width`` pixels across, and ``photo`` a copy of any size."""
    light = working_light(photo)
    luminances = np.clip(light @ np.array(LUMINANCE, np.float32), 0, 1).astype(np.float64)
    lines = fitted(encode(luminances).astype(np.float32), veil_shares(light, air), REACH, EDGE)
    return GuidedLines(lines, lines.shape[1] / photo_width)


def veil_shares(light: Light, air: NDArray[np.float64]) -> Plane:
    """The darkest of the channels near each pixel, as a share of the air's (0..1)."""
    of_air: Light = np.divide(light, air, dtype=np.float32)
    return np.minimum(_darkest_near(of_air), np.float32(1))


def _darkest_near(light: Light) -> Plane:
    side = 2 * max(1, round(NEAR * max(light.shape[:2]))) + 1
    square = np.ones((side, side), np.uint8)
    return cv2.erode(light.min(axis=2), square).astype(np.float32, copy=False)


def with_haze(
    picture: Picture16, haze: float, air: NDArray[np.float64], lines: NDArray[np.float32]
) -> Picture16:
    """``picture`` with its veil taken off (``haze`` up to 100) or one laid on (down to -100).

    ``lines`` are those of ``veil_of`` laid under the picture, shape (height, width, 2).
    """
    out = picture.copy()
    decode = decode_table(np.dtype(np.uint16))
    _change_veil(read_only(picture), decode, haze / 100, read_only(air), read_only(lines), out)
    return out


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def _change_veil(
    picture: Picture16,
    decode: NDArray[np.float32],
    amount: float,
    air: Row,
    lines: NDArray[np.float32],
    out: Picture16,
) -> None:
    height, width = picture.shape[:2]
    for j in numba.prange(height):
        r, g, b = np.empty((3, width), np.float32)
        for i in range(width):
            r[i] = decode[picture[j, i, 0]]
            g[i] = decode[picture[j, i, 1]]
            b[i] = decode[picture[j, i, 2]]
        _through_air(amount, air, lines[j], r, g, b)
        into_gamut(r, g, b)
        for i in range(width):
            r[i], g[i], b[i] = encoded(r[i]), encoded(g[i]), encoded(b[i])
        store_at_16_bits(r, g, b, out[j])


@numba.njit(error_model="numpy", fastmath=FAST)
def _through_air(
    amount: float, air: Row, lines: NDArray[np.float32], r: Row, g: Row, b: Row
) -> None:
    for i in range(r.size):
        bright = encoded(luminance(r[i], g[i], b[i]))
        veil = min(max(lines[i, 0] * bright + lines[i, 1], 0.0), 1.0)
        through = max(1.0 - TAKEN * amount * veil, LEAST_THROUGH)
        factor = 1.0 / through if amount > 0.0 else 1.0 + LAID_ON * amount
        r[i] = air[0] + (r[i] - air[0]) * factor
        g[i] = air[1] + (g[i] - air[1]) * factor
        b[i] = air[2] + (b[i] - air[2]) * factor
