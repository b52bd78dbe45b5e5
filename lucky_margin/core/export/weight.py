"""Weight: the best quality under a cap, and what would help when there is none."""

from collections.abc import Callable
from dataclasses import dataclass

from lucky_margin.core.document import Export
from lucky_margin.core.export.encode import encode
from lucky_margin.core.progress import Progress, untold
from lucky_margin.core.types import ImageFormat, Picture8

QUALITY_FLOOR = 40
"""Below this, damage shows; a cap that needs less is said not to be met."""

QUALITY_CEILING = 95
"""Above this, files grow without looking better."""

BYTES_PER_KB = 1000

LOSSLESS_QUALITY = 100


@dataclass(frozen=True)
class Encoded:
    """A file's bytes and the quality that made them."""

    data: bytes
    quality: int


def best_under(
    max_kb: float, encode_at: Callable[[int], bytes], progress: Progress = untold
) -> Encoded:
    """The highest quality from floor to ceiling whose file has at most ``max_kb``.

    Weight grows with quality, so bisection finds it in at most seven encodings. When even the
    floor is too heavy the floor's file is returned; its weight tells.
    """
    cap = max_kb * BYTES_PER_KB
    best = Encoded(encode_at(QUALITY_FLOOR), QUALITY_FLOOR)
    if len(best.data) > cap:
        return best
    low, high = QUALITY_FLOOR, QUALITY_CEILING
    all_of_them = high - low
    while low < high:
        progress(1 - (high - low) / (all_of_them + 1))
        middle = (low + high + 1) // 2
        tried = Encoded(encode_at(middle), middle)
        if len(tried.data) <= cap:
            low, best = middle, tried
        else:
            high = middle - 1
    return best


@dataclass(frozen=True)
class OtherFormat:
    """Another format would bring the file under its cap; it was tried."""

    image_format: ImageFormat


@dataclass(frozen=True)
class FewerPixels:
    """These sides would bring the file under its cap; they were tried."""

    width: int
    height: int


@dataclass(frozen=True)
class FewerColours:
    """So many colours would bring a PNG or GIF under its cap; they were tried."""

    colours: int


Remedy = OtherFormat | FewerPixels | FewerColours

_FEWER_COLOURS = (256, 128, 64, 32, 16)

_TRIES = 6
"""How often fewer pixels are tried; each time the weight says how many to try next."""

_SHY = 0.97
"""Of the side that the weight asks for, since small pictures weigh more for each pixel."""


def remedies(
    picture: Picture8,
    wanted: Export,
    weight: int,
    max_kb: float,
    weigh_at: Callable[[int, int], int],
) -> list[Remedy]:
    """What would meet ``max_kb`` when ``weight`` bytes, at the floor, do not.

    ``weigh_at`` says how many bytes the file would have with another width and height.
    """
    cap = max_kb * BYTES_PER_KB
    found: list[Remedy] = []
    if wanted.format in ("png", "gif"):
        found += _fewer_colours(picture, wanted, cap)
    opaque = picture.shape[2] == 3
    others: list[ImageFormat] = ["webp", "jpeg"] if opaque else ["webp"]
    for other in others:
        tried = Export(format=other)
        lighter = other != wanted.format or wanted.is_lossless
        if lighter and len(encode(picture, tried, quality=QUALITY_FLOOR)) <= cap:
            found.append(OtherFormat(other))
    height, width = picture.shape[:2]
    shrink = 1.0
    for _ in range(_TRIES):
        shrink *= _SHY * (cap / weight) ** 0.5
        sides = int(width * shrink), int(height * shrink)
        if min(sides) < 1:
            break
        weight = weigh_at(*sides)
        if weight <= cap:
            found.append(FewerPixels(*sides))
            break
    return found


def _fewer_colours(picture: Picture8, wanted: Export, cap: float) -> list[Remedy]:
    for colours in _FEWER_COLOURS:
        if wanted.colours is not None and colours >= wanted.colours:
            continue
        fewer = wanted.model_copy(update={"colours": colours})
        if len(encode(picture, fewer, quality=LOSSLESS_QUALITY)) <= cap:
            return [FewerColours(colours)]
    return []
