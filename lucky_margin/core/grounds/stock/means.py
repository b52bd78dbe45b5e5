"""What the stock backdrops are drawn with: noise, mixing, distances, and forms with smooth edges.

Pictures are float32 arrays (rows, columns, 3), encoded sRGB 0..255; shares are (rows, columns, 1),
0..1. Lengths are pixels of the working size. Noise comes from ``RandomState``, whose numbers NumPy
has promised to keep.
"""

from collections.abc import Callable, Iterator
from typing import Any

import cv2
import numpy as np
import skia
from numpy.typing import NDArray

Floats = NDArray[np.float32]
AnyFloats = NDArray[np.floating[Any]]
Random = np.random.RandomState
Draw = Callable[[int, int, Floats, Random], Floats]
"""From rows, columns, three colours (encoded sRGB 0..255) and a source of noise to a picture."""


def noise(
    rows: int, columns: int, random: Random, down: float, across: float | None = None
) -> Floats:
    """Smooth noise of mean 0 and deviation 1, shape (rows, columns, 1); ``down`` and ``across`` say
    how smooth, in pixels."""
    across = down if across is None else across
    shrink_y, shrink_x = max(1, int(down / 3)), max(1, int(across / 3))
    small = random.standard_normal((rows // shrink_y + 8, columns // shrink_x + 8))
    soft = cv2.GaussianBlur(
        small.astype(np.float32),
        (0, 0),
        sigmaX=max(0.3, across / shrink_x),
        sigmaY=max(0.3, down / shrink_y),
        borderType=cv2.BORDER_REFLECT,
    )
    wide = cv2.resize(soft, (columns, rows), interpolation=cv2.INTER_CUBIC)
    return np.asarray((wide / soft.std())[:, :, None], np.float32)


def flat(rows: int, columns: int, colour: Floats) -> Floats:
    """One colour everywhere."""
    return np.broadcast_to(colour, (rows, columns, 3)).astype(np.float32)


def between(colours: Floats, share: AnyFloats) -> Floats:
    """From the first colour to the second by ``share`` (0..1), shape (rows, columns, 1)."""
    return np.asarray(colours[0] + (colours[1] - colours[0]) * np.clip(share, 0, 1), np.float32)


def smooth(share: AnyFloats) -> Floats:
    """A share that begins and ends gently: the cubic 3s² - 2s³."""
    share = np.clip(share, 0, 1)
    return np.asarray(share * share * (3 - 2 * share), np.float32)


def from_middle(rows: int, columns: int, y: float = 0.5, x: float = 0.5) -> Floats:
    """Distance from a place, in halves of the longer side, shape (rows, columns, 1)."""
    down, along = np.mgrid[:rows, :columns].astype(np.float32)
    half = max(rows, columns) / 2
    return np.asarray(np.hypot(down - y * rows, along - x * columns)[:, :, None] / half, np.float32)


def places(rows: int, columns: int) -> tuple[Floats, Floats]:
    """How far down and how far along each pixel lies, in pixels, each (rows, columns, 1)."""
    down, along = np.mgrid[:rows, :columns].astype(np.float32)
    return down[:, :, None], along[:, :, None]


def inked(base: AnyFloats, colour: AnyFloats, share: AnyFloats) -> Floats:
    """``colour`` over a picture by ``share``."""
    return np.asarray(base + (colour - base) * share, np.float32)


def covered(rows: int, columns: int, form: skia.Path, width: float | None = None) -> Floats:
    """What a form covers, or the line along it when a ``width`` is given."""
    mask = np.zeros((rows, columns), np.uint8)
    surface = skia.Surface.MakeRasterDirect(skia.ImageInfo.MakeA8(columns, rows), mask)
    paint = skia.Paint(AntiAlias=True)
    if width is not None:
        paint.setStyle(skia.Paint.kStroke_Style)
        paint.setStrokeWidth(width)
        paint.setStrokeCap(skia.Paint.kRound_Cap)
        paint.setStrokeJoin(skia.Paint.kRound_Join)
    surface.getCanvas().drawPath(form, paint)
    return np.asarray(mask[:, :, None] / np.float32(255), np.float32)


def softened(share: AnyFloats, radius: float) -> Floats:
    """A share with an edge as soft as a blur of this deviation makes it."""
    return np.asarray(cv2.GaussianBlur(share, (0, 0), radius)[:, :, None], np.float32)


def lattice(
    rows: int, columns: int, step: float, drop: float = 0.5
) -> Iterator[tuple[int, float, float]]:
    """Middles of a pattern that covers the picture, row by row: the row's number, x and y. Every
    other row is shifted by ``drop`` of a step."""
    for row in range(-1, int(rows / step) + 2):
        shift = drop if row % 2 else 0.0
        for column in range(-1, int(columns / step) + 2):
            yield row, (column + shift + 0.25) * step, (row + 0.5) * step


def scattered(
    rows: int, columns: int, random: Random, step: float
) -> Iterator[tuple[float, float, float]]:
    """Middles that are spread evenly and never in rows: x, y and a number of 0..1 for the rest."""
    for _, x, y in lattice(rows, columns, step):
        shift_x, shift_y, chance = random.random_sample(3)
        yield x + 0.7 * step * (shift_x - 0.5), y + 0.7 * step * (shift_y - 0.5), float(chance)


def placed(form: skia.Path, x: float, y: float, size: float, degrees: float = 0) -> skia.Path:
    """A form that is drawn about 0, 0, moved, scaled and turned."""
    matrix = skia.Matrix().setRotate(degrees)
    matrix.postScale(size, size).postTranslate(x, y)
    moved = skia.Path()
    form.transform(matrix, moved)
    return moved
