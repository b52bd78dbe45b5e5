"""Photos: reading them from files of any common kind."""

from lucky_margin.core.photos.decode import DecodedPhoto, PhotoFacts, decode
from lucky_margin.core.photos.identify import pixels_of
from lucky_margin.core.photos.limits import MAX_PHOTO_BYTES, MAX_PHOTO_PIXELS

__all__ = [
    "MAX_PHOTO_BYTES",
    "MAX_PHOTO_PIXELS",
    "DecodedPhoto",
    "PhotoFacts",
    "decode",
    "pixels_of",
]
