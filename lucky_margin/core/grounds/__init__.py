"""Grounds: what shows where there is no picture."""

from lucky_margin.core.grounds.blurred import blurred_cover, working_sides
from lucky_margin.core.grounds.gradient import gradient_over

__all__ = ["blurred_cover", "gradient_over", "working_sides"]
