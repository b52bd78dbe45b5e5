"""Finding the subject of a photo: how much of each pixel it covers."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.corrections import corrected
from lucky_margin.core.cut_out.edges import finished, painted, refined
from lucky_margin.core.cut_out.evidence import Evidence, first_evidence, partly_covered
from lucky_margin.core.cut_out.places import in_pixels, looked_at
from lucky_margin.core.cut_out.soft_edges import brushed, in_hair, softened
from lucky_margin.core.document import Box, CutOut, Stroke
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.types import AnyPicture

Floats = NDArray[np.float32]

VERSION = 13
"""Of what is found; raised whenever the same photo and box give another alpha. A finish names the
one that was asked (``CutOut.found_by``)."""

WORKING_SIDE = 1600
"""Longest side at which edges are found, in pixels."""

LEAST_TRANSPARENT = 0.01
"""Share of a photo's pixels that are transparent in one that is cut out already."""

DECIDING = ("keep", "leave_out")
"""Brushes that speak for what is subject; the others change coverage alone."""


def place_of(working: Floats, cut_out: CutOut) -> Box:
    """The part of the photo that is looked at for a cut-out with these boxes and strokes."""
    return looked_at(cut_out.boxes, deciding_strokes(cut_out), working.shape[1] / working.shape[0])


def deciding_strokes(cut_out: CutOut) -> tuple[Stroke, ...]:
    """The strokes that keep or leave out, in order."""
    return tuple(stroke for stroke in cut_out.strokes if stroke.brush in DECIDING)


def proposal(working: Floats, boxes: tuple[Box, ...], place: Box) -> Evidence:
    """The evidence for the subjects in ``boxes`` (photo space) before any stroke."""
    part = in_pixels(place, working.shape[0], working.shape[1])
    return first_evidence(np.ascontiguousarray(working[part]), boxes, place)


def after_stroke(evidence: Evidence, stroke: Stroke, place: Box) -> Evidence:
    """The evidence after one more deciding stroke."""
    return corrected(evidence, stroke, place)


def coverage(working: Floats, evidence: Evidence, cut_out: CutOut, place: Box) -> Floats:
    """How much of each pixel is subject, 0..1, at the working size of the whole photo."""
    rows, columns = working.shape[:2]
    found = np.zeros((rows, columns), np.float32)
    part = in_pixels(place, rows, columns)
    sides = found[part].shape[::-1]
    share = cv2.resize(evidence[:, :, 4], sides, interpolation=cv2.INTER_CUBIC)
    found[part] = refined(np.ascontiguousarray(working[part]), np.asarray(share, np.float32))
    if cut_out.edge.soft_hair:
        hair = np.zeros_like(found)
        hair[part] = in_hair(partly_covered(evidence), *found[part].shape)
        found = softened(working, found, hair)
    return mended(working, found, cut_out)


def mended(working: Floats, found: Floats, cut_out: CutOut) -> Floats:
    """The coverage ``found`` on a photo at the working size, with what the cut-out's strokes and
    edge say."""
    found = softened(working, found, brushed(cut_out.strokes, *found.shape))
    return painted(finished(found, cut_out.edge), cut_out.strokes)


def mask_coverage(mask: AnyPicture, rows: int, columns: int) -> Floats:
    """A picture taken as coverage: its brightness, as opaque as it is, stretched to these sides."""
    colours = as_8_bits(mask).astype(np.float32) / 255
    bright = cv2.cvtColor(np.ascontiguousarray(colours[:, :, :3]), cv2.COLOR_RGB2GRAY)
    if colours.shape[2] == 4:
        bright = bright * colours[:, :, 3]
    shrinks = mask.shape[0] * mask.shape[1] > rows * columns
    how = cv2.INTER_AREA if shrinks else cv2.INTER_LINEAR
    return np.asarray(cv2.resize(bright, (columns, rows), interpolation=how), np.float32)


def brings_own(photo: AnyPicture) -> bool:
    """Whether the photo is cut out already: enough of it is transparent."""
    if photo.shape[2] < 4:
        return False
    transparent = np.count_nonzero(photo[:, :, 3] == 0)
    return bool(transparent > LEAST_TRANSPARENT * photo[:, :, 3].size)


def working_picture(photo: AnyPicture) -> Floats:
    """A photo at the working size, shape (rows, columns, 3), encoded sRGB 0..1."""
    shrink = min(1.0, WORKING_SIDE / max(photo.shape[:2]))
    columns, rows = (max(1, round(side * shrink)) for side in photo.shape[1::-1])
    colours = np.ascontiguousarray(as_8_bits(photo)[:, :, :3])
    small = cv2.resize(colours, (columns, rows), interpolation=cv2.INTER_AREA)
    return np.asarray(small, np.float32) / np.float32(255)
