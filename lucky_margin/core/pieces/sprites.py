"""Sprites: pieces drawn at a picture's scale."""

import math
from dataclasses import dataclass
from typing import Literal

import cv2
import numpy as np
import skia

from lucky_margin.core.blurring import blurred_small
from lucky_margin.core.contour import calmed, distance_to_contour, line_mask
from lucky_margin.core.document import (
    BadgePiece,
    BlendMode,
    Box,
    PicturePiece,
    Shadow,
    TextPiece,
    rgb_of,
)
from lucky_margin.core.pieces.laying import LaidPiece
from lucky_margin.core.pieces.repeats import Copy
from lucky_margin.core.sampling import as_8_bits, encode_16_bits, to_linear
from lucky_margin.core.types import Picture8

Part = Literal["all", "all but the fill", "fill"]
"""What of a piece is drawn: its letters' fill is judged against everything else."""

_BEYOND = 0.5
"""Of the picture's sides: how far around it a sprite is drawn."""


_NEARER = 2.0
"""How much larger than flat a line round a piece may be where that comes nearer."""

_LEAST_ALPHA = 1e-6

CALM = 0.006
"""Over how much of its longer side a line round a picture evens out hair and grass."""

_SAMPLING = skia.SamplingOptions(skia.FilterMode.kLinear, skia.MipmapMode.kLinear)


@dataclass(frozen=True, eq=False)
class Sprite:
    """``pixels`` (premultiplied RGBA) lie with their corner at ``left``, ``top`` of a picture."""

    left: int
    top: int
    pixels: Picture8
    opacity: float = 1
    blend: BlendMode = "normal"

    @property
    def nbytes(self) -> int:
        """Of its pixels."""
        return self.pixels.nbytes


def sprite_of(
    laid: LaidPiece,
    columns: int,
    rows: int,
    scale_x: float,
    scale_y: float,
    *,
    picture: Picture8 | None = None,
    part: Part = "all",
) -> Sprite:
    """``laid`` on a picture of ``columns`` x ``rows``; without pixels when nothing of it is seen.

    ``picture`` is that of a picture piece, in straight RGB or RGBA.
    """
    reach = _reach(laid)
    left = max(math.floor(reach.left * scale_x) - 1, -math.ceil(_BEYOND * columns))
    top = max(math.floor(reach.top * scale_y) - 1, -math.ceil(_BEYOND * rows))
    right = min(math.ceil(reach.right * scale_x) + 1, math.ceil((1 + _BEYOND) * columns))
    bottom = min(math.ceil(reach.bottom * scale_y) + 1, math.ceil((1 + _BEYOND) * rows))
    if right <= max(left, 0) or bottom <= max(top, 0) or left >= columns or top >= rows:
        return Sprite(0, 0, np.zeros((0, 0, 4), np.uint8))
    pixels = np.zeros((bottom - top, right - left, 4), np.uint8)
    info = skia.ImageInfo.Make(
        right - left, bottom - top, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType
    )
    canvas = skia.Surface.MakeRasterDirect(info, pixels).getCanvas()
    canvas.translate(-left, -top)
    canvas.scale(scale_x, scale_y)
    if laid.piece.shadow and part != "fill":
        _draw_shadow(canvas, laid, laid.piece.shadow, picture)
    canvas.concat(laid.to_output)
    _draw(canvas, laid, picture, part)
    if laid.piece.blur:
        pixels = blurred_sprite(pixels, laid.piece.blur * laid.short_side * scale_x)
    return Sprite(left, top, pixels, laid.piece.opacity, laid.piece.blend)


def blurred_sprite(pixels: Picture8, deviation: float) -> Picture8:
    """Premultiplied pixels blurred by a Gaussian, in linear light."""
    straight = np.asarray(cv2.cvtColor(pixels, cv2.COLOR_mRGBA2RGBA), np.uint8)
    light = to_linear(straight)
    light[:, :, :3] *= light[:, :, 3:]
    blurred = cv2.GaussianBlur(light, (0, 0), deviation, borderType=cv2.BORDER_CONSTANT)
    soft = np.asarray(blurred, np.float32)
    soft[:, :, :3] /= np.maximum(soft[:, :, 3:], np.float32(_LEAST_ALPHA))
    encoded = as_8_bits(encode_16_bits(soft))
    return np.asarray(cv2.cvtColor(encoded, cv2.COLOR_RGBA2mRGBA), np.uint8)


def _draw(canvas: skia.Canvas, laid: LaidPiece, picture: Picture8 | None, part: Part) -> None:
    for copy in laid.copies:
        if copy.blur:
            _draw_blurred(canvas, copy, laid, picture, part)
        else:
            _draw_placed(canvas, copy, laid, picture, part)


def _draw_placed(
    canvas: skia.Canvas, copy: Copy, laid: LaidPiece, picture: Picture8 | None, part: Part
) -> None:
    canvas.save()
    canvas.translate(copy.x, copy.y)
    canvas.rotate(copy.angle)
    canvas.scale(copy.size, copy.size)
    _draw_copy(canvas, laid, picture, part)
    canvas.restore()


