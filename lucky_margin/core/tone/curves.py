"""One curve of luminance from black point, white point, contrast and the user's own curve."""

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Tone
from lucky_margin.core.sampling.srgb import decode, encode

STEPS = 4096
"""Even steps of encoded luminance; read with linear interpolation."""

MID_GREY = float(encode(np.array(0.18)))
"""Encoded: what contrast turns about."""

CONTRAST_OCTAVES = 0.8
"""The slope at mid-grey at full contrast, as a power of two."""

END_REACH = 0.2
"""How far black is lifted or white lowered at most, of encoded brightness."""

STRETCH = 2.0
"""How much stronger the ends stretch at full amount than they lift: at -100, what is darker than
0.27 becomes black, at 100 what is lighter than 0.73 white."""

Curve = NDArray[np.float64]


def luminance_curve(tone: Tone) -> Curve | None:
    """Linear luminance out for ``STEPS + 1`` even steps of encoded luminance in (0..1).

    None when it changes nothing. Rises everywhere when the user's own points do.
    """
    e = np.linspace(0, 1, STEPS + 1)
    bent = np.clip(ends_moved(e, tone.black_point, tone.white_point), 0, 1)
    bent = contrasted(bent, tone.contrast)
    bent = _through(tone, bent)
    if np.array_equal(bent, e):
        return None
    return decode(bent)


def curve_line(tone: Tone, steps: int) -> Curve:
    """The user's own curve at ``steps + 1`` even places: encoded brightness out, 0..1."""
    return _through(tone, np.linspace(0, 1, steps + 1))


def _reach(amount: float) -> float:
    """How far an end moves outwards (positive stretches), of encoded brightness."""
    return END_REACH * amount * (1 + STRETCH * max(amount, 0.0))


def end_places(tone: Tone) -> tuple[float, float]:
    """The encoded brightness (0..1) from which on pixels become black, and white; 0 and 1 where
    the ends do not stretch."""
    steps = np.linspace(0, 1, STEPS + 1)
    bent = ends_moved(steps, tone.black_point, tone.white_point)
    return float(steps[bent <= 0].max(initial=0)), float(steps[bent >= 1].min(initial=1))


def ends_moved(e: Curve, black_point: float, white_point: float) -> Curve:
    """Encoded brightness ``e`` under the end points (-100..100); what they stretch goes past 0
    and 1. Slopes stay above 1 - 3 * END_REACH, so brightness order is kept."""
    white, black = _reach(white_point / 100), -_reach(-black_point / 100)
    return e + white * e**3 + black * (1 - e) ** 3


def contrasted(e: Curve, contrast: float) -> Curve:
    """Encoded brightness under ``contrast`` (-100..100): two powers that meet at mid-grey with the
    same slope, and keep black and white."""
    if contrast == 0:
        return e
    slope = 2 ** (CONTRAST_OCTAVES * contrast / 100)
    below = MID_GREY * (e / MID_GREY) ** slope
    above = 1 - (1 - MID_GREY) * (np.maximum(1 - e, 0) / (1 - MID_GREY)) ** slope
    return np.where(e < MID_GREY, below, above)


def _through(tone: Tone, e: Curve) -> Curve:
    """A monotone cubic through the curve's points (F. Fritsch and R. Carlson, "Monotone
    piecewise cubic interpolation", SIAM J. Numer. Anal. 17, 1980); level past its ends."""
    x = np.array([point.x for point in tone.curve])
    y = np.array([point.y for point in tone.curve])
    if np.array_equal(x, y) and x[0] == 0 and x[-1] == 1:
        return e
    gaps, slopes = np.diff(x), np.diff(y) / np.diff(x)
    tangents = np.concatenate([slopes[:1], (slopes[:-1] + slopes[1:]) / 2, slopes[-1:]])
    turns = np.concatenate([[False], slopes[:-1] * slopes[1:] <= 0, [False]])
    tangents[turns] = 0
    for gap, slope in enumerate(slopes):
        if slope == 0:
            tangents[gap : gap + 2] = 0
            continue
        length = np.hypot(*(tangents[gap : gap + 2] / slope))
        if length > 3:
            tangents[gap : gap + 2] *= 3 / length
    inside = np.clip(e, x[0], x[-1])
    k = np.clip(np.searchsorted(x, inside, side="right") - 1, 0, len(gaps) - 1)
    t = (inside - x[k]) / gaps[k]
    passed: Curve = np.clip(
        (2 * t**3 - 3 * t**2 + 1) * y[k]
        + (t**3 - 2 * t**2 + t) * gaps[k] * tangents[k]
        + (3 * t**2 - 2 * t**3) * y[k + 1]
        + (t**3 - t**2) * gaps[k] * tangents[k + 1],
        0,
        1,
    )
    return passed
