"""Where pieces lie: their own boxes and outlines, turned and anchored on a size."""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import skia
from numpy.typing import NDArray

from lucky_margin.core.document import (
    BadgePiece,
    Border,
    Box,
    MarginAnchor,
    MarkPiece,
    PhotoPoint,
    PicturePiece,
    Piece,
    Size,
    TextPiece,
)
from lucky_margin.core.framing import Frame, Output
from lucky_margin.core.outlines import (
    Outline,
    band_edges,
    evenly_inside,
    largest_box_inside,
    outline_of,
)
from lucky_margin.core.pieces.forms import DRAWN_OUT, badge_outline, cut_outline
from lucky_margin.core.pieces.lettering import lettering_of
from lucky_margin.core.pieces.marks import MarkParts, mark_parts
from lucky_margin.core.pieces.repeats import ALONE, Copy, copies_of
from lucky_margin.core.squaring import mapped, onto_corners
from lucky_margin.core.text import (
    FontFinder,
    LaidText,
    PartStyle,
    TextStyle,
    fitted_text,
    is_own,
    lay_text,
    typeface,
)


@dataclass(frozen=True)
class Margins:
    """A size's safe band: its inner edge, and the largest upright box of the size's ratio in it
    (the whole photo box where the margin leaves nothing). In output pixels."""

    thickness: float
    outline: Outline
    inside: Box | None
    box: Box


@dataclass(frozen=True)
class Ends:
    """Where a piece begins and what it points at, in output pixels."""

    tail: tuple[float, float]
    tip: tuple[float, float]


@dataclass(frozen=True, eq=False)
class LaidPiece:
    """A piece on a size, in output pixels.

    Its own box has ``width`` and ``height``, around all its ``copies``, and lies about ``x``,
    ``y``, turned by ``angle`` degrees clockwise. ``outline`` is the fill of one copy about its
    own middle, in a box of ``sides``; None for a whole picture. ``lettering`` are the words or
    the icon in a badge, ``mark`` the parts of a kept mark about their middle, ``ends`` where an
    arrow held at a point of the photo begins and ends.
    ``lacks_font`` says that the own font of its words is gone.
    """

    piece: Piece
    x: float
    y: float
    width: float
    height: float
    angle: float
    short_side: float
    sides: tuple[float, float]
    copies: tuple[Copy, ...] = ALONE
    outline: skia.Path | None = None
    lettering: skia.Path | None = None
    text: LaidText | None = None
    mark: MarkParts | None = None
    ends: Ends | None = None
    lacks_font: bool = False

    @property
    def spans_ends(self) -> bool:
        """Whether it lies between its ends, as an arrow held at a point of the photo does; a
        bubble only points there."""
        return self.ends is not None and not self._is_bubble

    @property
    def _is_bubble(self) -> bool:
        return isinstance(self.piece, BadgePiece) and self.piece.form == "bubble"

    @property
    def em(self) -> float:
        """Pixels of the letters' em; of anything else, of the size's short side."""
        return self.text.size if self.text else self.short_side

    @property
    def coloured(self) -> list[tuple[str, skia.Path]]:
        """Letters, or parts of a mark, that have a colour of their own, about the middle of their
        copy."""
        if isinstance(self.piece, MarkPiece) and self.mark and self.piece.colours:
            return self.mark.in_colours(self.piece.colours)
        if self.text is None:
            return []
        ink = self.text.ink
        return [(colour, _about_middle(path, ink)) for colour, path in self.text.coloured]

    @property
    def to_output(self) -> skia.Matrix:
        """From its own box, about its middle, to output pixels."""
        return skia.Matrix.MakeAll(*self._onto_output.ravel())

    @cached_property
    def _onto_output(self) -> NDArray[np.float64]:
        angle = math.radians(self.angle)
        cos, sin = math.cos(angle), math.sin(angle)
        turned = np.array([[cos, -sin, self.x], [sin, cos, self.y], [0, 0, 1]])
        return np.asarray(turned @ self.in_perspective, np.float64)

    @property
    def in_perspective(self) -> NDArray[np.float64]:
        """The 3 x 3 homography from its own flat box, about its middle, to where that is seen: a
        plane turned by its swing, then its lean, projected from a point before its middle; or one
        whose corners were pulled."""
        perspective = self.piece.perspective
        if perspective is None or not perspective.is_set:
            return np.eye(3)
        if perspective.corners:
            corners = np.array(perspective.pulled) * (self.width, self.height)
            to_corner = np.array([[1, 0, self.width / 2], [0, 1, self.height / 2], [0, 0, 1]])
            pulled = onto_corners(corners, self.width, self.height)
            return np.asarray(pulled @ to_corner, np.float64)
        lean, swing = math.radians(perspective.lean), math.radians(perspective.swing)
        away = perspective.distance * max(self.width, self.height)
        return np.array(
            [
                [math.cos(swing), 0, 0],
                [math.sin(swing) * math.sin(lean), math.cos(lean), 0],
                [math.sin(swing) * math.cos(lean) / away, -math.sin(lean) / away, 1],
            ]
        )

    @property
    def corners(self) -> list[tuple[float, float]]:
        """Of its own box, turned, clockwise from the upper left."""
        half_x, half_y = self.width / 2, self.height / 2
        signs = ((-1, -1), (1, -1), (1, 1), (-1, 1))
        return self._laid([(half_x * i, half_y * j) for i, j in signs])

    def _laid(self, points: list[tuple[float, float]]) -> list[tuple[float, float]]:
        """Points of its own box in output pixels."""
        return [(float(x), float(y)) for x, y in mapped(np.array(points), self._onto_output)]

    @property
    def bounds(self) -> Box:
        """The upright box around it."""
        return _around(self.corners)

    @property
    def drawn(self) -> Box:
        """The upright box around what its outline covers, which may reach out of its own box, as
        a bubble's pointer does."""
        if self.outline is None or self.ends is None:
            return self.bounds
        box = self.outline.computeTightBounds()
        corners = [(x, y) for x in (box.left(), box.right()) for y in (box.top(), box.bottom())]
        return _around([*self._laid(corners), *self.corners])


