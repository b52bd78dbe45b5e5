"""The fused pass: from 16 bits in encoded sRGB to 8 bits, one pixel after the other.

OKLab: B. Ottosson, "A perceptual color space for image processing" (2020).
"""

import math

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling import srgb
from lucky_margin.core.sampling.kernels import dither, encoded, to_8_bits
from lucky_margin.core.tone.bases import DARKEST, MIDDLE_GREY
from lucky_margin.core.tone.curves import STEPS
from lucky_margin.core.tone.hues import HUE_STEPS
from lucky_margin.core.types import Picture8, Picture16

Floats = NDArray[np.float64]

SHADOW_EV, HIGHLIGHT_EV = 1.8, 1.2
"""The most that shadows and highlights move a region."""

SHADOW_DEPTH = 4.0
"""EV below mid-grey at which shadows act in full."""

WHITE_EV = 2.4739
"""How far white lies above mid-grey: log2(1 / 0.18)."""

CLARITY = 0.8
WEAK_CHROMA = 0.04
"""Colours weaker than this count less in a band, so that greys have no hue."""

STRONG_CHROMA = 0.25
DARK = 1e-6
LN_2 = math.log(2)

TABLE = 4096
"""Even steps of encoded value in the tables below, which replace slow functions of light."""

_LIGHT = srgb.decode(np.arange(TABLE + 2) / TABLE)
EV_OF = np.log2(np.maximum(_LIGHT, DARKEST) / MIDDLE_GREY)
"""Brightness in EV from mid-grey."""

ROOT_OF = np.cbrt(_LIGHT)


@numba.njit(inline="always")
def _looked_up(table: Floats, code: float) -> float:
    """``table`` at an encoded value (0..1), with linear interpolation."""
    place = code * TABLE
    step = int(place)
    return table[step] + (table[step + 1] - table[step]) * (place - step)


@numba.njit(inline="always")
def _root(light: float, encode: NDArray[np.float32]) -> float:
    """The cube root of linear light."""
    if light < 0.0 or light > 1.0:
        return np.cbrt(light)
    return _looked_up(ROOT_OF, encoded(light, encode))


@numba.njit(error_model="numpy")
def _angle(y: float, x: float) -> float:
    """``atan2`` to 0.0004 radians, by a polynomial on the first octant (Abramowitz and Stegun,
    "Handbook of Mathematical Functions", 4.4.49, shortened)."""
    ax, ay = abs(x), abs(y)
    a = min(ax, ay) / max(max(ax, ay), 1e-12)
    s = a * a
    angle = ((-0.0464964749 * s + 0.15931422) * s - 0.327622764) * s * a + a
    if ay > ax:
        angle = 0.5 * np.pi - angle
    if x < 0.0:
        angle = np.pi - angle
    return -angle if y < 0.0 else angle


@numba.njit(inline="always")
def _smooth(t: float) -> float:
    t = min(max(t, 0.0), 1.0)
    return t * t * (3.0 - 2.0 * t)


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def tone_pixels(
    picture: Picture16,
    decode: NDArray[np.float32],
    encode: NDArray[np.float32],
    balance: Floats,
    local: Floats,
    lines: NDArray[np.float32],
    curve: Floats,
    colour: Floats,
    by_hue: Floats,
    tint: Floats,
    x_origin: int,
    y_origin: int,
) -> Picture8:
    """See ``lucky_margin.core.tone`` for the order.

    ``balance`` is the 3 x 3 matrix with exposure in it; ``local`` exposure (EV), shadows,
    highlights, clarity (-1..1); ``lines`` the laid bases, or empty; ``curve`` linear luminance
    by encoded, or empty; ``colour`` how OKLCH is needed (0 not, 1 without hue, 2 with it),
    saturation, vibrance (-1..1) and grey (0..1); ``by_hue`` see ``hues.by_hue``; ``tint``
    recolouring's strength, dark and light, fading's strength and colour, and whether it fades to
    transparent (encoded, 0..1).
    """
    height, width, channels = picture.shape
    out = np.empty((height, width, channels), np.uint8)
    has_lines, has_curve = lines.shape[0] > 0, curve.shape[0] > 0
    for j in numba.prange(height):
        for i in range(width):
            r0 = decode[picture[j, i, 0]]
            g0 = decode[picture[j, i, 1]]
            b0 = decode[picture[j, i, 2]]
            r = balance[0] * r0 + balance[1] * g0 + balance[2] * b0
            g = balance[3] * r0 + balance[4] * g0 + balance[5] * b0
            b = balance[6] * r0 + balance[7] * g0 + balance[8] * b0
            if has_lines:
                light = 0.2126390059 * r0 + 0.7151686788 * g0 + 0.0721923154 * b0
                own = _looked_up(EV_OF, encoded(light, encode))
                base = lines[j, i, 0] * own + lines[j, i, 1]
                detail = own - base
                base += local[0]
                gain = SHADOW_EV * local[1] * _smooth(-base / SHADOW_DEPTH)
                gain += HIGHLIGHT_EV * local[2] * _smooth(base / WHITE_EV)
                gain += CLARITY * local[3] * detail
                factor = np.exp(LN_2 * gain)
                r, g, b = r * factor, g * factor, b * factor
            if has_curve:
                y = 0.2126390059 * r + 0.7151686788 * g + 0.0721923154 * b
                place = encoded(y, encode) * STEPS
                step = min(int(place), STEPS - 1)
                wanted = curve[step] + (curve[step + 1] - curve[step]) * (place - step)
                if y > DARK:
                    factor = wanted / y
                    r, g, b = r * factor, g * factor, b * factor
                else:
                    r, g, b = wanted, wanted, wanted
            if colour[0] > 0:
                r, g, b = _coloured(r, g, b, encode, colour, by_hue)
            r, g, b = _in_gamut(r, g, b)
            r, g, b = encoded(r, encode), encoded(g, encode), encoded(b, encode)
            if tint[0] > 0:
                light = 0.2126390059 * r + 0.7151686788 * g + 0.0721923154 * b
                r += tint[0] * (tint[1] + (tint[4] - tint[1]) * light - r)
                g += tint[0] * (tint[2] + (tint[5] - tint[2]) * light - g)
                b += tint[0] * (tint[3] + (tint[6] - tint[3]) * light - b)
            if tint[7] > 0 and tint[11] == 0:
                r += tint[7] * (tint[8] - r)
                g += tint[7] * (tint[9] - g)
                b += tint[7] * (tint[10] - b)
            noise = dither(x_origin + i, y_origin + j)
            out[j, i, 0] = to_8_bits(255.0 * r, noise)
            out[j, i, 1] = to_8_bits(255.0 * g, noise)
            out[j, i, 2] = to_8_bits(255.0 * b, noise)
            if channels == 4:
                kept = 1.0 - tint[7] * tint[11]
                out[j, i, 3] = to_8_bits(picture[j, i, 3] / 257.0 * kept, noise)
    return out


