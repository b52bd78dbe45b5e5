"""Finding things in stock by word, kind and colour."""

import unicodedata
from collections.abc import Iterable, Sequence
from typing import TypeVar

from lucky_margin.core.palette import ColourName
from lucky_margin.core.stock.item import BackdropItem, BadgeItem

Item = TypeVar("Item", BackdropItem, BadgeItem)


def folded(text: str) -> str:
    """``text`` without case or accents, for searching."""
    decomposed = unicodedata.normalize("NFKD", text)
    return "".join(c for c in decomposed if not unicodedata.combining(c)).casefold().strip()


def found(
    items: Iterable[Item],
    *,
    words: str = "",
    kind: str | None = None,
    colour: ColourName | None = None,
) -> Sequence[Item]:
    """Those of the kind and colour in whose names, words or kinds every word begins one."""
    wanted = folded(words).split()
    return [
        item
        for item in items
        if (not kind or item.kind == kind)
        and (not colour or colour in item.colours)
        and _has_all(wanted, folded(f"{item.name} {item.words} {item.kind}").split())
    ]


def _has_all(wanted: Sequence[str], words: Sequence[str]) -> bool:
    return all(any(word.startswith(one) for word in words) for one in wanted)
