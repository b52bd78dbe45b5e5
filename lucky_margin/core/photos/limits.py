"""How large a photo may be."""

MAX_PHOTO_BYTES = 150_000_000
MAX_PHOTO_PIXELS = 120_000_000
MAX_PHOTO_SIDE = 100_000
"""Pixels; a longer one is no photo, and would be slow to look at."""
