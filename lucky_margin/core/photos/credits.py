"""Who made a photo and whose it is, from its EXIF tags or, where they are silent, from its XMP."""

import contextlib
from dataclasses import dataclass
from xml.etree import ElementTree

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

MOST_LETTERS = 200
"""Of a credit; the same as an export's own may have."""

_DUBLIN_CORE = "{http://purl.org/dc/elements/1.1/}"
_LIST_ITEM = "{http://www.w3.org/1999/02/22-rdf-syntax-ns#}li"


@dataclass(frozen=True)
class Credits:
    """Each empty when the photo does not say."""

    author: str = ""
    copyright: str = ""


def credits_of(artist: object, copyright_notice: object, xmp: bytes | str) -> Credits:
    """The credits that a photo carries.

    ``artist`` and ``copyright_notice`` are values of EXIF tags, ``xmp`` is a packet of metadata
    (ISO 16684-1), whose ``dc:creator`` and ``dc:rights`` stand in for missing ones.
    """
    author, rights = _text(artist), _text(copyright_notice)
    if author and rights:
        return Credits(author, rights)
    root = _parsed(xmp)
    return Credits(author or _items(root, "creator"), rights or _items(root, "rights"))


def _parsed(xmp: bytes | str) -> ElementTree.Element | None:
    """The packet's tree; None when there is none, or a broken or unsafe one."""
    try:
        packet = xmp.encode() if isinstance(xmp, str) else xmp
        root: ElementTree.Element = fromstring(packet.strip(b"\0"))
    except (ElementTree.ParseError, DefusedXmlException, ValueError, LookupError, TypeError):
        return None
    return root


def _items(root: ElementTree.Element | None, name: str) -> str:
    found = root.findall(f".//{_DUBLIN_CORE}{name}//{_LIST_ITEM}") if root is not None else []
    return _text(", ".join(one.text.strip() for one in found if one.text))


def _text(value: object) -> str:
    """A credit without its padding, no longer than it may be.

    Pillow reads the bytes of a tag as Latin-1, but programs write UTF-8 there.
    """
    text = str(value) if value else ""
    with contextlib.suppress(UnicodeError):
        text = text.encode("latin-1").decode()
    return text.strip(" \0")[:MOST_LETTERS]
