"""Pictures in few colours, for PNG and GIF."""

from typing import Any

import numpy as np
from PIL import Image

from lucky_margin.core.types import Picture8

MOST_COLOURS = 256

_HALF = 128


def in_few_colours(picture: Picture8, colours: int) -> tuple[Image.Image, dict[str, Any]]:
    """``picture`` in at most so many colours (2..256), chosen by median cut and dithered by Floyd
    and Steinberg's method; and what Pillow has to be told of its transparency.

    What is less than half opaque is transparent, which takes one of the colours; a palette of both
    formats alike knows no more.
    """
    opaque = Image.fromarray(np.ascontiguousarray(picture[:, :, :3]))
    clear = picture[:, :, 3] < _HALF if picture.shape[2] == 4 else None
    if clear is None or not clear.any():
        return _on_palette(opaque, colours), {}
    kept = max(1, colours - 1)
    numbers = np.asarray(_on_palette(opaque, kept)).copy()
    numbers[clear] = kept
    indexed = Image.fromarray(numbers, "P")
    palette = _palette(opaque, kept).getpalette() or []
    indexed.putpalette([*palette[: 3 * kept], *[0] * (3 * (kept + 1) - len(palette[: 3 * kept]))])
    return indexed, {"transparency": kept}


def _palette(picture: Image.Image, colours: int) -> Image.Image:
    return picture.quantize(colours, method=Image.Quantize.MEDIANCUT)


def _on_palette(picture: Image.Image, colours: int) -> Image.Image:
    shared = _palette(picture, colours)
    return picture.quantize(palette=shared, dither=Image.Dither.FLOYDSTEINBERG)
