"""The stock patterns, drawn by code: a motif that repeats along a band, and one for its corners.

A motif is drawn in a box one thickness high, with the band's outer edge above; corners in a square
with the picture's own corner at its upper left, the same from either side.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import cv2
import numpy as np
import skia

from lucky_margin.core.document import StockPattern
from lucky_margin.core.types import Mask

Place = tuple[float, float]

FINER = 4


@dataclass(frozen=True)
class Motif:
    """``width`` is how wide the repeating motif is, in thicknesses."""

    width: float
    draw: Callable[[], skia.Path]
    corner: Callable[[], skia.Path]


def motif_mask(key: StockPattern, columns: int, rows: int) -> Mask:
    """Where the repeating motif has ink, over ``columns`` x ``rows`` pixels; it joins its like."""
    motif = MOTIFS[key]
    path = motif.draw()
    turns = [skia.Path(path) for _ in range(3)]
    for turn, shifted in enumerate(turns):
        shifted.offset((turn - 1) * motif.width, 0)
    return _drawn(turns, columns, rows, motif.width)


def corner_mask(key: StockPattern, columns: int, rows: int) -> Mask:
    """Where the corner has ink."""
    return _drawn([MOTIFS[key].corner()], columns, rows, 1)


def _drawn(paths: list[skia.Path], columns: int, rows: int, width: float) -> Mask:
    """Paths in a box of ``width`` x 1, drawn finer first, since the rasteriser's own coverage of
    small curves is uneven."""
    mask = np.zeros((FINER * rows, FINER * columns), np.uint8)
    info = skia.ImageInfo.MakeA8(FINER * columns, FINER * rows)
    canvas = skia.Surface.MakeRasterDirect(info, mask).getCanvas()
    canvas.scale(FINER * columns / width, FINER * rows)
    for path in paths:
        canvas.drawPath(path, skia.Paint(AntiAlias=True))
    shrunk = cv2.resize(mask, (columns, rows), interpolation=cv2.INTER_AREA)
    return shrunk.astype(np.uint8, copy=False)


def _united(*paths: skia.Path) -> skia.Path:
    whole = skia.Path()
    for path in paths:
        whole.addPath(path)
    return whole


def _polygon(*points: Place) -> skia.Path:
    path = skia.Path()
    path.addPoly([skia.Point(x, y) for x, y in points], True)
    return path


def _box(left: float, top: float, right: float, bottom: float) -> skia.Path:
    return skia.Path().addRect(skia.Rect.MakeLTRB(left, top, right, bottom))


def _disc(x: float, y: float, radius: float) -> skia.Path:
    return skia.Path().addCircle(x, y, radius)


def _stroked(
    path: skia.Path, width: float, cap: skia.Paint.Cap = skia.Paint.kButt_Cap
) -> skia.Path:
    paint = skia.Paint(
        Style=skia.Paint.kStroke_Style,
        StrokeWidth=width,
        StrokeCap=cap,
        StrokeJoin=skia.Paint.kMiter_Join,
    )
    drawn = skia.Path()
    # Finer than the unit square, so that curves become many chords.
    paint.getFillPath(path, drawn, None, 512)
    return drawn


def _line(points: Sequence[Place], width: float) -> skia.Path:
    path = skia.Path()
    path.addPoly([skia.Point(x, y) for x, y in points], False)
    return _stroked(path, width)


def _ring(x: float, y: float, radius: float, width: float) -> skia.Path:
    return _stroked(_disc(x, y, radius), width)


def _star(x: float, y: float, outer: float, inner: float, points: int) -> skia.Path:
    corners = []
    for number in range(2 * points):
        radius = inner if number % 2 else outer
        angle = math.pi * number / points - math.pi / 2
        corners.append((x + radius * math.cos(angle), y + radius * math.sin(angle)))
    return _polygon(*corners)


def _heart(x: float, y: float, size: float) -> skia.Path:
    path = skia.Path()
    path.moveTo(x, y + 0.42 * size)
    path.cubicTo(x - 0.9 * size, y - 0.1 * size, x - 0.4 * size, y - 0.65 * size, x, y - 0.2 * size)
    path.cubicTo(
        x + 0.4 * size, y - 0.65 * size, x + 0.9 * size, y - 0.1 * size, x, y + 0.42 * size
    )
    return path


def _leaf(x: float, y: float, length: float, angle: float) -> skia.Path:
    """From ``x``, ``y`` on towards ``angle``, degrees clockwise from the right."""
    path = skia.Path()
    path.moveTo(0, 0)
    path.quadTo(0.45 * length, -0.42 * length, length, 0)
    path.quadTo(0.45 * length, 0.42 * length, 0, 0)
    matrix = skia.Matrix()
    matrix.setRotate(angle)
    matrix.postTranslate(x, y)
    path.transform(matrix)
    return path


def _wave(middle: float, height: float, width: float, thick: float) -> skia.Path:
    steps = [width * step / 32 for step in range(33)]
    places = [(x, middle + height * math.sin(2 * math.pi * x / width)) for x in steps]
    return _line([(x, y) for x, y in places], thick)


def _fan(x: float, foot: float, radius: float) -> skia.Path:
    rings = [_ring(x, foot, share * radius, 0.09 * radius) for share in (0.95, 0.65, 0.35)]
    upper = skia.Op(_united(*rings), _box(x - 1, foot - 1, x + 1, foot), skia.kIntersect_PathOp)
    return _united(upper, _disc(x, foot, 0.12 * radius))


def _diamond(x: float, y: float, half_width: float, half_height: float) -> skia.Path:
    return _polygon(
        (x, y - half_height), (x + half_width, y), (x, y + half_height), (x - half_width, y)
    )


def _in_diamond(x: float, y: float, half_width: float, half_height: float) -> skia.Path:
    """A diamond in the outline of another."""
    outline = _stroked(_diamond(x, y, half_width, half_height), 0.07)
    return _united(outline, _diamond(x, y, 0.47 * half_width, 0.47 * half_height))


def _cross(x: float, y: float, arm: float, thick: float) -> skia.Path:
    half = thick / 2
    return _polygon(
        (x - half, y - arm), (x + half, y - arm), (x + half, y - half), (x + arm, y - half),
        (x + arm, y + half), (x + half, y + half), (x + half, y + arm), (x - half, y + arm),
        (x - half, y + half), (x - arm, y + half), (x - arm, y - half), (x - half, y - half),
    )  # fmt: skip


def _rails() -> list[skia.Path]:
    """A fine line near either edge of the band."""
    return [_box(-1, 0.05, 3, 0.1), _box(-1, 0.9, 3, 0.95)]


def _rail_corner() -> list[skia.Path]:
    """The same two lines turning a corner."""
    outer = _line([(0.075, 1), (0.075, 0.075), (1, 0.075)], 0.05)
    inner = _line([(0.925, 1), (0.925, 0.925), (1, 0.925)], 0.05)
    return [outer, inner]


def _key() -> skia.Path:
    turns = [(0, 0.86), (0.86, 0.86), (0.86, 0.14), (0.2, 0.14), (0.2, 0.62), (0.6, 0.62),
             (0.6, 0.38)]  # fmt: skip
    return _united(_line(turns, 0.11), _line([(0.805, 0.86), (1.06, 0.86)], 0.11))


def _key_corner() -> skia.Path:
    frame = _line([(0.86, 1), (0.86, 0.86), (1, 0.86)], 0.11)
    return _united(frame, _stroked(_box(0.2, 0.2, 0.64, 0.64), 0.11))


def _vine() -> skia.Path:
    leaves = [_leaf(0.18, 0.5, 0.42, -48), _leaf(0.66, 0.5, 0.42, 48)]
    return _united(_line([(-0.1, 0.5), (1.1, 0.5)], 0.05), *leaves)


def _vine_corner() -> skia.Path:
    stem = _line([(0.5, 1), (0.5, 0.5), (1, 0.5)], 0.05)
    return _united(stem, *[_leaf(0.5, 0.5, 0.4, angle) for angle in (180, 225, 270)])


def _bricks() -> skia.Path:
    gap = 0.035
    rows = [(0.0, 0.0), (1 / 3, 0.5), (2 / 3, 0.0)]
    return _united(
        *[
            _box(start + gap + turn, top + gap, start + 1 - gap + turn, top + 1 / 3 - gap)
            for top, start in rows
            for turn in ((0,) if start == 0 else (-1, 0))
        ]
    )


MOTIFS: dict[StockPattern, Motif] = {
    "beads": Motif(0.8, lambda: _disc(0.4, 0.5, 0.3), lambda: _disc(0.5, 0.5, 0.36)),
    "bricks": Motif(1.0, _bricks, lambda: _box(0.06, 0.06, 0.94, 0.94)),
    "chain": Motif(
        0.9,
        lambda: _united(
            _stroked(skia.Path().addOval(skia.Rect.MakeLTRB(0.17, 0.27, 0.73, 0.73)), 0.11),
            _box(0.75, 0.45, 1.15, 0.55),
        ),
        lambda: _united(
            _ring(0.5, 0.5, 0.28, 0.13), _box(0.8, 0.45, 1, 0.55), _box(0.45, 0.8, 0.55, 1)
        ),
    ),
    "checks": Motif(
        1.0,
        lambda: _united(_box(0, 0, 0.5, 0.5), _box(0.5, 0.5, 1, 1)),
        lambda: _united(_box(0, 0, 0.5, 0.5), _box(0.5, 0.5, 1, 1)),
    ),
    "crosses": Motif(
        0.8, lambda: _cross(0.4, 0.5, 0.26, 0.15), lambda: _cross(0.5, 0.5, 0.34, 0.2)
    ),
    "diamonds": Motif(
        0.8,
        lambda: _in_diamond(0.4, 0.5, 0.3, 0.36),
        lambda: _in_diamond(0.5, 0.5, 0.36, 0.36),
    ),
    "fans": Motif(
        1.0,
        lambda: _fan(0.5, 0.92, 0.5),
        lambda: _united(
            *[_ring(0.92, 0.92, share * 0.75, 0.06) for share in (0.95, 0.65, 0.35)],
            _disc(0.92, 0.92, 0.06),
        ),
    ),
    "hearts": Motif(0.95, lambda: _heart(0.475, 0.5, 0.62), lambda: _disc(0.5, 0.5, 0.16)),
    "key": Motif(1.0, _key, _key_corner),
    "leaves": Motif(1.0, _vine, _vine_corner),
    "ripples": Motif(
        1.0,
        lambda: _united(*[_wave(middle, 0.09, 1.0, 0.07) for middle in (0.22, 0.5, 0.78)]),
        lambda: _united(
            *[_line([(place, 1), (place, place), (1, place)], 0.07) for place in (0.22, 0.5, 0.78)]
        ),
    ),
    "scallops": Motif(
        0.7,
        lambda: _united(_disc(0.35, 0.55, 0.35), _box(-0.1, 0, 0.8, 0.56)),
        lambda: _united(_box(0, 0, 1, 0.56), _box(0, 0.56, 0.56, 1), _disc(0.56, 0.56, 0.35)),
    ),
    "slant": Motif(
        0.5,
        lambda: _polygon((0, 1), (0.25, 1), (0.75, 0), (0.5, 0)),
        lambda: _box(0, 0, 1, 1),
    ),
    "stars": Motif(
        0.95, lambda: _star(0.475, 0.5, 0.4, 0.17, 5), lambda: _star(0.5, 0.5, 0.45, 0.16, 4)
    ),
    "stitches": Motif(
        0.9,
        lambda: _united(_box(0.2, 0.44, 0.7, 0.56)),
        lambda: _line([(0.5, 0.85), (0.5, 0.5), (0.85, 0.5)], 0.12),
    ),
    "stripes": Motif(0.4, lambda: _box(0.1, 0, 0.3, 1), lambda: _box(0, 0, 1, 1)),
    "tiles": Motif(
        1.0,
        lambda: _united(
            *_rails(), _stroked(_diamond(0.5, 0.5, 0.36, 0.3), 0.07), _diamond(0.5, 0.5, 0.14, 0.12)
        ),
        lambda: _united(*_rail_corner(), _diamond(0.5, 0.5, 0.26, 0.26)),
    ),
    "zigzag": Motif(
        0.8,
        lambda: _united(
            *[
                _line([(-0.4, y), (0, y + 0.3), (0.4, y), (0.8, y + 0.3), (1.2, y)], 0.11)
                for y in (0.2, 0.5)
            ]
        ),
        lambda: _united(
            _line([(0.5, 1), (0.5, 0.5), (1, 0.5)], 0.1),
            _line([(0.8, 1), (0.8, 0.8), (1, 0.8)], 0.1),
        ),
    ),
}
"""By the key that the document names; what a key draws never changes."""
