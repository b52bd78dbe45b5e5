"""Drawings in SVG as photos: made safe, then drawn once at a fixed size.

Style sheets inside the file are followed; letters are drawn in the fonts that ship with the
application, since no others may be looked up, and others that are asked for are said.
"""

import io
import math
import re
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import resvg_py
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring
from PIL import Image

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.types import Picture8

LONG_SIDE = 2400
"""Pixels of the longer side that a drawing is given."""

NARROWEST = 0.02
"""Shorter over longer side, at least."""

MAX_SVG_BYTES = 10_000_000
MOST_DEPTH = 100
FALLBACK = "Figtree"
FONTS = Path(__file__).parents[2] / "fonts"

_PLAIN_SIDES = (300.0, 150.0)
"""CSS Images 3, 5.2: of a drawing that says nothing of its size."""

_SVG = "http://www.w3.org/2000/svg"
_LINKS = ("href", "{http://www.w3.org/1999/xlink}href", "src")
_INSIDE = ("#", "data:image/")
_OUT = re.compile(r"@import|url\(\s*['\"]?(?!#|data:)", re.IGNORECASE)
_FAMILY = re.compile(r"font-family\s*[:=]\s*['\"]?([^;'\"}<>]+)", re.IGNORECASE)
_FAMILY_RULE = re.compile(r"font-family\s*:[^;}]+", re.IGNORECASE)
_GENERIC = {"serif", "sans-serif", "cursive", "fantasy", "monospace", "inherit"}


def is_svg(data: bytes) -> bool:
    """Whether some bytes look like an SVG file."""
    start = data[:4096].removeprefix(b"\xef\xbb\xbf").lstrip()
    return start.startswith(b"<") and b"<svg" in start.lower()


def draw_svg(data: bytes, name: str) -> tuple[Picture8, list[str]]:
    """A drawing as straight RGBA, ``LONG_SIDE`` long, and what is to be said about it.

    Raises:
        UnreadablePhoto: no SVG, a broken one, one with entities or with links out of the file.
        TooLarge: more bytes than are taken, or too long and narrow.
    """
    if len(data) > MAX_SVG_BYTES:
        raise TooLarge(
            f"“{name}” has more than the {MAX_SVG_BYTES // 1_000_000} MB that are taken of an "
            "SVG; save it as PNG first."
        )
    root = _parsed(data, name)
    notes = _made_safe(root, name)
    width, height = _sides(root)
    if min(width, height) < NARROWEST * max(width, height):
        raise TooLarge(f"“{name}” is too long and narrow; crop the drawing first.")
    scale = LONG_SIDE / max(width, height)
    text = ElementTree.tostring(root, encoding="unicode")
    try:
        png = resvg_py.svg_to_bytes(
            svg_string=text,
            width=max(1, round(width * scale)),
            height=max(1, round(height * scale)),
            skip_system_fonts=True,
            font_dirs=[str(FONTS)],
            font_family=FALLBACK,
        )
    except BaseException as error:  # a panic of the library is no Exception
        if isinstance(error, KeyboardInterrupt | SystemExit):
            raise
        raise UnreadablePhoto(
            f"“{name}” is an SVG that can't be drawn; save it as PNG instead."
        ) from error
    with Image.open(io.BytesIO(png)) as image:
        picture = np.array(image.convert("RGBA"))
    if not picture[:, :, 3].any():
        raise UnreadablePhoto(f"“{name}” is an SVG without anything to see; save it as PNG.")
    return picture, notes


