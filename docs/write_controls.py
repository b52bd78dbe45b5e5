"""``make controls``: the page of controls, from the texts that the screen explains them with."""

import json
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parents[1]
TEXTS = ROOT / "frontend" / "src" / "explanations.json"
PAGE = ROOT / "docs" / "controls.md"

HEAD = """# Controls

What each control does, in the words that the screen shows when the pointer rests on it. This page
is written by `make controls` from `frontend/src/explanations.json`.
"""


def page() -> str:
    """The page as Markdown."""
    steps = json.loads(TEXTS.read_text())
    return HEAD + "".join(_step(title, texts) for title, texts in steps.items())


def _step(title: str, texts: dict[str, Any]) -> str:
    return f"\n## {title}\n" + "".join(["\n", *_lines(texts)])


def _lines(texts: dict[str, Any], depth: int = 0) -> list[str]:
    lines = [f"{texts['']}\n\n"] if depth == 0 and texts.get("") else []
    indent = "  " * depth
    for label, text in texts.items():
        if label in ("", "key"):
            continue
        if isinstance(text, str):
            lines.append(f"{indent}- **{label}**: {text}\n")
        else:
            own = text.get("", "")
            key = f" Key: {text['key']}." if "key" in text else ""
            lines.append(f"{indent}- **{label}**: {own}{key}\n")
            lines += _lines(text, depth + 1)
    return lines


if __name__ == "__main__":
    PAGE.write_text(page())
