"""What is set, in plain words: for the docket's lines and for the names of revisions."""

from collections.abc import Iterable, Sequence

from lucky_margin.core.document.borders import Border, BorderBand
from lucky_margin.core.document.cut_out import CutOut, Outlines, SubjectShadow
from lucky_margin.core.document.finish import Finish
from lucky_margin.core.document.lifts import Lifts
from lucky_margin.core.document.pieces import MarkPiece, Piece, TextPiece, Watermark
from lucky_margin.core.document.shapes import Polygon, Rectangle, Shape, Star
from lucky_margin.core.document.sizes import AsCropped, FixedPixels, Pixels, Size
from lucky_margin.core.document.spots import Spots
from lucky_margin.core.document.steps import Export, Turn
from lucky_margin.core.document.tone import LookKey, LookUse, StockLook, Tone
from lucky_margin.core.document.treatments import TreatmentKind, Treatments
from lucky_margin.core.document.values import (
    BlurredPhoto,
    Gradient,
    Ground,
    Identifier,
    OtherPhoto,
    Sides,
    SolidColour,
    StockBackdrop,
    ThisPhoto,
    Value,
)
from lucky_margin.core.types import ImageFormat

FORMAT_NAMES: dict[ImageFormat, str] = {
    "jpeg": "JPEG",
    "png": "PNG",
    "webp": "WebP",
    "avif": "AVIF",
    "tiff": "TIFF",
    "gif": "GIF",
    "bmp": "BMP",
    "pdf": "PDF",
}


class Override(Value):
    """Fields of a step, or of one piece, in words."""

    step: str
    piece: Identifier | None
    fields: list[str]


_COLOUR_NAMES = {"#FFFFFF": "white", "#000000": "black"}


def crop_in_words(finish: Finish, size: Size) -> str:
    """Ratio, where the window comes from if there is a photo, turn and shape: "4:5, own crop,
    circle"."""
    pixels = size.pixels
    held = pixels.ratio
    if isinstance(pixels, FixedPixels):
        ratio = f"{pixels.width} × {pixels.height}"
    else:
        ratio = held.label if held else "free"
    if size.crop.window is not None:
        where = "own crop"
    elif held is None or size.crop.contain:
        where = "whole photo"
    else:
        where = "follows the focus" if finish.focus_of(size) else "centred"
    turn = finish.turn_of(size)
    parts = [ratio, where] if finish.photo else [ratio]
    if finish.photo and finish.photo.square:
        parts.append("squared up")
    if turn.is_set:
        parts.append(turn_in_words(turn))
    if size.shape != Rectangle():
        parts.append(shape_in_words(size.shape))
    return ", ".join(parts)


def spots_in_words(spots: Spots) -> str:
    """How many are filled: "none", "3 filled"."""
    return f"{len(spots.filled)} filled" if spots.is_set else "none"


def cut_out_in_words(cut_out: CutOut, outlines: Outlines, shadow: SubjectShadow) -> str:
    """What is cut out: "none", "the subject", "2 subjects, 3 strokes, outlined white, shadow"."""
    if not cut_out.on:
        return "none"
    parts = [f"{len(cut_out.boxes)} subjects" if len(cut_out.boxes) > 1 else "the subject"]
    if cut_out.strokes:
        parts.append(f"{len(cut_out.strokes)} stroke{'s' if len(cut_out.strokes) > 1 else ''}")
    if outlines.lines:
        colours = " and ".join(colour_in_words(line.colour) for line in outlines.lines)
        parts.append(f"outlined {colours}")
    if shadow.is_set:
        parts.append("shadow")
    return ", ".join(parts)


def overrides_in_words(size: Size) -> list[Override]:
    """What a size overrides, step by step and piece by piece."""
    own = size.overrides
    steps = [(step, None, getattr(own, step).given) for step in own.overridden]
    pieces = [("pieces", key, ways.given) for key, ways in own.pieces.items()]
    grounds = [
        (place, None, {ground_in_words(ground)})
        for place, ground in (("backdrop", own.backdrop), ("outside", own.outside))
        if ground
    ]
    return [
        Override(step=step, piece=piece, fields=_fields_in_words(given))
        for step, piece, given in [*steps, *pieces, *grounds]
    ]


def _fields_in_words(given: Iterable[str]) -> list[str]:
    words = [_FIELDS.get(field, field.replace("_", " ")) for field in sorted(given)]
    return list(dict.fromkeys(words))


_FIELDS = {
    "on": "shown or hidden",
    "anchor": "place",
    "dx": "place",
    "dy": "place",
    "sizes": "which sizes",
    "over_border": "over the border",
    "behind": "behind the subject",
    "clipped": "cut by the shape",
    "family": "font",
    "text": "words",
    "fill": "fitted to the margin",
    "wrap": "line width",
    "align": "alignment",
    "bend": "arc",
    "parts": "styled letters",
    "letters": "text colour",
    "tip": "what it points at",
    "cut": "form",
    "spot": "place",
    "stroke": "line",
    "stroke_width": "line",
    "max_kb": "size limit",
    "noise_reduction": "noise",
    "colour_noise_reduction": "noise",
    "line": "line style",
}
"""Fields that are called something else on the screen."""


