"""Small pictures of words, to choose a family by."""

import numpy as np
import skia

from lucky_margin.core.text.faces import Face
from lucky_margin.core.text.layout import TextStyle, lay_text
from lucky_margin.core.types import Mask

_LETTERS = 0.62
"""Of the height: the em."""

_BASELINE = 0.7
_WIDEST = 8
"""Of the height: longer words are cut off."""


def word_picture(words: str, family: str | Face, weight: int, height: int) -> Mask:
    """One line of words, ``height`` pixels high."""
    line = " ".join(words.split())
    laid = lay_text(line, TextStyle(family, weight), _LETTERS * height)
    width = min(max(1, round(laid.ink.right + 4)), _WIDEST * height)
    out = np.zeros((height, width), np.uint8)
    info = skia.ImageInfo.MakeA8(width, height)
    canvas = skia.Surface.MakeRasterDirect(info, out).getCanvas()
    canvas.translate(2, _BASELINE * height)
    canvas.drawPath(laid.outline, skia.Paint(AntiAlias=True))
    return out
