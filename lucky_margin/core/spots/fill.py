"""Filling a place of a photo from what lies around it.

What is there is replaced by another place of the photo whose surroundings look like its own, found
by comparing the ring around it everywhere near (sums of squares by correlation, coarse to fine).
What the two still differ by on the ring is spread smoothly over the place, as when P. Pérez,
M. Gangnet and A. Blake clone seamlessly ("Poisson image editing", 2003). Long strokes are filled a
length at a time, so that each length may come from elsewhere.
"""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.filling import filled

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]
Window = tuple[slice, slice]

RING = 0.5
"""How wide the ring around a place is, in its radii."""

LEAST_RING = 3
"""Pixels."""

COARSE_SIDE = 40
"""Longest side, in pixels, of a place and its ring where they are looked for first."""

FAR, EVEN = 0.15, (1 / 255) ** 2
"""How much worse a place may look for being at the end of what is searched, of the ring's own
variance (at least that of even colour): of places alike the nearer one is taken."""

VARIED = 0.5
"""What it counts if a place is more varied inside than the ring, beside how unlike its ring is."""


def fill_place(photo: Floats, hole: Mask, avoid: Mask, radius: float) -> None:
    """Fill what lies in ``hole`` of a photo (rows, columns, channels; encoded 0..1) from what lies
    around it, in place; ``avoid`` is what must not be taken, and ``radius`` half the hole's width.
    A hole that is everything stays as it is."""
    if not hole.any() or hole.all():
        return
    ring_width = max(LEAST_RING, round(RING * radius))
    part = _around(hole, ring_width)
    within = hole[part]
    near = cv2.dilate(within.astype(np.uint8), _disc(ring_width)) > 0
    ring = near & ~within & ~avoid[part]
    way = _best_way(photo, part, within, ring, hole | avoid)
    known = ring.astype(np.float32)
    seen = photo[part]
    if way is None:
        inside = filled(seen, known) if ring.any() else seen
    else:
        source = photo[_moved(part, way)]
        inside = source + filled(seen - source, known)
    photo[part] = np.where(within[:, :, None], np.clip(inside, 0, 1), seen)


def _best_way(
    photo: Floats, part: Window, within: Mask, ring: Mask, bad: Mask
) -> tuple[int, int] | None:
    """How far down and right of ``part`` the place lies whose ring is most like its own; None where
    there is no other place."""
    if not ring.any():
        return None
    rows, columns = within.shape
    shrink = 1
    while max(rows, columns) / shrink > COARSE_SIDE:
        shrink *= 2
    way = _way_at(photo, part, within, ring, bad, shrink, None)
    while way is not None and shrink > 1:
        shrink //= 2
        way = _way_at(photo, part, within, ring, bad, shrink, way)
    return way


def _way_at(
    photo: Floats,
    part: Window,
    within: Mask,
    ring: Mask,
    bad: Mask,
    shrink: int,
    start: tuple[int, int] | None,
) -> tuple[int, int] | None:
    """The best way, to ``shrink`` pixels; from ``start`` on only near that."""
    top, left = part[0].start, part[1].start
    window = _searched(part, start, 2 * shrink, photo.shape[0], photo.shape[1])
    seen, own = _small(photo[window], shrink), _small(photo[part], shrink)
    on_ring, inside = (_small(mask.astype(np.float32), shrink) for mask in (ring, within))
    if seen.shape[0] < own.shape[0] or seen.shape[1] < own.shape[1]:
        return start
    cost = _compared(seen, own, on_ring, inside)
    ys = (window[0].start + shrink * np.arange(cost.shape[0])) - top
    xs = (window[1].start + shrink * np.arange(cost.shape[1])) - left
    if start is None:
        away = np.hypot(ys[:, None] / photo.shape[0], xs[None] / photo.shape[1])
        cost = cost + FAR * (_contrast(own, on_ring) + EVEN) * on_ring.sum() * away
    spoilt = (_small(bad[window].astype(np.float32), shrink) > 0).astype(np.float32)
    blocked = cv2.matchTemplate(spoilt, (on_ring + inside > 0).astype(np.float32), cv2.TM_CCORR)
    cost = np.where(blocked < 0.5, cost, np.inf)
    best = int(np.argmin(cost))
    if not np.isfinite(cost.flat[best]):
        return start
    row, column = divmod(best, cost.shape[1])
    return int(ys[row]), int(xs[column])


