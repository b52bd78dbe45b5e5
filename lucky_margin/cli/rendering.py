"""``lucky-margin render``: one size of a finish document."""

import argparse
import json
import re
from hashlib import sha256

from lucky_margin.cli.files import FONT_SUFFIXES, PHOTO_SUFFIXES, format_of, read_photo, write
from lucky_margin.core.document import ExportChanges, Finish, read_finish
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.export import export
from lucky_margin.core.photos import decode
from lucky_margin.core.scene import MemorySources, Scene
from lucky_margin.core.text import read_font
from lucky_margin.core.tone import read_cube


def render_document(chosen: argparse.Namespace) -> None:
    """Export the size that the options name.

    Raises:
        LuckyMarginError: the document, its photo or the size is not to be had.
    """
    try:
        document = json.loads(chosen.document.read_text(encoding="utf-8"))
    except ValueError as error:
        raise BadInput(f"{chosen.document} is not JSON; export the finish again.") from error
    finish = read_finish(document)
    size = next((one for one in finish.sizes if chosen.size in (one.name, one.id)), None)
    if size is None:
        names = ", ".join(f"“{one.name}”" for one in finish.sizes)
        raise NotFound(f"The finish has no size “{chosen.size}”; it has {names}.")
    wanted = finish.export_of(size)
    exported = wanted.model_copy(update={"format": format_of(chosen.out, None)})
    finish = finish.model_copy(update={"export": exported})
    size = size.with_overrides(export=ExportChanges())
    finish = finish.with_size(size)
    file = export(Scene(finish, size, _sources(finish, chosen)))
    write(file, chosen.out, chosen.replace)


def _sources(finish: Finish, chosen: argparse.Namespace) -> MemorySources:
    """What the document refers to by SHA-256: the photo that is named, and files beside it."""
    photos, tables, fonts = {}, {}, {}
    if chosen.photo:
        photo, digest = read_photo(chosen.photo)
        if finish.photo is None or digest != finish.photo.sha256:
            raise BadInput(
                f"{chosen.photo} is not the photo of this finish; name the one it is of."
            )
        photos[digest] = photo
    wanted = set(_SHA256.findall(finish.model_dump_json())) - set(photos)
    for path in sorted(chosen.document.resolve().parent.iterdir()):
        suffix = path.suffix.lower()
        if suffix not in _SUFFIXES or not path.is_file():
            continue
        data = path.read_bytes()
        digest = sha256(data).hexdigest()
        if digest not in wanted:
            continue
        if suffix in FONT_SUFFIXES:
            fonts[digest] = read_font(data, digest).face
        elif suffix == _TABLE:
            tables[digest] = read_cube(data)
        else:
            photos[digest] = decode(data, path.name)
    if finish.photo and finish.photo.sha256 not in photos:
        raise NotFound(
            f"The photo of this finish is not next to {chosen.document}; name it with --photo."
        )
    return MemorySources(photos, tables=tables, fonts=fonts)


_SHA256 = re.compile("[0-9a-f]{64}")
_TABLE = ".cube"
_SUFFIXES = PHOTO_SUFFIXES | FONT_SUFFIXES | {_TABLE, ".svg"}
