"""What kind of photo some bytes are, found from the content and checked before decoding."""

import io
import warnings
from pathlib import PurePath

import pillow_heif
from PIL import Image, UnidentifiedImageError

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.photos.limits import MAX_PHOTO_BYTES, MAX_PHOTO_PIXELS, MAX_PHOTO_SIDE
from lucky_margin.core.photos.tiff import TiffHeader

Image.init()
pillow_heif.register_heif_opener()
# The limit below is checked here before any pixel is decoded, with a sentence of its own;
# Pillow's lower guard would warn first.
Image.MAX_IMAGE_PIXELS = None

FORMATS = ("JPEG", "PNG", "WEBP", "AVIF", "HEIF", "TIFF", "GIF", "BMP")

TAKEN = "JPEG, PNG, WebP, AVIF, HEIC, TIFF, GIF, BMP and SVG are accepted"

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


def check_file(data: bytes, name: str) -> None:
    """Check what can be told without opening the file. ``name`` is only for messages.

    Raises:
        UnreadablePhoto: it is empty, or a camera's raw file by its name.
        TooLarge: more bytes than the limit allows.
    """
    if not data:
        raise UnreadablePhoto(f"“{name}” is empty; pick the file again.")
    if len(data) > MAX_PHOTO_BYTES:
        raise TooLarge(
            f"“{name}” has {len(data) / 1e6:.0f} MB, more than the "
            f"{MAX_PHOTO_BYTES // 1_000_000} MB that are accepted; save it smaller first."
        )
    if PurePath(name).suffix.lower() in RAW_SUFFIXES:
        raise raw_refused(name)


def check_tiff(header: TiffHeader, name: str) -> None:
    """Check what a TIFF says of itself.

    Raises:
        UnreadablePhoto: a camera's raw file, or of a kind that can't be read rightly.
        TooLarge: more pixels, or a longer side, than the limits allow.
    """
    if header.is_raw:
        raise raw_refused(name)
    check_pixels(header.width, header.height, name)
    if header.unreadable_kind:
        raise UnreadablePhoto(
            f"“{name}” holds {header.unreadable_kind}; save it as RGB with 8 or 16 bits to a "
            "channel."
        )


def open_photo(data: bytes, name: str) -> Image.Image:
    """The photo in ``data``, opened but not yet decoded.

    Raises:
        UnreadablePhoto: no picture, a broken one, or of a kind that is not taken.
        TooLarge: more pixels than the limit allows.
    """
    image = _opened(data, name)
    check_pixels(*image.size, name)
    return image


def pixels_of(data: bytes) -> int:
    """How many pixels a photo says it has; 0 where nothing can be made of what it says."""
    try:
        image = _opened(data, "")
    except UnreadablePhoto:
        return 0
    return image.width * image.height


def check_pixels(width: int, height: int, name: str) -> None:
    """
    Raises:
        TooLarge: more pixels than the limit allows.
    """
    if max(width, height) > MAX_PHOTO_SIDE:
        raise TooLarge(
            f"“{name}” is {width} × {height} pixels; a side may have {MAX_PHOTO_SIDE}, so cut it "
            "into parts first."
        )
    if width * height > MAX_PHOTO_PIXELS:
        raise TooLarge(
            f"“{name}” is {width} × {height} pixels, more than the "
            f"{MAX_PHOTO_PIXELS // 1_000_000} megapixels that are accepted; save it smaller first."
        )


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


def raw_refused(name: str) -> UnreadablePhoto:
    """The refusal for a camera's raw file."""
    return UnreadablePhoto(f"“{name}” was not added: {RAW_REFUSAL}")
