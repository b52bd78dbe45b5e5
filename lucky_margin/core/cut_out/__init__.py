"""The cut-out: finding the subject of a photo, mending it by strokes, and showing it alone."""

import numpy as np

from lucky_margin.core.cut_out.deciding import decided
from lucky_margin.core.cut_out.distances import geodesic_distance
from lucky_margin.core.cut_out.doubts import doubts_about
from lucky_margin.core.cut_out.evidence import Evidence
from lucky_margin.core.cut_out.find import (
    VERSION,
    WORKING_SIDE,
    after_stroke,
    brings_own,
    coverage,
    deciding_strokes,
    mask_coverage,
    mended,
    place_of,
    proposal,
    working_picture,
)
from lucky_margin.core.cut_out.guided_filter import guided
from lucky_margin.core.cut_out.matte_files import matte_file, read_matte
from lucky_margin.core.cut_out.own_shadow import own_shadow
from lucky_margin.core.cut_out.places import in_pixels
from lucky_margin.core.cut_out.second_opinion import disagreement
from lucky_margin.core.cut_out.strands import strands_at_edge
from lucky_margin.core.cut_out.subject import (
    FAINT,
    FringeColours,
    Matte,
    box_of,
    fringe_colours,
    matte_of,
    subject_picture,
    with_other_edge,
)

__all__ = [
    "FAINT",
    "VERSION",
    "WORKING_SIDE",
    "Evidence",
    "FringeColours",
    "Matte",
    "after_stroke",
    "box_of",
    "brings_own",
    "coverage",
    "deciding_strokes",
    "disagreement",
    "doubts_about",
    "fringe_colours",
    "in_pixels",
    "mask_coverage",
    "matte_file",
    "matte_of",
    "mended",
    "own_shadow",
    "place_of",
    "proposal",
    "read_matte",
    "strands_at_edge",
    "subject_picture",
    "warm_up",
    "with_other_edge",
    "working_picture",
]


def warm_up() -> None:
    """Compile the loops, or load them, so that no first subject waits for that."""
    nothing = np.zeros((2, 2), np.float32)
    guided(np.zeros((2, 2, 3), np.float32), nothing, 1)
    geodesic_distance(nothing, np.eye(2, dtype=np.bool_))
    decided(nothing, np.zeros((4, 2, 2), np.float32), nothing, 1)
