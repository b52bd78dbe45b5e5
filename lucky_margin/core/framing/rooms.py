"""Rooms: where windows may lie. All boxes here are in turned pixels (see ``turning``).

A room is a rectangle turned by an angle about its centre. A window, which is always upright,
lies inside it when its centre is at most ``reach`` from the room's centre along the room's own
two axes; so whatever has to be found about windows in rooms has a closed form.
"""

import math
from dataclasses import dataclass

from lucky_margin.core.document import Box

_CLOSE = 1e-9
"""Of the room's longer side: rounding that does not count as lying outside."""


@dataclass(frozen=True)
class Room:
    """A rectangle of ``width`` x ``height``, turned clockwise by ``degrees`` about its centre."""

    centre_x: float
    centre_y: float
    width: float
    height: float
    degrees: float = 0

    @classmethod
    def upright(cls, box: Box) -> "Room":
        """The room that is exactly ``box``."""
        x, y = box.centre
        return cls(x, y, box.width, box.height)

    @property
    def bounds(self) -> Box:
        """The upright box around the room."""
        width, height = self._across(self.width, self.height)
        return Box(
            left=self.centre_x - width / 2,
            top=self.centre_y - height / 2,
            width=width,
            height=height,
        )

    def largest(self, ratio: float | None) -> tuple[float, float]:
        """Width and height of the largest window of ``ratio`` (width over height); without
        one, of the room's own ratio."""
        ratio = ratio or self.width / self.height
        across, down = self._across(ratio, 1)
        height = min(self.width / across, self.height / down)
        return height * ratio, height

    def holds(self, box: Box) -> bool:
        """Whether ``box`` lies inside."""
        u, v = self._own_axes(*box.centre)
        reach_u, reach_v = self._reach(box.width, box.height)
        slack = _CLOSE * max(self.width, self.height)
        return abs(u) <= reach_u + slack and abs(v) <= reach_v + slack

    def moved_inside(self, box: Box) -> Box:
        """``box`` moved the least way that brings it inside; first its sides are shortened to
        those of the bounds and, where that is not enough, both are shrunk alike."""
        bounds = self.bounds
        width, height = min(box.width, bounds.width), min(box.height, bounds.height)
        across, down = self._across(width, height)
        shrink = min(1, self.width / across, self.height / down)
        width, height = width * shrink, height * shrink
        x, y = self._nearest_centre(box.centre, width, height)
        return Box(left=x - width / 2, top=y - height / 2, width=width, height=height)

    def towards(self, start: Box, wanted: Box) -> Box:
        """The last box inside on the straight way from ``start``, which lies inside, to
        ``wanted``, all four edges moving evenly."""
        share = min((self._share(*pair) for pair in self._corners(start, wanted)), default=1.0)
        if share >= 1:
            return wanted
        return Box(
            left=start.left + share * (wanted.left - start.left),
            top=start.top + share * (wanted.top - start.top),
            width=start.width + share * (wanted.width - start.width),
            height=start.height + share * (wanted.height - start.height),
        )

    @property
    def _turn(self) -> tuple[float, float]:
        """Cosine and sine; exact for an upright room, so that nothing is rounded there."""
        angle = math.radians(self.degrees)
        return math.cos(angle), math.sin(angle)

    def _across(self, width: float, height: float) -> tuple[float, float]:
        """The sides of the rectangle along one's axes around a ``width`` x ``height`` one along
        the other's; the same both ways."""
        cos, sin = (abs(part) for part in self._turn)
        return width * cos + height * sin, width * sin + height * cos

    def _reach(self, width: float, height: float) -> tuple[float, float]:
        across, down = self._across(width, height)
        return (self.width - across) / 2, (self.height - down) / 2

    def _own_axes(self, x: float, y: float) -> tuple[float, float]:
        cos, sin = self._turn
        dx, dy = x - self.centre_x, y - self.centre_y
        return dx * cos + dy * sin, dy * cos - dx * sin

    def _nearest_centre(
        self, centre: tuple[float, float], width: float, height: float
    ) -> tuple[float, float]:
        u, v = self._own_axes(*centre)
        reach_u, reach_v = (max(0.0, reach) for reach in self._reach(width, height))
        u, v = clamped(u, -reach_u, reach_u), clamped(v, -reach_v, reach_v)
        cos, sin = self._turn
        return self.centre_x + u * cos - v * sin, self.centre_y + u * sin + v * cos

    def _corners(
        self, start: Box, wanted: Box
    ) -> list[tuple[tuple[float, float], tuple[float, float]]]:
        """Each corner at the start and where it is wanted, along the room's own axes."""
        return [
            (self._own_axes(*first), self._own_axes(*second))
            for first, second in zip(_corners_of(start), _corners_of(wanted), strict=True)
        ]

    def _share(self, start: tuple[float, float], wanted: tuple[float, float]) -> float:
        """How much of a corner's way lies inside the room, 0..1."""
        share = 1.0
        for begin, end, half in zip(start, wanted, (self.width / 2, self.height / 2), strict=True):
            if abs(end) > half + _CLOSE * half and abs(end - begin) > 0:
                bound = math.copysign(half, end)
                share = min(share, max(0.0, (bound - begin) / (end - begin)))
        return share


def _corners_of(box: Box) -> list[tuple[float, float]]:
    return [(x, y) for x in (box.left, box.right) for y in (box.top, box.bottom)]


def clamped(value: float, low: float, high: float) -> float:
    """``value``, or the nearer of the two bounds."""
    return min(max(value, low), high)
