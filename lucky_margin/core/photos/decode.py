"""Decoding: any photo's bytes to an upright picture in sRGB encoding (the image contract)."""

import contextlib
import warnings
from dataclasses import dataclass
from typing import cast

import cv2
import numpy as np
from PIL import Image, ImageCms

from lucky_margin.core.errors import UnreadablePhoto
from lucky_margin.core.photos.identify import broken, open_photo
from lucky_margin.core.photos.jpeg import decode_jpeg, is_cut_off
from lucky_margin.core.photos.profiles import is_srgb, to_srgb, to_srgb_16
from lucky_margin.core.photos.svg import draw_svg, is_svg
from lucky_margin.core.types import AnyPicture

_ORIENTATION, _ARTIST, _COPYRIGHT = 0x0112, 0x013B, 0x8298
"""EXIF 2.32 tags."""

_SWAPPED = {5, 6, 7, 8}
"""Orientations that turn a photo by a quarter."""

BROKEN_PROFILE = "Its colour profile is broken; its colours were taken as sRGB."


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


def decode(data: bytes, name: str = "the photo") -> DecodedPhoto:
    """The upright photo in ``data``; several frames or pages give the first.

    Raises:
        UnreadablePhoto: no picture, a broken one, or of a kind that is not taken.
        TooLarge: more bytes or pixels than the limits allow.
    """
    if is_svg(data):
        return _drawn(data, name)
    image = open_photo(data, name)
    notes: list[str] = []
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            frames = 1 if image.format == "MPO" else getattr(image, "n_frames", 1)
            deep = image.format in ("PNG", "TIFF") and _is_deep(image)
            exif = image.getexif()  # may load the pixels, so only after _is_deep
            read = _decode_deep if deep else _decode_plain
            picture = read(data, image, name, notes)
    except UnreadablePhoto:
        raise
    except Exception as error:  # decoders raise many kinds on hostile bytes
        raise broken(name) from error
    if frames > 1:
        notes.append(f"The first of {frames} frames or pages was taken.")
    # HEIC files are turned by their own property, which pillow-heif has carried out already.
    upright = _upright(picture, exif.get(_ORIENTATION, 1))
    height, width = upright.shape[:2]
    return DecodedPhoto(
        picture=upright,
        facts=PhotoFacts(
            width=width,
            height=height,
            file_format="JPEG" if image.format == "MPO" else str(image.format),
            bits=8 * upright.dtype.itemsize,
            has_alpha=upright.shape[2] == 4,
            author=_text(exif.get(_ARTIST)),
            copyright=_text(exif.get(_COPYRIGHT)),
            exif=image.info.get("exif", b""),
            notes=tuple(notes),
        ),
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


def _is_deep(image: Image.Image) -> bool:
    """Whether the file has more than 8 bits to a channel.

    Pillow reduces 16-bit colour to 8 when it decodes, but its raw mode still tells.
    """
    raw_modes = [str(tile[3]) for tile in getattr(image, "tile", [])]
    return image.mode.startswith(("I", "F")) or any("16" in mode for mode in raw_modes)


def _decode_deep(data: bytes, image: Image.Image, name: str, notes: list[str]) -> AnyPicture:
    """A 16-bit PNG or TIFF, which OpenCV reads unchanged (as BGR)."""
    decoded = cv2.imdecode(np.frombuffer(data, np.uint8), cv2.IMREAD_UNCHANGED)
    if decoded is None:
        raise broken(name)
    if decoded.dtype != np.uint16:
        raise UnreadablePhoto(
            f"“{name}” holds {decoded.dtype} values; save it with 8 or 16 bits to a channel."
        )
    if decoded.ndim == 2:
        decoded = decoded[:, :, np.newaxis]
    alpha = decoded[:, :, 3:] if decoded.shape[2] == 4 else decoded[:, :, :0]
    order = [2, 1, 0] if decoded.shape[2] >= 3 else [0, 0, 0]
    colours: AnyPicture = decoded[:, :, order].astype(np.uint16)
    profile = image.info.get("icc_profile")
    if profile and decoded.shape[2] >= 3 and not is_srgb(profile):
        try:
            colours = to_srgb_16(colours, profile)
        except (RuntimeError, ValueError):
            notes.append(BROKEN_PROFILE)
    return _without_idle_alpha(np.concatenate([colours, alpha], axis=2, dtype=np.uint16))


def _decode_plain(data: bytes, image: Image.Image, name: str, notes: list[str]) -> AnyPicture:
    if image.mode in ("I", "F", "I;16"):
        raise UnreadablePhoto(
            f"“{name}” holds values of an unusual kind; save it with 8 or 16 bits to a channel."
        )
    profile = image.info.get("icc_profile")
    is_plain = image.mode == "RGB" and (not profile or is_srgb(profile))
    if is_plain and image.format in ("JPEG", "MPO") and not is_cut_off(data):
        return decode_jpeg(data)
    image.seek(0)
    image.load()
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
    return _without_idle_alpha(np.dstack([colours, np.asarray(alpha)]).astype(np.uint8))


def _colours(image: Image.Image, profile: bytes | None, notes: list[str]) -> AnyPicture:
    """An RGB, L or CMYK image as RGB in sRGB."""
    if profile:
        try:
            if image.mode != "RGB" or not is_srgb(profile):
                image = to_srgb(image, profile)
        except (ImageCms.PyCMSError, OSError, ValueError, TypeError):
            notes.append(BROKEN_PROFILE)
    elif image.mode == "CMYK":
        notes.append("It has print colours (CMYK) without a profile; screen colours are a guess.")
    if image.mode != "RGB":
        image = image.convert("RGB")
    return np.frombuffer(image.tobytes(), np.uint8).reshape(image.height, image.width, 3)


def _without_idle_alpha(picture: AnyPicture) -> AnyPicture:
    """The picture without an alpha channel that is opaque everywhere."""
    if picture.shape[2] == 4 and picture[:, :, 3].min() == np.iinfo(picture.dtype).max:
        return cast(AnyPicture, np.ascontiguousarray(picture[:, :, :3]))
    return picture


def _upright(picture: AnyPicture, orientation: int) -> AnyPicture:
    """The picture with an EXIF orientation (1 to 8) carried out."""
    turned = picture.transpose(1, 0, 2) if orientation in _SWAPPED else picture
    if orientation in (2, 3, 6, 7):
        turned = turned[:, ::-1]
    if orientation in (3, 4, 7, 8):
        turned = turned[::-1]
    return cast(AnyPicture, np.ascontiguousarray(turned))


def _text(value: object) -> str:
    """An EXIF text without its padding, at most as long as a credit may be.

    Pillow reads the bytes as Latin-1, but programs write UTF-8 there.
    """
    text = str(value) if value else ""
    with contextlib.suppress(UnicodeError):
        text = text.encode("latin-1").decode()
    return text.strip(" \0")[:200]
