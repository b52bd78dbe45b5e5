"""What every proposal is."""

from typing import Literal

from pydantic import Field

from lucky_margin.core.document import Box, Value
from lucky_margin.core.edits import Edit
from lucky_margin.core.edits.steps import SetTone


class Proposal(Value):
    """What was found, in a sentence, and the edit that takes it; null when there is none."""

    message: str
    box: Box | None = Field(default=None, description="What it is about, in turned pixels.")
    edit: Edit | None = None


HowMuch = Literal["gentle", "as measured", "bold"]


class ToneChoice(Value):
    """One of the tones that are suggested."""

    name: HowMuch
    edit: SetTone


class ToneProposals(Value):
    """What was measured, in a sentence, and tones to choose from; none when nothing is wrong."""

    message: str
    choices: tuple[ToneChoice, ...] = ()
