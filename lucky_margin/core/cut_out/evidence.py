"""What speaks for the subject at each place of a box.

The evidence is one array of float32, shape (rows, columns, 6): the small picture in CIELAB, what is
known before colours are compared (a logarithm of likelihoods), how far each pixel is subject by the
last decision, 0..1, and how much of what lies close by is covered in part, 0..1. So one array says
all that the next stroke starts from. Up to the fifth version it had no last plane.
"""

from collections.abc import Sequence

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.colours import colour_bins, likelihood, unlike_outside
from lucky_margin.core.cut_out.deciding import decided, links_of
from lucky_margin.core.cut_out.enclosed import enclosed
from lucky_margin.core.cut_out.network import certainty, guessed, guessed_people
from lucky_margin.core.cut_out.places import inside, shrunk
from lucky_margin.core.document import Box

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]
Evidence = Floats

SIDE = 400
"""Longest side at which is decided, in pixels."""

NETWORK_WEIGHT, EDGES_WEIGHT, COLOURS_WEIGHT = 3.2, 0.5, 1.0
"""Of the network's guess, of what edges enclose, and of colours unlike those outside the box."""

UNRELATED, RELATED = 0.25, 0.45
"""Correlations with the network's guess at which colours unlike those outside the box count not at
all, and fully. On pale things before pale grounds colours say nothing."""

LEAST_TRUST = 0.5
"""What colours count at least once the subject's are known."""

TELLS = 1.0
"""A colour so many times (as a logarithm) likelier on one side tells the sides apart."""

CLEAR = (0.075, 0.095)
"""Shares of the box whose colours don't tell the sides apart, up to which colours count twice, and
from which once."""

LATER, LATER_SURE = 0.4, 0.3
"""What the first guesses still weigh once the subject's colours are known; less the more colours
can be trusted."""

PEOPLE_WEIGHT = 1.0
"""Of what the network for people says where it is sure that there are some: it is seldom wrong
then, and colours must not take a black collar from a black ground."""

SOME, MANY = 0.15, 0.35
"""Shares of the box that must be people for certain, for that network to count at all and fully."""

HAZY, BLIND = 0.2, 0.4
"""Shares of the box of which that network is unsure, at which it counts fully, and not at all."""

STANDS_OUT = 0.4
"""How far the box must be more people than what lies around it."""

UNCLEAR = (0.15, 0.85)
"""Between these a colour occurs on both sides of the box."""

DECISIVE, AMBIGUOUS = 0.2, 0.35
"""Shares of the box in which a colour may occur on both sides, at which colours count fully, and
not at all."""

ROUNDS, STEPS = 4, 120
"""How often colours are learned anew, and the steps of each decision."""

CERTAIN, OUTSIDE = 40.0, 20.0
"""Evidence that nothing outweighs: of a stroke, and against what lies outside the boxes."""


