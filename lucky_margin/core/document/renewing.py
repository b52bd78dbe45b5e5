"""Newer versions of what is kept on the shelf, in finishes that use it."""

from typing import Any

from lucky_margin.core.document.finish import Finish
from lucky_margin.core.document.house_style import HouseStyle
from lucky_margin.core.document.overrides import PieceChanges
from lucky_margin.core.document.pieces import PicturePiece, UsedMark, UsedSubject, clamped_width
from lucky_margin.core.document.sizes import Size
from lucky_margin.core.document.styling import with_style

Used = UsedMark | UsedSubject | HouseStyle
"""A version of something kept, as a finish holds it."""


def renewed(finish: Finish, used: Used) -> Finish:
    """``finish`` with this version of a kept mark, subject or style wherever it uses it."""
    if isinstance(used, HouseStyle):
        return with_style(finish, used)
    if isinstance(used, UsedMark):
        return with_mark(finish, used)
    for piece in finish.pieces:
        if isinstance(piece, PicturePiece) and piece.subject and piece.subject.id == used.id:
            finish = with_subject(finish, piece.id, used)
    return finish


def with_subject(finish: Finish, piece_id: str, subject: UsedSubject | None) -> Finish:
    """``finish`` with only this ``subject`` of a picture piece shown, or all of it, as large on
    every size as it was."""
    piece = finish.piece(piece_id)
    assert isinstance(piece, PicturePiece)
    changed = piece.with_subject(subject)
    grown = changed.width / piece.width
    pieces = tuple(changed if one.id == piece_id else one for one in finish.pieces)
    sizes = tuple(_with_width_grown(size, piece_id, grown) for size in finish.sizes)
    return finish.model_copy(update={"pieces": pieces, "sizes": sizes})


def _with_width_grown(size: Size, piece_id: str, grown: float) -> Size:
    own = size.overrides.pieces.get(piece_id)
    if own is None or own.width is None:
        return size
    width = clamped_width(own.width * grown)
    changed = PieceChanges.model_validate(own.model_dump() | {"width": width})
    return size.with_overrides(pieces={**size.overrides.pieces, piece_id: changed})


def with_mark(finish: Finish, mark: UsedMark) -> Finish:
    """``finish`` with this version of a kept mark wherever it uses the mark."""

    def renewed(node: Any) -> Any:
        if isinstance(node, list):
            return [renewed(item) for item in node]
        if not isinstance(node, dict):
            return node
        used = node.get("mark")
        own = {"mark": mark.model_dump(mode="json")} if used and used["id"] == mark.id else {}
        return {key: renewed(value) for key, value in (node | own).items()}

    return Finish.model_validate(renewed(finish.model_dump(mode="json")))
