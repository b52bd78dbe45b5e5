"""Weight: the best quality under a cap, and what would help when there is none."""

from collections.abc import Callable
from dataclasses import dataclass

from lucky_margin.core.export.encode import encode
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


def best_under(max_kb: float, encode_at: Callable[[int], bytes]) -> Encoded:
    """The highest quality from floor to ceiling whose file has at most ``max_kb``.

    Weight grows with quality, so bisection finds it in at most seven encodings. When even the
    floor is too heavy the floor's file is returned; its weight tells.
    """
    cap = max_kb * BYTES_PER_KB
    best = Encoded(encode_at(QUALITY_FLOOR), QUALITY_FLOOR)
    if len(best.data) > cap:
        return best
    low, high = QUALITY_FLOOR, QUALITY_CEILING
    while low < high:
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
    """About these sides would bring the file under its cap; an estimate."""

    width: int
    height: int


Remedy = OtherFormat | FewerPixels


def remedies(
    picture: Picture8, image_format: ImageFormat, weight: int, max_kb: float
) -> list[Remedy]:
    """What would meet ``max_kb`` when ``weight`` bytes of ``image_format`` at the floor do not.

    Other formats are tried for real; fewer pixels are an estimate, weight going with area.
    """
    cap = max_kb * BYTES_PER_KB
    found: list[Remedy] = []
    opaque = picture.shape[2] == 3
    others: list[ImageFormat] = ["webp", "jpeg"] if opaque else ["webp"]
    for other in others:
        if other != image_format and len(encode(picture, other, quality=QUALITY_FLOOR)) <= cap:
            found.append(OtherFormat(other))
    height, width = picture.shape[:2]
    shrink = 0.95 * (cap / weight) ** 0.5
    if min(width, height) * shrink >= 1:
        found.append(FewerPixels(int(width * shrink), int(height * shrink)))
    return found
