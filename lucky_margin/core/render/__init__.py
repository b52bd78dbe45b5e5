"""Rendering: documents to pixels and layouts."""

from lucky_margin.core.render.calm import calm_places_of
from lucky_margin.core.render.grid import scaled_sides
from lucky_margin.core.render.layout import Layout, layout
from lucky_margin.core.render.measure import ToneMeasured, measure_tone
from lucky_margin.core.render.parts import PicturePart, parts_of
from lucky_margin.core.render.pick import picked_colour
from lucky_margin.core.render.pieces import subject_picture
from lucky_margin.core.render.render import View, render
from lucky_margin.core.render.shown import matte_sides
from lucky_margin.core.render.soundness import check_sound
from lucky_margin.core.render.writing import Writing, writing_of

__all__ = [
    "Layout",
    "PicturePart",
    "ToneMeasured",
    "View",
    "Writing",
    "calm_places_of",
    "check_sound",
    "layout",
    "matte_sides",
    "measure_tone",
    "parts_of",
    "picked_colour",
    "render",
    "scaled_sides",
    "subject_picture",
    "writing_of",
]
