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
<rdf:Description rdf:about="" xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">
<Iptc4xmpCore:AltTextAccessibility><rdf:Alt>
<rdf:li xml:lang="x-default">{}</rdf:li>
</rdf:Alt></Iptc4xmpCore:AltTextAccessibility>
</rdf:Description></rdf:RDF>"""
"""A packet of metadata (ISO 16684-1) with the alternative text (IPTC Photo Metadata 2021.1)."""

_NOT_IN_XML = re.compile("[^\t\n\r\x20-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")
"""What XML 1.0 has no place for, however it is written."""


@dataclass(frozen=True)
class Metadata:
    """What a file carries besides its picture; an empty block is left out."""

    exif: bytes = b""
    alt_text: str = ""
    """What the picture shows, in letters that XML has a place for."""
    ppi: float | None = None
    """Pixels per inch."""

    @property
    def xmp(self) -> bytes:
        """The alternative text as a packet."""
        return _XMP.format(escape(self.alt_text)).encode() if self.alt_text else b""


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
    return Metadata(exif, _NOT_IN_XML.sub("", export.alt_text), ppi)


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
        (Base.ImageDescription, export.alt_text),
    ):
        if text:
            exif[tag] = text.encode()  # bytes, since Pillow would squeeze text into ASCII
    if ppi is not None:
        exif[Base.XResolution] = exif[Base.YResolution] = ppi
        exif[Base.ResolutionUnit] = _INCH
    block = exif.tobytes()
    return b"" if block == Image.Exif().tobytes() else block
