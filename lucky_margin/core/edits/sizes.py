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
from lucky_margin.core.edits.edited import Edited, changed, frame_with, with_size
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene

_LONGEST_NAME = 120


class UseSize(EditBase):
    """Make the size in hand one of the library, or one of one's own."""

    kind: Literal["use_size"] = "use_size"
    plan: SizePlan


@carries_out(UseSize)
def use_size(scene: Scene, edit: UseSize) -> Edited:
    """The plan's pixels, shape and overrides for the size in hand; its crop and turn stay."""
    plan = edit.plan
    own = Overrides(
        turn=scene.size.overrides.turn, border=plan.overrides.border, export=plan.overrides.export
    )
    size = changed(size_of_plan(plan, scene.size.id), crop=scene.size.crop, overrides=own)
    return Edited.of(scene, _reframed(scene, size))


class AddSize(EditBase):
    """Add a size to the finish and take it in hand."""

    kind: Literal["add_size"] = "add_size"
    plan: SizePlan


@carries_out(AddSize)
def add_size(scene: Scene, edit: AddSize) -> Edited:
    """One size more, after the others."""
    return _inserted(scene, size_of_plan(edit.plan, _new_id(scene.finish)), len(scene.finish.sizes))


class DuplicateSize(EditBase):
    """Add a copy of the size in hand after it, and take that in hand."""

    kind: Literal["duplicate_size"] = "duplicate_size"


@carries_out(DuplicateSize)
def duplicate_size(scene: Scene, edit: DuplicateSize) -> Edited:
    """A copy of the size in hand, after it."""
    copy = changed(scene.size, id=_new_id(scene.finish), name=f"{scene.size.name[:110]} (copy)")
    return _inserted(scene, copy, scene.finish.sizes.index(scene.size) + 1)


class RemoveSize(EditBase):
    """Remove the size in hand, unless it is the last one."""

    kind: Literal["remove_size"] = "remove_size"


@carries_out(RemoveSize)
def remove_size(scene: Scene, edit: RemoveSize) -> Edited:
    """The finish without the size in hand.

    Raises:
        BadInput: it is the only one.
    """
    kept = tuple(size for size in scene.finish.sizes if size.id != scene.size.id)
    if not kept:
        raise BadInput("A finish needs at least one size; add another one first.")
    place = min(scene.finish.sizes.index(scene.size), len(kept) - 1)
    return Edited(scene.finish.model_copy(update={"sizes": kept}), kept[place].id)


class RenameSize(EditBase):
    """Call the size in hand something else."""

    kind: Literal["rename_size"] = "rename_size"
    name: str


@carries_out(RenameSize)
def rename_size(scene: Scene, edit: RenameSize) -> Edited:
    """The size under another name."""
    return with_size(scene, name=edit.name[:_LONGEST_NAME])


class PlaceSize(EditBase):
    """Move the size in hand to this place among the sizes, counted from 0."""

    kind: Literal["place_size"] = "place_size"
    place: int = Field(ge=0)


@carries_out(PlaceSize)
def place_size(scene: Scene, edit: PlaceSize) -> Edited:
    """The size at another place among the others."""
    others = [size for size in scene.finish.sizes if size.id != scene.size.id]
    others.insert(min(edit.place, len(others)), scene.size)
    return Edited.of(scene, scene.finish.model_copy(update={"sizes": tuple(others)}))


class SetSeenWidth(EditBase):
    """Say how wide people usually see the size, in pixels."""

    kind: Literal["set_seen_width"] = "set_seen_width"
    seen_width: int


@carries_out(SetSeenWidth)
def set_seen_width(scene: Scene, edit: SetSeenWidth) -> Edited:
    """How wide people see the size, in pixels."""
    return with_size(scene, seen_width=edit.seen_width)


class SetPixels(EditBase):
    """Give the size other pixels, and a name when they have one."""

    kind: Literal["set_pixels"] = "set_pixels"
    pixels: Pixels
    name: Name | None = None


