"""Looks: tone settings that lie under the user's own."""

from typing import Any

from lucky_margin.core.document import (
    HUE_NAMES,
    MOST_TURN,
    STRAIGHT,
    CurvePoint,
    Duotone,
    Hues,
    LookKey,
    OwnLook,
    Settings,
    StockLook,
    TableLook,
    Tone,
)
from lucky_margin.core.tone.white_balance import warmth_moved

_LIMITS = {"exposure": 5.0, "turn": MOST_TURN}
ADDED = (
    "exposure",
    "contrast",
    "highlights",
    "shadows",
    "black_point",
    "white_point",
    "haze",
    "tint",
    "saturation",
    "muted_colours",
    "local_contrast",
    "fine_detail",
    "noise_reduction",
    "colour_noise_reduction",
    "sharpening",
    "black_and_white",
)
"""Single numbers of a tone: a look's are added to one's own."""

_FROM_ZERO = ("black_and_white", "noise_reduction", "colour_noise_reduction", "sharpening")


LOOKS: dict[LookKey, Settings] = {
    "bright-day": Settings(exposure=0.35, shadows=25, highlights=-20, muted_colours=18),
    "clear": Settings(contrast=22, local_contrast=22, white_point=10, muted_colours=10),
    "deep": Settings(contrast=30, black_point=-17, saturation=10, exposure=-0.1),
    "dusk": Settings(warmth=5770, tint=8, exposure=-0.25, contrast=14, shadows=12),
    "faded": Settings(black_point=45, contrast=-12, saturation=-18, warmth=6690),
    "forest": Settings(
        contrast=12,
        warmth=6330,
        hues=Hues.model_validate(
            {
                "lime": {"turn": 4.5, "strength": -10, "lightness": -25},
                "yellow": {"turn": 6, "strength": -20},
            }
        ),
    ),
    "golden": Settings(warmth=7610, exposure=0.1, highlights=-15, muted_colours=15),
    "linen": Settings(warmth=6810, contrast=-10, white_point=-10, black_point=22, saturation=-12),
    "quiet": Settings(saturation=-35, contrast=-8, highlights=-20, shadows=15),
    "slate": Settings(saturation=-55, warmth=6010, contrast=20, local_contrast=15),
    "ink": Settings(black_and_white=100, contrast=28, black_point=-9, local_contrast=12),
    "clay": Settings(
        warmth=6950,
        contrast=14,
        hues=Hues.model_validate(
            {
                "red": {"strength": 18},
                "orange": {"strength": 15, "lightness": -8},
                "teal": {"strength": -38},
                "blue": {"strength": -40},
            }
        ),
    ),
}


def with_look(tone: Tone) -> Tone:
    """``tone`` with its look's settings, times its strength, added to its own.

    A look's curve and duotone come in where the tone has none of its own. A colour
    table is no settings (see ``cube``) and stays the tone's look.
    """
    look = tone.look
    if look is None or isinstance(look, TableLook):
        return tone
    if look.strength == 0:
        return tone.model_copy(update={"look": None})
    settings = LOOKS[look.key] if isinstance(look, StockLook) else look.settings
    share = look.strength / 100
    fields: dict[str, Any] = {
        name: _limited(name, getattr(tone, name) + share * getattr(settings, name))
        for name in ADDED
    }
    hues = {}
    for hue in HUE_NAMES:
        own, added = getattr(tone.hues, hue), getattr(settings.hues, hue)
        hues[hue] = {
            part: _limited(part, getattr(own, part) + share * getattr(added, part))
            for part in ("turn", "strength", "lightness")
        }
    fields["hues"] = Hues.model_validate(hues)
    fields["warmth"] = warmth_moved(tone.warmth, settings.warmth, share)
    fields |= _taken_over(tone, settings, share)
    return tone.model_copy(update=fields | {"look": None})


def look_of(tone: Tone, name: str) -> OwnLook:
    """The settings of ``tone``, and of the look under it, as a look of one's own.

    A colour table, areas, washes and fading are left out: the first is a look already, the
    others belong to one photo.
    """
    whole = with_look(tone)
    settings = {field: getattr(whole, field) for field in Settings.model_fields}
    return OwnLook(name=name, settings=Settings(**settings))


def _taken_over(tone: Tone, look: Settings, share: float) -> dict[str, Any]:
    fields: dict[str, Any] = {}
    if tone.curve == STRAIGHT:
        fields["curve"] = tuple(
            CurvePoint(x=point.x, y=point.x + share * (point.y - point.x)) for point in look.curve
        )
    if tone.duotone.strength == 0:
        duotone = look.duotone.model_dump() | {"strength": share * look.duotone.strength}
        fields["duotone"] = Duotone.model_validate(duotone)
    return fields


def _limited(name: str, value: float) -> float:
    limit = _LIMITS.get(name, 100.0)
    return min(max(value, 0.0 if name in _FROM_ZERO else -limit), limit)
