"""Deciding for each pixel of a small picture whether it is subject: the split that agrees best with
what speaks for and against it, and whose border is short and runs along edges.

The least total variation (A. Chambolle and T. Pock, "A first-order primal-dual algorithm for convex
problems with applications to imaging", 2011) gives the same split as a minimal cut of the graph of
neighbours (T. Chan, S. Esedoglu, M. Nikolova, 2006).
"""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only

Floats = NDArray[np.float32]

BORDER = 6.0
"""What a pixel's length of border costs where the picture is even, against one unit of evidence."""

PRIMAL_STEP, DUAL_STEP = 0.5, 0.12
"""Their product times 16, the squared norm of the differences to eight neighbours, is below 1."""

DIAGONAL = float(2**-0.5)

Links = Floats
"""What parting two neighbours costs, shape (4, rows, columns): with the pixel to the right, below,
below right and below left."""


def links_of(lab: Floats) -> Links:
    """The links of a picture in CIELAB, shape (rows, columns, 3): weak across edges (C. Rother et
    al., "GrabCut", 2004, eq. 11)."""
    steps = (
        lab[:, 1:] - lab[:, :-1],
        lab[1:] - lab[:-1],
        lab[1:, 1:] - lab[:-1, :-1],
        lab[1:, :-1] - lab[:-1, 1:],
    )
    squared = [np.einsum("ijk,ijk->ij", step, step) for step in steps]
    all_squared = np.concatenate([part.ravel() for part in squared])
    beta = 1 / (2 * float(all_squared.sum()) / max(len(all_squared), 1) + 1e-6)
    right, below, below_right, below_left = (BORDER * np.exp(-beta * part) for part in squared)
    links = np.zeros((4, *lab.shape[:2]), np.float32)
    links[0, :, :-1] = right
    links[1, :-1] = below
    links[2, :-1, :-1] = DIAGONAL * below_right
    links[3, :-1, 1:] = DIAGONAL * below_left
    return links


def decided(evidence: Floats, links: Links, start: Floats, rounds: int) -> Floats:
    """How far each pixel is subject, 0..1 and nearly always one or the other, after ``rounds`` from
    ``start``.

    ``evidence`` is the logarithm of how much likelier subject is than background.
    """
    share = np.ascontiguousarray(start, np.float32).copy()
    ahead, flow = share.copy(), np.zeros_like(links)
    _settle(read_only(links), read_only(np.ascontiguousarray(-evidence, np.float32)),
            share, ahead, flow, rounds)  # fmt: skip
    return share


@numba.njit(nogil=True, cache=True, fastmath=True)
def _settle(  # noqa: C901 - written out, which is three times as fast as a loop over links
    links: Links, cost: Floats, share: Floats, ahead: Floats, flow: Links, rounds: int
) -> None:
    """Ascent of ``flow`` on the links and descent of ``share``, in turn; ``ahead`` is where the
    share is going."""
    rows, columns = share.shape
    for _ in range(rounds):
        for y in range(rows):
            for x in range(columns):
                value = ahead[y, x]
                if x + 1 < columns:
                    limit = links[0, y, x]
                    pushed = flow[0, y, x] + DUAL_STEP * (ahead[y, x + 1] - value)
                    flow[0, y, x] = min(max(pushed, -limit), limit)
                if y + 1 < rows:
                    limit = links[1, y, x]
                    pushed = flow[1, y, x] + DUAL_STEP * (ahead[y + 1, x] - value)
                    flow[1, y, x] = min(max(pushed, -limit), limit)
                    if x + 1 < columns:
                        limit = links[2, y, x]
                        pushed = flow[2, y, x] + DUAL_STEP * (ahead[y + 1, x + 1] - value)
                        flow[2, y, x] = min(max(pushed, -limit), limit)
                    if x > 0:
                        limit = links[3, y, x]
                        pushed = flow[3, y, x] + DUAL_STEP * (ahead[y + 1, x - 1] - value)
                        flow[3, y, x] = min(max(pushed, -limit), limit)
        for y in range(rows):
            for x in range(columns):
                gained = flow[0, y, x] + flow[1, y, x] + flow[2, y, x] + flow[3, y, x]
                if x > 0:
                    gained -= flow[0, y, x - 1]
                if y > 0:
                    gained -= flow[1, y - 1, x]
                    if x > 0:
                        gained -= flow[2, y - 1, x - 1]
                    if x + 1 < columns:
                        gained -= flow[3, y - 1, x + 1]
                before = share[y, x]
                after = min(max(before + PRIMAL_STEP * (gained - cost[y, x]), 0.0), 1.0)
                ahead[y, x] = 2 * after - before
                share[y, x] = after
