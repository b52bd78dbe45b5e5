"""Tone: the photo's light and colour in one fused pass over linear light.

The order of operations, each absent when its control is at zero:

0. *smoothing, texture, sharpening*: on encoded luminance and colour differences (``detail``)
1. *temperature, tint*: chromatic adaptation (``white_balance``)
2. *exposure*: linear light times ``2 ** EV``
3. *highlights, shadows*: a gain by the edge-aware brightness of the region (``bases``)
4. *clarity*: a gain by how far a pixel is from that brightness
5. *levels, whites, blacks, contrast, curve*: one curve of encoded luminance (``curves``)
6. *hue bands, saturation, vibrance, grey*: in OKLCH (``kernel``)
7. what left the gamut comes back towards the grey of its own luminance, by as little as it takes
8. *recolour, fade*: mixed in encoded sRGB
9. dithered to 8 bits

A look's settings, times its strength, are added to the user's before all of this.
"""

from lucky_margin.core.tone.apply import needs_bases, toned
from lucky_margin.core.tone.automatic import propose_tone
from lucky_margin.core.tone.bases import WORKING_SIDE as BASES_SIDE
from lucky_margin.core.tone.bases import Bases, bases_of
from lucky_margin.core.tone.curves import curve_line
from lucky_margin.core.tone.detail import apron, detailed, needs_detail
from lucky_margin.core.tone.looks import ADDED, LOOKS, with_look
from lucky_margin.core.tone.measure import Clipping, Histogram, clipping_of, histogram_of
from lucky_margin.core.tone.warm_up import warm_up
from lucky_margin.core.tone.white_balance import neutral_settings

__all__ = [
    "ADDED",
    "BASES_SIDE",
    "LOOKS",
    "Bases",
    "Clipping",
    "Histogram",
    "apron",
    "bases_of",
    "clipping_of",
    "curve_line",
    "detailed",
    "histogram_of",
    "needs_bases",
    "needs_detail",
    "neutral_settings",
    "propose_tone",
    "toned",
    "warm_up",
    "with_look",
]
