"""Pieces: where they lie on a size, and what they look like.

A piece is laid at the size's full pixels, about its own middle; its sprite is that layout drawn at
a picture's scale, with shadow, plate and outline, on whole pixels of that picture.
"""

from lucky_margin.core.pieces.knock_out import knocked_out, plain_background
from lucky_margin.core.pieces.laying import (
    Ends,
    LaidPiece,
    Margins,
    lay_piece,
    margins_of,
    text_setting,
)
from lucky_margin.core.pieces.mark_layouts import MARK_LAYOUTS
from lucky_margin.core.pieces.marks import mark_picture, mark_svg
from lucky_margin.core.pieces.matching import Light, light_around, matched
from lucky_margin.core.pieces.sprites import Part, Sprite, sprite_of
from lucky_margin.core.pieces.watermark import shaded_watermark

__all__ = [
    "MARK_LAYOUTS",
    "Ends",
    "LaidPiece",
    "Light",
    "Margins",
    "Part",
    "Sprite",
    "knocked_out",
    "lay_piece",
    "light_around",
    "margins_of",
    "mark_picture",
    "mark_svg",
    "matched",
    "plain_background",
    "shaded_watermark",
    "sprite_of",
    "text_setting",
]