def first_evidence(crop: Floats, boxes: Sequence[Box], place: Box) -> Evidence:
    """The evidence of the photo's part at ``place`` (photo space) before any stroke.

    ``crop`` has shape (rows, columns, 3) with encoded sRGB 0..1.
    """
    within_crop = inside(boxes, place, *crop.shape[:2])
    shrink = min(1.0, SIDE / max(crop.shape[:2]))
    small = shrunk(crop, shrink)
    rows, columns = small.shape[:2]
    within = inside(boxes, place, rows, columns)
    lab = np.asarray(cv2.cvtColor(small, cv2.COLOR_RGB2LAB), np.float32)
    edges = _small(enclosed(crop, within_crop), rows, columns)
    guess, partly = (_small(plane, rows, columns) for plane in guessed(crop, within_crop))
    bins = colour_bins(lab)
    unlike = np.clip(unlike_outside(bins, within), 0.05, 0.95).astype(np.float32)
    unlike = np.asarray(cv2.GaussianBlur(unlike, (0, 0), 1.0), np.float32)
    trust = _trust(unlike[within], guess[within])
    later_weight = LATER_SURE * trust + LATER * (1 - trust)
    prior = NETWORK_WEIGHT * log_odds(np.clip(guess, 0.03, 0.97))
    prior += EDGES_WEIGHT * log_odds(np.clip(edges, 0.02, 0.98))
    prior += COLOURS_WEIGHT * trust * log_odds(unlike)
    people = _people(_small(guessed_people(crop), rows, columns), within)
    prior[~within] = -OUTSIDE
    share = np.asarray(1 / (1 + np.exp(-prior - people)), np.float32)
    links = links_of(lab)
    colours_count, clear = max(LEAST_TRUST, trust), 0.0
    for round_ in range(ROUNDS):
        weight = 1.0 if round_ == 0 else later_weight
        learned = likelihood(bins, share)
        # Later rounds confirm what colours have decided before.
        clear = clearness(learned[within], CLEAR) if round_ == 0 else clear
        learned *= colours_count * (1 + clear)
        share = decided(_with_prior(learned, weight * prior + people, within), links, share, STEPS)
    later = np.where(within, later_weight * prior + people, -OUTSIDE)
    return np.dstack([lab, later, share, partly]).astype(np.float32)


def partly_covered(evidence: Evidence) -> Floats:
    """How much of what lies close by is covered in part, 0..1, shape (rows, columns); nothing where
    the evidence doesn't say."""
    if evidence.shape[2] < 6:
        return np.zeros(evidence.shape[:2], np.float32)
    return np.ascontiguousarray(evidence[:, :, 5])


def _with_prior(colours: Floats, prior: Floats, within: Mask) -> Floats:
    return np.asarray(np.where(within, colours + prior, -OUTSIDE), np.float32)


def _people(guess: Floats, within: Mask) -> Floats:
    """What the network for people adds to the evidence, 0 everywhere if there seem to be none."""
    inside_box, around = guess[within], guess[~within]
    if not inside_box.size or (around.size and inside_box.mean() - around.mean() < STANDS_OUT):
        return np.zeros_like(guess)
    certain, unsure = certainty(inside_box)
    trust = np.clip((certain - SOME) / (MANY - SOME), 0, 1)
    trust *= np.clip((BLIND - unsure) / (BLIND - HAZY), 0, 1)
    return np.asarray(PEOPLE_WEIGHT * trust * log_odds(np.clip(guess, 0.02, 0.98)), np.float32)


def _trust(unlike: Floats, guess: Floats) -> float:
    """How far (0..1) colours unlike those outside the box speak for the subject: as far as they
    agree with the network's guess and are one thing or the other."""
    if unlike.size < 2 or unlike.std() < 1e-4 or guess.std() < 1e-4:
        return 0.0
    related = float(np.corrcoef(unlike, guess)[0, 1])
    low, high = UNCLEAR
    unclear = float(((unlike > low) & (unlike < high)).mean())
    return float(
        np.clip((related - UNRELATED) / (RELATED - UNRELATED), 0, 1)
        * np.clip((AMBIGUOUS - unclear) / (AMBIGUOUS - DECISIVE), 0, 1)
    )


def clearness(learned: Floats, unclear: tuple[float, float]) -> float:
    """How far (0..1) colours tell the sides apart that are so much likelier on one of them
    (logarithms): fully up to the first share of ``unclear`` ones, not at all from the second."""
    share = float((np.abs(learned) < TELLS).mean()) if learned.size else 1.0
    clear, mixed = unclear
    return float(np.clip((mixed - share) / (mixed - clear), 0, 1))


def log_odds(share: Floats) -> Floats:
    """The logarithm of how much likelier something is than not; ``share`` lies within 0..1."""
    return np.asarray(np.log(share / (1 - share)), np.float32)


def _small(values: Floats, rows: int, columns: int) -> Floats:
    return np.asarray(cv2.resize(values, (columns, rows), interpolation=cv2.INTER_AREA), np.float32)
