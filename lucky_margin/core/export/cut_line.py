"""The line along which a cutting plotter cuts the subject out of a print."""

from typing import cast
from xml.etree import ElementTree

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import FixedPixels
from lucky_margin.core.document.measures import MM_PER_UNIT
from lucky_margin.core.errors import BadInput
from lucky_margin.core.export.pdf import SCREEN_PPI
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.subject_lines import subject_distance
from lucky_margin.core.scene import Scene

Floats = NDArray[np.float32]

ROOM = 0.01
"""Beyond the line, in short sides, distances are measured too."""

LEAST_SIDE = 0.01
"""Of a part that is cut out, or of a hole, in short sides; nothing smaller can be cut well."""

EXACT = 0.1
"""How far the line may be off when points are left out, in pixels."""


def cut_line(scene: Scene) -> bytes:
    """An SVG drawing of a size's pixels, at its true millimetres: round the outermost line that
    follows the subject, or else round the subject itself, and along the sheet where that cuts it.

    Raises:
        BadInput: nothing is cut out, or nothing of it is in sight.
        NotFound: the photo is not known.
    """
    if scene.finish.photo is None or not scene.cut_out.on:
        raise BadInput("Nothing is cut out yet; find the subject first.")
    short = min(scene.sides)
    reach = max((line.reach for line in scene.outlines.lines if not line.inside), default=0.0)
    distance = subject_distance(scene, Grid.of(*scene.sides, 1, None), reach + ROOM)
    paths = contours(distance - np.float32(reach * short), (LEAST_SIDE * short) ** 2)
    if not paths:
        raise BadInput("Nothing of the subject is in sight; move the window over it.")
    return _drawing(paths, scene)


def contours(distance: Floats, least_area: float) -> list[Floats]:
    """Closed lines where ``distance`` (pixels, below 0 inside) is 0, shape (N, 2) with x and y from
    the sheet's corner, and along the sheet's edges; none round less than ``least_area``."""
    inside = (distance <= 0).astype(np.uint8)
    found, _ = cv2.findContours(inside, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    lines = (_refined(np.asarray(points, np.int32)[:, 0], distance) for points in found)
    return [
        np.asarray(cv2.approxPolyDP(line, EXACT, closed=True), np.float32)[:, 0]
        for line in lines
        if len(line) > 2 and cv2.contourArea(line) >= least_area
    ]


def _refined(points: NDArray[np.int32], distance: Floats) -> Floats:
    """Pixels along the line moved onto it: as far as their centre is from it, straight towards it.
    Those at the sheet's edge go there."""
    rows, columns = distance.shape
    x, y = points.T
    to_right, to_left = np.minimum(x + 1, columns - 1), np.maximum(x - 1, 0)
    below, above = np.minimum(y + 1, rows - 1), np.maximum(y - 1, 0)
    slope = np.stack([distance[y, to_right] - distance[y, to_left],
                      distance[below, x] - distance[above, x]], axis=1)  # fmt: skip
    steepness = np.maximum(np.hypot(*slope.T), 1e-6)[:, None]
    away = np.clip(distance[y, x], -1, 1)[:, None]
    line = np.asarray(points + 0.5 - away * slope / steepness, np.float32)
    for axis, side in enumerate((columns, rows)):
        line[points[:, axis] == 0, axis] = 0
        line[points[:, axis] == side - 1, axis] = side
    return line


def _drawing(paths: list[Floats], scene: Scene) -> bytes:
    width, height = scene.sides
    pixels = scene.size.pixels
    printed = pixels.printed if isinstance(pixels, FixedPixels) else None
    mm = MM_PER_UNIT["in"] / (printed.ppi if printed else SCREEN_PPI)
    root = ElementTree.Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg",
            "width": f"{width * mm:.3f}mm",
            "height": f"{height * mm:.3f}mm",
            "viewBox": f"0 0 {width} {height}",
        },
    )
    steps = (" ".join(f"{x:.2f},{y:.2f}" for x, y in path.tolist()) for path in paths)
    ElementTree.SubElement(
        root,
        "path",
        {
            "d": " ".join(f"M {points} Z" for points in steps),
            "fill": "none",
            "stroke": "#000000",
            "stroke-width": f"{0.1 / mm:.3f}",
        },
    )
    return cast(bytes, ElementTree.tostring(root, "utf-8", xml_declaration=True))
