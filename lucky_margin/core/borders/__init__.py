"""What the bands of a border look like: relief, patterns and brushed edges, as arrays."""

from lucky_margin.core.borders import across as _across
from lucky_margin.core.borders import noise as _noise
from lucky_margin.core.borders.across import Across, Edges, across
from lucky_margin.core.borders.brushed import MOSAIC_CELLS, Places, paint_on
from lucky_margin.core.borders.patterns import pattern_ink, repeats_along
from lucky_margin.core.borders.pictures import (
    SEARCHED_SIDE,
    find_window,
    picture_paint,
    sheet_of,
    sheet_sides,
)
from lucky_margin.core.borders.relief import mat_picture, shade, slope_of
from lucky_margin.core.borders.styles import FRAME_STYLES, FrameStyle


def warm_up() -> None:
    """Compile all loops, or load them from disk."""
    _across.warm_up()
    _noise.warm_up()


__all__ = [
    "FRAME_STYLES",
    "MOSAIC_CELLS",
    "SEARCHED_SIDE",
    "Across",
    "Edges",
    "FrameStyle",
    "Places",
    "across",
    "find_window",
    "mat_picture",
    "paint_on",
    "pattern_ink",
    "picture_paint",
    "repeats_along",
    "shade",
    "sheet_of",
    "sheet_sides",
    "slope_of",
    "warm_up",
]
