"""What the child process does with an SVG file: make it safe, then draw it once.

This file is run by its path (see ``svg.py``) and imports nothing of ours, so that the child
starts quickly and has little in memory. Style sheets inside the file are followed; letters are
drawn in the fonts that ship with the application, since no others may be looked up.

Both ways a message is four bytes of length (big-endian), then that many bytes. The child says
``READY`` once it listens. An answer is one line of JSON, then a PNG where the drawing succeeded.
"""

import base64
import binascii
import io
import json
import math
import re
import resource
import sys
import urllib.parse
from collections.abc import Iterator
from pathlib import Path
from typing import IO
from xml.etree import ElementTree

import resvg_py
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring
from PIL import Image, UnidentifiedImageError

LONG_SIDE = 2400
"""Pixels of the longer side that a drawing is given."""

NARROWEST = 0.02
"""Shorter over longer side, at least."""

MOST_DEPTH = 100
MAX_EMBEDDED_PIXELS = 50_000_000
"""Of all pictures inside a drawing together; each pixel takes up to eight bytes while drawing."""

MAX_MEMORY = 1_000_000_000
"""Bytes of address space that the child may take, itself included."""

FALLBACK = "Figtree"
FONTS = Path(__file__).parents[2] / "fonts"
READY = b"+"

_PLAIN_SIDES = (300.0, 150.0)
"""CSS Images 3, 5.2: of a drawing that says nothing of its size."""

_SVG = "http://www.w3.org/2000/svg"
_LINKS = ("href", "{http://www.w3.org/1999/xlink}href", "src")
_EMBEDDED = re.compile(r"data:image/(?!svg)[a-z0-9.+-]+(;[^,;]+)*,", re.IGNORECASE)
_OUT = re.compile(r"@import|url\(\s*['\"]?(?!#|data:)", re.IGNORECASE)
_FAMILY = re.compile(r"font-family\s*[:=]\s*['\"]?([^;'\"}<>]+)", re.IGNORECASE)
_FAMILY_RULE = re.compile(r"font-family\s*:[^;}]+", re.IGNORECASE)
_GENERIC = {"serif", "sans-serif", "cursive", "fantasy", "monospace", "inherit"}


class NotDrawn(Exception):
    """An SVG that is not taken; the message goes on from the file's name."""


class TooMuch(NotDrawn):
    """One over a limit on sides or pixels."""


def draw(data: bytes) -> tuple[bytes, list[str]]:
    """A drawing as a PNG with transparency, ``LONG_SIDE`` long, and what is to be said about it.

    Raises:
        NotDrawn: no SVG, broken, with entities or with links out of the file.
        TooMuch: too long and narrow, or with too many pixels in embedded pictures.
    """
    root = _parsed(data)
    notes = _made_safe(root)
    width, height = _sides(root)
    if min(width, height) < NARROWEST * max(width, height):
        raise TooMuch("is too long and narrow; crop the drawing first.")
    scale = LONG_SIDE / max(width, height)
    try:
        png = resvg_py.svg_to_bytes(
            svg_string=ElementTree.tostring(root, encoding="unicode"),
            width=max(1, round(width * scale)),
            height=max(1, round(height * scale)),
            skip_system_fonts=True,
            font_dirs=[str(FONTS)],
            font_family=FALLBACK,
        )
    except BaseException as error:  # a panic of the library is no Exception
        raise NotDrawn("is an SVG that can't be drawn; save it as PNG instead.") from error
    return png, notes


def serve(requests: IO[bytes], answers: IO[bytes]) -> None:
    """Answer requests, each an SVG file, until there are no more."""
    answers.write(READY)
    answers.flush()
    while data := read_message(requests):
        try:
            png, notes = draw(data)
            answer: dict[str, object] = {"notes": notes}
        except NotDrawn as error:
            png, answer = b"", {"refusal": str(error), "too_much": isinstance(error, TooMuch)}
        write_message(answers, json.dumps(answer).encode() + b"\n" + png)


def read_message(stream: IO[bytes]) -> bytes:
    """The next message; empty when the other side is gone or broke off."""
    header = stream.read(4)
    length = int.from_bytes(header, "big")
    message = stream.read(length)
    return message if len(header) == 4 and len(message) == length else b""


def write_message(stream: IO[bytes], message: bytes) -> None:
    """Write a message after its length, as ``read_message`` expects it."""
    stream.write(len(message).to_bytes(4, "big") + message)
    stream.flush()


