"""The families that ship with the application, and the faces that fill what they lack.

All are licensed under the SIL Open Font License 1.1; each folder of ``lucky_margin/fonts`` holds
its text beside the faces.
"""

from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Literal

from lucky_margin.core.document import FamilyKey
from lucky_margin.core.text.faces import Face, load_face

FOLDER = Path(__file__).parents[2] / "fonts"

Kind = Literal["sans", "heavy", "serif", "slab", "display", "round", "script", "hand", "mono"]


@dataclass(frozen=True)
class Family:
    """A family: its name, what it is good for, and the weights and italics it really has."""

    key: FamilyKey
    name: str
    kind: Kind
    weights: tuple[int, ...]
    italic_weights: tuple[int, ...] = ()


FAMILIES: dict[str, Family] = {
    family.key: family
    for family in (
        Family("figtree", "Figtree", "sans", (400, 700, 900), (400,)),
        Family("source-sans-3", "Source Sans", "sans", (400, 700, 900), (400,)),
        Family("inter", "Inter", "sans", (400, 700, 900)),
        Family("noto-sans", "Noto Sans", "sans", (400, 700)),
        Family("montserrat", "Montserrat", "heavy", (400, 700, 900)),
        Family("oswald", "Oswald", "heavy", (400, 700)),
        Family("anton", "Anton", "heavy", (400,)),
        Family("source-serif-4", "Source Serif", "serif", (400, 700), (400,)),
        Family("noto-serif", "Noto Serif", "serif", (400, 700), (400,)),
        Family("playfair-display", "Playfair Display", "serif", (400, 700, 900), (400,)),
        Family("zilla-slab", "Zilla Slab", "slab", (400, 700), (400,)),
        Family("abril-fatface", "Abril Fatface", "display", (400,)),
        Family("comfortaa", "Comfortaa", "round", (400, 700)),
        Family("pacifico", "Pacifico", "script", (400,)),
        Family("caveat", "Caveat", "hand", (400, 700)),
        Family("jetbrains-mono", "JetBrains Mono", "mono", (400, 700)),
    )
}

FALLBACKS = (
    "noto-sans",
    "noto-sans-arabic",
    "noto-sans-hebrew",
    "noto-sans-devanagari",
    "noto-sans-thai",
    "noto-emoji",
)
"""Families that are asked, in this order, for what a text's own family lacks."""

_FALLBACK_WEIGHTS = (400, 700)


def face_of(key: str, weight: int, italic: bool) -> Path:
    """The file of a family's nearest face; italics only where the family has them."""
    family = FAMILIES.get(key)
    weights = family.weights if family else _FALLBACK_WEIGHTS
    slanted = family.italic_weights if family and italic else ()
    offered = slanted or weights
    nearest = min(offered, key=lambda have: abs(have - weight))
    return FOLDER / key / f"{nearest}{'-italic' if slanted else ''}.ttf"


def face_in(family: str | Face, weight: int, italic: bool) -> Face:
    """A shipped family's nearest face; an own font has but one."""
    return family if isinstance(family, Face) else _shipped(family, weight, italic)


@lru_cache
def _shipped(key: str, weight: int, italic: bool) -> Face:
    return load_face(face_of(key, weight, italic))
