"""``lucky-margin render``: one size of a finish document."""

import argparse
import json
from hashlib import sha256

from lucky_margin.cli.files import PHOTO_SUFFIXES, format_of, read_photo, write
from lucky_margin.core.document import ExportChanges, Finish, read_finish
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.export import export
from lucky_margin.core.photos import DecodedPhoto, decode
from lucky_margin.core.render import MemorySources


def render_document(chosen: argparse.Namespace) -> None:
    """Export the size that the options name.

    Raises:
        LuckyMarginError: the document, its photo or the size is not to be had.
    """
    try:
        document = json.loads(chosen.document.read_text(encoding="utf-8"))
    except ValueError as error:
        raise BadInput(f"{chosen.document} is no JSON; export the finish again.") from error
    finish = read_finish(document)
    size = next((one for one in finish.sizes if chosen.size in (one.name, one.id)), None)
    if size is None:
        names = ", ".join(f"“{one.name}”" for one in finish.sizes)
        raise NotFound(f"The finish has no size “{chosen.size}”; it has {names}.")
    wanted = finish.export_of(size)
    own = wanted.model_copy(update={"format": format_of(chosen.out, None)})
    finish = finish.model_copy(update={"export": own})
    size = size.model_copy(update={"own": size.own.model_copy(update={"export": ExportChanges()})})
    finish = finish.with_size(size)
    photo = _photo_of(finish, chosen)
    file = export(finish, size, MemorySources({finish.photo.sha256: photo}))
    write(file, chosen.out, chosen.replace)


def _photo_of(finish: Finish, chosen: argparse.Namespace) -> DecodedPhoto:
    """The document's photo: the one named, or the one beside it with the right SHA-256."""
    wanted = finish.photo.sha256
    if chosen.photo:
        photo, digest = read_photo(chosen.photo)
        if digest != wanted:
            raise BadInput(
                f"{chosen.photo} is not the photo of this finish; name the one it is of."
            )
        return photo
    for path in sorted(chosen.document.resolve().parent.iterdir()):
        if path.suffix.lower() in PHOTO_SUFFIXES and path.is_file():
            data = path.read_bytes()
            if sha256(data).hexdigest() == wanted:
                return decode(data, path.name)
    raise NotFound(
        f"The photo of this finish is not beside {chosen.document}; name it with --photo."
    )
