"""Documents of earlier versions, as the present version writes them.

Each step takes a document one version further. What it finds may be any nonsense: it is left as
it is, and the model refuses it afterwards.
"""

import math
from collections.abc import Callable, Iterator
from copy import deepcopy
from typing import Any

from lucky_margin.core.document.tone import HUE_NAMES, MOST_TURN, NEUTRAL_KELVIN

Json = dict[str, Any]


def up_to_date(data: Json) -> Json:
    """A document of any earlier version, up to date; anything else as it is."""
    version = data.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or version not in _STEPS:
        return data
    updated = deepcopy(data)
    while version in _STEPS:
        _STEPS[version](updated)
        version += 1
    return updated | {"version": version}


def upgraded_look(data: Any) -> Any:
    """A saved look of one's own, whose settings may be in version 3's words.

    A look names no version, but it is saved with all its settings, so version 3's has its words.
    """
    settings = _part(data, "settings")
    if settings.keys() & _WORDS_OF_VERSION_3:
        _rename_settings(settings)
    return data


def upgraded_size_plan(data: Any) -> Any:
    """A saved size of one's own, which may be in version 3's or version 5's words."""
    if isinstance(data, dict):
        _rename(data, _RENAMED_OF_SIZES)
        _override_in_bands(_part(data, "overrides"), {})
    return data


def _to_version_2(_: Json) -> None:
    """Only fields were added (turn, more shapes, grounds and border lines), whose defaults say
    what version 1 meant."""


def _to_version_3(document: Json) -> None:
    """A look says whether it is a stock one."""
    for tone in _tones(document):
        look = _part(tone, "look")
        if look:
            look["kind"] = "stock"


def _to_version_5(_: Json) -> None:
    """A size may have its own grounds, a finish no photo, and a photo its subject cut out."""


def _to_version_4(document: Json) -> None:
    """The place is kept apart from other camera data; the tone and a few others have new names."""
    export = _part(document, "export")
    if "keep_camera_data" in export:
        export["keep_place"] = export["keep_camera_data"]
    for tone in _tones(document):
        _rename_settings(tone)
        _rename_settings(_part(_part(tone, "look"), "settings"))
        for area in _objects(tone.get("areas")):
            _rename_settings(area)
            for mask in _objects(area.get("masks")):
                _rename(mask, _RENAMED_OF_MASKS)
    for piece in _objects(document.get("pieces")):
        _respell_align(piece)
    for size in _objects(document.get("sizes")):
        _rename(size, _RENAMED_OF_SIZES)
        _rename(_part(_part(size, "crop"), "window"), _RENAMED_OF_WINDOWS)
        for changes in _objects(list(_part(_part(size, "overrides"), "pieces").values())):
            _respell_align(changes)


def _to_version_6(document: Json) -> None:
    """A border is a list of bands; what it was is a list of one line. A size that overrode a part
    of that overrides all of its bands."""
    shared = _part(document, "border")
    for size in _objects(document.get("sizes")):
        _override_in_bands(_part(size, "overrides"), shared)
    if shared:
        document["border"] = _in_bands(shared, {})


_LINE_OF_VERSION_5 = {
    "thickness": "thickness",
    "colour": "colour",
    "opacity": "opacity",
    "outside": "around",
    "line": "line",
}
"""Fields of a border, and of the line that it is now."""


def _override_in_bands(overrides: Json, shared: Json) -> None:
    if _part(overrides, "border"):
        overrides["border"] = _in_bands(overrides["border"], shared)


def _in_bands(border: Json, shared: Json) -> Json:
    """A border of version 5, or an override of ``shared``, as a list of bands."""
    known = {key: border[key] for key in _LINE_OF_VERSION_5 if border.get(key) is not None}
    others = {key: value for key, value in border.items() if key not in _LINE_OF_VERSION_5}
    if not known:
        return others
    nothing = {"thickness": dict.fromkeys(("top", "right", "bottom", "left"), 0)}
    whole = nothing | {key: shared[key] for key in _LINE_OF_VERSION_5 if key in shared} | known
    line = {_LINE_OF_VERSION_5[key]: value for key, value in whole.items()}
    return others | {"bands": [{"kind": "line"} | line]}


_STEPS: dict[int, Callable[[Json], None]] = {
    1: _to_version_2,
    2: _to_version_3,
    3: _to_version_4,
    4: _to_version_5,
    5: _to_version_6,
}


def _tones(document: Json) -> Iterator[Json]:
    """The tone of the finish, and what sizes do differently in it."""
    overrides = [_part(size, "own") for size in _objects(document.get("sizes"))]
    for holder in (document, *overrides):
        tone = _part(holder, "tone")
        if tone:
            yield tone


def _objects(values: Any) -> list[Json]:
    """The objects of a list; none where there is nonsense in its place."""
    return [one for one in values if isinstance(one, dict)] if isinstance(values, list) else []


def _rename(holder: Json, names: dict[str, str]) -> None:
    for old, new in names.items():
        if old in holder:
            holder[new] = holder.pop(old)


def _respell_align(piece: Json) -> None:
    if piece.get("align") == "center":
        piece["align"] = "centre"


