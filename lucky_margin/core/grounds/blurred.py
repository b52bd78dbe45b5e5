"""The photo itself, blurred, as a ground.

It is made once at a small fixed working size, whatever the scale of the picture it lies in, so
that a preview and an export show the same; 16 bits keep it free of hues when it is enlarged.
"""

import cv2
import numpy as np

from lucky_margin.core.affine import Affine
from lucky_margin.core.sampling import encode_16_bits, place, to_linear
from lucky_margin.core.types import AnyPicture, Picture16

WORKING_SIDE = 256
"""Short side of the working size, in pixels; the least blur is 2.5 of them."""

_LEAST_ALPHA = 1e-6


def working_sides(ratio: float) -> tuple[int, int]:
    """Width and height of the working size for a ground of ``ratio`` (width over height)."""
    return max(1, round(WORKING_SIDE * max(1, ratio))), max(1, round(WORKING_SIDE / min(1, ratio)))


def blurred_cover(
    photo: AnyPicture, mapping: Affine, width: int, height: int, blur: float
) -> Picture16:
    """``photo`` as ``mapping`` lays it under the working pixels, blurred in linear light.

    ``mapping`` leads from working pixels to pixels of ``photo``; ``blur`` is the standard
    deviation as a fraction of the short side. Past its edges it is taken to go on mirrored.
    Returns 3 channels at the working size, or 4 when the photo has alpha.
    """
    laid = place(photo, mapping, (0, 0, width, height))
    linear = to_linear(laid)
    has_alpha = laid.shape[2] == 4
    if has_alpha:
        linear[:, :, :3] *= linear[:, :, 3:]
    sigma = blur * min(width, height)
    linear = cv2.GaussianBlur(linear, (0, 0), sigma, borderType=cv2.BORDER_REFLECT).astype(
        np.float32, copy=False
    )
    if has_alpha:
        linear[:, :, :3] /= np.maximum(linear[:, :, 3:], _LEAST_ALPHA)
    return encode_16_bits(linear)