def margins_of(size: Size, border: Border, output: Output) -> Margins:
    """The margin of ``size`` inside its border, in output pixels; a line around the photo is no
    part of that, so that words may stand on its strip."""
    edges = band_edges(outline_of(size.shape, output.width, output.height), border, output)
    margin = size.margin * output.short_side
    start = edges[0] if border.leaves_strip else edges[-1]
    outline = start.inset(margin, margin, margin, margin)
    if size.shape.kind == "rectangle":
        inside = evenly_inside(outline)
    else:
        inside = largest_box_inside(outline, output.width / output.height)
    return Margins(margin, outline, inside, inside or output.photo_box)


def lay_piece(
    piece: Piece, margins: Margins, frame: Frame, font: FontFinder, focus: Box | None = None
) -> LaidPiece:
    """``piece`` on a size; ``font`` finds the own fonts that its words are set in, ``focus`` is
    what its copies may heed, in output pixels."""
    short = frame.output.short_side
    lacks_font = _lacks_font(piece, font)
    if isinstance(piece, BadgePiece) and piece.tip and piece.form in DRAWN_OUT:
        return _between_ends(piece, piece.tip, margins, frame, font)
    text, outline, lettering, ends, mark = None, None, None, None, None
    if isinstance(piece, TextPiece):
        text = _laid_text(piece, margins.box, short, font)
        width, height = text.ink.width, text.ink.height
        outline = _about_middle(text.outline, text.ink)
    elif isinstance(piece, BadgePiece):
        width, height = piece.width * short, piece.height * short
        lettering = lettering_of(piece, width, height, font)
        outline = badge_outline(piece, width, height)
    elif isinstance(piece, MarkPiece):
        mark, width, height = _drawn_mark(piece, short, font)
        outline = mark.whole
    else:
        width = piece.width * short
        height = width / piece.ratio if piece.cut == "whole" else width
        outline = cut_outline(piece.cut, width, height)
    copies = copies_of(piece.repeat, short)
    sides = width, height
    width, height = _around_copies(sides, copies)
    if piece.repeat and piece.repeat.heeds_focus:
        # Wherever the copies go, the box around them stays.
        width = height = piece.repeat.spread * short + math.hypot(*sides)
    x, y = _middle(piece, width, height, margins.box, frame)
    if piece.repeat and piece.repeat.heeds_focus and focus:
        around = _about_piece(focus, (x, y), piece.angle, sides)
        copies = copies_of(piece.repeat, short, around)
    if isinstance(piece, BadgePiece) and piece.tip and piece.form == "bubble":
        ends = Ends((x, y), on_photo(piece.tip, frame))
        angle = math.radians(-piece.angle)
        dx, dy = ends.tip[0] - x, ends.tip[1] - y
        pointed = (
            dx * math.cos(angle) - dy * math.sin(angle),
            dx * math.sin(angle) + dy * math.cos(angle),
        )
        outline = badge_outline(piece, *sides, pointed)
    return LaidPiece(
        piece, x, y, width, height, piece.angle, short, sides, copies, outline, lettering, text,
        mark, ends, lacks_font,
    )  # fmt: skip


def _lacks_font(piece: Piece, font: FontFinder) -> bool:
    """Whether its words are set in an own font that is gone."""
    lettered = piece.mark.design if isinstance(piece, MarkPiece) else piece
    if isinstance(lettered, PicturePiece) or not is_own(lettered.family):
        return False
    return font(lettered.family) is None


def _drawn_mark(piece: MarkPiece, short: float, font: FontFinder) -> tuple[MarkParts, float, float]:
    """A kept mark's outlines about its middle, and its sides."""
    parts = mark_parts(piece.mark.design, font)
    box = parts.whole.computeTightBounds()
    width = piece.width * short
    if box.isEmpty():
        return parts, width, width
    em = width / box.width()
    parts.transform(skia.Matrix.Scale(em, em))
    return parts, width, box.height() * em


