"""C. Lanczos' kernel of three lobes, kept from ringing.

Of the kernels that were measured (three lobes of Lanczos, two and three of Kaiser, cubics) this
keeps the most of fine contrast, and the same of it wherever a pixel falls between those of the
photo. What it overshoots beside an edge is taken off again: a value stays between its two
neighbours along the line, and the mean of what it covers, unless both slopes beyond rise above
them or fall below, as they do at the crest of a fine pattern but not on the flat beside an edge.
"""

from functools import lru_cache
from typing import NamedTuple

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.vector_maths import FAST
from lucky_margin.core.types import AnyPicture

LOBES = 3

PHASES = 512
"""Places between two photo pixels that are told apart."""

Light = NDArray[np.float32]
"""Linear light of pixels, premultiplied where they have alpha; the channels are one axis of it."""


class Taps(NamedTuple):
    """What photo pixels weigh at each of ``PHASES + 1`` places between two of them."""

    weights: NDArray[np.float32]
    """Shape (PHASES + 1, n), n even: the middle two are the neighbours."""
    covered: NDArray[np.float32]
    """Shape (PHASES + 1, 4): what the pixel covers of the four in the middle; sums to 1."""


@lru_cache
def taps_for(step: float) -> Taps:
    """For ``step`` (over 0) photo pixels to one output pixel."""
    wide = max(1.0, step)
    half = int(np.ceil(LOBES * wide))
    between = np.linspace(0, 1, PHASES + 1)[:, None]
    off = (np.arange(1 - half, half + 1) - between) / wide
    weights = np.where(np.abs(off) < LOBES, np.sinc(off) * np.sinc(off / LOBES), 0)
    weights /= weights.sum(axis=1, keepdims=True)
    middle = np.arange(-1, 3) - between
    covered = np.clip(
        np.minimum(middle + 0.5, wide / 2) - np.maximum(middle - 0.5, -wide / 2), 0, None
    )
    covered /= covered.sum(axis=1, keepdims=True)
    return Taps(weights.astype(np.float32), covered.astype(np.float32))


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def limited(
    value: np.float32,
    p: np.float32,
    q: np.float32,
    r: np.float32,
    s: np.float32,
    covered: NDArray[np.float32],
) -> np.float32:
    """``value`` within what the neighbours ``q`` and ``r``, and the slopes beyond them to ``p`` and
    ``s``, allow."""
    mean = covered[0] * p + covered[1] * q + covered[2] * r + covered[3] * s
    crest = max(min(q - p, r - s), np.float32(0))
    hollow = max(min(p - q, s - r), np.float32(0))
    least, most = min(q, r, mean) - hollow, max(q, r, mean) + crest
    return min(max(value, least), most)


@numba.njit(error_model="numpy", fastmath=FAST)
def light_of(line: AnyPicture, left: int, decode: NDArray[np.float32], light: Light) -> None:
    """A line's pixels from column ``left`` on, as ``light`` of shape (columns, channels); past its
    ends the last go on."""
    last, top = line.shape[0] - 1, np.float32(decode.shape[0] - 1)
    if line.shape[1] == 3:
        for i in range(light.shape[0]):
            pixel = line[min(max(left + i, 0), last)]
            light[i, 0] = decode[pixel[0]]
            light[i, 1] = decode[pixel[1]]
            light[i, 2] = decode[pixel[2]]
        return
    for i in range(light.shape[0]):
        pixel = line[min(max(left + i, 0), last)]
        share = pixel[3] / top
        light[i, 0] = share * decode[pixel[0]]
        light[i, 1] = share * decode[pixel[1]]
        light[i, 2] = share * decode[pixel[2]]
        light[i, 3] = share
