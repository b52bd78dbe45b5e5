"""Areas as the fused pass takes them.

An area counts at a pixel by its strength times what each of its masks counts there, so masks
intersect; an inverted mask counts what it leaves. Bands and ellipses are measured in photo
pixels. Lightness is that of the region, edge-aware (``bases``), so that texture and noise do not
break an area up; hue is the pixel's own in the untouched photo, and weak colours have little. What
the subject covers is laid under the picture beforehand, one plane for each edge that is asked for.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import UNCHANGED, Affine
from lucky_margin.core.document import (
    Area,
    AreaMask,
    BandMask,
    EllipseMask,
    LightMask,
    SubjectAreaMask,
)
from lucky_margin.core.tone.on_photo import OnPhoto

Floats = NDArray[np.float64]

BAND, ELLIPSE, LIGHT, HUE, SUBJECT = range(5)

MASK_FIELDS = 12
"""Of a row: its layer, kind and whether it is inverted, three numbers of its kind, and the six
of its ``Affine``."""

LIGHT_FADE = 0.4
"""OKLab lightness over which a range fades out at full softness, to either side."""

_LEAST_FADE = 0.01


def needs_regions(area: Area) -> bool:
    """Whether it acts, or counts, by region."""
    by_light = any(mask.kind == "light" for mask in area.masks)
    return bool(by_light or area.highlights or area.shadows)


def subject_edges(areas: Sequence[Area]) -> list[tuple[float, float]]:
    """The shifts and feathers at which areas ask for the subject, each once, in order."""
    masks = (mask for area in areas for mask in area.masks if isinstance(mask, SubjectAreaMask))
    return list(dict.fromkeys((mask.shift, mask.feather) for mask in masks))


def mask_rows(areas: Sequence[Area], on_photo: OnPhoto) -> Floats:
    """One row of numbers for each mask, shape (m, MASK_FIELDS); layers count from 1."""
    edges = subject_edges(areas)
    rows = [
        (layer, *_row(mask, on_photo, edges))
        for layer, area in enumerate(areas, start=1)
        for mask in area.masks
    ]
    return np.array(rows, np.float64).reshape(len(rows), MASK_FIELDS)


def _row(
    mask: AreaMask, on_photo: OnPhoto, edges: Sequence[tuple[float, float]]
) -> tuple[float, ...]:
    place: Affine = UNCHANGED
    if isinstance(mask, BandMask):
        place = on_photo.along(mask.start, mask.end)
        kind, numbers = BAND, (0.0, 0.0, 0.0)
    elif isinstance(mask, EllipseMask):
        place = on_photo.in_ellipse(mask)
        kind, numbers = ELLIPSE, (max(mask.softness / 100, _LEAST_FADE), 0.0, 0.0)
    elif isinstance(mask, LightMask):
        fade = LIGHT_FADE * mask.softness / 100 + _LEAST_FADE
        # A range that ends at black or white has no other side there to fade to.
        low = mask.low / 100 if mask.low > 0 else -1.0
        high = mask.high / 100 if mask.high < 100 else 2.0
        kind, numbers = LIGHT, (low, high, fade)
    elif isinstance(mask, SubjectAreaMask):
        kind, numbers = SUBJECT, (float(edges.index((mask.shift, mask.feather))), 0.0, 0.0)
    else:
        reach = np.radians(mask.reach)
        fade = max(reach * mask.softness / 100, _LEAST_FADE)
        kind, numbers = HUE, (np.radians(mask.hue), reach, fade)
    return (kind, mask.inverted, *numbers, place.a, place.b, place.x0, place.c, place.d, place.y0)
