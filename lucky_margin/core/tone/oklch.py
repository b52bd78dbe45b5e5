"""Saturation, muted_colours, hue hues and grey: steps on rows of colours, in OKLCH.

OKLab: B. Ottosson, "A perceptual color space for image processing" (2020).
"""

from typing import NamedTuple

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.vector_maths import FAST, Row
from lucky_margin.core.tone.hues import HUE_STEPS
from lucky_margin.core.tone.rows import angle, cube_root, look_up

WEAK_CHROMA = 0.04
"""Colours weaker than this count less in a band, so that greys have no hue."""

STRONG_CHROMA = 0.25
"""Colours as strong as this gain nothing from muted_colours."""

BY_STRENGTH, BY_SKIN, BY_BANDS = 1.0, 2.0, 3.0
"""How much of OKLCH a change needs: chroma alone; the hue too, to spare skin; the hues."""


class ColourRows(NamedTuple):
    """Scratch rows."""

    chroma: Row
    hue: Row
    """Places among the hue tables' steps."""
    factor: Row
    read: Row
    """What was looked up."""


@numba.njit(error_model="numpy", fastmath=FAST)
def apply_colour(
    r: Row, g: Row, b: Row, colour: Row, by_hue: NDArray[np.float64], scratch: ColourRows
) -> None:
    """Linear light with a layer's ``colour`` and ``by_hue`` (see ``kernel.Layers``)."""
    to_lab(r, g, b)
    plain = (1.0 + colour[1]) * (1.0 - colour[3])
    chroma, hue, factor, read = scratch.chroma, scratch.hue, scratch.factor, scratch.read
    for i in range(factor.size):
        factor[i] = plain
    if colour[0] > BY_STRENGTH:
        _measure(g, b, chroma, hue)
        look_up(by_hue[3], hue, read)
        _vibrant(colour[2], read, chroma, factor)
    if colour[0] > BY_SKIN:
        look_up(by_hue[1], hue, read)
        _strengthen(read, chroma, factor)
        look_up(by_hue[2], hue, read)
        _lighten(read, chroma, r)
        look_up(by_hue[0], hue, read)
        _turn(read, g, b)
    _from_lab(r, g, b, factor)


@numba.njit(error_model="numpy", fastmath=FAST)
def to_lab(r: Row, g: Row, b: Row) -> None:
    """Linear light to lightness and the two opponent axes."""
    for i in range(r.size):
        red, green, blue = r[i], g[i], b[i]
        l_ = cube_root(0.4122214708 * red + 0.5363325363 * green + 0.0514459929 * blue)
        m_ = cube_root(0.2119034982 * red + 0.6806995451 * green + 0.1073969566 * blue)
        s_ = cube_root(0.0883024619 * red + 0.2817188376 * green + 0.6299787005 * blue)
        r[i] = 0.2104542553 * l_ + 0.7936177850 * m_ - 0.0040720468 * s_
        g[i] = 1.9779984951 * l_ - 2.4285922050 * m_ + 0.4505937099 * s_
        b[i] = 0.0259040371 * l_ + 0.7827717662 * m_ - 0.8086757660 * s_


@numba.njit(error_model="numpy", fastmath=FAST)
def _from_lab(light: Row, a: Row, b: Row, factor: Row) -> None:
    """The inverse, with the chroma times ``factor``."""
    for i in range(light.size):
        lightness, across, down = light[i], a[i] * factor[i], b[i] * factor[i]
        l_ = lightness + 0.3963377774 * across + 0.2158037573 * down
        m_ = lightness - 0.1055613458 * across - 0.0638541728 * down
        s_ = lightness - 0.0894841775 * across - 1.2914855480 * down
        l_, m_, s_ = l_ * l_ * l_, m_ * m_ * m_, s_ * s_ * s_
        light[i] = 4.0767416621 * l_ - 3.3077115913 * m_ + 0.2309699292 * s_
        a[i] = -1.2684380046 * l_ + 2.6097574011 * m_ - 0.3413193965 * s_
        b[i] = -0.0041960863 * l_ - 0.7034186147 * m_ + 1.7076147010 * s_


@numba.njit(error_model="numpy", fastmath=FAST)
def _measure(a: Row, b: Row, chroma: Row, hue: Row) -> None:
    for i in range(a.size):
        chroma[i] = np.sqrt(a[i] * a[i] + b[i] * b[i])
        hue[i] = (angle(b[i], a[i]) + np.pi) * (HUE_STEPS / (2.0 * np.pi))


@numba.njit(error_model="numpy", fastmath=FAST)
def _vibrant(muted_colours: float, spared: Row, chroma: Row, factor: Row) -> None:
    """More strength for weak colours, less of it for skin; less strength for all alike."""
    for i in range(factor.size):
        weak = 1.0 - min(chroma[i] / STRONG_CHROMA, 1.0) if muted_colours > 0.0 else 1.0
        factor[i] *= 1.0 + muted_colours * weak * (1.0 - spared[i])


@numba.njit(error_model="numpy", fastmath=FAST)
def _strengthen(more: Row, chroma: Row, factor: Row) -> None:
    for i in range(factor.size):
        factor[i] *= 1.0 + more[i] * chroma[i] / (chroma[i] + WEAK_CHROMA)


@numba.njit(error_model="numpy", fastmath=FAST)
def _lighten(lift: Row, chroma: Row, light: Row) -> None:
    for i in range(light.size):
        # Black and white have no room to be lightened, and near them there is little.
        room = max(4.0 * light[i] * (1.0 - light[i]), 0.0)
        light[i] += lift[i] * room * chroma[i] / (chroma[i] + WEAK_CHROMA)


@numba.njit(error_model="numpy", fastmath=FAST)
def _turn(by: Row, a: Row, b: Row) -> None:
    """By series of cosine and sine, for at most ``hues.HUE_REACH``."""
    for i in range(by.size):
        turn = by[i]
        t = turn * turn
        cos = 1.0 - t * (1 / 2 - t * (1 / 24 - t * (1 / 720)))
        sin = turn * (1.0 - t * (1 / 6 - t * (1 / 120 - t * (1 / 5040))))
        across, down = a[i], b[i]
        a[i], b[i] = across * cos - down * sin, across * sin + down * cos
