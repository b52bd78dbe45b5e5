"""What the masks of areas let through, row by row. Their numbers come from ``areas``."""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.vector_maths import FAST, Row, exp2
from lucky_margin.core.tone.areas import BAND, ELLIPSE, LIGHT
from lucky_margin.core.tone.bases import MIDDLE_GREY
from lucky_margin.core.tone.oklch import WEAK_CHROMA, to_lab
from lucky_margin.core.tone.rows import angle, copy, smooth

_MIDDLE_ROOT = MIDDLE_GREY ** (1 / 3)


@numba.njit(error_model="numpy", fastmath=FAST)
def let_through(
    mask: Row, x: float, y: float, light: tuple[Row, Row, Row], base: Row,
    scratch: tuple[Row, Row, Row], part: Row,
) -> None:  # fmt: skip
    """What one mask, of any kind but the subject, lets through of pixels from ``x``, ``y``
    (centres) on.

    ``light`` is their untouched linear light, ``base`` the brightness of their regions (EV).
    """
    if mask[1] == BAND:
        _band(mask, x, y, part)
    elif mask[1] == ELLIPSE:
        _ellipse(mask, x, y, part)
    elif mask[1] == LIGHT:
        _lightness(mask, base, part)
    else:
        for channel in range(3):
            copy(light[channel], scratch[channel])
        to_lab(scratch[0], scratch[1], scratch[2])
        _hue(mask, scratch[1], scratch[2], part)


@numba.njit(error_model="numpy", fastmath=FAST)
def covered(plane: NDArray[np.float32], start: int, part: Row) -> None:
    """What the subject covers of pixels from ``start`` on, in one line of its plane."""
    for i in range(part.size):
        part[i] = plane[np.uint32(start + i)]


@numba.njit(error_model="numpy", fastmath=FAST)
def narrow(part: Row, inverted: bool, share: Row) -> None:
    """``share`` times what a mask lets through, or what it does not."""
    for i in range(share.size):
        share[i] *= 1.0 - part[i] if inverted else part[i]


@numba.njit(error_model="numpy", fastmath=FAST)
def _band(mask: Row, x: float, y: float, part: Row) -> None:
    step, start = mask[6], mask[6] * x + mask[7] * y + mask[8]
    for i in range(part.size):
        part[i] = 1.0 - smooth(start + step * i)


@numba.njit(error_model="numpy", fastmath=FAST)
def _ellipse(mask: Row, x: float, y: float, part: Row) -> None:
    softness = mask[3]
    u_step, u_start = mask[6], mask[6] * x + mask[7] * y + mask[8]
    v_step, v_start = mask[9], mask[9] * x + mask[10] * y + mask[11]
    for i in range(part.size):
        u, v = u_start + u_step * i, v_start + v_step * i
        part[i] = smooth((1.0 - np.sqrt(u * u + v * v)) / softness)


@numba.njit(error_model="numpy", fastmath=FAST)
def _lightness(mask: Row, base: Row, part: Row) -> None:
    low, high, fade = mask[3], mask[4], mask[5]
    for i in range(part.size):
        # A region's lightness is the cube root of its luminance.
        lightness = _MIDDLE_ROOT * exp2(base[i] / 3.0)
        inside = smooth((lightness - low) / fade + 1.0)
        part[i] = inside * smooth((high - lightness) / fade + 1.0)


@numba.njit(error_model="numpy", fastmath=FAST)
def _hue(mask: Row, a: Row, b: Row, part: Row) -> None:
    """How much colours are of a hue (radians): in full up to ``reach - fade`` from it."""
    hue, reach, fade = mask[3], mask[4], mask[5]
    turn = 2.0 * np.pi
    for i in range(part.size):
        away = (angle(b[i], a[i]) - hue) / turn
        away = turn * abs(away - np.floor(away + 0.5))
        chroma = np.sqrt(a[i] * a[i] + b[i] * b[i])
        part[i] = smooth((reach - away) / fade) * smooth(chroma / WEAK_CHROMA)
