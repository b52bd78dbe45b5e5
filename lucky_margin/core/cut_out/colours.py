"""Which colours speak for the subject: histograms over CIELAB, smoothed so that shades between
those that were seen count too."""

import cv2
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float32]
Bins = NDArray[np.intp]

BINS = 32
"""For each of lightness 0..100 and the two colour axes -60..60; beyond those counts as the last."""

SMOOTHNESS = 1.0
"""Standard deviation of the smoothing, in bins."""

STRONGEST = 4.0
"""Colours alone never speak more strongly than this, as a logarithm of likelihoods."""

_RARE = 1e-6


def colour_bins(lab: Floats) -> Bins:
    """The bin of each pixel of a picture in CIELAB, shape (rows, columns)."""
    low = np.array([0, -60, -60], np.float32)
    high = np.array([100, 60, 60], np.float32)
    steps = np.rint((lab - low) / (high - low) * (BINS - 1))
    bins = np.clip(steps, 0, BINS - 1).astype(np.intp)
    return np.asarray((bins[:, :, 0] * BINS + bins[:, :, 1]) * BINS + bins[:, :, 2], np.intp)


def density(bins: Bins, weights: Floats, smoothness: float = SMOOTHNESS) -> Floats:
    """How often each bin occurs among pixels of these ``weights``; sums to 1. ``smoothness`` is a
    standard deviation in bins, at most 2."""
    counts = np.bincount(bins.ravel(), weights=weights.ravel(), minlength=BINS**3)
    cube = counts.reshape(BINS, BINS, BINS).astype(np.float32)
    for axis in range(3):
        turned = np.ascontiguousarray(np.moveaxis(cube, axis, 0).reshape(BINS, -1))
        smooth = cv2.GaussianBlur(
            turned, (1, 13), sigmaX=0.01, sigmaY=smoothness, borderType=cv2.BORDER_CONSTANT
        )
        smooth = smooth.reshape(BINS, BINS, BINS)
        cube = np.asarray(np.moveaxis(smooth, 0, axis), np.float32)
    flat = np.ascontiguousarray(cube).ravel()
    return np.asarray(flat / max(float(flat.sum()), 1e-9), np.float32)


def likelihood(bins: Bins, share: Floats) -> Floats:
    """How much likelier each pixel's colour is in the subject than behind it, as a logarithm, if
    ``share`` (0..1) says how far each pixel is subject."""
    subject, background = density(bins, share)[bins], density(bins, 1 - share)[bins]
    ratio = np.log((subject + _RARE) / (background + _RARE))
    return np.asarray(np.clip(ratio, -STRONGEST, STRONGEST), np.float32)


def unlike_outside(bins: Bins, within: NDArray[np.bool_]) -> Floats:
    """The share (0..1) of each pixel's colour that occurs ``within`` a box beyond what the
    background would bring there, if it is the same inside the box as outside."""
    inside = density(bins, within.astype(np.float32))[bins]
    outside = density(bins, (~within).astype(np.float32))[bins]
    return np.asarray(1 - np.minimum(1, outside / (inside + 1e-7)), np.float32)
