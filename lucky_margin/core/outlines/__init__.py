"""Outlines: a size's shape as geometry that can be drawn, inset and sent to a screen."""

from lucky_margin.core.outlines.bands import band_edges
from lucky_margin.core.outlines.covered import covered_box, covered_region
from lucky_margin.core.outlines.forms import outline_of
from lucky_margin.core.outlines.lines import (
    CORNER_DEGREES,
    Dashes,
    corner_angles,
    dashes_along,
    line_coverage,
    spans_between_corners,
)
from lucky_margin.core.outlines.margin_box import evenly_inside, largest_box_inside
from lucky_margin.core.outlines.outline import Outline, PolygonOutline
from lucky_margin.core.outlines.rounded_box import RoundedBox

__all__ = [
    "CORNER_DEGREES",
    "Dashes",
    "Outline",
    "PolygonOutline",
    "RoundedBox",
    "band_edges",
    "corner_angles",
    "covered_box",
    "covered_region",
    "dashes_along",
    "evenly_inside",
    "largest_box_inside",
    "line_coverage",
    "outline_of",
    "spans_between_corners",
]
