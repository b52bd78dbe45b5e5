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

FOCUS_BOXES = {
    name: Box(left=left, top=top, width=right - left, height=bottom - top)
    for name, (left, top, right, bottom) in {
        "bird-figure.jpg": (0.20, 0.325, 0.765, 0.82),
        "scan-margins.png": (0.24, 0.285, 0.625, 0.695),
        "bowl-top.jpg": (0.37, 0.21, 0.805, 0.66),
        "kiln-night.jpg": (0.385, 0.18, 0.645, 0.75),
        "bench-tools.jpg": (0.57, 0.35, 0.71, 0.60),
        "field-noon.jpg": (0.755, 0.19, 1.0, 0.80),
        "mugs-window.jpg": (0.265, 0.42, 0.585, 0.87),
        "shelf-wide.jpg": (0.0, 0.04, 1.0, 0.85),
        "vase-grasses.jpg": (0.22, 0.20, 0.79, 0.945),
    }.items()
}
"""What each demo photo is of (photo space), drawn by hand. The last five are held out, as above."""

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

    @property
    def exact_box(self) -> Box:
        """What holds all that is seen of the subject."""
        rows, columns = self.alpha.shape
        down, across = (
            np.nonzero(self.alpha.max(axis=1) > SEEN)[0],
            np.nonzero(self.alpha.max(axis=0) > SEEN)[0],
        )
        left, top = across[0] / columns, down[0] / rows
        right, bottom = (across[-1] + 1) / columns, (down[-1] + 1) / rows
        return Box(left=left, top=top, width=right - left, height=bottom - top)

    def box(self, seed: int) -> Box:
        """A box as somebody would draw it: the true one, each side moved out a little."""
        exact = self.exact_box
        out = np.random.default_rng(seed).uniform(0, MOST_ROOM, 4)
        left = max(0.0, exact.left - out[0] * exact.width)
        right = min(1.0, exact.right + out[1] * exact.width)
        top = max(0.0, exact.top - out[2] * exact.height)
        bottom = min(1.0, exact.bottom + out[3] * exact.height)
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
