"""Outlines of a size's shape, as geometry that can be drawn, inset and sent to a screen.

The shape's outline is computed once from the size; the border and the margin follow it by
insetting it, so that no gap can come between them.
"""

import math
from dataclasses import dataclass

import numpy as np
import skia

from lucky_margin.core.document import Box, Shape
from lucky_margin.core.framing import Band
from lucky_margin.core.types import Mask

CORNER_STEPS = 128
"""Chords of a rounded corner; at a radius of 1000 px none strays 0.02 px from the curve."""


@dataclass(frozen=True)
class RoundedBox:
    """A box whose corners are quarter ellipses, in output pixels.

    ``radii`` are the horizontal and vertical radius of the corners in the order top left, top
    right, bottom right, bottom left.
    """

    box: Box
    radii: tuple[tuple[float, float], ...] = ((0.0, 0.0),) * 4

    @property
    def is_plain(self) -> bool:
        """Whether all corners are square."""
        return all(x == 0 or y == 0 for x, y in self.radii)

    def inset(self, top: float, right: float, bottom: float, left: float) -> "RoundedBox":
        """The outline this far inside: a corner's radii shrink by the two insets beside it,
        not below 0, as CSS Backgrounds and Borders 3 (section 5.2) does it."""
        box = self.box
        inner = Box(
            left=box.left + left,
            top=box.top + top,
            width=max(box.width - left - right, 1e-6),
            height=max(box.height - top - bottom, 1e-6),
        )
        beside = ((left, top), (right, top), (right, bottom), (left, bottom))
        radii = tuple(
            (max(0.0, rx - dx), max(0.0, ry - dy))
            for (rx, ry), (dx, dy) in zip(self.radii, beside, strict=True)
        )
        return RoundedBox(inner, radii)

    @property
    def filled(self) -> Box:
        """A large box that lies wholly inside, clear of every rounded corner."""
        return self.inset(
            max(self.radii[0][1], self.radii[1][1]),
            max(self.radii[1][0], self.radii[2][0]),
            max(self.radii[2][1], self.radii[3][1]),
            max(self.radii[3][0], self.radii[0][0]),
        ).box

    def scaled(self, x: float, y: float) -> "RoundedBox":
        """The same outline in units ``x`` and ``y`` times finer."""
        return RoundedBox(self.box.scaled(x, y), tuple((rx * x, ry * y) for rx, ry in self.radii))

    def coverage(self, columns: int, rows: int) -> Mask:
        """How much of each pixel lies inside, 0..255, for a whole picture of these sides.

        A region of a picture cuts this mask; drawn for the region alone, edges would come out
        a little different, since the rasteriser's curves depend on where they are clipped.
        """
        path = skia.Path()
        path.addPoly([skia.Point(x, y) for x, y in self._points()], True)
        mask = np.zeros((rows, columns), np.uint8)
        surface = skia.Surface.MakeRasterDirect(skia.ImageInfo.MakeA8(columns, rows), mask)
        surface.getCanvas().drawPath(path, skia.Paint(AntiAlias=True))
        return mask

    def _points(self) -> list[tuple[float, float]]:
        """The outline as a polygon, clockwise from the left end of the top left corner."""
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
        return points

    def svg(self) -> str:
        """The outline as SVG path data."""
        box = self.box
        (ax, ay), (bx, by), (cx, cy), (dx, dy) = self.radii
        corners = (
            f"M{box.left + ax:g} {box.top:g}",
            f"H{box.right - bx:g}",
            _arc(bx, by, box.right, box.top + by),
            f"V{box.bottom - cy:g}",
            _arc(cx, cy, box.right - cx, box.bottom),
            f"H{box.left + dx:g}",
            _arc(dx, dy, box.left, box.bottom - dy),
            f"V{box.top + ay:g}",
            _arc(ax, ay, box.left + ax, box.top),
        )
        return "".join(corners) + "Z"


def outline_of(shape: Shape, width: int, height: int) -> RoundedBox:
    """The outline of a size of these output pixels."""
    radius = shape.radius * min(width, height)
    return RoundedBox(Box(left=0, top=0, width=width, height=height), ((radius, radius),) * 4)


def inner_outline(outer: RoundedBox, band: Band) -> RoundedBox:
    """The border's inner edge: the shape's outline inset by the band's thickness."""
    return outer.inset(band.top, band.right, band.bottom, band.left)


def _arc(rx: float, ry: float, x: float, y: float) -> str:
    return f"A{rx:g} {ry:g} 0 0 1 {x:g} {y:g}" if rx and ry else f"L{x:g} {y:g}"
