"""Why what was found of a subject should be looked at."""

import cv2
import numpy as np

from lucky_margin.core.cut_out.subject import Matte

ALIKE = 12.0
"""Two colours (CIELAB) so near each other hardly show an edge."""

MOST_ALIKE = 0.25
"""Share of the outline along which colours may be alike without a word."""

LEAST_SHARE, MOST_SHARE = 0.01, 0.9
"""Of the photo that a subject usually covers."""


def doubts_about(matte: Matte) -> list[str]:
    """What makes a subject unsure, in clauses that say why; empty where nothing does. That is no
    promise that it is right."""
    inside = matte[:, :, 0] >= 128
    share = float(inside.mean())
    if share == 0:
        return ["nothing was found"]
    found = []
    if share < LEAST_SHARE:
        found.append("very little was found")
    if share > MOST_SHARE:
        found.append("it is nearly all of the photo")
    outline = cv2.morphologyEx(
        inside.astype(np.uint8), cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8)
    )
    rim = outline > 0
    if rim.any():
        own, behind = (
            cv2.cvtColor(matte[rim][None, :, part].astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
            for part in (slice(1, 4), slice(4, 7))
        )
        apart = np.sqrt(((own - behind) ** 2).sum(axis=2))
        alike = float((apart < ALIKE).mean())
        if alike > MOST_ALIKE:
            found.append(f"colours hardly differ along {alike:.0%} of its outline")
    return found
