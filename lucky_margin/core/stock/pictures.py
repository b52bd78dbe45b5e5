"""Small pictures of what is in stock, and of badges that were kept."""

import cv2
import numpy as np

from lucky_margin.core.document import (
    BadgeParts,
    BadgePiece,
    Export,
    FixedPixels,
    MarginAnchor,
    PhotoAnchor,
    Piece,
    Size,
    StockBackdrop,
    Transparent,
    blank_finish,
)
from lucky_margin.core.grounds import stock_backdrop
from lucky_margin.core.render import render
from lucky_margin.core.scene import Scene, Sources
from lucky_margin.core.types import Picture8

FACE = 132, 104
"""Columns and rows of a backdrop's picture."""

BADGE_SIDE = 168
"""The longer side of a badge's picture, in pixels."""

_SHEET = 1000
_ROOM = 5
"""Around a badge, in pixels, for soft edges."""


def backdrop_face(ground: StockBackdrop) -> Picture8:
    """A backdrop, the whole of it, small."""
    whole = stock_backdrop(ground, FACE[0] / FACE[1])
    return np.asarray(cv2.resize(whole, FACE, interpolation=cv2.INTER_AREA), np.uint8)


def badge_face(parts: BadgeParts, sources: Sources) -> Picture8:
    """A badge alone on nothing; what hung on a point of a photo lies in the middle."""
    size = Size(id="badge", name="Badge", pixels=FixedPixels(width=_SHEET, height=_SHEET), margin=0)
    sheet = blank_finish(name="Badge", size=size, ground=Transparent())
    pieces = tuple(_off_photo(part) for part in parts)
    sheet = sheet.model_copy(update={"pieces": pieces, "export": Export(format="png")})
    scene = Scene(sheet, size, sources)
    boxes = [laid.drawn for laid in scene.pieces]
    left, top = min(box.left for box in boxes), min(box.top for box in boxes)
    right, bottom = max(box.right for box in boxes), max(box.bottom for box in boxes)
    scale = min(1.0, (BADGE_SIDE - 2 * _ROOM) / max(right - left, bottom - top, 1))
    side = round(_SHEET * scale)
    x, y = (max(0, round(scale * at) - _ROOM) for at in (left, top))
    across, down = (min(side, round(scale * at) + _ROOM) for at in (right, bottom))
    region = (min(x, side - 1), min(y, side - 1), max(1, across - x), max(1, down - y))
    return render(scene, scale=scale, region=region)


def _off_photo(piece: Piece) -> Piece:
    fields: dict[str, object] = {"sizes": None}
    if isinstance(piece.anchor, PhotoAnchor):
        fields["anchor"] = MarginAnchor()
    if isinstance(piece, BadgePiece):
        fields["tip"] = None
    return piece.model_copy(update=fields)
