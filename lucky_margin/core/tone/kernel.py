"""The fused pass: from 16 bits in encoded sRGB to 8 bits, one pixel after the other.

OKLab: B. Ottosson, "A perceptual color space for image processing" (2020).
"""

import math
from typing import NamedTuple

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling import srgb
from lucky_margin.core.sampling.kernels import dither, encoded, to_8_bits
from lucky_margin.core.tone.areas import BAND, ELLIPSE, LIGHT
from lucky_margin.core.tone.bases import DARKEST, MIDDLE_GREY
from lucky_margin.core.tone.blending import Rgb, blended
from lucky_margin.core.tone.curves import STEPS
from lucky_margin.core.tone.hues import HUE_STEPS
from lucky_margin.core.tone.washes import STEPS as WASH_STEPS
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
MIDDLE_ROOT = MIDDLE_GREY ** (1 / 3)

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


class Layers(NamedTuple):
    """Light and colour of the whole photo, first, and of each area; one row for each."""

    balance: Floats
    """The 3 x 3 matrices with exposure in them, shape (n, 9)."""
    local: Floats
    """Exposure (EV), shadows, highlights, clarity (-1..1), shape (n, 4)."""
    curves: Floats
    """Linear luminance by encoded, shape (n, STEPS + 1)."""
    has_curve: NDArray[np.bool_]
    colour: Floats
    """How OKLCH is needed (0 not, 1 without hue, 2 with it), saturation, vibrance (-1..1) and
    grey (0..1); shape (n, 4)."""
    by_hue: Floats
    """See ``hues.by_hue``; shape (n, HUE_STEPS + 1, 4)."""
    strength: Floats
    """Shape (n,), 0..1."""
    masks: Floats
    """See ``areas.mask_rows``; shape (m, MASK_FIELDS)."""
    lines: NDArray[np.float32]
    """The laid bases, shape (height, width, 2), or empty."""


Layer = tuple[Floats, Floats, Floats, bool, Floats, Floats]
"""The rows of one of the layers, from ``balance`` to ``by_hue``."""


class Overlays(NamedTuple):
    """What is mixed in encoded sRGB at the end."""

    tint: Floats
    """Recolouring's strength, dark and light, fading's strength and colour, and whether it fades
    to transparent; shape (12,), encoded (0..1)."""
    washes: Floats
    """See ``washes.wash_rows``."""
    colours: Floats
    """Theirs, shape (n, STEPS + 1, 3)."""


class Tables(NamedTuple):
    """The sRGB transfer function both ways."""

    decode: NDArray[np.float32]
    encode: NDArray[np.float32]


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def tone_pixels(
    picture: Picture16,
    tables: Tables,
    layers: Layers,
    overlays: Overlays,
    x_origin: int,
    y_origin: int,
) -> Picture8:
    """The toned picture, dithered to 8 bits. See ``lucky_margin.core.tone`` for the order."""
    height, width, channels = picture.shape
    out = np.empty((height, width, channels), np.uint8)
    kept = 1.0 - overlays.tint[7] * overlays.tint[11]
    whole = _layer(0, layers)
    for j in numba.prange(height):
        for i in range(width):
            x, y = x_origin + i, y_origin + j
            r, g, b = _toned(picture, j, i, x, y, tables, whole, layers, overlays)
            noise = dither(x, y)
            out[j, i, 0] = to_8_bits(255.0 * r, noise)
            out[j, i, 1] = to_8_bits(255.0 * g, noise)
            out[j, i, 2] = to_8_bits(255.0 * b, noise)
            if channels == 4:
                out[j, i, 3] = to_8_bits(picture[j, i, 3] / 257.0 * kept, noise)
    return out


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def tone_values(
    picture: Picture16, tables: Tables, layers: Layers, overlays: Overlays
) -> NDArray[np.float32]:
    """The colours of ``tone_pixels`` before they are dithered: encoded (0..1), shape
    (height, width, 3)."""
    height, width = picture.shape[:2]
    out = np.empty((height, width, 3), np.float32)
    whole = _layer(0, layers)
    for j in numba.prange(height):
        for i in range(width):
            r, g, b = _toned(picture, j, i, i, j, tables, whole, layers, overlays)
            out[j, i, 0], out[j, i, 1], out[j, i, 2] = r, g, b
    return out


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def area_shares(
    picture: Picture16, tables: Tables, layers: Layers, layer: int, x_origin: int, y_origin: int
) -> NDArray[np.float32]:
    """How much the area of ``layer`` counts at each pixel, its strength aside (0..1)."""
    height, width = picture.shape[:2]
    out = np.empty((height, width), np.float32)
    for j in numba.prange(height):
        for i in range(width):
            r, g, b = _light(picture, j, i, tables)
            base = _base(r, g, b, j, i, tables, layers)[0] if layers.lines.shape[0] else 0.0
            x, y = x_origin + i + 0.5, y_origin + j + 0.5
            out[j, i] = _masked(layer, x, y, r, g, b, base, tables, layers)
    return out


