"""From the decision on a small picture to coverage at the photo's edges."""

from collections.abc import Iterator, Sequence

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.places import WHOLE_PHOTO, touched_part
from lucky_margin.core.document import Stroke, SubjectEdge
from lucky_margin.core.filling import filled

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]
Part = tuple[slice, slice]

RADIUS, SMOOTHNESS = 4, 0.01
"""Of the guided filter (K. He et al., "Guided image filtering", ECCV 2010), in pixels and encoded
sRGB 0..1."""

STEEPER = 1.6
"""The filter's edges are too soft for most things by this."""

LARGER_RADIUS = 1.0
"""Of the filter on a photo larger than the working size, in pixels of the latter."""

SOFT_RADIUS = 8
"""Of the filter where a stroke says that the edge is soft, in pixels."""

UNSURE_COLOURS = 0.1
"""Two colours so far apart (encoded sRGB 0..1) say half of how they are mixed in a soft edge."""

UNLIKE_BOTH = 0.1
"""A colour so far from every mixture of the two says a third as much."""

GRAIN_RADIUS = 2
"""Of the filter that takes the photo's grain out of mixtures, in pixels."""

BLOCK = 128
"""Side of the blocks that are filtered, if any edge lies in them, in pixels."""


def refined(photo: Floats, share: Floats) -> Floats:
    """Coverage 0..1 from a ``share`` that is soft between its pixels: the photo says where its edge
    runs. ``photo`` has shape (rows, columns, 3) with encoded sRGB 0..1.
    """
    hard = (share > 0.5).astype(np.float32)
    alpha = hard.copy()
    edge = cv2.morphologyEx(hard, cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8)) > 0
    for block, wide, inner in blocks_with_edges(edge, 4 * RADIUS):
        soft = _guided(photo[wide], hard[wide], RADIUS)[inner]
        alpha[block] = np.clip((soft - 0.5) * STEEPER + 0.5, 0, 1)
    return alpha


def led_by_photo(photo: Floats, alpha: Floats, enlarged: float) -> Floats:
    """``alpha`` that was ``enlarged`` by so much, its soft rim led by the photo's own pixels
    (encoded sRGB 0..1, of the same sides)."""
    led = _guided(photo, alpha, _radius_of(enlarged))
    # As steep as an edge that the enlarging made soft by so much has been.
    return np.asarray(np.clip((led - 0.5) * STEEPER + 0.5, 0, 1), np.float32)


def room_to_lead(enlarged: float) -> int:
    """How far around a block the photo has to be known to lead its edges, in pixels."""
    return 4 * _radius_of(enlarged)


def _radius_of(enlarged: float) -> int:
    return max(2, round(LARGER_RADIUS * enlarged))


def softened(photo: Floats, alpha: Floats, strokes: Sequence[Stroke]) -> Floats:
    """``alpha`` with soft edges where strokes say so: each pixel there as a mixture of the colours
    that lie on both sides (D. Porter and T. Duff, "Compositing digital images", 1984)."""
    soft = [stroke for stroke in strokes if stroke.brush == "soft_edge"]
    if not soft:
        return alpha
    rows, columns = alpha.shape
    where = np.zeros_like(alpha)
    for stroke in soft:
        reached, cover = touched_part(stroke, WHOLE_PHOTO, rows, columns)
        where[reached] = np.maximum(where[reached], cover)
    y, x = np.nonzero(where > 0)
    if not len(y):
        return alpha
    pad = 4 * SOFT_RADIUS
    part = np.s_[
        max(0, y.min() - pad) : y.max() + pad + 1, max(0, x.min() - pad) : x.max() + pad + 1
    ]
    seen, unknown = np.ascontiguousarray(photo[part]), where[part] > 0
    subject = filled(seen, ((alpha[part] > 0.95) & ~unknown).astype(np.float32))
    behind = filled(seen, ((alpha[part] < 0.05) & ~unknown).astype(np.float32))
    apart = subject - behind
    length = (apart**2).sum(axis=2)
    mixed = np.clip(((seen - behind) * apart).sum(axis=2) / np.maximum(length, 1e-6), 0, 1)
    unlike = ((seen - behind - mixed[:, :, None] * apart) ** 2).sum(axis=2)
    sure = length / (length + UNSURE_COLOURS**2) * np.exp(-unlike / UNLIKE_BOTH**2)
    # A photo's grain is not a mixture of anything.
    mixed = _guided(seen, mixed.astype(np.float32), GRAIN_RADIUS)
    smooth = _guided(seen, alpha[part], SOFT_RADIUS)
    found = sure * mixed + (1 - sure) * smooth
    out = alpha.copy()
    share = where[part]
    out[part] = share * found + (1 - share) * alpha[part]
    return out


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
    """Without separate parts that are smaller than a disc of this width, in pixels."""
    if width <= 0:
        return alpha
    count, labels, stats, _ = cv2.connectedComponentsWithStats((alpha > 0.1).astype(np.uint8))
    areas = stats[1:, cv2.CC_STAT_AREA]
    if count < 3:  # never the only part
        return alpha
    small = (areas < np.pi / 4 * width**2) & (areas < areas.max())
    return np.where(np.isin(labels, 1 + np.nonzero(small)[0]), np.float32(0), alpha)


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


def _guided(photo: Floats, alpha: Floats, radius: int) -> Floats:
    part = cv2.ximgproc.guidedFilter(
        np.ascontiguousarray(photo), np.ascontiguousarray(alpha), radius, SMOOTHNESS
    )
    # It divides by what may be nothing.
    smooth = cv2.GaussianBlur(alpha, (0, 0), radius / 4)
    return np.asarray(np.clip(np.where(np.isfinite(part), part, smooth), 0, 1), np.float32)
