"""Rendering: documents to pixels, layouts and checks."""

from lucky_margin.core.render.cache import PictureCache
from lucky_margin.core.render.checks import Check, check
from lucky_margin.core.render.grid import scaled_sides
from lucky_margin.core.render.layout import Layout, layout
from lucky_margin.core.render.measure import ToneMeasured, measure_tone
from lucky_margin.core.render.pick import picked_colour
from lucky_margin.core.render.render import View, flatten_colour, render
from lucky_margin.core.render.sources import MemorySources, Sources

__all__ = [
    "Check",
    "Layout",
    "MemorySources",
    "PictureCache",
    "Sources",
    "ToneMeasured",
    "View",
    "check",
    "flatten_colour",
    "layout",
    "measure_tone",
    "picked_colour",
    "render",
    "scaled_sides",
]
