"""Edits of sizes: their number, order, names, pixels and ratios."""

from typing import Literal

from pydantic import Field

from lucky_margin.core.document import (
    MAX_SIZES,
    AsCropped,
    Finish,
    FixedPixels,
    Name,
    OneSide,
    Overrides,
    Pixels,
    Ratio,
    Size,
    SizePlan,
)
from lucky_margin.core.edits.context import Context, Edited, changed
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput

_LONGEST_NAME = 120


class UseSize(EditBase):
    """Make the size in hand one of the library, or one of one's own."""

    kind: Literal["use_size"] = "use_size"
    plan: SizePlan


@carries_out(UseSize)
def use_size(here: Context, edit: UseSize) -> Edited:
    plan = edit.plan
    own = Overrides(
        turn=here.size.overrides.turn, border=plan.overrides.border, export=plan.overrides.export
    )
    size = changed(size_of_plan(plan, here.size.id), crop=here.size.crop, overrides=own)
    return here.edited(_reframed(here, size))


class AddSize(EditBase):
    """Add a size to the finish and take it in hand."""

    kind: Literal["add_size"] = "add_size"
    plan: SizePlan


@carries_out(AddSize)
def add_size(here: Context, edit: AddSize) -> Edited:
    return _inserted(here, size_of_plan(edit.plan, _new_id(here.finish)), len(here.finish.sizes))


class DuplicateSize(EditBase):
    """Add a copy of the size in hand after it, and take that in hand."""

    kind: Literal["duplicate_size"] = "duplicate_size"


@carries_out(DuplicateSize)
def duplicate_size(here: Context, edit: DuplicateSize) -> Edited:
    copy = changed(here.size, id=_new_id(here.finish), name=f"{here.size.name[:110]} (copy)")
    return _inserted(here, copy, here.finish.sizes.index(here.size) + 1)


class RemoveSize(EditBase):
    """Remove the size in hand, unless it is the last one."""

    kind: Literal["remove_size"] = "remove_size"


@carries_out(RemoveSize)
def remove_size(here: Context, edit: RemoveSize) -> Edited:
    kept = tuple(size for size in here.finish.sizes if size.id != here.size.id)
    if not kept:
        raise BadInput("A finish keeps at least one size; add another one first.")
    place = min(here.finish.sizes.index(here.size), len(kept) - 1)
    return Edited(here.finish.model_copy(update={"sizes": kept}), kept[place].id)


class RenameSize(EditBase):
    """Call the size in hand something else."""

    kind: Literal["rename_size"] = "rename_size"
    name: str


@carries_out(RenameSize)
def rename_size(here: Context, edit: RenameSize) -> Edited:
    return here.with_size(name=edit.name[:_LONGEST_NAME])


class PlaceSize(EditBase):
    """Move the size in hand to this place among the sizes, counted from 0."""

    kind: Literal["place_size"] = "place_size"
    place: int = Field(ge=0)


@carries_out(PlaceSize)
def place_size(here: Context, edit: PlaceSize) -> Edited:
    others = [size for size in here.finish.sizes if size.id != here.size.id]
    others.insert(min(edit.place, len(others)), here.size)
    return here.edited(here.finish.model_copy(update={"sizes": tuple(others)}))


class SetSeenWidth(EditBase):
    """Say how wide people usually see the size, in pixels."""

    kind: Literal["set_seen_width"] = "set_seen_width"
    seen_width: int


@carries_out(SetSeenWidth)
def set_seen_width(here: Context, edit: SetSeenWidth) -> Edited:
    return here.with_size(seen_width=edit.seen_width)


class SetPixels(EditBase):
    """Give the size other pixels, and a name when they have one."""

    kind: Literal["set_pixels"] = "set_pixels"
    pixels: Pixels
    name: Name | None = None


@carries_out(SetPixels)
def set_pixels(here: Context, edit: SetPixels) -> Edited:
    fields = {"pixels": edit.pixels} | ({"name": edit.name} if edit.name else {})
    return here.edited(_reframed(here, here.size.model_copy(update=fields)))


