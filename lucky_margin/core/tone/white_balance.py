"""White balance as a matrix of linear sRGB: adapting the photo from another white to D65.

Sources: B. Lindbloom, "Chromatic Adaptation" (the Bradford cone response); CIE 15:2004, the
daylight locus, section 3.1; M. Krystek, "An algorithm to calculate correlated colour
temperature", Color Res. Appl. 10 (1985), the Planckian locus; D65 and the sRGB primaries from
IEC 61966-2-1.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import NEUTRAL_KELVIN, rgb_of
from lucky_margin.core.sampling.srgb import decode

Matrix = NDArray[np.float64]

RGB_TO_XYZ: Matrix = np.array(
    [
        [0.4123907993, 0.3575843394, 0.1804807884],
        [0.2126390059, 0.7151686788, 0.0721923154],
        [0.0193308187, 0.1191947798, 0.9505321522],
    ]
)
BRADFORD: Matrix = np.array(
    [[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]]
)

D65_KELVIN = 6504.0

LEAST_DAYLIGHT = 4000.0
"""Kelvin below which light is that of a glowing body; the daylight locus begins there."""

LEAST_KELVIN, MOST_KELVIN = 2500.0, 15_000.0

MOST_TINT = 100.0

_RECIPROCAL_STEP = 1e-8
"""How closely a warmth is found, in reciprocal kelvins: to 2 K at the coldest."""

DUV = 0.0003
"""Distance in CIE 1960 uv across the locus to one step of tint."""


def balance_matrix(warmth: float, tint: float) -> Matrix:
    """Linear sRGB to linear sRGB, shape (3, 3); the identity at ``NEUTRAL_KELVIN`` and 0.

    The photo is taken to be lit by daylight (or candle light) of ``warmth`` kelvin and adapted to
    D65, so a higher ``warmth`` makes it warmer; a positive ``tint`` goes towards magenta.
    """
    if warmth == NEUTRAL_KELVIN and tint == 0:
        return np.eye(3)
    lit_by = _white(warmth * D65_KELVIN / NEUTRAL_KELVIN, DUV * tint)
    # Dividing by what the same steps give at the neutral makes the change relative to D65 itself.
    at_home = _white(D65_KELVIN, 0.0)
    gains = (BRADFORD @ at_home) / (BRADFORD @ lit_by)
    adapt = np.linalg.inv(BRADFORD) @ np.diag(gains) @ BRADFORD
    matrix: Matrix = np.linalg.inv(RGB_TO_XYZ) @ adapt @ RGB_TO_XYZ
    return matrix / float((matrix @ np.ones(3)) @ RGB_TO_XYZ[1])


def warmth_moved(warmth: float, by: float, share: float) -> float:
    """``warmth`` moved on by a ``share`` of the way from neutral to ``by``, in kelvin. Ways are
    measured in reciprocal kelvins, in which equal steps look equal."""
    moved = 1 / warmth + share * (1 / by - 1 / NEUTRAL_KELVIN)
    return float(np.clip(1 / max(moved, 1e-9), LEAST_KELVIN, MOST_KELVIN))


@dataclass(frozen=True)
class Neutral:
    """Warmth in kelvin, in steps of 10, and tint in whole steps, and whether they make a colour
    grey."""

    warmth: float
    tint: float
    is_reached: bool


GREY_ENOUGH = 0.03
"""Largest minus smallest channel, of their mean in linear light, of what is seen as grey."""


def neutral_settings(colour: str) -> Neutral:
    """The settings under which ``colour`` (``#RRGGBB``) comes nearest to grey; neutral for black.

    A search from coarse to fine, in reciprocal kelvins: the spread of the channels has one valley.
    """
    light = decode(np.array(rgb_of(colour)) / 255)
    if light.max() <= 0:
        return Neutral(NEUTRAL_KELVIN, 0.0, is_reached=True)
    warmth, tint = neutral_settings_of(light)
    left = _spread(balance_matrix(warmth, tint) @ light)
    return Neutral(warmth, tint, is_reached=left <= GREY_ENOUGH)


def neutral_settings_of(light: Matrix) -> tuple[float, float]:
    """Warmth in kelvin, in steps of 10, and tint in whole steps, under which ``light`` (linear, not
    black) is grey, or as near to it as their ranges allow."""
    cones = BRADFORD @ RGB_TO_XYZ
    white = np.linalg.solve(
        BRADFORD, BRADFORD @ _white(D65_KELVIN, 0.0) * (cones @ light) / (cones @ np.ones(3))
    )
    wanted = _to_uv(*(white[:2] / white.sum()))
    low, high = 1 / MOST_KELVIN, 1 / LEAST_KELVIN
    while high - low > _RECIPROCAL_STEP:
        middle = (low + high) / 2
        here, along = _locus_and_way(D65_KELVIN / NEUTRAL_KELVIN / middle)
        if (wanted - here) @ along > 0:
            high = middle
        else:
            low = middle
    across = (wanted - here) @ np.array([along[1], -along[0]]) / DUV
    return float(round(1 / middle, -1)), float(round(np.clip(across, -MOST_TINT, MOST_TINT)))


def _spread(light: Matrix) -> float:
    return float(np.ptp(light) / max(light.mean(), 1e-9))


def _white(kelvin: float, across: float) -> Matrix:
    """XYZ (Y = 1) of light of a colour temperature, moved ``across`` the locus in uv, towards
    green."""
    here, along = _locus_and_way(kelvin)
    u, v = here + np.array([along[1], -along[0]]) * across
    x, y = 3 * u / (2 * u - 8 * v + 4), 2 * v / (2 * u - 8 * v + 4)
    return np.array([x / y, 1.0, (1 - x - y) / y])


def _locus_and_way(kelvin: float) -> tuple[Matrix, Matrix]:
    """``_locus``, and the way it goes on there, of length 1."""
    here = _locus(kelvin)
    along = _locus(kelvin * 1.01) - here
    return here, along / np.linalg.norm(along)


def _locus(kelvin: float) -> Matrix:
    """CIE 1960 uv of light of a colour temperature: daylight, and below it the light of a glowing
    body, moved over to where daylight begins."""
    if kelvin >= LEAST_DAYLIGHT:
        return _to_uv(*_daylight(kelvin))
    begins = _to_uv(*_daylight(LEAST_DAYLIGHT))
    return _glowing(kelvin) + begins - _glowing(LEAST_DAYLIGHT)


def _glowing(kelvin: float) -> Matrix:
    t = kelvin
    u = (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t * t) / (
        1 + 8.42420235e-4 * t + 7.08145163e-7 * t * t
    )
    v = (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t * t) / (
        1 - 2.89741816e-5 * t + 1.61456053e-7 * t * t
    )
    return np.array([u, v])


def _daylight(kelvin: float) -> tuple[float, float]:
    t = 1000 / kelvin
    if kelvin <= 7000:
        x = -4.6070 * t**3 + 2.9678 * t**2 + 0.09911 * t + 0.244063
    else:
        x = -2.0064 * t**3 + 1.9018 * t**2 + 0.24748 * t + 0.237040
    return x, -3.000 * x * x + 2.870 * x - 0.275


def _to_uv(x: float, y: float) -> Matrix:
    below = -2 * x + 12 * y + 3
    return np.array([4 * x / below, 6 * y / below])
