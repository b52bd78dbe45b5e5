"""What jobs bring, each kind of work its own."""

from lucky_margin.core.document import Sha256, Value
from lucky_margin.core.edits import Edit
from lucky_margin.core.proposals import Proposal
from lucky_margin.core.types import ImageFormat


class SuggestedEdit(Value):
    """What would bring a file under its cap."""

    label: str
    edit: Edit


class WeighedFile(Value):
    """A file as it would be saved, byte for byte."""

    sha256: Sha256
    bytes: int
    width: int
    height: int
    quality: int
    image_format: ImageFormat
    file_name: str
    meets_cap: bool
    suggestions: list[SuggestedEdit]


class ShelfChecked(Value):
    """What was found on the shelf: whether the database is sound, how many files were verified,
    which are damaged or missing, and how many nothing needs."""

    database: bool
    checked: int
    damaged: list[str]
    missing: list[str]
    unused: int
    unused_bytes: int


class BackupMade(Value):
    """An archive of the whole shelf that waits to be downloaded."""

    id: str
    bytes: int


JobResult = WeighedFile | Proposal | ShelfChecked | BackupMade
