"""What an exported file says about itself: credits, and camera data only when asked for."""

from PIL import Image

from lucky_margin.core.document import Export
from lucky_margin.core.photos import PhotoFacts

# EXIF 2.32
_ORIENTATION, _ARTIST, _COPYRIGHT = 0x0112, 0x013B, 0x8298
_X_RESOLUTION, _Y_RESOLUTION, _RESOLUTION_UNIT, _INCH = 0x011A, 0x011B, 0x0128, 2
_SUB_DIRECTORIES = (0x8769, 0x8825)
"""Camera and location data."""


def exif_bytes(export: Export, facts: PhotoFacts, ppi: float | None = None) -> bytes:
    """The EXIF block of an export; empty when there is nothing to say.

    Credits of the export go before those of the original. Camera and location data come along
    only with ``keep_camera_data``; the orientation never does, since exports are upright.
    ``ppi`` is the resolution to state.
    """
    exif = Image.Exif()
    if export.keep_camera_data and facts.exif:
        exif.load(facts.exif)
        for directory in _SUB_DIRECTORIES:
            exif.get_ifd(directory)  # read now, so that it is written again
        exif.pop(_ORIENTATION, None)
    for tag, text in (
        (_ARTIST, export.author or facts.author),
        (_COPYRIGHT, export.copyright or facts.copyright),
    ):
        if text:
            exif[tag] = text.encode()  # bytes, since Pillow would squeeze text into ASCII
    if ppi is not None:
        exif[_X_RESOLUTION] = exif[_Y_RESOLUTION] = ppi
        exif[_RESOLUTION_UNIT] = _INCH
    return exif.tobytes() if len(exif) else b""
