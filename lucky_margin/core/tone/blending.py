"""Blend modes, compiled for one pixel.

W3C, "Compositing and Blending Level 1", chapter 10: ``b`` is the backdrop, ``s`` the source,
both encoded sRGB (0..1).
"""

from typing import get_args

import numba
import numpy as np

from lucky_margin.core.document import BlendMode

MODES: dict[BlendMode, int] = {mode: number for number, mode in enumerate(get_args(BlendMode))}
"""The number by which the compiled loop knows each mode."""

_DARKEN = MODES["darken"]
_MULTIPLY = MODES["multiply"]
_COLOR_BURN = MODES["color-burn"]
_LIGHTEN = MODES["lighten"]
_SCREEN = MODES["screen"]
_COLOR_DODGE = MODES["color-dodge"]
_OVERLAY = MODES["overlay"]
_SOFT_LIGHT = MODES["soft-light"]
_HARD_LIGHT = MODES["hard-light"]
_DIFFERENCE = MODES["difference"]
_EXCLUSION = MODES["exclusion"]
_HUE = MODES["hue"]
_SATURATION = MODES["saturation"]
_COLOR = MODES["color"]

Rgb = tuple[float, float, float]


@numba.njit(error_model="numpy")
def blended(mode: int, backdrop: Rgb, source: Rgb) -> Rgb:
    """The colour that ``source`` makes of ``backdrop``."""
    if mode == 0:
        return source
    if mode >= _HUE:
        return _by_parts(mode, backdrop, source)
    return (
        _by_channel(mode, backdrop[0], source[0]),
        _by_channel(mode, backdrop[1], source[1]),
        _by_channel(mode, backdrop[2], source[2]),
    )


@numba.njit(error_model="numpy")
def _by_channel(mode: int, b: float, s: float) -> float:  # noqa: C901  one case for each mode
    """The separable modes, section 10.1."""
    if mode == _DARKEN:
        return min(b, s)
    if mode == _MULTIPLY:
        return b * s
    if mode == _COLOR_BURN:
        if b >= 1.0:
            return 1.0
        return 0.0 if s <= 0.0 else 1.0 - min(1.0, (1.0 - b) / s)
    if mode == _LIGHTEN:
        return max(b, s)
    if mode == _SCREEN:
        return b + s - b * s
    if mode == _COLOR_DODGE:
        if b <= 0.0:
            return 0.0
        return 1.0 if s >= 1.0 else min(1.0, b / (1.0 - s))
    if mode == _OVERLAY:
        return _hard_light(s, b)
    if mode == _SOFT_LIGHT:
        return _soft_light(b, s)
    if mode == _HARD_LIGHT:
        return _hard_light(b, s)
    if mode == _DIFFERENCE:
        return abs(b - s)
    return b + s - 2.0 * b * s  # exclusion


@numba.njit(error_model="numpy")
def _hard_light(b: float, s: float) -> float:
    if s <= 0.5:
        return b * 2.0 * s
    s = 2.0 * s - 1.0
    return b + s - b * s


@numba.njit(error_model="numpy")
def _soft_light(b: float, s: float) -> float:
    if s <= 0.5:
        return b - (1.0 - 2.0 * s) * b * (1.0 - b)
    d = ((16.0 * b - 12.0) * b + 4.0) * b if b <= 0.25 else np.sqrt(b)
    return b + (2.0 * s - 1.0) * (d - b)


@numba.njit(error_model="numpy")
def _by_parts(mode: int, backdrop: Rgb, source: Rgb) -> Rgb:
    """The modes that take hue, saturation and luminosity from one or the other, section 10.2."""
    if mode == _HUE:
        return _set_lum(_set_sat(source, _sat(backdrop)), _lum(backdrop))
    if mode == _SATURATION:
        return _set_lum(_set_sat(backdrop, _sat(source)), _lum(backdrop))
    if mode == _COLOR:
        return _set_lum(source, _lum(backdrop))
    return _set_lum(backdrop, _lum(source))  # luminosity


@numba.njit(error_model="numpy")
def _lum(c: Rgb) -> float:
    return 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2]


@numba.njit(error_model="numpy")
def _sat(c: Rgb) -> float:
    return max(c[0], c[1], c[2]) - min(c[0], c[1], c[2])


@numba.njit(error_model="numpy")
def _set_lum(c: Rgb, lum: float) -> Rgb:
    """``c`` with another luminosity, clipped towards it where that leaves 0..1."""
    d = lum - _lum(c)
    r, g, b = c[0] + d, c[1] + d, c[2] + d
    low, high = min(r, g, b), max(r, g, b)
    if low < 0.0:
        share = lum / (lum - low)
        r, g, b = lum + (r - lum) * share, lum + (g - lum) * share, lum + (b - lum) * share
    if high > 1.0:
        share = (1.0 - lum) / (high - lum)
        r, g, b = lum + (r - lum) * share, lum + (g - lum) * share, lum + (b - lum) * share
    return r, g, b


@numba.njit(error_model="numpy")
def _set_sat(c: Rgb, sat: float) -> Rgb:
    """``c`` with its span stretched to ``sat``, from 0; greys have none."""
    low, span = min(c[0], c[1], c[2]), _sat(c)
    if span <= 0.0:
        return 0.0, 0.0, 0.0
    return (c[0] - low) * sat / span, (c[1] - low) * sat / span, (c[2] - low) * sat / span
