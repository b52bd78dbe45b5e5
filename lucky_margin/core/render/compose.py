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

from lucky_margin.core.document import BlendMode, Border, Box, rgb_of
from lucky_margin.core.pieces import Sprite
from lucky_margin.core.types import Mask, Picture8

Fill = str | Picture8 | None
"""What fills a ground: one colour (``#RRGGBB``), a picture of the sheet's sides, or nothing."""


@dataclass(frozen=True)
class Sheet:
    """All that is composed; the arrays have the same sides."""

    photo: Picture8
    """The photo, going on past its box to the sheet's edges."""
    photo_mask: Mask | None = None
    """Where the photo is; None everywhere."""
    shape: Mask | None = None
    """What lies inside the shape; None is everything."""
    inside_border: Mask | None = None
    """What lies inside the border's inner edge; None without a border."""
    line: Mask | None = None
    """Where in its band the border has a line; None everywhere."""
    untouched: Box | None = None
    """Where the border certainly does not reach, in the sheet's pixels; only saves time."""
    border: Border = Border()
    backdrop: Fill = None
    outside: Fill = None
    paper: str | None = None
    """The colour behind everything, for formats that keep no transparency."""
    under_border: tuple[Sprite, ...] = ()
    """Pieces, back to front, in pixels of the whole picture, of which ``origin`` is the corner of
    the sheet; so are the others."""
    over_border: tuple[Sprite, ...] = ()
    unclipped: tuple[Sprite, ...] = ()
    watermark: tuple[Sprite, ...] = ()
    origin: tuple[int, int] = (0, 0)


def compose(sheet: Sheet) -> Picture8:
    """The picture of ``sheet``: 3 channels when opaque, else 4 with straight alpha."""
    if _is_only_the_photo(sheet):
        return sheet.photo
    if _is_covered(sheet):
        return _over_photo(sheet)
    pixels = np.zeros((*sheet.photo.shape[:2], 4), np.uint8)
    canvas = _surface(pixels).getCanvas()
    if sheet.inside_border is None:
        _draw_content(canvas, sheet)
    elif sheet.border.outside:
        _draw_side_by_side(canvas, sheet, sheet.inside_border)
    else:
        _draw_content(canvas, sheet)
        _draw_border(canvas, sheet, sheet.inside_border)
    _draw_sprites(canvas, sheet, sheet.over_border)
    if sheet.unclipped and sheet.shape is not None:
        # The watermark is clipped all the same, so it is cut on a layer of its own.
        _clip(canvas, sheet.shape)
        _draw_sprites(canvas, sheet, sheet.unclipped)
        canvas.saveLayer()
        _draw_sprites(canvas, sheet, sheet.watermark)
        _clip(canvas, sheet.shape)
        canvas.restore()
    else:
        _draw_sprites(canvas, sheet, (*sheet.unclipped, *sheet.watermark))
        if sheet.shape is not None:
            _clip(canvas, sheet.shape)
    for fill in (sheet.outside, sheet.paper):
        if fill is not None and not _is_opaque(pixels):
            _fill(canvas, fill, skia.BlendMode.kDstOver)
    return _straight(pixels)


def _is_only_the_photo(sheet: Sheet) -> bool:
    masks = (sheet.photo_mask, sheet.shape, sheet.inside_border)
    if any(mask is not None for mask in masks):
        return False
    if sheet.under_border or sheet.over_border or sheet.unclipped or sheet.watermark:
        return False
    fills = (sheet.backdrop, sheet.outside, sheet.paper)
    return sheet.photo.shape[2] == 3 or all(fill is None for fill in fills)


def _is_covered(sheet: Sheet) -> bool:
    """Whether an opaque photo lies behind everything, so that no ground and no hole is seen."""
    is_framed = sheet.inside_border is not None and sheet.border.outside
    return (
        sheet.photo.shape[2] == 3
        and sheet.photo_mask is None
        and sheet.shape is None
        and not is_framed
    )


def _over_photo(sheet: Sheet) -> Picture8:
    """Everything drawn straight onto a photo that covers the sheet."""
    pixels = np.empty((*sheet.photo.shape[:2], 4), np.uint8)
    cv2.cvtColor(sheet.photo, cv2.COLOR_RGB2RGBA, dst=pixels)
    canvas = _surface(pixels).getCanvas()
    _draw_sprites(canvas, sheet, sheet.under_border)
    if sheet.inside_border is not None:
        _draw_border(canvas, sheet, sheet.inside_border)
    _draw_sprites(canvas, sheet, (*sheet.over_border, *sheet.unclipped, *sheet.watermark))
    return cv2.cvtColor(pixels, cv2.COLOR_RGBA2RGB).astype(np.uint8, copy=False)