@numba.njit(error_model="numpy", inline="always")
def _layer(number: int, layers: Layers) -> Layer:
    """One layer's rows, taken out of the loop over pixels, where that costs."""
    return (
        layers.balance[number],
        layers.local[number],
        layers.curves[number],
        layers.has_curve[number],
        layers.colour[number],
        layers.by_hue[number],
    )


@numba.njit(inline="always")
def _light(picture: Picture16, j: int, i: int, tables: Tables) -> Rgb:
    decode = tables.decode
    return decode[picture[j, i, 0]], decode[picture[j, i, 1]], decode[picture[j, i, 2]]


@numba.njit(inline="always")
def _base(
    r: float, g: float, b: float, j: int, i: int, tables: Tables, layers: Layers
) -> tuple[float, float]:
    """The brightness of the region, and how far the pixel is above it, in EV."""
    own = _looked_up(EV_OF, encoded(_luminance(r, g, b), tables.encode))
    base = layers.lines[j, i, 0] * own + layers.lines[j, i, 1]
    return base, own - base


@numba.njit(error_model="numpy", inline="always")
def _toned(
    picture: Picture16,
    j: int,
    i: int,
    x: int,
    y: int,
    tables: Tables,
    whole: Layer,
    layers: Layers,
    overlays: Overlays,
) -> Rgb:
    """One pixel (column ``i``, row ``j``; ``x``, ``y`` in absolute picture pixels), encoded."""
    encode = tables.encode
    r0, g0, b0 = _light(picture, j, i, tables)
    base = detail = 0.0
    has_lines = layers.lines.shape[0] > 0
    if has_lines:
        base, detail = _base(r0, g0, b0, j, i, tables, layers)
    r, g, b, moved = _adjusted(r0, g0, b0, base, detail, has_lines, encode, whole)
    if layers.strength.shape[0] > 1:
        light = r0, g0, b0
        r, g, b = _with_areas(r, g, b, light, x, y, base, moved, detail, tables, layers)
    r, g, b = _in_gamut(r, g, b)
    r, g, b = encoded(r, encode), encoded(g, encode), encoded(b, encode)
    tint = overlays.tint
    if tint[0] > 0:
        grey = _luminance(r, g, b)
        r += tint[0] * (tint[1] + (tint[4] - tint[1]) * grey - r)
        g += tint[0] * (tint[2] + (tint[5] - tint[2]) * grey - g)
        b += tint[0] * (tint[3] + (tint[6] - tint[3]) * grey - b)
    for wash in range(overlays.washes.shape[0]):
        r, g, b = _washed(wash, x + 0.5, y + 0.5, r, g, b, overlays)
    if tint[7] > 0 and tint[11] == 0:
        r += tint[7] * (tint[8] - r)
        g += tint[7] * (tint[9] - g)
        b += tint[7] * (tint[10] - b)
    return r, g, b


@numba.njit(error_model="numpy")
def _with_areas(
    r: float,
    g: float,
    b: float,
    light: Rgb,
    x: int,
    y: int,
    base: float,
    moved: float,
    detail: float,
    tables: Tables,
    layers: Layers,
) -> Rgb:
    """Linear light after every area; ``light`` is the untouched pixel's, which masks look at."""
    has_lines = layers.lines.shape[0] > 0
    at = base + moved
    for number in range(1, layers.strength.shape[0]):
        share = layers.strength[number]
        share *= _masked(
            number, x + 0.5, y + 0.5, light[0], light[1], light[2], base, tables, layers
        )
        if share > 0.0:
            layer = _layer(number, layers)
            r1, g1, b1, moved = _adjusted(r, g, b, at, detail, has_lines, tables.encode, layer)
            r, g, b = r + share * (r1 - r), g + share * (g1 - g), b + share * (b1 - b)
            at += share * moved
    return r, g, b


@numba.njit(inline="always")
def _luminance(r: float, g: float, b: float) -> float:
    return 0.2126390059 * r + 0.7151686788 * g + 0.0721923154 * b


