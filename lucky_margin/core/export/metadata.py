"""What an exported file says about itself: credits, what it shows, its resolution, and camera data
and place when asked for."""

import re
from dataclasses import dataclass
from xml.sax.saxutils import escape

from PIL import Image
from PIL.ExifTags import IFD, Base

from lucky_margin.core.document import Export
from lucky_margin.core.photos import PhotoFacts

_INCH = 2
"""EXIF 2.32, ResolutionUnit."""

_XMP = """<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/"
 xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">
{}
</rdf:Description></rdf:RDF>"""
"""A packet of metadata (ISO 16684-1) with the names of the IPTC Core (Photo Metadata 2021.1)."""

_IN_LANGUAGES = """<{0}><rdf:Alt><rdf:li xml:lang="x-default">{1}</rdf:li></rdf:Alt></{0}>"""
_IN_ORDER = """<{0}><rdf:Seq><rdf:li>{1}</rdf:li></rdf:Seq></{0}>"""

_NOT_IN_XML = re.compile("[^\t\n\r\x20-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")
"""What XML 1.0 has no place for, however it is written."""


@dataclass(frozen=True)
class Metadata:
    """What a file carries besides its picture; an empty block is left out."""

    exif: bytes = b""
    title: str = ""
    description: str = ""
    author: str = ""
    copyright: str = ""
    alt_text: str = ""
    """What the picture shows; all texts are in letters that XML has a place for."""
    ppi: float | None = None
    """Pixels per inch."""

    @property
    def xmp(self) -> bytes:
        """What is said in words, as a packet; empty if nothing is."""
        said = [
            form.format(name, escape(words))
            for form, name, words in (
                (_IN_LANGUAGES, "dc:title", self.title),
                (_IN_LANGUAGES, "dc:description", self.description),
                (_IN_ORDER, "dc:creator", self.author),
                (_IN_LANGUAGES, "dc:rights", self.copyright),
                (_IN_LANGUAGES, "Iptc4xmpCore:AltTextAccessibility", self.alt_text),
            )
            if words
        ]
        return _XMP.format("\n".join(said)).encode() if said else b""


def metadata_of(export: Export, facts: PhotoFacts, ppi: float | None = None) -> Metadata:
    """What an export says of itself.

    Credits of the export go before those of the original. Camera data come along only with
    ``keep_camera_data``, the place only with ``keep_place``; the orientation never does, since
    exports are upright. ``ppi`` is the resolution to state. A damaged block of the original's is
    left out.
    """
    try:
        exif = _written(_kept(export, facts), export, facts, ppi)
    except Exception:  # Pillow raises many kinds on hostile blocks, some not before writing
        exif = _written(Image.Exif(), export, facts, ppi)
    words = {
        "title": export.title,
        "description": export.description,
        "author": export.author or facts.author,
        "copyright": export.copyright or facts.copyright,
        "alt_text": export.alt_text,
    }
    return Metadata(
        exif, ppi=ppi, **{field: _NOT_IN_XML.sub("", text) for field, text in words.items()}
    )


def _kept(export: Export, facts: PhotoFacts) -> Image.Exif:
    """What an export keeps of its original's block."""
    exif = Image.Exif()
    if not facts.exif or not (export.keep_camera_data or export.keep_place):
        return exif
    original = Image.Exif()
    original.load(facts.exif)
    if export.keep_camera_data:
        exif.update({tag: value for tag, value in original.items() if tag not in set(IFD)})
        _copy_part(original, exif, IFD.Exif)
        exif.pop(Base.Orientation, None)
    if export.keep_place:
        _copy_part(original, exif, IFD.GPSInfo)
    return exif


def _copy_part(original: Image.Exif, exif: Image.Exif, part: IFD) -> None:
    """Take over a part of a block, if there is one; Pillow would write an empty one too."""
    if values := original.get_ifd(part):
        exif.get_ifd(part).update(values)


def _written(exif: Image.Exif, export: Export, facts: PhotoFacts, ppi: float | None) -> bytes:
    for tag, text in (
        (Base.Artist, export.author or facts.author),
        (Base.Copyright, export.copyright or facts.copyright),
        (Base.ImageDescription, export.description or export.alt_text),
    ):
        if text:
            exif[tag] = text.encode()  # bytes, since Pillow would squeeze text into ASCII
    if ppi is not None:
        exif[Base.XResolution] = exif[Base.YResolution] = ppi
        exif[Base.ResolutionUnit] = _INCH
    block = exif.tobytes()
    return b"" if block == Image.Exif().tobytes() else block
