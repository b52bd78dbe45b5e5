"""Checks of what lies in the covered zones of a size."""

from collections.abc import Iterator

import shapely

from lucky_margin.core.checks.check import Check, CheckAction, percent
from lucky_margin.core.checks.piece_checks import name_of, words_region
from lucky_margin.core.document import Box, CoveredZone
from lucky_margin.core.edits.moving import PlacePiece
from lucky_margin.core.framing import focus_on
from lucky_margin.core.outlines import covered_box, covered_region
from lucky_margin.core.pieces import LaidPiece
from lucky_margin.core.scene import Scene

MOST_OF_WORDS = 0.02
"""Share of a piece that may lie in a covered zone without a word."""

MOST_OF_FOCUS = 0.15
"""Share of the focus box, likewise."""

_CLEAR = 2.0
"""Output pixels that are left between a zone and what is moved clear of it."""


def covered(scene: Scene) -> Iterator[Check]:
    """What each zone covers of words, badges and the focus."""
    for zone in scene.size.covered:
        region = covered_region(zone, *scene.sides)
        for laid in scene.pieces:
            words = words_region(laid, scene)
            share = words.intersection(region).area / max(words.area, 1)
            if share > MOST_OF_WORDS:
                yield _over_piece(laid, zone, share, scene)
        focus = focus_on(scene.focus, scene.frame)
        if focus is not None and scene.focus is not None and scene.focus.box is not None:
            share = shapely.box(*focus.edges).intersection(region).area
            share /= focus.width * focus.height
            if share > MOST_OF_FOCUS:
                text = f"The {zone.name} covers {percent(share)} of the focus box; crop it clear."
                yield Check(key="covered", severity="warning", text=text)


def _over_piece(laid: LaidPiece, zone: CoveredZone, share: float, scene: Scene) -> Check:
    place = _clear_place(laid, scene)
    action = None
    if place and laid.piece.anchor.kind == "margin" and not laid.piece.locked:
        x, y = place
        edit = PlacePiece(id=laid.piece.id, x=laid.x + x, y=laid.y + y, only_this_size=True)
        action = CheckAction(label="Move it clear", edit=edit)
    text = f"{name_of(laid)} lies {percent(share)} under the {zone.name}."
    return Check(key="covered", severity="warning", text=text, action=action)


def _clear_place(laid: LaidPiece, scene: Scene) -> tuple[float, float] | None:
    """The shortest way, in output pixels, that brings a piece clear of all zones and keeps it in
    the margin box; None where there is no such way straight or round one corner."""
    box, room = laid.bounds, scene.margins.box
    zones = [covered_box(zone, *scene.sides) for zone in scene.size.covered]
    across = {
        0.0,
        *(way for zone in zones for way in _past(box.left, box.right, zone.left, zone.right)),
    }
    down = {
        0.0,
        *(way for zone in zones for way in _past(box.top, box.bottom, zone.top, zone.bottom)),
    }
    ways = [
        (x, y)
        for x in across
        for y in down
        if _is_inside(box.moved(x, y), room)
        and not any(_overlap(box.moved(x, y), zone) for zone in zones)
    ]
    return min(ways, key=lambda way: way[0] ** 2 + way[1] ** 2, default=None)


def _past(start: float, end: float, zone_start: float, zone_end: float) -> tuple[float, float]:
    """How far it is to before a zone, and to after it."""
    return zone_start - end - _CLEAR, zone_end - start + _CLEAR


def _is_inside(box: Box, room: Box) -> bool:
    return (
        box.left >= room.left - 0.5
        and box.top >= room.top - 0.5
        and box.right <= room.right + 0.5
        and box.bottom <= room.bottom + 0.5
    )


def _overlap(one: Box, other: Box) -> bool:
    return (
        one.left < other.right
        and other.left < one.right
        and one.top < other.bottom
        and other.top < one.bottom
    )
