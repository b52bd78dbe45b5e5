"""Edits of pieces: added, copied, changed, ordered, removed; of one size or all."""

from collections.abc import Iterable
from typing import Any, Literal

import numpy as np
from pydantic import Field

from lucky_margin.core.document import (
    BadgeForm,
    BadgePiece,
    Colour,
    IconName,
    Identifier,
    KnockOut,
    MarginAnchor,
    MarkPiece,
    MarkShade,
    PicturePiece,
    Piece,
    PieceChanges,
    Sha256,
    Shadow,
    TextPart,
    TextPiece,
    UsedMark,
    UsedSubject,
    rgb_of,
)
from lucky_margin.core.document.pieces import MOST_PIECES
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.placing import changed_piece
from lucky_margin.core.edits.registry import EditBase, PieceIds, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing import focus_on
from lucky_margin.core.oklab import from_light, into_gamut
from lucky_margin.core.pieces import lay_piece
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.scene import Scene

PURPOSES: dict[str, dict[str, Any]] = {
    "headline": {"size": 0.12, "weight": 900, "anchor": MarginAnchor(x=0.5, y=0.05)},
    "line": {"size": 0.06, "weight": 700, "anchor": MarginAnchor(x=0.5, y=0.95)},
    "small": {"size": 0.035, "weight": 400, "anchor": MarginAnchor(x=0.0, y=1.0), "align": "left"},
    "price": {"size": 0.1, "weight": 900, "anchor": MarginAnchor(x=1.0, y=0.2)},
}
"""Settings that a text begins with, by what it is for."""

SAMPLE_WORDS = {
    "headline": "Your headline",
    "line": "Another line",
    "small": "Small print",
    "price": "€28",
}

FIRST_SIDES: dict[str, tuple[float, float]] = {
    "arrow": (0.26, 0.12),
    "curved-arrow": (0.24, 0.2),
    "line": (0.4, 0.006),
    "label": (0.36, 0.13),
    "bubble": (0.36, 0.22),
    "ribbon": (0.44, 0.12),
    "price-tag": (0.3, 0.14),
    "tick": (0.16, 0.14),
}
"""Width and height that a badge begins with; others begin as a square."""

FIRST_SIDE = 0.2

MARK_HOME = MarginAnchor(x=0.5, y=0.95)
HEIGHTS = (0.95, 0.05, 0.5, 0.25, 0.75)
"""Of the margin box: where a piece goes that would cover another one."""

WHITE = "#FFFFFF"
WORDS_LIGHTNESS, PRICE_LIGHTNESS = 0.96, 0.86
"""OKLab lightness of the tints that words begin with: nearly paper, and still a colour."""

DUPLICATE_STEP = 0.03
"""Of the short side: how far a copy lies from its original."""


class AddText(EditBase):
    """Add words, set for what they are for."""

    kind: Literal["add_text"] = "add_text"
    purpose: Literal["headline", "line", "small", "price"] = "line"
    text: str = ""
    palette: tuple[Colour, ...] = Field(
        default=(), description="The photo's colours, of which the words take a light one."
    )


@carries_out(AddText)
def add_text(scene: Scene, edit: AddText) -> Edited:
    """Words in front of all others, in a colour of the photo that can be read."""
    colour = _first_colour(scene, edit)
    fields = PURPOSES[edit.purpose] | {"shadow": Shadow(), "colour": colour}
    text = edit.text or SAMPLE_WORDS[edit.purpose]
    piece = TextPiece.model_validate({"id": "text", "text": text} | fields)
    return with_pieces_added(scene, [_where_free(scene, piece, fields["anchor"])])


def _first_colour(scene: Scene, edit: AddText) -> str:
    """That of the words that the finish has already; else a light tint of the photo's palest
    colour or, for a price, of its strongest one; else white."""
    written = [piece.colour for piece in scene.finish.pieces if isinstance(piece, TextPiece)]
    if written:
        return written[-1]
    if not edit.palette:
        return WHITE
    labs = from_light(decode(np.array([rgb_of(colour) for colour in edit.palette]) / 255))
    strengths = np.hypot(labs[:, 1], labs[:, 2])
    lab = labs[strengths.argmax() if edit.purpose == "price" else labs[:, 0].argmax()]
    lightness = PRICE_LIGHTNESS if edit.purpose == "price" else WORDS_LIGHTNESS
    codes = np.rint(255 * encode(into_gamut(np.array([lightness, lab[1], lab[2]])))).astype(int)
    return "#{:02X}{:02X}{:02X}".format(*codes)


class AddBadge(EditBase):
    """Add a drawn form."""

    kind: Literal["add_badge"] = "add_badge"
    form: BadgeForm
    icon: IconName | None = None


