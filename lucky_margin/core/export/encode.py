"""Encoding: a picture to the bytes of a file, the same bytes every time."""

from typing import Any

from PIL import Image
from PIL.PngImagePlugin import PngInfo

from lucky_margin.core.document import Export
from lucky_margin.core.document.measures import MM_PER_UNIT
from lucky_margin.core.errors import BadInput
from lucky_margin.core.export.few_colours import MOST_COLOURS, in_few_colours
from lucky_margin.core.export.metadata import Metadata
from lucky_margin.core.export.pdf import SCREEN_PPI, Page, pdf, with_bleed
from lucky_margin.core.photos.profiles import srgb_profile
from lucky_margin.core.png import png
from lucky_margin.core.saving import saved
from lucky_margin.core.types import ImageFormat, Picture8

NOTHING_SAID = Metadata()

MM_PER_INCH = MM_PER_UNIT["in"]

PNG_XMP = "XML:com.adobe.xmp"
"""The keyword of a packet of metadata: the one that ISO 16684-3 (1.1.5) has readers look for."""

TIFF_XMP = 700
"""The tag of the same (ISO 16684-3, 1.1.7)."""

PNG_DESCRIPTION = "Description"
"""The keyword of what a picture shows (W3C, Portable Network Graphics, 11.3.3.1)."""

SUFFIXES: dict[ImageFormat, str] = {
    "jpeg": "jpg",
    "png": "png",
    "webp": "webp",
    "avif": "avif",
    "tiff": "tif",
    "gif": "gif",
    "bmp": "bmp",
    "pdf": "pdf",
}

MEDIA_TYPES: dict[ImageFormat, str] = {
    image_format: "application/pdf" if image_format == "pdf" else f"image/{image_format}"
    for image_format in SUFFIXES
}

MAX_SIDES: dict[ImageFormat, int] = {"webp": 16_383, "jpeg": 65_535, "avif": 65_535, "gif": 65_535}
"""The longest side of formats that hold fewer pixels than a size can have, or nearly so."""

MOST_OPTIMISED = 40_000_000
"""Pixels up to which memory is spent on lighter files: JPEG's code words suit the very picture, for
which the library holds all of its coefficients, six bytes a pixel, and a PNG is deflated in one
piece."""

FULL_COLOUR_QUALITY = 90
"""From this quality on, JPEG and AVIF keep colour at full resolution (4:4:4)."""


def encode(
    picture: Picture8, wanted: Export, *, quality: int, metadata: Metadata = NOTHING_SAID
) -> bytes:
    """``picture`` as a file of the wanted format, with an sRGB profile where that has a place.

    ``quality`` is 1..100; what is lossless has no use for it. JPEG, PNG, TIFF and BMP have a field
    for the resolution, a PDF has true lengths; the others say it in EXIF.

    Raises:
        BadInput: a side is longer than the format can hold.
    """
    longest = max(picture.shape[:2])
    most = MAX_SIDES.get(wanted.format)
    if most is not None and longest > most:
        raise BadInput(
            f"{wanted.format.upper()} holds at most {most} pixels to a side, "
            f"not {longest}; export as PNG or ask for fewer."
        )
    if wanted.format == "pdf":
        return pdf(_page(picture, wanted, quality, metadata.ppi or SCREEN_PPI), metadata)
    return _encoded(picture, wanted, quality, metadata)


def _page(picture: Picture8, wanted: Export, quality: int, ppi: float) -> Page:
    """``picture`` as a page of a PDF, in which it lies as a JPEG."""
    bleed = round(wanted.bleed / MM_PER_INCH * ppi)
    spread = with_bleed(picture, bleed)
    rows, columns = spread.shape[:2]
    jpeg = wanted.model_copy(update={"format": "jpeg"})
    return Page(_encoded(spread, jpeg, quality, NOTHING_SAID), (columns, rows), ppi, bleed)


def _encoded(picture: Picture8, wanted: Export, quality: int, metadata: Metadata) -> bytes:
    image_format = wanted.format
    options = carried(metadata, image_format) | _options(wanted, quality)
    if image_format not in ("gif", "bmp"):
        options["icc_profile"] = srgb_profile()
    if picture.shape[0] * picture.shape[1] > MOST_OPTIMISED:
        options.pop("optimize", None)
    elif image_format == "png" and not wanted.colours:
        return png(picture, **options)
    image = Image.fromarray(picture)
    if image_format == "gif" or (image_format == "png" and wanted.colours):
        image, transparent = in_few_colours(picture, wanted.colours or MOST_COLOURS)
        options |= transparent
    try:
        return saved(image, image_format, **options)
    except OSError:
        # Pillow's buffer for optimised JPEG is too small for noise at high quality.
        if not options.pop("optimize", False):
            raise
        return saved(image, image_format, **options)


def carried(metadata: Metadata, image_format: ImageFormat) -> dict[str, Any]:
    """What Pillow is told of ``metadata``."""
    options: dict[str, Any] = {}
    if metadata.ppi is not None and image_format in ("jpeg", "png", "tiff", "bmp"):
        options["dpi"] = (metadata.ppi, metadata.ppi)
    if image_format in ("gif", "bmp"):
        return options
    if metadata.exif:
        options["exif"] = metadata.exif
    if metadata.xmp and image_format == "png":
        options["pnginfo"] = PngInfo()
        options["pnginfo"].add_itxt(PNG_XMP, metadata.xmp.decode())
        if shown := metadata.alt_text or metadata.description:
            options["pnginfo"].add_itxt(PNG_DESCRIPTION, shown)
    elif metadata.xmp and image_format == "tiff":
        block = Image.Exif()
        block.load(metadata.exif)
        block[TIFF_XMP] = metadata.xmp
        options["exif"] = block
    elif metadata.xmp:
        options["xmp"] = metadata.xmp
    return options


def _options(wanted: Export, quality: int) -> dict[str, Any]:
    full_colour = wanted.chroma == "full" or (
        wanted.chroma == "auto" and quality >= FULL_COLOUR_QUALITY
    )
    match wanted.format:
        case "jpeg":
            return {
                "quality": quality,
                "optimize": True,
                "progressive": wanted.progressive,
                "subsampling": 0 if full_colour else 2,
            }
        case "webp":
            # Colours under transparency are kept, as in the other formats.
            return {
                "quality": quality,
                "method": 4,
                "exact": True,
                "lossless": wanted.lossless,
            }
        case "avif":
            return {
                "quality": quality,
                "speed": 6,
                "subsampling": "4:4:4" if full_colour else "4:2:0",
            }
        case "tiff":
            return {"compression": "tiff_lzw"}
        case _:
            return {}
