"""Finding the picture inside plain margins.

Each side has its own margin, of any width and colour, or transparent. A line of pixels (a row
or a column, as far as the picture can still reach) is plain when nearly all of it is within a
tolerance of the margin's colour, which is the median of the outermost line. A margin ends at
the first line that is not plain; it is none at all when its colour drifts on the way, as a
clear sky's does.
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
    colour = np.median(_comparable(lines[0]), axis=0)
    plain = 0
    for line in lines:
        pixels = _comparable(line)
        differs = np.abs(pixels - colour).max(axis=1) > tolerance
        if differs.mean() > SPECKS:
            break
        drift = np.abs(np.median(pixels, axis=0) - colour).max()
        if drift > DRIFT * tolerance:
            return 0
        plain += 1
    return plain


def _comparable(line: AnyPicture) -> NDArray[np.float32]:
    """A row of pixels in 8-bit steps, premultiplied: all transparent ones are alike, whatever
    colour they hide."""
    pixels = line * np.float32(255 / np.iinfo(line.dtype).max)
    if pixels.shape[1] == 4:
        pixels[:, :3] *= pixels[:, 3:] / 255
    return pixels