@carries_out(SetPixels)
def set_pixels(scene: Scene, edit: SetPixels) -> Edited:
    """Other pixels; what shows stays as near as it can."""
    fields = {"pixels": edit.pixels} | ({"name": edit.name} if edit.name else {})
    return Edited.of(scene, _reframed(scene, scene.size.model_copy(update=fields)))


class ChooseRatio(EditBase):
    """Hold the window to a ratio; null frees it, "original" is the photo's own."""

    kind: Literal["choose_ratio"] = "choose_ratio"
    ratio: Ratio | Literal["original"] | None


@carries_out(ChooseRatio)
def choose_ratio(scene: Scene, edit: ChooseRatio) -> Edited:
    """Another ratio: a fixed size changes its shorter side, any other holds its window to it."""
    if edit.ratio is None:
        return _free_ratio(scene)
    bounds = scene.photo.surface
    ratio = (
        Ratio(width=bounds.width, height=bounds.height) if edit.ratio == "original" else edit.ratio
    )
    pixels, message = scene.size.pixels, ""
    if isinstance(pixels, FixedPixels):
        fixed = _shorter_side_following(pixels, ratio)
        if (fixed.width, fixed.height) != (pixels.width, pixels.height):
            message = (
                f"The size is now {fixed.width} × {fixed.height} px: "
                "its shorter side follows the ratio."
            )
        size = scene.size.model_copy(update={"pixels": fixed})
    else:
        size = scene.size.model_copy(update={"pixels": changed(pixels, ratio=ratio)})
    return Edited.of(scene, _reframed(scene, size), message)


def _shorter_side_following(pixels: FixedPixels, ratio: Ratio) -> FixedPixels:
    if pixels.printed:
        return FixedPixels.on_paper(pixels.printed.with_ratio(ratio))
    long = max(pixels.width, pixels.height)
    width = long if ratio.value >= 1 else max(1, round(long * ratio.value))
    height = long if ratio.value <= 1 else max(1, round(long / ratio.value))
    return FixedPixels(width=width, height=height)


def _free_ratio(scene: Scene) -> Edited:
    """Freeing keeps what shows; a fixed size keeps its longer side and says so."""
    pixels, message = scene.size.pixels, ""
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
    crop = changed(scene.size.crop, window=scene.photo.window_of(scene.frame.window))
    return with_size(scene, message, pixels=freed, crop=crop)


def _reframed(scene: Scene, size: Size) -> Finish:
    """The finish with ``size``, whose own window takes the ratio it is now held to.

    The window keeps its centre and, as far as the photo allows, its area.
    """
    own, held = size.crop.window, frame_with(scene, size).held_ratio
    if own is None or held is None:
        return scene.finish.with_size(size)
    area = own.width * own.height
    largest, _ = scene.photo.window_room.largest(held)
    width = min((area * held) ** 0.5, largest)
    window = scene.photo.box_of(changed(own, width=width, height=width / held))
    inside = scene.photo.window_of(scene.photo.window_room.moved_inside(window))
    crop = size.crop.model_copy(update={"window": inside})
    return scene.finish.with_size(size.model_copy(update={"crop": crop}))


def size_of_plan(plan: SizePlan, size_id: str) -> Size:
    """The size that ``plan`` describes."""
    fields = {name: getattr(plan, name) for name in SizePlan.model_fields}
    return Size(id=size_id, default_shape=plan.shape, **fields)


def _inserted(scene: Scene, size: Size, place: int) -> Edited:
    if len(scene.finish.sizes) >= MAX_SIZES:
        raise BadInput(
            f"A finish can have at most {MAX_SIZES} sizes; remove one, or start another finish."
        )
    sizes = list(scene.finish.sizes)
    sizes.insert(place, size)
    return Edited(scene.finish.model_copy(update={"sizes": tuple(sizes)}), size.id)


def _new_id(finish: Finish) -> str:
    """An id that no size of the finish has; the same finish always gives the same one."""
    used = {size.id for size in finish.sizes}
    return next(
        name for number in range(2, MAX_SIZES + 3) if (name := f"size-{number}") not in used
    )
