"""Pieces as sprites for composing."""

from collections.abc import Callable

import numpy as np

from lucky_margin.core.cut_out import in_pixels
from lucky_margin.core.document import KnockOut, PicturePiece, SubjectOfPhoto
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.pieces import (
    LaidPiece,
    Light,
    Part,
    Sprite,
    knocked_out,
    light_around,
    matched,
    sprite_of,
)
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.shown import ShownPhoto
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.scene import Scene, Sources, TakenPhoto
from lucky_margin.core.types import Picture8

ENOUGH = 2.0
"""Pixels of a picture piece for each one of the picture, along one side, before a smaller copy of
it is taken."""

KNOCKED_PIXELS = 4_000_000
"""Pixels of a picture, at most, out of which a colour is knocked; of larger ones a halved copy."""


def sprite_on(
    laid: LaidPiece,
    grid: Grid,
    sources: Sources,
    part: Part = "all",
    around: Light | None = None,
) -> Sprite:
    """The sprite of a piece on a grid; ``around`` is the light that a picture takes over."""
    picture = None
    if isinstance(laid.piece, PicturePiece):
        picture = _shown_picture(laid.piece, laid.sides[0] * grid.scale_x, sources)
        if around is not None:
            picture = _matched(laid.piece, picture, around, sources)
    key = ("sprite", laid.piece, laid.x, laid.y, laid.em, laid.sides, laid.copies, laid.ends,
           laid.lacks_font, grid.columns, grid.rows, part, around)  # fmt: skip
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


def _shown_picture(piece: PicturePiece, width: float, sources: Sources) -> Picture8:
    """A picture of the shelf at 8 bits, to be drawn ``width`` pixels wide.

    It is the most often halved copy that still has ``ENOUGH`` pixels; one with a colour knocked
    out is always taken from the same copy, so that its edges are the same at any scale.
    """
    sha256, knock_out = piece.sha256, piece.knock_out
    if piece.subject:
        used = piece.subject
        subject = SubjectOfPhoto(
            sha256=sha256, square=used.square, cut_out=used.cut_out, box=used.box
        )
        return subject_picture(subject, width, sources)
    if knock_out:
        return sources.cache.get_or_make(
            ("knocked out", sha256, knock_out), lambda: _knocked_out(sha256, knock_out, sources)
        )
    return as_8_bits(sources.level(sha256, enough_of(sources.facts(sha256), 1, width)))


def light_taken_over(laid: LaidPiece, scene: Scene, bare: Callable[[], Picture8]) -> Light | None:
    """The light that a piece takes over, if any; ``bare`` gives a small picture of the scene
    without pieces."""
    if not isinstance(laid.piece, PicturePiece) or not laid.piece.match:
        return None
    width, height = scene.sides
    return light_around(laid.bounds.scaled(1 / width, 1 / height), bare())


def _matched(piece: PicturePiece, picture: Picture8, around: Light, sources: Sources) -> Picture8:
    shown = (piece.sha256, piece.subject, piece.knock_out, picture.shape)
    return sources.cache.get_or_make(
        ("matched", shown, around, piece.match),
        lambda: matched(picture, around, piece.match / 100),
    )


def subject_picture(subject: SubjectOfPhoto, width: float, sources: Sources) -> Picture8:
    """A subject of a photo on nothing, cut to its box, to be shown ``width`` pixels wide."""
    taken = TakenPhoto(subject.sha256, sources, subject.square)
    photo, box = ShownPhoto(taken, subject.cut_out, "subject"), subject.box
    picture = photo.level(enough_of(photo.facts, box.width, width))
    rows, columns = picture.shape[:2]
    return np.ascontiguousarray(as_8_bits(picture[in_pixels(box, rows, columns)]))


def enough_of(facts: PhotoFacts, share: float, width: float) -> int:
    """How often a photo is halved so that a ``share`` of its width still has ``ENOUGH`` pixels for
    each of ``width``."""
    number, across = 0, share * facts.width
    while across >= 2 * ENOUGH * width and min(facts.width, facts.height) >= 2 ** (number + 1):
        across /= 2
        number += 1
    return number


def _knocked_out(sha256: str, knock_out: KnockOut, sources: Sources) -> Picture8:
    facts = sources.facts(sha256)
    number, pixels = 0, facts.width * facts.height
    while pixels >> (2 * number) > KNOCKED_PIXELS:
        number += 1
    return knocked_out(as_8_bits(sources.level(sha256, number)), knock_out)
