"""Edits of what a picture piece shows: all of its picture, or only its subject."""

import math
from typing import Literal

from lucky_margin.core.document import (
    Box,
    Finish,
    Identifier,
    PicturePiece,
    UsedSubject,
    with_subject,
)
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.placing import laid_one, put
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.pieces import LaidPiece
from lucky_margin.core.scene import Scene, TakenPhoto

ALL = Box(left=0, top=0, width=1, height=1)


class SetPieceSubject(EditBase):
    """Show only this subject of a piece's picture, or (null) all of it, where it was and as
    large."""

    kind: Literal["set_piece_subject"] = "set_piece_subject"
    id: Identifier
    subject: UsedSubject | None


@carries_out(SetPieceSubject)
def set_piece_subject(scene: Scene, edit: SetPieceSubject) -> Edited:
    """The piece with what of its picture is shown.

    Raises:
        BadInput: it is no picture.
        NotFound: there is no such piece.
    """
    piece = scene.finish.piece(edit.id)
    if not isinstance(piece, PicturePiece):
        raise BadInput("Only a picture can be cut out; choose one.")
    finish = with_subject(_of_same_photo(scene, piece, edit.subject), edit.id, edit.subject)
    changed = Scene.of(finish, scene.size.id, scene.sources)
    was = next((one for one in scene.pieces if one.piece.id == edit.id), None)
    if was is None:  # not on this size
        return Edited.of(scene, finish)
    place = _middle_of(edit.subject, was, piece)
    return put(changed, {laid_one(changed, edit.id): place}, False)


def _of_same_photo(scene: Scene, piece: PicturePiece, subject: UsedSubject | None) -> Finish:
    """The finish with all of the picture in a piece, in the proportions of what ``subject`` is
    cut out of, where that is squared up and what the piece shows is not, or the other way round."""
    before, after = (one.square if one else None for one in (piece.subject, subject))
    if before == after:
        return scene.finish
    finish = with_subject(scene.finish, piece.id, None)
    facts = TakenPhoto(piece.sha256, scene.sources, after).facts
    ratio = facts.width / facts.height
    pieces = tuple(
        one.model_copy(update={"ratio": ratio}) if one.id == piece.id else one
        for one in finish.pieces
    )
    return finish.model_copy(update={"pieces": pieces})


def _middle_of(
    subject: UsedSubject | None, laid: LaidPiece, piece: PicturePiece
) -> tuple[float, float]:
    """Where the middle of a subject's box lies in output pixels, on a piece laid out before."""
    before, after = (one.box if one else ALL for one in (piece.subject, subject))
    width, height = laid.sides[0], laid.sides[0] / piece.ratio
    right = (after.centre[0] - before.centre[0]) / before.width * width
    down = (after.centre[1] - before.centre[1]) / before.height * height
    turn = math.radians(laid.angle)
    x = laid.x + right * math.cos(turn) - down * math.sin(turn)
    return x, laid.y + right * math.sin(turn) + down * math.cos(turn)
