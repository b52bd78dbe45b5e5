"""What happens to each hue: nine named ones as one smooth function of the OKLCH hue."""

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import HUE_NAMES, Hues

HUE_STEPS = 720
"""Even steps round the hues, from -180 to 180 degrees."""

HUE_CENTRES = 20.0 + 40.0 * np.arange(len(HUE_NAMES))
"""OKLCH hues of the named ones, in degrees: even steps, from red on."""

LIGHTNESS_REACH = 0.22
"""How far OKLab lightness is moved at most, for strong colours of middle lightness."""

SKIN_HUE, SKIN_REACH, SKIN_SPARED = 55.0, 32.0, 0.7
"""Where skin lies, how far around (degrees), and how much it is spared there of what strengthens
muted colours."""


def by_hue(hues: Hues) -> NDArray[np.float64]:
    """Turn (radians), strength (-1..1), lightness and what skin is spared, for every hue;
    shape (4, HUE_STEPS + 1).

    Between the centres of two hues one goes over into the other along a smooth step, so at any
    hue their shares add up to one.
    """
    degrees = np.linspace(-180, 180, HUE_STEPS + 1)
    mixed = _shares(degrees) @ _amounts(hues)
    spared = SKIN_SPARED * _smooth(1 - np.abs(degrees - SKIN_HUE) / SKIN_REACH)
    return np.vstack([mixed.T, spared])


def _shares(degrees: NDArray[np.float64]) -> NDArray[np.float64]:
    """How much each named hue counts at others, shape (degrees, hues); rows add up to one."""
    step = 360 / len(HUE_CENTRES)
    place = np.mod(degrees - HUE_CENTRES[0], 360) / step
    first = np.floor(place).astype(int) % len(HUE_CENTRES)
    share = _smooth(place - np.floor(place))
    shares = np.zeros((degrees.size, len(HUE_CENTRES)))
    rows = np.arange(degrees.size)
    shares[rows, first] = 1 - share
    shares[rows, (first + 1) % len(HUE_CENTRES)] += share
    return shares


def _amounts(hues: Hues) -> NDArray[np.float64]:
    """Turn in radians, strength and lightness of each named hue, shape (hues, 3)."""
    named = [getattr(hues, name) for name in HUE_NAMES]
    return np.array(
        [
            [np.radians(one.turn), one.strength / 100, LIGHTNESS_REACH * one.lightness / 100]
            for one in named
        ]
    )


def _smooth(t: NDArray[np.float64]) -> NDArray[np.float64]:
    t = np.clip(t, 0, 1)
    return t * t * (3 - 2 * t)
