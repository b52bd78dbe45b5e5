"""What several tests need: small photos, finishes of them, and a running service."""

import io
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image

from lucky_margin.core.document import Finish, FixedPixels, Size, new_finish
from lucky_margin.core.photos import DecodedPhoto, PhotoFacts, decode
from lucky_margin.core.scene import MemorySources, Scene, Sources
from lucky_margin.core.text import Face
from lucky_margin.core.types import AnyPicture

DEMO_PHOTOS = Path(__file__).parent.parent / "demo" / "photos"

SHA = "ab" * 32


def noise(width: int, height: int, channels: int = 3, dtype: Any = np.uint8) -> AnyPicture:
    """A picture of seeded noise over the whole range of ``dtype``."""
    top = np.iinfo(dtype).max
    return np.random.default_rng(7).integers(0, top + 1, (height, width, channels), dtype=dtype)


def gradient(width: int, height: int) -> AnyPicture:
    """A smooth picture, darker at the left and bluer at the bottom."""
    x, y = np.meshgrid(np.linspace(0, 1, width), np.linspace(0, 1, height))
    return (255 * np.stack([x, (x + y) / 2, y], axis=-1)).round().astype(np.uint8)


def sources_of(
    picture: AnyPicture,
    fonts: dict[str, Face] | None = None,
    others: dict[str, AnyPicture] | None = None,
    **facts: Any,
) -> MemorySources:
    """Sources with ``picture`` as the photo ``SHA``, and ``others`` by their hashes; ``facts`` are
    told of it whatever it is."""
    photos = {SHA: photo_of(picture, **facts)}
    photos |= {sha256: photo_of(other) for sha256, other in (others or {}).items()}
    return MemorySources(photos, fonts=fonts)


def photo_of(picture: AnyPicture, **facts: Any) -> DecodedPhoto:
    """A decoded photo of these pixels."""
    height, width, channels = picture.shape
    known = {
        "width": width,
        "height": height,
        "file_format": "PNG",
        "bits": 8 * picture.dtype.itemsize,
        "has_alpha": channels == 4,
    }
    return DecodedPhoto(picture, PhotoFacts(**known | facts))


def finish_of(width: int | None = None, height: int | None = None, **fields: Any) -> Finish:
    """A finish of the photo ``SHA``, as cropped or of fixed pixels, with ``fields`` set."""
    finish = new_finish(name="Test", photo_sha256=SHA)
    if width and height:
        size = finish.sizes[0].model_copy(
            update={"pixels": FixedPixels(width=width, height=height)}
        )
        finish = finish.with_size(size)
    return Finish.model_validate(finish.model_dump() | fields)


def scene_of(finish: Finish, sources: Sources) -> Scene:
    """The first size of ``finish``."""
    return Scene(finish, finish.sizes[0], sources)


def with_size(finish: Finish, **fields: Any) -> Finish:
    """The finish with ``fields`` of its only size changed."""
    size = Size.model_validate(finish.sizes[0].model_dump() | fields)
    return finish.with_size(size)


def encoded(picture: AnyPicture, image_format: str = "PNG", **options: Any) -> bytes:
    """``picture`` as a file."""
    buffer = io.BytesIO()
    Image.fromarray(picture).save(buffer, image_format, **options)
    return buffer.getvalue()


@cache
def demo_sources(name: str) -> MemorySources:
    """Sources with a demo photo as the photo ``SHA``."""
    return MemorySources({SHA: decode((DEMO_PHOTOS / name).read_bytes(), name)})