def _between_ends(
    piece: BadgePiece, tip: PhotoPoint, margins: Margins, frame: Frame, font: FontFinder
) -> LaidPiece:
    """An arrow or a line from where it is anchored to a point of the photo."""
    short = frame.output.short_side
    start = _middle(piece, 0, 0, margins.box, frame)
    end = on_photo(tip, frame)
    width = max(math.dist(start, end), 1.0)
    sides = width, piece.height * short
    lettering = lettering_of(piece, *sides, font)
    if lettering and end[0] < start[0]:
        # Words are read from the left, whichever way they point.
        lettering.transform(skia.Matrix.RotateDeg(180))
    return LaidPiece(
        piece,
        x=(start[0] + end[0]) / 2,
        y=(start[1] + end[1]) / 2,
        width=width,
        height=sides[1],
        angle=math.degrees(math.atan2(end[1] - start[1], end[0] - start[0])),
        short_side=short,
        sides=sides,
        outline=badge_outline(piece, *sides),
        lettering=lettering,
        ends=Ends(start, end),
        lacks_font=_lacks_font(piece, font),
    )


def on_photo(spot: PhotoPoint, frame: Frame) -> tuple[float, float]:
    """A point of the photo in output pixels."""
    photo = frame.photo
    return frame.from_output.inverse(spot.x * photo.photo_width, spot.y * photo.photo_height)


def style_of(piece: TextPiece, font: FontFinder) -> TextStyle:
    """A text's style, its family one that can be set."""
    return TextStyle(
        family=typeface(piece.family, font),
        weight=piece.weight,
        italic=piece.italic,
        align=piece.align,
        case=piece.case,
        letter_spacing=piece.letter_spacing,
        line_spacing=piece.line_spacing,
        bend=piece.bend,
    )


def text_setting(piece: TextPiece, font: FontFinder) -> tuple[TextStyle, list[PartStyle]]:
    """How a text and its parts are set."""
    return style_of(piece, font), [PartStyle(**part.model_dump()) for part in piece.parts]


def _laid_text(piece: TextPiece, room: Box, short: float, font: FontFinder) -> LaidText:
    style, parts = text_setting(piece, font)
    if piece.fill and piece.text.strip():
        return fitted_text(piece.text, style, room.width, room.height, parts)
    wrap = None if piece.wrap is None else piece.wrap * room.width
    return lay_text(piece.text, style, piece.size * short, wrap, parts)


def _about_middle(outline: skia.Path, box: Box) -> skia.Path:
    moved = skia.Path(outline)
    moved.offset(-box.left - box.width / 2, -box.top - box.height / 2)
    return moved


def _around_copies(sides: tuple[float, float], copies: tuple[Copy, ...]) -> tuple[float, float]:
    """The sides of the box about the middle that holds every copy."""
    if copies is ALONE:
        return sides
    half_x = half_y = 0.0
    for copy in copies:
        wide, high = turned_sides(*sides, copy.angle)
        half_x = max(half_x, abs(copy.x) + wide / 2)
        half_y = max(half_y, abs(copy.y) + high / 2)
    return 2 * half_x, 2 * half_y


def _about_piece(
    focus: Box, middle: tuple[float, float], angle: float, sides: tuple[float, float]
) -> Box:
    """A box of the output as it lies about a turned piece's middle, with room for a copy of these
    sides all round."""
    turn = math.radians(-angle)
    dx, dy = focus.centre[0] - middle[0], focus.centre[1] - middle[1]
    x = dx * math.cos(turn) - dy * math.sin(turn)
    y = dx * math.sin(turn) + dy * math.cos(turn)
    wide, high = turned_sides(focus.width, focus.height, angle)
    wide, high = wide + sides[0], high + sides[1]
    return Box(left=x - wide / 2, top=y - high / 2, width=wide, height=high)


def _around(points: list[tuple[float, float]]) -> Box:
    xs, ys = zip(*points, strict=True)
    return Box(left=min(xs), top=min(ys), width=max(xs) - min(xs), height=max(ys) - min(ys))


def _middle(
    piece: Piece, width: float, height: float, room: Box, frame: Frame
) -> tuple[float, float]:
    short = frame.output.short_side
    dx, dy = piece.dx * short, piece.dy * short
    anchor = piece.anchor
    if isinstance(anchor, MarginAnchor):
        wide, high = turned_sides(width, height, piece.angle)
        return (
            room.left + anchor.x * (room.width - wide) + wide / 2 + dx,
            room.top + anchor.y * (room.height - high) + high / 2 + dy,
        )
    x, y = on_photo(anchor.point, frame)
    return x + dx, y + dy


def turned_sides(width: float, height: float, angle: float) -> tuple[float, float]:
    """The sides of the upright box around a turned one."""
    cos, sin = abs(math.cos(math.radians(angle))), abs(math.sin(math.radians(angle)))
    return width * cos + height * sin, width * sin + height * cos
