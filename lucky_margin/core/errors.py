"""Everything that can go wrong for a reason the user can act on.

Each message is one sentence that says what was wrong and the way out. The web layer maps a
class to a status code (``lucky_margin.web.problems``), the command line to exit code 2.

    LuckyMarginError
    ├── BadInput                 the request itself cannot be carried out
    │   ├── UnreadablePhoto      not a picture, broken, or of a kind that is not taken
    │   ├── UnreadableTable      no colour table, broken, or of a kind that is not taken
    │   ├── UnreadableFont       no font, broken, unsafe, or of a kind that is not taken
    │   ├── TooLarge             over a limit on bytes, pixels or sides
    │   └── BadDocument          a finish that does not validate
    ├── NotFound                 no such finish, photo, size, revision or export
    ├── Conflict                 right in itself, but not in the present state
    │   ├── StaleSave            somebody saved in between
    │   ├── PhotoInUse           finishes or kept subjects still refer to the photo
    │   └── FileExists           an output file that may not be replaced
    ├── OriginalMissing          the photo's original is not where it was kept
    ├── StorageFull              the disk took no more bytes
    └── UnusableFolder           a newer version's data folder, or one that another process holds
"""


class LuckyMarginError(Exception):
    """The root of the tree; never raised itself."""


class BadInput(LuckyMarginError):
    """The request cannot be carried out as it stands."""


class UnreadablePhoto(BadInput):
    """The bytes are no picture that can be read here."""


class UnreadableTable(BadInput):
    """The bytes are no colour table that can be read here."""


class UnreadableFont(BadInput):
    """The bytes are no font whose letters can be drawn here."""


class TooLarge(BadInput):
    """A limit on bytes, pixels or sides is exceeded."""


class BadDocument(BadInput):
    """A finish does not validate."""


class NotFound(LuckyMarginError):
    """What was asked for does not exist (any more)."""


class Conflict(LuckyMarginError):
    """The request is sound but does not fit the present state."""


class StaleSave(Conflict):
    """A save was based on an ``etag`` that is no longer current."""

    def __init__(self, message: str, *, etag: int) -> None:
        super().__init__(message)
        self.etag = etag


class PhotoInUse(Conflict):
    """A photo cannot be deleted while finishes refer to it."""

    def __init__(self, message: str, *, finishes: list[str]) -> None:
        super().__init__(message)
        self.finishes = finishes


class FileExists(Conflict):
    """An output file is already there and may not be replaced."""


class OriginalMissing(LuckyMarginError):
    """The original of a photo is not where it was kept."""


class StorageFull(LuckyMarginError):
    """The disk took no more bytes."""


class UnusableFolder(LuckyMarginError):
    """The data folder is a newer version's, or another process holds it."""
