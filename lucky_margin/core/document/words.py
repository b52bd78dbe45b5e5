"""What is set, in plain words: for the docket's lines and for the names of revisions."""

from lucky_margin.core.document.finish import Finish
from lucky_margin.core.document.sizes import AsCropped, FixedPixels, Pixels, Size
from lucky_margin.core.document.steps import Border, Export
from lucky_margin.core.document.values import Ground, Sides, SolidColour
from lucky_margin.core.types import ImageFormat

FORMAT_NAMES: dict[ImageFormat, str] = {
    "jpeg": "JPEG",
    "png": "PNG",
    "webp": "WebP",
    "avif": "AVIF",
}
_COLOUR_NAMES = {"#FFFFFF": "white", "#000000": "black"}


def crop_in_words(finish: Finish, size: Size) -> str:
    """Ratio and where the window comes from: "4:5, own window"."""
    pixels = size.pixels
    held = pixels.ratio
    if isinstance(pixels, FixedPixels):
        ratio = f"{pixels.width} × {pixels.height}"
    else:
        ratio = held.label if held else "free"
    if size.crop.window is not None:
        where = "own window"
    elif held is None:
        where = "whole photo"
    else:
        where = "follows the focus" if finish.focus else "centred"
    corners = f", corners {_percent(size.shape.radius)}" if size.shape.radius else ""
    return f"{ratio}, {where}{corners}"


def border_in_words(border: Border) -> str:
    """Colour, thickness and place: "white, 2.5 %, outside"."""
    if not border.thickness.any:
        return "none"
    words = [colour_in_words(border.colour), thickness_in_words(border.thickness)]
    if border.opacity < 1:
        words.append(f"{_percent(border.opacity)} opaque")
    if border.outside:
        words.append("outside")
    return ", ".join(words) if border.on else "switched off"


def export_in_words(export: Export) -> str:
    """Format and weight: "JPEG, at most 400 KB"."""
    name = FORMAT_NAMES[export.format]
    if export.max_kb is not None:
        return f"{name}, at most {export.max_kb:g} KB"
    return name if export.format == "png" else f"{name}, quality {export.quality}"


def thickness_in_words(sides: Sides) -> str:
    """One percentage, or one for each side that has any: "top 5 %, left 2 %"."""
    if sides.even:
        return _percent(sides.top)
    parts = {"top": sides.top, "right": sides.right, "bottom": sides.bottom, "left": sides.left}
    return ", ".join(f"{side} {_percent(part)}" for side, part in parts.items() if part)


def colour_in_words(colour: str) -> str:
    return _COLOUR_NAMES.get(colour, colour)


def pixels_in_words(pixels: Pixels) -> str:
    if isinstance(pixels, FixedPixels):
        return f"{pixels.width} × {pixels.height} px"
    if isinstance(pixels, AsCropped):
        return "as cropped"
    return f"{pixels.side} {pixels.length} px"


def describe_change(before: Finish, after: Finish) -> str:
    """What changed between two finishes, as the name of a revision; empty if nothing did."""
    parts = []
    if before.name != after.name:
        parts.append(f"Renamed to “{after.name}”")
    known = {size.id: size for size in before.sizes}
    for size in after.sizes:
        old = known.get(size.id)
        parts += [f"Added {size.name}"] if old is None else _size_changes(old, size)
    if before.focus != after.focus:
        parts.append("Focus set" if after.focus else "Focus forgotten")
    for place in ("backdrop", "outside"):
        ground = getattr(after, place)
        if ground != getattr(before, place):
            parts.append(f"{place.capitalize()}: {_ground_in_words(ground)}")
    if before.border != after.border:
        parts.append(f"Border: {border_in_words(after.border)}")
    if before.export != after.export:
        parts.append(_export_change(before.export, after.export))
    if not parts and before != after:
        parts.append("Changed")
    return "; ".join(parts)


def _size_changes(old: Size, new: Size) -> list[str]:
    parts = []
    if old.pixels != new.pixels:
        if pixels_in_words(old.pixels) == pixels_in_words(new.pixels):
            parts.append(f"Ratio: {new.ratio.label if new.ratio else 'free'}")
        else:
            parts.append(f"Size: {new.name}, {pixels_in_words(new.pixels)}")
    elif old.crop != new.crop:
        window = new.crop.window
        where = f"{window.width:.0f} × {window.height:.0f}" if window else "no own window"
        parts.append(f"Crop: {where}")
    if old.shape != new.shape:
        parts.append(f"Corners: {_percent(new.shape.radius)}")
    if old.margin != new.margin:
        parts.append(f"Margin: {_percent(new.margin)}")
    if old.own != new.own:
        parts.append(f"{new.name}: its own way")
    return parts


def _export_change(old: Export, new: Export) -> str:
    words = export_in_words(new)
    return f"Export: {words if words != export_in_words(old) else 'file details'}"


def _ground_in_words(ground: Ground) -> str:
    return colour_in_words(ground.colour) if isinstance(ground, SolidColour) else "transparent"


def _percent(fraction: float) -> str:
    return f"{100 * fraction:.3g}\N{NO-BREAK SPACE}%"
