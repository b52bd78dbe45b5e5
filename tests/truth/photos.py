"""The photos with truth, the boxes that are drawn round their subjects, and composites of them."""

from dataclasses import dataclass
from functools import cache
from pathlib import Path

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from lucky_margin.core.document import Box
from lucky_margin.core.types import Picture8

FOLDER = Path(__file__).with_name("scenes")

TUNING = ("hair-figure", "lattice-basket", "pale-jug", "leafy-plant")
HELD_OUT = ("fur-animal", "stems-shelf", "dark-jug", "three-mugs")

MOST_ROOM = 0.10
"""How far a box lies outside the subject at most, of the subject's sides."""

SEEN = 8 / 255
"""Coverage from which a pixel is part of the subject's true box."""

Alpha = NDArray[np.float32]


@dataclass(frozen=True, eq=False)
class TruePhoto:
    """``photo`` has shape (rows, columns, 3), ``alpha`` (rows, columns) with 0..1."""

    name: str
    photo: Picture8
    alpha: Alpha

    def box(self, seed: int) -> Box:
        """A box as somebody would draw it: the true one, each side moved out a little."""
        rows, columns = self.alpha.shape
        down, across = (
            np.nonzero(self.alpha.max(axis=1) > SEEN)[0],
            np.nonzero(self.alpha.max(axis=0) > SEEN)[0],
        )
        top, bottom = down[0] / rows, (down[-1] + 1) / rows
        left, right = across[0] / columns, (across[-1] + 1) / columns
        out = np.random.default_rng(seed).uniform(0, MOST_ROOM, 4)
        wide, high = right - left, bottom - top
        left, right = max(0.0, left - out[0] * wide), min(1.0, right + out[1] * wide)
        top, bottom = max(0.0, top - out[2] * high), min(1.0, bottom + out[3] * high)
        return Box(left=left, top=top, width=right - left, height=bottom - top)


@cache
def true_photo(name: str) -> TruePhoto:
    """One of the rendered photos."""
    photo = np.asarray(Image.open(FOLDER / f"{name}.jpg").convert("RGB"))
    alpha = np.asarray(Image.open(FOLDER / f"{name}.alpha.png").convert("L"))
    return TruePhoto(name, photo, alpha.astype(np.float32) / 255)


def composite(subject: TruePhoto, ground: Picture8) -> TruePhoto:
    """A cheap photo with truth: the subject, cut out by its alpha, over another picture. Its
    colours keep what shone through from behind, so only its solid parts are quite true."""
    rows, columns = subject.alpha.shape
    behind = cv2.resize(ground[:, :, :3], (columns, rows), interpolation=cv2.INTER_AREA)
    share = subject.alpha[:, :, None]
    mixed = np.rint(share * subject.photo + (1 - share) * behind).astype(np.uint8)
    return TruePhoto(f"{subject.name} elsewhere", mixed, subject.alpha)