def _fill(canvas: skia.Canvas, fill: Fill, mode: skia.BlendMode = skia.BlendMode.kSrcOver) -> None:
    if isinstance(fill, str):
        canvas.drawColor(_colour(fill), mode)
    elif fill is not None:
        canvas.drawImage(_image(fill), 0, 0, paint=_blend(mode))


def _draw_content(canvas: skia.Canvas, sheet: Sheet) -> None:
    """The backdrop, the photo over it and the pieces under the border."""
    _fill(canvas, sheet.backdrop)
    if sheet.photo_mask is None:
        canvas.drawImage(_image(sheet.photo), 0, 0)
    else:
        canvas.saveLayer()
        canvas.drawImage(_image(sheet.photo), 0, 0)
        _clip(canvas, sheet.photo_mask)
        canvas.restore()
    _draw_sprites(canvas, sheet, sheet.under_border)


def _clip(canvas: skia.Canvas, mask: Mask) -> None:
    """Keep only what lies in ``mask``."""
    canvas.drawImage(_mask(mask), 0, 0, paint=_blend(skia.BlendMode.kDstIn))


def _draw_sprites(canvas: skia.Canvas, sheet: Sheet, sprites: tuple[Sprite, ...]) -> None:
    left, top = sheet.origin
    for sprite in sprites:
        if not sprite.pixels.size:
            continue
        paint = skia.Paint(Color=skia.Color(0, 0, 0, round(255 * sprite.opacity)))
        paint.setBlendMode(_BLEND_MODES[sprite.blend])
        # Not copied: the sprite's pixels outlive the drawing.
        image = skia.Image.fromarray(
            sprite.pixels, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType, copy=False
        )
        canvas.drawImage(image, sprite.left - left, sprite.top - top, paint=paint)


_BLEND_MODES: dict[BlendMode, skia.BlendMode] = {
    "normal": skia.BlendMode.kSrcOver,
    "darken": skia.BlendMode.kDarken,
    "multiply": skia.BlendMode.kMultiply,
    "color-burn": skia.BlendMode.kColorBurn,
    "lighten": skia.BlendMode.kLighten,
    "screen": skia.BlendMode.kScreen,
    "color-dodge": skia.BlendMode.kColorDodge,
    "overlay": skia.BlendMode.kOverlay,
    "soft-light": skia.BlendMode.kSoftLight,
    "hard-light": skia.BlendMode.kHardLight,
    "difference": skia.BlendMode.kDifference,
    "exclusion": skia.BlendMode.kExclusion,
    "hue": skia.BlendMode.kHue,
    "saturation": skia.BlendMode.kSaturation,
    "color": skia.BlendMode.kColor,
    "luminosity": skia.BlendMode.kLuminosity,
}


def _draw_border(canvas: skia.Canvas, sheet: Sheet, inside: Mask) -> None:
    """The border over whatever is there: its line, outside its inner edge."""
    border, box = sheet.border, sheet.untouched
    band = 255 - inside
    if sheet.line is not None:
        band = cv2.multiply(band, sheet.line, scale=1 / 255).astype(np.uint8, copy=False)
    canvas.save()
    if box is not None:
        skipped = skia.Rect.MakeLTRB(
            math.ceil(box.left), math.ceil(box.top), math.floor(box.right), math.floor(box.bottom)
        )
        if not skipped.isEmpty():
            canvas.clipRect(skipped, skia.ClipOp.kDifference)
    paint = skia.Paint(Color=_colour(border.colour, border.opacity))
    canvas.drawImage(_mask(band), 0, 0, paint=paint)
    canvas.restore()


def _draw_side_by_side(canvas: skia.Canvas, sheet: Sheet, inside: Mask) -> None:
    """Photo and outside border, each covering exactly what the other leaves.

    Their shares of an edge pixel add up to one, so they are added, not laid over each other.
    """
    canvas.saveLayer()
    _draw_content(canvas, sheet)
    _clip(canvas, inside)
    canvas.restore()
    canvas.saveLayer(None, _blend(skia.BlendMode.kPlus))
    _fill(canvas, sheet.backdrop)
    colour = _colour(sheet.border.colour, sheet.border.opacity)
    if sheet.line is None:
        canvas.drawColor(colour)
    else:
        canvas.drawImage(_mask(sheet.line), 0, 0, paint=skia.Paint(Color=colour))
    canvas.drawImage(_mask(255 - inside), 0, 0, paint=_blend(skia.BlendMode.kDstIn))
    canvas.restore()


def _blend(mode: skia.BlendMode) -> skia.Paint:
    return skia.Paint(BlendMode=mode)


def _colour(colour: str, opacity: float = 1) -> int:
    packed: int = skia.Color(*rgb_of(colour), round(255 * opacity))
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