@carries_out(AddBadge)
def add_badge(scene: Scene, edit: AddBadge) -> Edited:
    """A badge in front of all others."""
    width, height = FIRST_SIDES.get(edit.form, (FIRST_SIDE, FIRST_SIDE))
    piece = BadgePiece(id="badge", form=edit.form, width=width, height=height, icon=edit.icon)
    return with_pieces_added(scene, [piece])


class AddPicture(EditBase):
    """Add a picture of the shelf."""

    kind: Literal["add_picture"] = "add_picture"
    sha256: Sha256
    ratio: float
    knock_out: KnockOut | None = None
    subject: UsedSubject | None = None


@carries_out(AddPicture)
def add_picture(scene: Scene, edit: AddPicture) -> Edited:
    """A picture in front of all others, or only the subject of one."""
    piece = PicturePiece(
        id="picture", sha256=edit.sha256, ratio=edit.ratio, knock_out=edit.knock_out
    )
    if edit.subject:
        fresh = piece.with_subject(edit.subject)
        piece = fresh.model_copy(update={"width": piece.width * min(1.0, fresh.ratio)})
    return with_pieces_added(scene, [piece])


class AddMark(EditBase):
    """Place a kept mark."""

    kind: Literal["add_mark"] = "add_mark"
    mark: UsedMark


@carries_out(AddMark)
def add_mark(scene: Scene, edit: AddMark) -> Edited:
    """A kept mark in front of all others, where there is room for it; in its own colours, if it
    has any."""
    shade: MarkShade | None = "light" if edit.mark.design.colours else None
    piece = MarkPiece(id="mark", mark=edit.mark, shade=shade)
    return with_pieces_added(scene, [_where_free(scene, piece, MARK_HOME)])


class PastePieces(EditBase):
    """Add copies of pieces, perhaps of another finish."""

    kind: Literal["paste_pieces"] = "paste_pieces"
    pieces: tuple[Piece, ...]


@carries_out(PastePieces)
def paste_pieces(scene: Scene, edit: PastePieces) -> Edited:
    """Copies of pieces of any finish, on every size."""
    return with_pieces_added(
        scene, [piece.model_copy(update={"sizes": None}) for piece in edit.pieces]
    )


class DuplicatePieces(EditBase):
    """Add copies of pieces beside them."""

    kind: Literal["duplicate_pieces"] = "duplicate_pieces"
    ids: PieceIds


@carries_out(DuplicatePieces)
def duplicate_pieces(scene: Scene, edit: DuplicatePieces) -> Edited:
    """Copies of pieces a step aside."""
    copies = [
        piece.model_copy(update={"dx": piece.dx + DUPLICATE_STEP, "dy": piece.dy + DUPLICATE_STEP})
        for piece in _chosen(scene, edit.ids)
    ]
    return with_pieces_added(scene, copies)


class RemovePieces(EditBase):
    """Remove pieces from the finish."""

    kind: Literal["remove_pieces"] = "remove_pieces"
    ids: PieceIds


@carries_out(RemovePieces)
def remove_pieces(scene: Scene, edit: RemovePieces) -> Edited:
    """Without the pieces, and without what sizes do differently about them."""
    gone = set(edit.ids)
    finish = scene.finish
    for size in finish.sizes:
        kept = {key: own for key, own in size.overrides.pieces.items() if key not in gone}
        if len(kept) < len(size.overrides.pieces):
            finish = finish.with_size(size.with_overrides(pieces=kept))
    pieces = tuple(piece for piece in finish.pieces if piece.id not in gone)
    return Edited.of(scene, finish.model_copy(update={"pieces": pieces}))


class GroupPieces(EditBase):
    """Make pieces one group, or each a piece of its own again."""

    kind: Literal["group_pieces"] = "group_pieces"
    ids: PieceIds
    together: bool = True


@carries_out(GroupPieces)
def group_pieces(scene: Scene, edit: GroupPieces) -> Edited:
    """The pieces as one group, or each for itself again."""
    chosen = {piece.id for piece in _chosen(scene, edit.ids)}
    number = max((piece.group or 0 for piece in scene.finish.pieces), default=0) + 1
    pieces = tuple(
        piece.model_copy(update={"group": number if edit.together else None})
        if piece.id in chosen
        else piece
        for piece in scene.finish.pieces
    )
    return Edited.of(scene, scene.finish.model_copy(update={"pieces": pieces}))


class OrderPiece(EditBase):
    """Move a piece towards the front or the back."""

    kind: Literal["order_piece"] = "order_piece"
    id: Identifier
    to: Literal["front", "forward", "backward", "back"]


