"""What comes with the application, as it is listed and searched."""

from typing import Annotated, Literal

from pydantic import Field

from lucky_margin.core.document import BadgeParts, Name, StockBackdrop, Value
from lucky_margin.core.palette import ColourName, colour_names

LICENCE = "Drawn by Lucky Margin; free to use for anything, without naming anyone (CC0 1.0)."
"""Of everything in stock."""

BackdropKind = Literal[
    "plain",
    "gradient",
    "paper",
    "cloth",
    "plaster and stone",
    "wood",
    "soft light",
    "pattern",
    "seasonal",
]


BadgeKind = Literal["own", "offer", "news", "maker", "occasion"]


class StockItem(Value):
    """What all have: a ``key`` that never changes, a name, and more words to find it by."""

    key: str
    name: Name
    words: str = ""
    colours: Annotated[tuple[ColourName, ...], Field(max_length=5)] = ()


class BackdropItem(StockItem):
    """A backdrop in the colours it comes in."""

    kind: BackdropKind
    ground: StockBackdrop


class BadgeItem(StockItem):
    """A badge of several parts, about the middle of the margin box."""

    kind: BadgeKind
    parts: BadgeParts


def backdrop(kind: BackdropKind, key: str, words: str, *colours: str) -> BackdropItem:
    """A backdrop, named as its key; ``words`` may begin with another name and a colon."""
    first, colon, others = words.partition(":")
    name, words = (first, others) if colon else (key.replace("-", " ").capitalize(), words)
    ground = StockBackdrop.model_validate({"key": key, "colours": colours})
    return BackdropItem(
        key=key,
        name=name,
        words=words.strip(),
        kind=kind,
        colours=colour_names(ground.colours),
        ground=ground,
    )


def colours_of(parts: BadgeParts) -> tuple[ColourName, ...]:
    """What the colours of a badge's forms and words are called, at most five."""
    found = [colour for part in parts if (colour := getattr(part, "colour", None))]
    return colour_names(found)[:5]