def _draw_blurred(
    canvas: skia.Canvas, copy: Copy, laid: LaidPiece, picture: Picture8 | None, part: Part
) -> None:
    """A copy on a sheet of its own, of what of the canvas it may touch."""
    matrix = canvas.getTotalMatrix()
    deviation = copy.blur * matrix.mapRadius(1)
    half = max(laid.sides) * copy.size
    around = matrix.mapRect(skia.Rect.MakeXYWH(copy.x - half, copy.y - half, 2 * half, 2 * half))
    around.outset(3 * deviation + 2, 3 * deviation + 2)
    touched = around.roundOut()
    if not touched.intersect(canvas.getDeviceClipBounds()):
        return
    pixels = np.zeros((touched.height(), touched.width(), 4), np.uint8)
    info = skia.ImageInfo.Make(
        touched.width(), touched.height(), skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType
    )
    sheet = skia.Surface.MakeRasterDirect(info, pixels).getCanvas()
    sheet.translate(-touched.left(), -touched.top())
    sheet.concat(matrix)
    _draw_placed(sheet, copy, laid, picture, part)
    soft = blurred_sprite(pixels, deviation)
    canvas.save()
    canvas.resetMatrix()
    image = skia.Image.fromarray(soft, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    canvas.drawImage(image, touched.left(), touched.top())
    canvas.restore()


def _draw_copy(canvas: skia.Canvas, laid: LaidPiece, picture: Picture8 | None, part: Part) -> None:
    piece = laid.piece
    if piece.kind == "picture":
        if picture is not None and _follows_alpha(laid, piece, picture):
            _draw_line_round(canvas, laid, piece, picture)
            _draw_picture(canvas, laid, picture)
        else:
            _draw_picture(canvas, laid, picture)
            _draw_line(canvas, laid, piece)
    elif piece.kind == "badge":
        if piece.colour:
            canvas.drawPath(laid.outline, _paint(piece.colour))
        _draw_line(canvas, laid, piece)
        if laid.lettering:
            canvas.drawPath(laid.lettering, _paint(piece.letters))
    elif piece.kind == "mark":
        for colour, path in laid.coloured or [(piece.colour, laid.outline)]:
            canvas.drawPath(path, _paint(colour))
    else:
        _draw_words(canvas, laid, piece, part)


def _draw_words(canvas: skia.Canvas, laid: LaidPiece, piece: TextPiece, part: Part) -> None:
    if part != "fill":
        _draw_behind(canvas, laid, piece)
    if part != "all but the fill":
        canvas.drawPath(laid.outline, _paint(piece.colour))
        for colour, letters in laid.coloured:
            canvas.drawPath(letters, _paint(colour))


def _draw_line(canvas: skia.Canvas, laid: LaidPiece, piece: BadgePiece | PicturePiece) -> None:
    """The line along a badge's or a picture's edge."""
    if piece.stroke and piece.stroke_width:
        path = laid.outline or _box_path(laid)
        canvas.drawPath(path, _line(piece.stroke, piece.stroke_width * laid.short_side))


def _follows_alpha(laid: LaidPiece, piece: PicturePiece, picture: Picture8) -> bool:
    """Whether a picture's line goes round what it shows: it is cut to no form, and a subject or not
    opaque."""
    if laid.outline or picture.shape[2] < 4:
        return False
    return piece.subject is not None or bool(picture[:, :, 3].min() < 255)


def _draw_line_round(
    canvas: skia.Canvas, laid: LaidPiece, piece: PicturePiece, picture: Picture8
) -> None:
    """The line round what a picture shows, under it; measured in the picture's own pixels."""
    if not piece.stroke or not piece.stroke_width:
        return
    covered = _covering(laid, *picture.shape[:2])
    scale = covered.width() / picture.shape[1]
    width = piece.stroke_width * laid.short_side / scale
    pad = math.ceil(width) + 2
    alpha = np.pad(picture[:, :, 3], pad).astype(np.float32) / np.float32(255)
    distance = distance_to_contour(calmed(alpha, CALM * max(alpha.shape)), width)
    mask = line_mask(distance, gap=0, width=width, softness=0, strength=1, inside=False)
    line = np.empty((*mask.shape, 4), np.uint8)
    line[:, :, :3], line[:, :, 3] = rgb_of(piece.stroke), mask
    canvas.drawImageRect(
        skia.Image.fromarray(line, skia.kRGBA_8888_ColorType, skia.kUnpremul_AlphaType),
        covered.makeOutset(pad * scale, pad * scale),
        _SAMPLING,
        skia.Paint(AntiAlias=True),
    )


def _box_path(laid: LaidPiece) -> skia.Path:
    path = skia.Path()
    path.addRect(_box(laid))
    return path


def _box(laid: LaidPiece) -> skia.Rect:
    width, height = laid.sides
    return skia.Rect.MakeXYWH(-width / 2, -height / 2, width, height)


def _draw_behind(canvas: skia.Canvas, laid: LaidPiece, piece: TextPiece) -> None:
    """A text's plate and the line around its letters."""
    if piece.plate and piece.plate.opacity:
        plate, em = piece.plate, laid.em
        box = plate_of(laid, piece)
        radius = min(plate.radius * em, box.width() / 2, box.height() / 2)
        canvas.drawRoundRect(box, radius, radius, _paint(plate.colour, plate.opacity))
    if piece.outline and piece.outline.width:
        width = 2 * piece.outline.width * laid.em
        canvas.drawPath(laid.outline, _line(piece.outline.colour, width))


def plate_of(laid: LaidPiece, piece: TextPiece) -> skia.Rect:
    """The plate behind a text, in pixels from the text's middle."""
    padding = piece.plate.padding * laid.em if piece.plate else 0
    x, y = laid.sides[0] / 2 + padding, laid.sides[1] / 2 + padding
    return skia.Rect.MakeLTRB(-x, -y, x, y)


def _draw_shadow(
    canvas: skia.Canvas, laid: LaidPiece, shadow: Shadow, picture: Picture8 | None
) -> None:
    """The whole piece's shape, blurred; it falls the same way however the piece is turned."""
    size, onto_pixels = canvas.getBaseLayerSize(), canvas.getTotalMatrix()
    short = laid.short_side
    shape = np.zeros((size.height(), size.width()), np.uint8)
    info = skia.ImageInfo.MakeA8(size.width(), size.height())
    sheet = skia.Surface.MakeRasterDirect(info, shape).getCanvas()
    sheet.concat(onto_pixels)
    sheet.translate(shadow.x * short, shadow.y * short)
    sheet.concat(laid.to_output)
    _draw(sheet, laid, picture, "all")
    deviation = shadow.blur * short * onto_pixels.mapRadius(1)
    if deviation:
        soft = np.rint(blurred_small(shape, deviation)).astype(np.uint8)
        shape = cv2.resize(soft, (size.width(), size.height()))
    paint = _paint(shadow.colour, shadow.opacity)
    canvas.save()
    canvas.resetMatrix()
    image = skia.Image.fromarray(shape, skia.kAlpha_8_ColorType, skia.kPremul_AlphaType)
    canvas.drawImage(image, 0, 0, paint=paint)
    canvas.restore()


def _draw_picture(canvas: skia.Canvas, laid: LaidPiece, picture: Picture8 | None) -> None:
    if picture is None:
        return
    rgba = picture if picture.shape[2] == 4 else cv2.cvtColor(picture, cv2.COLOR_RGB2RGBA)
    image = skia.Image.fromarray(
        np.ascontiguousarray(rgba), skia.kRGBA_8888_ColorType, skia.kUnpremul_AlphaType
    )
    canvas.save()
    if laid.outline:
        canvas.clipPath(laid.outline, skia.ClipOp.kIntersect, True)
    canvas.drawImageRect(
        image, _covering(laid, *picture.shape[:2]), _SAMPLING, skia.Paint(AntiAlias=True)
    )
    canvas.restore()


def _covering(laid: LaidPiece, rows: int, columns: int) -> skia.Rect:
    """Where a picture is drawn so that it covers its piece, in its own proportions."""
    width, height = laid.sides
    scale = max(width / columns, height / rows)
    wide, high = columns * scale, rows * scale
    return skia.Rect.MakeXYWH(-wide / 2, -high / 2, wide, high)


def _reach(laid: LaidPiece) -> Box:
    """The upright box around all that is drawn of a piece, in output pixels."""
    piece, around = laid.piece, 0.0
    if piece.kind == "text":
        around = max(
            piece.outline.width * laid.em if piece.outline else 0.0,
            piece.plate.padding * laid.em if piece.plate else 0.0,
        )
    elif piece.kind != "mark" and piece.stroke:
        # Sharp corners reach further than half the line.
        around = 2 * piece.stroke_width * laid.short_side
    box = laid.drawn
    blurs = 3 * (piece.blur * laid.short_side + max(copy.blur for copy in laid.copies))
    line = around * math.sqrt(2) * (_NEARER if piece.perspective else 1)
    left, top, right, bottom = (line + blurs,) * 4
    if piece.shadow:
        short, shadow = laid.short_side, piece.shadow
        blur = 3 * shadow.blur * short
        left += max(0.0, blur - shadow.x * short)
        right += max(0.0, blur + shadow.x * short)
        top += max(0.0, blur - shadow.y * short)
        bottom += max(0.0, blur + shadow.y * short)
    return Box(
        left=box.left - left,
        top=box.top - top,
        width=box.width + left + right,
        height=box.height + top + bottom,
    )


def _paint(colour: str, opacity: float = 1) -> skia.Paint:
    red, green, blue = rgb_of(colour)
    return skia.Paint(Color=skia.Color(red, green, blue, round(255 * opacity)), AntiAlias=True)


def _line(colour: str, width: float) -> skia.Paint:
    paint = _paint(colour)
    paint.setStyle(skia.Paint.kStroke_Style)
    paint.setStrokeWidth(width)
    paint.setStrokeJoin(skia.Paint.kRound_Join)
    return paint
