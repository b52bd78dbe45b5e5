"""Finding the picture inside plain margins.

Each side has its own margin, of any width and colour, or transparent. A line of pixels (a row
or a column, as far as the picture can still reach) is plain when nearly all of it is within a
tolerance of the margin's colour, which is the median of the outermost line. The tolerance grows
with the margin's own noise. It is no margin at all when its colour drifts on the way, as a
clear sky's does.

JPEG compression leaves ripples in the margin along the picture's edge. A line with ripples is
faint: it is near the margin's colour as a whole, and hardly any of its pixels is far from it. A
few such lines belong to the margin, whether plain ones follow or the picture's edge. A margin so
narrow that even its outermost line has ripples has to end at an edge.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Box
from lucky_margin.core.types import AnyPicture

DEFAULT_TOLERANCE = 6.0
"""In 8-bit steps: traces of compression in white paper stay below 4."""

SPECKS = 0.004
"""Of a line's pixels that may differ from the margin: dust and hot pixels."""

NOISE = 4.5
"""Standard deviations of a margin's noise that are within its tolerance: of 10,000 values less
than one lies further out."""

MOST_NOISE = 3.0
"""In 8-bit steps; what varies more is taken for a picture, not for paper."""

MOST_RIPPLES = 16
"""Lines: the side of the blocks in which JPEG keeps colours at half resolution."""

FAINT, FAR, FAR_SHARE = 2.0, 6.0, 0.05
"""In tolerances: how far from the margin's colour half of a faint line may be, and what is far
from it; and which share of a faint line may be that."""

DRIFT = 0.5
"""Of the tolerance: how far a margin's colour may wander from its outer to its inner line."""


@dataclass(frozen=True)
class Trimmed:
    """What was found: the picture in photo pixels, or why there is none to trim."""

    found: Literal["picture", "no margin", "all plain"]
    box: Box


def find_picture(photo: AnyPicture, tolerance: float = DEFAULT_TOLERANCE) -> Trimmed:
    """The picture inside the plain margins of ``photo``.

    ``tolerance`` (8-bit steps) is how far a margin's pixels may be from its colour in any
    channel.
    """
    height, width = photo.shape[:2]
    left, top, right, bottom = 0, 0, width, height
    while True:
        before = (left, top, right, bottom)
        inner = photo[top:bottom, left:right]
        top += _margin(inner, tolerance)
        bottom -= _margin(inner[::-1], tolerance)
        if bottom <= top:
            break
        inner = photo[top:bottom, left:right].transpose(1, 0, 2)
        left += _margin(inner, tolerance)
        right -= _margin(inner[::-1], tolerance)
        if right <= left or before == (left, top, right, bottom):
            break
    whole = Box(left=0, top=0, width=width, height=height)
    if right <= left or bottom <= top:
        return Trimmed("all plain", whole)
    box = Box(left=left, top=top, width=right - left, height=bottom - top)
    return Trimmed("no margin" if box == whole else "picture", box)


def _margin(lines: AnyPicture, tolerance: float) -> int:
    """How many of the first rows are margin; all of them when every one is plain."""
    outermost = _comparable(lines[0])
    colour = np.median(outermost, axis=0)
    drifting = DRIFT * tolerance
    noise = _noise(outermost)
    if noise <= MOST_NOISE:
        tolerance = max(tolerance, NOISE * noise)
    margin = ripples = 0
    is_narrow = False
    for number, line in enumerate(lines):
        pixels = _comparable(line)
        differs = np.abs(pixels - colour).max(axis=1) / tolerance
        is_plain = np.mean(differs > 1) <= SPECKS
        is_narrow |= number == 0 and not is_plain
        if not is_plain and not _is_faint(differs):
            return margin + ripples
        drift = np.abs(np.median(pixels, axis=0) - colour).max()
        if (is_plain and drift > drifting) or (is_narrow and number >= MOST_RIPPLES):
            return 0
        if is_plain:
            margin, ripples = number + 1, 0
        elif ripples == MOST_RIPPLES:
            return margin
        else:
            ripples += 1
    return margin


def _noise(line: NDArray[np.float32]) -> float:
    """The standard deviation of a line's noise, by how much neighbours differ, so that a slow
    change of colour is none; the largest differences, of specks, are left out."""
    steps = np.sort(np.abs(np.diff(line, axis=0)), axis=0)
    usual = steps[: max(1, int(len(steps) * (1 - 2 * SPECKS)))]
    return float(np.sqrt(np.mean(usual**2, axis=0).max() / 2)) if len(steps) else 0.0


def _is_faint(differs: NDArray[np.float32]) -> bool:
    """Whether a line's pixels, so many tolerances from the margin's colour, may be ripples."""
    return bool(np.median(differs) <= FAINT and np.mean(differs > FAR) <= FAR_SHARE)


def _comparable(line: AnyPicture) -> NDArray[np.float32]:
    """A row of pixels in 8-bit steps, premultiplied: all transparent ones are alike, whatever
    colour they hide."""
    pixels = line * np.float32(255 / np.iinfo(line.dtype).max)
    if pixels.shape[1] == 4:
        pixels[:, :3] *= pixels[:, 3:] / 255
    return pixels
