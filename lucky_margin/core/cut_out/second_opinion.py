"""How far what was found is from what the network for things says by itself: where they differ, one
of them is wrong, and often it is what was found."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.network import guessed
from lucky_margin.core.cut_out.places import in_pixels, inside
from lucky_margin.core.document import Box
from lucky_margin.core.types import Mask


def disagreement(
    working: NDArray[np.float32], matte: Mask, boxes: Sequence[Box], place: Box
) -> float:
    """The mean difference over the boxes (0..1) between ``matte`` and the network's guess.

    ``working`` is the photo at the matte's size, encoded sRGB 0..1; ``boxes`` and ``place``, the
    part that is looked at, are in photo space.
    """
    part = in_pixels(place, *working.shape[:2])
    crop = np.ascontiguousarray(working[part])
    within = inside(boxes, place, *crop.shape[:2])
    if not within.any():
        return 0.0
    found = matte[part].astype(np.float32) / np.float32(255)
    guess, _ = guessed(crop, within)
    return float(np.abs(guess - found)[within].mean())
