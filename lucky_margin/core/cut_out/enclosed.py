"""What sharp edges enclose. A subject is mostly sharper than what is behind it, so its outline is
found even where colours don't tell."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.distances import geodesic_distance
from lucky_margin.core.cut_out.places import shrunk

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]

SIDE = 512
"""Longest side at which edges are followed, in pixels."""

PATCH, COMPACTNESS, PATCH_ROUNDS = 13, 12.0, 4
"""Of the patches of like colour over which distances are averaged (R. Achanta et al., "SLIC
superpixels", 2012): side in pixels, weight of nearness, rounds."""

FINE, COARSE, COARSER = 0.8, 2.4, 5.0
"""Standard deviations at which edges are looked for, in pixels."""

FLAT_GROUND = 0.004
"""What a pixel's way costs where there is no edge, in CIELAB a pixel."""


def enclosed(photo: Floats, within: Mask) -> Floats:
    """How surely each pixel lies behind a sharp edge, seen from outside the box, 0..1.

    ``photo`` has shape (rows, columns, 3) with encoded sRGB 0..1; ``within`` is the box.
    """
    rows, columns = photo.shape[:2]
    shrink = min(1.0, SIDE / max(rows, columns))
    small = shrunk(photo, shrink)
    box = cv2.resize(
        within.astype(np.uint8), small.shape[1::-1], interpolation=cv2.INTER_NEAREST
    ).astype(np.bool_)
    if not box.any():
        return np.zeros((rows, columns), np.float32)
    lab = np.asarray(cv2.cvtColor(small, cv2.COLOR_RGB2LAB), np.float32)
    outside = ~box
    if not outside.any():  # then what lies along the edges
        outside[[0, -1]] = outside[:, [0, -1]] = True
    distance = geodesic_distance(_edge_strength(lab) + np.float32(FLAT_GROUND), outside)
    distance = _over_patches(lab, distance)
    typical = float(np.percentile(distance[box], 85))
    surely = np.tanh(distance / (0.35 * typical + 1e-6)) * box
    return np.asarray(cv2.resize(surely, (columns, rows)), np.float32)


def _edge_strength(lab: Floats) -> Floats:
    """Edges that are as strong when the picture is blurred, as those of a blurred background are,
    count little."""
    fine, coarse, coarser = (gradient(lab, sigma) for sigma in (FINE, COARSE, COARSER))
    noise = 1.5 * float(np.percentile(fine, 15)) + 0.05
    against = np.maximum(fine - noise, 0) / (np.maximum(coarse, coarser) + 0.25)
    sharp = np.clip((against - 0.75) / 0.75, 0, 1)
    strongest = np.maximum(np.maximum(fine - 2 * noise, coarse - 0.25), coarser - 0.2)
    return np.asarray(sharp * np.clip(strongest, 0, 4), np.float32)


def gradient(lab: Floats, sigma: float) -> Floats:
    """Change of a picture in CIELAB for a pixel's step, after smoothing."""
    smooth = cv2.GaussianBlur(lab, (0, 0), sigma)
    parts = [cv2.Sobel(smooth, cv2.CV_32F, *way, ksize=3) / 8 for way in ((1, 0), (0, 1))]
    return np.asarray(np.sqrt(sum((part**2).sum(axis=2) for part in parts)), np.float32)


def _over_patches(lab: Floats, values: Floats) -> Floats:
    """The mean over each patch of like colour."""
    rounded = np.clip(lab + np.array([0, 128, 128], np.float32), 0, 255).astype(np.uint8)
    if min(rounded.shape[:2]) < 2 * PATCH:
        return values
    patches = cv2.ximgproc.createSuperpixelSLIC(rounded, cv2.ximgproc.SLIC, PATCH, COMPACTNESS)
    patches.iterate(PATCH_ROUNDS)
    labels = patches.getLabels()
    count = np.maximum(np.bincount(labels.ravel()), 1)
    mean = np.bincount(labels.ravel(), weights=values.ravel()) / count
    return np.asarray(mean[labels], np.float32)
