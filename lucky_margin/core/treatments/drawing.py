"""Drawings: lines where brightness changes within a line's width, and hatching in the dark.

Lines are what a blur of one width leaves over of a finer one (a difference of Gaussians, after
D. Marr and E. Hildreth, "Theory of edge detection", 1980), by how much darker a place is than its
surroundings, so that they are as strong in the dark as in the light.
"""

import math
from dataclasses import dataclass
from typing import Any

import cv2
import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import Drawing
from lucky_margin.core.noise import noise
from lucky_margin.core.treatments.inking import inked
from lucky_margin.core.treatments.poster import smoothed
from lucky_margin.core.treatments.working import Floats, Pixels, Plan, Working
from lucky_margin.core.types import Picture8

WIDER = 1.6
"""Of the two blurs, the wider one's deviation."""

FAINTEST, STRONGEST = 0.16, 0.004
"""How much darker a place must be to be drawn in full, at no and at all detail."""

UNDRAWN = 0.3
"""Of that, what is not drawn at all: the photo's own texture."""

CALMED = 1.5
"""How far, in deviations, small things are evened out before lines are looked for."""

HATCHES = ((math.radians(-52), 0.34), (math.radians(24), 0.6))
"""Which way lines of hatching run, and how dark (0..1) it is where they begin."""

SPACING = 3.2
"""Of two lines of hatching, in a line's widths."""

THINNEST, THICKEST = 0.1, 0.7
"""How much of its spacing a line of hatching covers where it begins, and where it is black."""

SHADES = 256
"""Steps of the table from how dark it is to the threshold of the hatching."""

WAVER = 0.3
"""Deviation of a line of hatching from its way, in spacings."""

_FLOOR = 0.06
"""Encoded brightness under which differences are not exaggerated any more."""


@dataclass(frozen=True, eq=False)
class Lines(Plan):
    """How much of each place is line (0..1), how dark its surroundings are (0..1), and pixels to a
    short side."""

    line: Floats
    dark: Floats
    per_short: float


def plan_drawing(drawing: Drawing, working: Working) -> Lines:
    """Where lines and shades are."""
    brightness = np.sqrt(working.luminance)  # close enough to how light it looks
    deviation = max(0.6, 0.5 * drawing.line * working.per_short)
    brightness = smoothed(brightness, CALMED * deviation)
    fine = cv2.GaussianBlur(brightness, (0, 0), deviation)
    wide = cv2.GaussianBlur(fine, (0, 0), deviation * np.sqrt(WIDER**2 - 1))
    darker = (wide - fine) / (wide + np.float32(_FLOOR))
    full = FAINTEST * (STRONGEST / FAINTEST) ** (drawing.detail / 100)
    wanted = darker / np.float32(full) - np.float32(UNDRAWN)
    line = _smooth(wanted) if drawing.medium == "ink" else np.clip(wanted / 2, 0, 1)
    around = cv2.GaussianBlur(brightness, (0, 0), 3 * deviation)
    return Lines(
        np.asarray(line, np.float32), 1 - np.asarray(around, np.float32), working.per_short
    )


def draw_drawing(drawing: Drawing, lines: Lines, _: Picture8, pixels: Pixels) -> Picture8:
    """The drawing over ``pixels``."""
    line, dark = pixels.laid(lines.line), pixels.laid(lines.dark)
    if drawing.medium == "ink":
        # As sharp at any scale as it was planned.
        sharper = max(1.0, 1 / (pixels.pixel * lines.per_short))
        line = np.clip((line - 0.5) * np.float32(sharper) + np.float32(0.5), 0, 1)
    ink = line if not drawing.shading else np.maximum(line, _hatching(drawing, dark, pixels))
    return inked(ink[:, :, None], drawing.ink, drawing.paper)


def _hatching(drawing: Drawing, dark: Floats, pixels: Pixels) -> Floats:
    """Lines one way in the half dark, and across them in the dark, the thicker the darker."""
    x, y = pixels.places
    spacing = SPACING * drawing.line
    waver = np.float32(WAVER) * noise(x, y, 12 * spacing, 31, pixels.pixel)
    tooth = np.float32(1)
    if drawing.medium == "pencil":
        tooth = np.clip(0.6 + 0.35 * noise(x, y, 0.8 * drawing.line, 37, pixels.pixel), 0, 1)
    hatch = np.empty(dark.shape, np.float32)
    is_ink = drawing.medium == "ink"
    # How soft an edge is, in the wave's own values.
    soft = 2 * math.pi * pixels.pixel / spacing * (1.0 if is_ink else 2.5)
    _hatch(
        read_only(dark),
        read_only(x),
        read_only(y),
        read_only(waver),
        np.array([(math.cos(turn), math.sin(turn), starts) for turn, starts in HATCHES]),
        np.cos(np.pi * np.linspace(THINNEST, THICKEST, SHADES)),
        1 / spacing,
        soft,
        hatch,
    )
    strength = np.float32((1.0 if is_ink else 0.8) * drawing.shading / 100)
    return np.asarray(hatch * tooth * strength, np.float32)


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _hatch(
    dark: Floats, x: Floats, y: Floats, waver: Floats, ways: NDArray[np.float64],
    thresholds: NDArray[np.float64], per_length: float, soft: float, hatch: Floats,
) -> None:  # fmt: skip
    """Lines are where a wave is over a threshold, which falls as it gets darker; ``ways`` are the
    cosine and sine of each hatching, and how dark it is where it begins."""
    rows, columns = dark.shape
    last = len(thresholds) - 1
    for v in numba.prange(rows):
        for u in range(columns):
            most = 0.0
            for number in range(len(ways)):
                starts = ways[number, 2]
                wanted = min((dark[v, u] - starts) / (1 - starts), 1.0)
                if wanted > 0:
                    across = (ways[number, 0] * y[v, u] - ways[number, 1] * x[v, u]) * per_length
                    wave = math.cos(2 * math.pi * (across + waver[v, u]))
                    threshold = thresholds[int(wanted * last + 0.5)]
                    shown = min(max((wave - threshold) / soft + 0.5, 0.0), 1.0)
                    most = max(most, shown * min(1.0, 6 * wanted))
            hatch[v, u] = most


def _smooth(values: NDArray[np.floating[Any]]) -> Floats:
    kept = np.clip(values, 0, 1)
    return np.asarray(kept * kept * (3 - 2 * kept), np.float32)


def warm_up() -> None:
    """Compile the loop, or load it from disk."""
    flat = np.zeros((1, 1), np.float32)
    pixels = Pixels((0, 0, 1, 1), 1, 1, 1.0, 1.0)
    draw_drawing(Drawing(), Lines(flat, flat, 1.0), np.zeros((1, 1, 3), np.uint8), pixels)