def _parsed(data: bytes, name: str) -> ElementTree.Element:
    try:
        root: ElementTree.Element = fromstring(data, forbid_dtd=False, forbid_entities=True)
    except DefusedXmlException as error:
        raise UnreadablePhoto(
            f"“{name}” defines entities of its own, which is not safe; save it as PNG instead."
        ) from error
    except (ElementTree.ParseError, ValueError, LookupError) as error:
        raise UnreadablePhoto(f"“{name}” is no well-formed SVG; save it as PNG instead.") from error
    if root.tag.removeprefix(f"{{{_SVG}}}") != "svg":
        raise UnreadablePhoto(f"“{name}” is not an SVG drawing; save it as PNG instead.")
    if _depth(root) > MOST_DEPTH:
        raise UnreadablePhoto(f"“{name}” nests too deeply to be drawn; save it as PNG instead.")
    return root


def _depth(root: ElementTree.Element) -> int:
    deepest, level = 0, [root]
    while level:
        deepest += 1
        level = [child for parent in level for child in parent]
    return deepest


def _made_safe(root: ElementTree.Element, name: str) -> list[str]:
    """Take out scripts, refuse links out of the file; what is to be said about it."""
    notes = []
    for parent in list(root.iter()):
        for child in list(parent):
            local = str(child.tag).rsplit("}", 1)[-1].lower()
            if local in ("script", "foreignobject"):
                parent.remove(child)
                notes.append("Its scripts and embedded pages were left out.")
        for key in list(parent.attrib):
            value = parent.attrib[key]
            if key.lower().startswith("on"):
                del parent.attrib[key]
            elif _OUT.search(value) or (key in _LINKS and not value.startswith(_INSIDE)):
                raise _linked(name)
        if parent.text and str(parent.tag).endswith("style") and _OUT.search(parent.text):
            raise _linked(name)
    for one in root.iter():
        _add_fallback(one)
    unknown = sorted(_families(ElementTree.tostring(root, encoding="unicode")) - _shipped())
    if unknown and any(str(one.tag).endswith("}text") for one in root.iter()):
        notes.append(f"It asks for fonts that are not here: {', '.join(unknown[:4])}.")
    return list(dict.fromkeys(notes))


def _add_fallback(one: ElementTree.Element) -> None:
    """Let letters whose font is not here be drawn in one that is."""
    if "font-family" in one.attrib:
        one.attrib["font-family"] += f", {FALLBACK}"
    if "style" in one.attrib:
        one.attrib["style"] = _FAMILY_RULE.sub(rf"\g<0>, {FALLBACK}", one.attrib["style"])
    if str(one.tag).endswith("style") and one.text:
        one.text = _FAMILY_RULE.sub(rf"\g<0>, {FALLBACK}", one.text)


def _linked(name: str) -> UnreadablePhoto:
    return UnreadablePhoto(
        f"“{name}” links to other files, which are not fetched; embed them or save it as PNG."
    )


def _families(text: str) -> set[str]:
    named = {one.strip().lower() for list_ in _FAMILY.findall(text) for one in list_.split(",")}
    return named - _GENERIC - {""}


def _shipped() -> set[str]:
    return {folder.name.replace("-", " ") for folder in FONTS.iterdir()}


def _sides(root: ElementTree.Element) -> tuple[float, float]:
    """The drawing's proportions: of its view box, else of its sides, else those that CSS gives a
    drawing without any, which it is then given here."""
    box = [_number(part) for part in re.split(r"[\s,]+", root.get("viewBox", "").strip())]
    if len(box) == 4 and box[2] > 0 and box[3] > 0:
        for side in ("width", "height"):
            root.attrib.pop(side, None)
        return box[2], box[3]
    width, height = _number(root.get("width", "")), _number(root.get("height", ""))
    if width > 0 and height > 0:
        return width, height
    root.set("width", f"{_PLAIN_SIDES[0]:g}")
    root.set("height", f"{_PLAIN_SIDES[1]:g}")
    return _PLAIN_SIDES


def _number(text: str) -> float:
    """The number that a length begins with; 0 without one."""
    found = re.match(r"\s*\+?(\d*\.?\d+(?:[eE][+-]?\d+)?)", text)
    value = float(found.group(1)) if found else 0.0
    return value if math.isfinite(value) else 0.0
