"""What an exported file says about itself: credits, and camera data and place when asked for."""

from PIL import Image
from PIL.ExifTags import IFD, Base

from lucky_margin.core.document import Export
from lucky_margin.core.photos import PhotoFacts

_INCH = 2
"""EXIF 2.32, ResolutionUnit."""


def exif_bytes(export: Export, facts: PhotoFacts, ppi: float | None = None) -> bytes:
    """The EXIF block of an export; empty when there is nothing to say.

    Credits of the export go before those of the original. Camera data come along only with
    ``keep_camera_data``, the place only with ``keep_place``; the orientation never does, since
    exports are upright. ``ppi`` is the resolution to state. A damaged block of the original's is
    left out.
    """
    try:
        return _written(_kept(export, facts), export, facts, ppi)
    except Exception:  # Pillow raises many kinds on hostile blocks, some not before writing
        return _written(Image.Exif(), export, facts, ppi)


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
    ):
        if text:
            exif[tag] = text.encode()  # bytes, since Pillow would squeeze text into ASCII
    if ppi is not None:
        exif[Base.XResolution] = exif[Base.YResolution] = ppi
        exif[Base.ResolutionUnit] = _INCH
    block = exif.tobytes()
    return b"" if block == Image.Exif().tobytes() else block
