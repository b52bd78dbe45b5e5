"""Text: shipped families, own fonts, shaping, lines, and letters as outlines.

Text is laid out once at a size's full pixels, unhinted, and then scaled, so that where lines
break never depends on how large a picture is drawn. System fonts are never used.

The way of a text: bidirectional levels (Unicode UAX 9, python-bidi) and one face for each
character (``itemize``) -> shaped runs (HarfBuzz, ``shaping``) -> lines (ICU's break
opportunities, ``lines``) -> outlines and boxes (``layout``).
"""

from lucky_margin.core.text.carets import Letter, LineEnd, Upright, letters_of
from lucky_margin.core.text.faces import Face
from lucky_margin.core.text.families import FAMILIES, Family, face_of
from lucky_margin.core.text.layout import LaidText, PartStyle, TextStyle, fitted_text, lay_text
from lucky_margin.core.text.own import (
    MAX_FONT_BYTES,
    STAND_IN,
    TOO_LARGE,
    FontFinder,
    OwnFont,
    is_own,
    no_fonts,
    read_font,
    typeface,
)
from lucky_margin.core.text.samples import word_picture

__all__ = [
    "FAMILIES",
    "MAX_FONT_BYTES",
    "STAND_IN",
    "TOO_LARGE",
    "Face",
    "Family",
    "FontFinder",
    "LaidText",
    "Letter",
    "LineEnd",
    "OwnFont",
    "PartStyle",
    "TextStyle",
    "Upright",
    "face_of",
    "fitted_text",
    "is_own",
    "lay_text",
    "letters_of",
    "no_fonts",
    "read_font",
    "typeface",
    "word_picture",
]