@numba.njit(error_model="numpy", inline="always")
def _adjusted(
    r0: float,
    g0: float,
    b0: float,
    base: float,
    detail: float,
    has_lines: bool,
    encode: NDArray[np.float32],
    layer: Layer,
) -> tuple[float, float, float, float]:
    """Linear light after one layer, and by how many EV the layer moved its region."""
    balance, local, curve, has_curve, colour, by_hue = layer
    r = balance[0] * r0 + balance[1] * g0 + balance[2] * b0
    g = balance[3] * r0 + balance[4] * g0 + balance[5] * b0
    b = balance[6] * r0 + balance[7] * g0 + balance[8] * b0
    moved = local[0]
    if has_lines:
        base += moved
        gain = SHADOW_EV * local[1] * _smooth(-base / SHADOW_DEPTH)
        gain += HIGHLIGHT_EV * local[2] * _smooth(base / WHITE_EV)
        moved += gain
        gain += CLARITY * local[3] * detail
        factor = np.exp(LN_2 * gain)
        r, g, b = r * factor, g * factor, b * factor
    if has_curve:
        y = _luminance(r, g, b)
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
    return r, g, b, moved


@numba.njit(error_model="numpy")
def _masked(
    layer: int,
    x: float,
    y: float,
    r: float,
    g: float,
    b: float,
    base: float,
    tables: Tables,
    layers: Layers,
) -> float:
    """What the masks of a layer let through at a pixel whose untouched light is given (0..1)."""
    share = 1.0
    masks = layers.masks
    for row in range(masks.shape[0]):
        mask = masks[row]
        if mask[0] != layer:
            continue
        u = mask[6] * x + mask[7] * y + mask[8]
        v = mask[9] * x + mask[10] * y + mask[11]
        if mask[1] == BAND:
            part = 1.0 - _smooth(u)
        elif mask[1] == ELLIPSE:
            part = _smooth((1.0 - np.sqrt(u * u + v * v)) / mask[3])
        elif mask[1] == LIGHT:
            # A region's lightness is the cube root of its luminance.
            light = MIDDLE_ROOT * np.exp(LN_2 * base / 3.0)
            part = _smooth((light - mask[3]) / mask[5] + 1.0)
            part *= _smooth((mask[4] - light) / mask[5] + 1.0)
        else:
            part = _of_hue(r, g, b, mask[3], mask[4], mask[5], tables.encode)
        share *= 1.0 - part if mask[2] > 0 else part
        if share <= 0.0:
            return 0.0
    return share


@numba.njit(error_model="numpy")
def _of_hue(
    r: float,
    g: float,
    b: float,
    hue: float,
    reach: float,
    fade: float,
    encode: NDArray[np.float32],
) -> float:
    """How much a colour is of a hue (radians): in full up to ``reach - fade`` from it."""
    l_ = _root(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b, encode)
    m_ = _root(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b, encode)
    s_ = _root(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b, encode)
    a = 1.9779984951 * l_ - 2.4285922050 * m_ + 0.4505937099 * s_
    bb = 0.0259040371 * l_ + 0.7827717662 * m_ - 0.8086757660 * s_
    away = abs(_angle(bb, a) - hue)
    away = min(away % (2.0 * np.pi), (-away) % (2.0 * np.pi))
    return _smooth((reach - away) / fade) * _smooth(np.sqrt(a * a + bb * bb) / WEAK_CHROMA)


@numba.njit(error_model="numpy")
def _washed(wash: int, x: float, y: float, r: float, g: float, b: float, overlays: Overlays) -> Rgb:
    """An encoded colour under one wash, laid atop by the W3C formula for an opaque backdrop."""
    row = overlays.washes[wash]
    t = row[4] * x + row[5] * y + row[6]
    if row[0] > 0:
        v = row[7] * x + row[8] * y + row[9]
        t = np.sqrt(t * t + v * v)
    t = min(max(t, 0.0), 1.0)
    off = 1.0 - t if row[0] > 0 else 2.0 * min(t, 1.0 - t)
    share = row[2] * (1.0 - _smooth(2.0 * (off - 1.5 * row[1] + 0.5)))
    if share <= 0.0:
        return r, g, b
    place = t * WASH_STEPS
    step = min(int(place), WASH_STEPS - 1)
    rest = place - step
    low, high = overlays.colours[wash, step], overlays.colours[wash, step + 1]
    source = (
        low[0] + (high[0] - low[0]) * rest,
        low[1] + (high[1] - low[1]) * rest,
        low[2] + (high[2] - low[2]) * rest,
    )
    r1, g1, b1 = blended(int(row[3]), (r, g, b), source)
    return r + share * (r1 - r), g + share * (g1 - g), b + share * (b1 - b)


@numba.njit(error_model="numpy")
def _in_gamut(r: float, g: float, b: float) -> Rgb:
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
) -> Rgb:
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
