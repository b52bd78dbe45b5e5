"""The names of a finish's files: one for each size, never two alike."""

from lucky_margin.core.document import Finish
from lucky_margin.core.export.encode import SUFFIXES
from lucky_margin.core.export.names import file_stem, unlike
from lucky_margin.core.framing import frame_of
from lucky_margin.core.photos import PhotoFacts


def file_names(finish: Finish, facts: PhotoFacts) -> dict[str, str]:
    """The file name of each size, by its id; what would be a second one alike gets a number.

    Raises:
        BadInput: the name pattern does not suit.
    """
    names: dict[str, str] = {}
    for size in finish.sizes:
        wanted = finish.export_of(size)
        output = frame_of(finish, size, facts.width, facts.height).output
        stem = file_stem(
            wanted.name_pattern,
            name=finish.name,
            size=size.name,
            width=output.width,
            height=output.height,
        )
        names[size.id] = unlike(f"{stem}.{SUFFIXES[wanted.format]}", names.values())
    return names
