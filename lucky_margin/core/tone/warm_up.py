"""Having the compiled loops of tone ready."""

import numpy as np

from lucky_margin.core.affine import UNCHANGED
from lucky_margin.core.document import Area, BandMask, Tone
from lucky_margin.core.tone.apply import area_coverage, toned, toned_values
from lucky_margin.core.tone.cube import ColourTable, with_table
from lucky_margin.core.tone.haze import veil_of, with_haze
from lucky_margin.core.tone.on_photo import OnPhoto


def warm_up() -> None:
    """Run each once, on a speck."""
    speck = np.zeros((2, 2, 3), np.uint16)
    tone = Tone(exposure=1)
    toned(speck, tone)
    toned_values(speck, tone)
    area_coverage(speck, Area(masks=(BandMask(),)), on_photo=OnPhoto(2, 2))
    veil = veil_of(speck, np.ones(3), 2).laid(UNCHANGED, (0, 0, 2, 2))
    with_haze(speck, 50, np.ones(3), veil)
    with_table(speck, ColourTable("speck", np.zeros((2, 2, 2, 3), np.float32)), 1.0)
