"""What the bands of a border look like: relief, patterns and brushed edges, as arrays."""

from lucky_margin.core.borders.across import Across, Edges, across, warm_up
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
