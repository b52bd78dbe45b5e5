"""Tone: the photo's brightness and colour in one fused pass over linear light.

The order of operations, each absent when its control is at zero:

0. *noise reduction, fine detail, sharpening*: on encoded luminance and colour differences
   (``detail``), then *haze*: the veil of scattered light (``haze``)
1. *warmth, tint*: chromatic adaptation (``white_balance``)
2. *exposure*: linear light times ``2 ** EV``
3. *highlights, shadows*: a gain by the edge-aware brightness of the region (``bases``)
4. *local contrast*: a gain by how far a pixel is from that brightness
5. *black point, white point, contrast, curve*: one curve of encoded luminance (``curves``)
6. *hues, saturation, muted colours, black and white*: in OKLCH (``kernel``)
7. *areas*, one after the other: steps 1 to 6 again where the area is (``areas``)
8. what left the gamut comes back towards the grey of its own luminance, by as little as it takes
9. *duotone, washes, fade*: mixed in encoded sRGB (``washes``, ``blending``)
10. dithered to 8 bits

A look's settings, times its strength, are added to the user's before all of this; a look that is
a colour table is laid on the sampled picture first (``cube``).
"""

from lucky_margin.core.tone.apply import (
    area_coverage,
    needs_bases,
    set_areas,
    toned,
    toned_values,
)
from lucky_margin.core.tone.areas import needs_regions, subject_edges
from lucky_margin.core.tone.automatic import PROPOSED, propose_tone, scaled
from lucky_margin.core.tone.bases import VERSION as BASES_VERSION
from lucky_margin.core.tone.bases import bases_of
from lucky_margin.core.tone.cube import (
    MAX_TABLE_BYTES,
    ColourTable,
    cube_text,
    left_out,
    read_cube,
    table_error,
    with_table,
)
from lucky_margin.core.tone.curves import curve_line
from lucky_margin.core.tone.detail import apron, detailed, needs_detail
from lucky_margin.core.tone.guided import WORKING_SIDE as GUIDED_SIDE
from lucky_margin.core.tone.guided import GuidedLines
from lucky_margin.core.tone.haze import VERSION as HAZE_VERSION
from lucky_margin.core.tone.haze import air_of, veil_of, with_haze
from lucky_margin.core.tone.looks import ADDED, LOOKS, look_of, with_look
from lucky_margin.core.tone.measure import Clipping, Histogram, clipping_of, histogram_of
from lucky_margin.core.tone.noise import noise_of
from lucky_margin.core.tone.on_photo import OnPhoto
from lucky_margin.core.tone.warm_up import warm_up
from lucky_margin.core.tone.white_balance import Neutral, neutral_settings

__all__ = [
    "ADDED",
    "BASES_VERSION",
    "GUIDED_SIDE",
    "HAZE_VERSION",
    "LOOKS",
    "MAX_TABLE_BYTES",
    "PROPOSED",
    "Clipping",
    "ColourTable",
    "GuidedLines",
    "Histogram",
    "Neutral",
    "OnPhoto",
    "air_of",
    "apron",
    "area_coverage",
    "bases_of",
    "clipping_of",
    "cube_text",
    "curve_line",
    "detailed",
    "histogram_of",
    "left_out",
    "look_of",
    "needs_bases",
    "needs_detail",
    "needs_regions",
    "neutral_settings",
    "noise_of",
    "propose_tone",
    "read_cube",
    "scaled",
    "set_areas",
    "subject_edges",
    "table_error",
    "toned",
    "toned_values",
    "veil_of",
    "warm_up",
    "with_haze",
    "with_look",
    "with_table",
]
