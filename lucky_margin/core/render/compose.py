"""Composing: the sampled photo, the border and the grounds into one picture.

Colours mix in encoded sRGB by the W3C Compositing formulas. The photo and its border are put
together first, unclipped, and the shape's outline cuts both at once, so that no photo shows
along the border's outer edge and no gap comes between the two.
"""

import math
from dataclasses import dataclass

import cv2
import numpy as np
import skia

from lucky_margin.core.document import Border, Box, Ground, SolidColour
from lucky_margin.core.types import Mask, Picture8


@dataclass(frozen=True)
class Sheet:
    """All that is composed; the arrays have the same sides."""

    photo: Picture8
    """The photo, going on past its box to the sheet's edges."""
    shape: Mask | None
    """What lies inside the shape; None is everything."""
    inside_border: Mask | None
    """What lies inside the border's inner edge; None without a border."""
    untouched: Box
    """Where the border certainly does not reach, in the sheet's pixels; only saves time."""
    border: Border
    backdrop: Ground
    outside: Ground


def compose(sheet: Sheet) -> Picture8:
    """The picture of ``sheet``: 3 channels when opaque, else 4 with straight alpha."""
    if sheet.shape is None and sheet.inside_border is None and _shows_no_ground(sheet):
        return sheet.photo
    pixels = np.zeros((*sheet.photo.shape[:2], 4), np.uint8)
    canvas = _surface(pixels).getCanvas()
    if sheet.inside_border is None:
        _draw_content(canvas, sheet)
    elif sheet.border.outside:
        _draw_side_by_side(canvas, sheet, sheet.inside_border)
    else:
        _draw_content(canvas, sheet)
        _draw_border(canvas, sheet, sheet.inside_border)
    if sheet.shape is not None:
        canvas.drawImage(_mask(sheet.shape), 0, 0, paint=_blend(skia.BlendMode.kDstIn))
    if isinstance(sheet.outside, SolidColour) and not _is_opaque(pixels):
        canvas.drawColor(_colour(sheet.outside.colour), skia.BlendMode.kDstOver)
    return _straight(pixels)


def _shows_no_ground(sheet: Sheet) -> bool:
    grounds = (sheet.backdrop, sheet.outside)
    return sheet.photo.shape[2] == 3 or not any(isinstance(g, SolidColour) for g in grounds)


def _draw_content(canvas: skia.Canvas, sheet: Sheet) -> None:
    """The backdrop and the photo over it."""
    if isinstance(sheet.backdrop, SolidColour):
        canvas.drawColor(_colour(sheet.backdrop.colour))
    canvas.drawImage(_image(sheet.photo), 0, 0)


def _draw_border(canvas: skia.Canvas, sheet: Sheet, inside: Mask) -> None:
    """The border over whatever is there: everything outside its inner edge."""
    border = sheet.border
    paint = skia.Paint(Color=_colour(border.colour, border.opacity))
    box = sheet.untouched
    skipped = skia.Rect.MakeLTRB(
        math.ceil(box.left), math.ceil(box.top), math.floor(box.right), math.floor(box.bottom)
    )
    canvas.save()
    if not skipped.isEmpty():
        canvas.clipRect(skipped, skia.ClipOp.kDifference)
    canvas.drawImage(_mask(255 - inside), 0, 0, paint=paint)
    canvas.restore()


def _draw_side_by_side(canvas: skia.Canvas, sheet: Sheet, inside: Mask) -> None:
    """Photo and outside border, each covering exactly what the other leaves.

    Their shares of an edge pixel add up to one, so they are added, not laid over each other.
    """
    canvas.saveLayer()
    _draw_content(canvas, sheet)
    canvas.drawImage(_mask(inside), 0, 0, paint=_blend(skia.BlendMode.kDstIn))
    canvas.restore()
    canvas.saveLayer(None, _blend(skia.BlendMode.kPlus))
    if isinstance(sheet.backdrop, SolidColour):
        canvas.drawColor(_colour(sheet.backdrop.colour))
    canvas.drawColor(_colour(sheet.border.colour, sheet.border.opacity))
    canvas.drawImage(_mask(255 - inside), 0, 0, paint=_blend(skia.BlendMode.kDstIn))
    canvas.restore()


def _blend(mode: skia.BlendMode) -> skia.Paint:
    return skia.Paint(BlendMode=mode)


def _colour(colour: str, opacity: float = 1) -> int:
    red, green, blue = (int(colour[place : place + 2], 16) for place in (1, 3, 5))
    packed: int = skia.Color(red, green, blue, round(255 * opacity))
    return packed


def _surface(pixels: Picture8) -> skia.Surface:
    height, width = pixels.shape[:2]
    info = skia.ImageInfo.Make(width, height, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    return skia.Surface.MakeRasterDirect(info, pixels)


def _mask(mask: Mask) -> skia.Image:
    """A mask as an image that is drawn in the paint's colour."""
    contiguous = np.ascontiguousarray(mask)
    return skia.Image.fromarray(contiguous, skia.kAlpha_8_ColorType, skia.kPremul_AlphaType)


def _image(picture: Picture8) -> skia.Image:
    """A picture of the image contract as something skia draws."""
    if picture.shape[2] == 4:
        return skia.Image.fromarray(picture, skia.kRGBA_8888_ColorType, skia.kUnpremul_AlphaType)
    padded = cv2.cvtColor(picture, cv2.COLOR_RGB2RGBA)
    return skia.Image.fromarray(padded, skia.kRGBA_8888_ColorType, skia.kOpaque_AlphaType)


def _straight(pixels: Picture8) -> Picture8:
    """Premultiplied pixels by the image contract: straight, without an idle alpha channel."""
    if _is_opaque(pixels):
        return cv2.cvtColor(pixels, cv2.COLOR_RGBA2RGB).astype(np.uint8, copy=False)
    # OpenCV divides with rounding; where alpha is 0 the colour is 0 too.
    return cv2.cvtColor(pixels, cv2.COLOR_mRGBA2RGBA).astype(np.uint8, copy=False)


def _is_opaque(pixels: Picture8) -> bool:
    return bool(pixels[:, :, 3].min() == 255)
