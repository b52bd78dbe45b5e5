"""Places and ways in photo space, of what the screen tells in output pixels."""

from typing import Any

from lucky_margin.core.document import PhotoPoint
from lucky_margin.core.edits.edited import changed
from lucky_margin.core.scene import Scene


def spot_at(scene: Scene, x: float, y: float) -> PhotoPoint:
    """A place of the output in photo space."""
    px, py = scene.frame.from_output(x, y)
    return _kept(px / scene.facts.width, py / scene.facts.height)


def moved(scene: Scene, spot: PhotoPoint, dx: float, dy: float) -> PhotoPoint:
    """``spot`` after a way in output pixels."""
    x, y = way_in_photo(scene, dx, dy)
    return _kept(spot.x + x / scene.facts.width, spot.y + y / scene.facts.height)


def way_in_photo(scene: Scene, dx: float, dy: float) -> tuple[float, float]:
    """A way in output pixels as one in photo pixels."""
    onto = scene.frame.from_output
    return onto.a * dx + onto.b * dy, onto.c * dx + onto.d * dy


def line_dragged(scene: Scene, line: Any, edit: Any) -> Any:
    """What has a ``start`` and an ``end``, after a drag of one of them or of its middle: by the
    ``grip``, ``dx`` and ``dy`` of an edit."""
    ends = {"start": ("start",), "end": ("end",)}.get(edit.grip, ("start", "end"))
    places = {name: moved(scene, getattr(line, name), edit.dx, edit.dy) for name in ends}
    return changed(line, **places)


def _kept(x: float, y: float) -> PhotoPoint:
    return PhotoPoint(x=round(min(max(x, -2), 3), 6), y=round(min(max(y, -2), 3), 6))
