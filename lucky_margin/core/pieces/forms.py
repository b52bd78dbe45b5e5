"""The forms of badges, as outlines about 0, 0 in a box of given sides."""

import math
from collections.abc import Callable
from functools import lru_cache

import skia

from lucky_margin.core.document import (
    BadgeForm,
    BadgePiece,
    PictureCut,
    PlainShape,
    Shape,
    Star,
)
from lucky_margin.core.icons import icon_outline
from lucky_margin.core.outlines import outline_of

_FINE = 1000
"""Output pixels at which the forms that are shapes too are drawn before they are scaled."""

_BURST_POINTS, _BURST_DEPTH = 16, 0.22


DRAWN_OUT: tuple[BadgeForm, ...] = ("arrow", "curved-arrow", "line")
"""Forms that lead from one end to another."""

_NO_ICON = "shapes"
"""What the form icon shows until one is chosen."""

_CUT_RADIUS = 0.12
_POINTER = 0.16
"""Half the width of a bubble's pointer where it leaves the body, of the shorter side."""


def badge_outline(
    piece: BadgePiece, width: float, height: float, tip: tuple[float, float] | None = None
) -> skia.Path:
    """The outline of a badge of ``width`` x ``height``; a ring has a hole. ``tip`` is where a
    bubble points at, from its middle."""
    form = piece.form
    if form == "icon":
        return _stretched(icon_outline(piece.icon or _NO_ICON, 1), width, height)
    if form == "bubble" and tip:
        return _pointed_bubble(width, height, tip)
    if form in _SHAPES:
        return _stretched(_in_unit_box(_SHAPES[form]), width, height)
    path = skia.Path()
    _DRAWN[form](path, width, height)
    path.offset(-width / 2, -height / 2)
    return path


def cut_outline(cut: PictureCut, width: float, height: float) -> skia.Path | None:
    """What a picture is cut to; None for a whole one."""
    box = skia.Rect.MakeXYWH(-width / 2, -height / 2, width, height)
    path = skia.Path()
    if cut == "whole":
        return None
    if cut == "square":
        path.addRect(box)
    elif cut == "rounded":
        path.addRoundRect(box, _CUT_RADIUS * width, _CUT_RADIUS * width)
    else:
        return _stretched(_in_unit_box(_SHAPES[cut]), width, height)
    return path


def _stretched(path: skia.Path, width: float, height: float) -> skia.Path:
    out = skia.Path(path)
    out.transform(skia.Matrix.Scale(width, height))
    return out


def _pointed_bubble(width: float, height: float, tip: tuple[float, float]) -> skia.Path:
    """A round body with a pointer from its middle to ``tip``; no pointer inside the body."""
    body = skia.Path()
    radius = 0.4 * min(width, height)
    body.addRoundRect(skia.Rect.MakeXYWH(-width / 2, -height / 2, width, height), radius, radius)
    away = math.hypot(*tip)
    if away == 0 or body.contains(*tip):
        return body
    half = _POINTER * min(width, height)
    side = (-tip[1] / away * half, tip[0] / away * half)
    pointer = _closed([list(side), list(tip), [-side[0], -side[1]]])
    return skia.Op(body, pointer, skia.PathOp.kUnion_PathOp)


@lru_cache
def _in_unit_box(shape: Shape) -> skia.Path:
    """A shape that fills a box of one by one about 0, 0."""
    ring = outline_of(shape, _FINE, _FINE).rings[0]
    low, high = ring.min(axis=0), ring.max(axis=0)
    return _closed(((ring - low) / (high - low) - 0.5).tolist())


def _closed(points: list[list[float]]) -> skia.Path:
    path = skia.Path()
    path.addPoly([skia.Point(x, y) for x, y in points], True)
    return path


def _arrow(path: skia.Path, width: float, height: float) -> None:
    """To the right; its head is as long as it is high."""
    head = min(height, width * 0.6)
    shaft = height * 0.2
    middle, neck = height / 2, width - head
    path.addPoly(
        [
            skia.Point(x, y)
            for x, y in (
                (0, middle - shaft),
                (neck, middle - shaft),
                (neck, 0),
                (width, middle),
                (neck, height),
                (neck, middle + shaft),
                (0, middle + shaft),
            )
        ],
        True,
    )


def _curved_arrow(path: skia.Path, width: float, height: float) -> None:
    """From the lower left in a bow to the right, its head downwards."""
    thick, head = 0.16 * height, 0.36 * min(width, height)
    right = width - head / 2
    outer, inner = right + thick / 2, right - thick / 2
    path.moveTo(0, height)
    path.cubicTo(0, 0.1 * height, outer, -0.1 * height, outer, height - head)
    path.lineTo(right + head / 2, height - head)
    path.lineTo(right, height)
    path.lineTo(right - head / 2, height - head)
    path.lineTo(inner, height - head)
    path.cubicTo(inner, thick - 0.02 * height, thick * 1.2, 0.2 * height, thick, height)
    path.close()


def _line(path: skia.Path, width: float, height: float) -> None:
    path.addRect(skia.Rect.MakeWH(width, height))


def _label(path: skia.Path, width: float, height: float) -> None:
    radius = 0.22 * min(width, height)
    path.addRoundRect(skia.Rect.MakeWH(width, height), radius, radius)


def _ring(path: skia.Path, width: float, height: float) -> None:
    thick = 0.14 * min(width, height)
    path.addOval(skia.Rect.MakeWH(width, height))
    path.addOval(skia.Rect.MakeLTRB(thick, thick, width - thick, height - thick))
    path.setFillType(skia.PathFillType.kEvenOdd)


def _tick(path: skia.Path, width: float, height: float) -> None:
    points = ((0, 0.55), (0.16, 0.38), (0.38, 0.62), (0.84, 0), (1, 0.15), (0.39, 1))
    path.addPoly([skia.Point(x * width, y * height) for x, y in points], True)


def _ribbon(path: skia.Path, width: float, height: float) -> None:
    notch = min(0.4 * height, 0.2 * width)
    points = (
        (0, 0),
        (width, 0),
        (width - notch, height / 2),
        (width, height),
        (0, height),
        (notch, height / 2),
    )
    path.addPoly([skia.Point(x, y) for x, y in points], True)


def _price_tag(path: skia.Path, width: float, height: float) -> None:
    """A point to the left with a hole in it."""
    point, hole = min(0.5 * height, 0.4 * width), 0.09 * height
    points = ((point, 0), (width, 0), (width, height), (point, height), (0, height / 2))
    path.addPoly([skia.Point(x, y) for x, y in points], True)
    path.addCircle(0.75 * point, height / 2, hole)
    path.setFillType(skia.PathFillType.kEvenOdd)


_SHAPES: dict[str, Shape] = {
    "circle": PlainShape(kind="circle"),
    "heart": PlainShape(kind="heart"),
    "bubble": PlainShape(kind="bubble"),
    "star": Star(),
    "burst": Star(points=_BURST_POINTS, depth=_BURST_DEPTH),
}

_DRAWN: dict[str, Callable[[skia.Path, float, float], None]] = {
    "arrow": _arrow,
    "curved-arrow": _curved_arrow,
    "line": _line,
    "label": _label,
    "ring": _ring,
    "tick": _tick,
    "ribbon": _ribbon,
    "price-tag": _price_tag,
}
