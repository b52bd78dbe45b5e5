"""Decoding: any photo's bytes to an upright picture in sRGB encoding (the image contract)."""

import warnings
from collections.abc import Callable
from dataclasses import dataclass
from typing import cast

import imagecodecs
import numpy as np
from PIL import Image, ImageCms
from PIL.ExifTags import Base

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.photos.credits import Credits, credits_of
from lucky_margin.core.photos.identify import broken, check_file, check_tiff, open_photo
from lucky_margin.core.photos.jpeg import decode_jpeg, is_cut_off
from lucky_margin.core.photos.profiles import array_to_srgb, is_srgb, to_srgb
from lucky_margin.core.photos.svg import draw_svg, is_svg
from lucky_margin.core.photos.tiff import is_tiff, read_header
from lucky_margin.core.types import AnyPicture, Picture8

_STRIP_ROWS = 256

_PNG_BIT_DEPTH = 24
"""Where a PNG holds its bits to a channel: in the header chunk, which comes first."""

_SWAPPED = {5, 6, 7, 8}
"""Orientations that turn a photo by a quarter."""

BROKEN_PROFILE = "Its colour profile is broken; its colours are read as sRGB."


@dataclass(frozen=True)
class PhotoFacts:
    """What is known of a photo without its pixels; sides are those of the upright photo."""

    width: int
    height: int
    file_format: str
    bits: int
    has_alpha: bool
    author: str = ""
    copyright: str = ""
    exif: bytes = b""
    notes: tuple[str, ...] = ()


@dataclass(frozen=True)
class DecodedPhoto:
    """A photo's pixels, upright and in sRGB encoding, and its facts."""

    picture: AnyPicture
    facts: PhotoFacts


@dataclass(frozen=True)
class _Read:
    """A photo as its file stores it, not yet turned upright."""

    picture: AnyPicture
    file_format: str
    frames: int
    orientation: object
    credits: Credits
    exif: bytes = b""


def decode(data: bytes, name: str = "the photo") -> DecodedPhoto:
    """The upright photo in ``data``; several frames or pages give the first.

    Raises:
        UnreadablePhoto: no picture, a broken one, or of a kind that is not taken.
        TooLarge: more bytes or pixels than the limits or the free memory allow.
    """
    if is_svg(data):
        return _drawn(data, name)
    check_file(data, name)
    notes: list[str] = []
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")  # Pillow's, of damaged metadata round a good picture
            read = _read(data, name, notes)
    except MemoryError as error:
        raise TooLarge(
            f"“{name}” needs more memory than is free; close other programs or save it smaller."
        ) from error
    except (UnreadablePhoto, TooLarge):
        raise
    except Exception as error:  # decoders raise many kinds on hostile bytes
        raise broken(name) from error
    if read.frames > 1:
        notes.append(f"The first of {read.frames} frames or pages is used.")
    # HEIC files are turned by their own property, which pillow-heif has carried out already.
    upright = _upright(read.picture, read.orientation)
    height, width = upright.shape[:2]
    return DecodedPhoto(
        picture=upright,
        facts=PhotoFacts(
            width=width,
            height=height,
            file_format=read.file_format,
            bits=8 * upright.dtype.itemsize,
            has_alpha=upright.shape[2] == 4,
            author=read.credits.author,
            copyright=read.credits.copyright,
            exif=read.exif,
            notes=tuple(notes),
        ),
    )


def _read(data: bytes, name: str, notes: list[str]) -> _Read:
    header = read_header(data) if is_tiff(data) else None
    if header:
        check_tiff(header, name)
        if header.for_libtiff:
            return _Read(
                picture=_in_srgb(header.decode(data), header.profile, notes),
                file_format="TIFF",
                frames=header.pages,
                orientation=header.orientation,
                credits=credits_of(header.artist, header.copyright, header.xmp),
            )
    image = open_photo(data, name)
    frames = 1 if image.format == "MPO" else getattr(image, "n_frames", 1)
    if image.format == "PNG" and data[_PNG_BIT_DEPTH] == 16:
        decoded = imagecodecs.png_decode(data)
        deep = decoded if decoded.ndim == 3 else decoded[:, :, np.newaxis]
        picture = _in_srgb(deep, image.info.get("icc_profile"), notes)
    else:
        picture = _decode_plain(data, image, name, notes)
    exif = image.getexif()
    return _Read(
        picture=picture,
        file_format="JPEG" if image.format == "MPO" else str(image.format),
        frames=frames,
        orientation=exif.get(Base.Orientation, 1),
        credits=credits_of(
            exif.get(Base.Artist), exif.get(Base.Copyright), image.info.get("xmp", b"")
        ),
        exif=image.info.get("exif") or b"",
    )


