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


JobResult = WeighedFile | Proposal
