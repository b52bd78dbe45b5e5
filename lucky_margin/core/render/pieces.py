"""The pieces of a size as sprites for composing."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from lucky_margin.core.document import Finish, KnockOut, PicturePiece, Size
from lucky_margin.core.framing import Frame
from lucky_margin.core.pieces import (
    LaidPiece,
    Margins,
    Part,
    Sprite,
    knocked_out,
    lay_piece,
    sprite_of,
)
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.sources import Sources
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.text import FontFinder
from lucky_margin.core.types import Picture8

ENOUGH = 2.0
"""Pixels of a picture piece for each one of the picture, along one side, before a smaller copy of
it is taken."""

KNOCKED_PIXELS = 4_000_000
"""Pixels of a picture, at most, out of which a colour is knocked; of larger ones a halved copy."""


@dataclass(frozen=True)
class PieceSprites:
    """Sprites of a size's pieces, back to front."""

    under_border: tuple[Sprite, ...] = ()
    over_border: tuple[Sprite, ...] = ()
    unclipped: tuple[Sprite, ...] = ()


def laid_pieces(
    finish: Finish, size: Size, frame: Frame, margins: Margins, font: FontFinder
) -> list[LaidPiece]:
    """Every piece that is on ``size``, laid out."""
    return [lay_piece(piece, margins, frame, font) for piece in finish.pieces_of(size)]


def sprites_of(
    finish: Finish,
    size: Size,
    frame: Frame,
    margins: Margins,
    grid: Grid,
    sources: Sources,
    parts: Mapping[str, Part],
    held: Collection[str] = (),
    *,
    alone: bool = False,
) -> PieceSprites:
    """Their sprites on ``grid``; ``parts`` names pieces of which not all is drawn, ``held`` those
    that are left out or, ``alone``, the only ones."""
    under, over, unclipped = [], [], []
    for one in laid_pieces(finish, size, frame, margins, sources.font):
        if (one.piece.id in held) != alone:
            continue
        sprite = sprite_on(one, grid, sources, parts.get(one.piece.id, "all"))
        if not one.piece.clipped:
            unclipped.append(sprite)
        elif one.piece.over_border:
            over.append(sprite)
        else:
            under.append(sprite)
    return PieceSprites(tuple(under), tuple(over), tuple(unclipped))


def sprite_on(laid: LaidPiece, grid: Grid, sources: Sources, part: Part = "all") -> Sprite:
    """The sprite of a piece on a grid."""
    picture = None
    if isinstance(laid.piece, PicturePiece):
        piece = laid.piece
        picture = _shown_picture(
            piece.sha256, piece.knock_out, laid.sides[0] * grid.scale_x, sources
        )
    key = ("sprite", laid.piece, laid.x, laid.y, laid.em, laid.sides, laid.ends,
           laid.lacks_font, grid.columns, grid.rows, part)  # fmt: skip
    return sources.cache.get_or_make(
        key,
        lambda: sprite_of(
            laid,
            grid.columns,
            grid.rows,
            grid.scale_x,
            grid.scale_y,
            picture=picture,
            part=part,
        ),
    )


def _shown_picture(
    sha256: str, knock_out: KnockOut | None, width: float, sources: Sources
) -> Picture8:
    """A picture of the shelf at 8 bits, to be drawn ``width`` pixels wide.

    It is the most often halved copy that still has ``ENOUGH`` pixels; one with a colour knocked
    out is always taken from the same copy, so that its edges are the same at any scale.
    """
    if knock_out:
        return sources.cache.get_or_make(
            ("knocked out", sha256, knock_out), lambda: _knocked_out(sha256, knock_out, sources)
        )
    facts = sources.facts(sha256)
    number, across = 0, float(facts.width)
    while across >= 2 * ENOUGH * width and min(facts.width, facts.height) >= 2 ** (number + 1):
        across /= 2
        number += 1
    return as_8_bits(sources.level(sha256, number))


def _knocked_out(sha256: str, knock_out: KnockOut, sources: Sources) -> Picture8:
    facts = sources.facts(sha256)
    number, pixels = 0, facts.width * facts.height
    while pixels >> (2 * number) > KNOCKED_PIXELS:
        number += 1
    return knocked_out(as_8_bits(sources.level(sha256, number)), knock_out)