def _drawn(data: bytes, name: str) -> DecodedPhoto:
    picture, notes = draw_svg(data, name)
    height, width = picture.shape[:2]
    shown = _without_idle_alpha(picture)
    has_alpha = shown.shape[2] == 4
    facts = PhotoFacts(
        width=width, height=height, file_format="SVG", bits=8, has_alpha=has_alpha,
        notes=tuple(notes),
    )  # fmt: skip
    return DecodedPhoto(shown, facts)


def _in_srgb(decoded: AnyPicture, profile: bytes | None, notes: list[str]) -> AnyPicture:
    """A decoded picture of 1 to 4 channels (grey or RGB, perhaps alpha) by the image contract."""
    has_alpha = decoded.shape[2] in (2, 4)
    colours = decoded[:, :, :-1] if has_alpha else decoded
    if profile and not (colours.shape[2] == 3 and is_srgb(profile)):
        try:
            colours = array_to_srgb(colours, profile)
        except (imagecodecs.CmsError, RuntimeError, ValueError):
            notes.append(BROKEN_PROFILE)
    if colours.shape[2] == 1:
        colours = cast(AnyPicture, np.repeat(colours, 3, axis=2))
    if not has_alpha:
        return cast(AnyPicture, np.ascontiguousarray(colours))
    return _without_idle_alpha(
        cast(AnyPicture, np.concatenate([colours, decoded[:, :, -1:]], axis=2))
    )


def _decode_plain(data: bytes, image: Image.Image, name: str, notes: list[str]) -> AnyPicture:
    if image.mode in ("I", "F", "I;16"):
        raise UnreadablePhoto(
            f"“{name}” holds values of an unusual kind; save it with 8 or 16 bits to a channel."
        )
    profile = image.info.get("icc_profile")
    is_plain = image.mode == "RGB" and (not profile or is_srgb(profile))
    if is_plain and image.format in ("JPEG", "MPO") and not is_cut_off(data):
        return decode_jpeg(data)
    if image.format == "WEBP" and getattr(image, "n_frames", 1) == 1 and not profile:
        # Pillow plays even a still WebP as an animation, which takes three times the memory.
        return _without_idle_alpha(imagecodecs.webp_decode(data))
    image.seek(0)
    image.load()
    if image.mode == "RGBA" and (not profile or is_srgb(profile)):
        return _without_idle_alpha(_pixels(image, "RGBA"))
    if image.mode == "P" or "transparency" in image.info:
        image = image.convert("RGBA" if "transparency" in image.info else "RGB")
    alpha = image.getchannel("A") if image.mode in ("LA", "PA", "RGBA", "La", "RGBa") else None
    if image.mode == "1":
        image = image.convert("L")
    if image.mode in ("LA", "La"):
        image = image.convert("LA").getchannel("L")
    if image.mode not in ("RGB", "L", "CMYK"):
        image = image.convert("RGB")
    colours = _colours(image, profile, notes)
    if alpha is None:
        return colours
    return _without_idle_alpha(np.dstack([colours, np.asarray(alpha)]))


def _colours(image: Image.Image, profile: bytes | None, notes: list[str]) -> AnyPicture:
    """An RGB, L or CMYK image as RGB in sRGB."""
    convert = None
    if profile:
        try:
            if image.mode != "RGB" or not is_srgb(profile):
                convert = to_srgb(profile, image.mode)
        except (ImageCms.PyCMSError, OSError, ValueError, TypeError):
            notes.append(BROKEN_PROFILE)
    elif image.mode == "CMYK":
        notes.append(
            "It has print colours (CMYK) without a profile; its screen colours are a guess."
        )
    return _pixels(image, "RGB", convert)


def _pixels(
    image: Image.Image, mode: str, convert: Callable[[Image.Image], Image.Image] | None = None
) -> Picture8:
    """An image's pixels in a mode, to which a profile may ``convert`` them, copied in strips: asked
    for all of them, Pillow makes three copies."""
    out = np.empty((image.height, image.width, len(mode)), np.uint8)
    for top in range(0, image.height, _STRIP_ROWS):
        bottom = min(image.height, top + _STRIP_ROWS)
        strip = image.crop((0, top, image.width, bottom))
        out[top:bottom] = np.asarray(convert(strip) if convert else strip.convert(mode))
    return out


def _without_idle_alpha(picture: AnyPicture) -> AnyPicture:
    """The picture without an alpha channel that is opaque everywhere."""
    if picture.shape[2] == 4 and picture[:, :, 3].min() == np.iinfo(picture.dtype).max:
        return cast(AnyPicture, np.ascontiguousarray(picture[:, :, :3]))
    return picture


def _upright(picture: AnyPicture, orientation: object) -> AnyPicture:
    """The picture with an EXIF orientation (1 to 8) carried out."""
    turned = picture.transpose(1, 0, 2) if orientation in _SWAPPED else picture
    if orientation in (2, 3, 6, 7):
        turned = turned[:, ::-1]
    if orientation in (3, 4, 7, 8):
        turned = turned[::-1]
    return cast(AnyPicture, np.ascontiguousarray(turned))
