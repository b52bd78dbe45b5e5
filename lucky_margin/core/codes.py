"""QR codes (ISO/IEC 18004) as pictures."""

import numpy as np
import segno

from lucky_margin.core.checks.legibility import contrast_ratio, relative_luminance
from lucky_margin.core.document import Colour, rgb_of
from lucky_margin.core.errors import BadInput
from lucky_margin.core.png import png

LONG_SIDE = 1600
"""Pixels of a code, at most: as many whole ones to a module as fit."""

QUIET_MODULES = 4
"""The light margin that readers need (clause 5.3.8)."""

LEAST_CONTRAST = 3.0
"""Of dark on light modules; with less, cameras fail in poor light."""


def qr_code(text: str, *, dark: Colour = "#000000", light: Colour | None = "#FFFFFF") -> bytes:
    """A code that says ``text``, with its margin, as a PNG; without ``light`` what is behind shows.
    It has as much error correction as its number of modules has room for, at least level M.

    Raises:
        BadInput: there is nothing to say, or too much, or it would not be dark on light.
    """
    if not text.strip():
        raise BadInput("A code has to say something; write an address or some words.")
    darkness, lightness = (
        relative_luminance(np.array(rgb_of(colour)) / 255) for colour in (dark, light or "#FFFFFF")
    )
    if darkness > lightness or contrast_ratio(darkness, lightness) < LEAST_CONTRAST:
        raise BadInput("A code is read as dark on light; choose a darker colour for it.")
    try:
        # What readers take letters beyond ASCII for, whatever the standard's own default is.
        code = segno.make(text, error="m", micro=False, boost_error=True, encoding="utf-8")
    except segno.DataOverflowError as error:
        raise BadInput("That is more than a code can hold; shorten it.") from error
    modules = np.array([list(row) for row in code.matrix_iter(border=QUIET_MODULES)], np.uint8)
    is_dark = np.kron(modules, np.ones((LONG_SIDE // len(modules),) * 2, np.uint8)) > 0
    pixels = np.zeros((*is_dark.shape, 4), np.uint8)
    if light:
        pixels[:] = (*rgb_of(light), 255)
    pixels[is_dark] = (*rgb_of(dark), 255)
    return png(pixels)
