"""From the decision on a small picture to coverage at the photo's edges."""

from collections.abc import Iterator, Sequence

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.guided_filter import REACH, guided
from lucky_margin.core.cut_out.places import WHOLE_PHOTO, touched_part
from lucky_margin.core.document import Stroke, SubjectEdge

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]
Part = tuple[slice, slice]

RADIUS = 4
"""Of the filter's windows, in pixels."""

STEEPER = 1.6
"""The filter's edges are too soft for most things by this."""

LARGER_RADIUS = 1.0
"""Of the filter on a photo larger than the working size, in pixels of the latter."""

FAINT = 0.1
"""Coverage up to which pixels connect no parts with each other."""

RIM = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (13, 13))
"""So far around a part its faint rim goes with it."""

BLOCK = 128
"""Side of the blocks that are filtered, if any edge lies in them, in pixels."""


def refined(photo: Floats, share: Floats) -> Floats:
    """Coverage 0..1 from a ``share`` that is soft between its pixels: the photo says where its edge
    runs. ``photo`` has shape (rows, columns, 3) with encoded sRGB 0..1.
    """
    hard = (share > 0.5).astype(np.float32)
    alpha = hard.copy()
    edge = cv2.morphologyEx(hard, cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8)) > 0
    for block, wide, inner in blocks_with_edges(edge, REACH * RADIUS):
        soft = guided(photo[wide], hard[wide], RADIUS)[inner]
        alpha[block] = np.clip((soft - 0.5) * STEEPER + 0.5, 0, 1)
    return alpha


def led_by_photo(photo: Floats, alpha: Floats, enlarged: float) -> Floats:
    """``alpha`` that was ``enlarged`` by so much, its soft rim led by the photo's own pixels
    (encoded sRGB 0..1, of the same sides)."""
    led = guided(photo, alpha, _radius_of(enlarged))
    # As steep as an edge that the enlarging made soft by so much has been.
    return np.asarray(np.clip((led - 0.5) * STEEPER + 0.5, 0, 1), np.float32)


def room_to_lead(enlarged: float) -> int:
    """How far around a block the photo has to be known to lead its edges, in pixels."""
    return REACH * _radius_of(enlarged)


def _radius_of(enlarged: float) -> int:
    return max(2, round(LARGER_RADIUS * enlarged))


def painted(alpha: Floats, strokes: Sequence[Stroke]) -> Floats:
    """``alpha`` with what strokes say for certain: kept, left out, erased, brought back."""
    out = alpha.copy()
    for stroke in strokes:
        if stroke.brush == "soft_edge":
            continue
        rows, columns = alpha.shape
        part, cover = touched_part(stroke, WHOLE_PHOTO, rows, columns, softness=stroke.softness)
        there = np.float32(stroke.brush in ("keep", "bring_back"))
        out[part] += cover * (there - out[part])
    return out


def finished(alpha: Floats, edge: SubjectEdge) -> Floats:
    """``alpha`` with its edge moved and softened, without the specks and holes that ``edge`` takes
    away."""
    long_side = max(alpha.shape)
    out = _without_small(alpha, edge.specks * long_side)
    out = 1 - _without_small(1 - out, edge.holes * long_side)
    out = _shifted(out, edge.shift * long_side)
    if edge.softness > 0:
        out = np.asarray(cv2.GaussianBlur(out, (0, 0), edge.softness * long_side / 2), np.float32)
    return np.asarray(out, np.float32)


def _without_small(alpha: Floats, width: float) -> Floats:
    """Without separate parts that are smaller than a disc of this width, in pixels, and without
    their faint rims."""
    if width <= 0:
        return alpha
    count, labels, stats, _ = cv2.connectedComponentsWithStats((alpha > FAINT).astype(np.uint8))
    areas = stats[1:, cv2.CC_STAT_AREA]
    if count < 3:  # never the only part
        return alpha
    is_small = (areas < np.pi / 4 * width**2) & (areas < areas.max())
    if not is_small.any():
        return alpha
    small = np.concatenate([[False], is_small])[labels]
    near_small, near_large = (
        cv2.dilate(part.astype(np.uint8), RIM) > 0 for part in (small, (labels > 0) & ~small)
    )
    return np.where(small | ((labels == 0) & near_small & ~near_large), np.float32(0), alpha)


def _shifted(alpha: Floats, by: float) -> Floats:
    """The edge moved out by so many pixels, or in."""
    if by == 0:
        return alpha
    low = int(abs(by))
    over = abs(by) - low
    change = cv2.dilate if by > 0 else cv2.erode
    near, far = (
        change(alpha, cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * r + 1, 2 * r + 1)))
        for r in (low, low + 1)
    )
    return np.asarray((1 - over) * near + over * far, np.float32)


def blocks_with_edges(edge: Mask, pad: int) -> Iterator[tuple[Part, Part, Part]]:
    """Blocks of a picture that have an edge within ``pad``: each block, the block with ``pad``
    around it, and the block inside of that."""
    rows, columns = edge.shape
    for top in range(0, rows, BLOCK):
        for left in range(0, columns, BLOCK):
            above, before = max(0, top - pad), max(0, left - pad)
            wide = np.s_[above : top + BLOCK + pad, before : left + BLOCK + pad]
            if edge[wide].any():
                y, x = top - above, left - before
                block = np.s_[top : top + BLOCK, left : left + BLOCK]
                yield block, wide, np.s_[y : y + BLOCK, x : x + BLOCK]
