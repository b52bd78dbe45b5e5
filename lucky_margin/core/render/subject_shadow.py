"""The shadows of a scene's subject on its ground, on any grid."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import scaling
from lucky_margin.core.blurring import blurred
from lucky_margin.core.document import CastShadow, ContactShadow
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.laying import placed_cover
from lucky_margin.core.render.shown import shown_photo, turned_subject_box
from lucky_margin.core.render.subject_alpha import (
    alpha_near_subject,
    in_part,
    on_photo,
    part_round_subject,
    room_for,
    where_seen,
)
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Mask

Floats = NDArray[np.float32]

SPREAD = 3.0
"""How far a blur reaches, in its standard deviations."""

STANDING = 0.3
"""The lowest share of the subject's height that throws the shadow under it."""

BEFORE = 0.3
"""The share of that shadow that lies before the line on which the subject stands."""

BLACK = "#000000"


@dataclass(frozen=True, eq=False)
class LaidShadow:
    """One colour, and how much (0..255) of it there is at each pixel of a grid's region."""

    colour: str
    opacity: float
    mask: Mask


def shadows_of_subject(scene: Scene, grid: Grid) -> Iterator[LaidShadow]:
    """Its shadows, back to front: the photo's own, the one it casts, and the one under it."""
    shadow = scene.subject_shadow
    if scene.finish.photo is None or not shadow.is_set:
        return
    if shadow.own:
        yield LaidShadow(BLACK, shadow.own, _own(scene, grid))
    if shadow.cast:
        yield LaidShadow(shadow.cast.colour, shadow.cast.opacity, _cast(shadow.cast, scene, grid))
    if shadow.contact:
        mask = _contact(shadow.contact, scene, grid)
        yield LaidShadow(shadow.contact.colour, shadow.contact.opacity, mask)


def _own(scene: Scene, grid: Grid) -> Mask:
    photo, mapping = shown_photo(scene), scene.mapping(grid.to_full)
    mask = placed_cover(photo.own_shadow(), photo, mapping, grid.region)
    if scene.frame.covers:
        return mask
    return np.asarray(np.rint(mask * on_photo(scene, mapping, grid.region)), np.uint8)


def _cast(shadow: CastShadow, scene: Scene, grid: Grid) -> Mask:
    """The subject's alpha, moved and blurred."""
    short = min(scene.sides) * grid.mean_scale
    deviation, far = shadow.softness * short / 2, shadow.distance * short
    turn = math.radians(shadow.angle)
    right, down = far * math.sin(turn), -far * math.cos(turn)
    moved = np.array([[1, 0, right], [0, 1, down]])
    return _laid(scene, grid, moved, far + SPREAD * deviation, deviation)


def _contact(shadow: ContactShadow, scene: Scene, grid: Grid) -> Mask:
    """What of the subject is near the line on which it stands, flattened onto it, and blurred."""
    box = turned_subject_box(scene)
    if box is None:
        return np.zeros(grid.sides[::-1], np.uint8)
    short = min(scene.sides) * grid.mean_scale
    deviation, height = shadow.softness * short / 2, shadow.height * short
    to_grid = scaling(grid.scale_x, grid.scale_y).after(scene.frame.to_output)
    (_, top), (_, foot) = to_grid(box.left, box.top), to_grid(box.right, box.bottom)
    standing = max(STANDING * (foot - top), 1e-6)
    reach = height + SPREAD * deviation
    line = foot - part_round_subject(scene, grid, room_for(reach))[1]
    flat = height / standing
    flattened = np.array([[1, 0, 0], [0, flat, line + BEFORE * height - flat * line]])
    return _laid(scene, grid, flattened, reach, deviation, (line - standing, line))


def _laid(
    scene: Scene,
    grid: Grid,
    moved: NDArray[np.float64],
    reach: float,
    deviation: float,
    rows: tuple[float, float] | None = None,
) -> Mask:
    """The subject's alpha after a mapping of its part of the grid, and a blur; of what lies above
    ``rows`` nothing, from there on more and more."""
    beyond = room_for(reach)
    part = part_round_subject(scene, grid, beyond)

    def make() -> Mask:
        alpha = alpha_near_subject(scene, grid, part)
        if rows:
            y = np.arange(len(alpha), dtype=np.float32)[:, None] + np.float32(0.5)
            alpha = alpha * np.clip(2 * (y - rows[0]) / (rows[1] - rows[0]), 0, 1)
        # What is shrunk has to be averaged; blurred as much, hardly anything is lost.
        shrink = 1 / max(float(moved[1, 1]), 1e-3)
        if shrink > 1:
            kernel = max(1, round(shrink))
            alpha = np.asarray(cv2.blur(alpha, (1, kernel)), np.float32)
        laid = cv2.warpAffine(alpha, _for_indices(moved), alpha.shape[::-1])
        return np.asarray(np.rint(255 * blurred(np.asarray(laid, np.float32), deviation)), np.uint8)

    key = ("subject shadow", shown_photo(scene).key, scene.mapping(grid.to_full), part)
    mask = scene.sources.cache.get_or_make((*key, moved.tobytes(), deviation, rows), make)
    whole = np.zeros(grid.sides[::-1], np.uint8)
    whole[where_seen(part, grid)] = mask[in_part(part, grid)]
    return whole


def _for_indices(moved: NDArray[np.float64]) -> NDArray[np.float64]:
    """A mapping of places as one of pixel indices, whose centres lie half a pixel further."""
    out = moved.copy()
    out[:, 2] += moved[:, :2] @ (0.5, 0.5) - 0.5
    return out
