"""Grounds: what shows where there is no picture."""

from lucky_margin.core.grounds.blurred import blurred_cover, working_sides
from lucky_margin.core.grounds.gradient import gradient_over
from lucky_margin.core.grounds.stock import stock_backdrop
from lucky_margin.core.grounds.this_photo import blurred_behind, toned_down

__all__ = [
    "blurred_behind",
    "blurred_cover",
    "gradient_over",
    "stock_backdrop",
    "toned_down",
    "working_sides",
]
