"""What happens to each hue: the eight bands as one smooth function of the OKLCH hue."""

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import HUE_NAMES, HueBands

HUE_STEPS = 720
"""Even steps round the hues, from -180 to 180 degrees."""

BAND_CENTERS = np.array([29.0, 60.0, 105.0, 142.0, 195.0, 260.0, 305.0, 345.0])
"""OKLCH hues of the bands, in degrees."""

HUE_REACH = np.radians(30)
"""How far a hue is turned at most."""

LIGHTNESS_REACH = 0.22
"""How far OKLab lightness is moved at most, for strong colours of middle lightness."""

SKIN_HUE, SKIN_REACH, SKIN_SPARED = 55.0, 32.0, 0.7
"""Where skin lies, how far around (degrees), and how much of vibrance it is spared there."""


def by_hue(bands: HueBands) -> NDArray[np.float64]:
    """Turn (radians), saturation (-1..1), lightness and what skin is spared, for every hue;
    shape (4, HUE_STEPS + 1).

    Between the centres of two bands one goes over into the other along a smooth step, so at any
    hue their shares add up to one.
    """
    hues = np.linspace(-180, 180, HUE_STEPS + 1)
    around = np.mod(hues - BAND_CENTERS[0], 360) + BAND_CENTERS[0]
    ends = np.append(BAND_CENTERS, BAND_CENTERS[0] + 360)
    first = np.clip(np.searchsorted(ends, around, side="right") - 1, 0, len(BAND_CENTERS) - 1)
    share = _smooth((around - ends[first]) / (ends[first + 1] - ends[first]))[:, None]
    named = [getattr(bands, name) for name in HUE_NAMES]
    amounts = np.array([[band.hue, band.saturation, band.lightness] for band in named]) / 100
    mixed = amounts[first] * (1 - share) + amounts[(first + 1) % len(named)] * share
    mixed *= (HUE_REACH, 1, LIGHTNESS_REACH)
    spared = SKIN_SPARED * _smooth(1 - np.abs(hues - SKIN_HUE) / SKIN_REACH)
    return np.vstack([mixed.T, spared])


def _smooth(t: NDArray[np.float64]) -> NDArray[np.float64]:
    t = np.clip(t, 0, 1)
    return t * t * (3 - 2 * t)