@carries_out(OrderPiece)
def order_piece(scene: Scene, edit: OrderPiece) -> Edited:
    """The piece at another place between back and front."""
    pieces = list(scene.finish.pieces)
    piece = scene.finish.piece(edit.id)
    place = pieces.index(piece)
    last = len(pieces) - 1
    to = {"back": 0, "front": last, "backward": place - 1, "forward": place + 1}[edit.to]
    pieces.pop(place)
    pieces.insert(min(max(to, 0), last), piece)
    return Edited.of(scene, scene.finish.model_copy(update={"pieces": tuple(pieces)}))


class SetPiece(EditBase):
    """Change fields of pieces; each takes those that it has."""

    kind: Literal["set_piece"] = "set_piece"
    ids: PieceIds
    changes: PieceChanges
    only_this_size: bool = False


@carries_out(SetPiece)
def set_piece(scene: Scene, edit: SetPiece) -> Edited:
    """The pieces with these changes; each takes those that it has a field for."""
    edited = scene
    for piece in _chosen(scene, edit.ids):
        given = edit.changes.model_dump()
        fields = {key: value for key, value in given.items() if key in type(piece).model_fields}
        if isinstance(piece, TextPiece) and "text" in fields and "parts" not in fields:
            fields["parts"] = [
                part.model_dump()
                for part in parts_after(piece.parts, piece.text, fields["text"] or "")
            ]
        edited = changed_piece(edited, piece.id, fields, edit.only_this_size)
    return Edited.of(scene, edited.finish)


def parts_after(parts: Iterable[TextPart], old: str, new: str) -> list[TextPart]:
    """The parts of a text after it was written in: what follows moves along, and letters written
    inside a part belong to it."""
    start = _alike(old, new)
    kept_end = min(_alike(old[::-1], new[::-1]), min(len(old), len(new)) - start)
    stop, gained = len(old) - kept_end, len(new) - len(old)

    def begin(place: int) -> int:
        return place + gained if place >= stop else min(place, start)

    def end(place: int) -> int:
        return place if place <= start else begin(place)

    moved = [
        part.model_copy(update={"start": begin(part.start), "end": end(part.end)}) for part in parts
    ]
    return [part for part in moved if part.end > part.start]


def _alike(one: str, other: str) -> int:
    """How many characters two texts have alike at their beginning."""
    return next(
        (place for place, (a, b) in enumerate(zip(one, other, strict=False)) if a != b),
        min(len(one), len(other)),
    )


class FollowPiece(EditBase):
    """Drop the size's overrides of a piece."""

    kind: Literal["follow_piece"] = "follow_piece"
    id: Identifier


@carries_out(FollowPiece)
def follow_piece(scene: Scene, edit: FollowPiece) -> Edited:
    """The piece as the finish has it, on the size in hand too."""
    own = {key: ways for key, ways in scene.size.overrides.pieces.items() if key != edit.id}
    return Edited.of(scene, scene.finish.with_size(scene.size.with_overrides(pieces=own)))


def with_pieces_added(scene: Scene, pieces: Iterable[Piece]) -> Edited:
    """The finish with more pieces, each under an id of its own."""
    have = list(scene.finish.pieces)
    # Copies of a group are a group of their own.
    last = max((piece.group or 0 for piece in have), default=0)
    for piece in pieces:
        if len(have) >= MOST_PIECES:
            raise BadInput(f"A finish has {MOST_PIECES} pieces at most; remove one first.")
        taken = {one.id for one in have}
        number = 1
        while f"{piece.kind}-{number}" in taken:
            number += 1
        group = piece.group and last + piece.group
        have.append(piece.model_copy(update={"id": f"{piece.kind}-{number}", "group": group}))
    return Edited.of(scene, scene.finish.model_copy(update={"pieces": tuple(have)}))


def _where_free(scene: Scene, piece: Piece, home: MarginAnchor) -> Piece:
    """The piece at home or, where it would cover another one or the focus there, at the first
    height that is free, if any is; the focus is covered before a piece is."""
    others = [one.bounds for one in scene.pieces]
    focus = focus_on(scene.focus, scene.frame)
    places = [
        piece.model_copy(update={"anchor": home.model_copy(update={"y": height})})
        for height in (home.y, *HEIGHTS)
    ]
    boxes = [
        lay_piece(one, scene.margins, scene.frame, scene.sources.font).bounds for one in places
    ]
    for avoided in ([*others, focus] if focus else others, others):
        for place, box in zip(places, boxes, strict=True):
            if not any(box.meets(other) for other in avoided):
                return place
    return places[0]


def _chosen(scene: Scene, ids: Iterable[str]) -> list[Piece]:
    """
    Raises:
        NotFound: one of them is gone.
    """
    return [scene.finish.piece(one) for one in ids]
