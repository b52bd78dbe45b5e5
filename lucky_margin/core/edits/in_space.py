"""Edits of pieces in space: pulling a corner, and taking copies apart."""

import math
from dataclasses import replace
from typing import Any, Literal

import numpy as np
from pydantic import Field, ValidationError

from lucky_margin.core.document import Identifier, Perspective, Piece
from lucky_margin.core.document.pieces import MOST_PIECES
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.moving import scaled_fields
from lucky_margin.core.edits.pieces import RemovePieces, remove_pieces, with_pieces_added
from lucky_margin.core.edits.placing import changed_piece, laid_one, put
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.pieces import LaidPiece
from lucky_margin.core.scene import Scene
from lucky_margin.core.squaring import mapped

STEPS = 12
"""Halvings by which the last place of a corner is found that still makes a plane."""


class DragCorner(EditBase):
    """Pull a corner of a piece, counted clockwise from the upper left, in output pixels; the other
    three stay where they are seen."""

    kind: Literal["drag_corner"] = "drag_corner"
    id: Identifier
    corner: int = Field(ge=0, le=3)
    dx: float
    dy: float
    only_this_size: bool = False


@carries_out(DragCorner)
def drag_corner(scene: Scene, edit: DragCorner) -> Edited:
    """A corner that would cross the others goes as far as it can.

    Raises:
        BadInput: the piece lies between its ends.
        NotFound: it is not on this size.
    """
    laid = laid_one(scene, edit.id)
    if laid.spans_ends:
        raise BadInput("An arrow that is held at the photo is pulled by its two ends.")
    turn = math.radians(laid.angle)
    along = edit.dx * math.cos(turn) + edit.dy * math.sin(turn)
    across = edit.dy * math.cos(turn) - edit.dx * math.sin(turn)
    pull = along / laid.width, across / laid.height
    fields = {"perspective": _pulled(laid, edit.corner, pull).model_dump()}
    return Edited.of(scene, changed_piece(scene, edit.id, fields, edit.only_this_size).finish)


def _pulled(laid: LaidPiece, corner: int, pull: tuple[float, float]) -> Perspective:
    """All of a pull (in sides of the box), or as much of it as leaves a plane."""
    whole = _with_corner(laid, corner, pull)
    if whole is not None:
        return whole
    best, low, high = _with_corner(laid, corner, (0.0, 0.0)), 0.0, 1.0
    for _ in range(STEPS):
        share = (low + high) / 2
        tried = _with_corner(laid, corner, (share * pull[0], share * pull[1]))
        if tried is None:
            high = share
        else:
            best, low = tried, share
    if best is None:
        raise BadInput("This piece is seen from its edge; set its lean and swing to 0 first.")
    return best


def _with_corner(laid: LaidPiece, corner: int, pull: tuple[float, float]) -> Perspective | None:
    """The piece as it is seen with one corner elsewhere; None where that is no plane any more."""
    flat = np.array(Perspective().pulled)
    sides = np.array([laid.width, laid.height])
    shifts = mapped(flat * sides, laid.in_perspective) / sides - flat
    shifts[corner] += pull
    try:
        return Perspective(corners=tuple((round(x, 6), round(y, 6)) for x, y in shifts.tolist()))
    except ValidationError:
        return None


class TakeApart(EditBase):
    """Make every copy of a repeated piece a piece that can be moved, scaled, blurred and removed
    alone; together they are a group."""

    kind: Literal["take_apart"] = "take_apart"
    id: Identifier


@carries_out(TakeApart)
def take_apart(scene: Scene, edit: TakeApart) -> Edited:
    """The copies where they lie, in place of the piece.

    Raises:
        BadInput: it is not repeated, or there would be too many pieces.
        NotFound: it is not on this size.
    """
    laid = laid_one(scene, edit.id)
    if laid.piece.repeat is None:
        raise BadInput("This piece is there only once.")
    if len(scene.finish.pieces) - 1 + len(laid.copies) > MOST_PIECES:
        raise BadInput(f"A finish has {MOST_PIECES} pieces at most; repeat it fewer times first.")
    others = remove_pieces(scene, RemovePieces(ids=(edit.id,))).finish
    copies = [_single(laid, number) for number in range(len(laid.copies))]
    finish = with_pieces_added(replace(scene, finish=others), copies).finish
    added = finish.pieces[len(others.pieces) :]
    now = replace(scene, finish=finish, size=finish.size(scene.size.id))
    places = {}
    for piece, copy in zip(added, laid.copies, strict=True):
        point = laid.to_output.mapXY(copy.x, copy.y)
        places[laid_one(now, piece.id)] = (point.x(), point.y())
    return put(now, places, False)


def _single(laid: LaidPiece, number: int) -> Piece:
    """One copy as a piece, wherever it lies."""
    copy, piece = laid.copies[number], laid.piece
    fields: dict[str, Any] = {
        **scaled_fields(laid, copy.size),
        "repeat": None,
        "angle": math.remainder(laid.angle + copy.angle, 360),
        "blur": min(piece.blur + copy.blur / laid.short_side, 0.2),
        "group": 1,
    }
    return type(piece).model_validate(piece.model_dump() | fields)