def turn_in_words(turn: Turn) -> str:
    """Mirroring and the whole angle, clockwise: "mirrored, 88.5°"."""
    degrees = 90 * turn.quarters + turn.straighten
    parts = ["mirrored"] if turn.mirrored else []
    parts += [f"{degrees:.4g}°"] if degrees else []
    return ", ".join(parts) or "not turned"


def shape_in_words(shape: Shape) -> str:
    """The shape by its name and numbers: "corners 4 %", "5-point star"."""
    match shape:
        case Rectangle():
            words = f"corners {percent(shape.radius)}" if shape.radius else "rectangle"
        case Polygon():
            words = f"{shape.sides}-sided"
        case Star():
            words = f"{shape.points}-point star"
        case _:
            words = {"bubble": "speech bubble"}.get(shape.kind, shape.kind)
    return words if shape.scale == 1 else f"{words} at {percent(shape.scale)}"


def ground_in_words(ground: Ground) -> str:
    """A ground: "white", "#102030 to #A0B0C0", "the photo blurred"."""
    match ground:
        case SolidColour():
            return colour_in_words(ground.colour)
        case Gradient():
            return f"{colour_in_words(ground.start)} to {colour_in_words(ground.end)}"
        case BlurredPhoto():
            return "the photo, blurred"
        case ThisPhoto():
            return "this photo"
        case StockBackdrop():
            return ground.key
        case OtherPhoto():
            return "another photo"
    return "transparent"


LOOK_NAMES: dict[LookKey, str] = {
    "bright-day": "Bright day",
    "clear": "Clear",
    "deep": "Deep",
    "dusk": "Dusk",
    "faded": "Faded",
    "forest": "Forest",
    "golden": "Golden",
    "linen": "Linen",
    "quiet": "Quiet",
    "slate": "Slate",
    "ink": "Ink",
    "clay": "Clay",
}
_MOST_NAMED = 3
_MOST_LETTERS = 32
_ONE_OF = {"areas": "area", "washes": "wash"}


def tone_in_words(tone: Tone) -> str:
    """Its look and its first settings: "Golden, exposure +0.5, contrast +20 and 2 more"."""
    if not tone.on:
        return "switched off"
    parts = []
    if tone.look:
        share = "" if tone.look.strength == 100 else f" {tone.look.strength:g}\N{NO-BREAK SPACE}%"
        parts.append(f"{look_name(tone.look)}{share}")
    fresh = Tone()
    for name in Tone.model_fields:
        value = getattr(tone, name)
        if name in ("on", "look") or value == getattr(fresh, name):
            continue
        words = name.replace("_", " ")
        if name == "warmth":
            words = f"{words} {value:g}\N{NO-BREAK SPACE}K"
        elif isinstance(value, int | float):
            words = f"{words} {value:+g}"
        elif name in _ONE_OF:
            words = f"1 {_ONE_OF[name]}" if len(value) == 1 else f"{len(value)} {name}"
        parts.append(words)
    if len(parts) > _MOST_NAMED:
        parts = [*parts[:_MOST_NAMED], f"{len(parts) - _MOST_NAMED} more"]
    return ", ".join(parts) or "as taken"


def look_name(look: LookUse) -> str:
    """What a look is called."""
    return LOOK_NAMES[look.key] if isinstance(look, StockLook) else look.name


TREATMENT_NAMES: dict[TreatmentKind, str] = {
    "mosaic": "mosaic",
    "dots": "print raster",
    "drawing": "drawing",
    "poster": "poster",
    "paint": "paint",
    "relief": "relief",
    "grain": "grain",
    "vignette": "vignette",
    "glow": "glow",
    "blur": "blur",
    "sharp_zone": "sharp zone",
}


def treatments_in_words(treatments: Treatments, lifts: Lifts) -> str:
    """What is made of the photo, in order: "mosaic, grain, 2 lifts"."""
    if not treatments.made and not lifts.lifted:
        return "none"
    if not treatments.on:
        return "switched off"
    parts = [TREATMENT_NAMES[one.kind] for one in treatments.seen]
    if count := len(lifts.seen):
        parts.append(f"{count} lift{'s' if count > 1 else ''}")
    return ", ".join(parts) or "none"


def border_in_words(border: Border) -> str:
    """Its only band, "white, 2.5 %, around the photo", or what several are: "moulding, mat"."""
    bands = [band for band in border.bands if band.thickness.any]
    if not bands:
        return "none"
    if not border.on:
        return "switched off"
    return band_in_words(bands[0]) if len(bands) == 1 else ", ".join(map(_band_name, bands))


