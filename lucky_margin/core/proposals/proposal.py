"""What every proposal is."""

from pydantic import Field

from lucky_margin.core.document import Box, Value
from lucky_margin.core.edits import Edit


class Proposal(Value):
    """What was found, in a sentence, and the edit that takes it; null when there is none."""

    message: str
    box: Box | None = Field(default=None, description="What it is about, in turned pixels.")
    edit: Edit | None = None
