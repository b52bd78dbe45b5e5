"""What does not validate, in one sentence."""

from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

MOST_PART_LETTERS = 40
MOST_RULE_LETTERS = 200
"""A place and a rule may hold what was sent, which can be of any length."""


def describe_validation_error(error: ValidationError) -> str:
    """One sentence on the first thing that does not validate: which field, and what its rule is."""
    return describe_invalid(error.errors(include_url=False, include_context=False)[0]) + "."


def describe_invalid(error: Mapping[str, Any], whole: str = "the document") -> str:
    """Field and rule of one of pydantic's errors; ``whole`` is what it is called when no field of
    it is at fault."""
    parts = [str(part) for part in error["loc"] if part != "body"]
    place = ".".join(_cut(part, MOST_PART_LETTERS) for part in parts) or whole
    rule = str(error["msg"]).removeprefix("Value error, ").rstrip(".")
    return f"{place}: {_cut(rule, MOST_RULE_LETTERS)}"


def _cut(text: str, most: int) -> str:
    shown = "".join(letter if letter.isprintable() else "?" for letter in text)
    return shown if len(shown) <= most else f"{shown[: most - 1]}…"
