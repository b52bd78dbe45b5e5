"""Own pictures along a band: strips that are repeated, and pictures of frames in nine parts."""

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

PLAIN = 10
"""How far colours of a plain window are apart at most, in 8-bit steps."""


def sheet_sides(picture: BandPicture, thickness: float) -> tuple[int, int]:
    """Width and height of the picture as it is laid along a band that is so many pixels thick."""
    height = thickness / picture.slices.thickest if picture.window else thickness
    height = min(height, LARGEST_SHEET, LARGEST_SHEET / picture.ratio)
    return max(2, round(height * picture.ratio)), max(2, round(height))


def sheet_of(picture: Picture8, sides: tuple[int, int]) -> Floats:
    """A picture at ``sides`` (width, height), shape (rows, columns, 4), 0..255, colours times
    alpha."""
    rows, columns = picture.shape[:2]
    step_x, step_y = columns / sides[0], rows / sides[1]
    laid = sample(picture, left=0, top=0, step_x=step_x, step_y=step_y, region=(0, 0, *sides))
    sheet = np.full((*laid.shape[:2], 4), 255, np.float32)
    sheet[:, :, : laid.shape[2]] = laid
    sheet[:, :, :3] *= sheet[:, :, 3:] / 255
    return sheet


def picture_paint(picture: BandPicture, sheet: Floats, edges: Edges, lying: Across) -> Floats:
    """The colours of a band, shape (rows, columns, 4), 0..255, alpha apart."""
    find = _in_nine_parts if picture.window else _strip
    x, y = find(picture, edges, lying)
    rows, columns = sheet.shape[:2]
    laid = cv2.remap(
        sheet,
        np.asarray(x * columns - 0.5, np.float32),
        np.clip(y * rows - 0.5, 0, rows - 1).astype(np.float32),
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


def _strip(picture: BandPicture, edges: Edges, lying: Across) -> tuple[Floats, Floats]:
    repeats = repeats_along(edges, picture.ratio, corners=False)
    place = repeats.place(lying)
    return place - np.floor(place), lying.depth


def _in_nine_parts(picture: BandPicture, edges: Edges, lying: Across) -> tuple[Floats, Floats]:
    """Where in the picture (0..1) each pixel is; round a curve, along its upper side."""
    window, slices = picture.window, picture.slices
    assert window is not None
    long = np.array([window.width * picture.ratio, window.height] * 2)
    wide = np.array([slices.top, slices.right, slices.bottom, slices.left])
    if not is_rectangle(edges):
        repeats = repeats_along(edges, long[0] / slices.top)
        place = repeats.place(lying)
        return window.left + window.width * (place - np.floor(place)), window.top * lying.depth
    repeats = repeats_along(edges, long / np.maximum(wide, 1e-6))
    counts = repeats.counts.astype(np.float32)[lying.edge]
    place = repeats.place(lying)
    if picture.stretch:
        place = np.where((place > 0) & (place < counts), place / counts, place)
        counts = np.where(place > 1, counts, 1)
    assert repeats.corners is not None
    before, after = (part.astype(np.float32)[lying.edge] for part in repeats.corners)
    # Along each side from its own beginning: -1..0 the corner, 0..1 the middle, 1..2 the corner.
    along = np.where(place < 0, place / before, place - np.floor(place))
    along = np.where(place >= counts, 1 + (place - counts) / after, along)
    return _on_sides(window, along.astype(np.float32), lying)


def _on_sides(window: PhotoBox, along: Floats, lying: Across) -> tuple[Floats, Floats]:
    """The places in the picture of what lies ``along`` the top, right, bottom and left side."""
    onwards = np.where(lying.edge < 2, along, 1 - along)
    across = _piecewise(onwards, window.left, window.right)
    down = _piecewise(onwards, window.top, window.bottom)
    depth = lying.depth
    x = np.choose(lying.edge, [across, 1 - (1 - window.right) * depth, across, window.left * depth])
    y = np.choose(lying.edge, [window.top * depth, down, 1 - (1 - window.bottom) * depth, down])
    return x.astype(np.float32), y.astype(np.float32)


def _piecewise(along: Floats, first: float, last: float) -> Floats:
    """-1..0 goes from 0 to ``first``, 0..1 on to ``last``, 1..2 on to 1."""
    low = np.clip(along + 1, 0, 1) * first
    middle = np.clip(along, 0, 1) * (last - first)
    return np.asarray(low + middle + np.clip(along - 1, 0, 1) * (1 - last), np.float32)
