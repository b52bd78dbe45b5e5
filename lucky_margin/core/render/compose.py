"""Composing: an ordered list of layers, back to front, into one picture.

Colours mix in encoded sRGB by the W3C Compositing formulas. What is clipped together stands in a
group: it is put together first, unclipped, and one mask cuts it all at once, so that nothing of
what lies below shows along the edges inside.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np
import skia

from lucky_margin.core.document import BlendMode, Box, Piece, rgb_of
from lucky_margin.core.pieces import Sprite
from lucky_margin.core.types import Mask, Picture8


@dataclass(frozen=True, eq=False)
class Layer:
    """One colour (``#RRGGBB``), or a picture of the sheet's sides, laid over what is below."""

    paint: str | Picture8
    mask: Mask | None = None
    """How much of it there is at each pixel; None is all of it everywhere."""
    opacity: float = 1.0
    spared: Box | None = None
    """Where there is certainly nothing of it, in the sheet's pixels; only saves time."""
    blend: BlendMode = "normal"
    """Of a colour with a mask."""


@dataclass(frozen=True, eq=False)
class SpriteLayer:
    """A sprite laid over what is below; its place counts from the sheet's corner."""

    sprite: Sprite
    left: int
    top: int
    piece: Piece | None = None
    """What it is of; None is the watermark."""


@dataclass(frozen=True, eq=False)
class Group:
    """Layers that are put together before a mask cuts them. ``added`` groups cover exactly what
    the mask of the group below leaves, so their shares of a pixel add up."""

    layers: "tuple[AnyLayer, ...]"
    mask: Mask | None
    added: bool = False


AnyLayer = Layer | SpriteLayer | Group


def compose(layers: Sequence[AnyLayer], sides: tuple[int, int]) -> Picture8:
    """The picture of ``layers``, back to front, of ``sides`` (width, height): 3 channels when it
    is opaque, else 4 with straight alpha.

    Nothing is seen of what lies below an opaque layer that covers the sheet, so composing begins
    at the topmost of those.
    """
    flat = _flattened(layers)
    begin = max((number for number, one in enumerate(flat) if _covers(one)), default=None)
    if begin is not None:
        return _over(flat[begin], flat[begin + 1 :], sides)
    if len(flat) == 1 and _is_picture(flat[0]):
        return flat[0].paint  # type: ignore[union-attr, return-value] # it is a picture
    pixels = np.zeros((sides[1], sides[0], 4), np.uint8)
    canvas = _canvas(pixels)
    for number, layer in enumerate(flat):
        _draw(canvas, layer, is_lowest=number == 0)
    return _straight(pixels)


def with_alpha(picture: Picture8) -> Picture8:
    """``picture`` with 4 channels."""
    if picture.shape[2] == 4:
        return picture
    return np.asarray(cv2.cvtColor(picture, cv2.COLOR_RGB2RGBA), np.uint8)


def blended(
    below: Picture8, above: Picture8, blend: BlendMode, share: Mask | None, opacity: float
) -> Picture8:
    """``above`` over ``below``, both of 3 channels, as much as ``share`` and ``opacity`` say."""
    if blend == "normal" and share is None and opacity == 1:
        return above
    cover = np.full(above.shape[:2], 255, np.uint8) if share is None else share
    if opacity < 1:
        cover = np.asarray(cv2.convertScaleAbs(cover, alpha=opacity), np.uint8)
    pixels = cv2.cvtColor(below, cv2.COLOR_RGB2RGBA).astype(np.uint8, copy=False)
    image = _image(np.dstack([above, cover]))
    _canvas(pixels).drawImage(image, 0, 0, paint=_blend(_BLEND_MODES[blend]))
    return cv2.cvtColor(pixels, cv2.COLOR_RGBA2RGB).astype(np.uint8, copy=False)


def _flattened(layers: Sequence[AnyLayer]) -> list[AnyLayer]:
    """Groups that nothing cuts are the layers they are made of; but shares that add up stay
    together when anything lies below them."""
    flat: list[AnyLayer] = []
    for layer in layers:
        if isinstance(layer, Group) and layer.mask is None and not (flat and _adds_up(layer)):
            flat += _flattened(layer.layers)
        else:
            flat.append(layer)
    return flat


def _adds_up(group: Group) -> bool:
    return group.added or any(isinstance(one, Group) and _adds_up(one) for one in group.layers)


def _covers(layer: AnyLayer) -> bool:
    """Whether nothing can be seen of what lies below."""
    if not isinstance(layer, Layer) or layer.mask is not None or layer.opacity < 1:
        return False
    return isinstance(layer.paint, str) or layer.paint.shape[2] == 3


def _is_picture(layer: AnyLayer) -> bool:
    is_plain = isinstance(layer, Layer) and layer.mask is None and layer.opacity == 1
    return is_plain and not isinstance(layer.paint, str)  # type: ignore[union-attr] # it is a Layer


def _over(base: AnyLayer, layers: Sequence[AnyLayer], sides: tuple[int, int]) -> Picture8:
    """Layers drawn straight onto an opaque one."""
    assert isinstance(base, Layer)  # only such a one covers
    if not layers and not isinstance(base.paint, str):
        return base.paint
    pixels = np.empty((sides[1], sides[0], 4), np.uint8)
    if isinstance(base.paint, str):
        pixels.view(np.uint32)[:] = np.array((*rgb_of(base.paint), 255), np.uint8).view(np.uint32)
    else:
        cv2.cvtColor(base.paint, cv2.COLOR_RGB2RGBA, dst=pixels)
    canvas = _canvas(pixels)
    for layer in layers:
        _draw(canvas, layer)
    return cv2.cvtColor(pixels, cv2.COLOR_RGBA2RGB).astype(np.uint8, copy=False)


def _draw(canvas: skia.Canvas, layer: AnyLayer, *, is_lowest: bool = False) -> None:
    """A layer over what is there; where nothing is there yet, a group needs no sheet of its own."""
    if isinstance(layer, Group):
        if not is_lowest:
            mode = skia.BlendMode.kPlus if layer.added else skia.BlendMode.kSrcOver
            canvas.saveLayer(None, _blend(mode))
        for number, one in enumerate(layer.layers):
            _draw(canvas, one, is_lowest=is_lowest and number == 0)
        if layer.mask is not None:
            canvas.drawImage(_mask(layer.mask), 0, 0, paint=_blend(skia.BlendMode.kDstIn))
        if not is_lowest:
            canvas.restore()
    elif isinstance(layer, SpriteLayer):
        _draw_sprite(canvas, layer)
    elif isinstance(layer.paint, str):
        _draw_colour(canvas, layer.paint, layer)
    elif layer.mask is None:
        canvas.save()
        _spare(canvas, layer.spared)
        _draw_picture(canvas, layer.paint)
        canvas.restore()
    else:
        masked = Group((Layer(layer.paint),), layer.mask)
        _draw(canvas, masked, is_lowest=is_lowest)


def _draw_picture(canvas: skia.Canvas, picture: Picture8) -> None:
    if picture.shape[2] == 3:
        canvas.drawImage(_image(picture), 0, 0)
        return
    left, top, width, height = cv2.boundingRect(picture[:, :, 3])
    if width:
        part = np.ascontiguousarray(picture[top : top + height, left : left + width])
        canvas.drawImage(_image(part), left, top)


def _draw_colour(canvas: skia.Canvas, colour: str, layer: Layer) -> None:
    packed = _colour(colour, layer.opacity)
    if layer.mask is None:
        canvas.drawColor(packed)
        return
    left, top, width, height = cv2.boundingRect(layer.mask)
    if not width:
        return
    canvas.save()
    _spare(canvas, layer.spared)
    paint = skia.Paint(Color=packed, BlendMode=_BLEND_MODES[layer.blend])
    part = layer.mask[top : top + height, left : left + width]
    canvas.drawImage(_mask(part), left, top, paint=paint)
    canvas.restore()


def _spare(canvas: skia.Canvas, box: Box | None) -> None:
    """Draw nothing in whole pixels of ``box`` until the canvas is restored."""
    if box is None:
        return
    spared = skia.Rect.MakeLTRB(
        math.ceil(box.left), math.ceil(box.top), math.floor(box.right), math.floor(box.bottom)
    )
    if not spared.isEmpty():
        canvas.clipRect(spared, skia.ClipOp.kDifference)


def _draw_sprite(canvas: skia.Canvas, layer: SpriteLayer) -> None:
    sprite = layer.sprite
    if not sprite.pixels.size:
        return
    paint = skia.Paint(Color=skia.Color(0, 0, 0, round(255 * sprite.opacity)))
    paint.setBlendMode(_BLEND_MODES[sprite.blend])
    # Not copied: the sprite's pixels outlive the drawing.
    image = skia.Image.fromarray(
        sprite.pixels, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType, copy=False
    )
    canvas.drawImage(image, layer.left, layer.top, paint=paint)


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


def _blend(mode: skia.BlendMode) -> skia.Paint:
    return skia.Paint(BlendMode=mode)


def _colour(colour: str, opacity: float = 1) -> int:
    packed: int = skia.Color(*rgb_of(colour), round(255 * opacity))
    return packed


def _canvas(pixels: Picture8) -> skia.Canvas:
    height, width = pixels.shape[:2]
    info = skia.ImageInfo.Make(width, height, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    return skia.Surface.MakeRasterDirect(info, pixels).getCanvas()


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
