"""Sizes by purpose, under neutral names."""

from lucky_margin.core.document.sizes import FixedPixels
from lucky_margin.core.document.values import Identifier, Name, Value


class LibrarySize(Value):
    """A size that is offered: what it is for and its pixels."""

    key: Identifier
    name: Name
    purpose: str
    pixels: FixedPixels


def _size(key: str, name: str, purpose: str, width: int, height: int) -> LibrarySize:
    pixels = FixedPixels(width=width, height=height)
    return LibrarySize(key=key, name=name, purpose=purpose, pixels=pixels)


SIZE_LIBRARY: tuple[LibrarySize, ...] = (
    _size("square-post", "Square post", "a post in a feed", 1080, 1080),
    _size("tall-post", "Tall post", "a post that fills more of a feed", 1080, 1350),
    _size("story", "Story", "a full upright screen", 1080, 1920),
    _size("video-thumbnail", "Video thumbnail", "the still of a video", 1280, 720),
    _size("link-card", "Link card", "the picture of a shared link", 1200, 630),
    _size("wide-banner", "Wide banner", "the head of a page or letter", 1500, 500),
)
