"""The turned photo: where its pixels lie after mirroring, quarter turns and straightening.

*Turned pixels* count from the top left of the upright box around the turned photo; one turned
pixel is as long as one photo pixel. Quarter turns and mirroring keep whole pixels whole.
"""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import Box, Turn, Window
from lucky_margin.core.framing.rooms import Room

BEYOND = 1.0
"""How far windows may go past the photo's edges, in its longer sides."""

_QUARTERS = ((1, 0), (0, 1), (-1, 0), (0, -1))
"""Cosine and sine of a clockwise turn by so many quarters."""


@dataclass(frozen=True)
class TurnedPhoto:
    """A photo of these (upright) photo pixels, turned; ``beyond`` its edges windows may go where
    only its subject is shown."""

    photo_width: int
    photo_height: int
    turn: Turn = Turn()
    beyond: bool = False

    @cached_property
    def window_room(self) -> Room:
        """Where windows may lie: on the photo, anywhere in its bounds when empty corners are
        allowed, or as far again on every side."""
        if not self.beyond:
            return self.unmoved_room
        x, y = self.bounds.centre
        side = (1 + 2 * BEYOND) * max(self.bounds.width, self.bounds.height)
        return Room(x, y, side, side)

    @cached_property
    def unmoved_room(self) -> Room:
        """Where windows lie that nobody has moved."""
        return Room.upright(self.bounds) if self.turn.empty_corners else self.surface

    @property
    def bounds(self) -> Box:
        """The upright box around the turned photo; its top left is 0, 0."""
        return self.surface.bounds

    @property
    def whole_sides(self) -> tuple[int, int]:
        """The bounds in whole pixels."""
        return max(1, round(self.bounds.width)), max(1, round(self.bounds.height))

    @property
    def corners(self) -> NDArray[np.float64]:
        """The photo's corners in turned pixels, in order, shape (4, 2)."""
        width, height = self.photo_width, self.photo_height
        around = ((0, 0), (width, 0), (width, height), (0, height))
        return np.array([self.to_turned(x, y) for x, y in around])

    @cached_property
    def to_turned(self) -> Affine:
        """From photo pixels to turned pixels."""
        cos, sin = _QUARTERS[self.turn.quarters]
        mirror = -1 if self.turn.mirrored else 1
        angle = math.radians(self.turn.straighten)
        straightened = Affine(
            math.cos(angle), -math.sin(angle), math.sin(angle), math.cos(angle), 0, 0
        )
        about_centre = straightened.after(Affine(cos * mirror, -sin, sin * mirror, cos, 0, 0))
        room = self.surface
        x, y = about_centre(self.photo_width / 2, self.photo_height / 2)
        return Affine(
            *(about_centre.a, about_centre.b, about_centre.c, about_centre.d),
            x0=room.centre_x - x,
            y0=room.centre_y - y,
        )

    @cached_property
    def to_photo(self) -> Affine:
        """From turned pixels to photo pixels."""
        return self.to_turned.inverse

    def turned_box(self, box: Box) -> Box:
        """The upright box around ``box`` (photo pixels) once it is turned."""
        corners = [
            self.to_turned(x, y) for x in (box.left, box.right) for y in (box.top, box.bottom)
        ]
        xs, ys = zip(*corners, strict=True)
        return Box(left=min(xs), top=min(ys), width=max(xs) - min(xs), height=max(ys) - min(ys))

    def box_of(self, window: Window) -> Box:
        """A window of the document in turned pixels."""
        x, y = self.to_turned(window.centre_x, window.centre_y)
        return Box(
            left=x - window.width / 2,
            top=y - window.height / 2,
            width=window.width,
            height=window.height,
        )

    def window_of(self, box: Box) -> Window:
        """A box in turned pixels as a window of the document."""
        x, y = self.to_photo(*box.centre)
        return Window(centre_x=x, centre_y=y, width=box.width, height=box.height)

    @cached_property
    def surface(self) -> Room:
        """What the turned photo covers."""
        sideways = self.turn.quarters % 2 == 1
        width, height = self.photo_width, self.photo_height
        if sideways:
            width, height = height, width
        about_origin = Room(0, 0, width, height, self.turn.straighten)
        bounds = about_origin.bounds
        return Room(bounds.width / 2, bounds.height / 2, width, height, self.turn.straighten)
