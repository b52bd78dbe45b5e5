"""The photo itself as a ground behind its own subject."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.blurring import lens_blurred
from lucky_margin.core.filling import filled
from lucky_margin.core.sampling import encode_16_bits, to_linear
from lucky_margin.core.types import Mask, Picture8, Picture16

Floats = NDArray[np.float32]

MOST_RADIUS = 12
"""Of a lens's disc in pixels; a wider one is laid over a smaller picture."""

AROUND = 0.006
"""How far round the subject the photo is taken to be the subject's too, in long sides: its fringe
and its own shadow's edge."""

_LUMA = np.array([0.2126, 0.7152, 0.0722], np.float32)


def blurred_behind(photo: Floats, matte: Mask, blur: float) -> Picture16:
    """What is behind the subject, filled in and blurred as by a lens: a disc over linear light.

    ``photo`` has shape (rows, columns, 3) with encoded sRGB 0..1, ``matte`` is the subject's
    coverage of it; ``blur`` is the disc's radius in long sides. Returns the same sides.
    """
    rows, columns = matte.shape
    longest = max(rows, columns)
    shrink = min(1.0, MOST_RADIUS / (blur * longest))
    small, cover = (
        np.asarray(cv2.resize(part, None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA))
        for part in (photo, matte)
    )
    reach = max(1, round(AROUND * max(cover.shape)))
    disc = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1, 2 * reach + 1))
    free = 1 - np.asarray(cv2.dilate(cover, disc), np.float32) / np.float32(255)
    ground = filled(np.asarray(small, np.float32), free)
    light = to_linear(np.rint(255 * np.clip(ground, 0, 1)).astype(np.uint8))
    soft = lens_blurred(light, blur * longest * shrink)
    out = cv2.resize(encode_16_bits(soft), (columns, rows), interpolation=cv2.INTER_LINEAR)
    return np.asarray(out, np.uint16)


def toned_down(picture: Picture8, grey: float, light: float) -> Picture8:
    """``picture`` with so much (0..1) of its colour taken out, and lighter or darker (-1..1)."""
    if grey == 0 and light == 0:
        return picture
    colours = picture[:, :, :3].astype(np.float32)
    if grey:
        colours += np.float32(grey) * ((colours @ _LUMA)[:, :, None] - colours)
    if light:
        colours += np.float32(abs(light)) * (np.float32(255 if light > 0 else 0) - colours)
    out = picture.copy()
    out[:, :, :3] = np.rint(colours)
    return out
