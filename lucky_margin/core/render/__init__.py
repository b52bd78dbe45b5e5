"""Rendering: documents to pixels, layouts and checks."""

from lucky_margin.core.render.cache import PictureCache
from lucky_margin.core.render.calm import calm_places_of
from lucky_margin.core.render.check import Check
from lucky_margin.core.render.checks import check
from lucky_margin.core.render.grid import scaled_sides
from lucky_margin.core.render.layout import Layout, layout
from lucky_margin.core.render.legibility import contrast_of, make_readable, palette_of, text_on
from lucky_margin.core.render.measure import ToneMeasured, measure_tone
from lucky_margin.core.render.pick import picked_colour
from lucky_margin.core.render.render import View, flatten_colour, render
from lucky_margin.core.render.soundness import check_sound
from lucky_margin.core.render.sources import MemorySources, Sources

__all__ = [
    "Check",
    "Layout",
    "MemorySources",
    "PictureCache",
    "Sources",
    "ToneMeasured",
    "View",
    "calm_places_of",
    "check",
    "check_sound",
    "contrast_of",
    "flatten_colour",
    "layout",
    "make_readable",
    "measure_tone",
    "palette_of",
    "picked_colour",
    "render",
    "scaled_sides",
    "text_on",
]
