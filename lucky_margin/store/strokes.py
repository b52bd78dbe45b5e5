"""Brush strokes apart from the documents they are in: every change of a finish repeats those of the
one before, so each is stored once and named by its hash."""

import hashlib
import json
from collections.abc import Callable
from typing import Any

from lucky_margin.core.document import Finish

_DIGITS = 16
"""Of a SHA-256, which tell the strokes of one finish apart."""

_FIELD = "strokes"


def apart(document: Finish) -> tuple[str, dict[str, str]]:
    """A document as JSON that names its strokes, and the JSON of each stroke by its name."""
    strokes: dict[str, str] = {}

    def named(stroke: Any) -> str:
        text = json.dumps(stroke, separators=(",", ":"))
        name = hashlib.sha256(text.encode()).hexdigest()[:_DIGITS]
        strokes[name] = text
        return name

    tree = _with_strokes(json.loads(document.model_dump_json()), named)
    return json.dumps(tree, ensure_ascii=False, separators=(",", ":")), strokes


def together(document: str, strokes: str) -> Any:
    """What is in a document that names strokes, given all of them as JSON by name.

    Raises:
        ValueError: one of the two is damaged, or a stroke is gone.
    """
    by_name: dict[str, str] = json.loads(strokes)

    def stroke(name: Any) -> Any:
        if not isinstance(name, str):  # of a document from before strokes were named
            return name
        if name not in by_name:
            raise ValueError(f"stroke {name} is gone")
        return json.loads(by_name[name])

    return _with_strokes(json.loads(document), stroke)


def _with_strokes(node: Any, replaced: Callable[[Any], Any]) -> Any:
    """A tree of JSON with every stroke in it replaced."""
    if isinstance(node, list):
        return [_with_strokes(child, replaced) for child in node]
    if not isinstance(node, dict):
        return node
    return {
        key: [replaced(stroke) for stroke in child]
        if key == _FIELD and isinstance(child, list)
        else _with_strokes(child, replaced)
        for key, child in node.items()
    }