def band_in_words(band: BorderBand) -> str:
    """What it is, its thickness and its place."""
    name = colour_in_words(band.colour) if band.kind == "line" else _band_name(band)
    words = [name, thickness_in_words(band.thickness)]
    if band.kind == "line" and band.line != "solid":
        words.append(band.line)
    if band.opacity < 1:
        words.append(f"{percent(band.opacity)} opaque")
    if band.around:
        words.append("around the photo")
    return ", ".join(words)


def _band_name(band: BorderBand) -> str:
    if band.kind == "mat":
        return "mat" if band.profile == "board" else "moulding"
    if band.kind == "pattern":
        return "own picture" if band.picture else band.pattern
    return "line" if band.kind == "line" else f"{band.look} edge"


_PIECES = {
    "text": ("text", "texts"),
    "badge": ("badge", "badges"),
    "picture": ("picture", "pictures"),
    "mark": ("mark", "marks"),
}


def pieces_in_words(pieces: Sequence[Piece]) -> str:
    """The first words, or how many there are of each kind: "2 texts, 1 badge"."""
    if len(pieces) == 1 and isinstance(pieces[0], TextPiece):
        return f"“{_start_of(pieces[0].text)}”"
    parts = []
    for kind, names in _PIECES.items():
        count = sum(piece.kind == kind for piece in pieces)
        parts += [f"{count} {names[count > 1]}"] if count else []
    return ", ".join(parts) or "none"


def piece_in_words(piece: Piece) -> str:
    """What a piece is, and its words: "Text “Just fired”", "Picture"."""
    text = piece.mark.name if isinstance(piece, MarkPiece) else getattr(piece, "text", "")
    kind = _PIECES[piece.kind][0].capitalize()
    return f"{kind} “{_start_of(text)}”" if text.strip() else kind


def watermark_in_words(mark: Watermark) -> str:
    """Its words, how they lie and how strong they are."""
    if mark.logo:
        what = "a logo"
    elif mark.mark:
        what = f"mark “{_start_of(mark.mark.name)}”"
    elif mark.text.strip():
        what = f"“{_start_of(mark.text)}”"
    else:
        return "none"
    places = {"spot": "on one spot", "across": "across", "repeated": "repeated"}
    words = f"{what}, {places[mark.place]}, {percent(mark.opacity)}"
    return words if mark.on else "switched off"


def _start_of(text: str) -> str:
    line = " ".join(text.split())
    return line if len(line) <= _MOST_LETTERS else f"{line[: _MOST_LETTERS - 1]}…"


def export_in_words(export: Export) -> str:
    """Format and weight: "JPEG, at most 400 KB"."""
    name = FORMAT_NAMES[export.format]
    if export.max_kb is not None:
        return f"{name}, at most {export.max_kb:g} KB"
    if export.colours and export.format in ("png", "gif"):
        return f"{name}, {export.colours} colours"
    if export.is_lossless:
        return f"{name}, lossless" if export.format == "webp" else name
    return f"{name}, quality {export.quality}"


def thickness_in_words(sides: Sides) -> str:
    """One percentage, or one for each side that has any: "top 5 %, left 2 %"."""
    if sides.even:
        return percent(sides.top)
    parts = {"top": sides.top, "right": sides.right, "bottom": sides.bottom, "left": sides.left}
    return ", ".join(f"{side} {percent(part)}" for side, part in parts.items() if part)


def colour_in_words(colour: str) -> str:
    """A colour by its name if it has one, else ``#RRGGBB``."""
    return _COLOUR_NAMES.get(colour, colour)


def pixels_in_words(pixels: Pixels) -> str:
    """A size's pixels: "1080 × 1350 px", or its measures on paper."""
    if isinstance(pixels, FixedPixels):
        if pixels.printed:
            return f"{pixels.printed.label}, {pixels.printed.ppi:g} ppi"
        return f"{pixels.width} × {pixels.height} px"
    if isinstance(pixels, AsCropped):
        return "as cropped"
    return f"{pixels.side} {pixels.length} px"


def pieces_change_in_words(before: Sequence[Piece], after: Sequence[Piece]) -> str:
    """What happened to pieces: "Added 1 badge"."""
    old, new = {p.id: p for p in before}, {p.id: p for p in after}
    added = [piece for key, piece in new.items() if key not in old]
    removed = [piece for key, piece in old.items() if key not in new]
    changed = [piece for key, piece in new.items() if key in old and old[key] != piece]
    for verb, pieces in (("Added", added), ("Removed", removed), ("Changed", changed)):
        if pieces:
            return f"{verb} {pieces_in_words(pieces)}"
    return "Pieces reordered"


def export_change_in_words(old: Export, new: Export) -> str:
    """What an export is now, or that its file details changed."""
    words = export_in_words(new)
    return f"Export: {words if words != export_in_words(old) else 'file details'}"


def percent(fraction: float) -> str:
    """A fraction as a percentage of three digits at most."""
    return f"{100 * fraction:.3g}\N{NO-BREAK SPACE}%"
