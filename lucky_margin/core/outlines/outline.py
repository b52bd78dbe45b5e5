"""Outlines: regions of the output bounded by closed polygons.

Curves are polygons of many chords. They are so from the start, since a rasteriser's own curves
come out a little different where they are clipped, and regions of a picture would not fit.
"""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import cv2
import numpy as np
import shapely
import skia
from numpy.typing import NDArray

from lucky_margin.core.document import Box, Corners
from lucky_margin.core.types import Mask

Points = NDArray[np.float64]
"""Corners of a closed polygon in order, shape (n, 2), x and y in output pixels; the first one
is not repeated."""

_MITRE_LIMIT = 20.0
"""How far past its neighbours a corner may stay sharp when it is inset, in insets."""

_LEAST_AREA = 1e-9
_QUARTER_STEPS = 64

OVERSAMPLING, SMALL_MASK = 2, 4_000_000
"""Masks of up to so many pixels are drawn this much finer first: the rasteriser's own coverage
of notched outlines is off by up to 0.4 % of the area at 100 px, this way by less than 0.2 %."""


class Outline(ABC):
    """A region that can be inset, scaled and drawn, in output pixels."""

    @property
    @abstractmethod
    def rings(self) -> list[Points]:
        """Its polygons; none when nothing is left of it."""

    @abstractmethod
    def inset(self, top: float, right: float, bottom: float, left: float) -> "Outline":
        """The outline this far inside."""

    @abstractmethod
    def cornered(self, corners: Corners, size: float) -> "Outline":
        """The same outline with its sharp corners rounded or cut off over ``size`` pixels."""

    @abstractmethod
    def scaled(self, x: float, y: float) -> "Outline":
        """The same outline in units ``x`` and ``y`` times finer."""

    @property
    def clear(self) -> Box | None:
        """A large box that certainly lies inside, if one is known; it only saves time."""
        return None

    @cached_property
    def region(self) -> Any:
        """The same as a shapely geometry."""
        return shapely.union_all([shapely.Polygon(ring) for ring in self.rings])

    def coverage(self, columns: int, rows: int) -> Mask:
        """How much of each pixel lies inside, 0..255, for a whole picture of these sides.

        A region of a picture cuts this mask.
        """
        finer = OVERSAMPLING if columns * rows <= SMALL_MASK else 1
        path = skia.Path()
        for ring in self.rings:
            path.addPoly([skia.Point(x, y) for x, y in ring * finer], True)
        mask = np.zeros((rows * finer, columns * finer), np.uint8)
        info = skia.ImageInfo.MakeA8(columns * finer, rows * finer)
        canvas = skia.Surface.MakeRasterDirect(info, mask).getCanvas()
        canvas.drawPath(path, skia.Paint(AntiAlias=True))
        if finer == 1:
            return mask
        shrunk = cv2.resize(mask, (columns, rows), interpolation=cv2.INTER_AREA)
        return shrunk.astype(np.uint8, copy=False)

    def svg(self) -> str:
        """The outline as SVG path data."""
        return "".join(_svg_ring(ring) for ring in self.rings)


@dataclass(frozen=True)
class PolygonOutline(Outline):
    """An outline of any polygon."""

    polygon: Any
    """A shapely Polygon or MultiPolygon without holes."""

    @classmethod
    def of(cls, points: Points) -> "PolygonOutline":
        """The outline through ``points``, shape (count, 2)."""
        return cls(shapely.Polygon(points))

    @cached_property
    def rings(self) -> list[Points]:
        """The closed lines that it is made of, each of shape (count, 2)."""
        parts = shapely.get_parts(self.polygon)
        return [
            shapely.get_coordinates(part.exterior)[:-1] for part in parts if part.area > _LEAST_AREA
        ]

    def inset(self, top: float, right: float, bottom: float, left: float) -> "PolygonOutline":
        """By the largest of the four distances all round; corners stay as sharp as they are."""
        distance = max(top, right, bottom, left)
        if distance <= 0:
            return self
        inner = self.polygon.buffer(-distance, join_style="mitre", mitre_limit=_MITRE_LIMIT)
        return PolygonOutline(inner)

    def cornered(self, corners: Corners, size: float) -> "PolygonOutline":
        """By shrinking and growing again, which leaves all but the corners as it was."""
        if corners == "square" or size <= 0:
            return self
        shrunk = self.polygon.buffer(-size, join_style="mitre", mitre_limit=_MITRE_LIMIT)
        if shrunk.is_empty:
            return self
        if corners == "round":
            return PolygonOutline(shrunk.buffer(size, quad_segs=_QUARTER_STEPS))
        return PolygonOutline(shrunk.buffer(size, join_style="bevel"))

    def grown(self, distance: float) -> "PolygonOutline":
        """This far outwards; sharp corners stay sharp."""
        if distance <= 0:
            return self
        outer = self.polygon.buffer(distance, join_style="mitre", mitre_limit=_MITRE_LIMIT)
        return PolygonOutline(outer)

    def moved(self, x: float, y: float) -> "PolygonOutline":
        """This much further right and down."""
        return PolygonOutline(
            shapely.transform(self.polygon, lambda points: np.add(points, (x, y)))
        )

    def scaled(self, x: float, y: float) -> "PolygonOutline":
        """Scaled about the origin."""
        return PolygonOutline(shapely.transform(self.polygon, lambda points: points * [x, y]))


def _svg_ring(ring: Points) -> str:
    corners = [f"{x:.2f} {y:.2f}" for x, y in ring]
    return f"M{'L'.join(corners)}Z"
