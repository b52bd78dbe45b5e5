"""What a drag, the wheel or a typed number makes of a window.

Pure geometry in turned pixels. Every result lies in the photo's room, is at least
``MIN_WINDOW`` long on each side and, when a ratio is held, has that ratio. Drags give whole
left, top and width (and height, when free), since that is what people read off and type again.
"""

from typing import Literal

from lucky_margin.core.document import Box
from lucky_margin.core.framing.rooms import Room, clamped
from lucky_margin.core.framing.windows import MIN_WINDOW

Grip = Literal["move", "n", "e", "s", "w", "ne", "se", "sw", "nw"]
"""What is dragged: the window itself, an edge or a corner, by compass point."""

WindowField = Literal["from_left", "from_top", "width", "height", "left", "top", "right", "bottom"]
"""``from_left`` and ``from_top`` move the window, ``width`` and ``height`` grow it from its
top left, and the four edges move alone."""

_EDGE_GRIPS: dict[str, Grip] = {"left": "w", "top": "n", "right": "e", "bottom": "s"}
_STILL = 1e-6
"""Turned pixels that an edge may move by rounding and still count as kept."""


def dragged(
    window: Box, room: Room, *, grip: Grip, dx: float, dy: float, ratio: float | None, pull: float
) -> Box:
    """``window`` after its ``grip`` was dragged by ``dx``, ``dy`` pixels.

    ``ratio`` (width over height) is held when given: a corner keeps the opposite corner where
    it is, an edge keeps the opposite edge and the middle line, sliding only where the photo
    ends. ``None`` lets each edge move alone. What comes within ``pull`` pixels of the photo's
    edges, thirds or centre goes there.
    """
    if grip == "move":
        moved = window.moved(
            _whole(window.left + dx) - window.left, _whole(window.top + dy) - window.top
        )
        return room.moved_inside(_snapped(moved, room.bounds, pull))
    lines = room.bounds
    dx += _pull_x(window, grip, dx, lines, pull)
    dy += _pull_y(window, grip, dy, lines, pull)
    if ratio is None:
        return _free(window, room, grip, dx, dy)
    return _held(window, room, grip, dx, dy, ratio)


def drawn(room: Room, *, x0: float, y0: float, x1: float, y1: float, ratio: float | None) -> Box:
    """The window drawn from one corner (``x0, y0``) to the pointer (``x1, y1``)."""
    bounds = room.bounds
    x0, x1 = (clamped(x, bounds.left, bounds.right) for x in (x0, x1))
    y0, y1 = (clamped(y, bounds.top, bounds.bottom) for y in (y0, y1))
    if ratio is None:
        corner = Box(
            left=_whole(min(x0, x1)),
            top=_whole(min(y0, y1)),
            width=max(_whole(abs(x1 - x0)), MIN_WINDOW),
            height=max(_whole(abs(y1 - y0)), MIN_WINDOW),
        )
        return room.moved_inside(corner)
    grip = ("s" if y1 >= y0 else "n") + ("e" if x1 >= x0 else "w")
    width = max(abs(x1 - x0), abs(y1 - y0) * ratio)
    return _from_corner(x0, y0, room, grip, width, ratio)


def scaled(window: Box, room: Room, *, factor: float) -> Box:
    """``window`` made larger or smaller about its centre, keeping its proportions."""
    width = _limited(window.width * factor, room, window.ratio)
    return room.moved_inside(_about(window, width, width / window.ratio))


def typed(window: Box, room: Room, *, field: WindowField, value: float, ratio: float | None) -> Box:
    """``window`` after ``value`` (turned pixels) was typed into one of its numbers."""
    if field == "from_left":
        return room.moved_inside(window.moved(value - window.left, 0))
    if field == "from_top":
        return room.moved_inside(window.moved(0, value - window.top))
    if field in ("width", "height"):
        return _grown(window, room, field, max(value, MIN_WINDOW), ratio)
    step = value - getattr(window, field)
    across = field in ("left", "right")
    dx, dy = (step, 0.0) if across else (0.0, step)
    return dragged(window, room, grip=_EDGE_GRIPS[field], dx=dx, dy=dy, ratio=ratio, pull=0)


def _grown(window: Box, room: Room, field: str, value: float, ratio: float | None) -> Box:
    width = value if field == "width" else window.width
    height = value if field == "height" else window.height
    if ratio is not None:
        width = _limited(value if field == "width" else value * ratio, room, ratio)
        height = width / ratio
    # moved_inside keeps the centre of what it shortens, so shorten from the top left first.
    bounds = room.bounds
    width, height = min(width, bounds.width), min(height, bounds.height)
    return room.moved_inside(Box(left=window.left, top=window.top, width=width, height=height))


def _free(window: Box, room: Room, grip: str, dx: float, dy: float) -> Box:
    """Each edge goes as far as the room allows, one direction after the other."""
    box = window
    if "w" in grip:
        left = min(max(_whole(box.left + dx), room.bounds.left), box.right - MIN_WINDOW)
        box = room.towards(box, _between(left, box.top, box.right, box.bottom))
    if "e" in grip:
        right = max(min(_whole(box.right + dx), room.bounds.right), box.left + MIN_WINDOW)
        box = room.towards(box, _between(box.left, box.top, right, box.bottom))
    if "n" in grip:
        top = min(max(_whole(box.top + dy), room.bounds.top), box.bottom - MIN_WINDOW)
        box = room.towards(box, _between(box.left, top, box.right, box.bottom))
    if "s" in grip:
        bottom = max(min(_whole(box.bottom + dy), room.bounds.bottom), box.top + MIN_WINDOW)
        box = room.towards(box, _between(box.left, box.top, box.right, bottom))
    return box


