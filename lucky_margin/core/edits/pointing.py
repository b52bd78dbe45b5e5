"""Edits of what a piece points at: the ends of arrows and lines, the pointers of bubbles."""

import math
from typing import Literal

from lucky_margin.core.document import BadgePiece, Identifier, MarginAnchor
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.on_photo import spot_at
from lucky_margin.core.edits.placing import changed_piece, laid_one, put, tail_hung
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.pieces import LaidPiece
from lucky_margin.core.scene import Scene

BUBBLE_REACH = 0.9
"""How far below a bubble it points at first, of its height."""


class PointPiece(EditBase):
    """Drag an end of an arrow or a line, or a bubble's pointer, in output pixels; what it points
    at is then held at the photo."""

    kind: Literal["point_piece"] = "point_piece"
    id: Identifier
    end: Literal["tail", "tip"]
    dx: float
    dy: float
    only_this_size: bool = False


@carries_out(PointPiece)
def point_piece(scene: Scene, edit: PointPiece) -> Edited:
    """An arrow whose end is dragged holds on to the photo with its tip from then on."""
    laid = laid_one(scene, edit.id)
    (tail_x, tail_y), (tip_x, tip_y) = ends_of(laid)
    if edit.end == "tip":
        tip_x, tip_y = tip_x + edit.dx, tip_y + edit.dy
    else:
        tail_x, tail_y = tail_x + edit.dx, tail_y + edit.dy
    fields = {"tip": spot_at(scene, tip_x, tip_y).model_dump()}
    if laid.piece.kind == "badge" and laid.piece.form != "bubble":
        # From now on it begins at its anchor, where its middle was hung before.
        fields |= tail_hung(laid, tail_x, tail_y, scene) | {"repeat": None}
    return Edited.of(scene, changed_piece(scene, edit.id, fields, edit.only_this_size).finish)


class ReleaseTip(EditBase):
    """Let a piece no longer hold on to the photo with its tip; it stays as it is."""

    kind: Literal["release_tip"] = "release_tip"
    id: Identifier


@carries_out(ReleaseTip)
def release_tip(scene: Scene, edit: ReleaseTip) -> Edited:
    """The piece as long and as steep as it is now, hung on the margin box by its middle."""
    laid = laid_one(scene, edit.id)
    fields: dict[str, object] = {"tip": None}
    if laid.spans_ends:
        fields |= {
            "width": min(max(laid.width / laid.short_side, 0.005), 4),
            "angle": round(laid.angle, 2),
            "anchor": MarginAnchor().model_dump(),
        }
    edited = changed_piece(scene, edit.id, fields, False)
    now = laid_one(edited, edit.id)
    return put(edited, {now: (laid.x, laid.y)}, False)


def ends_of(laid: LaidPiece) -> tuple[tuple[float, float], tuple[float, float]]:
    """Where a piece begins and ends, held to the photo or not, in output pixels.

    Raises:
        BadInput: the piece points at nothing.
    """
    if laid.ends:
        return laid.ends.tail, laid.ends.tip
    piece = laid.piece
    if not isinstance(piece, BadgePiece) or piece.form not in _POINTING:
        raise BadInput("Only arrows, lines and speech bubbles point at something.")
    angle = math.radians(laid.angle)
    cos, sin = math.cos(angle), math.sin(angle)
    if piece.form == "bubble":
        reach = BUBBLE_REACH * laid.height
        return (laid.x, laid.y), (laid.x - reach * sin, laid.y + reach * cos)
    half = laid.width / 2
    return (
        (laid.x - half * cos, laid.y - half * sin),
        (laid.x + half * cos, laid.y + half * sin),
    )


_POINTING = ("arrow", "curved-arrow", "line", "bubble")
