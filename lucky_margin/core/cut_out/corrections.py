"""What strokes add to the evidence for the subject."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.colours import Bins, colour_bins, density, likelihood
from lucky_margin.core.cut_out.deciding import decided, links_of
from lucky_margin.core.cut_out.distances import geodesic_distance
from lucky_margin.core.cut_out.enclosed import gradient
from lucky_margin.core.cut_out.evidence import (
    CERTAIN,
    OUTSIDE,
    STEPS,
    Evidence,
    clearness,
    log_odds,
)
from lucky_margin.core.cut_out.network import guessed_again
from lucky_margin.core.cut_out.places import touched
from lucky_margin.core.document import Box, Stroke

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]

CLOSE = 0.5
"""How near a stroke must be to say what is hair; and one that keeps, so that what lies outside the
boxes is looked at too."""

STROKE_EVIDENCE = 8.0
"""What a stroke says right beside it."""

STROKE_COLOURS, STROKE_RADII = 16.0, 8.0
"""What a stroke says has sunk to a third after so much change of colour on the way (CIELAB), or so
many of its radii: a larger brush reaches further."""

DETAIL_RADII = 0.5
"""Detail finer than so many of a stroke's radii is no change on the way, so that it reaches through
leaves or strands: a standard deviation."""

ROLLED, EDGE_COLOURS = 3, 3.0
"""How often larger edges are sharpened again, and the differences (CIELAB) that make one."""

FAR = 0.05
"""Nothing that is connected with a stroke changes where less of its evidence than this arrives."""

CLEAR = (0.09, 0.13)
"""Shares of what is looked at whose colours don't tell the sides apart, up to which a stroke says
fully what becomes of separate parts, and from which nothing."""

SHADES = 1.4
"""How far around the colours under a stroke others count as like them: a standard deviation, in
bins of colours."""

AS_COMMON = 0.5
"""Colours that occur there half as often as those under the stroke do on average are as like them
as these are."""

ALIKE, MOST_LARGER = 0.4, 2.0
"""Separate parts go the way of a stroke if their colours are so much like (0..1) those of what is
connected with it, and their area is at most so many times as large."""


def corrected(evidence: Evidence, stroke: Stroke, place: Box) -> Evidence:
    """The evidence after one more stroke, of a brush that keeps or leaves out.

    What a stroke changes goes its way and is connected with it: a stroke that keeps takes nothing
    away. One that leaves out does so with separate parts of the same colour too, as seen through
    the other holes of a basket.
    """
    rows, columns = evidence.shape[:2]
    lab, prior, share = evidence[:, :, :3], evidence[:, :, 3], evidence[:, :, 4]
    keeps = stroke.brush == "keep"
    drawn = touched(stroke, place, rows, columns) >= 0.5
    if not drawn.any():
        return evidence
    radius = max(1.0, stroke.radius * max(rows / place.height, columns / place.width))
    change = gradient(_without_detail(lab, DETAIL_RADII * radius), 0.8) / STROKE_COLOURS
    near = np.exp(-geodesic_distance(change + np.float32(1 / (STROKE_RADII * radius)), drawn))
    way = 1.0 if keeps else -1.0
    if keeps:  # a subject may reach past its box where a stroke says so
        prior = np.where((prior == -OUTSIDE) & (near > CLOSE), np.float32(0), prior)
    # What earlier strokes said for certain stays.
    prior = np.where(np.abs(prior) < OUTSIDE, prior + way * STROKE_EVIDENCE * near, prior)
    prior[drawn] = way * CERTAIN
    start = np.where(drawn, np.float32(keeps), share).astype(np.float32)
    bins = colour_bins(lab)
    learned = likelihood(bins, np.asarray(0.5 * (start > 0.5) + 0.5 * start, np.float32))
    speaks = learned + prior + _guess_again(lab, prior, start)
    # Where nothing had to be left out, or colours hardly tell, nothing is said of others.
    mends = not keeps and share[drawn].mean() > 0.5
    told = clearness(learned[prior != -OUTSIDE], CLEAR) if mends else 0.0
    if told:
        like = np.where(learned < 0, _like_those(bins, drawn), np.float32(0))
        speaks -= np.float32(told * STROKE_EVIDENCE) * like
    again = decided(speaks, links_of(lab), start, STEPS)
    goes_its_way = ((again > 0.5) != (share > 0.5)) & ((again > 0.5) == keeps)
    changed = _connected_with(drawn, goes_its_way & (near > FAR) | drawn)
    if told:
        changed |= _parts_alike(goes_its_way & ~changed, bins, changed)
    share = np.where(changed, again, share)
    # Where a stroke has told what is subject nothing is hair by itself any more.
    partly = evidence[:, :, 5:] * (near < CLOSE)[..., None]
    return np.dstack([lab, prior, share, partly]).astype(np.float32)


def _without_detail(lab: Floats, size: float) -> Floats:
    """A picture without what is finer than ``size`` pixels, and with its larger edges as sharp as
    they are: Q. Zhang et al., "Rolling guidance filter", 2014, with a guided filter."""
    lab = np.ascontiguousarray(lab)
    led, reach = cv2.GaussianBlur(lab, (0, 0), size), int(np.ceil(size))
    for _ in range(ROLLED):
        led = cv2.ximgproc.guidedFilter(led, lab, reach, EDGE_COLOURS**2)
    return np.asarray(led, np.float32)


def _guess_again(lab: Floats, prior: Floats, share: Floats) -> Floats:
    """What the network says now that it sees the strokes too, where none has decided yet."""
    guess = guessed_again(
        np.clip(np.asarray(cv2.cvtColor(np.ascontiguousarray(lab), cv2.COLOR_LAB2RGB)), 0, 1),
        prior != -OUTSIDE, prior == CERTAIN, prior == -CERTAIN, share > 0.5,
    )  # fmt: skip
    says = log_odds(np.clip(guess, 0.03, 0.97))
    return np.where(np.abs(prior) < OUTSIDE, says, np.float32(0)).astype(np.float32)


def _like_those(bins: Bins, some: Mask) -> Floats:
    """How like (0..1) each pixel's colour is to those of ``some`` pixels."""
    found = density(bins, some.astype(np.float32), SHADES)[bins]
    return np.asarray(np.minimum(1, found / (AS_COMMON * found[some].mean())), np.float32)


def _connected_with(drawn: Mask, mask: Mask) -> Mask:
    """Those parts of a mask in which something is ``drawn``."""
    _, labels = cv2.connectedComponents(mask.astype(np.uint8), connectivity=8)
    return np.isin(labels, np.unique(labels[drawn])) & mask


def _parts_alike(mask: Mask, bins: Bins, example: Mask) -> Mask:
    """Those parts of a mask with colours like an example's, and not much larger."""
    count, labels = cv2.connectedComponents(mask.astype(np.uint8), connectivity=8)
    at = labels.ravel()
    areas = np.maximum(np.bincount(at, minlength=count), 1)
    likeness = np.bincount(at, _like_those(bins, example).ravel(), count) / areas
    goes = (likeness > ALIKE) & (areas <= MOST_LARGER * example.sum())
    return np.asarray(goes[labels] & mask, np.bool_)
