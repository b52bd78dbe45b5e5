"""Own pictures along a band: strips that are repeated, and pictures of frames in nine parts."""

import math
from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.borders.across import Across, Edges
from lucky_margin.core.borders.patterns import is_rectangle, repeats_along
from lucky_margin.core.document import BandPicture
from lucky_margin.core.document.values import PhotoBox
from lucky_margin.core.sampling import sample
from lucky_margin.core.types import Picture8

Floats = NDArray[np.float32]

LARGEST_SHEET = 4096
"""Side of the picture as it is laid along the band, in pixels."""

SEARCHED_SIDE = 1600
"""Side of the picture in which a frame's window is looked for, in pixels."""

LEAST_WINDOW = 0.1
"""Share of a frame's picture that its window has at least."""

_ROUNDING = 1e-6

PLAIN = 10
"""How far colours of a plain window are apart at most, in 8-bit steps."""


@dataclass(frozen=True, eq=False)
class Sheet:
    """A picture as it is laid along a band, one pixel for each of the band's or so: ``pixels`` of
    shape (rows, columns, 4), 0..255, colours times alpha. A frame's window begins and ends at whole
    ``columns`` and ``rows`` of it."""

    pixels: Floats
    columns: tuple[int, int]
    rows: tuple[int, int]


def sheet_sides(picture: BandPicture, thickness: float) -> tuple[int, int]:
    """Width and height of the picture as it is laid along a band that is so many pixels thick."""
    height = thickness / picture.slices.thickest if picture.window else thickness
    height = min(height, LARGEST_SHEET, LARGEST_SHEET / picture.ratio)
    return max(3, round(height * picture.ratio)), max(3, round(height))


def sheet_of(picture: BandPicture, pixels: Picture8, sides: tuple[int, int]) -> Sheet:
    """``pixels`` of a picture at ``sides`` (width, height); the nine parts of a frame apart, so
    that nothing of one shows in the next."""
    window = picture.window or PhotoBox(left=0, top=0, width=1, height=1)
    rows, columns = pixels.shape[:2]
    across = _parts(window.left, window.right, columns, sides[0])
    down = _parts(window.top, window.bottom, rows, sides[1])
    sheet = np.zeros((sides[1], sides[0], 4), np.float32)
    for (source_top, source_bottom), (top, bottom) in down:
        for (source_left, source_right), (left, right) in across:
            part = pixels[source_top:source_bottom, source_left:source_right]
            if part.size and bottom > top and right > left:
                sheet[top:bottom, left:right] = _resized(part, right - left, bottom - top)
    return Sheet(sheet, across[1][1], down[1][1])


def picture_paint(picture: BandPicture, sheet: Sheet, edges: Edges, lying: Across) -> Floats:
    """The colours of a band, shape (rows, columns, 4), 0..255, alpha apart."""
    rows = len(sheet.pixels)
    find = _in_nine_parts if picture.window else _strip
    x, y = find(picture, sheet, edges, lying)
    laid = cv2.remap(
        sheet.pixels,
        np.asarray(x - 0.5, np.float32),
        np.clip(y - 0.5, 0, rows - 1).astype(np.float32),
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_WRAP,
    )
    alpha = laid[:, :, 3:]
    colours = laid[:, :, :3] * (255 / np.maximum(alpha, 1e-3))
    return np.concatenate([colours, alpha], axis=2).astype(np.float32)


def find_window(picture: Picture8) -> PhotoBox | None:
    """The window of a frame's picture, in photo space: what is transparent or plain about its
    middle. None when there is no such place, or it reaches the picture's edge."""
    shrink = min(1.0, SEARCHED_SIDE / max(picture.shape[:2]))
    sides = [max(1, round(side * shrink)) for side in (picture.shape[1], picture.shape[0])]
    small = cv2.resize(picture, sides, interpolation=cv2.INTER_AREA)
    rows, columns = small.shape[:2]
    middle = columns // 2, rows // 2
    if small.shape[2] == 4 and small[middle[1], middle[0], 3] < 128:
        looked_in, apart = np.where(small[:, :, 3] < 128, 0, 255).astype(np.uint8), 0
    else:
        looked_in, apart = np.ascontiguousarray(small[:, :, :3]), PLAIN
    found = np.zeros((rows + 2, columns + 2), np.uint8)
    flags = 4 | cv2.FLOODFILL_MASK_ONLY | cv2.FLOODFILL_FIXED_RANGE | (255 << 8)
    cv2.floodFill(looked_in, found, middle, 0, (apart,) * 3, (apart,) * 3, flags)
    left, top, width, height = cv2.boundingRect(found[1:-1, 1:-1])
    reaches_edge = left == 0 or top == 0 or left + width == columns or top + height == rows
    if reaches_edge or width * height < LEAST_WINDOW * rows * columns:
        return None
    return PhotoBox(
        left=left / columns, top=top / rows, width=width / columns, height=height / rows
    )


