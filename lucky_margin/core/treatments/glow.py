"""Glow: light that spreads from what is light."""

import numpy as np

from lucky_margin.core.blurring import blurred_small
from lucky_margin.core.document import Glow
from lucky_margin.core.sampling import encode_16_bits
from lucky_margin.core.treatments.working import Pixels, Working
from lucky_margin.core.types import Picture8, Picture16


def plan_glow(glow: Glow, working: Working) -> Picture16:
    """The light that spreads, over the whole photo."""
    lightness = np.cbrt(working.luminance)
    above = glow.above / 100
    kept = np.clip((lightness - np.float32(above)) / np.float32(max(1 - above, 0.05)), 0, 1)
    shining = np.dstack([working.weighted[:, :, :3] * kept[:, :, None], working.weighted[:, :, 3:]])
    spread = blurred_small(shining, glow.radius / 2 * working.per_short)
    return encode_16_bits(np.asarray(spread[:, :, :3] / spread[:, :, 3:], np.float32))


def draw_glow(glow: Glow, spread: Picture16, picture: Picture8, pixels: Pixels) -> Picture8:
    """``picture`` with the light screened over it (W3C Compositing: what either takes away)."""
    over = pixels.picture(spread).astype(np.float32) * np.float32(glow.amount / 100 / 255)
    out = 255 - (255 - picture.astype(np.float32)) * (1 - over)
    return np.asarray(np.rint(out), np.uint8)
