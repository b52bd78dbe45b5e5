"""File names from a pattern: safe on every file system, never empty."""

import re
import string
import unicodedata
from collections.abc import Container
from typing import Any

from lucky_margin.core.errors import BadInput

FIELDS = ("name", "size", "width", "height")
"""What a pattern may name between braces."""

MAX_STEM_BYTES = 120
"""Most file systems allow 255 bytes to a name; this leaves room for suffixes and counters."""

NAMELESS = "photo"
"""What a file is called whose name comes to nothing."""

_DIRECTIONS = "\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069"
"""Marks of direction (UAX 9), by which a name could be shown as another one."""

_FORBIDDEN = re.compile(rf'[\x00-\x1f\x7f/\\:*?"<>|{_DIRECTIONS}]+')
_SPACES = re.compile(r"[\s-]+")
_RESERVED = re.compile(r"^(con|prn|aux|nul|com\d|lpt\d)$")


def file_stem(pattern: str, *, name: str, size: str, width: int, height: int) -> str:
    """The file name without suffix that ``pattern`` gives.

    Raises:
        BadInput: the pattern names an unknown field or has a brace too many.
    """
    values = {"name": name, "size": size, "width": width, "height": height}
    return safe_stem(_filled(pattern, values))


def unlike(name: str, taken: Container[str]) -> str:
    """``name``, with a number before its suffix when it is taken."""
    stem, dot, suffix = name.rpartition(".")
    free, count = name, 1
    while free in taken:
        count += 1
        free = f"{stem}-{count}{dot}{suffix}"
    return free


def safe_stem(text: str) -> str:
    """``text`` as a file name: lower case, hyphens for spaces, nothing a file system minds."""
    composed = unicodedata.normalize("NFC", text).lower()
    stem = _SPACES.sub("-", _FORBIDDEN.sub("-", composed)).strip("-. ")
    stem = stem.encode()[:MAX_STEM_BYTES].decode(errors="ignore").rstrip("-. ")
    if not stem:
        return NAMELESS
    return f"{stem}-{NAMELESS}" if _RESERVED.match(stem) else stem


def _filled(pattern: str, values: dict[str, Any]) -> str:
    known = ", ".join(f"{{{field}}}" for field in FIELDS)
    problem = BadInput(f"The name pattern “{pattern}” can use {known} and plain text only.")
    try:
        parts = list(string.Formatter().parse(pattern))
    except ValueError as error:
        raise problem from error
    text = ""
    for literal, field, spec, conversion in parts:
        text += literal
        if field is None:
            continue
        if field not in values or spec or conversion:
            raise problem
        text += str(values[field])
    return text
