"""Slow functions without branches or tables, of which the compiler makes vector code in loops.

Exponent and mantissa are taken from the bits of a double (IEEE 754), the rest from short series,
below 1e-6 off, far under the last rounding.
"""

import numba
import numpy as np
from numpy.typing import NDArray

Row = NDArray[np.float64]
"""Numbers beside each other, one-dimensional."""

FAST = {"contract", "reassoc", "arcp", "nsz", "nnan", "ninf"}
"""What LLVM may assume of the numbers: neither infinite nor undefined, and sums may be put in
another order."""

TINY = 1e-30
ONE = 1023 << 52
"""The bits of 1.0: an exponent of 0, biased."""

_LN_2 = float(np.log(2))
_MANTISSA = (1 << 52) - 1


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def log2(x: float) -> float:
    """For ``x`` over 0, by the series of the area tangent about 1."""
    bits = np.float64(x).view(np.int64)
    mantissa = np.int64((bits & _MANTISSA) | ONE).view(np.float64)
    above = mantissa > 1.4142135623730951
    mantissa = 0.5 * mantissa if above else mantissa
    exponent = (bits >> 52) - 1023 + (1 if above else 0)
    s = (mantissa - 1.0) / (mantissa + 1.0)
    q = s * s
    series = 1.0 + q * (1 / 3 + q * (1 / 5 + q * (1 / 7 + q * (1 / 9))))
    return exponent + 2.0 / _LN_2 * s * series


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def exp2(x: float) -> float:
    """For ``x`` of -1000 to 1000."""
    whole = np.floor(x + 0.5)
    t = _LN_2 * (x - whole)
    series = 1 / 6 + t * (1 / 24 + t * (1 / 120 + t * (1 / 720)))
    part = 1.0 + t * (1.0 + t * (0.5 + t * series))
    return part * np.int64((np.int64(whole) + 1023) << 52).view(np.float64)


@numba.njit(inline="always", error_model="numpy", fastmath=FAST)
def encoded(light: float) -> float:
    """sRGB encoding (0..1) of linear light, clipped to 0..1: IEC 61966-2-1."""
    light = min(max(light, 0.0), 1.0)
    # Written so that white is 1 to the last bit.
    bent = 1.0 + 1.055 * (exp2(log2(light + TINY) / 2.4) - 1.0)
    return 12.92 * light if light <= 0.0031308 else bent


@numba.njit(error_model="numpy", fastmath=FAST)
def encode(row: Row) -> None:
    """sRGB-encode a row of light (IEC 61966-2-1), in place."""
    for i in range(row.size):
        row[i] = encoded(row[i])
