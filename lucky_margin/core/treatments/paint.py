"""Paint: strokes that follow the edges.

The way of the strokes is where the picture changes least, by the smoothed structure tensor (J.
Bigün and G. Granlund, 1987); along it, colours and the grooves of bristles are drawn out by line
integral convolution (B. Cabral and L. Leedom, "Imaging vector fields using line integral
convolution", SIGGRAPH 1993).
"""

from dataclasses import dataclass

import cv2
import numba
import numpy as np

from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import Paint
from lucky_margin.core.treatments.poster import smoothed
from lucky_margin.core.treatments.working import Floats, Pixels, Plan, Working
from lucky_margin.core.types import Picture8

STEPS = 9
"""Of a stroke, to either side of its middle."""

FINEST = 8.0
"""Half a stroke's length in pixels; wider brushes are laid over smaller pictures."""

SEED = 20


@dataclass(frozen=True, eq=False)
class Strokes(Plan):
    """Encoded colours (0..1) drawn out along strokes, shape (rows, columns, 3), and the light on
    their grooves (about -1..1)."""

    colours: Floats
    grooves: Floats


def plan_paint(paint: Paint, working: Working) -> Strokes:
    """The colours and the grooves of all strokes."""
    length = paint.brush * working.per_short
    shrink = min(1.0, FINEST / length)
    picture = working.picture
    if shrink < 1:
        smaller = cv2.resize(picture, None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA)
        picture = np.asarray(smaller, np.uint8)
    colours = smoothed(picture.astype(np.float32) / np.float32(255), 0.3 * length * shrink)
    along_x, along_y = _tangents(colours, length * shrink)
    rows, columns = along_x.shape
    bristles = np.random.RandomState(SEED).standard_normal((rows, columns)).astype(np.float32)
    drawn, height = np.empty_like(colours), np.empty((rows, columns), np.float32)
    _draw_out(
        read_only(colours),
        read_only(bristles),
        read_only(along_x),
        read_only(along_y),
        length * shrink / STEPS,
        drawn,
        height,
    )
    height *= np.float32(np.sqrt(2 * STEPS + 1) / 2)
    # Light from the upper left.
    lit = cv2.filter2D(
        height, cv2.CV_32F, np.array([[-1, -1, 0], [-1, 0, 1], [0, 1, 1]], np.float32)
    )
    return Strokes(drawn, np.clip(np.asarray(lit, np.float32) / 4, -1, 1))


def draw_paint(paint: Paint, strokes: Strokes, _: Picture8, pixels: Pixels) -> Picture8:
    """The painted picture over ``pixels``."""
    lit = 255 + np.float32(255 * 0.22 * paint.bristles / 100) * pixels.laid(strokes.grooves)
    painted = pixels.laid(strokes.colours) * lit[:, :, None]
    return np.asarray(np.rint(np.clip(painted, 0, 255)), np.uint8)


def _tangents(colours: Floats, width: float) -> tuple[Floats, Floats]:
    """The way along the edges at each pixel, of length 1."""
    grey = cv2.GaussianBlur(colours.mean(axis=2), (0, 0), 1)
    x, y = (cv2.Sobel(grey, cv2.CV_32F, *order) for order in ((1, 0), (0, 1)))
    xx, xy, yy = (cv2.GaussianBlur(part, (0, 0), width) for part in (x * x, x * y, y * y))
    # The eigenvector of the smaller eigenvalue stands across the double angle's half.
    angle = 0.5 * np.arctan2(2 * xy, xx - yy) + np.float32(np.pi / 2)
    return np.cos(angle).astype(np.float32), np.sin(angle).astype(np.float32)


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _draw_out(
    colours: Floats, bristles: Floats, along_x: Floats, along_y: Floats, step: float,
    drawn: Floats, height: Floats,
) -> None:  # fmt: skip
    rows, columns, _ = colours.shape
    for v in numba.prange(rows):
        for u in range(columns):
            red, green, blue = colours[v, u, 0], colours[v, u, 1], colours[v, u, 2]
            groove, total = bristles[v, u], 1.0
            for way in (-1.0, 1.0):
                x, y = u + 0.5, v + 0.5
                last_x, last_y = way * along_x[v, u], way * along_y[v, u]
                for number in range(STEPS):
                    x, y = x + step * last_x, y + step * last_y
                    i = min(max(int(x), 0), columns - 1)
                    j = min(max(int(y), 0), rows - 1)
                    weight = 1.0 - number / (STEPS + 1.0)
                    red += weight * colours[j, i, 0]
                    green += weight * colours[j, i, 1]
                    blue += weight * colours[j, i, 2]
                    groove += weight * bristles[j, i]
                    total += weight
                    # A tangent has no direction: go on the way one came.
                    next_x, next_y = along_x[j, i], along_y[j, i]
                    if next_x * last_x + next_y * last_y < 0:
                        next_x, next_y = -next_x, -next_y
                    last_x, last_y = next_x, next_y
            drawn[v, u, 0] = red / total
            drawn[v, u, 1] = green / total
            drawn[v, u, 2] = blue / total
            height[v, u] = groove / total


def warm_up() -> None:
    """Compile the loop, or load it from disk."""
    three, one = np.zeros((2, 2, 3), np.float32), np.zeros((2, 2), np.float32)
    flat = read_only(one)
    _draw_out(read_only(three), flat, flat, flat, 1.0, three.copy(), one.copy())
