"""Words that lie on other words."""

from collections.abc import Iterator
from itertools import combinations
from typing import Any

import numpy as np

from lucky_margin.core.checks.check import Check, CheckAction
from lucky_margin.core.checks.piece_checks import name_of
from lucky_margin.core.document import PieceChanges, TextPiece
from lucky_margin.core.edits.moving import scaled_fields
from lucky_margin.core.edits.pieces import SetPiece
from lucky_margin.core.framing import focus_on
from lucky_margin.core.pieces import LaidPiece, Sprite, lay_piece
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.pieces import sprite_on
from lucky_margin.core.scene import Scene

MOST_OF_LETTERS = 0.02
"""Share of the letters of one text that may lie on those of another."""

MEASURED_SIDE = 960
"""Longest side of the picture on which that is measured."""

MERELY_DECOR = 0.5
"""Opacity below which letters are meant to lie behind others."""

_SMALLER = (0.9, 0.8, 0.7, 0.6, 0.5)


def overlapping(scene: Scene) -> Iterator[Check]:
    """Which texts lie on which: those of a group belong together, pale ones are decor."""
    texts = [laid for laid in scene.pieces if _is_read(laid)]
    for below, above in combinations(texts, 2):
        group = below.piece.group
        is_apart = group is None or group != above.piece.group
        if is_apart and _overlap(below, above, scene):
            text = f"{name_of(above)} lies on {name_of(below)}."
            action = _made_smaller(below, above, scene)
            yield Check(key="overlap", severity="warning", text=text, action=action)


def _is_read(laid: LaidPiece) -> bool:
    piece = laid.piece
    return (
        isinstance(piece, TextPiece)
        and len(laid.copies) == 1
        and piece.opacity >= MERELY_DECOR
        and bool(piece.text.strip())
    )


def _overlap(one: LaidPiece, other: LaidPiece, scene: Scene) -> bool:
    apart = (
        one.bounds.right <= other.bounds.left
        or other.bounds.right <= one.bounds.left
        or one.bounds.bottom <= other.bounds.top
        or other.bounds.bottom <= one.bounds.top
    )
    if apart:
        return False
    width, height = scene.sides
    grid = Grid.of(width, height, scene.scale_for(MEASURED_SIDE), None)
    letters = [sprite_on(laid, grid, scene.sources, "fill") for laid in (one, other)]
    fewest = min(int((sprite.pixels[:, :, 3] > 127).sum()) for sprite in letters)
    return _shared_pixels(*letters) > MOST_OF_LETTERS * max(fewest, 1)


def _shared_pixels(one: Sprite, other: Sprite) -> int:
    """How many pixels both cover by half and more."""
    left, top = max(one.left, other.left), max(one.top, other.top)

    def within(sprite: Sprite) -> Any:
        return sprite.pixels[top - sprite.top :, left - sprite.left :, 3] > 127

    first, second = within(one), within(other)
    rows, columns = (min(sides) for sides in zip(first.shape, second.shape, strict=True))
    return int(np.count_nonzero(first[:rows, :columns] & second[:rows, :columns]))


def _made_smaller(below: LaidPiece, above: LaidPiece, scene: Scene) -> CheckAction | None:
    """The longer of two texts, just so small that it is clear of the other."""
    longer, other = sorted((below, above), key=lambda laid: -laid.width)
    focus = focus_on(scene.focus, scene.frame)
    for factor in _SMALLER:
        changes = PieceChanges.model_validate(scaled_fields(longer, factor))
        smaller = changes.applied_to(longer.piece)
        laid = lay_piece(smaller, scene.margins, scene.frame, scene.sources.font, focus)
        if not _overlap(laid, other, scene):
            edit = SetPiece(ids=(smaller.id,), changes=changes, only_this_size=True)
            return CheckAction(label=f"Make {name_of(longer)} smaller", edit=edit)
    return None
