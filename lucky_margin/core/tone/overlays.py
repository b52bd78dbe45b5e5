"""What is mixed into encoded sRGB at the end, row by row: recolouring, washes, fading."""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.vector_maths import FAST, Row
from lucky_margin.core.tone.blending import blend
from lucky_margin.core.tone.rows import highest, look_up, luminance, mix, smooth
from lucky_margin.core.tone.washes import STEPS


@numba.njit(error_model="numpy", fastmath=FAST)
def tint(dark: Row, light: Row, strength: float, r: Row, g: Row, b: Row) -> None:
    """Towards one colour of the dark and one of the light, by how bright each pixel is."""
    r0, g0, b0 = dark[0], dark[1], dark[2]
    r1, g1, b1 = light[0] - r0, light[1] - g0, light[2] - b0
    for i in range(r.size):
        grey = luminance(r[i], g[i], b[i])
        r[i] += strength * (r0 + r1 * grey - r[i])
        g[i] += strength * (g0 + g1 * grey - g[i])
        b[i] += strength * (b0 + b1 * grey - b[i])


@numba.njit(error_model="numpy", fastmath=FAST)
def fade(amount: float, colour: Row, r: Row, g: Row, b: Row) -> None:
    """Mix rows of encoded colours with one colour, ``amount`` (0..1) of it, in place."""
    r1, g1, b1 = colour[0], colour[1], colour[2]
    for i in range(r.size):
        r[i] += amount * (r1 - r[i])
        g[i] += amount * (g1 - g[i])
        b[i] += amount * (b1 - b[i])


@numba.njit(error_model="numpy", fastmath=FAST)
def wash(
    row: Row, colours: NDArray[np.float64], x: float, y: float, place: Row, share: Row,
    source: tuple[Row, Row, Row], r: Row, g: Row, b: Row,
) -> None:  # fmt: skip
    """Pixels from ``x``, ``y`` (centres) on under one wash, laid atop by the W3C formula for an
    opaque backdrop; ``row`` is of ``washes.wash_rows``, ``colours`` of shape (3, STEPS + 1)."""
    _places(row, x, y, place, share)
    if highest(share) <= 0.0:
        return
    for channel in range(3):
        look_up(colours[channel], place, source[channel])
    blend(int(row[3]), (r, g, b), source)
    mix(share, source[0], r)
    mix(share, source[1], g)
    mix(share, source[2], b)


@numba.njit(error_model="numpy", fastmath=FAST)
def _places(row: Row, x: float, y: float, place: Row, share: Row) -> None:
    """Where pixels lie along a wash, in steps, and how much it counts there."""
    is_radial, reach, opacity = row[0] > 0, row[1], row[2]
    t_step, t_start = row[4], row[4] * x + row[5] * y + row[6]
    v_step, v_start = row[7], row[7] * x + row[8] * y + row[9]
    for i in range(place.size):
        t, v = t_start + t_step * i, v_start + v_step * i
        t = np.sqrt(t * t + v * v) if is_radial else t
        t = min(max(t, 0.0), 1.0)
        off = 1.0 - t if is_radial else 2.0 * min(t, 1.0 - t)
        place[i] = STEPS * t
        share[i] = opacity * (1.0 - smooth(2.0 * (off - 1.5 * reach + 0.5)))
