"""What people type after an option, as values."""

import re
from collections.abc import Sequence
from hashlib import sha256
from pathlib import Path

from pydantic import TypeAdapter

from lucky_margin.cli.files import FONT_SUFFIXES
from lucky_margin.core.document import (
    SIZE_LIBRARY,
    AnyFamily,
    AsCropped,
    BlurredPhoto,
    Box,
    FixedPixels,
    Gradient,
    Ground,
    LookUse,
    OneSide,
    PlainShape,
    Printed,
    Ratio,
    Rectangle,
    Shape,
    SizePlan,
    SolidColour,
    StockLook,
    TableLook,
    ThisPhoto,
    ToneChanges,
    Transparent,
)
from lucky_margin.core.document.summaries import LOOK_NAMES
from lucky_margin.core.errors import BadInput
from lucky_margin.core.stock import BACKDROPS
from lucky_margin.core.text import FAMILIES, Face, read_font
from lucky_margin.core.tone import ADDED, ColourTable, read_cube

TONE_SETTINGS = (*ADDED, "warmth")
_NUMBER = r"\d+(?:[.,]\d+)?"
_PIXELS = re.compile(r"(\d+)?x(\d+)?")
_PAPER = re.compile(rf"({_NUMBER})x({_NUMBER})(mm|cm|in)(?:@({_NUMBER}))?")
_SHAPES: TypeAdapter[Shape] = TypeAdapter(Shape)
_COUNTED = re.compile(r"(polygon|star|blob)(?::(\d+))?")


def size_plan(text: str) -> SizePlan:
    """A size by its pixels, by its measures on paper, or by its name in the library.

    Raises:
        BadInput: it is none of these.
    """
    wanted = text.strip().lower()
    for offered in SIZE_LIBRARY:
        if wanted in (offered.key, offered.plan.name.lower()):
            return offered.plan
    if wanted == "as-cropped":
        return SizePlan(name="As cropped", pixels=AsCropped())
    if paper := _PAPER.fullmatch(wanted):
        width, height, unit, ppi = paper.groups()
        resolution = {"ppi": _float(ppi)} if ppi else {}
        printed = Printed.model_validate(
            {"width": _float(width), "height": _float(height), "unit": unit} | resolution
        )
        return SizePlan(name=text, pixels=FixedPixels.on_paper(printed))
    pixels = _PIXELS.fullmatch(wanted)
    if not pixels or pixels.groups() == (None, None):
        raise BadInput(
            f"--size needs whole pixels such as 1080x1350, a measure such as 50x40mm, or a name "
            f"such as {SIZE_LIBRARY[0].key}, not “{text}”."
        )
    width, height = pixels.groups()
    if width and height:
        fixed = FixedPixels(width=int(width), height=int(height))
        return SizePlan(name=text, pixels=fixed)
    one = OneSide(side="width" if width else "height", length=int(width or height))
    return SizePlan(name=text, pixels=one)


def ratio(text: str) -> Ratio:
    """A ratio such as ``4:5``.

    Raises:
        BadInput: it is none.
    """
    width, height = numbers(text, ":", 2, "--ratio", "4:5")
    return Ratio(width=width, height=height)


def shape(text: str) -> Shape:
    """
    Raises:
        BadInput: there is no such shape.
    """
    name = text.strip().lower()
    if name == "rectangle":
        return Rectangle()
    if counted := _COUNTED.fullmatch(name):
        kind, count = counted.groups()
        field = {"polygon": "sides", "star": "points", "blob": "seed"}[kind]
        return _SHAPES.validate_python({"kind": kind} | ({field: int(count)} if count else {}))
    plain = PlainShape.model_fields["kind"].annotation.__args__  # type: ignore[union-attr]
    if name not in plain:
        raise BadInput(
            f"--shape needs rectangle, {', '.join(plain)}, polygon:6, star:5 or blob:7, "
            f"not “{text}”."
        )
    return PlainShape.model_validate({"kind": name})


def ground(text: str, option: str) -> Ground:
    """A ground such as ``#F5F1E8``, ``blur`` or ``transparent``.

    Raises:
        BadInput: it is none; the message names the ``option``.
    """
    wanted = text.strip()
    if wanted == "transparent":
        return Transparent()
    if wanted == "blur":
        return BlurredPhoto()
    if wanted == "this-photo":
        return ThisPhoto()
    if wanted in BACKDROPS:
        return BACKDROPS[wanted].ground
    first, between, second = wanted.partition("-")
    if not first.startswith("#"):
        raise BadInput(
            f"{option} needs transparent, a colour such as #F5F1E8, two of them with a hyphen "
            f"between, blur, this-photo or one of {', '.join(BACKDROPS)}, not “{text}”."
        )
    return Gradient(start=first, end=second) if between else SolidColour(colour=first)


