"""Washes as the fused pass takes them.

A wash's colours go over into each other evenly in encoded sRGB. At a place ``t`` of a linear
wash (0 at its start, 1 at its end) the nearer end is ``d = 2 min(t, 1 - t)`` away, at a place of
a radial one the rim is ``d = 1 - t`` away; with a reach ``R`` (0..1) the wash counts
``1 - smooth(2 (d - (1.5 R - 0.5)))`` there: everywhere at 1, at its ends alone near 0.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core import oklab
from lucky_margin.core.document import Stop, Wash, rgb_of
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.tone.blending import MODES
from lucky_margin.core.tone.on_photo import OnPhoto

Floats = NDArray[np.float64]

STEPS = 256
"""Even steps along a wash at which its colour is laid down; read with linear interpolation."""

WASH_FIELDS = 10
"""Of a row: radial or not, reach, opacity, mode, and the six of its ``Affine``."""

RICHER, DEEPER = 0.9, 0.28
"""How much chroma a colour gains and lightness it loses at most, of its own."""


def wash_rows(washes: Sequence[Wash], on_photo: OnPhoto) -> tuple[Floats, Floats]:
    """One row of numbers for each wash that is set, shape (n, WASH_FIELDS), and their colours,
    shape (n, 3, STEPS + 1), encoded (0..1)."""
    drawn = [wash for wash in washes if wash.is_set]
    rows, colours = np.zeros((len(drawn), WASH_FIELDS)), np.zeros((len(drawn), 3, STEPS + 1))
    for row, table, wash in zip(rows, colours, drawn, strict=True):
        row[0], row[1] = wash.form == "radial", wash.reach / 100
        row[2], row[3] = wash.opacity / 100, MODES[wash.blend]
        place = on_photo.along(wash.start, wash.end)
        row[4:] = place.a, place.b, place.x0, place.c, place.d, place.y0
        table[:] = wash_colours(wash.stops).T
    return rows, colours


def wash_colours(stops: Sequence[Stop]) -> Floats:
    """The colours at even places, shape (STEPS + 1, 3), encoded (0..1)."""
    places = [stop.at for stop in stops]
    colours = np.array([stop_colour(stop) for stop in stops])
    even = np.linspace(0, 1, STEPS + 1)
    return np.column_stack([np.interp(even, places, channel) for channel in colours.T])


def stop_colour(stop: Stop) -> Floats:
    """A stop's colour, deepened and saturated in OKLCH, encoded (0..1)."""
    plain = np.array(rgb_of(stop.colour)) / 255
    if stop.richer == 0:
        return plain
    share = stop.richer / 100
    lab = oklab.from_light(decode(plain))
    lab *= (1 - DEEPER * share, 1 + RICHER * share, 1 + RICHER * share)
    return encode(oklab.into_gamut(lab))
