"""A photo's copies with its spots filled.

A spot is filled once, in the photo's own pixels; what is changed is a patch whose corners lie on
whole pixels of the halved copies too, so that each of those is patched alike.
"""

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass

from lucky_margin.core.document import Spot
from lucky_margin.core.sampling import halved
from lucky_margin.core.scene import DerivedKey, TakenPhoto
from lucky_margin.core.spots import changed_around, filled_along, room_around
from lucky_margin.core.types import AnyPicture

VERSION = 1
"""Of how spots are filled."""

HALVINGS = 6
"""Copies that are patched; smaller ones are made from these."""

_GRID = 2**HALVINGS

Rows = tuple[slice, slice]


@dataclass(frozen=True, eq=False)
class _Patch:
    """What a spot changes: where, in photo pixels, and the key of its pixels."""

    spot: Spot
    where: Rows
    looked_at: Rows
    key: str


def spotted_copy(taken: TakenPhoto, spots: Sequence[Spot], number: int) -> AnyPicture:
    """The photo halved ``number`` times with its spots filled."""
    if not spots:
        return taken.level(number)
    key = ("spotted", taken.key, tuple(spots), number)
    return taken.sources.cache.get_or_make(key, lambda: _made(taken, spots, number))


def _made(taken: TakenPhoto, spots: Sequence[Spot], number: int) -> AnyPicture:
    if number > HALVINGS:
        return halved(spotted_copy(taken, spots, number - 1))
    copy = taken.level(number).copy()
    patches = _patches(taken, spots)
    for index, patch in enumerate(patches):
        pixels = _pixels(taken, patches, index)
        for _ in range(number):
            pixels = halved(pixels)
        top, left = (part.start >> number for part in patch.where)
        copy[top : top + pixels.shape[0], left : left + pixels.shape[1]] = pixels
    return copy


def _patches(taken: TakenPhoto, spots: Sequence[Spot]) -> list[_Patch]:
    """Where each spot changes the photo; its key names it and those before it that it looks at."""
    facts = taken.facts
    sides = facts.height, facts.width
    patches: list[_Patch] = []
    for spot in spots:
        radius = spot.radius * max(sides)
        where = _box(spot, changed_around(radius), sides)
        looked_at = _box(spot, room_around(radius), sides)
        seen = [one.key for one in patches if _overlap(one.where, looked_at)]
        key = hashlib.sha256(repr((spot, seen)).encode()).hexdigest()[:32]
        patches.append(_Patch(spot, where, looked_at, key))
    return patches


def _pixels(taken: TakenPhoto, patches: Sequence[_Patch], index: int) -> AnyPicture:
    """What lies under a patch, with its spot filled."""
    patch = patches[index]

    def make() -> AnyPicture:
        photo = taken.level(0)
        rows, columns = patch.looked_at
        part = photo[rows, columns].copy()
        for earlier in range(index):
            if _overlap(patches[earlier].where, patch.looked_at):
                _lay(
                    part,
                    patch.looked_at,
                    _pixels(taken, patches, earlier),
                    patches[earlier],
                )
        long_side = max(photo.shape[:2])
        points = [
            (x * photo.shape[1] - columns.start, y * photo.shape[0] - rows.start)
            for x, y in patch.spot.points
        ]
        filled = filled_along(part, points, patch.spot.radius * long_side)
        down, across = (
            slice(inner.start - outer.start, inner.stop - outer.start)
            for inner, outer in zip(patch.where, patch.looked_at, strict=True)
        )
        return filled[down, across].copy()

    inputs = (*taken.inputs, patch.key)
    return taken.sources.derived(DerivedKey("spot", taken.sha256, inputs, VERSION), make)


def _lay(part: AnyPicture, at: Rows, pixels: AnyPicture, patch: _Patch) -> None:
    """Lay a patch on a part of the photo."""
    (top, foot), (left, end) = (
        (max(one.start, other.start), min(one.stop, other.stop))
        for one, other in zip(at, patch.where, strict=True)
    )
    rows, columns = patch.where
    part[top - at[0].start : foot - at[0].start, left - at[1].start : end - at[1].start] = pixels[
        top - rows.start : foot - rows.start, left - columns.start : end - columns.start
    ]


def _box(spot: Spot, room: int, sides: tuple[int, int]) -> Rows:
    """The rows and columns around a spot, on whole pixels of the halved copies."""
    xs, ys = zip(*spot.points, strict=True)
    return tuple(  # type: ignore[return-value] # of two
        slice(
            max(0, int(min(along) * side - room) // _GRID * _GRID),
            min(side, -(-int(max(along) * side + room + 1) // _GRID) * _GRID),
        )
        for along, side in ((ys, sides[0]), (xs, sides[1]))
    )


def _overlap(one: Rows, other: Rows) -> bool:
    return all(a.start < b.stop and b.start < a.stop for a, b in zip(one, other, strict=True))
