"""What a finish, or a part of one, refers to outside itself."""

from collections.abc import Iterator
from typing import Any

from lucky_margin.core.document.borders import BandPicture
from lucky_margin.core.document.cut_out import SubjectMask
from lucky_margin.core.document.finish import PhotoReference
from lucky_margin.core.document.pieces import MarkLogo, PicturePiece
from lucky_margin.core.document.tone import TableLook
from lucky_margin.core.document.values import OtherPhoto, Value

_PHOTOS = (PhotoReference, OtherPhoto, PicturePiece, MarkLogo, SubjectMask, BandPicture)
_SHA256_DIGITS = 64


def photos_of(value: Value) -> set[str]:
    """The SHA-256 of every photo and picture in it, what sizes do differently included."""
    return {inner.sha256 for inner in values_in(value) if isinstance(inner, _PHOTOS)}


def fonts_of(value: Value) -> set[str]:
    """The SHA-256 of every own font in it."""
    return {family for family in families_of(value) if len(family) == _SHA256_DIGITS}


def families_of(value: Value) -> list[str]:
    """The fonts that words in it are set in, own ones by their SHA-256; each once, in order."""
    families = (getattr(inner, "family", None) for inner in values_in(value))
    return list(dict.fromkeys(family for family in families if family is not None))


def tables_of(value: Value) -> set[str]:
    """The SHA-256 of every colour table in it."""
    return {inner.table for inner in values_in(value) if isinstance(inner, TableLook)}


def values_in(node: Any) -> Iterator[Value]:
    """A value and all that are inside it."""
    if isinstance(node, Value):
        yield node
        for _, child in node:
            yield from values_in(child)
    elif isinstance(node, tuple | list):
        for child in node:
            yield from values_in(child)
    elif isinstance(node, dict):
        for child in node.values():
            yield from values_in(child)
