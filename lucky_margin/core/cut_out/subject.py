"""The subject as a picture: its coverage as alpha, and its own colours where the old background
shone through.

A matte is what is found once, at the working size: an array of uint8 of shape (rows, columns, 7)
with coverage, the subject's colours and the background's, each filled in where they can't be seen.
"""

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.edges import refined_larger
from lucky_margin.core.cut_out.filling import filled
from lucky_margin.core.document import Box
from lucky_margin.core.types import AnyPicture

Floats = NDArray[np.float32]
Matte = NDArray[np.uint8]

SURE, NONE = 0.97, 0.02
"""Coverage from which colours are the subject's alone, and up to which the background's."""

LEAST_SHARE = 0.15
"""The background is taken out of a pixel's colour as if at least so much of it were subject; with
less, noise would be blown up."""


def matte_of(working: Floats, alpha: Floats) -> Matte:
    """The matte of a photo at the working size (encoded sRGB 0..1), of which ``alpha`` (0..1) is
    subject."""
    own = filled(working, (alpha >= SURE).astype(np.float32))
    behind = filled(working, (alpha <= NONE).astype(np.float32))
    parts = np.dstack([alpha, own, behind])
    return np.asarray(np.rint(255 * np.clip(parts, 0, 1)), np.uint8)


def box_of(matte: Matte) -> Box | None:
    """The box around all that is at least half covered, in photo space; None where nothing is."""
    rows, columns = np.nonzero(matte[:, :, 0] >= 128)
    if not len(rows):
        return None
    high, wide = matte.shape[:2]
    left, top = int(columns.min()), int(rows.min())
    width, height = int(columns.max()) + 1 - left, int(rows.max()) + 1 - top
    return Box(left=left / wide, top=top / high, width=width / wide, height=height / high)


def subject_picture(photo: AnyPicture, matte: Matte, *, clean_fringe: bool = True) -> AnyPicture:
    """The subject of a photo, or of a halved copy of it, on nothing: 4 channels, the photo's
    type. With ``clean_fringe`` the old background is taken out of the edge's colours."""
    rows, columns = photo.shape[:2]
    top = np.iinfo(photo.dtype).max
    share = _coverage_of(photo, matte)
    out = np.zeros((rows, columns, 4), photo.dtype)
    solid = share > 0
    out[:, :, :3][solid] = photo[:, :, :3][solid]
    soft = solid & (share < 1)
    if clean_fringe and soft.any():
        ys, xs = np.nonzero(soft)
        # What is filled in changes slowly, so the nearest pixel of it does.
        nearest = matte[ys * matte.shape[0] // rows, xs * matte.shape[1] // columns]
        nearby = nearest.astype(np.float32) / np.float32(255)
        out[ys, xs, :3] = _cleaned(
            np.asarray(photo[ys, xs, :3], np.float32) / np.float32(top),
            share[ys, xs][:, None],
            nearby[:, 1:4],
            nearby[:, 4:7],
            top,
        )
    if photo.shape[2] == 4:  # what is transparent already stays so
        share *= photo[:, :, 3].astype(np.float32) / np.float32(top)
    out[:, :, 3] = np.rint(share * top)
    return out


def _coverage_of(photo: AnyPicture, matte: Matte) -> Floats:
    """The matte's coverage at the photo's size, its edges sharpened by the photo where that has
    more pixels."""
    rows, columns = photo.shape[:2]
    shrinks = rows <= matte.shape[0]
    how = cv2.INTER_AREA if shrinks else cv2.INTER_LINEAR
    alpha = np.asarray(cv2.resize(matte[:, :, 0], (columns, rows), interpolation=how), np.float32)
    alpha /= 255
    return alpha if shrinks else refined_larger(photo, alpha, matte.shape[0])


def _cleaned(seen: Floats, share: Floats, own: Floats, behind: Floats, top: int) -> NDArray[Any]:
    """Colours without the background that shows through: what compositing says, seen ``= share *
    colour + (1 - share) * behind``, where enough of a pixel is subject; else the subject's
    nearby."""
    solved = (seen - (1 - share) * behind) / np.maximum(share, LEAST_SHARE)
    trusted = np.clip((share - 0.3) / 0.5, 0, 1)
    colours = trusted * solved + (1 - trusted) * own
    return np.asarray(np.rint(top * np.clip(colours, 0, 1)))
