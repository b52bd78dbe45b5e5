"""The subject as a picture: its coverage as alpha, and its own colours where the old background
shone through.

A matte is what is found once, at the working size: coverage as uint8, shape (rows, columns).
"""

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.blurring import blurred
from lucky_margin.core.contour import distance_to_contour
from lucky_margin.core.cut_out.edges import (
    Part,
    blocks_with_edges,
    led_by_photo,
    room_to_lead,
)
from lucky_margin.core.cut_out.places import shrunk
from lucky_margin.core.document import Box
from lucky_margin.core.filling import filled
from lucky_margin.core.types import AnyPicture, Mask

Floats = NDArray[np.float32]
Matte = Mask
FringeColours = NDArray[np.uint8]
Pixels = tuple[NDArray[np.intp], ...]
"""Rows and columns of some pixels."""

FRINGE_SIDE = 560
"""Longest side at which colours are filled in, in pixels; they change slowly."""

SURE, NONE = 0.97, 0.02
"""Coverage from which colours are the subject's alone, and up to which the background's."""

HALF, FAINT = 128, 4
"""Coverage (of 255) from which a pixel lies within the subject's edge, and from which it shows."""

LEAST_SHARE = 0.15
"""The background is taken out of a pixel's colour as if at least so much of it were subject; with
less, noise would be blown up."""


def matte_of(alpha: Floats) -> Matte:
    """Coverage (0..1) as a matte."""
    return np.asarray(np.rint(255 * np.clip(alpha, 0, 1)), np.uint8)


def with_other_edge(matte: Matte, shift: float, feather: float) -> Matte:
    """A matte with its edge moved out by ``shift``, or in, and fading over ``feather``; both in its
    long sides."""
    if shift == 0 and feather == 0:
        return matte
    long_side = max(matte.shape)
    cover = matte.astype(np.float32) / np.float32(255)
    if shift:
        by = shift * long_side
        cover = np.clip(by + 0.5 - distance_to_contour(cover, abs(by) + 1), 0, 1)
    # A Gaussian changes by 95 % within two standard deviations to either side.
    return matte_of(blurred(cover, feather * long_side / 4))


def fringe_colours(working: Floats, matte: Matte) -> FringeColours:
    """The subject's colours and the background's, each filled in where it can't be seen: encoded
    sRGB, shape (rows, columns, 6), at a smaller size.

    ``working`` is the photo at the matte's size, encoded sRGB 0..1.
    """
    shrink = min(1.0, FRINGE_SIDE / max(matte.shape))
    seen, alpha = (
        shrunk(part, shrink) for part in (working, matte.astype(np.float32) / np.float32(255))
    )
    own = filled(seen, (alpha >= SURE).astype(np.float32))
    behind = filled(seen, (alpha <= NONE).astype(np.float32))
    colours = np.concatenate([own, behind], axis=2)
    return np.asarray(np.rint(255 * np.clip(colours, 0, 1)), np.uint8)


def box_of(matte: Matte, least: int = HALF) -> Box | None:
    """The box around all that is covered by at least so much (of 255), in photo space; None where
    nothing is."""
    left, top, width, height = cv2.boundingRect((matte >= least).astype(np.uint8))
    if not width:
        return None
    rows, columns = matte.shape
    return Box(left=left / columns, top=top / rows, width=width / columns, height=height / rows)


def subject_picture(photo: AnyPicture, matte: Matte, fringe: FringeColours | None) -> AnyPicture:
    """The subject of a photo, or of a halved copy of it, on nothing: 4 channels, the photo's
    type. With ``fringe`` colours the old background is taken out of the edge's colours.

    Where the photo has more pixels than the matte it leads the edges. Only blocks with an edge are
    worked on in floats, so that a large photo takes little more memory than its copy.
    """
    rows, columns = photo.shape[:2]
    enlarged = rows / matte.shape[0]
    how = cv2.INTER_LINEAR if enlarged > 1 else cv2.INTER_AREA
    alpha = np.asarray(cv2.resize(matte, (columns, rows), interpolation=how), np.uint8)
    out: Any = photo.copy() if photo.shape[2] == 4 else cv2.cvtColor(photo, cv2.COLOR_RGB2RGBA)
    top = np.iinfo(out.dtype).max
    out[:, :, 3] = alpha.astype(out.dtype) * out.dtype.type(top // 255)
    pad = room_to_lead(enlarged)
    for block, wide, inner in blocks_with_edges((alpha > 0) & (alpha < 255), pad):
        seen = np.asarray(photo[wide][:, :, :3], np.float32) / np.float32(top)
        share = np.asarray(alpha[wide], np.float32) / np.float32(255)
        if enlarged > 1:
            share = led_by_photo(seen, share, enlarged)
        seen, share = seen[inner], share[inner]
        out[block][:, :, 3] = np.rint(np.float32(top) * share)
        if fringe is not None:
            rim = np.nonzero((share > 0) & (share < 1))
            nearby = _nearest(fringe, block, rim, (rows, columns))
            colours = _cleaned(seen[rim], share[rim][:, None], nearby)
            out[block][:, :, :3][rim] = np.rint(np.float32(top) * colours)
    if photo.shape[2] == 4:  # what is transparent already stays so
        out[:, :, 3] = cv2.multiply(out[:, :, 3], photo[:, :, 3], scale=1 / top)
    return out  # type: ignore[no-any-return] # the photo's type


def _nearest(fringe: FringeColours, block: Part, pixels: Pixels, sides: tuple[int, int]) -> Floats:
    """The fringe's colours under some ``pixels`` of a block of a picture of these sides (rows and
    columns); they change slowly, so the nearest pixel of them does."""
    y, x = (
        (part.start + along) * small // side
        for part, along, small, side in zip(block, pixels, fringe.shape[:2], sides, strict=True)
    )
    return np.asarray(fringe[y, x] / np.float32(255), np.float32)


def _cleaned(seen: Floats, share: Floats, fringe: Floats) -> Floats:
    """Colours of pixels, shape (pixels, 3), without the background that shines through: what
    compositing says, seen ``= share * colour + (1 - share) * behind``, where enough of a pixel is
    subject; else the subject's nearby."""
    own, behind = fringe[:, :3], fringe[:, 3:]
    solved = (seen - (1 - share) * behind) / np.maximum(share, np.float32(LEAST_SHARE))
    trusted = np.clip((share - 0.3) / 0.5, 0, 1)
    return np.asarray(np.clip(trusted * solved + (1 - trusted) * own, 0, 1), np.float32)
