"""The watermark: where its mark goes, once or again and again, light or dark by what is behind."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import (
    Box,
    MarginAnchor,
    MarkPiece,
    MarkShade,
    PicturePiece,
    TextPiece,
    Watermark,
)
from lucky_margin.core.framing import Frame
from lucky_margin.core.oklab import picture_from_light
from lucky_margin.core.pieces.laying import LaidPiece, Margins, lay_piece
from lucky_margin.core.pieces.marks import PLAIN, mark_parts
from lucky_margin.core.sampling import to_linear
from lucky_margin.core.text import FontFinder
from lucky_margin.core.types import Picture8

MIDDLE = 0.62
"""OKLab lightness behind words from which they are dark."""

ACROSS = 0.82
"""Of the margin box's diagonal: a mark across the whole picture."""

LOGO_EMS = 5
"""Ems of the mark's size to a logo's width."""

_LARGEST = 4.0
_NARROWEST, _WIDEST = 0.005, 20.0
"""What a document takes of an em or a logo's width, and of a mark's width, in short sides."""

MOST_REPEATS = 4000

Plane = NDArray[np.float32]
"""OKLab lightness, shape (rows, columns)."""


@dataclass(frozen=True)
class Spots:
    """Middles of a repeated mark in output pixels, shape (n, 2), and the pitch between them."""

    places: np.ndarray
    across: float
    down: float


def repeated_spots(
    width: float, height: float, mark_width: float, mark_height: float, angle: float,
    gap_x: float, gap_y: float, stagger: bool,
) -> Spots:  # fmt: skip
    """Even places for a mark all over a picture: rows turned by ``angle`` degrees, every other
    one moved on by half a pitch when they are staggered. One place is the picture's middle; those
    whose mark cannot be seen are left out.
    """
    across, down = mark_width + gap_x, mark_height + gap_y
    reach = math.hypot(width, height) / 2 + math.hypot(mark_width, mark_height) / 2
    across = max(across, 2 * reach / math.sqrt(MOST_REPEATS))
    down = max(down, 2 * reach / math.sqrt(MOST_REPEATS))
    columns, rows = math.ceil(reach / across) + 1, math.ceil(reach / down)
    turn = math.radians(angle)
    cos, sin = math.cos(turn), math.sin(turn)
    places = []
    for row in range(-rows, rows + 1):
        shift = across / 2 if stagger and row % 2 else 0.0
        for column in range(-columns, columns + 1):
            x, y = column * across + shift, row * down
            places.append((width / 2 + x * cos - y * sin, height / 2 + x * sin + y * cos))
    spots = np.array(places)
    half = math.hypot(mark_width, mark_height) / 2
    seen = (np.abs(spots - [width / 2, height / 2]) <= [width / 2 + half, height / 2 + half]).all(1)
    return Spots(spots[seen], across, down)


def watermark_pieces(
    mark: Watermark, margins: Margins, frame: Frame, font: FontFinder
) -> list[LaidPiece]:
    """The mark laid out, once for each place; light."""
    if mark.place == "spot":
        return [_laid(mark, mark.size, mark.spot, 0, margins, frame, font)]
    middle = MarginAnchor()
    laid = _laid(mark, mark.size, middle, mark.angle, margins, frame, font)
    if mark.place == "across":
        wanted = math.hypot(margins.box.width, margins.box.height) * ACROSS
        size = min(_LARGEST, mark.size * wanted / laid.width)
        return [_laid(mark, size, middle, mark.angle, margins, frame, font)]
    output = frame.output
    gap = mark.gap * mark.size * output.short_side
    spots = repeated_spots(
        output.width,
        output.height,
        laid.width,
        laid.height,
        mark.angle,
        gap,
        gap,
        mark.stagger,
    )
    placed = [replace(laid, x=x, y=y) for x, y in spots.places.tolist()]
    if not mark.whole:
        return placed
    return [one for one in placed if _is_whole(one.bounds, output.width, output.height)]


def _is_whole(box: Box, width: float, height: float) -> bool:
    return box.left >= 0 and box.top >= 0 and box.right <= width and box.bottom <= height


def _laid(
    mark: Watermark,
    size: float,
    anchor: MarginAnchor,
    angle: float,
    margins: Margins,
    frame: Frame,
    font: FontFinder,
) -> LaidPiece:
    """The mark with an em of ``size`` short sides."""
    common: dict[str, Any] = {
        "id": "watermark", "anchor": anchor, "angle": angle, "opacity": mark.opacity
    }  # fmt: skip
    if mark.logo:
        logo = mark.logo
        width = min(_LARGEST, LOGO_EMS * size)
        logo_piece = PicturePiece(
            **common, sha256=logo.sha256, ratio=logo.ratio, knock_out=logo.knock_out, width=width
        )
        return lay_piece(logo_piece, margins, frame, font)
    if mark.mark:
        ems = mark_parts(mark.mark.design, font).whole.computeTightBounds().width()
        width = min(max(size * ems, _NARROWEST), _WIDEST)
        kept = MarkPiece(**common, mark=mark.mark, width=width, shade="light")
        return lay_piece(kept, margins, frame, font)
    words = TextPiece(
        **common,
        text=mark.text,
        family=mark.family,
        weight=mark.weight,
        size=size,
        wrap=None,
    )
    return lay_piece(words, margins, frame, font)


def shaded_watermark(
    mark: Watermark,
    margins: Margins,
    frame: Frame,
    behind: Callable[[], Picture8],
    font: FontFinder,
) -> list[LaidPiece]:
    """The watermark laid out, light or dark as it is to be drawn; ``behind`` draws a small copy of
    the whole picture without it, where that matters. A logo keeps its own colours."""
    laid = watermark_pieces(mark, margins, frame, font)
    if mark.logo:
        return laid
    if mark.shade != "auto":
        return [_shaded(one, mark.shade) for one in laid]
    light = np.ascontiguousarray(to_linear(behind())[:, :, :3])
    lightness = picture_from_light(light)[:, :, 0]
    return [_shaded(one, _shade(one, lightness, frame)) for one in laid]


def _shaded(laid: LaidPiece, shade: MarkShade) -> LaidPiece:
    fields: dict[str, str] = {"colour": PLAIN[shade]}
    if isinstance(laid.piece, MarkPiece):
        fields["shade"] = shade
    return replace(laid, piece=laid.piece.model_copy(update=fields))


def _shade(laid: LaidPiece, lightness: Plane, frame: Frame) -> MarkShade:
    return "dark" if lightness_behind(laid, lightness, frame) > MIDDLE else "light"


def lightness_behind(laid: LaidPiece, lightness: Plane, frame: Frame) -> float:
    """Median of the lightness of a small copy of the picture under a piece's upright box."""
    rows, columns = lightness.shape
    step_x, step_y = columns / frame.output.width, rows / frame.output.height
    box = laid.bounds
    left = min(max(int(box.left * step_x), 0), columns - 1)
    top = min(max(int(box.top * step_y), 0), rows - 1)
    right = min(max(math.ceil(box.right * step_x), left + 1), columns)
    bottom = min(max(math.ceil(box.bottom * step_y), top + 1), rows)
    return _median(lightness[top:bottom, left:right])


def _median(values: Plane) -> float:
    """As NumPy's, which takes ten times as long for the few values under a small mark."""
    ordered = np.sort(values, axis=None)
    return float(ordered[(ordered.size - 1) // 2] + ordered[ordered.size // 2]) / 2
