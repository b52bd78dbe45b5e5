"""Saturation, muted_colours, hue hues and grey: steps on rows of colours, in OKLCH.

OKLab: B. Ottosson, "A perceptual color space for image processing" (2020).
"""

from typing import NamedTuple

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.oklab import LIGHT_TO_LMS, ROOTS_TO_LAB
from lucky_margin.core.sampling.vector_maths import FAST, ONE, ZERO, Number, Row, singles
from lucky_margin.core.tone.hues import HUE_STEPS
from lucky_margin.core.tone.rows import angle, cube_root, look_up

WEAK_CHROMA = np.float32(0.04)
"""Colours weaker than this count less in a band, so that greys have no hue."""

STRONG_CHROMA = np.float32(0.25)
"""Colours as strong as this gain nothing from muted_colours."""

BY_STRENGTH, BY_SKIN, BY_BANDS = 1.0, 2.0, 3.0
"""How much of OKLCH a change needs: chroma alone; the hue too, to spare skin; the hues."""

_LONG, _MIDDLE, _SHORT = (singles(*row) for row in LIGHT_TO_LMS)
_LIGHTNESS, _GREEN_RED, _BLUE_YELLOW = (singles(*row) for row in ROOTS_TO_LAB)
_LONG_ROOT, _MIDDLE_ROOT, _SHORT_ROOT = (singles(*row) for row in np.linalg.inv(ROOTS_TO_LAB))
_RED, _GREEN, _BLUE = (singles(*row) for row in np.linalg.inv(LIGHT_TO_LMS))
_PI, _HUE_STEPS_PER_RADIAN, _FOUR = singles(np.pi, HUE_STEPS / (2 * np.pi), 4)
_COSINE, _SINE = singles(1 / 2, 1 / 24, 1 / 720), singles(1 / 6, 1 / 120, 1 / 5040)


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
    plain = (ONE + colour[1]) * (ONE - colour[3])
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
        l_ = cube_root(_sum(_LONG, red, green, blue))
        m_ = cube_root(_sum(_MIDDLE, red, green, blue))
        s_ = cube_root(_sum(_SHORT, red, green, blue))
        r[i] = _sum(_LIGHTNESS, l_, m_, s_)
        g[i] = _sum(_GREEN_RED, l_, m_, s_)
        b[i] = _sum(_BLUE_YELLOW, l_, m_, s_)


@numba.njit(error_model="numpy", fastmath=FAST)
def _from_lab(light: Row, a: Row, b: Row, factor: Row) -> None:
    """The inverse, with the chroma times ``factor``."""
    for i in range(light.size):
        lightness, across, down = light[i], a[i] * factor[i], b[i] * factor[i]
        l_ = _sum(_LONG_ROOT, lightness, across, down)
        m_ = _sum(_MIDDLE_ROOT, lightness, across, down)
        s_ = _sum(_SHORT_ROOT, lightness, across, down)
        l_, m_, s_ = l_ * l_ * l_, m_ * m_ * m_, s_ * s_ * s_
        light[i] = _sum(_RED, l_, m_, s_)
        a[i] = _sum(_GREEN, l_, m_, s_)
        b[i] = _sum(_BLUE, l_, m_, s_)


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def _sum(factors: tuple[np.float32, ...], x: Number, y: Number, z: Number) -> Number:
    return factors[0] * x + factors[1] * y + factors[2] * z


@numba.njit(error_model="numpy", fastmath=FAST)
def _measure(a: Row, b: Row, chroma: Row, hue: Row) -> None:
    for i in range(a.size):
        chroma[i] = np.sqrt(a[i] * a[i] + b[i] * b[i])
        hue[i] = (angle(b[i], a[i]) + _PI) * _HUE_STEPS_PER_RADIAN


@numba.njit(error_model="numpy", fastmath=FAST)
def _vibrant(muted_colours: float, spared: Row, chroma: Row, factor: Row) -> None:
    """More strength for weak colours, less of it for skin; less strength for all alike."""
    for i in range(factor.size):
        weak = ONE - min(chroma[i] / STRONG_CHROMA, ONE) if muted_colours > ZERO else ONE
        factor[i] *= ONE + muted_colours * weak * (ONE - spared[i])


@numba.njit(error_model="numpy", fastmath=FAST)
def _strengthen(more: Row, chroma: Row, factor: Row) -> None:
    for i in range(factor.size):
        factor[i] *= ONE + more[i] * chroma[i] / (chroma[i] + WEAK_CHROMA)


@numba.njit(error_model="numpy", fastmath=FAST)
def _lighten(lift: Row, chroma: Row, light: Row) -> None:
    for i in range(light.size):
        # Black and white have no room to be lightened, and near them there is little.
        room = max(_FOUR * light[i] * (ONE - light[i]), ZERO)
        light[i] += lift[i] * room * chroma[i] / (chroma[i] + WEAK_CHROMA)


@numba.njit(error_model="numpy", fastmath=FAST)
def _turn(by: Row, a: Row, b: Row) -> None:
    """By series of cosine and sine, for at most ``hues.HUE_REACH``."""
    for i in range(by.size):
        turn = by[i]
        t = turn * turn
        cos = ONE - t * (_COSINE[0] - t * (_COSINE[1] - t * _COSINE[2]))
        sin = turn * (ONE - t * (_SINE[0] - t * (_SINE[1] - t * _SINE[2])))
        across, down = a[i], b[i]
        a[i], b[i] = across * cos - down * sin, across * sin + down * cos
