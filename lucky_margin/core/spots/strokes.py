"""Filling along a stroke, a length at a time."""

import math
from collections.abc import Iterator, Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.spots.fill import fill_place
from lucky_margin.core.types import AnyPicture

Floats = NDArray[np.float32]
Point = tuple[float, float]
Line = Sequence[Point]
Window = tuple[slice, slice]

LENGTH = 4.0
"""Of what is filled at a time, in radii."""

SEARCHED = 16.0
"""How far around a length is looked for something like it, in radii."""

FADES = 0.05
"""Over how much of its radius what is filled fades out, outside it."""


def room_around(radius: float) -> int:
    """How far around a stroke of this radius the photo has to be known, in pixels."""
    return math.ceil(SEARCHED * radius) + 24


def changed_around(radius: float) -> int:
    """How far from its points a stroke changes the photo at most, in pixels."""
    return math.ceil(radius * (1 + FADES)) + 2


def filled_along(photo: AnyPicture, points: Line, radius: float) -> AnyPicture:
    """``photo`` with what lies within ``radius`` of a line (both in its pixels) filled from what
    lies around it; alpha stays, and what is transparent is not taken."""
    top = np.iinfo(photo.dtype).max
    sides = photo.shape[:2]
    seen = photo[:, :, :3].astype(np.float32) / np.float32(top)
    transparent = photo[:, :, 3] == 0 if photo.shape[2] == 4 else np.zeros(sides, np.bool_)
    fade = FADES * radius + 1
    box = _window(points, changed_around(radius), *sides)
    cover = np.clip((radius + fade - _distance(points, box)) / fade, 0, 1)
    before, left = seen[box].copy(), np.zeros(sides, np.bool_)
    left[box] = cover > 0
    for part in _lengths(points, LENGTH * radius):
        near = _window(part, room_around(radius), *sides)
        own = _window(part, changed_around(radius), *sides)
        hole = np.zeros_like(left[near])
        touched = (_distance(part, own) < radius + fade) & left[own]
        hole[_within(own, near)] = touched
        left[own] &= ~touched
        fill_place(seen[near], hole, left[near] | transparent[near], radius)
    mixed = before + cover[:, :, None] * (seen[box] - before)
    result = photo.copy()
    result[box][:, :, :3][cover > 0] = np.rint(np.float32(top) * mixed[cover > 0])
    return result


def _lengths(points: Line, length: float) -> Iterator[Line]:
    """The line in parts that are about so long."""
    part, long = [points[0]], 0.0
    for (x0, y0), (x1, y1) in pairwise(points):
        whole = math.hypot(x1 - x0, y1 - y0)
        steps = max(1, math.ceil(whole / length))
        for step in range(1, steps + 1):
            share = step / steps
            part.append((x0 + share * (x1 - x0), y0 + share * (y1 - y0)))
            long += whole / steps
            if long >= length:
                yield part
                part, long = [part[-1]], 0.0
    if len(part) > 1 or len(points) == 1:
        yield part


def _window(points: Line, room: int, rows: int, columns: int) -> Window:
    xs, ys = zip(*points, strict=True)
    return np.s_[
        max(0, math.floor(min(ys)) - room) : min(rows, math.ceil(max(ys)) + room),
        max(0, math.floor(min(xs)) - room) : min(columns, math.ceil(max(xs)) + room),
    ]


def _within(window: Window, outer: Window) -> Window:
    """Where a window lies in one around it."""
    (top, foot), (left, end) = (
        (own.start - around.start, own.stop - around.start)
        for own, around in zip(window, outer, strict=True)
    )
    return np.s_[top:foot, left:end]


def _distance(points: Line, window: Window) -> Floats:
    """How far the centres of a window's pixels are from a line."""
    rows, columns = window
    y = np.arange(rows.start or 0, rows.stop, dtype=np.float32)[:, None] + np.float32(0.5)
    x = np.arange(columns.start or 0, columns.stop, dtype=np.float32)[None] + np.float32(0.5)
    nearest = np.hypot(x - points[0][0], y - points[0][1])
    for (x0, y0), (x1, y1) in pairwise(points):
        dx, dy = x1 - x0, y1 - y0
        square = max(dx * dx + dy * dy, 1e-9)
        share = np.clip(((x - x0) * dx + (y - y0) * dy) / square, 0, 1)
        nearest = np.minimum(nearest, np.hypot(x - x0 - share * dx, y - y0 - share * dy))
    return np.asarray(nearest, np.float32)
