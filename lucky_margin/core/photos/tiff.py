"""TIFF files: what kind one is, told by its own tags, and reading those that Pillow gets wrong.

Pillow reduces 16-bit colour to 8 bits and does not read every arrangement of channels. So the
tags are looked at before anything else, 16-bit and planar files are decoded by libtiff, and what
can't be read rightly is refused with the true reason. Tags and their values: TIFF 6.0.
"""

import io
import struct
from dataclasses import dataclass
from typing import Any, cast

import imagecodecs
import numpy as np
from PIL import TiffImagePlugin
from PIL.ExifTags import Base

from lucky_margin.core.types import AnyPicture

_MAGIC = (b"II*\0", b"MM\0*", b"II+\0", b"MM\0+")
_UNSIGNED = 1
_KINDS_OF_VALUES = {2: "signed", 3: "floating-point"}
_WHITE_IS_ZERO, _BLACK_IS_ZERO, _RGB, _PRINT_COLOURS = 0, 1, 2, 5
_PREMULTIPLIED, _STRAIGHT = 1, 2
_SEPARATE_PLANES = 2

# TIFF/EP (ISO 12234-2) and DNG: photometric interpretations of sensor readings.
_SENSOR_READINGS = {32803, 34892}  # colour filter array, linear raw

MOST_CHANNELS = 8
"""Of a file that is read; the first three or four are used."""

_MOST_PAGES = 1000
"""Pages that are counted."""


@dataclass(frozen=True)
class TiffHeader:
    """What the tags of a TIFF's first page say; sides are in pixels, as stored."""

    width: int
    height: int
    bits: tuple[int, ...]
    value_kind: int
    photometric: int
    planar: bool
    alpha: int
    orientation: int
    artist: Any
    copyright: Any
    xmp: bytes
    profile: bytes | None
    pages: int
    is_raw: bool

    @property
    def for_libtiff(self) -> bool:
        """Whether this is one of the files that Pillow gets wrong."""
        return self._is_plain_colour and (max(self.bits) == 16 or self.planar)

    @property
    def unreadable_kind(self) -> str:
        """What keeps the file from being read rightly, in words; empty when nothing does."""
        bits = max(self.bits)
        if self.value_kind in _KINDS_OF_VALUES or bits > 16:
            return f"{_KINDS_OF_VALUES.get(self.value_kind, 'whole')} numbers of {bits} bits"
        if bits == 16 and not self._is_plain_colour and self.photometric != _PRINT_COLOURS:
            return "16-bit values that are not RGB, grey or CMYK"
        if len(self.bits) > MOST_CHANNELS:
            return f"more than {MOST_CHANNELS} channels"
        return ""

    def decode(self, data: bytes) -> AnyPicture:
        """The first page, as stored, 1 to 4 channels: grey or RGB, perhaps straight alpha.

        Raises:
            imagecodecs.TiffError: it is damaged.
        """
        decoded = imagecodecs.tiff_decode(data, index=0)
        if decoded.ndim == 2:
            decoded = decoded[:, :, np.newaxis]
        elif self.planar:
            decoded = np.moveaxis(decoded, 0, 2)
        if self.photometric == _WHITE_IS_ZERO:
            decoded = np.concatenate([~decoded[:, :, :1], decoded[:, :, 1:]], axis=2)
        colours = 3 if self.photometric == _RGB else 1
        if decoded.shape[2] == colours or self.alpha not in (_PREMULTIPLIED, _STRAIGHT):
            return cast(AnyPicture, decoded[:, :, :colours])
        shown = cast(AnyPicture, decoded[:, :, : colours + 1])
        return _straight(shown) if self.alpha == _PREMULTIPLIED else shown

    @property
    def _is_plain_colour(self) -> bool:
        return self.photometric in (_WHITE_IS_ZERO, _BLACK_IS_ZERO, _RGB)


def is_tiff(data: bytes) -> bool:
    """Whether some bytes look like a TIFF file."""
    return data[:4] in _MAGIC


def read_header(data: bytes) -> TiffHeader | None:
    """The header of a TIFF; None when it is damaged."""
    file = io.BytesIO(data)
    try:
        start = file.read(16)
        first = _directory(start, file, None)
        header = TiffHeader(
            width=_one(first, Base.ImageWidth, 0),
            height=_one(first, Base.ImageLength, 0),
            bits=_several(first, Base.BitsPerSample, 1),
            value_kind=max(_several(first, Base.SampleFormat, _UNSIGNED)),
            photometric=_one(first, Base.PhotometricInterpretation, _BLACK_IS_ZERO),
            planar=_one(first, Base.PlanarConfiguration, 1) == _SEPARATE_PLANES
            and _one(first, Base.SamplesPerPixel, 1) > 1,
            alpha=_several(first, Base.ExtraSamples, 0)[0],
            orientation=_one(first, Base.Orientation, 1),
            artist=first.get(Base.Artist),
            copyright=first.get(Base.Copyright),
            xmp=first.get(Base.XMLPacket, b""),
            profile=first.get(Base.InterColorProfile),
            pages=_count_pages(start, first.next, file),
            is_raw=_is_raw(first, start, file),
        )
    except (SyntaxError, ValueError, TypeError, LookupError, OSError, OverflowError, struct.error):
        return None
    return header if min(header.width, header.height, *header.bits) > 0 else None


def _directory(
    start: bytes, file: io.BytesIO, place: int | None
) -> TiffImagePlugin.ImageFileDirectory_v2:
    """The directory of tags at ``place``; None is the first one."""
    is_big = b"+" in start[2:4]
    directory = TiffImagePlugin.ImageFileDirectory_v2(start if is_big else start[:8])
    file.seek(directory.next if place is None else place)
    directory.load(file)
    return directory


def _several(tags: Any, tag: int, default: int) -> tuple[int, ...]:
    value = tags.get(tag, default)
    values = value if isinstance(value, tuple) and value else (value,)
    return tuple(int(one) for one in values)


def _one(tags: Any, tag: int, default: int) -> int:
    return _several(tags, tag, default)[0]


def _is_raw(first: Any, start: bytes, file: io.BytesIO) -> bool:
    """Whether this is a camera's raw file, whose first page may be a plain small picture."""
    if Base.DNGVersion in first:
        return True
    places = _several(first, Base.SubIFDs, 0) if Base.SubIFDs in first else ()
    directories = [first, *(_directory(start, file, place) for place in places[:_MOST_PAGES])]
    kinds = {_one(one, Base.PhotometricInterpretation, 0) for one in directories}
    return bool(kinds & _SENSOR_READINGS)


def _count_pages(start: bytes, following: int, file: io.BytesIO) -> int:
    pages, seen = 1, {0}
    while following not in seen and pages < _MOST_PAGES:
        seen.add(following)
        directory = _directory(start, file, following)
        pages, following = pages + 1, directory.next
    return pages


def _straight(picture: AnyPicture) -> AnyPicture:
    """A picture whose colours are multiplied by its last channel, with straight alpha."""
    top = int(np.iinfo(picture.dtype).max)
    colours, alpha = picture[:, :, :-1].astype(np.uint64), picture[:, :, -1:].astype(np.uint64)
    divided = (colours * top + alpha // 2) // np.maximum(alpha, 1)
    straight = np.minimum(divided, top).astype(picture.dtype)
    return cast(AnyPicture, np.concatenate([straight, picture[:, :, -1:]], axis=2))
