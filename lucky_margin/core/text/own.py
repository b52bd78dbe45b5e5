"""Fonts that people bring themselves: TTF and OTF files, checked before they are used.

A finish names an own font by the SHA-256 of its file, so that its letters are the same on every
machine; where the file is gone, words are set in Figtree, and a check says so.
"""

import subprocess
import tempfile
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import ots
import uharfbuzz as hb

from lucky_margin.core.document import AnyFamily
from lucky_margin.core.errors import TooLarge, UnreadableFont
from lucky_margin.core.text.faces import Face, glyph_outline, read_face
from lucky_margin.core.text.families import FAMILIES

MAX_FONT_BYTES = 30_000_000
"""Room for the large fonts of East Asian scripts."""

TOO_LARGE = f"A font may have {MAX_FONT_BYTES // 1_000_000} MB at most; use a smaller one."

STAND_IN = "figtree"
"""The family that words are set in whose own font is gone."""

FontFinder = Callable[[str], Face | None]
"""The face of an own font by the SHA-256 of its file; None where it is gone."""

_MAGIC = (b"\x00\x01\x00\x00", b"true", b"OTTO")
_OUTLINES = {"glyf", "CFF ", "CFF2"}
_SECONDS = 20
"""A font that takes longer to check is taken for a hostile one."""

_LONGEST_NAME = 80
_TRIED = 1000
"""Characters of which one has to have an outline."""

_WEIGHT_AT = 4
"""Where the table OS/2 holds the weight class, in two bytes."""


@dataclass(frozen=True)
class OwnFont:
    """A font file that may be used; ``weight`` is 100..900."""

    name: str
    weight: int
    face: Face


def no_fonts(_sha256: str) -> None:
    """Where there are no own fonts."""


def is_own(family: AnyFamily) -> bool:
    """Whether a family is an own font, by the SHA-256 of its file."""
    return family not in FAMILIES


def typeface(family: AnyFamily, font: FontFinder) -> str | Face:
    """What to set words of a family in: a shipped family's key, an own font's face, or the
    stand-in for one that is gone."""
    return (font(family) or STAND_IN) if is_own(family) else family


def read_font(data: bytes, sha256: str) -> OwnFont:
    """The font of a TTF or OTF file.

    Raises:
        UnreadableFont: it is none, damaged, unsafe, or has no letters to draw.
        TooLarge: more bytes than are taken.
    """
    if len(data) > MAX_FONT_BYTES:
        raise TooLarge(TOO_LARGE)
    if data[:4] not in _MAGIC:
        raise UnreadableFont("This is not a TTF or OTF font; convert it first.")
    _check_tables(data)
    face = hb.Face(data)
    if not any(face.reference_table(tag).data for tag in _OUTLINES):
        raise UnreadableFont("This font has no outlines, only pictures of letters; use another.")
    read = read_face(face, sha256)
    if not any(_draws(read, code) for code in sorted(face.unicodes)[:_TRIED]):
        raise UnreadableFont("This font has no letters that can be drawn; use another.")
    return OwnFont(_name(face), _weight(face), read)


def _check_tables(data: bytes) -> None:
    """OpenType Sanitizer reads every table by the standard, in a process of its own."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder, "font")
        path.write_bytes(data)
        try:
            subprocess.run(
                [ots.OTS_SANITIZE, path], capture_output=True, check=True, timeout=_SECONDS
            )
        except subprocess.SubprocessError as error:
            raise UnreadableFont(
                "This font is damaged or unsafe; get a fresh copy of its file."
            ) from error


def _draws(face: Face, code: int) -> bool:
    glyph = face.font.get_nominal_glyph(code)
    return bool(glyph) and not glyph_outline(face, glyph).isEmpty()


def _name(face: hb.Face) -> str:
    """Family and style, as the font calls itself in English."""
    for kind in (hb.OTNameIdPredefined.FULL_NAME, hb.OTNameIdPredefined.FONT_FAMILY):
        name = face.get_name(kind, "en") or ""
        shown = " ".join("".join(c if c.isprintable() else " " for c in name).split())
        if shown:
            return shown[:_LONGEST_NAME]
    return "Own font"


def _weight(face: hb.Face) -> int:
    table = face.reference_table("OS/2").data[_WEIGHT_AT : _WEIGHT_AT + 2]
    return min(max(int.from_bytes(table, "big"), 100), 900) if len(table) == 2 else 400
