"""A pattern along a band: a whole number of motifs on every side, and its own corners.

Round a rectangle every corner is a square of its own and the sides between them are filled; along
any other outline the motifs fill each stretch between two corners, where they meet in a mitre.
"""

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.borders.across import Across, Edges
from lucky_margin.core.borders.stock import MOTIFS, corner_mask, motif_mask
from lucky_margin.core.document import StockPattern
from lucky_margin.core.outlines import spans_between_corners

Floats = NDArray[np.float32]

SMALLEST_TILE, LARGEST_TILE = 4, 2048
"""Rows of the drawn motif, in pixels."""


@dataclass(frozen=True, eq=False)
class Repeats:
    """Where in the row of motifs each edge of an outline begins and ends; motif 0 is where its
    stretch begins. A rectangle's corners lie below 0 and above ``counts``."""

    starts: NDArray[np.float64]
    ends: NDArray[np.float64]
    counts: NDArray[np.int64]
    """Of the motifs in the edge's stretch."""
    corners: tuple[NDArray[np.float64], NDArray[np.float64]] | None
    """The length of the corners before and after each edge, in motifs; only of a rectangle."""

    def place(self, lying: Across) -> Floats:
        """Where in the row of motifs each pixel is."""
        start, end = (part.astype(np.float32)[lying.edge] for part in (self.starts, self.ends))
        return np.asarray(start + (end - start) * lying.along, np.float32)


def repeats_along(
    edges: Edges, width: float | NDArray[np.float64], corners: bool = True
) -> Repeats:
    """Motifs of about ``width`` thicknesses, stretched so that a whole number fits.

    A rectangle has ``corners`` of their own, where it may have a width for each side.
    """
    if corners and is_rectangle(edges):
        before, after = np.roll(edges.thickness, 1), np.roll(edges.thickness, -1)
        straight = np.maximum(edges.lengths - before - after, 1e-6)
        counts = np.maximum(1, np.rint(straight / (width * edges.thickness))).astype(int)
        period = straight / counts
        starts, ends = -before / period, counts + after / period
        return Repeats(starts, ends, counts, (before / period, after / period))
    starts, ends = np.empty(len(edges.starts)), np.empty(len(edges.starts))
    counts = np.empty(len(edges.starts), np.int64)
    first = 0
    for size in edges.rings:
        length = float(np.max(width)) * edges.thickness[first]
        for span in spans_between_corners(edges.starts[first : first + size]):
            count = max(1, round(span.length / length))
            numbers = span.numbers + first
            starts[numbers] = span.begins / span.length * count
            ends[numbers] = span.ends / span.length * count
            counts[numbers] = count
        first += size
    return Repeats(starts, ends, counts, None)


def pattern_ink(key: StockPattern, edges: Edges, lying: Across, pixel: float) -> Floats:
    """How much ink (0..255) the pattern has at each pixel, which are ``pixel`` of the edges' units
    apart."""
    repeats = repeats_along(edges, MOTIFS[key].width)
    rows = _rows(float(edges.thickness.max()) / pixel)
    place = repeats.place(lying)
    ink = _sampled(
        motif_mask(key, max(2, round(rows * MOTIFS[key].width)), rows), place, lying.depth
    )
    if repeats.corners is None:
        return ink
    before, after = (part.astype(np.float32)[lying.edge] for part in repeats.corners)
    count = repeats.counts.astype(np.float32)[lying.edge]
    along = np.where(place < 0, (place + before) / before, (count + after - place) / after)
    corner = _sampled(corner_mask(key, rows, rows), along, lying.depth)
    return np.asarray(np.where((place < 0) | (place > count), corner, ink), np.float32)


def is_rectangle(edges: Edges) -> bool:
    """Whether the edges are those of an upright rectangle, from the top clockwise."""
    return len(edges.starts) == 4 and bool((np.abs(edges.steps).min(axis=1) < 1e-9).all())


def _rows(thickness: float) -> int:
    return int(min(LARGEST_TILE, max(SMALLEST_TILE, np.ceil(thickness))))


def _sampled(tile: NDArray[np.uint8], place: Floats, depth: Floats) -> Floats:
    """The tile at ``place`` (a whole number is its left edge) and ``depth`` (0 is its top)."""
    rows, columns = tile.shape
    x = np.asarray((place - np.floor(place)) * columns - 0.5, np.float32)
    y = np.clip(depth * rows - 0.5, 0, rows - 1).astype(np.float32)
    found = cv2.remap(tile.astype(np.float32), x, y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_WRAP)
    return np.asarray(found, np.float32)
