"""Edits of sizes: their number, order, names, pixels and ratios."""

from lucky_margin.core.document import (
    MAX_SIZES,
    AsCropped,
    Finish,
    FixedPixels,
    OneSide,
    OwnWays,
    Ratio,
    Size,
    SizePlan,
)
from lucky_margin.core.edits import edit as edits
from lucky_margin.core.edits.context import Context, Edited, changed
from lucky_margin.core.errors import BadInput

_LONGEST_NAME = 120


def use_size(here: Context, edit: edits.UseSize) -> Edited:
    plan = edit.plan
    own = OwnWays(turn=here.size.own.turn, border=plan.own.border, export=plan.own.export)
    size = changed(size_of_plan(plan, here.size.id), crop=here.size.crop, own=own)
    return here.edited(_reframed(here, size))


def add_size(here: Context, edit: edits.AddSize) -> Edited:
    return _inserted(here, size_of_plan(edit.plan, _new_id(here.finish)), len(here.finish.sizes))


def duplicate_size(here: Context, edit: edits.DuplicateSize) -> Edited:
    copy = changed(here.size, id=_new_id(here.finish), name=f"{here.size.name[:110]} (copy)")
    return _inserted(here, copy, here.finish.sizes.index(here.size) + 1)


def remove_size(here: Context, edit: edits.RemoveSize) -> Edited:
    kept = tuple(size for size in here.finish.sizes if size.id != here.size.id)
    if not kept:
        raise BadInput("A finish keeps at least one size; add another one first.")
    place = min(here.finish.sizes.index(here.size), len(kept) - 1)
    return Edited(here.finish.model_copy(update={"sizes": kept}), kept[place].id)


def rename_size(here: Context, edit: edits.RenameSize) -> Edited:
    return here.with_size(name=edit.name[:_LONGEST_NAME])


def place_size(here: Context, edit: edits.PlaceSize) -> Edited:
    others = [size for size in here.finish.sizes if size.id != here.size.id]
    others.insert(min(edit.place, len(others)), here.size)
    return here.edited(here.finish.model_copy(update={"sizes": tuple(others)}))


def set_seen_width(here: Context, edit: edits.SetSeenWidth) -> Edited:
    return here.with_size(seen_width=edit.seen_width)


def set_pixels(here: Context, edit: edits.SetPixels) -> Edited:
    fields = {"pixels": edit.pixels} | ({"name": edit.name} if edit.name else {})
    return here.edited(_reframed(here, here.size.model_copy(update=fields)))


def choose_ratio(here: Context, edit: edits.ChooseRatio) -> Edited:
    if edit.ratio is None:
        return _free_ratio(here)
    bounds = here.photo.surface
    ratio = (
        Ratio(width=bounds.width, height=bounds.height) if edit.ratio == "original" else edit.ratio
    )
    pixels, said = here.size.pixels, ""
    if isinstance(pixels, FixedPixels):
        fixed = _shorter_side_following(pixels, ratio)
        if (fixed.width, fixed.height) != (pixels.width, pixels.height):
            said = (
                f"The size is now {fixed.width} × {fixed.height} px: "
                "its shorter side follows the ratio."
            )
        size = here.size.model_copy(update={"pixels": fixed})
    else:
        size = here.size.model_copy(update={"pixels": changed(pixels, ratio=ratio)})
    return here.edited(_reframed(here, size), said)


def _shorter_side_following(pixels: FixedPixels, ratio: Ratio) -> FixedPixels:
    if pixels.printed:
        return FixedPixels.on_paper(pixels.printed.with_ratio(ratio))
    long = max(pixels.width, pixels.height)
    width = long if ratio.value >= 1 else max(1, round(long * ratio.value))
    height = long if ratio.value <= 1 else max(1, round(long / ratio.value))
    return FixedPixels(width=width, height=height)


def _free_ratio(here: Context) -> Edited:
    """Freeing keeps what shows; a fixed size keeps its longer side and says so."""
    pixels, said = here.size.pixels, ""
    if isinstance(pixels, FixedPixels):
        wide = pixels.width >= pixels.height
        length = max(pixels.width, pixels.height)
        freed: OneSide | AsCropped = OneSide(side="width" if wide else "height", length=length)
        said = (
            f"The {'width' if wide else 'height'} stays {length} px; "
            f"the {'height' if wide else 'width'} now follows the window."
        )
    else:
        freed = changed(pixels, ratio=None)
    crop = changed(here.size.crop, window=here.photo.window_of(here.frame.window))
    return here.with_size(said, pixels=freed, crop=crop)


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
    return Size(id=size_id, came_as=plan.shape, **fields)


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