def _searched(
    part: Window, start: tuple[int, int] | None, reach: int, rows: int, columns: int
) -> Window:
    """All of the photo, or what is within ``reach`` of ``part`` moved by ``start``."""
    if start is None:
        return np.s_[0:rows, 0:columns]
    (top, foot), (left, end) = (
        (side.start + way - reach, side.stop + way + reach)
        for side, way in zip(part, start, strict=True)
    )
    return np.s_[max(0, top) : min(rows, foot), max(0, left) : min(columns, end)]


def _compared(seen: Floats, own: Floats, on_ring: Floats, inside: Floats) -> Floats:
    """How unlike each place is: sums of squares over the ring, after the mean difference of each
    channel is taken away, since that is evened out afterwards; and how much more varied than the
    ring what lies inside is, so that no other thing is copied in."""
    total, within = float(on_ring.sum()), max(float(inside.sum()), 1e-6)
    cost = np.zeros((seen.shape[0] - own.shape[0] + 1, seen.shape[1] - own.shape[1] + 1))
    varied = np.zeros_like(cost)
    for channel in range(seen.shape[2]):
        plane, ours = seen[:, :, channel], own[:, :, channel]
        squared = plane * plane
        sums = _sums(plane, on_ring)
        mean = (sums - float((on_ring * ours).sum())) / total
        cost += _sums(squared, on_ring) - 2 * _sums(plane, on_ring * ours)
        cost += float((on_ring * ours * ours).sum()) - total * mean**2
        level = sums / total
        varied += _sums(squared, inside) - 2 * level * _sums(plane, inside) + within * level**2
    more = np.maximum(varied / within - _contrast(own, on_ring), 0)
    return np.asarray(np.maximum(cost, 0) + VARIED * total * more, np.float32)


def _sums(plane: Floats, weights: Floats) -> NDArray[np.float64]:
    return cv2.matchTemplate(plane, weights, cv2.TM_CCORR).astype(np.float64)


def _contrast(own: Floats, on_ring: Floats) -> float:
    """The variance of the ring, all channels together."""
    return float((on_ring[:, :, None] * (own - _mean(own, on_ring)) ** 2).sum() / on_ring.sum())


def _mean(values: Floats, weights: Floats) -> Floats:
    total = max(float(weights.sum()), 1e-6)
    return np.asarray((values * weights[:, :, None]).sum(axis=(0, 1)) / total, np.float32)


def _small(values: Floats, shrink: int) -> Floats:
    if shrink == 1:
        return np.asarray(values, np.float32)
    sides = max(1, values.shape[1] // shrink), max(1, values.shape[0] // shrink)
    cut = values[: sides[1] * shrink, : sides[0] * shrink]
    return np.asarray(cv2.resize(cut, sides, interpolation=cv2.INTER_AREA), np.float32)


def _around(hole: Mask, room: int) -> Window:
    """The rows and columns of the hole with ``room`` around it."""
    left, top, width, height = cv2.boundingRect(hole.astype(np.uint8))
    return np.s_[
        max(0, top - room) : min(hole.shape[0], top + height + room),
        max(0, left - room) : min(hole.shape[1], left + width + room),
    ]


def _moved(part: Window, way: tuple[int, int]) -> Window:
    rows, columns = part
    return np.s_[
        rows.start + way[0] : rows.stop + way[0], columns.start + way[1] : columns.stop + way[1]
    ]


def _disc(radius: int) -> NDArray[np.uint8]:
    sides = (2 * radius + 1, 2 * radius + 1)
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, sides), np.uint8)
