"""Three small networks: two guess which part of a photo is its subject, one for things of any kind,
trained on made pictures only, and one for people; the third decides between guesses at how much of
a pixel is covered in hair, fur and grass. See ``weights/README.md``."""

import threading
from functools import cache
from pathlib import Path
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float32]
Mask = NDArray[np.bool_]

WEIGHTS = Path(__file__).with_name("weights")

THINGS_SIDE, PEOPLE_SIDE = 320, 256
"""The networks' pictures are squares of these sides; the photo is stretched onto them."""

GRAIN = 8
"""The third network's pictures have sides that are multiples of this."""

CERTAIN = 0.9
"""From here on a pixel is taken for certain; below 1 less this it certainly is not."""

_one_at_a_time = threading.Lock()


def guessed(photo: Floats, within: Mask, *, mirrored: bool = True) -> tuple[Floats, Floats]:
    """How surely each pixel is the subject of a box, and how much of what lies close by is covered
    in part, as in hair and grass: both 0..1, shape (rows, columns).

    ``photo`` has shape (rows, columns, 3) with encoded sRGB 0..1; ``within`` is the box in it.
    ``mirrored`` asks the mirror image too and gives the mean, which is steadier and takes twice as
    long.
    """
    nothing = np.zeros_like(within)
    seen = _with_masks(photo, within, nothing, nothing, nothing)
    subject, partly = _answer(_things(), seen, photo.shape[:2], mirrored)
    return subject, partly


def guessed_again(
    photo: Floats, within: Mask, keep: Mask, leave_out: Mask, earlier: Mask
) -> Floats:
    """The guess once strokes have been drawn over an ``earlier`` answer. The mirror image is not
    asked: someone waits with the brush in hand."""
    seen = _with_masks(photo, within, keep, leave_out, earlier)
    return _answer(_things(), seen, photo.shape[:2], mirrored=False)[0]


def guessed_people(photo: Floats) -> Floats:
    """How surely each pixel is part of a person near the camera, 0..1, shape (rows, columns).

    ``photo`` has shape (rows, columns, 3) with encoded sRGB 0..1.
    """
    return _answer(_people(), _square(photo, PEOPLE_SIDE), photo.shape[:2], mirrored=True)[0]


def soft_edge_shares(seen: Floats) -> Floats:
    """How far each of five answers holds for a pixel of a soft edge: its coverage as decided
    before, as a mixture of two colours, smoothed, nothing, and all. They add up to 1; shape (5,
    rows, columns).

    ``seen`` has shape (rows, columns, 14): the photo, the subject's colours and the background's
    (encoded sRGB 0..1), the first three answers, how far the pixel is to be softened, and how sure
    the mixture is.
    """
    rows, columns = seen.shape[:2]
    room = (0, -rows % GRAIN), (0, -columns % GRAIN)
    planes = np.pad(seen.transpose(2, 0, 1), ((0, 0), *room), mode="edge")
    count, high, wide = planes.shape
    # Four neighbours become channels: the network calculates at half the size.
    fours = planes.reshape(count, high // 2, 2, wide // 2, 2).transpose(0, 2, 4, 1, 3)
    with _one_at_a_time:
        says = _said(_soft_edges(), fours.reshape(4 * count, high // 2, wide // 2))
    apart = says.reshape(-1, 2, 2, high // 2, wide // 2).transpose(0, 3, 1, 4, 2)
    weights = np.exp(apart.reshape(-1, high, wide)[:, :rows, :columns])
    return np.asarray(weights / weights.sum(axis=0), np.float32)


def certainty(guess: Floats) -> tuple[float, float]:
    """The shares of a guess that are subject for certain, and unsure."""
    unsure = (guess > 1 - CERTAIN) & (guess < CERTAIN)
    return float((guess >= CERTAIN).mean()), float(unsure.mean())


def _with_masks(photo: Floats, *masks: Mask) -> Floats:
    """What the network for things is shown: box, strokes that keep, strokes that leave out, an
    earlier answer."""
    sides = (THINGS_SIDE, THINGS_SIDE)
    planes = [
        cv2.resize(mask.astype(np.float32), sides, interpolation=cv2.INTER_NEAREST)
        for mask in masks
    ]
    return np.concatenate([_square(photo, THINGS_SIDE), np.array(planes, np.float32)])


def _square(photo: Floats, side: int) -> Floats:
    shrinks = max(photo.shape[:2]) > side
    how = cv2.INTER_AREA if shrinks else cv2.INTER_LINEAR
    square = cv2.resize(photo, (side, side), interpolation=how)
    return np.ascontiguousarray(square.transpose(2, 0, 1), np.float32)


def _answer(
    network: Any, seen: Floats, sides: tuple[int, int], mirrored: bool
) -> tuple[Floats, ...]:
    """What a network says of the picture, or the mean of that and of what it says of the mirror
    image: each of its planes at ``sides`` (rows, columns)."""
    with _one_at_a_time:
        answer = _said(network, seen)
        if mirrored:
            answer = (answer + _said(network, seen[..., ::-1])[..., ::-1]) / np.float32(2)
    return tuple(np.asarray(cv2.resize(plane, sides[::-1]), np.float32) for plane in answer)


def _said(network: Any, seen: Floats) -> Floats:
    network.setInput(np.ascontiguousarray(seen[None]))
    return np.asarray(network.forward()[0].copy(), np.float32)


@cache
def _things() -> Any:
    return cv2.dnn.readNetFromONNX(str(WEIGHTS / "subject.onnx"))


@cache
def _soft_edges() -> Any:
    return cv2.dnn.readNetFromONNX(str(WEIGHTS / "soft_edges.onnx"))


@cache
def _people() -> Any:
    return cv2.dnn.readNetFromTFLite(str(WEIGHTS / "people.tflite"))
