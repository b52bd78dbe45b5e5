"""The colours that a picture is made of, and what they are called: coarsely, so that pictures can
be looked for by them."""

from collections.abc import Iterable
from typing import Any, Literal, get_args

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from lucky_margin.core.document import Colour, rgb_of
from lucky_margin.core.oklab import from_light
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.types import Picture8

ColourName = Literal[
    "red",
    "orange",
    "yellow",
    "green",
    "teal",
    "blue",
    "purple",
    "pink",
    "brown",
    "beige",
    "white",
    "grey",
    "black",
]
COLOUR_NAMES: tuple[ColourName, ...] = get_args(ColourName)

_PALETTE_SIDE = 96

_QUIET = ("white", "grey", "black", "beige", "brown")
_QUIET_SHARE, _STRIKING_SHARE = 0.12, 0.03
"""Shares of a photo from which quiet and other colours are named."""

_HALF = 128

_GREY_BELOW = 0.022
"""OKLab chroma under which a colour has no hue to most eyes."""

_HUES: tuple[tuple[float, ColourName], ...] = (
    (8, "pink"),
    (42, "red"),
    (75, "orange"),
    (112, "yellow"),
    (165, "green"),
    (215, "teal"),
    (280, "blue"),
    (330, "purple"),
    (360, "pink"),
)
"""OKLab hues, in degrees, up to which colours have a name. sRGB's pure red lies at 29, yellow at
110, green at 142, cyan at 195, blue at 264 and magenta at 328."""


def colour_names(colours: Iterable[Colour]) -> tuple[ColourName, ...]:
    """What colours are called, each once, in their order."""
    codes = np.array([rgb_of(colour) for colour in colours]).reshape(-1, 3)
    return tuple(dict.fromkeys(COLOUR_NAMES[at] for at in _numbers(codes)))


def colours_seen(photo: Picture8) -> tuple[ColourName, ...]:
    """What the colours of a photo are called, those that someone would name on seeing it, the
    most frequent first."""
    step = max(1, max(photo.shape[:2]) // _PALETTE_SIDE)
    small = np.asarray(photo[::step, ::step]).reshape(-1, photo.shape[2])
    if photo.shape[2] == 4 and (small[:, 3] >= _HALF).any():
        small = small[small[:, 3] >= _HALF]  # what is transparent has no colour
    small = small[:, :3]
    counts = np.bincount(_numbers(small), minlength=len(COLOUR_NAMES)) / len(small)
    quiet = np.isin(COLOUR_NAMES, _QUIET)
    seen = counts >= np.where(quiet, _QUIET_SHARE, _STRIKING_SHARE)
    return tuple(COLOUR_NAMES[at] for at in np.argsort(-counts, kind="stable") if seen[at])


def _numbers(codes: NDArray[Any]) -> NDArray[np.intp]:
    """Which of ``COLOUR_NAMES`` each colour is, from codes of 0..255, shape (colours, 3)."""
    light, a, b = from_light(decode(codes / 255)).T
    chroma, hue = np.hypot(a, b), np.degrees(np.arctan2(b, a)) % 360
    ends = np.array([end for end, _ in _HUES])
    by_hue = np.array([COLOUR_NAMES.index(name) for _, name in _HUES])
    number = by_hue[np.minimum(np.searchsorted(ends, hue), len(ends) - 1)]
    ruddy, warm = (hue <= 42) | (hue >= 345), (hue >= 30) & (hue <= 112)
    cases = (
        ("white", (chroma < _GREY_BELOW) & (light > 0.95)),
        ("black", (chroma < _GREY_BELOW) & (light < 0.33)),
        ("black", light < 0.2),
        ("beige", warm & (light > 0.76) & (chroma > 0.01) & (chroma < 0.085)),
        ("grey", chroma < _GREY_BELOW),
        ("brown", warm & (light < 0.77) & (chroma < 0.1)),
        ("brown", warm & (hue > 42) & (light < 0.62) & (chroma < 0.14)),
        ("red", ruddy & (light < 0.55)),
        ("orange", (hue > 30) & (hue <= 42) & (light > 0.64)),
        ("pink", ruddy & (light > 0.66)),
    )
    choices = [COLOUR_NAMES.index(name) for name, _ in cases]
    return np.asarray(np.select([case for _, case in cases], choices, number), np.intp)


def palette_of(photo: Picture8, count: int = 5) -> list[str]:
    """The colours that a photo is made of, the most frequent first, by median cut."""
    step = max(1, max(photo.shape[:2]) // _PALETTE_SIDE)
    small = Image.fromarray(np.ascontiguousarray(photo[::step, ::step, :3]))
    cut = small.quantize(count, method=Image.Quantize.MEDIANCUT)
    shares = sorted(cut.getcolors() or [], reverse=True)
    table = cut.getpalette() or []
    return [
        "#{:02X}{:02X}{:02X}".format(*table[3 * int(index) : 3 * int(index) + 3])
        for _, index in shares
        if isinstance(index, int)
    ]
