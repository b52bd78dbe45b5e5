"""Covered zones as regions of a size."""

import numpy as np
import shapely

from lucky_margin.core.document import Box, CoveredZone

_SEGMENTS = 96
"""Sides of an ellipse."""


def covered_box(zone: CoveredZone, width: int, height: int) -> Box:
    """The upright box of a zone, in output pixels."""
    return zone.box.scaled(width, height)


def covered_region(zone: CoveredZone, width: int, height: int) -> shapely.Polygon:
    """What a zone covers, in output pixels."""
    box = covered_box(zone, width, height)
    if not zone.round:
        return shapely.box(*box.edges)
    angles = np.linspace(0, 2 * np.pi, _SEGMENTS, endpoint=False)
    x, y = box.centre
    rim = (x + box.width / 2 * np.cos(angles), y + box.height / 2 * np.sin(angles))
    return shapely.Polygon(np.stack(rim, axis=1))
