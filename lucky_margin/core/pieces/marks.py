"""Marks: words, an icon, a rule and a frame arranged as one outline of one colour.

Lengths are in ems of the words; the outline lies about its middle.
"""

import math

import numpy as np
import skia

from lucky_margin.core.document import MarkDesign, rgb_of
from lucky_margin.core.icons import icon_outline
from lucky_margin.core.text import Face, FontFinder, LaidText, TextStyle, lay_text, typeface
from lucky_margin.core.types import Picture8

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


def mark_outline(design: MarkDesign, font: FontFinder) -> skia.Path:
    """All that is drawn of a mark, words one unit to an em; ``font`` finds own fonts."""
    family = typeface(design.family, font)
    path = _round(design, family) if design.layout == "round" else _in_line(design, family)
    _centre(path)
    if design.frame != "none" and not path.isEmpty():
        path.addPath(frame_line(design, path.computeTightBounds()))
        _centre(path)
    return path


def mark_picture(design: MarkDesign, colour: str, width: int, font: FontFinder) -> Picture8:
    """A mark ``width`` pixels wide, transparent around it, straight RGBA."""
    path = mark_outline(design, font)
    box = path.computeTightBounds()
    scale = width / max(box.width(), 1e-6)
    height = max(1, math.ceil(box.height() * scale))
    out = np.zeros((height, width, 4), np.uint8)
    out[:, :, :3] = rgb_of(colour)
    coverage = np.zeros((height, width), np.uint8)
    info = skia.ImageInfo.MakeA8(width, height)
    canvas = skia.Surface.MakeRasterDirect(info, coverage).getCanvas()
    canvas.scale(scale, scale)
    canvas.translate(-box.left(), -box.top())
    canvas.drawPath(path, skia.Paint(AntiAlias=True))
    out[:, :, 3] = coverage
    return out


def mark_svg(design: MarkDesign, colour: str, font: FontFinder) -> str:
    """A mark as an SVG whose letters are outlines."""
    path = mark_outline(design, font)
    path.transform(skia.Matrix.Scale(_SVG_EM, _SVG_EM))
    box = path.computeTightBounds()
    place = f"{box.left():.2f} {box.top():.2f} {box.width():.2f} {box.height():.2f}"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{place}">'
        f'<path fill="{colour}" d="{path_data(path)}"/></svg>\n'
    )


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


def _in_line(design: MarkDesign, family: str | Face) -> skia.Path:
    """Words, rule and line under each other, the icon over or beside them."""
    path = skia.Path()
    words, line = _words(design, family), _line(design, family)
    width = max((laid.ink.width for laid in (words, line) if laid), default=0.0)
    y = 0.0
    align = -1.0 if design.layout == "beside" else 0.0
    if words:
        y = _put_below(path, words.outline, y, align)
    if design.rule and words:
        bar = skia.Path()
        bar.addRect(skia.Rect.MakeWH(width, THICK))
        y = _put_below(path, bar, y + GAP, align)
    if line:
        _put_below(path, line.outline, y + (GAP if words else 0), align)
    if not design.icon:
        return path
    box = path.computeTightBounds()
    if design.layout == "stacked" or path.isEmpty():
        icon = icon_outline(design.icon, ICON_STACKED)
        icon.offset(0, box.top() - GAP - ICON_STACKED / 2)
    else:
        side = max(ICON_BESIDE, box.height())
        icon = icon_outline(design.icon, side)
        icon.offset(box.left() - GAP - side / 2, box.centerY())
    path.addPath(icon)
    return path


def _put_below(path: skia.Path, part: skia.Path, y: float, align: float) -> float:
    """Add a part with its top at ``y``, centred about 0 or, at -1, from there on; where it
    ends."""
    box = part.computeTightBounds()
    path.addPath(part, -box.centerX() - align * box.width() / 2, y - box.top())
    return y + float(box.height())


def _round(design: MarkDesign, family: str | Face) -> skia.Path:
    """Words over a circle, the line under it, the icon in its middle."""
    path = skia.Path()
    words, line = _words(design, family), _line(design, family)
    longest = max((laid.advance for laid in (words, line) if laid), default=0.0)
    radius = max(SMALLEST_RADIUS, longest / math.radians(WIDEST_ARC))
    if words:
        bent = _words(design, family, math.degrees(words.advance / radius))
        if bent:
            path.addPath(bent.outline, -bent.advance / 2, -radius)
    if line:
        # Read from the left, the lower line stands on the inside of the circle.
        reach = radius + 0.7 * LINE_SIZE
        bent = _line(design, family, -math.degrees(line.advance / reach))
        if bent:
            path.addPath(bent.outline, -bent.advance / 2, reach)
    if design.icon:
        path.addPath(icon_outline(design.icon, 1.15 * radius))
    return path


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


def _centre(path: skia.Path) -> None:
    box = path.computeTightBounds()
    path.offset(-box.centerX(), -box.centerY())
