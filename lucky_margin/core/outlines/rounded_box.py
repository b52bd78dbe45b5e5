"""Rectangles with rounded corners, which may be inset by another distance on each side."""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely

from lucky_margin.core.document import Box, Corners
from lucky_margin.core.outlines.outline import Outline, Points, PolygonOutline

CORNER_STEPS = 128
"""Chords of a rounded corner; at a radius of 1000 px none strays 0.02 px from the curve."""

_THINNEST = 1e-6


@dataclass(frozen=True)
class RoundedBox(Outline):
    """A box whose corners are quarter ellipses, in output pixels.

    ``radii`` are the horizontal and vertical radius of the corners in the order top left, top
    right, bottom right, bottom left.
    """

    box: Box
    radii: tuple[tuple[float, float], ...] = ((0.0, 0.0),) * 4

    def fills(self, width: int, height: int) -> bool:
        """Whether it is all of an output of these sides, square corners and all."""
        square = all(x == 0 or y == 0 for x, y in self.radii)
        return square and self.box == Box(left=0, top=0, width=width, height=height)

    def inset(self, top: float, right: float, bottom: float, left: float) -> "RoundedBox":
        """A corner's radii shrink by the two insets beside it, not below 0, as CSS Backgrounds
        and Borders 3 (section 5.2) does it."""
        box = self.box
        inner = Box(
            left=box.left + left,
            top=box.top + top,
            width=max(box.width - left - right, _THINNEST),
            height=max(box.height - top - bottom, _THINNEST),
        )
        beside = ((left, top), (right, top), (right, bottom), (left, bottom))
        radii = tuple(
            (max(0.0, rx - dx), max(0.0, ry - dy))
            for (rx, ry), (dx, dy) in zip(self.radii, beside, strict=True)
        )
        return RoundedBox(inner, radii)

    def cornered(self, corners: Corners, size: float) -> Outline:
        """A corner that is rounder already stays as it is."""
        box = self.box
        size = min(size, box.width / 2, box.height / 2)
        if corners == "square" or size <= 0:
            return self
        if corners == "round":
            return RoundedBox(box, tuple((max(rx, size), max(ry, size)) for rx, ry in self.radii))
        left, top, right, bottom = box.edges
        cut = [
            (left, top + size), (left + size, top), (right - size, top), (right, top + size),
            (right, bottom - size), (right - size, bottom), (left + size, bottom),
            (left, bottom - size),
        ]  # fmt: skip
        return PolygonOutline(shapely.Polygon(cut).intersection(self.region))

    def scaled(self, x: float, y: float) -> "RoundedBox":
        """Scaled about the origin."""
        return RoundedBox(self.box.scaled(x, y), tuple((rx * x, ry * y) for rx, ry in self.radii))

    @property
    def clear(self) -> Box:
        """The upright box between the rounded corners."""
        return self.inset(
            max(self.radii[0][1], self.radii[1][1]),
            max(self.radii[1][0], self.radii[2][0]),
            max(self.radii[2][1], self.radii[3][1]),
            max(self.radii[3][0], self.radii[0][0]),
        ).box

    @cached_property
    def rings(self) -> list[Points]:
        """Clockwise from the left end of the top left corner."""
        box = self.box
        corners = (
            (box.left, box.top, 1, 1),
            (box.right, box.top, -1, 1),
            (box.right, box.bottom, -1, -1),
            (box.left, box.bottom, 1, -1),
        )
        points = []
        for number, ((x, y, inward_x, inward_y), (rx, ry)) in enumerate(
            zip(corners, self.radii, strict=True)
        ):
            if rx == 0 or ry == 0:
                points.append((x, y))
                continue
            for step in range(CORNER_STEPS + 1):
                angle = math.pi / 2 * (2 + number + step / CORNER_STEPS)
                points.append(
                    (x + rx * (inward_x + math.cos(angle)), y + ry * (inward_y + math.sin(angle)))
                )
        return [np.array(points)]
