"""What kind of photo some bytes are, found from the content and checked before decoding."""

import io
import warnings
from pathlib import PurePath

import pillow_heif
from PIL import Image, TiffImagePlugin, UnidentifiedImageError

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.photos.limits import MAX_PHOTO_BYTES, MAX_PHOTO_PIXELS

Image.init()
pillow_heif.register_heif_opener()
# The limit below is checked here before any pixel is decoded, with a sentence of its own;
# Pillow's lower guard would warn first.
Image.MAX_IMAGE_PIXELS = None

FORMATS = ("JPEG", "PNG", "WEBP", "AVIF", "HEIF", "TIFF", "GIF", "BMP")

TAKEN = "JPEG, PNG, WebP, AVIF, HEIC, TIFF, GIF, BMP and SVG are taken"

# File suffixes of what cameras save raw: sensor readings instead of a picture.
RAW_SUFFIXES = frozenset(
    {".3fr", ".arw", ".cr2", ".cr3", ".dcr", ".dng", ".erf", ".fff", ".iiq", ".kdc", ".mef"}
    | {".mos", ".mrw", ".nef", ".nrw", ".orf", ".pef", ".raf", ".raw", ".rw2", ".rwl"}
    | {".sr2", ".srf", ".srw", ".x3f"}
)
RAW_REFUSAL = (
    "the raw files of a camera need to be saved as JPEG or TIFF first, "
    "in the program that came with it."
)

# TIFF 6.0 PhotometricInterpretation and TIFF/EP (ISO 12234-2) tags that raw files carry.
_PHOTOMETRIC, _SUB_IFDS, _DNG_VERSION = 262, 330, 50706
_SENSOR_PHOTOMETRICS = {32803, 34892}  # colour filter array, linear raw


def open_photo(data: bytes, name: str) -> Image.Image:
    """The photo in ``data``, opened but not yet decoded. ``name`` is only for messages.

    Raises:
        UnreadablePhoto: no picture, a broken one, or of a kind that is not taken.
        TooLarge: more bytes or pixels than the limits allow.
    """
    if not data:
        raise UnreadablePhoto(f"“{name}” is empty; pick the file again.")
    if len(data) > MAX_PHOTO_BYTES:
        raise TooLarge(
            f"“{name}” has {len(data) / 1e6:.0f} MB, more than the "
            f"{MAX_PHOTO_BYTES // 1_000_000} MB that are taken; save it smaller first."
        )
    if PurePath(name).suffix.lower() in RAW_SUFFIXES:
        raise UnreadablePhoto(f"“{name}” was not taken: {RAW_REFUSAL}")
    image = _opened(data, name)
    width, height = image.size
    if width * height > MAX_PHOTO_PIXELS:
        raise TooLarge(
            f"“{name}” is {width} x {height} pixels, more than the "
            f"{MAX_PHOTO_PIXELS // 1_000_000} megapixels that are taken; save it smaller first."
        )
    if isinstance(image, TiffImagePlugin.TiffImageFile) and _is_raw(image):
        raise UnreadablePhoto(f"“{name}” was not taken: {RAW_REFUSAL}")
    return image


def _opened(data: bytes, name: str) -> Image.Image:
    try:
        with warnings.catch_warnings():
            # A damaged EXIF block is Pillow's warning; the picture is still good.
            warnings.simplefilter("ignore")
            return Image.open(io.BytesIO(data), formats=FORMATS)
    except UnidentifiedImageError as error:
        raise UnreadablePhoto(f"“{name}” is not a picture that can be read; {TAKEN}.") from error
    except Exception as error:  # Pillow's parsers raise many kinds on hostile bytes
        raise broken(name) from error


def broken(name: str) -> UnreadablePhoto:
    """The refusal for a file that starts like a picture but does not go on like one."""
    return UnreadablePhoto(
        f"“{name}” is damaged or cut off and can't be read; copy it again from where it came from."
    )


def _is_raw(image: TiffImagePlugin.TiffImageFile) -> bool:
    tags = image.tag_v2
    if _DNG_VERSION in tags or tags.get(_PHOTOMETRIC) in _SENSOR_PHOTOMETRICS:
        return True
    if _SUB_IFDS not in tags:
        return False
    try:
        nested = image.getexif().get_ifd(_SUB_IFDS)
    except (KeyError, OSError, SyntaxError, TypeError, ValueError):
        return False
    return isinstance(nested, dict) and nested.get(_PHOTOMETRIC) in _SENSOR_PHOTOMETRICS