class ChooseRatio(EditBase):
    """Hold the window to a ratio; null frees it, "original" is the photo's own."""

    kind: Literal["choose_ratio"] = "choose_ratio"
    ratio: Ratio | Literal["original"] | None


@carries_out(ChooseRatio)
def choose_ratio(here: Context, edit: ChooseRatio) -> Edited:
    if edit.ratio is None:
        return _free_ratio(here)
    bounds = here.photo.surface
    ratio = (
        Ratio(width=bounds.width, height=bounds.height) if edit.ratio == "original" else edit.ratio
    )
    pixels, message = here.size.pixels, ""
    if isinstance(pixels, FixedPixels):
        fixed = _shorter_side_following(pixels, ratio)
        if (fixed.width, fixed.height) != (pixels.width, pixels.height):
            message = (
                f"The size is now {fixed.width} × {fixed.height} px: "
                "its shorter side follows the ratio."
            )
        size = here.size.model_copy(update={"pixels": fixed})
    else:
        size = here.size.model_copy(update={"pixels": changed(pixels, ratio=ratio)})
    return here.edited(_reframed(here, size), message)


def _shorter_side_following(pixels: FixedPixels, ratio: Ratio) -> FixedPixels:
    if pixels.printed:
        return FixedPixels.on_paper(pixels.printed.with_ratio(ratio))
    long = max(pixels.width, pixels.height)
    width = long if ratio.value >= 1 else max(1, round(long * ratio.value))
    height = long if ratio.value <= 1 else max(1, round(long / ratio.value))
    return FixedPixels(width=width, height=height)


def _free_ratio(here: Context) -> Edited:
    """Freeing keeps what shows; a fixed size keeps its longer side and says so."""
    pixels, message = here.size.pixels, ""
    if isinstance(pixels, FixedPixels):
        wide = pixels.width >= pixels.height
        length = max(pixels.width, pixels.height)
        freed: OneSide | AsCropped = OneSide(side="width" if wide else "height", length=length)
        message = (
            f"The {'width' if wide else 'height'} stays {length} px; "
            f"the {'height' if wide else 'width'} now follows the window."
        )
    else:
        freed = changed(pixels, ratio=None)
    crop = changed(here.size.crop, window=here.photo.window_of(here.frame.window))
    return here.with_size(message, pixels=freed, crop=crop)


def _reframed(here: Context, size: Size) -> Finish:
    """The finish with ``size``, whose own window takes the ratio it is now held to.

    The window keeps its centre and, as far as the photo allows, its area.
    """
    own, held = size.crop.window, here.frame_with(size).held_ratio
    if own is None or held is None:
        return here.finish.with_size(size)
    area = own.width * own.height
    largest, _ = here.photo.window_room.largest(held)
    width = min((area * held) ** 0.5, largest)
    window = here.photo.box_of(changed(own, width=width, height=width / held))
    inside = here.photo.window_of(here.photo.window_room.moved_inside(window))
    crop = size.crop.model_copy(update={"window": inside})
    return here.finish.with_size(size.model_copy(update={"crop": crop}))


def size_of_plan(plan: SizePlan, size_id: str) -> Size:
    """The size that ``plan`` describes."""
    fields = {name: getattr(plan, name) for name in SizePlan.model_fields}
    return Size(id=size_id, default_shape=plan.shape, **fields)


def _inserted(here: Context, size: Size, place: int) -> Edited:
    if len(here.finish.sizes) >= MAX_SIZES:
        raise BadInput(
            f"A finish holds at most {MAX_SIZES} sizes; remove one, or start another finish."
        )
    sizes = list(here.finish.sizes)
    sizes.insert(place, size)
    return Edited(here.finish.model_copy(update={"sizes": tuple(sizes)}), size.id)


def _new_id(finish: Finish) -> str:
    """An id that no size of the finish has; the same finish always gives the same one."""
    used = {size.id for size in finish.sizes}
    return next(
        name for number in range(2, MAX_SIZES + 3) if (name := f"size-{number}") not in used
    )
