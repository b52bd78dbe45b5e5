"""Posters: few flat colours, found among the photo's own.

The colours are the means of k-means clusters in OKLab (S. Lloyd, "Least squares quantization in
PCM", 1982), begun at evenly spread lightnesses, so that the same photo always gives the same ones.
Small things are left out by an edge-preserving smoothing first (E. Gastal and M. Oliveira, "Domain
transform for edge-aware image and video processing", 2011).
"""

import math
from dataclasses import dataclass

import cv2
import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core import oklab
from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import Poster
from lucky_margin.core.sampling.srgb import encode
from lucky_margin.core.treatments.working import Floats, Pixels, Plan, Working
from lucky_margin.core.types import Picture8

SAMPLES = 2500
"""Pixels by which the colours are found."""

ROUNDS = 8

EDGE = 0.012
"""How unlike, in OKLab, two colours are to a pixel that is half of each."""

COLOUR_EDGE = 0.12
"""A difference of encoded colours that smoothing takes to be an edge."""


@dataclass(frozen=True, eq=False)
class Flat(Plan):
    """The smoothed photo, shape (rows, columns, 3) in OKLab, and its colours, shape (n, 3): in
    OKLab, and encoded 0..255."""

    lab: Floats
    centres: Floats
    colours: Floats


def plan_poster(poster: Poster, working: Working) -> Flat:
    """The photo smoothed, and its colours."""
    lab = oklab.picture_from_light(working.light)
    lab = smoothed(lab, poster.smooth * working.per_short)
    step = max(1, round(math.sqrt(working.share.size / SAMPLES)))
    samples, counts = lab[::step, ::step], working.share[::step, ::step] > 0.5
    counted = samples[counts] if counts.any() else samples.reshape(-1, 3)
    centres = _clusters(counted.astype(np.float64), poster.colours)
    light = np.clip(oklab.to_light(centres), 0, 1)
    return Flat(lab, centres.astype(np.float32), (255 * encode(light)).astype(np.float32))


def draw_poster(_: Poster, flat: Flat, __: Picture8, pixels: Pixels) -> Picture8:
    """Each pixel in the colour it is nearest to."""
    lab = pixels.laid(flat.lab)
    out = np.empty(lab.shape, np.uint8)
    _nearest_colours(read_only(lab), read_only(flat.centres), read_only(flat.colours), out)
    return out


def smoothed(picture: Floats, radius: float) -> Floats:
    """``picture`` (rows, columns, perhaps channels; values about 0..1) with what is smaller than
    ``radius`` (pixels) evened out, edges kept."""
    if radius < 0.5:
        return picture
    guide = np.ascontiguousarray(picture, np.float32)
    filtered = cv2.ximgproc.dtFilter(
        guide, guide, sigmaSpatial=2 * radius, sigmaColor=COLOUR_EDGE, mode=cv2.ximgproc.DTF_NC
    )
    return np.asarray(filtered, np.float32)


def _clusters(samples: NDArray[np.float64], count: int) -> NDArray[np.float64]:
    """``count`` colours, shape (count, 3), dark to light."""
    by_light = samples[np.argsort(samples[:, 0], kind="stable")]
    begins = ((np.arange(count) + 0.5) / count * len(by_light)).astype(int)
    centres: NDArray[np.float64] = by_light[np.minimum(begins, len(by_light) - 1)].copy()
    for _ in range(ROUNDS):
        away = ((samples[:, None] - centres[None]) ** 2).sum(axis=2)
        nearest = away.argmin(axis=1)
        for number in range(count):
            members = samples[nearest == number]
            if len(members):
                centres[number] = members.mean(axis=0)
    return centres


@numba.njit(parallel=True, cache=True, nogil=True, error_model="numpy", fastmath=True)
def _nearest_colours(lab: Floats, centres: Floats, colours: Floats, out: Picture8) -> None:
    """Halfway between two colours a pixel is both, so that edges are smooth."""
    height, width, _ = lab.shape
    for v in numba.prange(height):
        for u in range(width):
            best, second, near, far = 1e9, 1e9, 0, 0
            for number in range(len(centres)):
                away = 0.0
                for channel in range(3):
                    away += (lab[v, u, channel] - centres[number, channel]) ** 2
                if away < best:
                    best, second, near, far = away, best, number, near
                elif away < second:
                    second, far = away, number
            apart = 0.0
            for channel in range(3):
                apart += (centres[near, channel] - centres[far, channel]) ** 2
            edge = (second - best) / (2 * max(np.sqrt(apart), 1e-6))
            share = max(0.0, 0.5 - edge / EDGE)
            for channel in range(3):
                value = colours[near, channel] + share * (
                    colours[far, channel] - colours[near, channel]
                )
                out[v, u, channel] = int(value + 0.5)


def warm_up() -> None:
    """Compile the loop, or load it from disk."""
    lab, out = np.zeros((1, 1, 3), np.float32), np.zeros((1, 1, 3), np.uint8)
    centres = np.zeros((1, 3), np.float32)
    _nearest_colours(read_only(lab), read_only(centres), read_only(centres), out)
