"""The colours that somebody chose for a finish, or for a part of one."""

import re
from collections import Counter
from collections.abc import Iterator
from typing import Any

from lucky_margin.core.document.values import Colour, Value

_COLOUR = re.compile(r"#[0-9A-F]{6}")


def chosen_colours(value: Value) -> list[Colour]:
    """The colours in it that are not what a fresh one has, those that are there most often
    first."""
    found = Counter(_colours(value.model_dump(exclude_defaults=True)))
    return [colour for colour, _ in found.most_common()]


def _colours(node: Any) -> Iterator[Colour]:
    if isinstance(node, str) and _COLOUR.fullmatch(node):
        yield node
    elif isinstance(node, dict):
        yield from _colours(list(node.values()))
    elif isinstance(node, tuple | list):
        for child in node:
            yield from _colours(child)
