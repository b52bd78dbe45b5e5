"""Taking a plain colour out of a picture, as a logo's white box."""

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import KnockOut, rgb_of
from lucky_margin.core.types import Picture8

PLAIN_SHARE = 0.97
"""Of the pixels at a picture's edge: how many are alike when its background is plain."""

PLAIN_REACH = 0.06
MIXED = 2
"""Pixels beside the plain colour in which it may be mixed with what is drawn on it."""

Floats = NDArray[np.float32]


def plain_background(picture: Picture8) -> str | None:
    """The one colour (``#RRGGBB``) all along the edge of an opaque picture; None without one."""
    if picture.shape[2] == 4 and picture[:, :, 3].min() < 255:
        return None
    edge = np.concatenate([picture[0], picture[-1], picture[:, 0], picture[:, -1]])[:, :3]
    middle = np.median(edge, axis=0)
    alike = _distance(edge.astype(np.float32), middle.astype(np.float32)) <= PLAIN_REACH
    if alike.mean() < PLAIN_SHARE:
        return None
    return "#{:02X}{:02X}{:02X}".format(*np.rint(middle).astype(int).tolist())


def knocked_out(picture: Picture8, knock_out: KnockOut) -> Picture8:
    """``picture`` without the plain colour: straight RGBA.

    Where the colour is mixed with what is drawn on it, within ``MIXED`` pixels of it, a pixel is
    taken for a mixture of it and of the colour nearby that is farthest from it (a closed form of
    the compositing equation for two known colours); so edges stay smooth and keep no fringe.
    """
    plain = np.array(rgb_of(knock_out.colour), np.float32)
    rgb = picture[:, :, :3].astype(np.float32)
    away = _distance(rgb, plain)
    gone = away <= knock_out.reach
    if not knock_out.enclosed:
        gone = _from_the_edge(gone)
    out = np.empty((*away.shape, 4), np.uint8)
    out[:, :, :3] = picture[:, :, :3]
    own = picture[:, :, 3] if picture.shape[2] == 4 else np.full(away.shape, 255, np.uint8)
    out[:, :, 3] = np.where(gone, 0, own)
    kernel = np.ones((2 * MIXED + 1, 2 * MIXED + 1), np.uint8)
    near = cv2.dilate(gone.astype(np.uint8), kernel).astype(bool) & ~gone
    rows, columns = np.nonzero(near)
    if not len(rows):
        return out
    drawn = _farthest(rgb, away, rows, columns)
    way = drawn - plain
    share = ((rgb[rows, columns] - plain) * way).sum(axis=1) / np.maximum((way**2).sum(axis=1), 1)
    share = np.clip(share, 0, 1)
    out[rows, columns, :3] = np.where(share[:, None] < 1, drawn, rgb[rows, columns])
    out[rows, columns, 3] = np.rint(share * own[rows, columns])
    return out


def _distance(colours: Floats, plain: Floats) -> Floats:
    """Of encoded colours (0..255), so that black and white are 1 apart."""
    return np.asarray(np.linalg.norm(colours - plain, axis=-1) / (255 * np.sqrt(3)), np.float32)


def _from_the_edge(gone: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """What of it hangs together with the picture's edge."""
    _, labels = cv2.connectedComponents(gone.astype(np.uint8), connectivity=4)
    edge = np.concatenate([labels[0], labels[-1], labels[:, 0], labels[:, -1]])
    return np.asarray(np.isin(labels, edge[edge > 0]))


def _farthest(
    rgb: Floats, away: Floats, rows: NDArray[np.intp], columns: NDArray[np.intp]
) -> Floats:
    """For each place the colour, of those within ``MIXED`` pixels, that is farthest away."""
    height, width = away.shape
    best_away = np.full(len(rows), -1, np.float32)
    best = np.zeros((len(rows), 3), np.float32)
    for dy in range(-MIXED, MIXED + 1):
        for dx in range(-MIXED, MIXED + 1):
            y = np.clip(rows + dy, 0, height - 1)
            x = np.clip(columns + dx, 0, width - 1)
            farther = away[y, x] > best_away
            best_away = np.where(farther, away[y, x], best_away)
            best = np.where(farther[:, None], rgb[y, x], best)
    return best
