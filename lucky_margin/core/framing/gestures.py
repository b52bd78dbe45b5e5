"""What a drag or a typed number makes of a window.

Pure geometry in photo pixels. Every result lies inside the photo, is at least ``MIN_WINDOW``
long on each side and, when a ratio is held, has that ratio. Drags give whole left, top and
width (and height, when free), since that is what people read off and type again.
"""

from typing import Literal

from lucky_margin.core.document import Box
from lucky_margin.core.framing.windows import MIN_WINDOW, clamped, moved_inside

Grip = Literal["move", "n", "e", "s", "w", "ne", "se", "sw", "nw"]
"""What is dragged: the window itself, an edge or a corner, by compass point."""

WindowField = Literal["from_left", "from_top", "width", "height", "left", "top", "right", "bottom"]
"""``from_left`` and ``from_top`` move the window, ``width`` and ``height`` grow it from its
top left, and the four edges move alone."""

_EDGE_GRIPS: dict[str, Grip] = {"left": "w", "top": "n", "right": "e", "bottom": "s"}


def dragged(
    window: Box, photo: Box, *, grip: Grip, dx: float, dy: float, ratio: float | None
) -> Box:
    """``window`` after its ``grip`` was dragged by ``dx``, ``dy`` photo pixels.

    ``ratio`` (width over height) is held when given: a corner keeps the opposite corner where
    it is, an edge keeps the opposite edge and the middle line, sliding only where the photo
    ends. ``None`` lets each edge move alone.
    """
    if grip == "move":
        moved = Box(
            left=_whole(window.left + dx),
            top=_whole(window.top + dy),
            width=window.width,
            height=window.height,
        )
        return moved_inside(moved, photo)
    if ratio is None:
        return _free(window, photo, grip, dx, dy)
    return _held(window, photo, grip, dx, dy, ratio)


def drawn(photo: Box, *, x0: float, y0: float, x1: float, y1: float, ratio: float | None) -> Box:
    """The window drawn from one corner (``x0, y0``) to the pointer (``x1, y1``)."""
    x0, x1 = (clamped(x, photo.left, photo.right) for x in (x0, x1))
    y0, y1 = (clamped(y, photo.top, photo.bottom) for y in (y0, y1))
    if ratio is None:
        corner = Box(
            left=_whole(min(x0, x1)),
            top=_whole(min(y0, y1)),
            width=max(_whole(abs(x1 - x0)), MIN_WINDOW),
            height=max(_whole(abs(y1 - y0)), MIN_WINDOW),
        )
        return moved_inside(corner, photo)
    grip = ("s" if y1 >= y0 else "n") + ("e" if x1 >= x0 else "w")
    width = max(abs(x1 - x0), abs(y1 - y0) * ratio)
    return _from_corner(x0, y0, photo, grip, width, ratio)


def typed(window: Box, photo: Box, *, field: WindowField, value: float, ratio: float | None) -> Box:
    """``window`` after ``value`` (photo pixels) was typed into one of its numbers."""
    if field in ("from_left", "from_top"):
        left = value if field == "from_left" else window.left
        top = value if field == "from_top" else window.top
        return moved_inside(
            Box(left=left, top=top, width=window.width, height=window.height), photo
        )
    if field in ("width", "height"):
        return _grown(window, photo, field, max(value, MIN_WINDOW), ratio)
    edge = getattr(window, field)
    across = field in ("left", "right")
    step = value - edge
    return dragged(
        window,
        photo,
        grip=_EDGE_GRIPS[field],
        dx=step if across else 0,
        dy=0 if across else step,
        ratio=ratio,
    )


def _grown(window: Box, photo: Box, field: str, value: float, ratio: float | None) -> Box:
    width = value if field == "width" else window.width
    height = value if field == "height" else window.height
    if ratio is not None:
        width = value if field == "width" else value * ratio
        width = _limited(width, photo, ratio)
        height = width / ratio
    # moved_inside keeps the centre of what it shortens, so shorten from the top left first.
    width, height = min(width, photo.width), min(height, photo.height)
    return moved_inside(Box(left=window.left, top=window.top, width=width, height=height), photo)


def _free(window: Box, photo: Box, grip: str, dx: float, dy: float) -> Box:
    left, top, right, bottom = window.left, window.top, window.right, window.bottom
    if "w" in grip:
        left = min(max(_whole(left + dx), photo.left), right - MIN_WINDOW)
    if "e" in grip:
        right = max(min(_whole(right + dx), photo.right), left + MIN_WINDOW)
    if "n" in grip:
        top = min(max(_whole(top + dy), photo.top), bottom - MIN_WINDOW)
    if "s" in grip:
        bottom = max(min(_whole(bottom + dy), photo.bottom), top + MIN_WINDOW)
    return Box(left=left, top=top, width=right - left, height=bottom - top)


def _held(window: Box, photo: Box, grip: str, dx: float, dy: float, ratio: float) -> Box:
    towards_x = -dx if "w" in grip else dx
    towards_y = -dy if "n" in grip else dy
    if len(grip) == 2:
        # The pointer's way along the window's diagonal decides how far the corner goes.
        along = (towards_x * ratio + towards_y) / (ratio * ratio + 1)
        width = _whole((window.height + along) * ratio)
        kept_x = window.right if "w" in grip else window.left
        kept_y = window.bottom if "n" in grip else window.top
        return _from_corner(kept_x, kept_y, photo, grip, width, ratio)
    if grip in "ew":
        width = _whole(window.width + towards_x)
        room = window.right if grip == "w" else photo.right - window.left
    else:
        width = (window.height + towards_y) * ratio
        room = (window.bottom if grip == "n" else photo.bottom - window.top) * ratio
    width = _limited(min(width, room), photo, ratio)
    height = width / ratio
    x, y = window.center
    left = {"w": window.right - width, "e": window.left}.get(grip, x - width / 2)
    top = {"n": window.bottom - height, "s": window.top}.get(grip, y - height / 2)
    return moved_inside(Box(left=left, top=top, width=width, height=height), photo)


def _from_corner(x: float, y: float, photo: Box, grip: str, width: float, ratio: float) -> Box:
    """The window of ``width`` whose corner opposite ``grip`` stays at ``x, y``."""
    room_x = x - photo.left if "w" in grip else photo.right - x
    room_y = y - photo.top if "n" in grip else photo.bottom - y
    width = _limited(min(width, room_x, room_y * ratio), photo, ratio)
    height = width / ratio
    left = x - width if "w" in grip else x
    top = y - height if "n" in grip else y
    return moved_inside(Box(left=left, top=top, width=width, height=height), photo)


def _limited(width: float, photo: Box, ratio: float) -> float:
    """``width`` kept so that both sides are at least ``MIN_WINDOW`` and fit the photo."""
    smallest = max(MIN_WINDOW, MIN_WINDOW * ratio)
    largest = min(photo.width, photo.height * ratio)
    return min(max(width, smallest), largest)


def _whole(length: float) -> float:
    return float(round(length))
