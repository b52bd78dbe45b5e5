"""Rendering: documents to pixels and layouts."""

from lucky_margin.core.render.cache import PictureCache
from lucky_margin.core.render.calm import calm_places_of
from lucky_margin.core.render.grid import scaled_sides
from lucky_margin.core.render.layout import Layout, layout
from lucky_margin.core.render.measure import ToneMeasured, measure_tone
from lucky_margin.core.render.pick import picked_colour
from lucky_margin.core.render.render import View, draw, render
from lucky_margin.core.render.scene import Scene
from lucky_margin.core.render.soundness import check_sound
from lucky_margin.core.render.sources import MemorySources, Sources

__all__ = [
    "Layout",
    "MemorySources",
    "PictureCache",
    "Scene",
    "Sources",
    "ToneMeasured",
    "View",
    "calm_places_of",
    "check_sound",
    "draw",
    "layout",
    "measure_tone",
    "picked_colour",
    "render",
    "scaled_sides",
]
