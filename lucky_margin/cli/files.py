"""Reading photos and writing finished files."""

from collections.abc import Iterator
from contextlib import contextmanager
from hashlib import sha256
from pathlib import Path
from typing import IO

from lucky_margin.core.errors import BadInput, FileExists
from lucky_margin.core.export import SUFFIXES, ExportedFile
from lucky_margin.core.photos import DecodedPhoto, decode
from lucky_margin.core.types import ImageFormat

FORMAT_OF_SUFFIX: dict[str, ImageFormat] = {
    **{f".{suffix}": image_format for image_format, suffix in SUFFIXES.items()},
    ".jpeg": "jpeg",
    ".tiff": "tiff",
}

PHOTO_SUFFIXES = frozenset(
    [".jpg", ".jpeg", ".png", ".webp", ".avif", ".heic", ".heif", ".tif", ".tiff", ".gif", ".bmp"]
)


FONT_SUFFIXES = frozenset([".ttf", ".otf"])


def read_photo(path: Path) -> tuple[DecodedPhoto, str]:
    """A photo and the SHA-256 of its bytes."""
    data = path.read_bytes()
    return decode(data, path.name), sha256(data).hexdigest()


def write(file: ExportedFile, path: Path, replace: bool) -> None:
    """Write the file, unless something is there that may not be replaced.

    Raises:
        BadInput: it is heavier than its cap.
        FileExists: something is at ``path`` already.
    """
    if not file.meets_cap:
        raise BadInput(
            f"{path.name} would weigh {len(file.data) / 1000:.0f} KB even at quality "
            f"{file.quality}; allow more, ask for fewer pixels or take another format."
        )
    write_bytes(file.data, path, replace)


def write_bytes(data: bytes, path: Path, replace: bool) -> None:
    """Write ``data``, unless something is there that may not be replaced.

    Raises:
        FileExists: something is at ``path`` already.
    """
    with written(path, replace) as file:
        file.write(data)


@contextmanager
def written(path: Path, replace: bool) -> Iterator[IO[bytes]]:
    """A file to write to, which is removed again when that fails.

    Raises:
        FileExists: something is at ``path`` already that may not be replaced.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    try:
        target = path.open("wb" if replace else "xb")
    except FileExistsError as error:
        raise FileExists(f"{path} already exists; add --replace to overwrite it.") from error
    with target:
        try:
            yield target
        except BaseException:
            path.unlink(missing_ok=True)
            raise


def format_of(out: Path, asked: ImageFormat | None) -> ImageFormat:
    """The format of OUT's suffix, which may not contradict ``--format``.

    Raises:
        BadInput: it does, or the suffix is none of a picture.
    """
    by_suffix = FORMAT_OF_SUFFIX.get(out.suffix.lower())
    if by_suffix is None:
        raise BadInput(f"{out} needs a suffix of {', '.join(FORMAT_OF_SUFFIX)}.")
    if asked and asked != by_suffix:
        raise BadInput(
            f"{out} is a {by_suffix} by its suffix, but --format says {asked}; drop one."
        )
    return by_suffix
