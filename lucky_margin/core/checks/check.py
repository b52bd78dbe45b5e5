"""What a check says."""

from typing import Literal

from lucky_margin.core.document import Value
from lucky_margin.core.edits import Edit


def percent(share: float, decimals: int = 0) -> str:
    """A share (0..1) as checks say it."""
    return f"{100 * share:.{decimals}f}\N{NO-BREAK SPACE}%"


class CheckAction(Value):
    """One action that mends what a check found."""

    label: str
    edit: Edit


class Check(Value):
    """One measured statement about a size; a warning asks the user to look at it."""

    key: Literal[
        "sharpness",
        "window",
        "focus",
        "corners",
        "column",
        "clipping",
        "noise",
        "contrast",
        "past",
        "small",
        "missing",
        "columns",
        "overlap",
        "covered",
        "font",
        "over focus",
        "hidden",
        "points out",
        "mark",
        "transparency",
        "subject",
        "white",
        "outline",
        "ended",
    ]
    severity: Literal["ok", "warning"]
    text: str
    action: CheckAction | None = None

    @property
    def asks_for_a_look(self) -> bool:
        """Whether it is a warning."""
        return self.severity == "warning"
