"""The forms of the shapes: each as a polygon in a box, and where that box lies in a size."""

import math
from collections.abc import Callable
from typing import Any

import numpy as np

from lucky_margin.core.document import Blob, Box, Polygon, Rectangle, Shape, Star
from lucky_margin.core.outlines.outline import Outline, Points, PolygonOutline
from lucky_margin.core.outlines.rounded_box import RoundedBox

CURVE_STEPS = 512
"""Chords of a whole turn; a circle of 1000 px strays 0.02 px from them."""

_MOST_RISE = 0.75
"""Of the height, that an arch's round part may take."""

_BUBBLE_BODY = 0.8
_BUBBLE_ROUNDNESS = 0.2
_POINTER = (0.24, 0.46, 0.14)
"""Left and right end of the bubble's pointer where it leaves the body, and its tip."""

_BLOB_WAVES = (2, 3, 4, 5)
_BLOB_STRENGTH = 0.16


def outline_of(shape: Shape, width: int, height: int) -> Outline:
    """The outline of ``shape`` on a size of these output pixels."""
    box = _box_of(shape, width, height)
    if isinstance(shape, Rectangle):
        # Straight edges lie on whole pixels.
        left, top = round(box.left), round(box.top)
        whole = Box(
            left=left,
            top=top,
            width=max(1, round(box.right) - left),
            height=max(1, round(box.bottom) - top),
        )
        radius = shape.radius * min(whole.width, whole.height)
        return RoundedBox(whole, ((radius, radius),) * 4)
    points = _FORMS[shape.kind](shape, box.width, box.height)
    return PolygonOutline.of(np.add(points, (box.left, box.top)))


def _box_of(shape: Shape, width: int, height: int) -> Box:
    """The box that the form fills: the size scaled, or the largest of its proportions in it."""
    wide, high = width * shape.scale, height * shape.scale
    ratio = _proportions(shape)
    if ratio is not None:
        wide, high = min(wide, high * ratio), min(high, wide / ratio)
    return Box(
        left=shape.x * (width - wide), top=shape.y * (height - high), width=wide, height=high
    )


def _proportions(shape: Shape) -> float | None:
    """Width over height that the shape keeps; None for one that fills any box."""
    if shape.kind == "circle":
        return 1.0
    if shape.kind in ("heart", "polygon", "star"):
        left, top = (points := _FORMS[shape.kind](shape, 1, 1, fit=False)).min(axis=0)
        right, bottom = points.max(axis=0)
        return float((right - left) / (bottom - top))
    return None


def _turn(start: float, end: float, steps: int) -> Points:
    """Points of the unit circle from one angle to another, in turns clockwise from the right."""
    angles = 2 * math.pi * np.linspace(start, end, steps, endpoint=False)
    return np.column_stack([np.cos(angles), np.sin(angles)])


def _fitted(points: Points, width: float, height: float) -> Points:
    """``points`` stretched to fill a box from 0, 0."""
    low, high = points.min(axis=0), points.max(axis=0)
    fitted: Points = (points - low) / (high - low) * [width, height]
    return fitted


def _oval(shape: Any, width: float, height: float) -> Points:
    return (_turn(0, 1, CURVE_STEPS) + 1) * [width / 2, height / 2]


def _arch(shape: Any, width: float, height: float) -> Points:
    """A half ellipse on a rectangle; a half circle where the height allows."""
    rise = min(width / 2, _MOST_RISE * height)
    top = (_turn(0.5, 1, CURVE_STEPS // 2) + 1) * [width / 2, rise]
    return np.vstack([top, [(width, rise), (width, height), (0, height)]])


def _triangle(shape: Any, width: float, height: float) -> Points:
    return np.array([(width / 2, 0), (width, height), (0, height)])


def _diamond(shape: Any, width: float, height: float) -> Points:
    return np.array([(width / 2, 0), (width, height / 2), (width / 2, height), (0, height / 2)])


def _polygon(shape: Polygon, width: float, height: float, fit: bool = True) -> Points:
    points = _turn(-0.25, 0.75, shape.sides)
    return _fitted(points, width, height) if fit else points


def _star(shape: Star, width: float, height: float, fit: bool = True) -> Points:
    points = _turn(-0.25, 0.75, 2 * shape.points)
    points[1::2] *= math.cos(math.pi / shape.points) * (1 - shape.depth)
    return _fitted(points, width, height) if fit else points


def _heart(shape: Any, width: float, height: float, fit: bool = True) -> Points:
    """A square standing on a corner with half a disc on each upper side."""
    steps, radius = CURVE_STEPS // 2, math.sqrt(0.5)
    right = (0.5, -1.5) + radius * _turn(0.125, -0.375, steps)
    left = (-0.5, -1.5) + radius * _turn(-0.125, -0.625, steps)
    points = np.vstack([[(0.0, 0.0)], right, left, [(-1.0, -1.0)]])
    return _fitted(points, width, height) if fit else points


def _bubble(shape: Any, width: float, height: float) -> Points:
    """A rounded box with a pointer at the lower left."""
    body = height * _BUBBLE_BODY
    radius = _BUBBLE_ROUNDNESS * min(width, body)
    box = RoundedBox(Box(left=0, top=0, width=width, height=body), ((radius, radius),) * 4)
    ring = box.rings[0]
    # The ring goes clockwise from the left, so three corners come before the lower left one.
    before = 3 * len(ring) // 4
    left, right, tip = (share * width for share in _POINTER)
    pointer = [(right, body), (tip, height), (left, body)]
    return np.vstack([ring[:before], pointer, ring[before:]])


def _blob(shape: Blob, width: float, height: float) -> Points:
    """A circle whose radius swings by a few slow waves, drawn from the seed."""
    random = np.random.default_rng(shape.seed)
    circle = _turn(0, 1, CURVE_STEPS)
    angles = 2 * math.pi * np.arange(CURVE_STEPS) / CURVE_STEPS
    radius = np.ones(CURVE_STEPS)
    for wave in _BLOB_WAVES:
        strength = _BLOB_STRENGTH * random.uniform(0.4, 1) * _BLOB_WAVES[0] / wave
        radius += strength * np.cos(wave * angles + random.uniform(0, 2 * math.pi))
    return _fitted(circle * radius[:, None], width, height)


_FORMS: dict[str, Callable[..., Points]] = {
    "circle": _oval,
    "oval": _oval,
    "arch": _arch,
    "triangle": _triangle,
    "diamond": _diamond,
    "polygon": _polygon,
    "star": _star,
    "heart": _heart,
    "bubble": _bubble,
    "blob": _blob,
}
