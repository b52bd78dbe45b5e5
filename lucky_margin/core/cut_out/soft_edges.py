"""Hair, fur and grass: soft edges where strokes or the network say so, each pixel as a mixture of
the colours on both sides."""

from collections.abc import Sequence

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.guided_filter import guided
from lucky_margin.core.cut_out.network import soft_edge_shares
from lucky_margin.core.cut_out.places import WHOLE_PHOTO, shrunk, touched_part
from lucky_margin.core.document import Stroke
from lucky_margin.core.filling import filled

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]
Part = tuple[slice, slice]

DECIDED, MIXED, SMOOTHED, WHERE, SURE = range(9, 14)
"""Planes of what the network sees, after the photo's colours and those of both sides."""

SOFT_SIDE = 700
"""Longest side at which soft edges are decided, in pixels: a strand is then one or two wide."""

LED_RADIUS = 2
"""Within which the photo's own pixels lead a soft edge that is enlarged."""

SEEDS, GROWN = 0.5, 0.3
"""Shares of what lies close by that are covered in part: hair is where they are larger than the
first, with all that is connected with it and larger than the second. Along sharp edges they are
about a third."""

RAMP = 0.08
"""How much more than that it takes to count fully."""

SOFT_RADIUS = 8
"""Of the filter where the edge is soft, in pixels."""

SEEN_AROUND = 64
"""How much of the photo around a soft edge says what the colours on both sides are, in pixels."""

STEP = 8
"""What is looked at begins at a multiple of so many pixels: the network's own grid then stays where
it is when a stroke adds to it."""

UNSURE_COLOURS = 0.1
"""Two colours so far apart (encoded sRGB 0..1) are half sure to say how they are mixed."""

UNLIKE_BOTH = 0.12
"""A colour so far from every mixture of the two is a third as sure."""

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


def softened(photo: Floats, alpha: Floats, where: Floats) -> Floats:
    """``alpha`` with soft edges as far as ``where`` says (0..1): each pixel there as decided
    before, as a mixture of the colours that lie on both sides (T. Porter and T. Duff, "Compositing
    digital images", 1984), smoothed, or one side alone, as far as a network trusts each."""
    if not where.any():
        return alpha
    share = min(1.0, SOFT_SIDE / max(alpha.shape))
    if share == 1:
        found = _decided(photo, alpha, where)
    else:
        small = (shrunk(plane, share) for plane in (photo, alpha, where))
        found = _enlarged(_decided(*small), photo, where)
    return np.asarray(where * found + (1 - where) * alpha, np.float32)


def _decided(photo: Floats, alpha: Floats, where: Floats) -> Floats:
    """What the network decides wherever something is to be softened; elsewhere ``alpha``."""
    part, seen = seen_around(photo, alpha, where)
    shares = soft_edge_shares(seen)
    answers = np.moveaxis(seen[:, :, [DECIDED, MIXED, SMOOTHED]], 2, 0)
    found = shares[-1] + (shares[:3] * answers).sum(axis=0)
    out = alpha.copy()
    # Where all three say the same there is no doubt; a few per cent of it would be a veil.
    out[part] = np.clip(found, answers.min(axis=0), answers.max(axis=0))
    return out


def _enlarged(found: Floats, photo: Floats, where: Floats) -> Floats:
    """Coverage at the photo's sides, where it is softened led by the photo's own pixels."""
    large = np.asarray(
        cv2.resize(found, where.shape[::-1], interpolation=cv2.INTER_CUBIC), np.float32
    )
    left, top, width, height = cv2.boundingRect((where > 0).astype(np.uint8))
    part = np.s_[top : top + height, left : left + width]
    large[part] = guided(photo[part], large[part], LED_RADIUS)
    return np.asarray(np.clip(large, 0, 1), np.float32)


def seen_around(photo: Floats, alpha: Floats, where: Floats) -> tuple[Part, Floats]:
    """The part of the photo around what is to be softened, and what the network sees of it, shape
    (rows, columns, 14): see ``soft_edge_shares``."""
    left, top, width, height = cv2.boundingRect((where > 0).astype(np.uint8))
    above, before = (max(0, start - SEEN_AROUND) // STEP * STEP for start in (top, left))
    part = np.s_[above : top + height + SEEN_AROUND, before : left + width + SEEN_AROUND]
    seen, known, share = (np.ascontiguousarray(plane[part]) for plane in (photo, alpha, where))
    subject, behind = _colours_of_both(seen, known, share > 0)
    apart, length, mixed = mixture(seen, subject, behind)
    mixed = np.clip(mixed, 0, 1)
    off = seen - behind - mixed[:, :, None] * apart
    sure = length / (length + UNSURE_COLOURS**2) * np.exp(-_inner(off, off) / UNLIKE_BOTH**2)
    smooth = guided(seen, known, SOFT_RADIUS)
    planes = [seen, subject, behind, known, mixed, smooth, share, sure]
    return part, np.dstack(planes).astype(np.float32)


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
    count, labels = cv2.connectedComponents((partly > GROWN).astype(np.uint8), connectivity=8)
    is_hair = np.zeros(count, np.bool_)
    is_hair[labels[partly > SEEDS]] = True
    share = np.where(is_hair[labels], np.clip((partly - GROWN) / RAMP, 0, 1), np.float32(0))
    large = cv2.resize(share, (columns, rows), interpolation=cv2.INTER_LINEAR)
    return np.asarray(large, np.float32)


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
