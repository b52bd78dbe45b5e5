"""Where washes and the masks of areas lie under a picture."""

import math
from dataclasses import dataclass

from lucky_margin.core.affine import UNCHANGED, Affine
from lucky_margin.core.document import EllipseMask, PhotoPoint

_SHORTEST = 1e-3
"""Of the photo's long side: a line shorter than this is taken to be this long."""


@dataclass(frozen=True)
class OnPhoto:
    """How a picture lies on its photo.

    ``mapping`` leads from absolute picture pixels to photo pixels, ``width`` and ``height`` are
    the photo's.
    """

    width: int
    height: int
    mapping: Affine = UNCHANGED

    @property
    def long_side(self) -> int:
        """Photo pixels."""
        return max(self.width, self.height)

    def along(self, start: PhotoPoint, end: PhotoPoint) -> Affine:
        """From picture pixels to x = how far along the line (0 at its start, 1 at its end) and
        y = how far across it, in line lengths."""
        x0, y0 = start.x * self.width, start.y * self.height
        dx, dy = end.x * self.width - x0, end.y * self.height - y0
        length = math.hypot(dx, dy)
        shortest = _SHORTEST * self.long_side
        if length < shortest:
            dx, dy, length = (dx or shortest), dy, shortest
        a, b = dx / length**2, dy / length**2
        return Affine(a, b, -b, a, -(a * x0 + b * y0), b * x0 - a * y0).after(self.mapping)

    def in_ellipse(self, ellipse: EllipseMask) -> Affine:
        """From picture pixels to a plane in which the ellipse is the unit circle."""
        x0, y0 = ellipse.centre.x * self.width, ellipse.centre.y * self.height
        angle = math.radians(ellipse.angle)
        cos, sin = math.cos(angle), math.sin(angle)
        rx, ry = ellipse.radius_x * self.long_side, ellipse.radius_y * self.long_side
        onto = Affine(cos / rx, sin / rx, -sin / ry, cos / ry)
        return onto.after(Affine(1, 0, 0, 1, -x0, -y0)).after(self.mapping)
