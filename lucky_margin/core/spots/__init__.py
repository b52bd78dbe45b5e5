"""Spots: places of a photo that are filled from what lies around them."""

from lucky_margin.core.spots.strokes import changed_around, filled_along, room_around

__all__ = ["changed_around", "filled_along", "room_around"]
