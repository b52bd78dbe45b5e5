"""Slow functions without branches or tables, of which the compiler makes vector code in loops.

Exponent and mantissa are taken from the bits of a single float (IEEE 754), the rest from short
series, below 1e-6 off, far under the last rounding. Twice as many singles as doubles are worked on
at a time; so all numbers here are singles, since one double makes doubles of the others.
"""

from typing import Any

import numba
import numpy as np
from numpy.typing import NDArray

Row = NDArray[np.floating[Any]]
"""Numbers beside each other, one-dimensional; singles where it has to be quick."""

Number = np.floating[Any]
"""One of them."""

FAST = {"contract", "reassoc", "nsz", "nnan", "ninf"}
"""What LLVM may assume of the numbers: neither infinite nor undefined, and sums may be put in
another order. Not that reciprocals will do: it estimates those of singles, but in vector code
alone, and a pixel must not depend on whether it lies in a line's last, odd ones."""


def singles(*numbers: float) -> tuple[np.float32, ...]:
    """Constants that leave singles singles."""
    return tuple(np.float32(number) for number in numbers)


ZERO, HALF, ONE, TWO, THREE = singles(0, 0.5, 1, 2, 3)
TINY = np.float32(1e-30)
BITS_OF_ONE = np.int32(127 << 23)
"""An exponent of 0, biased."""

_BIAS, _FRACTION_BITS = np.int32(127), np.int32(23)
_FRACTION = np.int32((1 << 23) - 1)
_ROOT_OF_2 = np.float32(2**0.5)
_LN_2, _TWICE_LOG2_E = singles(np.log(2), 2 / np.log(2))
_TANGENT = singles(1 / 3, 1 / 5, 1 / 7)
_POWERS = singles(1 / 6, 1 / 24, 1 / 120, 1 / 720)
_LINEAR_TO, _SLOPE, _SCALE, _EXPONENT = singles(0.0031308, 12.92, 1.055, 1 / 2.4)


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def log2(x: Number) -> Number:
    """For ``x`` over 0, by the series of the area tangent about 1."""
    bits = np.float32(x).view(np.int32)
    mantissa = np.int32((bits & _FRACTION) | BITS_OF_ONE).view(np.float32)
    above = mantissa > _ROOT_OF_2
    mantissa = HALF * mantissa if above else mantissa
    exponent = np.float32(np.int32((bits >> _FRACTION_BITS) - _BIAS)) + (ONE if above else ZERO)
    s = (mantissa - ONE) / (mantissa + ONE)
    q = s * s
    series = ONE + q * (_TANGENT[0] + q * (_TANGENT[1] + q * _TANGENT[2]))
    return exponent + _TWICE_LOG2_E * s * series


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def exp2(x: Number) -> Number:
    """For ``x`` of -100 to 100."""
    power = np.float32(x)
    whole = np.floor(power + HALF)
    t = _LN_2 * (power - whole)
    series = _POWERS[0] + t * (_POWERS[1] + t * (_POWERS[2] + t * _POWERS[3]))
    part = ONE + t * (ONE + t * (HALF + t * series))
    return part * np.int32((np.int32(whole) + _BIAS) << _FRACTION_BITS).view(np.float32)


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def encoded(light: Number) -> Number:
    """sRGB encoding (0..1) of linear light, clipped to 0..1: IEC 61966-2-1."""
    clipped = min(max(np.float32(light), ZERO), ONE)
    # Written so that white is 1 to the last bit.
    bent = ONE + _SCALE * (exp2(log2(clipped + TINY) * _EXPONENT) - ONE)
    return _SLOPE * clipped if clipped <= _LINEAR_TO else bent


@numba.njit(error_model="numpy", fastmath=FAST)
def encode(row: Row) -> None:
    """sRGB-encode a row of light (IEC 61966-2-1), in place."""
    for i in range(row.size):
        row[i] = encoded(row[i])
