"""A small network that guesses which part of a box is its subject. Its weights were trained on made
pictures only; see ``weights/README.md``."""

import threading
from functools import cache
from pathlib import Path
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float32]

WEIGHTS = Path(__file__).with_name("weights") / "subject.onnx"

SIDE = 320
"""The network's picture is a square of this side; the crop is stretched onto it."""

_one_at_a_time = threading.Lock()


def guessed(photo: Floats, within: NDArray[np.bool_]) -> Floats:
    """How surely each pixel is subject, 0..1, shape (rows, columns): the mean of what the network
    says of the picture and of its mirror image.

    ``photo`` has shape (rows, columns, 3) with encoded sRGB 0..1; ``within`` is the box in it.
    """
    rows, columns = photo.shape[:2]
    shrinks = max(rows, columns) > SIDE
    how = cv2.INTER_AREA if shrinks else cv2.INTER_LINEAR
    colours = cv2.resize(photo, (SIDE, SIDE), interpolation=how)
    box = cv2.resize(within.astype(np.float32), (SIDE, SIDE), interpolation=cv2.INTER_NEAREST)
    unused = np.zeros((3, SIDE, SIDE), np.float32)  # strokes and an earlier mask
    seen = np.concatenate([colours.transpose(2, 0, 1), box[None], unused])[None]
    mirrored = np.ascontiguousarray(seen[..., ::-1])
    with _one_at_a_time:
        guess = (_said(seen) + _said(mirrored)[:, ::-1]) / 2
    return np.asarray(cv2.resize(guess, (columns, rows)), np.float32)


def _said(seen: Floats) -> Floats:
    network = _network()
    network.setInput(seen)
    return np.asarray(network.forward()[0, 0].copy(), np.float32)


@cache
def _network() -> Any:
    return cv2.dnn.readNetFromONNX(str(WEIGHTS))
