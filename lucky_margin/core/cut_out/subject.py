"""The subject as a picture: its coverage as alpha, and its own colours where the old background
shone through.

A matte is what is found once, at the working size: coverage as uint8, shape (rows, columns).
"""

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.cut_out.edges import refined_larger
from lucky_margin.core.cut_out.filling import filled
from lucky_margin.core.document import Box
from lucky_margin.core.types import AnyPicture, Mask

Floats = NDArray[np.float32]
Matte = Mask
FringeColours = NDArray[np.uint8]

FRINGE_SIDE = 800
"""Longest side at which colours are filled in, in pixels; they change slowly."""

SURE, NONE = 0.97, 0.02
"""Coverage from which colours are the subject's alone, and up to which the background's."""

LEAST_SHARE = 0.15
"""The background is taken out of a pixel's colour as if at least so much of it were subject; with
less, noise would be blown up."""


def matte_of(alpha: Floats) -> Matte:
    """Coverage (0..1) as a matte."""
    return np.asarray(np.rint(255 * np.clip(alpha, 0, 1)), np.uint8)


def fringe_colours(working: Floats, matte: Matte) -> FringeColours:
    """The subject's colours and the background's, each filled in where it can't be seen: encoded
    sRGB, shape (rows, columns, 6), at a smaller size.

    ``working`` is the photo at the matte's size, encoded sRGB 0..1.
    """
    shrink = min(1.0, FRINGE_SIDE / max(matte.shape))
    seen, alpha = (
        np.asarray(
            cv2.resize(part, None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA), np.float32
        )
        for part in (working, matte.astype(np.float32) / np.float32(255))
    )
    own = filled(seen, (alpha >= SURE).astype(np.float32))
    behind = filled(seen, (alpha <= NONE).astype(np.float32))
    colours = np.concatenate([own, behind], axis=2)
    return np.asarray(np.rint(255 * np.clip(colours, 0, 1)), np.uint8)


def box_of(matte: Matte) -> Box | None:
    """The box around all that is at least half covered, in photo space; None where nothing is."""
    left, top, width, height = cv2.boundingRect((matte >= 128).astype(np.uint8))
    if not width:
        return None
    rows, columns = matte.shape
    return Box(left=left / columns, top=top / rows, width=width / columns, height=height / rows)


def subject_picture(photo: AnyPicture, matte: Matte, fringe: FringeColours | None) -> AnyPicture:
    """The subject of a photo, or of a halved copy of it, on nothing: 4 channels, the photo's
    type. With ``fringe`` colours the old background is taken out of the edge's colours."""
    top = np.iinfo(photo.dtype).max
    share = _coverage_of(photo, matte)
    out: Any = photo.copy() if photo.shape[2] == 4 else cv2.cvtColor(photo, cv2.COLOR_RGB2RGBA)
    if fringe is not None:
        _clean(out, share, fringe)
    if photo.shape[2] == 4:  # what is transparent already stays so
        share *= photo[:, :, 3].astype(np.float32) / np.float32(top)
    share *= np.float32(top)
    out[:, :, 3] = np.rint(share, out=share)
    return out  # type: ignore[no-any-return] # the photo's type


def _coverage_of(photo: AnyPicture, matte: Matte) -> Floats:
    """The matte's coverage at the photo's size, its edges sharpened by the photo where that has
    more pixels."""
    rows, columns = photo.shape[:2]
    shrinks = rows <= matte.shape[0]
    how = cv2.INTER_AREA if shrinks else cv2.INTER_LINEAR
    alpha = np.asarray(cv2.resize(matte, (columns, rows), interpolation=how), np.float32)
    alpha /= 255
    return alpha if shrinks else refined_larger(photo, alpha, matte.shape[0])


def _clean(picture: NDArray[Any], share: Floats, fringe: FringeColours) -> None:
    """Take the background out of the colours that it shines through: what compositing says, seen
    ``= share * colour + (1 - share) * behind``, where enough of a pixel is subject; else the
    subject's nearby."""
    top = np.float32(np.iinfo(picture.dtype).max)
    rows, columns = share.shape
    ys, xs = np.nonzero((share > 0) & (share < 1))
    # What is filled in changes slowly, so the nearest pixel of it does.
    nearest = fringe[ys * fringe.shape[0] // rows, xs * fringe.shape[1] // columns]
    own, behind = np.split(nearest.astype(np.float32) / np.float32(255), 2, axis=1)
    part = share[ys, xs][:, None]
    seen = picture[ys, xs, :3].astype(np.float32) / top
    solved = (seen - (1 - part) * behind) / np.maximum(part, np.float32(LEAST_SHARE))
    trusted = np.clip((part - 0.3) / 0.5, 0, 1)
    colours = trusted * solved + (1 - trusted) * own
    picture[ys, xs, :3] = np.rint(top * np.clip(colours, 0, 1))