def tone(text: str) -> ToneChanges:
    """
    Raises:
        BadInput: a setting is not known or has no number.
    """
    return ToneChanges.model_validate(settings(text, TONE_SETTINGS, "--tone"))


def settings(text: str, known: Sequence[str], option: str) -> dict[str, float]:
    """Numbers by their names, such as ``exposure=0.5,highlights=-30``.

    Raises:
        BadInput: a name is not known or has no number; the message names the ``option``.
    """
    found = {}
    for part in text.split(","):
        name, _, number = part.partition("=")
        name = name.strip().replace("-", "_")
        if name not in known:
            raise BadInput(f"{option} knows {', '.join(known)}, not “{name}”.")
        found[name] = numbers(number, "=", 1, f"{option} {name}", f"{name}=20")[0]
    return found


def look(text: str) -> tuple[LookUse, dict[str, ColourTable]]:
    """A look by its name, or a colour table by its file; and the table by its SHA-256.

    Raises:
        BadInput: there is no such look, or the file can't be read.
    """
    name, _, strength = text.partition(":")
    share = 100 * percent(strength, "--look") if strength else 100
    if name.lower().endswith(".cube"):
        try:
            data = Path(name).read_bytes()
        except OSError as error:
            raise BadInput(f"--look can't read {name}: {error.strerror}.") from error
        digest, table = sha256(data).hexdigest(), read_cube(data)
        return TableLook(name=Path(name).stem, table=digest, strength=share), {digest: table}
    key = name.strip().lower().replace(" ", "-")
    if key not in LOOK_NAMES:
        raise BadInput(
            f"--look needs a .cube file or one of {', '.join(LOOK_NAMES)}, not “{name}”."
        )
    return StockLook.model_validate({"key": key, "strength": share}), {}


def font(text: str) -> tuple[AnyFamily, dict[str, Face]]:
    """A family by its name, or an own font by its file; and the face by its SHA-256.

    Raises:
        BadInput: there is no such family, or the file can't be read.
    """
    if Path(text).suffix.lower() in FONT_SUFFIXES:
        try:
            data = Path(text).read_bytes()
        except OSError as error:
            raise BadInput(f"--font can't read {text}: {error.strerror}.") from error
        digest = sha256(data).hexdigest()
        return digest, {digest: read_font(data, digest).face}
    key = text.strip().lower().replace(" ", "-")
    if key not in FAMILIES:
        raise BadInput(
            f"--font needs a TTF or OTF file or one of {', '.join(FAMILIES)}, not “{text}”."
        )
    return FAMILIES[key].key, {}


def numbers(text: str, between: str, count: int, option: str, example: str) -> list[float]:
    """``count`` numbers with ``between`` between them.

    Raises:
        BadInput: there are others; the message names the ``option`` and an ``example``.
    """
    try:
        found = [float(part) for part in text.lower().split(between)]
    except ValueError:
        found = []
    if len(found) != count:
        raise BadInput(f"{option} needs {count} numbers such as {example}, not “{text}”.")
    return found


def box(text: str, option: str) -> Box:
    """A box of the photo from its left, top, right and bottom edge (0..1).

    Raises:
        BadInput: it is none; the message names the ``option``.
    """
    left, top, right, bottom = numbers(text, ",", 4, option, "0.2,0.1,0.8,0.9")
    if not (0 <= left < right <= 1 and 0 <= top < bottom <= 1):
        raise BadInput(f"{option} needs left < right and top < bottom, 0 to 1, not “{text}”.")
    return Box(left=left, top=top, width=right - left, height=bottom - top)


def percent(text: str, option: str) -> float:
    """A percentage such as ``2%`` as a fraction.

    Raises:
        BadInput: it is none; the message names the ``option``.
    """
    try:
        return float(text.removesuffix("%")) / 100
    except ValueError:
        raise BadInput(f"{option} needs a percentage such as 2%, not “{text}”.") from None


def _float(text: str) -> float:
    return float(text.replace(",", "."))