@numba.njit(error_model="numpy")
def _in_gamut(r: float, g: float, b: float) -> tuple[float, float, float]:
    """Towards the grey of the same luminance, by as little as brings all three into 0..1.

    What is inside stays as it is, and what is hardly outside hardly moves.
    """
    high, low = max(r, g, b), min(r, g, b)
    if high <= 1.0 and low >= 0.0:
        return r, g, b
    y = min(max(0.2126390059 * r + 0.7151686788 * g + 0.0721923154 * b, 0.0), 1.0)
    share = 1.0
    if high > 1.0:
        share = min(share, (1.0 - y) / max(high - y, DARK))
    if low < 0.0:
        share = min(share, y / max(y - low, DARK))
    return y + share * (r - y), y + share * (g - y), y + share * (b - y)


@numba.njit(error_model="numpy")
def _coloured(
    r: float,
    g: float,
    b: float,
    encode: NDArray[np.float32],
    colour: Floats,
    by_hue: Floats,
) -> tuple[float, float, float]:
    """Saturation, vibrance, hue bands and grey, in OKLCH."""
    l_ = _root(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b, encode)
    m_ = _root(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b, encode)
    s_ = _root(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b, encode)
    light = 0.2104542553 * l_ + 0.7936177850 * m_ - 0.0040720468 * s_
    a = 1.9779984951 * l_ - 2.4285922050 * m_ + 0.4505937099 * s_
    bb = 0.0259040371 * l_ + 0.7827717662 * m_ - 0.8086757660 * s_
    factor = (1.0 + colour[1]) * (1.0 - colour[3])
    if colour[0] > 1:
        chroma = np.sqrt(a * a + bb * bb)
        hue = _angle(bb, a)
        weight = chroma / (chroma + WEAK_CHROMA)
        place = (hue + np.pi) * (HUE_STEPS / (2.0 * np.pi))
        step = min(max(int(place), 0), HUE_STEPS - 1)
        share = place - step
        turn = by_hue[step, 0] + (by_hue[step + 1, 0] - by_hue[step, 0]) * share
        more = by_hue[step, 1] + (by_hue[step + 1, 1] - by_hue[step, 1]) * share
        lift = by_hue[step, 2] + (by_hue[step + 1, 2] - by_hue[step, 2]) * share
        spared = by_hue[step, 3] + (by_hue[step + 1, 3] - by_hue[step, 3]) * share
        weak = 1.0 - min(chroma / STRONG_CHROMA, 1.0) if colour[2] > 0 else 1.0
        factor *= (1.0 + colour[2] * weak * (1.0 - spared)) * (1.0 + more * weight)
        # Black and white have no room to be lightened, and near them there is little.
        room = 4.0 * light * (1.0 - light) if 0.0 < light < 1.0 else 0.0
        light += lift * weight * room
        if turn != 0.0:
            cos, sin = np.cos(turn), np.sin(turn)
            a, bb = a * cos - bb * sin, a * sin + bb * cos
    a, bb = a * factor, bb * factor
    l_ = light + 0.3963377774 * a + 0.2158037573 * bb
    m_ = light - 0.1055613458 * a - 0.0638541728 * bb
    s_ = light - 0.0894841775 * a - 1.2914855480 * bb
    l_, m_, s_ = l_ * l_ * l_, m_ * m_ * m_, s_ * s_ * s_
    return (
        4.0767416621 * l_ - 3.3077115913 * m_ + 0.2309699292 * s_,
        -1.2684380046 * l_ + 2.6097574011 * m_ - 0.3413193965 * s_,
        -0.0041960863 * l_ - 0.7034186147 * m_ + 1.7076147010 * s_,
    )
