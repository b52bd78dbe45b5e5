"""OKLab, a perceptual colour space: lightness 0..1 and two opponent axes around 0.

B. Ottosson, "A perceptual color space for image processing" (2020). Arrays end in an axis of
three; light is linear sRGB.
"""

import cv2
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

LIGHT_TO_LMS: Floats = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
ROOTS_TO_LAB: Floats = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)


def from_light(light: Floats) -> Floats:
    """OKLab (lightness 0..1, a, b) of linear sRGB, channels last."""
    lab: Floats = np.cbrt(light @ LIGHT_TO_LMS.T) @ ROOTS_TO_LAB.T
    return lab


def picture_from_light(light: NDArray[np.float32]) -> NDArray[np.float32]:
    """``from_light`` for a whole picture, shape (rows, columns, 3): in single precision."""
    roots = np.cbrt(np.maximum(cv2.transform(light, LIGHT_TO_LMS), 0))
    return np.asarray(cv2.transform(roots, ROOTS_TO_LAB), np.float32)


def to_light(lab: Floats) -> Floats:
    """Linear sRGB, which lies outside 0..1 for colours that sRGB does not have."""
    roots: Floats = lab @ np.linalg.inv(ROOTS_TO_LAB).T
    return roots**3 @ np.linalg.inv(LIGHT_TO_LMS).T


def into_gamut(lab: Floats) -> Floats:
    """The linear sRGB (0..1) of one colour, shape (3,), at the same lightness and hue with as
    much of its chroma as sRGB has; found by bisection."""
    if _fits(to_light(lab)):
        return np.clip(to_light(lab), 0, 1)
    low, high = 0.0, 1.0
    for _ in range(_STEPS):
        middle = (low + high) / 2
        fits = _fits(to_light(lab * (1, middle, middle)))
        low, high = (middle, high) if fits else (low, middle)
    return np.clip(to_light(lab * (1, low, low)), 0, 1)


_STEPS = 24
_ROUNDING = 1e-6


def _fits(light: Floats) -> bool:
    return bool(light.min() >= -_ROUNDING and light.max() <= 1 + _ROUNDING)
