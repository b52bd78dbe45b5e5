"""What the network is shown besides the photo, made up for each example: a box more or less true,
a wrong mask such as an earlier decision might give, and strokes that mend it."""

import cv2
import numpy as np
from numpy.random import Generator
from numpy.typing import NDArray

Floats = NDArray[np.float32]
Bytes = NDArray[np.uint8]
Mask = NDArray[np.bool_]
Sides = tuple[int, int, int, int]

VISIBLE = 12
"""Alpha of 255 from which on something belongs to its subject's box."""

SMALL = 0.4
"""A subject is small if its box covers less than so much of the picture."""

UNBOXED, SMALL_UNBOXED = 0.1, 0.5
"""Shares of the examples in which nobody has drawn a box, of any subject and of small ones: all but
the picture's rim is the box then."""

RIMS = (0.02, 0.1)
"""Between which shares of the sides that rim is wide."""


def example(photo: Bytes, alpha: Bytes, side: int, rng: Generator) -> tuple[Floats, Floats]:
    """A kept picture, turned, scaled and recoloured, with its conditions: shapes (7, side, side)
    and (1, side, side), 0..1."""
    photo, alpha = _moved(photo, alpha, side, rng)
    conditions = np.zeros((4, side, side), np.float32)
    box = _drawn_or_whole(box_of(alpha, rng), side, rng)
    left, top, right, bottom = box
    conditions[0, top:bottom, left:right] = 1
    kind = rng.random()
    if kind < 0.5:
        mask = _wrong_mask(alpha, box, rng)
        conditions[1], conditions[2] = strokes(alpha, mask, rng)
        if kind < 0.25:
            conditions[3] = mask
    elif kind < 0.6:
        conditions[3] = _wrong_mask(alpha, box, rng)
    planes = np.clip(_recoloured(photo, rng), 0, 1).transpose(2, 0, 1)
    return np.concatenate([planes, conditions]), alpha[None].astype(np.float32) / 255


def box_of(alpha: Bytes, rng: Generator) -> Sides:
    """Left, top, right and bottom of the subject's box, mostly somewhat too wide, as boxes are
    drawn."""
    rows, columns = alpha.shape
    ys, xs = np.where(alpha > VISIBLE)
    if not len(ys):
        return 0, 0, columns, rows
    left, top, right, bottom = xs.min(), ys.min(), xs.max() + 1, ys.max() + 1
    width, height = right - left, bottom - top
    off = rng.uniform(-0.02, rng.choice([0.03, 0.15]), 4) * (rng.random() < 0.85)
    return (
        int(max(0, left - off[0] * width)),
        int(max(0, top - off[1] * height)),
        int(min(columns, right + off[2] * width)),
        int(min(rows, bottom + off[3] * height)),
    )


def _drawn_or_whole(box: Sides, side: int, rng: Generator) -> Sides:
    left, top, right, bottom = box
    is_small = (right - left) * (bottom - top) < SMALL * side**2
    if rng.random() >= (SMALL_UNBOXED if is_small else UNBOXED):
        return box
    near, far = (rng.uniform(*RIMS, (2, 2)) * side).astype(int)
    return int(near[0]), int(near[1]), side - int(far[0]), side - int(far[1])


def _moved(photo: Bytes, alpha: Bytes, side: int, rng: Generator) -> tuple[Bytes, Bytes]:
    scale = rng.uniform(0.82, 1.22, 2) * side / photo.shape[0]
    angle = rng.normal(0, 0.12) if rng.random() < 0.5 else 0.0
    cosine, sine = np.cos(angle), np.sin(angle)
    way = np.array(
        [[scale[0] * cosine, -scale[1] * sine, 0], [scale[0] * sine, scale[1] * cosine, 0]]
    )
    middle = np.full(2, photo.shape[0] / 2)
    way[:, 2] = side / 2 + rng.uniform(-0.05, 0.05, 2) * side - way[:, :2] @ middle
    if rng.random() < 0.5:
        way[0] *= -1
        way[0, 2] += side - 1
    how = cv2.INTER_AREA if side < photo.shape[0] else cv2.INTER_LINEAR
    moved = [
        cv2.warpAffine(picture, way, (side, side), flags=how, borderMode=cv2.BORDER_REFLECT)
        for picture in (photo, alpha)
    ]
    return moved[0], moved[1]


