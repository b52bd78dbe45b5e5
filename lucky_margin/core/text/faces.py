"""Faces: what HarfBuzz needs of a font file, and its letters as outlines."""

from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

import skia
import uharfbuzz as hb

_FACES_KEPT = 64
_GLYPHS_KEPT = 8192


@dataclass(frozen=True, eq=False)
class Face:
    """One face of a family; lengths are in its own units, ``units`` of them to an em."""

    key: str
    font: Any
    units: int
    ascent: float
    descent: float
    x_height: float
    """Of an em, like the two above; ``descent`` counts downwards from the baseline."""

    def has(self, character: str) -> bool:
        """Whether the face has a glyph for a character."""
        return self.font.get_nominal_glyph(ord(character)) is not None


@lru_cache(_FACES_KEPT)
def load_face(path: Path) -> Face:
    """The face in a font file that ships."""
    return read_face(hb.Face(hb.Blob.from_file_path(str(path))), path.parent.name)


def read_face(face: hb.Face, key: str) -> Face:
    """A font file's face; its letters are those of ``key``."""
    font = hb.Font(face)
    extents = font.get_font_extents("ltr")
    units = face.upem
    return Face(
        key=key,
        font=font,
        units=units,
        ascent=extents.ascender / units,
        descent=-extents.descender / units,
        x_height=_x_height(font, units),
    )


def _x_height(font: Any, units: int) -> float:
    """The height of a small x, or half an em where there is none."""
    glyph = font.get_nominal_glyph(ord("x"))
    extents = font.get_glyph_extents(glyph) if glyph else None
    return float(extents.y_bearing) / units if extents and extents.y_bearing > 0 else 0.5


@lru_cache(_GLYPHS_KEPT)
def glyph_outline(face: Face, glyph: int) -> skia.Path:
    """A glyph's outline in font units, y downwards."""
    path = skia.Path()
    face.font.draw_glyph(glyph, _draw_functions(), path)
    return shareable(path)


def shareable(path: skia.Path) -> skia.Path:
    """A path that several threads may draw: its bounds, which are otherwise found when somebody
    first asks, are known from now on."""
    path.updateBoundsCache()
    return path


@lru_cache(1)
def _draw_functions() -> Any:
    functions = hb.DrawFuncs()
    functions.set_move_to_func(lambda x, y, path: path.moveTo(x, -y))
    functions.set_line_to_func(lambda x, y, path: path.lineTo(x, -y))
    functions.set_quadratic_to_func(lambda cx, cy, x, y, path: path.quadTo(cx, -cy, x, -y))
    functions.set_cubic_to_func(
        lambda ax, ay, bx, by, x, y, path: path.cubicTo(ax, -ay, bx, -by, x, -y)
    )
    functions.set_close_path_func(lambda path: path.close())
    return functions
