"""Whether there is hair, grass or the like at a subject's edge that was not cut out as such."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.places import shrunk
from lucky_margin.core.cut_out.soft_edges import detail_of, mixture
from lucky_margin.core.filling import filled
from lucky_margin.core.types import Mask

Floats = NDArray[np.float32]

SIDE = 800
"""Longest side at which is looked, in pixels."""

FILLING_SHRINK = 0.25
"""The share of that at which colours are filled in."""

NEAR, FAR = 0.004, 0.02
"""What is looked at lies so far from the outline, to both sides, in the photo's long sides; past it
each side's colours are known."""

MOSTLY_OTHER = 0.6
"""The share of a mixture that has to be the other side's."""

DETAIL, DISTINCT = 0.15, 0.1
"""How much of the way from one side to the other its detail reaches, and how far apart the two
sides are at least (encoded sRGB 0..1)."""


def strands_at_edge(working: Floats, matte: Mask) -> float:
    """The shares of what lies near the outline, within it and without, where fine detail looks like
    the other side, added up; 0 to 2. ``working`` is the photo at the matte's size, encoded sRGB
    0..1."""
    share = min(1.0, SIDE / max(matte.shape))
    photo = shrunk(working, share)
    inside = shrunk((matte >= 128).astype(np.float32), share) > 0.5
    long_side = max(inside.shape)
    within, without = _distance(inside), _distance(~inside)
    subject, behind = _colours(photo, within), _colours(photo, without)
    _, squared, mixed = mixture(photo, subject, behind)
    apart = np.sqrt(squared)
    fine = (detail_of(photo) > DETAIL * apart) & (apart > DISTINCT)
    return sum(
        float((fine & other)[ring].mean()) if ring.any() else 0.0
        for ring, other in (
            (_ring(within, long_side), mixed < 1 - MOSTLY_OTHER),
            (_ring(without, long_side), mixed > MOSTLY_OTHER),
        )
    )


def _distance(side: NDArray[np.bool_]) -> Floats:
    """How far inside a side each pixel is."""
    distance = cv2.distanceTransform(side.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5)
    return np.asarray(distance, np.float32)


def _colours(photo: Floats, distance: Floats) -> Floats:
    """The colours of a side, known far from the outline or, in what is nowhere so thick, as far as
    it gets, and filled in everywhere else."""
    small = shrunk(photo, FILLING_SHRINK)
    far = cv2.resize(distance, small.shape[1::-1]) / max(distance.shape)
    known = np.asarray((far > FAR) + 1e-4 * (far > NEAR), np.float32)
    return np.asarray(cv2.resize(filled(small, known), photo.shape[1::-1]), np.float32)


def _ring(distance: Floats, long_side: int) -> NDArray[np.bool_]:
    return (distance > NEAR * long_side) & (distance < FAR * long_side)
