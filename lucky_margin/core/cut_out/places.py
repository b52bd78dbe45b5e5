"""Where on a photo the subject is looked for, and strokes on any grid."""

from collections.abc import Sequence

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box, Stroke

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]

AROUND = 0.18
"""What is looked at around a box, of its longer side."""

WHOLE_PHOTO = Box(left=0, top=0, width=1, height=1)


def shrunk(picture: Floats, share: float) -> Floats:
    """``picture`` with its sides times ``share`` (at most 1), by area; a strip keeps one pixel."""
    rows, columns = picture.shape[:2]
    across, down = max(share, 1 / columns), max(share, 1 / rows)
    smaller = cv2.resize(picture, None, fx=across, fy=down, interpolation=cv2.INTER_AREA)
    return np.asarray(smaller, np.float32)


def looked_at(boxes: Sequence[Box], strokes: Sequence[Stroke], ratio: float) -> Box:
    """The part of the photo (photo space) that holds the boxes, room around them, and all strokes;
    ``ratio`` is the photo's width by its height."""
    if not boxes:
        return WHOLE_PHOTO
    lefts, tops, rights, bottoms = [], [], [], []
    for box in boxes:
        room = AROUND * max(box.width * ratio, box.height)
        lefts.append(box.left - room / ratio)
        rights.append(box.right + room / ratio)
        tops.append(box.top - room)
        bottoms.append(box.bottom + room)
    for stroke in strokes:
        for x, y in stroke.points:
            lefts.append(x)
            rights.append(x)
            tops.append(y)
            bottoms.append(y)
    left, top = max(0.0, min(lefts)), max(0.0, min(tops))
    right, bottom = min(1.0, max(rights)), min(1.0, max(bottoms))
    return Box(left=left, top=top, width=right - left, height=bottom - top)


def in_pixels(box: Box, rows: int, columns: int) -> tuple[slice, slice]:
    """The rows and columns of a picture of the whole photo that ``box`` touches; at least one."""
    top = min(int(box.top * rows), rows - 1)
    left = min(int(box.left * columns), columns - 1)
    bottom = min(rows, max(int(np.ceil(box.bottom * rows - 1e-9)), top + 1))
    right = min(columns, max(int(np.ceil(box.right * columns - 1e-9)), left + 1))
    return slice(top, bottom), slice(left, right)


def inside(boxes: Sequence[Box], place: Box, rows: int, columns: int) -> Mask:
    """What lies in any of the boxes, on a picture of ``place`` of these sides."""
    mask = np.zeros((rows, columns), np.bool_)
    for box in boxes:
        moved = Box(
            left=(box.left - place.left) / place.width,
            top=(box.top - place.top) / place.height,
            width=box.width / place.width,
            height=box.height / place.height,
        )
        mask[in_pixels(moved, rows, columns)] = True
    return mask


def touched(stroke: Stroke, place: Box, rows: int, columns: int) -> Floats:
    """How much (0..1) a stroke covers of each pixel of a picture of ``place``; see
    ``touched_part``."""
    cover = np.zeros((rows, columns), np.float32)
    part, covered = touched_part(stroke, place, rows, columns)
    cover[part] = covered
    return cover


def touched_part(
    stroke: Stroke, place: Box, rows: int, columns: int, *, softness: float = 0
) -> tuple[tuple[slice, slice], Floats]:
    """The part of a picture of ``place`` that a stroke reaches, and how much (0..1) it covers of
    each pixel there; ``softness`` is the share of its radius over which it fades out.

    Its radius is half a pixel at least, so that it is never lost on a small picture.
    """
    points = np.array(stroke.points, np.float64)
    points -= (place.left, place.top)
    points *= (columns / place.width, rows / place.height)
    # A photo's long side is as many pixels here as the picture has for the whole photo.
    radius = max(0.5, stroke.radius * max(columns / place.width, rows / place.height))
    reach = int(np.ceil(radius)) + 2
    low = np.floor(points.min(axis=0)).astype(int) - reach
    high = np.ceil(points.max(axis=0)).astype(int) + reach + 1
    (left, top), (right, bottom) = np.maximum(low, 0), np.minimum(high, (columns, rows))
    part = np.s_[top : max(top, bottom), left : max(left, right)]
    if right <= left or bottom <= top:
        return part, np.zeros((part[0].stop - top, part[1].stop - left), np.float32)
    line = np.ones((bottom - top, right - left), np.uint8)
    # Pixel centres are whole numbers to cv2; the last bits are sixteenths of a pixel.
    drawn = np.rint(16 * (points - (left, top) - 0.5)).astype(np.int32)
    drawn = np.concatenate([drawn, drawn[-1:]])  # a single point is a line of no length
    cv2.polylines(line, [drawn.reshape(-1, 1, 2)], False, 0, 1, cv2.LINE_8, 4)
    distance = cv2.distanceTransform(line, cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    fade = max(1.0, softness * radius)
    return part, np.asarray(np.clip((radius + 0.5 - distance) / fade, 0, 1), np.float32)
