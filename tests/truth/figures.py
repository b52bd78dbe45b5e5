"""How wrong a cut-out is."""

from dataclasses import dataclass

import numpy as np

from lucky_margin.core.document import Box
from tests.truth.photos import Alpha, TruePhoto

SOFT = (0.02, 0.98)
"""Coverage between these is a soft edge."""


@dataclass(frozen=True)
class Errors:
    """Mean absolute errors of coverage: over the photo, within the box, in the truth's own
    soft edge."""

    photo: float
    box: float
    soft: float


def errors(alpha: Alpha, truth: TruePhoto, box: Box) -> Errors:
    """How wrong ``alpha``, of the truth's shape, is."""
    if alpha.shape != truth.alpha.shape:
        raise ValueError(f"the alpha has shape {alpha.shape}, the truth {truth.alpha.shape}")
    off = np.abs(alpha - truth.alpha)
    rows, columns = off.shape
    inside = off[
        round(box.top * rows) : round(box.bottom * rows),
        round(box.left * columns) : round(box.right * columns),
    ]
    soft = (truth.alpha > SOFT[0]) & (truth.alpha < SOFT[1])
    return Errors(float(off.mean()), float(inside.mean()), float(off[soft].mean()))
