"""Hair, fur and grass: soft edges where strokes or the network say so, each pixel as a mixture of
the colours on both sides."""

from collections.abc import Sequence

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.edges import guided
from lucky_margin.core.cut_out.places import WHOLE_PHOTO, shrunk, touched_part
from lucky_margin.core.document import Stroke
from lucky_margin.core.filling import filled

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]

SHARP, HAIRY = 0.45, 0.6
"""Shares of what lies close by that are covered in part, up to which an edge is sharp, and from
which it is hair."""

SOFT_RADIUS = 8
"""Of the filter where the edge is soft, in pixels."""

SEEN_AROUND = 64
"""How much of the photo around a soft edge says what the colours on both sides are, in pixels."""

UNSURE_COLOURS = 0.1
"""Two colours so far apart (encoded sRGB 0..1) say half of how they are mixed in a soft edge."""

UNLIKE_BOTH = 0.12
"""A colour so far from every mixture of the two says a third as much."""

COLOUR_ROUNDS, COLOUR_SHRINK = 12, 0.25
"""How often the colours on both sides of a soft edge are learned from pixels within it, and the
share of the photo's sides at which that is done."""

NEARLY_ONE = 0.5
"""Mixtures with less than so much of the other side teach what a side's colours are there, the more
the less they have of it."""

BEHIND_ALIKE = 0.05
"""A colour so far from the background's (encoded sRGB 0..1) teaches a third as much about that. The
subject's may be of any kind, since hair has its lights and darks."""

STRANDS, STRANDS_SEEN = 2.0, 0.12
"""Scale of the detail that strands have, in pixels, and how much of the way from one side to the
other it has to reach so that pixels teach; at twice that they do fully. In a blur every pixel is a
mixture, and none may teach."""

DISTINCT = 0.1
"""Two colours so far apart teach half as much as those that nobody could confuse."""

GRAIN_RADIUS = 2
"""Of the filter that takes the photo's grain out of mixtures, in pixels."""


def softened(photo: Floats, alpha: Floats, where: Floats) -> Floats:
    """``alpha`` with soft edges as far as ``where`` says (0..1): each pixel there as a mixture of
    the colours that lie on both sides (T. Porter and T. Duff, "Compositing digital images",
    1984)."""
    left, top, width, height = cv2.boundingRect((where > 0).astype(np.uint8))
    if not width:
        return alpha
    above, before = max(0, top - SEEN_AROUND), max(0, left - SEEN_AROUND)
    part = np.s_[above : top + height + SEEN_AROUND, before : left + width + SEEN_AROUND]
    seen, unknown = np.ascontiguousarray(photo[part]), where[part] > 0
    subject, behind = _colours_of_both(seen, alpha[part], unknown)
    apart, length, mixed = mixture(seen, subject, behind)
    mixed = np.clip(mixed, 0, 1)
    off = seen - behind - mixed[:, :, None] * apart
    sure = length / (length + UNSURE_COLOURS**2) * np.exp(-_inner(off, off) / UNLIKE_BOTH**2)
    # A photo's grain is not a mixture of anything.
    mixed = guided(seen, mixed.astype(np.float32), GRAIN_RADIUS)
    smooth = guided(seen, alpha[part], SOFT_RADIUS)
    found = sure * mixed + (1 - sure) * smooth
    out = alpha.copy()
    share = where[part]
    out[part] = share * found + (1 - share) * alpha[part]
    return out


def _colours_of_both(seen: Floats, alpha: Floats, unknown: Mask) -> tuple[Floats, Floats]:
    """The subject's colours and the background's wherever they are ``unknown``, filled in from
    where they can be seen alone. Deep in hair or grass that is far away, so each round also learns
    from pixels there that are nearly all one or the other."""
    own_alone, behind_alone = (alpha > 0.95) & ~unknown, (alpha < 0.05) & ~unknown
    small, detail, in_doubt, own, back = (
        shrunk(np.asarray(plane, np.float32), COLOUR_SHRINK)
        for plane in (seen, detail_of(seen), unknown, own_alone, behind_alone)
    )
    teach_subject = known_subject = np.asarray(own > 0.9, np.float32)
    teach_behind = known_behind = np.asarray(back > 0.9, np.float32)
    for _ in range(COLOUR_ROUNDS):
        subject, behind = filled(small, teach_subject), filled(small, teach_behind)
        _, length, mixed = mixture(small, subject, behind)
        told = length / (length + DISTINCT**2)
        told *= np.clip(detail / (STRANDS_SEEN * np.sqrt(length) + 1e-6) - 1, 0, 1)
        of_subject = told * np.clip(1 - (1 - mixed) / NEARLY_ONE, 0, 1)
        of_behind = told * np.clip(1 - mixed / NEARLY_ONE, 0, 1)
        of_behind *= np.exp(-_inner(small - behind, small - behind) / BEHIND_ALIKE**2)
        teach_subject = np.where(in_doubt > 0.5, of_subject, known_subject)
        teach_behind = np.where(in_doubt > 0.5, of_behind, known_behind)
    subject, behind = (
        np.asarray(cv2.resize(colours, seen.shape[1::-1]), np.float32)
        for colours in (subject, behind)
    )
    return subject, behind


def brushed(strokes: Sequence[Stroke], rows: int, columns: int) -> Floats:
    """How far (0..1) the strokes for soft edges cover each pixel."""
    where = np.zeros((rows, columns), np.float32)
    for stroke in strokes:
        if stroke.brush == "soft_edge":
            reached, cover = touched_part(stroke, WHOLE_PHOTO, rows, columns)
            where[reached] = np.maximum(where[reached], cover)
    return where


def in_hair(partly: Floats, rows: int, columns: int) -> Floats:
    """How far (0..1) each pixel of a photo of these sides lies in hair, fur or grass; ``partly`` is
    how much of what lies close by is covered in part, at a smaller size."""
    large = cv2.resize(partly, (columns, rows), interpolation=cv2.INTER_LINEAR)
    return np.asarray(np.clip((large - SHARP) / (HAIRY - SHARP), 0, 1), np.float32)


def detail_of(seen: Floats) -> Floats:
    """How far colours near each pixel are from a smooth course, as a standard deviation."""
    off = seen - cv2.GaussianBlur(seen, (0, 0), STRANDS)
    return np.sqrt(cv2.GaussianBlur(_inner(off, off), (0, 0), STRANDS))


def mixture(seen: Floats, subject: Floats, behind: Floats) -> tuple[Floats, Floats, Floats]:
    """How two colours differ, the square of that, and how much of the first is in what is seen."""
    apart = subject - behind
    length = _inner(apart, apart)
    share = _inner(seen - behind, apart) / np.maximum(length, 1e-6)
    return np.asarray(apart, np.float32), length, np.asarray(share, np.float32)


def _inner(one: Floats, other: Floats) -> Floats:
    """The inner product of two colours, for each pixel."""
    return np.asarray(np.einsum("ijk,ijk->ij", one, other), np.float32)
