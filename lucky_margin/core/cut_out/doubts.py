"""Why what was found of a subject should be looked at."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.subject import FringeColours, Matte

ALIKE = 12.0
"""Two colours (CIELAB) so near each other hardly show an edge."""

MOST_ALIKE = 0.25
"""Share of the outline along which colours may be alike without a word."""

LEAST_SHARE, MOST_SHARE = 0.01, 0.9
"""Of the photo that a subject usually covers."""


MOST_STRANDS = 0.11
"""Fine detail at the edge that looks like the other side, without a word (see ``strands``)."""

MOST_DISAGREEMENT = 0.05
"""Between what was found and the network's guess, without a word (see ``second_opinion``)."""


def doubts_about(
    matte: Matte, fringe: FringeColours, strands: float, disagreement: float
) -> list[str]:
    """What makes a subject unsure, in clauses that say why; empty where nothing does. That is no
    promise that it is right. ``strands`` is how much fine detail there is at its edge, and
    ``disagreement`` how far it is from what the network says."""
    inside = matte >= 128
    share = float(inside.mean())
    if share == 0:
        return ["nothing was found"]
    found = []
    if share < LEAST_SHARE:
        found.append("very little was found")
    if share > MOST_SHARE:
        found.append("it is nearly all of the photo")
    rim = _rim(inside, fringe.shape[0], fringe.shape[1])
    if rim.any():
        own, behind = (
            cv2.cvtColor(fringe[rim][None, :, part].astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
            for part in (slice(0, 3), slice(3, 6))
        )
        apart = np.sqrt(((own - behind) ** 2).sum(axis=2))
        alike = float((apart < ALIKE).mean())
        if alike > MOST_ALIKE:
            found.append(
                f"colours hardly differ along {100 * alike:.0f}\N{NO-BREAK SPACE}% of its outline"
            )
    if disagreement > MOST_DISAGREEMENT:
        found.append("what belongs to it is unclear in places")
    if strands > MOST_STRANDS:
        found.append("its edge may have hair, grass or holes; draw over them with “soft edge”")
    return found


def _rim(inside: NDArray[np.bool_], rows: int, columns: int) -> NDArray[np.bool_]:
    """The pixels along an outline, at other sides."""
    small = cv2.resize(inside.astype(np.uint8), (columns, rows), interpolation=cv2.INTER_NEAREST)
    return np.asarray(cv2.morphologyEx(small, cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8)) > 0)