def _held(window: Box, room: Room, grip: str, dx: float, dy: float, ratio: float) -> Box:
    towards_x = -dx if "w" in grip else dx
    towards_y = -dy if "n" in grip else dy
    if len(grip) == 2:
        # The pointer's way along the window's diagonal decides how far the corner goes.
        along = (towards_x * ratio + towards_y) / (ratio * ratio + 1)
        width = _whole((window.height + along) * ratio)
        kept_x = window.right if "w" in grip else window.left
        kept_y = window.bottom if "n" in grip else window.top
        return _from_corner(kept_x, kept_y, room, grip, width, ratio)
    bounds = room.bounds
    if grip in "ew":
        width = _whole(window.width + towards_x)
        reach = window.right - bounds.left if grip == "w" else bounds.right - window.left
    else:
        width = (window.height + towards_y) * ratio
        reach = window.bottom - bounds.top if grip == "n" else bounds.bottom - window.top
        reach *= ratio
    width = _limited(min(width, reach), room, ratio)
    wanted = _beside_kept_edge(window, grip, width, width / ratio)
    box = room.moved_inside(wanted)
    if _kept_edge(box, grip, wanted):
        return box
    start = room.moved_inside(_beside_kept_edge(window, grip, window.width, window.width / ratio))
    return room.towards(start, wanted)


def _beside_kept_edge(window: Box, grip: str, width: float, height: float) -> Box:
    x, y = window.centre
    left = {"w": window.right - width, "e": window.left}.get(grip, x - width / 2)
    top = {"n": window.bottom - height, "s": window.top}.get(grip, y - height / 2)
    return Box(left=left, top=top, width=width, height=height)


def _kept_edge(box: Box, grip: str, wanted: Box) -> bool:
    """Whether the edge opposite ``grip`` is where it was wanted."""
    opposite = {"w": "right", "e": "left", "n": "bottom", "s": "top"}[grip]
    return bool(abs(getattr(box, opposite) - getattr(wanted, opposite)) < _STILL)


def _from_corner(x: float, y: float, room: Room, grip: str, width: float, ratio: float) -> Box:
    """The window of ``width`` whose corner opposite ``grip`` stays at ``x, y``."""

    def of_width(wide: float) -> Box:
        high = wide / ratio
        left = x - wide if "w" in grip else x
        top = y - high if "n" in grip else y
        return Box(left=left, top=top, width=wide, height=high)

    smallest = room.moved_inside(of_width(_limited(0, room, ratio)))
    return room.towards(smallest, of_width(_limited(width, room, ratio)))


def _limited(width: float, room: Room, ratio: float) -> float:
    """``width`` kept so that both sides are at least ``MIN_WINDOW`` and fit the room."""
    smallest = max(MIN_WINDOW, MIN_WINDOW * ratio)
    largest, _ = room.largest(ratio)
    return min(max(width, smallest), largest)


def _about(window: Box, width: float, height: float) -> Box:
    x, y = window.centre
    return Box(left=x - width / 2, top=y - height / 2, width=width, height=height)


def _between(left: float, top: float, right: float, bottom: float) -> Box:
    return Box(left=left, top=top, width=right - left, height=bottom - top)


def _snapped(box: Box, bounds: Box, pull: float) -> Box:
    """``box`` moved so that an edge, or its centre, lies on one of the photo's lines."""
    x, y = box.centre
    pull_x = _pull((box.left, x, box.right), _lines(bounds.left, bounds.width), pull)
    pull_y = _pull((box.top, y, box.bottom), _lines(bounds.top, bounds.height), pull)
    return box.moved(pull_x, pull_y)


def _pull_x(window: Box, grip: str, dx: float, bounds: Box, pull: float) -> float:
    edge = window.left if "w" in grip else window.right
    if not set(grip) & set("ew"):
        return 0
    return _pull((edge + dx,), _lines(bounds.left, bounds.width), pull)


def _pull_y(window: Box, grip: str, dy: float, bounds: Box, pull: float) -> float:
    edge = window.top if "n" in grip else window.bottom
    if not set(grip) & set("ns"):
        return 0
    return _pull((edge + dy,), _lines(bounds.top, bounds.height), pull)


def _lines(start: float, length: float) -> tuple[float, ...]:
    """The photo's edges, thirds and centre along one axis."""
    return tuple(start + length * share for share in (0, 1 / 3, 1 / 2, 2 / 3, 1))


def _pull(places: tuple[float, ...], lines: tuple[float, ...], pull: float) -> float:
    """The shortest way from one of ``places`` to one of ``lines``, if within ``pull``, else 0."""
    ways = [line - place for place in places for line in lines]
    nearest = min(ways, key=abs)
    return nearest if abs(nearest) <= pull else 0.0


def _whole(length: float) -> float:
    return float(round(length))
