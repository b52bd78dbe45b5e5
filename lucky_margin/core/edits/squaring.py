"""Squaring up: a flat thing in the photo is shown straight on."""

from collections.abc import Callable
from typing import Annotated, Any, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from lucky_margin.core.document import (
    Box,
    Finish,
    PhotoPoint,
    Point,
    Ratio,
    Size,
    Spot,
    Square,
    Stroke,
    UsedSubject,
    Value,
)
from lucky_margin.core.document.overrides import Changes
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene
from lucky_margin.core.squaring import is_convex, mapped, onto_corners, true_ratio

Points = NDArray[np.float64]
Moved = Callable[[Points], Points]
"""Points in the photo space of before (0..1) in that of after."""

LEAST_SIDE = 8.0
"""Photo pixels: a flat thing with a shorter side is a slip of the hand."""

RATIOS = (0.05, 20.0)

_MIRRORED = (1, 0, 3, 2)
"""Where each corner, clockwise from the top left, lies once it is mirrored."""

_FARTHEST = (-2.0, 3.0)
"""Of places that may lie beside the photo."""

_LEAST = 1e-4
"""Of a box that comes to lie beside the photo."""

_ROUND_THE_PHOTO = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0))


class SquareUp(EditBase):
    """Show what lies between four corners (pixels of the turned photo, clockwise from the top left
    as seen) straight on, of this ratio as seen or of the one that is measured; null shows all of
    the photo as it was taken. The photo is for all sizes."""

    kind: Literal["square_up"] = "square_up"
    corners: Annotated[tuple[tuple[float, float], ...], Field(min_length=4, max_length=4)] | None
    ratio: Ratio | None = None


@carries_out(SquareUp)
def square_up(scene: Scene, edit: SquareUp) -> Edited:
    """The finish of what is squared up; what was drawn on the photo stays where it was on it, and
    windows follow the focus again.

    Raises:
        BadInput: there is no photo, or the corners cross, or lie in a line.
    """
    photo = scene.finish.photo
    if photo is None:
        raise BadInput("This finish has no photo to square up.")
    square = _square(scene, edit) if edit.corners else None
    before = _onto_original(scene.taken.square)
    after = np.linalg.inv(_onto_original(square)).astype(np.float64)

    def moved(points: Points) -> Points:
        return mapped(mapped(points, before), after)

    finish = _with_places_moved(scene.finish, moved)
    changed: dict[str, Any] = {"photo": photo.model_copy(update={"square": square})}
    if square:
        changed["turn"] = finish.turn.model_copy(update={"straighten": 0.0})
    finish = finish.model_copy(update=changed)
    for size in finish.sizes:
        finish = finish.with_size(_framed_anew(size))
    return Edited.of(scene, finish)


def _framed_anew(size: Size) -> Size:
    """The size without a window and a straightening of its own."""
    turn = size.overrides.turn.model_dump(exclude={"straighten"})
    crop = size.crop.model_copy(update={"window": None})
    return size.with_overrides(turn=turn).model_copy(update={"crop": crop})


def _square(scene: Scene, edit: SquareUp) -> Square:
    assert edit.corners is not None
    turn = scene.photo.turn
    around = _MIRRORED if turn.mirrored else (0, 1, 2, 3)
    seen = [edit.corners[(place + turn.quarters) % 4] for place in around]
    shown = np.array([scene.photo.to_photo(x, y) for x, y in seen])
    shown /= (scene.facts.width, scene.facts.height)
    on_original = np.clip(mapped(shown, _onto_original(scene.taken.square)), 0, 1)
    facts = scene.sources.facts(scene.photo_sha256)
    corners = on_original * (facts.width, facts.height)
    sides = np.linalg.norm(np.roll(corners, -1, axis=0) - corners, axis=1)
    if not is_convex(corners) or sides.min() < LEAST_SIDE:
        raise BadInput(
            "These corners cross or lie in a line; drag each onto a corner of the card, print"
            " or screen."
        )
    if edit.ratio is None:
        ratio = true_ratio(corners, facts.width, facts.height)
    else:
        ratio = edit.ratio.value if turn.quarters % 2 == 0 else 1 / edit.ratio.value
    return Square(
        corners=tuple(map(tuple, on_original.round(7).tolist())),
        ratio=float(np.clip(ratio, *RATIOS)),
    )


def _onto_original(square: Square | None) -> NDArray[np.float64]:
    """From the photo space that is shown to that of the photo as it was taken, 3 x 3."""
    corners = square.corners if square else _ROUND_THE_PHOTO
    return onto_corners(np.array(corners, np.float64), 1, 1)


def _with_places_moved(finish: Finish, moved: Moved) -> Finish:
    """The finish with all that it says of places on its photo at other places."""
    fields = {name: _moved(getattr(finish, name), moved) for name in type(finish).model_fields}
    return finish.model_copy(update=fields)


def _moved(node: Any, moved: Moved) -> Any:
    """A value with every place of the photo in it moved."""
    match node:
        case UsedSubject() | Square():  # of another photo, or of the one as it was taken
            return node
        case Point() | PhotoPoint():
            limits = (0.0, 1.0) if isinstance(node, Point) else _FARTHEST
            x, y = _clipped(moved(np.array([[node.x, node.y]])), *limits)[0]
            return type(node)(x=x, y=y)
        case Box():
            return _box_around(node, moved)
        case Spot() | Stroke():
            points = _clipped(moved(np.array(node.points)), 0, 1)
            return node.model_copy(update={"points": tuple(map(tuple, points))})
        case Value():
            names = node.given if isinstance(node, Changes) else type(node).model_fields
            return node.model_copy(
                update={name: _moved(getattr(node, name), moved) for name in names}
            )
        case tuple():
            return tuple(_moved(one, moved) for one in node)
        case dict():
            return {key: _moved(one, moved) for key, one in node.items()}
    return node


def _box_around(box: Box, moved: Moved) -> Box:
    """The upright box around where a box comes to lie, on the photo."""
    corners = [(x, y) for x in (box.left, box.right) for y in (box.top, box.bottom)]
    places = np.array(_clipped(moved(np.array(corners)), 0, 1))
    (left, top), (right, bottom) = places.min(axis=0).tolist(), places.max(axis=0).tolist()
    left, top = min(left, 1 - _LEAST), min(top, 1 - _LEAST)
    width, height = max(right - left, _LEAST), max(bottom - top, _LEAST)
    return Box(left=left, top=top, width=width, height=height)


def _clipped(points: Points, low: float, high: float) -> list[list[float]]:
    places: list[list[float]] = np.clip(points, low, high).round(6).tolist()
    return places
