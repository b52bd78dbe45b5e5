"""Edits of the border that look at a picture first; all others set its bands."""

import math
from dataclasses import replace
from typing import Literal

from pydantic import Field

from lucky_margin.core.borders import SEARCHED_SIDE, find_window
from lucky_margin.core.document import (
    MOST_BANDS,
    BandPicture,
    BorderChanges,
    PatternBand,
    Sides,
)
from lucky_margin.core.document.values import Sha256
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.scene import Scene

THICKNESS = 0.08
"""Of a band that a picture makes a pattern, unless it was one before."""


class SetBandPicture(EditBase):
    """Lay an own picture along a band: as a frame where it has a window, else as a strip."""

    kind: Literal["set_band_picture"] = "set_band_picture"
    band: int = Field(ge=0, lt=MOST_BANDS, description="Counted from the outside.")
    sha256: Sha256
    only_this_size: bool = False


@carries_out(SetBandPicture)
def set_band_picture(scene: Scene, edit: SetBandPicture) -> Edited:
    """
    Raises:
        BadInput: there is no such band.
        NotFound: the picture is not known.
    """
    bands = scene.finish.as_set("border", scene.size).bands
    if edit.band > len(bands):
        raise BadInput(f"There is no band {edit.band + 1}; this border has {len(bands)}.")
    facts = scene.sources.facts(edit.sha256)
    number = max(0, int(math.log2(max(facts.width, facts.height) / SEARCHED_SIDE)))
    window = find_window(as_8_bits(scene.sources.level(edit.sha256, number)))
    picture = BandPicture(
        sha256=edit.sha256, ratio=min(100, max(0.01, facts.width / facts.height)), window=window
    )
    present = bands[edit.band] if edit.band < len(bands) else None
    if isinstance(present, PatternBand):
        band = present.model_copy(update={"picture": picture, "ground": None})
    else:
        around = present.around if present else True
        thickness = Sides.all(THICKNESS)
        band = PatternBand(thickness=thickness, around=around, ground=None, picture=picture)
    changed = (*bands[: edit.band], band, *bands[edit.band + 1 :])
    changes = BorderChanges(on=True, bands=changed)
    said = (
        "has a window, so it is used as a frame" if window else "has no window, so it is repeated"
    )
    edited = step_changed(scene, "border", changes, edit.only_this_size)
    return replace(edited, message=f"This picture {said}.")
