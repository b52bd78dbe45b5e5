"""Blend modes, compiled for rows of colours.

W3C, "Compositing and Blending Level 1", chapter 10: ``b`` is the backdrop, ``s`` the source,
both encoded sRGB (0..1).
"""

from collections.abc import Callable
from typing import get_args

import numba
import numpy as np

from lucky_margin.core.document import BlendMode
from lucky_margin.core.sampling.vector_maths import FAST, Row

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

Colours = tuple[Row, Row, Row]
Rgb = tuple[float, float, float]
Formula = Callable[[float, float], float]

_LEAST = 1e-9
"""Divided by at least."""


@numba.njit(error_model="numpy")
def blend(mode: int, backdrop: Colours, source: Colours) -> None:
    """``source``, changed in place to the colours that it makes of ``backdrop``."""
    if mode >= _HUE:
        _by_parts(mode, backdrop, source)
    elif mode > 0:
        for channel in range(3):
            _by_channel(mode, backdrop[channel], source[channel])


def _rows(formula: Formula) -> Callable[[Row, Row], None]:
    """A separable mode's formula (section 10.1), for whole rows."""
    each = numba.njit(inline="always", error_model="numpy", fastmath=FAST)(formula)

    @numba.njit(error_model="numpy", fastmath=FAST)
    def loop(backdrop: Row, source: Row) -> None:
        for i in range(source.size):
            source[i] = each(backdrop[i], source[i])

    return loop


def _burn(b: float, s: float) -> float:
    burnt = 1.0 - min(1.0, (1.0 - b) / max(s, _LEAST))
    return 1.0 if b >= 1.0 else burnt if s > 0.0 else 0.0


def _dodge(b: float, s: float) -> float:
    dodged = min(1.0, b / max(1.0 - s, _LEAST))
    return 0.0 if b <= 0.0 else dodged if s < 1.0 else 1.0


def _hard_light(b: float, s: float) -> float:
    t = 2.0 * s - 1.0
    return 2.0 * b * s if s <= 0.5 else b + t - b * t


def _soft_light(b: float, s: float) -> float:
    low = ((16.0 * b - 12.0) * b + 4.0) * b
    d = low if b <= 0.25 else np.sqrt(max(b, 0.0))
    share = 2.0 * s - 1.0
    return b + share * b * (1.0 - b) if s <= 0.5 else b + share * (d - b)


def _overlay(b: float, s: float) -> float:
    t = 2.0 * b - 1.0
    return 2.0 * s * b if b <= 0.5 else s + t - s * t


_darken = _rows(lambda b, s: min(b, s))
_multiply = _rows(lambda b, s: b * s)
_color_burn = _rows(_burn)
_lighten = _rows(lambda b, s: max(b, s))
_screen = _rows(lambda b, s: b + s - b * s)
_color_dodge = _rows(_dodge)
_overlaid = _rows(_overlay)
_softly_lit = _rows(_soft_light)
_hardly_lit = _rows(_hard_light)
_difference = _rows(lambda b, s: abs(b - s))
_exclusion = _rows(lambda b, s: b + s - 2.0 * b * s)


@numba.njit(error_model="numpy")
def _by_channel(mode: int, b: Row, s: Row) -> None:  # noqa: C901  one case for each mode
    if mode == _DARKEN:
        _darken(b, s)
    elif mode == _MULTIPLY:
        _multiply(b, s)
    elif mode == _COLOR_BURN:
        _color_burn(b, s)
    elif mode == _LIGHTEN:
        _lighten(b, s)
    elif mode == _SCREEN:
        _screen(b, s)
    elif mode == _COLOR_DODGE:
        _color_dodge(b, s)
    elif mode == _OVERLAY:
        _overlaid(b, s)
    elif mode == _SOFT_LIGHT:
        _softly_lit(b, s)
    elif mode == _HARD_LIGHT:
        _hardly_lit(b, s)
    elif mode == _DIFFERENCE:
        _difference(b, s)
    elif mode == _EXCLUSION:
        _exclusion(b, s)


@numba.njit(error_model="numpy", fastmath=FAST)
def _by_parts(mode: int, backdrop: Colours, source: Colours) -> None:
    """The modes that take hue, saturation and luminosity from one or the other, section 10.2."""
    r, g, b = source
    for i in range(r.size):
        under, over = (backdrop[0][i], backdrop[1][i], backdrop[2][i]), (r[i], g[i], b[i])
        if mode == _HUE:
            r[i], g[i], b[i] = _set_lum(_set_sat(over, _sat(under)), _lum(under))
        elif mode == _SATURATION:
            r[i], g[i], b[i] = _set_lum(_set_sat(under, _sat(over)), _lum(under))
        elif mode == _COLOR:
            r[i], g[i], b[i] = _set_lum(over, _lum(under))
        else:  # luminosity
            r[i], g[i], b[i] = _set_lum(under, _lum(over))


@numba.njit(error_model="numpy", fastmath=FAST)
def _lum(c: Rgb) -> float:
    return 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2]


@numba.njit(error_model="numpy", fastmath=FAST)
def _sat(c: Rgb) -> float:
    return max(c[0], c[1], c[2]) - min(c[0], c[1], c[2])


@numba.njit(error_model="numpy", fastmath=FAST)
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


@numba.njit(error_model="numpy", fastmath=FAST)
def _set_sat(c: Rgb, sat: float) -> Rgb:
    """``c`` with its span stretched to ``sat``, from 0; greys have none."""
    low, span = min(c[0], c[1], c[2]), _sat(c)
    if span <= 0.0:
        return 0.0, 0.0, 0.0
    return (c[0] - low) * sat / span, (c[1] - low) * sat / span, (c[2] - low) * sat / span
