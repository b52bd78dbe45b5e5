"""What of a finish suits any photo: all but what lies in a place of its own one."""

from collections.abc import Callable, Iterable
from typing import Any, TypeVar

from lucky_margin.core.document.areas import Area, BandMask, EllipseMask
from lucky_margin.core.document.finish import Finish
from lucky_margin.core.document.house_style import StyleParts
from lucky_margin.core.document.lifts import Lift, ShapeRegion
from lucky_margin.core.document.sizes import Size
from lucky_margin.core.document.spots import Spots
from lucky_margin.core.document.steps import Turn
from lucky_margin.core.document.treatments import Treatment
from lucky_margin.core.document.values import Value

Masked = TypeVar("Masked", Area, Treatment)


def placeless(finish: Finish) -> Finish:
    """``finish`` without turning, spots, crops of its own, alternative text, and areas, treatments
    and lifts of a place of its photo."""
    fields: dict[str, Any] = {field: _without_places(finish, field) for field in _WITH_PLACES}
    if finish.style:
        before = _placeless_parts(finish.style.before)
        fields["style"] = finish.style.model_copy(update={"before": before})
    return finish.model_copy(
        update={
            "turn": Turn(),
            "spots": Spots(),
            "export": finish.export.model_copy(update={"alt_text": ""}),
            "sizes": tuple(placeless_size(size) for size in finish.sizes),
            **fields,
        }
    )


def placeless_size(size: Size) -> Size:
    """The size with nothing of its own that hung on the photo."""
    own = {step: _without_places(size.overrides, step) for step in _WITH_PLACES}
    crop = size.crop.model_copy(update={"window": None})
    return size.with_overrides(turn={}, spots={}, **own).model_copy(update={"crop": crop})


def _placeless_parts(parts: StyleParts) -> StyleParts:
    """What a finish had before its style, likewise."""
    fields: dict[str, Any] = {}
    if parts.sizes:
        fields["sizes"] = tuple(placeless_size(size) for size in parts.sizes)
    if parts.treatments:
        fields["treatments"] = _without_places(parts, "treatments")
    return parts.model_copy(update=fields)


def _is_placed(one: Area | Treatment) -> bool:
    """Whether a place on the photo says where it is."""
    return any(isinstance(mask, BandMask | EllipseMask) for mask in one.masks)


def _unplaced(all_of_them: Iterable[Masked]) -> tuple[Masked, ...]:
    return tuple(one for one in all_of_them if not _is_placed(one))


def _of_any_photo(lifts: Iterable[Lift]) -> tuple[Lift, ...]:
    return tuple(lift for lift in lifts if not isinstance(lift.region, ShapeRegion))


_WITH_PLACES: dict[str, tuple[str, Callable[[Any], tuple[Any, ...]]]] = {
    "tone": ("areas", _unplaced),
    "treatments": ("made", _unplaced),
    "lifts": ("lifted", _of_any_photo),
}
"""Steps that hold places on the photo: in which list, and what of it suits any photo."""


def _without_places(holder: Any, step: str) -> Value:
    """A step of a finish, or of a size's overrides, without what lies in a place of the photo."""
    value: Value = getattr(holder, step)
    name, kept = _WITH_PLACES[step]
    listed = getattr(value, name)
    if not listed:
        return value
    return type(value).model_validate(value.model_dump() | {name: kept(listed)})
