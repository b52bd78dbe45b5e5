"""Separating a picture into layers that lie source-over, and come to it again.

An editor knows neither our groups nor what cuts several layers at once. So each layer is the part
by itself wherever that gives the picture; elsewhere the pixel is worked out from what lies below
and what there should be, and along an edge that several parts share, the topmost has all of it.
"""

from collections.abc import Iterable
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import BlendMode
from lucky_margin.core.render import PicturePart
from lucky_margin.core.render.compose import blended
from lucky_margin.core.types import Picture8

NEAR = 1
"""Levels by which the layers may come to another picture."""

ROUNDING = 0.5
"""Levels of that which are left to whoever puts them together with 8 bits."""

PORTABLE_BLENDS: frozenset[BlendMode] = frozenset(
    {
        "normal", "darken", "multiply", "color-burn", "lighten", "screen", "color-dodge",
        "overlay", "soft-light", "hard-light", "hue", "saturation", "color", "luminosity",
    }
)  # fmt: skip
"""Those that an OpenRaster file can name."""

Fractions = NDArray[np.float32]
Places = NDArray[np.intp]


@dataclass(frozen=True, eq=False)
class FlatLayer:
    """A picture with alpha, at a place on the sheet, and how it lies on what is below."""

    name: str
    blend: BlendMode
    left: int
    top: int
    pixels: Picture8


def separated(parts: Iterable[PicturePart]) -> list[FlatLayer]:
    """A layer for each of ``parts`` (lowest first) that shows; together they come to the last
    one's ``so_far``, within ``NEAR`` of each premultiplied level."""
    layers: list[FlatLayer] = []
    below: Picture8 | None = None
    for part in parts:
        if below is None:
            below = np.zeros_like(part.so_far)
        layer = _layer(part, below, layers)
        if layer is not None:
            layers.append(layer)
    return layers


def _layer(part: PicturePart, below: Picture8, layers: list[FlatLayer]) -> FlatLayer | None:
    """What ``part`` adds; ``below`` becomes what there is with it, and what it takes over from
    ``layers`` is taken out of them."""
    shows = (part.alone[:, :, 3] > 0) | (below != part.so_far).any(axis=2)
    left, top, width, height = cv2.boundingRect(shows.astype(np.uint8))
    if width == 0:
        return None
    box = slice(top, top + height), slice(left, left + width)
    here, wanted, pixels = below[box], part.so_far[box], part.alone[box].copy()
    if part.blend != "normal" and _blends_alike(here, pixels, part.blend, wanted):
        here[:] = wanted
        return FlatLayer(part.name, part.blend, left, top, pixels)
    rows, columns = _lay_over(here, pixels, wanted)
    for layer in layers:
        _clear(layer, rows + top, columns + left)
    return FlatLayer(part.name, "normal", left, top, pixels)


def _lay_over(below: Picture8, pixels: Picture8, wanted: Picture8) -> tuple[Places, Places]:
    """Change ``pixels`` where they would not come to ``wanted`` over ``below``, which becomes what
    they come to. Returns rows and columns where that needs nothing to lie below them."""
    come_to = _over(below, pixels)
    rows, columns = np.nonzero(~_are_near(come_to, wanted))
    solved, alone = _solved(below[rows, columns], pixels[rows, columns], wanted[rows, columns])
    pixels[rows, columns] = solved
    come_to[rows, columns] = _over(below[rows, columns], solved)
    below[:] = np.rint(come_to)
    rows, columns = rows[alone], columns[alone]
    below[rows, columns] = wanted[rows, columns]
    return rows, columns


def _solved(
    below: Picture8, alone: Picture8, wanted: Picture8
) -> tuple[Picture8, NDArray[np.bool_]]:
    """Pixels (N, 4) that give ``wanted`` when they lie over ``below``, and of which that is only
    so with nothing below. ``alone`` says how much of a pixel the part would like to cover."""
    under, want = below.astype(np.float32), wanted.astype(np.float32)
    cover_below, cover = under[:, 3] / 255, want[:, 3] / 255
    # Source-over keeps alpha's share: cover = own + cover_below (1 - own).
    is_free = (cover_below == 1) & (cover == 1)
    with np.errstate(divide="ignore", invalid="ignore"):
        own = np.where(
            is_free,
            np.maximum(alone[:, 3] / 255, _least_cover(under, want)),
            (cover - cover_below) / (1 - cover_below),
        )
        own = np.ceil(255 * np.nan_to_num(own, posinf=0, neginf=0)).clip(0, 255) / 255
        share_below = (cover_below * (1 - own))[:, None]
        colours = (cover[:, None] * want[:, :3] - share_below * under[:, :3]) / own[:, None]
    solved = np.empty_like(wanted)
    solved[:, :3] = np.rint(np.nan_to_num(colours, posinf=0, neginf=0).clip(0, 255))
    solved[:, 3] = np.rint(255 * own)
    failed = ~_are_near(_over(below, solved), wanted)
    solved[failed] = wanted[failed]
    return solved, failed


def _least_cover(under: Fractions, want: Fractions) -> Fractions:
    """The least cover with which some colour turns an opaque ``under`` into ``want``."""
    room = np.where(want > under, 255 - under, under)[:, :3]
    least: Fractions = (np.abs(want - under)[:, :3] / np.maximum(room, 1)).max(axis=1)
    return least


def _blends_alike(below: Picture8, above: Picture8, blend: BlendMode, wanted: Picture8) -> bool:
    """Whether ``above`` blended with an opaque ``below`` gives what is wanted."""
    if blend not in PORTABLE_BLENDS or below[:, :, 3].min() < 255 or wanted[:, :, 3].min() < 255:
        return False
    share = np.ascontiguousarray(above[:, :, 3])
    given = blended(below[:, :, :3], above[:, :, :3], blend, share, 1)
    return bool(cv2.absdiff(given, np.ascontiguousarray(wanted[:, :, :3])).max() <= NEAR)


def _clear(layer: FlatLayer, rows: Places, columns: Places) -> None:
    rows, columns = rows - layer.top, columns - layer.left
    height, width = layer.pixels.shape[:2]
    inside = (rows >= 0) & (rows < height) & (columns >= 0) & (columns < width)
    layer.pixels[rows[inside], columns[inside]] = 0


def _over(below: Picture8, above: Picture8) -> Fractions:
    """``above`` over ``below`` (Porter and Duff 1984): straight alpha, levels not rounded."""
    cover, cover_below = (one[..., 3:].astype(np.float32) / 255 for one in (above, below))
    share_below = cover_below * (1 - cover)
    whole = cover + share_below
    levels = np.zeros(below.shape, np.float32)
    np.divide(
        cover * above[..., :3] + share_below * below[..., :3],
        whole,
        levels[..., :3],
        where=whole > 0,
    )
    levels[..., 3:] = 255 * whole
    return levels


def _are_near(found: Fractions, wanted: Picture8) -> NDArray[np.bool_]:
    """Where levels come to ``wanted`` when alpha is rounded, and the colours either way: alpha
    itself, and the colours as far as it shows them."""
    alpha, wanted_alpha = np.rint(found[..., 3]), wanted[..., 3].astype(np.float32)
    near: NDArray[np.bool_] = np.abs(alpha - wanted_alpha) <= NEAR
    cover, wanted_cover = alpha / 255, wanted_alpha / 255
    for channel in range(3):
        apart = np.abs(found[..., channel] * cover - wanted[..., channel] * wanted_cover)
        near &= apart <= NEAR - ROUNDING * wanted_cover
    return near
