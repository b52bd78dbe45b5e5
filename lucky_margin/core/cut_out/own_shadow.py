"""The soft shadow that the subject throws in the photo itself."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.blurring import blurred
from lucky_margin.core.filling import filled
from lucky_margin.core.types import Mask

Floats = NDArray[np.float32]

LUMA = np.array([0.299, 0.587, 0.114], np.float32)
"""Of encoded sRGB (ITU-R BT.601)."""

FIT_SIDE = 160
"""Longest side at which the ground is fitted, in pixels."""

ROUNDS = 12
"""How often what lies below the ground's fit is left out of the next one."""

NOISE = 2.5
"""Standard deviations of the lit ground's grain that are no shadow."""

LEAST_DARK = 0.012
"""Darker than the lit ground by so much, at least, is shadow."""

GRAIN = 2.0
"""Blur of the photo before it is compared, in pixels."""

RIM = 5
"""How far from the subject the ground is not mixed with it any more, in pixels."""


def own_shadow(photo: Floats, matte: Mask) -> Mask:
    """How much (0..255) darker than the lit ground around it each pixel of the photo is, where
    that is connected with the subject: laid over another ground in black, it is the same shadow.

    ``photo`` has shape (rows, columns, 3) with encoded sRGB 0..1; ``matte`` (the same rows and
    columns) says how much of each pixel is subject. The lit ground is a surface of second degree
    through the brightest of what is not subject.
    """
    light = np.asarray(photo @ LUMA, np.float32)
    ground = (cv2.dilate(matte, np.ones((2 * RIM + 1, 2 * RIM + 1), np.uint8)) < 8).astype(np.uint8)
    if not ground.any():
        return np.zeros_like(matte)
    behind = filled(light[:, :, None], ground.astype(np.float32))
    seen = blurred(np.ascontiguousarray(behind.reshape(light.shape)), GRAIN)
    lit, grain = _lit_ground(seen, ground > 0)
    darker = np.asarray(1 - np.clip(seen / np.maximum(lit, 1e-3), 0, 1), np.float32)
    least = max(LEAST_DARK, NOISE * grain)
    is_dark = (darker > least) & (ground > 0)
    near = _touching(is_dark, ground == 0)
    darker *= np.clip(darker / least - 1, 0, 1)  # fades in from the least on
    darker = filled(darker[:, :, None], ground.astype(np.float32)).reshape(light.shape)
    kept = blurred(near.astype(np.float32), GRAIN) * darker * _nearness(matte)
    return np.asarray(np.rint(255 * np.clip(kept, 0, 1)), np.uint8)


def _lit_ground(seen: Floats, ground: NDArray[np.bool_]) -> tuple[Floats, float]:
    """The fitted brightness of the lit ground, and its grain as a share of that: the standard
    deviation of what was fitted."""
    rows, columns = seen.shape
    shrink = min(1.0, FIT_SIDE / max(rows, columns))
    sides = max(1, round(columns * shrink)), max(1, round(rows * shrink))
    small = cv2.resize(seen, sides, interpolation=cv2.INTER_AREA)
    free = cv2.resize(ground.astype(np.float32), sides, interpolation=cv2.INTER_AREA) > 0.99
    if np.count_nonzero(free) < 12:
        return np.full_like(seen, seen[ground].max()), 0.0
    terms, values = _second_degree(sides[1], sides[0])[free], small[free]
    used = np.ones(len(values), np.bool_)
    for _ in range(ROUNDS):
        factors, *_ = np.linalg.lstsq(terms[used], values[used], rcond=None)
        off = values - terms @ factors
        grain = float(np.std(off[used]))
        still = off > -max(1.5 * grain, 1e-4)
        if np.count_nonzero(still) < 12 or (still == used).all():
            break
        used = still
    fitted = (_second_degree(rows, columns) @ factors).astype(np.float32)
    return fitted, grain / max(float(values[used].mean()), 1e-3)


def _second_degree(rows: int, columns: int) -> NDArray[np.float64]:
    """1, x, y, x², xy and y² at each pixel, -1 to 1 over the picture, shape (rows, columns, 6)."""
    y = np.linspace(-1, 1, rows)[:, None] * np.ones((1, columns))
    x = np.linspace(-1, 1, columns)[None] * np.ones((rows, 1))
    return np.stack([np.ones_like(x), x, y, x * x, x * y, y * y], axis=-1)


def _nearness(matte: Mask) -> Floats:
    """1 near the subject, 0 from as far away on as its box is long and a half: what is dark there
    is dark by itself."""
    subject = (matte >= 128).astype(np.uint8)
    _, _, width, height = cv2.boundingRect(subject)
    away = cv2.distanceTransform(1 - subject, cv2.DIST_L2, 5)
    return np.asarray(np.clip(2 - away / (0.75 * max(width, height, 1)), 0, 1), np.float32)


def _touching(dark: NDArray[np.bool_], subject: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """The parts of what is dark that touch the subject, and the subject itself."""
    _, labels = cv2.connectedComponents((dark | subject).astype(np.uint8), connectivity=8)
    wanted = np.unique(labels[subject])
    return np.isin(labels, wanted[wanted > 0])