def _part(holder: Any, key: str) -> Json:
    """An object inside another; empty where there is none, or nonsense in its place."""
    part = holder.get(key) if isinstance(holder, dict) else None
    return part if isinstance(part, dict) else {}


_RENAMED = {
    "vibrance": "muted_colours",
    "clarity": "local_contrast",
    "texture": "fine_detail",
    "smooth_light": "noise_reduction",
    "smooth_colour": "colour_noise_reduction",
    "sharpen": "sharpening",
    "grey": "black_and_white",
    "recolour": "duotone",
}
_RENAMED_OF_SIZES = {"own": "overrides", "came_as": "default_shape"}
_RENAMED_OF_WINDOWS = {"center_x": "centre_x", "center_y": "centre_y"}
_RENAMED_OF_MASKS = {"center": "centre"}
_WORDS_OF_VERSION_3 = {*_RENAMED, "temperature", "whites", "blacks", "bands"}

# What version 3 meant by its numbers.
_MIREDS_TO_A_STEP = 0.7
_OLD_REACH = 0.2
_OLD_TURN = 30.0
_OLD_HUES = ("red", "orange", "yellow", "green", "aqua", "blue", "purple", "magenta")
_OLD_CENTRES = (29.0, 60.0, 105.0, 142.0, 195.0, 260.0, 305.0, 345.0)


def _rename_settings(settings: Json) -> None:
    """Version 3's settings of a tone, a look or an area in version 4's words, in place."""
    _rename(settings, _RENAMED)
    if "temperature" in settings:
        settings["warmth"] = _kelvin(settings.pop("temperature"))
    _merge_ends(settings)
    if "bands" in settings:
        settings["hues"] = _nine_hues(settings.pop("bands"))


def _kelvin(steps: Any) -> Any:
    if not _is_number(steps) or abs(steps) > 100:
        return steps
    return round(1e6 / (1e6 / NEUTRAL_KELVIN - _MIREDS_TO_A_STEP * steps), 1)


def _merge_ends(settings: Json) -> None:
    """Whites and blacks, and the levels' end points, as one pair of points.

    The amounts that stretch as far: both end at the same brightness.
    """
    white_level, black_level = settings.get("white_point", 1), settings.get("black_point", 0)
    has_levels = _is_level(white_level) and _is_level(black_level)
    for field, amount, level in (
        ("white_point", settings.pop("whites", None), 1 - white_level if has_levels else 0),
        ("black_point", settings.pop("blacks", None), black_level if has_levels else 0),
    ):
        if amount is None and not (has_levels and field in settings):
            continue
        if amount is not None and not _is_number(amount):
            settings[field] = amount
            continue
        lifts = (amount or 0) * (-1 if field == "white_point" else 1)
        if level <= 0 and lifts >= 0:
            settings[field] = amount or 0
            continue
        cut = level + (1 - level) * _cut_by(_OLD_REACH * max(-lifts, 0) / 100)
        stretch = 100 * _amount_for(cut)
        settings[field] = round(stretch if field == "white_point" else -stretch, 2)


def _cut_by(reach: float) -> float:
    """The brightness that an end of this reach makes black: where ``e = reach (1 - e)^3``."""
    low, high = 0.0, 1.0
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if middle < reach * (1 - middle) ** 3 else (low, middle)
    return low


def _amount_for(cut: float) -> float:
    """Version 4's amount (0..1) that makes this brightness black; the inverse of
    ``reach = 0.2 a (1 + 2 a)``."""
    reach = cut / max((1 - cut) ** 3, 1e-9)
    return min(1.0, (math.sqrt(1 + 8 * reach / _OLD_REACH) - 1) / 4)


def _nine_hues(bands: Any) -> Any:
    """Version 3's eight hues, read at the centres of version 4's nine."""
    if not isinstance(bands, dict) or not set(bands) <= set(_OLD_HUES):
        return bands
    hues: Json = {}
    for number, name in enumerate(HUE_NAMES):
        turn, strength, lightness = (
            _old_amount(bands, part, 20.0 + 40.0 * number)
            for part in ("hue", "saturation", "lightness")
        )
        if turn or strength or lightness:
            turn = max(-MOST_TURN, min(MOST_TURN, turn * _OLD_TURN / 100))
            hues[name] = {"turn": turn, "strength": strength, "lightness": lightness}
    return hues


def _old_amount(bands: Json, part: str, degrees: float) -> float:
    """What version 3 did at a hue, where one of its bands went smoothly over into the next."""
    around = (degrees - _OLD_CENTRES[0]) % 360 + _OLD_CENTRES[0]
    ends = [*_OLD_CENTRES, _OLD_CENTRES[0] + 360]
    first = max(place for place in range(len(_OLD_CENTRES)) if ends[place] <= around)
    t = (around - ends[first]) / (ends[first + 1] - ends[first])
    share = t * t * (3 - 2 * t)
    values = [
        _part(bands, _OLD_HUES[place % len(_OLD_HUES)]).get(part, 0) for place in (first, first + 1)
    ]
    one, other = (value if _is_number(value) else 0 for value in values)
    return round(one * (1 - share) + other * share, 2)


def _is_number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool) and math.isfinite(value)


def _is_level(value: Any) -> bool:
    return _is_number(value) and 0 <= value <= 1
