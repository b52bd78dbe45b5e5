"""Pieces as sprites for composing."""

from lucky_margin.core.document import KnockOut, PicturePiece
from lucky_margin.core.pieces import LaidPiece, Part, Sprite, knocked_out, sprite_of
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.scene import Sources
from lucky_margin.core.types import Picture8

ENOUGH = 2.0
"""Pixels of a picture piece for each one of the picture, along one side, before a smaller copy of
it is taken."""

KNOCKED_PIXELS = 4_000_000
"""Pixels of a picture, at most, out of which a colour is knocked; of larger ones a halved copy."""


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
