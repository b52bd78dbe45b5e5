"""Exporting: one size of a finish as the file that will be saved."""

import hashlib
from dataclasses import dataclass, replace
from functools import cached_property

from lucky_margin.core.document import FixedPixels
from lucky_margin.core.export.encode import encode
from lucky_margin.core.export.file_names import file_names
from lucky_margin.core.export.metadata import metadata_of
from lucky_margin.core.export.weight import (
    BYTES_PER_KB,
    LOSSLESS_QUALITY,
    QUALITY_FLOOR,
    Encoded,
    Remedy,
    best_under,
    remedies,
)
from lucky_margin.core.progress import Progress, part_of, untold
from lucky_margin.core.render import render
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import ImageFormat

DRAWN = 0.5
"""Share of the work that is done when the picture is drawn and still has to be encoded."""


@dataclass(frozen=True)
class ExportedFile:
    """A finished file, byte for byte as it will be saved."""

    data: bytes
    file_name: str
    image_format: ImageFormat
    width: int
    height: int
    quality: int
    max_kb: float | None
    remedies: tuple[Remedy, ...] = ()

    @cached_property
    def sha256(self) -> str:
        """Of its bytes."""
        return hashlib.sha256(self.data).hexdigest()

    @property
    def meets_cap(self) -> bool:
        """Whether the file is as light as was asked, or nothing was asked."""
        return self.max_kb is None or len(self.data) <= self.max_kb * BYTES_PER_KB


def export(scene: Scene, progress: Progress = untold) -> ExportedFile:
    """A size as a file: exactly its pixels, in its format, under its weight cap if it can be.

    Raises:
        Cancelled: by ``progress``.
        BadInput: the name pattern or a side does not suit.
        NotFound, OriginalMissing: the photo is not to be had.
        TooLarge: the size comes to too many pixels.
    """
    finish, size, facts = scene.finish, scene.size, scene.facts
    wanted = finish.export_of(size)
    names = file_names(finish, facts)
    picture = render(scene)
    progress(DRAWN)
    height, width = picture.shape[:2]
    printed = size.pixels.printed if isinstance(size.pixels, FixedPixels) else None
    metadata = metadata_of(wanted, facts, printed.ppi if printed else None)

    def weigh_at(width: int, height: int) -> int:
        smaller = size.model_copy(update={"pixels": FixedPixels(width=width, height=height)})
        drawn = render(replace(scene, finish=finish.with_size(smaller), size=smaller))
        return len(encode(drawn, wanted, quality=QUALITY_FLOOR, metadata=metadata))

    def encode_at(quality: int) -> bytes:
        return encode(picture, wanted, quality=quality, metadata=metadata)

    cap = wanted.max_kb
    if wanted.is_lossless:
        encoded = Encoded(encode_at(LOSSLESS_QUALITY), LOSSLESS_QUALITY)
    elif cap is None:
        encoded = Encoded(encode_at(wanted.quality), wanted.quality)
    else:
        encoded = best_under(cap, encode_at, part_of(progress, DRAWN, 1))
    weight = len(encoded.data)
    too_heavy = cap is not None and weight > cap * BYTES_PER_KB
    found: list[Remedy] = []
    if cap is not None and too_heavy:
        found = remedies(picture, wanted, weight, cap, weigh_at)
    return ExportedFile(
        data=encoded.data,
        file_name=names[size.id],
        image_format=wanted.format,
        width=width,
        height=height,
        quality=encoded.quality,
        max_kb=cap,
        remedies=tuple(found),
    )
