"""Marks: words, an icon, a rule and a frame arranged as outlines.

Lengths are in ems of the words; the outlines lie about the middle of all.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np
import skia

from lucky_margin.core.document import MarkColours, MarkDesign, MarkShade, rgb_of
from lucky_margin.core.icons import icon_outline
from lucky_margin.core.text import Face, FontFinder, LaidText, TextStyle, lay_text, typeface
from lucky_margin.core.types import Picture8

PLAIN: dict[MarkShade, str] = {"light": "#FFFFFF", "dark": "#1E2A2F"}
"""What marks of one colour are drawn in where none is chosen."""

LINE_SIZE, LINE_SPACING = 0.46, 0.08
"""Of the words: the smaller line, and the gap between its letters."""

GAP, PADDING = 0.34, 0.7
ICON_STACKED, ICON_BESIDE = 1.5, 1.25
THICK = 0.07
WIDEST_ARC = 210.0
"""Degrees of a circle that words may take."""

SMALLEST_RADIUS = 1.7
_SVG_EM = 100
_FINE = 100
"""How much larger lines are drawn than here, for how finely they are followed."""

_QUARTER_WEIGHT = math.sqrt(0.5)
"""Of the conics that skia draws circles and ovals with."""


@dataclass(frozen=True, eq=False)
class MarkParts:
    """The outlines of a mark by what has a colour of its own: the words with the smaller line, the
    icon, the frame with the rule."""

    words: skia.Path = field(default_factory=skia.Path)
    icon: skia.Path = field(default_factory=skia.Path)
    frame: skia.Path = field(default_factory=skia.Path)

    @property
    def whole(self) -> skia.Path:
        """All that is drawn."""
        path = skia.Path()
        for part in self:
            path.addPath(part)
        return path

    def __iter__(self) -> Iterator[skia.Path]:
        return iter((self.words, self.icon, self.frame))

    def in_colours(self, colours: MarkColours) -> list[tuple[str, skia.Path]]:
        """What is drawn in each colour."""
        wanted = (colours.words, colours.icon, colours.frame)
        return list(zip(wanted, self, strict=True))

    def transform(self, matrix: skia.Matrix) -> None:
        """Move, turn and scale all parts alike."""
        for part in self:
            part.transform(matrix)

    def centre(self) -> None:
        """Put the middle of all at 0, 0."""
        box = self.whole.computeTightBounds()
        self.transform(skia.Matrix.Translate(-box.centerX(), -box.centerY()))


def mark_parts(design: MarkDesign, font: FontFinder) -> MarkParts:
    """What is drawn of a mark, words one unit to an em; ``font`` finds own fonts."""
    family = typeface(design.family, font)
    parts = _round(design, family) if design.layout == "round" else _in_line(design, family)
    parts.centre()
    if design.frame != "none" and not parts.whole.isEmpty():
        parts.frame.addPath(frame_line(design, parts.whole.computeTightBounds()))
        parts.centre()
    return parts


def version_colours(design: MarkDesign, shade: MarkShade) -> MarkColours:
    """The colours of one version; of a mark of one colour, white or ink for all."""
    if design.colours is None:
        one = PLAIN[shade]
        return MarkColours(words=one, icon=one, frame=one)
    return design.colours.of(shade)


def mark_picture(design: MarkDesign, shade: MarkShade, width: int, font: FontFinder) -> Picture8:
    """A version of a mark ``width`` pixels wide, transparent around it, straight RGBA."""
    parts = mark_parts(design, font)
    box = parts.whole.computeTightBounds()
    scale = width / max(box.width(), 1e-6)
    height = max(1, math.ceil(box.height() * scale))
    out = np.zeros((height, width, 4), np.uint8)
    info = skia.ImageInfo.Make(width, height, skia.kRGBA_8888_ColorType, skia.kUnpremul_AlphaType)
    surface = skia.Surface.MakeRasterN32Premul(width, height)
    canvas = surface.getCanvas()
    canvas.scale(scale, scale)
    canvas.translate(-box.left(), -box.top())
    for colour, path in parts.in_colours(version_colours(design, shade)):
        canvas.drawPath(path, skia.Paint(AntiAlias=True, Color=skia.ColorSetRGB(*rgb_of(colour))))
    surface.readPixels(info, out)
    return out


def mark_svg(design: MarkDesign, shade: MarkShade, font: FontFinder) -> str:
    """A version of a mark as an SVG whose letters are outlines."""
    parts = mark_parts(design, font)
    parts.transform(skia.Matrix.Scale(_SVG_EM, _SVG_EM))
    box = parts.whole.computeTightBounds()
    place = f"{box.left():.2f} {box.top():.2f} {box.width():.2f} {box.height():.2f}"
    paths = "".join(
        f'<path fill="{colour}" d="{path_data(path)}"/>'
        for colour, path in parts.in_colours(version_colours(design, shade))
        if not path.isEmpty()
    )
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{place}">{paths}</svg>\n'


def path_data(path: skia.Path) -> str:
    """An outline in the path commands of SVG."""
    parts = []
    for verb, points in path:
        rest = points[1:]
        if verb == skia.Path.kMove_Verb:
            parts.append(_command("M", points))
        elif verb == skia.Path.kLine_Verb:
            parts.append(_command("L", rest))
        elif verb == skia.Path.kQuad_Verb:
            parts.append(_command("Q", rest))
        elif verb == skia.Path.kCubic_Verb:
            parts.append(_command("C", rest))
        elif verb == skia.Path.kConic_Verb:
            # Circles hold conics, which SVG lacks; a quarter of one is two quadratics.
            quads = skia.Path.ConvertConicToQuads(*points, _QUARTER_WEIGHT, 1)
            parts += [_command("Q", quads[place : place + 2]) for place in (1, 3)]
        elif verb == skia.Path.kClose_Verb:
            parts.append("Z")
    return "".join(parts)


def _command(letter: str, points: list[skia.Point]) -> str:
    return letter + " ".join(f"{point.x():.2f} {point.y():.2f}" for point in points)


def _words(design: MarkDesign, family: str | Face, bend: float = 0) -> LaidText | None:
    if not design.words.strip():
        return None
    style = TextStyle(family, design.weight, align="centre", case=design.case, bend=bend)
    return lay_text(design.words, style, 1)


def _line(design: MarkDesign, family: str | Face, bend: float = 0) -> LaidText | None:
    if not design.line.strip():
        return None
    style = TextStyle(
        family, 400, align="centre", case=design.case, letter_spacing=LINE_SPACING,
        bend=bend,
    )  # fmt: skip
    return lay_text(design.line, style, LINE_SIZE)


def _in_line(design: MarkDesign, family: str | Face) -> MarkParts:
    """Words, rule and line under each other, the icon over or beside them."""
    parts = MarkParts()
    words, line = _words(design, family), _line(design, family)
    width = max((laid.ink.width for laid in (words, line) if laid), default=0.0)
    y = 0.0
    align = -1.0 if design.layout == "beside" else 0.0
    if words:
        y = _put_below(parts.words, words.outline, y, align)
    if design.rule and words:
        bar = skia.Path()
        bar.addRect(skia.Rect.MakeWH(width, THICK))
        y = _put_below(parts.frame, bar, y + GAP, align)
    if line:
        _put_below(parts.words, line.outline, y + (GAP if words else 0), align)
    if not design.icon:
        return parts
    box = parts.whole.computeTightBounds()
    if design.layout == "stacked" or parts.whole.isEmpty():
        icon = icon_outline(design.icon, ICON_STACKED)
        icon.offset(0, box.top() - GAP - ICON_STACKED / 2)
    else:
        side = max(ICON_BESIDE, box.height())
        icon = icon_outline(design.icon, side)
        icon.offset(box.left() - GAP - side / 2, box.centerY())
    parts.icon.addPath(icon)
    return parts


def _put_below(path: skia.Path, part: skia.Path, y: float, align: float) -> float:
    """Add a part with its top at ``y``, centred about 0 or, at -1, from there on; where it
    ends."""
    box = part.computeTightBounds()
    path.addPath(part, -box.centerX() - align * box.width() / 2, y - box.top())
    return y + float(box.height())


def _round(design: MarkDesign, family: str | Face) -> MarkParts:
    """Words over a circle, the line under it, the icon in its middle."""
    parts = MarkParts()
    words, line = _words(design, family), _line(design, family)
    longest = max((laid.advance for laid in (words, line) if laid), default=0.0)
    radius = max(SMALLEST_RADIUS, longest / math.radians(WIDEST_ARC))
    if words:
        bent = _words(design, family, math.degrees(words.advance / radius))
        if bent:
            parts.words.addPath(bent.outline, -bent.advance / 2, -radius)
    if line:
        # Read from the left, the lower line stands on the inside of the circle.
        reach = radius + 0.7 * LINE_SIZE
        bent = _line(design, family, -math.degrees(line.advance / reach))
        if bent:
            parts.words.addPath(bent.outline, -bent.advance / 2, reach)
    if design.icon:
        parts.icon.addPath(icon_outline(design.icon, 1.15 * radius))
    return parts


def frame_line(design: MarkDesign, box: skia.Rect) -> skia.Path:
    """The line around a mark whose other parts are in ``box``."""
    around = skia.Path()
    wide, high = box.width() / 2 + PADDING, box.height() / 2 + PADDING
    if design.frame == "circle":
        radius = (
            max(wide, high) if design.layout == "round"
            else math.hypot(box.width() / 2, box.height() / 2) + PADDING / 2
        )  # fmt: skip
        around.addCircle(0, 0, radius)
    elif design.frame == "oval":
        stretch = math.sqrt(2)
        rect = skia.Rect.MakeLTRB(-wide, -high, wide, high)
        rect = skia.Rect.MakeLTRB(
            rect.left() * stretch * 0.9, rect.top() * stretch * 0.9,
            rect.right() * stretch * 0.9, rect.bottom() * stretch * 0.9,
        )  # fmt: skip
        around.addOval(rect)
    else:
        radius = min(wide, high) * (1 if design.frame == "label" else 0)
        around.addRoundRect(skia.Rect.MakeLTRB(-wide, -high, wide, high), radius, radius)
    pen = skia.Paint(Style=skia.Paint.kStroke_Style, StrokeWidth=THICK)
    line = skia.Path()
    pen.getFillPath(around, line, None, _FINE)
    return line
