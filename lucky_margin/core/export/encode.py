"""Encoding: a picture to the bytes of a file, the same bytes every time."""

import io
from typing import Any

from PIL import Image
from PIL.PngImagePlugin import PngInfo

from lucky_margin.core.errors import BadInput
from lucky_margin.core.export.metadata import Metadata
from lucky_margin.core.photos.profiles import srgb_profile
from lucky_margin.core.types import FileFormat, ImageFormat, Picture8

NOTHING_SAID = Metadata()

PNG_DESCRIPTION = "Description"
"""The keyword of what a picture shows (W3C, Portable Network Graphics, 11.3.3.1)."""

SUFFIXES: dict[ImageFormat, str] = {"jpeg": "jpg", "png": "png", "webp": "webp", "avif": "avif"}

MEDIA_TYPES: dict[FileFormat, str] = {
    "jpeg": "image/jpeg",
    "png": "image/png",
    "webp": "image/webp",
    "avif": "image/avif",
    "gif": "image/gif",
}

MAX_SIDES: dict[ImageFormat, int] = {"webp": 16_383, "jpeg": 65_535, "avif": 65_535, "png": 10**9}
"""The longest side each format can hold, in pixels."""

MOST_OPTIMISED = 40_000_000
"""Pixels up to which JPEG's code words suit the very picture, which makes a file a few percent
lighter; for that the library holds all of the picture's coefficients, six bytes a pixel."""

FULL_COLOUR_QUALITY = 90
"""From this quality on, JPEG and AVIF keep colour at full resolution (4:4:4)."""


def encode(
    picture: Picture8,
    image_format: ImageFormat,
    *,
    quality: int,
    metadata: Metadata = NOTHING_SAID,
) -> bytes:
    """``picture`` as a file of ``image_format`` with an sRGB profile.

    ``quality`` is 1..100; PNG, which is lossless, has no use for it. JPEG and PNG have a field for
    the resolution; the others say it in EXIF.

    Raises:
        BadInput: a side is longer than the format can hold.
    """
    longest = max(picture.shape[:2])
    if longest > MAX_SIDES[image_format]:
        raise BadInput(
            f"{image_format.upper()} holds at most {MAX_SIDES[image_format]} pixels to a side, "
            f"not {longest}; export as PNG or ask for fewer."
        )
    options = {"icc_profile": srgb_profile()} | carried(metadata, image_format)
    options |= _options(image_format, quality)
    if picture.shape[0] * picture.shape[1] > MOST_OPTIMISED:
        options.pop("optimize", None)
    image = Image.fromarray(picture)
    try:
        return _saved(image, image_format, options)
    except OSError:
        # Pillow's buffer for optimised JPEG is too small for noise at high quality.
        if not options.pop("optimize", False):
            raise
        return _saved(image, image_format, options)


def _saved(image: Image.Image, image_format: ImageFormat, options: dict[str, Any]) -> bytes:
    buffer = io.BytesIO()
    image.save(buffer, image_format.upper(), **options)
    return buffer.getvalue()


def carried(metadata: Metadata, image_format: ImageFormat) -> dict[str, Any]:
    """What Pillow is told of ``metadata``."""
    options: dict[str, Any] = {}
    if metadata.exif:
        options["exif"] = metadata.exif
    if metadata.alt_text and image_format == "png":
        options["pnginfo"] = PngInfo()
        options["pnginfo"].add_itxt(PNG_DESCRIPTION, metadata.alt_text)
    elif metadata.alt_text:
        options["xmp"] = metadata.xmp
    if metadata.ppi is not None and image_format in ("jpeg", "png"):
        options["dpi"] = (metadata.ppi, metadata.ppi)
    return options


def _options(image_format: ImageFormat, quality: int) -> dict[str, Any]:
    full_colour = quality >= FULL_COLOUR_QUALITY
    match image_format:
        case "jpeg":
            return {"quality": quality, "optimize": True, "subsampling": 0 if full_colour else 2}
        case "png":
            return {"compress_level": 6}
        case "webp":
            # Colours under transparency are kept, as in the other formats.
            return {"quality": quality, "method": 4, "exact": True}
        case "avif":
            return {
                "quality": quality,
                "speed": 6,
                "subsampling": "4:4:4" if full_colour else "4:2:0",
            }
