"""The border's lines along an outline: solid, double, dashed and dotted.

Dashes and dots are fitted: between two corners a whole number of them, each a little longer or
shorter than asked, so that a pattern closes without a stub. Every corner has a whole dash (half
on each side of it) or a dot.
"""

import math
from dataclasses import dataclass

import cv2
import numpy as np
import skia
from numpy.typing import NDArray

from lucky_margin.core.document import LineStyle
from lucky_margin.core.outlines.outline import Outline, Points
from lucky_margin.core.types import Mask

DASH, GAP = 2.5, 1.5
"""Lengths of a dash and of the gap after it, in thicknesses of the line."""

DOT_GAP = 2.0
"""From the middle of a dot to that of the next, in thicknesses, which are the dots' diameters."""

CORNER_DEGREES = 9.0
"""A ring that turns by more than this at one point has a corner there; chords of curves turn
by less than one degree, the flattest regular polygon by 15."""

_Band = tuple[float, float, float, float]


@dataclass(frozen=True)
class Dashes:
    """The dashes along one ring, as positions along it (output pixels from its first point).

    A start may be negative and an end past the ring's length: they count round.
    """

    starts: Points
    ends: Points
    length: float


def line_coverage(outline: Outline, band: _Band, line: LineStyle, columns: int, rows: int) -> Mask:
    """Where the line lies in the border's band (top, right, bottom, left, in pixels).

    The mask goes on past both edges of the band, which the shape and the border's inner edge
    then cut, so that no seam shows there.
    """
    thickness = max(band)
    if line == "solid" or thickness <= 0:
        return np.full((rows, columns), 255, np.uint8)
    if line == "double":
        first, second = (
            outline.inset(*(share * part for part in band)).coverage(columns, rows)
            for share in (1 / 3, 2 / 3)
        )
        return cv2.bitwise_not(cv2.subtract(first, second)).astype(np.uint8, copy=False)
    mask = np.zeros((rows, columns), np.uint8)
    surface = skia.Surface.MakeRasterDirect(skia.ImageInfo.MakeA8(columns, rows), mask)
    canvas = surface.getCanvas()
    if line == "dashed":
        # Twice as wide as the band, since its inner half is what shows.
        paint = skia.Paint(
            AntiAlias=True,
            Style=skia.Paint.kStroke_Style,
            StrokeWidth=2 * thickness + 2,
            StrokeMiter=2 * thickness + 2,
        )
        for ring in outline.rings:
            canvas.drawPath(_dashed_path(ring, thickness), paint)
        return mask
    paint = skia.Paint(AntiAlias=True)
    for ring in outline.inset(*([thickness / 2] * 4)).rings:
        spots = dashes_along(ring, 0, DOT_GAP * thickness)
        for x, y in _points_at(ring, spots.starts):
            canvas.drawCircle(x, y, thickness / 2, paint)
    return mask


def dashes_along(ring: Points, dash: float, gap: float) -> Dashes:
    """Dashes of about these lengths along ``ring``, closed and with whole corners."""
    stations = _stations(ring)
    length = stations[-1]
    corners = stations[:-1][corner_angles(ring) > CORNER_DEGREES]
    marks = corners if len(corners) else np.zeros(1)
    spans = np.diff(np.append(marks, marks[0] + length))
    counts = np.maximum(1 if len(corners) else 2, np.rint(spans / (dash + gap))).astype(int)
    periods = spans / counts
    # A dash at a corner takes its halves from the spans before and after it.
    after = periods * dash / (dash + gap) / 2
    before = np.roll(after, 1)
    starts, ends = [], []
    for mark, count, period, half, half_before in zip(
        marks, counts, periods, after, before, strict=True
    ):
        middles = mark + period * np.arange(count)
        halves = np.full(count, half)
        ends.append(middles + halves)
        halves[0] = half_before
        starts.append(middles - halves)
    return Dashes(np.concatenate(starts), np.concatenate(ends), float(length))


@dataclass(frozen=True, eq=False)
class Span:
    """A stretch of a ring between two corners: the ``numbers`` of its edges, where each begins and
    ends along it, and its length, in output pixels."""

    numbers: NDArray[np.int64]
    begins: Points
    ends: Points
    length: float


def spans_between_corners(ring: Points) -> list[Span]:
    """The stretches of a closed ring; all of it from its first point on where it has no corner."""
    lengths = np.diff(_stations(ring))
    corners = np.flatnonzero(corner_angles(ring) > CORNER_DEGREES)
    marks = corners if len(corners) else np.zeros(1, np.int64)
    spans = []
    for mark, following in zip(marks, np.append(marks[1:], marks[0] + len(ring)), strict=True):
        numbers = np.arange(mark, following) % len(ring)
        ends = np.cumsum(lengths[numbers])
        spans.append(Span(numbers, ends - lengths[numbers], ends, float(ends[-1])))
    return spans


def _dashed_path(ring: Points, thickness: float) -> skia.Path:
    dashes = dashes_along(ring, DASH * thickness, GAP * thickness)
    path = skia.Path()
    for start, end in zip(dashes.starts, dashes.ends, strict=True):
        piece = _piece(ring, start, end)
        path.addPoly([skia.Point(x, y) for x, y in piece], False)
    return path


def _stations(ring: Points) -> Points:
    """How far along the ring each point is; one more entry is its whole length."""
    steps = np.linalg.norm(np.roll(ring, -1, axis=0) - ring, axis=1)
    return np.append(0, np.cumsum(steps))


def corner_angles(ring: Points) -> Points:
    """By how many degrees a ring turns at each of its points."""
    coming = ring - np.roll(ring, 1, axis=0)
    going = np.roll(ring, -1, axis=0) - ring
    cross = coming[:, 0] * going[:, 1] - coming[:, 1] * going[:, 0]
    angles: Points = np.abs(np.degrees(np.arctan2(cross, (coming * going).sum(axis=1))))
    return angles


def _points_at(ring: Points, positions: Points) -> Points:
    stations = _stations(ring)
    closed = np.vstack([ring, ring[:1]])
    wrapped = np.mod(positions, stations[-1])
    return np.column_stack([np.interp(wrapped, stations, closed[:, axis]) for axis in (0, 1)])


def _piece(ring: Points, start: float, end: float) -> Points:
    """The open line along ``ring`` from one position to another."""
    stations = _stations(ring)
    length = stations[-1]
    rounds = range(math.floor(start / length), math.floor(end / length) + 1)
    places = np.concatenate([stations[:-1] + turn * length for turn in rounds])
    passed = np.concatenate([ring for _ in rounds])[(places > start) & (places < end)]
    return np.vstack(
        [_points_at(ring, np.array([start])), passed, _points_at(ring, np.array([end]))]
    )
