"""Outlines: a size's shape as geometry that can be drawn, inset and sent to a screen."""

from lucky_margin.core.outlines.forms import outline_of
from lucky_margin.core.outlines.lines import Dashes, dashes_along, line_coverage
from lucky_margin.core.outlines.margin_box import evenly_inside, largest_box_inside
from lucky_margin.core.outlines.outline import Outline, PolygonOutline
from lucky_margin.core.outlines.rounded_box import RoundedBox

__all__ = [
    "Dashes",
    "Outline",
    "PolygonOutline",
    "RoundedBox",
    "dashes_along",
    "evenly_inside",
    "largest_box_inside",
    "line_coverage",
    "outline_of",
]