def _recoloured(photo: Bytes, rng: Generator) -> Floats:
    if rng.random() < 0.25:
        photo = photo[..., rng.permutation(3)]
    colours = photo.astype(np.float32) / 255
    if rng.random() < 0.7:
        colours = colours ** np.float32(rng.uniform(0.7, 1.4))
        colours *= rng.uniform(0.75, 1.2, 3).astype(np.float32)
        colours += np.float32(rng.uniform(-0.06, 0.06))
    if rng.random() < 0.2:
        grey = colours.mean(2, keepdims=True)
        colours = grey + (colours - grey) * np.float32(rng.uniform(0, 1.6))
    if rng.random() < 0.2:
        colours = cv2.GaussianBlur(colours, (0, 0), float(rng.uniform(0.4, 1.5)))
    if rng.random() < 0.3:
        noise = rng.standard_normal(colours.shape, dtype=np.float32)
        colours = colours + noise * np.float32(rng.uniform(0, 0.04))
    return np.asarray(colours, np.float32)


def _wrong_mask(alpha: Bytes, box: Sides, rng: Generator) -> Bytes:
    """A mask with pieces lost and pieces of the ground taken; at times empty, or the whole box."""
    side = alpha.shape[0]
    mask = (alpha > 127).astype(np.uint8)
    within = np.zeros_like(mask)
    within[box[1] : box[3], box[0] : box[2]] = 1
    kind = rng.random()
    if kind < 0.1:
        return np.zeros_like(mask)
    if kind < 0.25:
        return within
    if rng.random() < 0.6:
        blurred = cv2.GaussianBlur(mask * 255, (0, 0), rng.uniform(0.01, 0.035) * side)
        mask = (blurred > rng.uniform(60, 190)).astype(np.uint8)
    coarse = rng.standard_normal((int(rng.integers(3, 9)),) * 2).astype(np.float32)
    field = cv2.resize(coarse, (side, side), interpolation=cv2.INTER_CUBIC)
    if rng.random() < 0.8:
        mask[field > rng.uniform(0.5, 1.6)] = 0
    if rng.random() < 0.8:
        mask[(field < -rng.uniform(0.5, 1.6)) & (within > 0)] = 1
    return mask


def strokes(alpha: Bytes, mask: Bytes, rng: Generator) -> tuple[Bytes, Bytes]:
    """One to six short strokes or clicks, most of them on what is wrong in ``mask`` (0 and 1):
    those that keep, those that leave out. ``alpha`` is 0..255."""
    side = alpha.shape[0]
    keep, leave_out = np.zeros((side, side), np.uint8), np.zeros((side, side), np.uint8)
    truth = alpha > 127
    for _ in range(int(rng.integers(1, 7))):
        wrong = truth != (mask > 0)
        if rng.random() >= 0.75:
            wrong = truth if rng.random() < 0.5 else ~truth
        depth = cv2.distanceTransform(wrong.astype(np.uint8), cv2.DIST_L2, 3)
        if depth.max() < 1:
            continue
        ys, xs = np.where(depth > depth.max() * rng.uniform(0.2, 0.8))
        one = int(rng.integers(len(ys)))
        keeps = truth[ys[one], xs[one]]
        line = _stroke((int(xs[one]), int(ys[one])), side, rng)
        line &= (alpha > 150) if keeps else (alpha < 100)
        (keep if keeps else leave_out)[line] = 1
    return keep, leave_out


def _stroke(start: tuple[int, int], side: int, rng: Generator) -> Mask:
    line = np.zeros((side, side), np.uint8)
    width = int(rng.integers(max(2, side // 100), side // 30))
    direction = rng.uniform(0, 2 * np.pi)
    length = side * rng.choice([0, 0.05, 0.12, 0.3]) * rng.random()
    cv2.circle(line, start, width // 2 + 1, 1, -1)
    point = np.array(start, float)
    for _ in range(4):
        end = point + length / 4 * np.array([np.cos(direction), np.sin(direction)])
        cv2.line(line, tuple(point.astype(int).tolist()), tuple(end.astype(int).tolist()), 1, width)
        point = end
        direction += rng.normal(0, 0.6)
    return line > 0
