"""Many photos finished alike, in a house style or like a finish: what becomes of each."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from hashlib import sha256

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    NO_ROW,
    Finish,
    HouseStyle,
    Row,
    new_finish,
)
from lucky_margin.core.export import ExportedFile, PackageFiles, export, safe_stem
from lucky_margin.core.photos import DecodedPhoto, decode
from lucky_margin.core.proposals import started, started_like
from lucky_margin.core.scene import MemorySources, Scene
from lucky_margin.core.text import Face, read_font
from lucky_margin.core.tone import ColourTable, read_cube

Model = HouseStyle | Finish
"""What photos are finished in, or like."""

LONGEST_NAME = 110
_NAME = "{name}"


@dataclass(frozen=True)
class Material:
    """A style, or a finish, with the pictures, fonts and colour tables that it needs, ready to be
    used."""

    model: Model
    photos: dict[str, DecodedPhoto]
    fonts: dict[str, Face]
    tables: dict[str, ColourTable]

    @classmethod
    def of(cls, model: Model, files: PackageFiles) -> "Material":
        """
        Raises:
            LuckyMarginError: one of the files can't be read.
        """
        return cls(
            model,
            {key: decode(data, name) for key, (name, data) in files.photos.items()},
            {key: read_font(data, key).face for key, data in files.fonts.items()},
            {key: read_cube(data) for key, data in files.tables.items()},
        )


@dataclass(frozen=True)
class FinishedPhoto:
    """The files of a finished photo, and what asks for a look at it, a line for each reason."""

    files: tuple[ExportedFile, ...]
    looks: tuple[str, ...]
    subject_is_doubtful: bool


def finish_photo(
    data: bytes, file_name: str, name: str, material: Material, row: Row = NO_ROW
) -> FinishedPhoto:
    """A photo (the bytes of its file) finished like the material's model, every size a file.
    ``name`` is the finish's, which no other one of the same batch has; every file's name holds it,
    wherever the model's pattern puts it.

    Raises:
        LuckyMarginError: the photo can't be read, or not be finished in this way.
    """
    digest = sha256(data).hexdigest()
    sources = MemorySources(
        material.photos | {digest: decode(data, file_name)},
        tables=material.tables,
        fonts=material.fonts,
    )
    model = material.model
    if isinstance(model, HouseStyle):
        finish = started(new_finish(name=name, photo_sha256=digest), sources, model, row)
    else:
        finish = started_like(model, digest, name, sources, row)
    scenes = [Scene(finish, size, sources) for size in finish.sizes]
    found: dict[str, list[str]] = {}
    for scene in scenes:
        for key, text in {one.key: one.text for one in check(scene) if one.asks_for_a_look}.items():
            found.setdefault(key, []).append(f"{scene.size.name}: {text}")
    return FinishedPhoto(
        files=tuple(_named(export(scene), finish) for scene in scenes),
        looks=tuple(_of_sizes(texts) for texts in found.values()),
        subject_is_doubtful="subject" in found,
    )


def _of_sizes(texts: list[str]) -> str:
    """What is said of the first size, and of how many others much the same is."""
    others = len(texts) - 1
    more = f" (And {others} more size{'' if others == 1 else 's'}.)" if others else ""
    return f"{texts[0]}{more}"


def _named(file: ExportedFile, finish: Finish) -> ExportedFile:
    if _NAME in finish.export.name_pattern:
        return file
    return replace(file, file_name=f"{safe_stem(finish.name)}-{file.file_name}")


def names_of(stems: Sequence[str]) -> list[str]:
    """A name for each photo, never two that files could not be told apart by."""
    names: list[str] = []
    taken: set[str] = set()
    for stem in stems:
        short, name, count = stem[:LONGEST_NAME], stem[:LONGEST_NAME], 1
        while safe_stem(name) in taken:
            count += 1
            name = f"{short} {count}"
        taken.add(safe_stem(name))
        names.append(name)
    return names