Parts = list[tuple[tuple[int, int], tuple[int, int]]]


def _parts(first: float, last: float, source: int, laid: int) -> Parts:
    """Before, between and after two places (0..1): from and to in the picture, and as laid. What
    lies before and after has nothing of what is between."""
    from_first = math.floor(first * source + _ROUNDING)
    from_last = math.ceil(last * source - _ROUNDING)
    to_first = min(max(round(first * laid), from_first > 0), laid - 2)
    to_last = max(min(round(last * laid), laid - (from_last < source)), to_first + 1)
    return [
        ((0, from_first), (0, to_first)),
        ((from_first, from_last), (to_first, to_last)),
        ((from_last, source), (to_last, laid)),
    ]


def _resized(part: Picture8, columns: int, rows: int) -> Floats:
    """In linear light, its colours times its alpha."""
    step_x, step_y = part.shape[1] / columns, part.shape[0] / rows
    region = (0, 0, columns, rows)
    pixels = np.ascontiguousarray(part)
    laid = sample(pixels, left=0, top=0, step_x=step_x, step_y=step_y, region=region)
    sheet = np.full((rows, columns, 4), 255, np.float32)
    sheet[:, :, : laid.shape[2]] = laid
    sheet[:, :, :3] *= sheet[:, :, 3:] / 255
    return sheet


def _strip(
    picture: BandPicture, sheet: Sheet, edges: Edges, lying: Across
) -> tuple[Floats, Floats]:
    """Where on the sheet, in its pixels, each pixel is: all of it again and again."""
    repeats = repeats_along(edges, picture.ratio, corners=False)
    place = repeats.place(lying)
    rows, columns = sheet.pixels.shape[:2]
    return (place - np.floor(place)) * columns, lying.depth * rows


def _in_nine_parts(
    picture: BandPicture, sheet: Sheet, edges: Edges, lying: Across
) -> tuple[Floats, Floats]:
    """The same in the parts of a frame; round a curve, along its upper side."""
    window, slices, depth = picture.window, picture.slices, lying.depth
    assert window is not None
    rows, columns = sheet.pixels.shape[:2]
    (left, right), (top, bottom) = sheet.columns, sheet.rows
    long = np.array([window.width * picture.ratio, window.height] * 2)
    wide = np.maximum([slices.top, slices.right, slices.bottom, slices.left], 1e-6)
    if not is_rectangle(edges):
        place = repeats_along(edges, long[0] / wide[0]).place(lying)
        x = _between(left + (right - left) * (place - np.floor(place)), left, right)
        return x, _between(top * depth, 0, top)
    repeats = repeats_along(edges, long / wide)
    assert repeats.corners is not None
    before, after = (part.astype(np.float32)[lying.edge] for part in repeats.corners)
    counts = repeats.counts.astype(np.float32)[lying.edge]
    place = repeats.place(lying)
    middle = place / counts if picture.stretch else place - np.floor(place)
    # Along each side from its own beginning: -1..0 the corner, 0..1 the middle, 1..2 the corner.
    along = np.where(place < 0, place / before, middle)
    along = np.where(place >= counts, 1 + (place - counts) / after, along)
    onwards = np.where(lying.edge < 2, along, 1 - along)
    across = _piecewise(onwards, left, right, columns)
    down = _piecewise(onwards, top, bottom, rows)
    from_left = _between(left * depth, 0, left)
    from_right = _between(columns - (columns - right) * depth, right, columns)
    from_top = _between(top * depth, 0, top)
    from_bottom = _between(rows - (rows - bottom) * depth, bottom, rows)
    x = np.choose(lying.edge, [across, from_right, across, from_left])
    y = np.choose(lying.edge, [from_top, down, from_bottom, down])
    return x.astype(np.float32), y.astype(np.float32)


def _piecewise(along: NDArray[Any], first: int, last: int, end: int) -> Floats:
    """-1..0 goes from 0 to ``first``, 0..1 on to ``last``, 1..2 on to ``end``."""
    before = _between((along + 1) * first, 0, first)
    middle = _between(first + along * (last - first), first, last)
    after = _between(last + (along - 1) * (end - last), last, end)
    return np.where(along < 0, before, np.where(along < 1, middle, after)).astype(np.float32)


def _between(place: NDArray[Any], first: int, last: int) -> Floats:
    """Not nearer than half a pixel to the next part, so that none of that is mixed in."""
    half = min(0.5, (last - first) / 2)
    return np.asarray(np.clip(place, first + half, last - half), np.float32)