def _parsed(data: bytes) -> ElementTree.Element:
    try:
        root: ElementTree.Element = fromstring(data, forbid_dtd=False, forbid_entities=True)
    except DefusedXmlException as error:
        raise NotDrawn(
            "defines entities of its own, which is not safe; save it as PNG instead."
        ) from error
    except (ElementTree.ParseError, ValueError, LookupError) as error:
        raise NotDrawn("is no well-formed SVG; save it as PNG instead.") from error
    if root.tag.removeprefix(f"{{{_SVG}}}") != "svg":
        raise NotDrawn("is not an SVG drawing; save it as PNG instead.")
    if _depth(root) > MOST_DEPTH:
        raise NotDrawn("nests too deeply to be drawn; save it as PNG instead.")
    return root


def _depth(root: ElementTree.Element) -> int:
    deepest, level = 0, [root]
    while level:
        deepest += 1
        level = [child for parent in level for child in parent]
    return deepest


def _made_safe(root: ElementTree.Element) -> list[str]:
    """Take out scripts, refuse links out of the file; what is to be said about it."""
    notes = []
    for parent in list(root.iter()):
        for child in list(parent):
            local = str(child.tag).rsplit("}", 1)[-1].lower()
            if local in ("script", "foreignobject"):
                parent.remove(child)
                notes.append("Its scripts and embedded pages were left out.")
        _check_attributes(parent)
    if sum(map(_embedded_pixels, _links(root))) > MAX_EMBEDDED_PIXELS:
        raise TooMuch(
            f"holds pictures of more than {MAX_EMBEDDED_PIXELS // 1_000_000} megapixels; "
            "save it as PNG instead."
        )
    for one in root.iter():
        _add_fallback(one)
    unknown = sorted(_families(ElementTree.tostring(root, encoding="unicode")) - _shipped())
    if unknown and any(str(one.tag).endswith("}text") for one in root.iter()):
        notes.append(f"It asks for fonts that are missing: {', '.join(unknown[:4])}.")
    return list(dict.fromkeys(notes))


def _check_attributes(element: ElementTree.Element) -> None:
    """Take out handlers of events; refuse styles that lead out of the file.

    Raises:
        NotDrawn: there is such a style.
    """
    for key in [key for key in element.attrib if key.lower().startswith("on")]:
        del element.attrib[key]
    styles = list(element.attrib.values())
    if str(element.tag).endswith("style"):
        styles.append(element.text or "")
    if any(map(_OUT.search, styles)):
        raise _linked()


def _links(root: ElementTree.Element) -> Iterator[str]:
    """The links of a drawing that lead to something else than a part of itself."""
    for element in root.iter():
        for key in _LINKS:
            link = element.attrib.get(key, "#").strip()
            if not link.startswith("#"):
                yield link


def _embedded_pixels(link: str) -> int:
    """How many pixels a picture has that is written into the file itself.

    Raises:
        NotDrawn: it is no such picture.
    """
    start = _EMBEDDED.match(link)
    if start is None:
        raise _linked()
    text = urllib.parse.unquote_to_bytes(link[start.end() :])
    try:
        data = base64.b64decode(text) if ";base64" in start.group().lower() else text
        with Image.open(io.BytesIO(data), formats=("PNG", "JPEG", "GIF", "WEBP")) as image:
            return image.width * image.height
    except (binascii.Error, UnidentifiedImageError, OSError, ValueError, SyntaxError) as error:
        raise NotDrawn(
            "holds a picture that can't be read; save the drawing as PNG instead."
        ) from error


def _add_fallback(one: ElementTree.Element) -> None:
    """Let letters whose font is not here be drawn in one that is."""
    if "font-family" in one.attrib:
        one.attrib["font-family"] += f", {FALLBACK}"
    if "style" in one.attrib:
        one.attrib["style"] = _FAMILY_RULE.sub(rf"\g<0>, {FALLBACK}", one.attrib["style"])
    if str(one.tag).endswith("style") and one.text:
        one.text = _FAMILY_RULE.sub(rf"\g<0>, {FALLBACK}", one.text)


def _linked() -> NotDrawn:
    return NotDrawn("links to other files, which are not fetched; embed them or save it as PNG.")


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


if __name__ == "__main__":
    resource.setrlimit(resource.RLIMIT_AS, (MAX_MEMORY, MAX_MEMORY))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    Image.MAX_IMAGE_PIXELS = None  # embedded pictures are measured above, with a limit of ours
    serve(sys.stdin.buffer, sys.stdout.buffer)
