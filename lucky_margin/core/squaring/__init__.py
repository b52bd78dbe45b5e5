"""Squaring up: a flat thing in a photo, such as a card or a print, seen straight on."""

from lucky_margin.core.squaring.homography import is_convex, mapped, onto_corners, true_ratio
from lucky_margin.core.squaring.squared import squared, squared_sides

__all__ = ["is_convex", "mapped", "onto_corners", "squared", "squared_sides", "true_ratio"]
