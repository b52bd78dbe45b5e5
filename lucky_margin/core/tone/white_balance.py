"""White balance as a matrix of linear sRGB: adapting the photo from another white to D65.

Sources: B. Lindbloom, "Chromatic Adaptation" (the Bradford cone response); CIE 15:2004, the
daylight locus, section 3.1; D65 and the sRGB primaries from IEC 61966-2-1.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import rgb_of
from lucky_margin.core.sampling.srgb import decode

_SEARCH_STEPS = 11

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
MIREDS = 0.7
"""Reciprocal megakelvins to one step of temperature."""

DUV = 0.0003
"""Distance in CIE 1960 uv across the locus to one step of tint."""


def balance_matrix(temperature: float, tint: float) -> Matrix:
    """Linear sRGB to linear sRGB, shape (3, 3); the identity at zero.

    A positive ``temperature`` warms: the photo is taken to be lit by a bluer white than D65. A
    positive ``tint`` goes towards magenta.
    """
    if temperature == 0 and tint == 0:
        return np.eye(3)
    mireds = 1e6 / D65_KELVIN - MIREDS * temperature
    lit_by = _white(1e6 / mireds, DUV * tint)
    # Dividing by what the same steps give at zero makes the change relative to D65 itself.
    at_home = _white(D65_KELVIN, 0.0)
    gains = (BRADFORD @ at_home) / (BRADFORD @ lit_by)
    adapt = np.linalg.inv(BRADFORD) @ np.diag(gains) @ BRADFORD
    matrix: Matrix = np.linalg.inv(RGB_TO_XYZ) @ adapt @ RGB_TO_XYZ
    return matrix / float((matrix @ np.ones(3)) @ RGB_TO_XYZ[1])


@dataclass(frozen=True)
class Neutral:
    """Temperature and tint, in whole steps, and whether they make a colour grey."""

    temperature: float
    tint: float
    is_reached: bool


GREY_ENOUGH = 0.03
"""Largest minus smallest channel, of their mean in linear light, of what is seen as grey; one
step of temperature moves it by about 0.01."""


def neutral_settings(colour: str) -> Neutral:
    """The settings under which ``colour`` (``#RRGGBB``) comes nearest to grey; 0, 0 for black.

    A search from coarse to fine: the spread of the channels has one valley.
    """
    light = decode(np.array(rgb_of(colour)) / 255)
    if light.max() <= 0:
        return Neutral(0.0, 0.0, is_reached=True)
    best, reach = (0.0, 0.0), 100.0
    while reach >= 1:
        steps = np.linspace(-reach, reach, _SEARCH_STEPS)
        tried = [
            (float(np.clip(best[0] + dx, -100, 100)), float(np.clip(best[1] + dy, -100, 100)))
            for dx in steps
            for dy in steps
        ]
        best = min(tried, key=lambda settings: _spread(balance_matrix(*settings) @ light))
        reach /= 3
    temperature, tint = round(best[0]), round(best[1])
    left = _spread(balance_matrix(temperature, tint) @ light)
    return Neutral(temperature, tint, is_reached=left <= GREY_ENOUGH)


def _spread(light: Matrix) -> float:
    return float(np.ptp(light) / max(light.mean(), 1e-9))


def _white(kelvin: float, across: float) -> Matrix:
    """XYZ (Y = 1) of the daylight of a colour temperature, moved ``across`` the locus in uv,
    towards green."""
    x, y = _daylight(kelvin)
    u, v = _to_uv(x, y)
    x2, y2 = _daylight(kelvin * 1.01)
    u2, v2 = _to_uv(x2, y2)
    along = np.array([u2 - u, v2 - v])
    normal = np.array([-along[1], along[0]]) / np.linalg.norm(along)
    u, v = (u, v) - normal * across
    x, y = 3 * u / (2 * u - 8 * v + 4), 2 * v / (2 * u - 8 * v + 4)
    return np.array([x / y, 1.0, (1 - x - y) / y])


def _daylight(kelvin: float) -> tuple[float, float]:
    t = 1000 / kelvin
    if kelvin <= 7000:
        x = -4.6070 * t**3 + 2.9678 * t**2 + 0.09911 * t + 0.244063
    else:
        x = -2.0064 * t**3 + 1.9018 * t**2 + 0.24748 * t + 0.237040
    return x, -3.000 * x * x + 2.870 * x - 0.275


def _to_uv(x: float, y: float) -> tuple[float, float]:
    below = -2 * x + 12 * y + 3
    return 4 * x / below, 6 * y / below
