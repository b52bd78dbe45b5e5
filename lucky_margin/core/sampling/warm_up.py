"""Having the compiled loops ready, from the cache on disk or by compiling them now."""

from itertools import product

import numpy as np

from lucky_margin.core.affine import Affine
from lucky_margin.core.sampling.gradients import linear_gradient
from lucky_margin.core.sampling.place import place, place_at_16_bits
from lucky_margin.core.sampling.sample import halved


def warm_up() -> None:
    """Run every loop once, on a speck."""
    for dtype, channels in product((np.uint8, np.uint16), (3, 4)):
        speck = np.zeros((4, 4, channels), dtype)
        askew = Affine(1, 0.1, -0.1, 1)
        for laid in (Affine(2, 0, 0, 2), Affine(1.5, 0, 0, 1.5), askew):
            place(speck, laid, (0, 0, 2, 2))
            place_at_16_bits(speck, laid, (0, 0, 2, 2))
        halved(speck)
    linear_gradient((0, 0, 0), (255, 255, 255), along=(0, 1, 0), region=(0, 0, 2, 2))
