"""Planes seen at an angle: the mapping from a rectangle onto four corners of a photo, and the
rectangle's true proportions.

Corners are in photo pixels, from the top left one on clockwise, shape (4, 2).
"""

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]
Matrix = NDArray[np.float64]

LEAST_LEANING = 1e-6
"""Below this two sides run level, and how far away the plane is cannot be told from them."""


def onto_corners(corners: Points, width: float, height: float) -> Matrix:
    """The 3 x 3 homography that takes the corners of a rectangle of these sides to ``corners``."""
    ideal = np.array([[0, 0], [width, 0], [width, height], [0, height]], np.float64)
    rows = []
    for (x, y), (u, v) in zip(ideal, corners, strict=True):
        rows.append([x, y, 1, 0, 0, 0, -u * x, -u * y])
        rows.append([0, 0, 0, x, y, 1, -v * x, -v * y])
    found = np.linalg.solve(np.array(rows), corners.ravel())
    return np.append(found, 1.0).reshape(3, 3)


def mapped(points: Points, matrix: Matrix) -> Points:
    """Points, shape (n, 2), under a homography."""
    lifted = np.column_stack([points, np.ones(len(points))]) @ matrix.T
    return np.asarray(lifted[:, :2] / lifted[:, 2:], np.float64)


def true_ratio(corners: Points, photo_width: float, photo_height: float) -> float:
    """Width over height of the rectangle in space that is seen as these corners, by a lens without
    distortion whose axis goes through the photo's middle: Z. Zhang and L. He, "Whiteboard scanning
    and image enhancement", 2007, section 3.2. Where that has no answer, by the sides as seen."""
    centre = np.array([photo_width / 2, photo_height / 2])
    # A unit about as long as the photo keeps the numbers sound.
    unit = max(photo_width, photo_height)
    lifted = np.column_stack([(corners - centre) / unit, np.ones(4)])
    one, two, four, three = lifted
    k2 = np.dot(np.cross(one, four), three) / np.dot(np.cross(two, four), three)
    k3 = np.dot(np.cross(one, four), two) / np.dot(np.cross(three, four), two)
    across, down = k2 * two - one, k3 * three - one
    if abs(across[2]) > LEAST_LEANING and abs(down[2]) > LEAST_LEANING:
        focal = -(across[0] * down[0] + across[1] * down[1]) / (across[2] * down[2])
        if focal <= 0:
            return seen_ratio(corners)
        across, down = (
            way / np.array([np.sqrt(focal), np.sqrt(focal), 1]) for way in (across, down)
        )
        return float(np.linalg.norm(across) / np.linalg.norm(down))
    if abs(across[2]) < LEAST_LEANING and abs(down[2]) < LEAST_LEANING:
        return float(np.linalg.norm(across[:2]) / np.linalg.norm(down[:2]))
    return seen_ratio(corners)


def seen_ratio(corners: Points) -> float:
    """Width over height by the mean lengths of opposite sides."""
    across, down = seen_sides(corners)
    return across / down


def seen_sides(corners: Points) -> tuple[float, float]:
    """The mean lengths of the sides across and down."""
    sides = np.linalg.norm(np.roll(corners, -1, axis=0) - corners, axis=1)
    return float(sides[[0, 2]].mean()), float(sides[[1, 3]].mean())


def is_convex(corners: Points) -> bool:
    """Whether the corners go round clockwise (y down) without crossing, and none lies on a side."""
    sides = np.roll(corners, -1, axis=0) - corners
    following = np.roll(sides, -1, axis=0)
    turns = sides[:, 0] * following[:, 1] - sides[:, 1] * following[:, 0]
    return bool((turns > LEAST_LEANING * (np.abs(sides).sum() ** 2)).all())
