"""Where pieces lie on the size in hand, and putting them elsewhere.

A piece that hangs on the margin box is hung anew where it is put down: on the nearest third of
the box, so that what lies in a corner stays there on every size.
"""

from dataclasses import replace
from typing import Any

from lucky_margin.core.document import (
    MarginAnchor,
    PhotoAnchor,
    PieceChanges,
)
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.on_photo import spot_at
from lucky_margin.core.errors import NotFound
from lucky_margin.core.pieces import Ends, LaidPiece, Margins
from lucky_margin.core.pieces.laying import turned_sides
from lucky_margin.core.scene import Scene


def laid_one(scene: Scene, piece_id: str) -> LaidPiece:
    """A piece as it lies on the size in hand.

    Raises:
        NotFound: it is not on this size.
    """
    for one in scene.pieces:
        if one.piece.id == piece_id:
            return one
    raise NotFound("This piece is not on this size; switch it on first.")


def changed_piece(
    scene: Scene, piece_id: str, fields: dict[str, Any], only_this_size: bool
) -> Scene:
    """The piece with other fields, for every size or only the one in hand; where it is changed
    for all, the size in hand has no override of these fields any more."""
    finish, size = scene.finish, scene.size
    own = size.overrides.pieces.get(piece_id, PieceChanges())
    ways = dict(size.overrides.pieces)
    if only_this_size and len(finish.sizes) > 1:
        ways[piece_id] = PieceChanges.model_validate(own.model_dump() | fields)
    else:
        changes = PieceChanges.model_validate(fields)
        pieces = tuple(
            changes.applied_to(piece) if piece.id == piece_id else piece for piece in finish.pieces
        )
        finish = finish.model_copy(update={"pieces": pieces})
        left = {key: value for key, value in own.model_dump().items() if key not in fields}
        ways.pop(piece_id, None)
        if left:
            ways[piece_id] = PieceChanges.model_validate(left)
    size = size.with_overrides(pieces=ways)
    return replace(scene, finish=finish.with_size(size), size=size)


def put(scene: Scene, places: dict[LaidPiece, tuple[float, float]], only_this_size: bool) -> Edited:
    """The pieces with their middles at these places."""
    edited = scene
    for one, (x, y) in places.items():
        fields = _hung(one, x, y, scene.margins, scene)
        edited = changed_piece(edited, one.piece.id, fields, only_this_size)
    return Edited.of(scene, edited.finish)


def _hung(laid: LaidPiece, x: float, y: float, margins: Margins, scene: Scene) -> dict[str, Any]:
    """Anchor and offset under which a piece's middle lies at ``x``, ``y``."""
    short, piece = laid.short_side, laid.piece
    if laid.ends and laid.spans_ends:
        return _both_ends_moved(laid, laid.ends, x - laid.x, y - laid.y, scene)
    if isinstance(piece.anchor, PhotoAnchor):
        dx, dy = piece.dx + (x - laid.x) / short, piece.dy + (y - laid.y) / short
        return {"dx": offset(dx), "dy": offset(dy)}
    box = margins.box
    anchor_x, anchor_y = _third((x - box.left) / box.width), _third((y - box.top) / box.height)
    wide, high = turned_sides(laid.width, laid.height, laid.angle)
    home_x = box.left + anchor_x * (box.width - wide) + wide / 2
    home_y = box.top + anchor_y * (box.height - high) + high / 2
    return {
        "anchor": MarginAnchor(x=anchor_x, y=anchor_y).model_dump(),
        "dx": offset((x - home_x) / short),
        "dy": offset((y - home_y) / short),
    }


def _both_ends_moved(
    laid: LaidPiece, ends: Ends, dx: float, dy: float, scene: Scene
) -> dict[str, Any]:
    (tail_x, tail_y), (tip_x, tip_y) = ends.tail, ends.tip
    tip = spot_at(scene, tip_x + dx, tip_y + dy).model_dump()
    return tail_hung(laid, tail_x + dx, tail_y + dy, scene) | {"tip": tip}


def tail_hung(laid: LaidPiece, x: float, y: float, scene: Scene) -> dict[str, Any]:
    """Anchor and offset under which an arrow held to the photo begins at ``x``, ``y``."""
    short, box, anchor = laid.short_side, scene.margins.box, laid.piece.anchor
    if isinstance(anchor, PhotoAnchor):
        return {
            "anchor": PhotoAnchor(point=spot_at(scene, x, y)).model_dump(),
            "dx": 0.0,
            "dy": 0.0,
        }
    anchor_x, anchor_y = _third((x - box.left) / box.width), _third((y - box.top) / box.height)
    return {
        "anchor": MarginAnchor(x=anchor_x, y=anchor_y).model_dump(),
        "dx": offset((x - box.left - anchor_x * box.width) / short),
        "dy": offset((y - box.top - anchor_y * box.height) / short),
    }


def _third(share: float) -> float:
    """The end or the middle, whichever third a place is in."""
    if share < 1 / 3:
        return 0.0
    return 1.0 if share > 2 / 3 else 0.5


def offset(value: float) -> float:
    """An offset in short sides as it is stored: inside the document's limits, to 1e-6."""
    return round(within(value, -20, 20), 6)


def within(value: float, low: float, high: float) -> float:
    """``value``, or the nearer limit."""
    return min(max(value, low), high)
