"""Windows: which part of a photo a size shows. All boxes here are in turned pixels."""

import math

from lucky_margin.core.document import Box, Focus
from lucky_margin.core.framing.rooms import Room, clamped
from lucky_margin.core.framing.turning import TurnedPhoto

MIN_WINDOW = 1.0
"""The shortest side of a window, in photo pixels."""

_TRIES = 60
"""Steps of finding a place that is inside the photo and covers the focus box."""


def whole(width: int, height: int) -> Box:
    """All of a picture of these sides."""
    return Box(left=0, top=0, width=width, height=height)


def largest_inside(outer: Box, ratio: float) -> Box:
    """The largest box of ``ratio`` (width over height) inside ``outer``, on its centre."""
    width = min(outer.width, outer.height * ratio)
    height = width / ratio
    x, y = outer.centre
    return Box(left=x - width / 2, top=y - height / 2, width=width, height=height)


def on_whole_pixels(box: Box, photo: TurnedPhoto) -> Box:
    """``box`` with whole sides and corners, each within half a pixel, inside the photo.

    On a straightened photo, whose pixels lie askew anyway, only the sides are whole.
    """
    if photo.turn.straighten:
        x, y = box.centre
        width, height = max(1, int(box.width)), max(1, int(box.height))
        return Box(left=x - width / 2, top=y - height / 2, width=width, height=height)
    width, height = max(1, round(box.width)), max(1, round(box.height))
    bounds = photo.window_room.bounds
    return Box(
        left=clamped(round(box.left), math.ceil(bounds.left), int(bounds.right) - width),
        top=clamped(round(box.top), math.ceil(bounds.top), int(bounds.bottom) - height),
        width=width,
        height=height,
    )


def following(focus: Focus | None, photo: TurnedPhoto, ratio: float | None) -> Box:
    """The largest window of ``ratio`` in the photo's room that follows ``focus``.

    It is centred on the focus point, then moved to keep the focus box in. Where the box is
    larger than the window the window is centred on the box. Without a focus it is centred on
    the photo; without a ratio it is as much of the photo as there is.
    """
    room = photo.unmoved_room
    width, height = room.largest(ratio)
    x, y = photo.bounds.centre
    box = None
    if focus is not None and ratio is not None:
        sides = photo.photo_width, photo.photo_height
        x, y = photo.to_turned(focus.point.x * sides[0], focus.point.y * sides[1])
        box = focus_box(focus, photo)
    window = Box(left=x - width / 2, top=y - height / 2, width=width, height=height)
    if box is None:
        return room.moved_inside(window)
    # Nearest points of two convex sets in turn: covering the box, and lying inside.
    for _ in range(_TRIES):
        covering = _covering(window, box)
        inside = room.moved_inside(covering)
        if inside == window:
            break
        window = inside
    return window


def within(part: Box, photo: TurnedPhoto, ratio: float | None) -> Box:
    """The largest window of ``ratio`` (or of the part's own) inside ``part`` of the photo, a box
    in photo pixels, in the middle of it."""
    sideways = photo.turn.quarters % 2 == 1
    width, height = (part.height, part.width) if sideways else (part.width, part.height)
    x, y = photo.to_turned(*part.centre)
    wide, high = Room(x, y, width, height, photo.turn.straighten).largest(ratio)
    return Box(left=x - wide / 2, top=y - high / 2, width=wide, height=high)


def focus_box(focus: Focus | None, photo: TurnedPhoto) -> Box | None:
    """The upright box around the focus box, or None without one."""
    if focus is None or focus.box is None:
        return None
    return photo.turned_box(focus.box.scaled(photo.photo_width, photo.photo_height))


def _covering(window: Box, box: Box) -> Box:
    """``window`` moved the least way that covers ``box``, or centred on what is longer."""
    return Box(
        left=_start(window.left, window.width, box.left, box.width),
        top=_start(window.top, window.height, box.top, box.height),
        width=window.width,
        height=window.height,
    )


def _start(start: float, length: float, box_start: float, box_length: float) -> float:
    if box_length > length:
        return box_start + (box_length - length) / 2
    return clamped(start, box_start + box_length - length, box_start)
