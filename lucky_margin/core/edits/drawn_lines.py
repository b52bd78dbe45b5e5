"""Lines that are drawn on the photo by hand."""

from typing import Annotated

import cv2
import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene

DrawnPoints = Annotated[tuple[tuple[float, float], ...], Field(min_length=1, max_length=20_000)]
"""Where a pointer went, in pixels of the turned photo."""

POINT_TOLERANCE = 0.5 / 2048
"""How far a line may be from where it was drawn, in long sides of the photo."""


def line_on_photo(
    scene: Scene, points: DrawnPoints, radius: float, most: int
) -> tuple[tuple[float, float], ...]:
    """The line in photo space (0..1), without the points that it can do without, and at most so
    many; ``radius`` is its own, in photo pixels.

    Raises:
        BadInput: all of it lies beside the photo.
    """
    on_photo = np.array([scene.photo.to_photo(x, y) for x, y in points])
    sides = np.array([scene.facts.width, scene.facts.height])
    beside = (on_photo < -radius).any(axis=1) | (on_photo > sides + radius).any(axis=1)
    if beside.all():
        raise BadInput("This stroke is outside the photo; draw on the photo.")
    kept = _simplified(np.clip(on_photo, 0, sides), POINT_TOLERANCE * max(sides), most)
    return tuple(map(tuple, (kept / sides).round(6).tolist()))


def radius_on_photo(scene: Scene, radius: float, least: float, most: float) -> float:
    """A radius in photo pixels as one in the photo's long sides, within these limits."""
    return float(np.clip(radius / max(scene.facts.width, scene.facts.height), least, most))


def _simplified(points: NDArray[np.float64], tolerance: float, most: int) -> NDArray[np.float64]:
    """Points (pixels) of a line that stays within ``tolerance`` (U. Ramer 1972; D. Douglas and T.
    Peucker 1973), or as near as so many points allow."""
    line = np.ascontiguousarray(points, np.float32)
    kept = cv2.approxPolyDP(line[:, None], tolerance, False)[:, 0]
    while len(kept) > most:
        tolerance *= 2
        kept = cv2.approxPolyDP(line[:, None], tolerance, False)[:, 0]
    return np.asarray(kept, np.float64)
