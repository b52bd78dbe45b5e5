"""What changed between two states of a finish, in words: the names of revisions."""

from lucky_margin.core.document.docket import STEPS
from lucky_margin.core.document.finish import Finish
from lucky_margin.core.document.sizes import Crop, Size
from lucky_margin.core.document.summaries import (
    ground_in_words,
    percent,
    pixels_in_words,
    shape_in_words,
)


def describe_change(before: Finish, after: Finish) -> str:
    """What changed between two finishes, as the name of a revision; empty if nothing did."""
    if after.photo and (before.photo is None or before.photo.sha256 != after.photo.sha256):
        # What hung on the old one only went with it.
        return "Another photo" if before.photo else "A photo put in"
    square = after.photo.square if after.photo else None
    if before.photo and before.photo.square != square:  # what was drawn on it only went along
        return "Squared up" if square else "The photo as it was taken"
    if before.style != after.style:  # which says what else became of the finish
        return _style_change(before, after)
    parts = []
    if before.name != after.name:
        parts.append(f"Renamed to “{after.name}”")
    parts += _changes_of_sizes(before, after)
    if before.focus != after.focus:
        parts.append("Focus set" if after.focus else "Focus removed")
    for ground in ("backdrop", "outside"):
        if getattr(before, ground) != getattr(after, ground):
            parts.append(f"{ground.capitalize()}: {ground_in_words(getattr(after, ground))}")
    parts += [
        step.change(before, after)
        for step in STEPS
        if any(getattr(before, field) != getattr(after, field) for field in step.fields)
    ]
    if not parts and before != after:
        parts.append("Changed")
    return "; ".join(parts)


def _style_change(before: Finish, after: Finish) -> str:
    if after.style is None:
        return "House style removed"
    renewed = before.style is not None and before.style.id == after.style.id
    return f"House style{' renewed' if renewed else ''}: {after.style.name}"


def _changes_of_sizes(before: Finish, after: Finish) -> list[str]:
    known = {size.id: size for size in before.sizes}
    kept = {size.id for size in after.sizes}
    parts = [f"Removed {size.name}" for size in before.sizes if size.id not in kept]
    for size in after.sizes:
        old = known.get(size.id)
        parts += [f"Added {size.name}"] if old is None else _size_changes(old, size)
    if not parts and [s.id for s in before.sizes] != [s.id for s in after.sizes]:
        parts.append("Sizes reordered")
    return parts


def _size_changes(old: Size, new: Size) -> list[str]:
    parts = []
    if old.pixels != new.pixels:
        if pixels_in_words(old.pixels) == pixels_in_words(new.pixels):
            parts.append(f"Ratio: {new.ratio.label if new.ratio else 'free'}")
        else:
            parts.append(f"Size: {new.name}, {pixels_in_words(new.pixels)}")
    elif old.name != new.name:
        parts.append(f"Size renamed to “{new.name}”")
    elif old.crop != new.crop:
        parts.append(_crop_change(old.crop, new.crop))
    if old.shape != new.shape:
        parts.append(f"Shape: {shape_in_words(new.shape)}")
    if old.margin != new.margin:
        parts.append(f"Margin: {percent(new.margin)}")
    if old.covered != new.covered:
        parts.append(f"{new.name}: covered zones")
    if old.seen_width != new.seen_width:
        parts.append(f"{new.name}: seen {new.seen_width} px wide")
    if old.overrides != new.overrides:
        parts.append(f"{new.name}: changed on its own")
    return parts


def _crop_change(old: Crop, new: Crop) -> str:
    if old.contain != new.contain:
        return "The whole photo is shown" if new.contain else "The photo fills the size"
    window = new.window
    return f"Crop: {window.width:.0f} × {window.height:.0f}" if window else "Crop: automatic"
