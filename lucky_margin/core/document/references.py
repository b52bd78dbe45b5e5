"""What a finish refers to outside itself."""

from collections.abc import Iterator
from typing import Any

from lucky_margin.core.document.borders import BandPicture
from lucky_margin.core.document.cut_out import SubjectMask
from lucky_margin.core.document.finish import Finish, PhotoReference
from lucky_margin.core.document.pieces import MarkLogo, PicturePiece
from lucky_margin.core.document.values import OtherPhoto, Value

_PHOTOS = (PhotoReference, OtherPhoto, PicturePiece, MarkLogo, SubjectMask, BandPicture)


def photos_of(finish: Finish) -> set[str]:
    """The SHA-256 of every photo and picture in a finish, what sizes do differently included."""
    return {value.sha256 for value in _values(finish) if isinstance(value, _PHOTOS)}


def _values(node: Any) -> Iterator[Value]:
    """A value and all that are inside it."""
    if isinstance(node, Value):
        yield node
        for _, child in node:
            yield from _values(child)
    elif isinstance(node, tuple | list):
        for child in node:
            yield from _values(child)
    elif isinstance(node, dict):
        for child in node.values():
            yield from _values(child)
