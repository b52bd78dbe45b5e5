"""Looks: tone settings that lie under the user's own."""

from typing import Any

from lucky_margin.core.document import (
    HUE_NAMES,
    STRAIGHT,
    CurvePoint,
    HueBands,
    LookKey,
    OwnLook,
    Recolour,
    Settings,
    StockLook,
    TableLook,
    Tone,
)

_LIMITS = {"exposure": 5.0}
ADDED = (
    "exposure",
    "contrast",
    "highlights",
    "shadows",
    "whites",
    "blacks",
    "temperature",
    "tint",
    "saturation",
    "vibrance",
    "clarity",
    "texture",
    "smooth_light",
    "smooth_colour",
    "sharpen",
    "grey",
)
_FROM_ZERO = ("grey", "smooth_light", "smooth_colour", "sharpen")
"""Single numbers of a tone: a look's are added to one's own."""


LOOKS: dict[LookKey, Settings] = {
    "bright-day": Settings(exposure=0.35, shadows=25, highlights=-20, vibrance=18),
    "clear": Settings(contrast=22, clarity=22, whites=12, vibrance=10),
    "deep": Settings(contrast=30, blacks=-22, saturation=10, exposure=-0.1),
    "dusk": Settings(temperature=-28, tint=8, exposure=-0.25, contrast=14, shadows=12),
    "faded": Settings(blacks=45, contrast=-12, saturation=-18, temperature=6),
    "forest": Settings(
        contrast=12,
        temperature=-6,
        bands=HueBands.model_validate(
            {
                "green": {"hue": 15, "saturation": -10, "lightness": -25},
                "yellow": {"hue": 20, "saturation": -20},
            }
        ),
    ),
    "golden": Settings(temperature=32, exposure=0.1, highlights=-15, vibrance=15),
    "linen": Settings(temperature=10, contrast=-10, whites=-10, blacks=22, saturation=-12),
    "quiet": Settings(saturation=-35, contrast=-8, highlights=-20, shadows=15),
    "slate": Settings(saturation=-55, temperature=-18, contrast=20, clarity=15),
    "ink": Settings(grey=100, contrast=28, blacks=-10, clarity=12),
    "clay": Settings(
        temperature=14,
        contrast=14,
        bands=HueBands.model_validate(
            {
                "red": {"saturation": 18},
                "orange": {"saturation": 15, "lightness": -8},
                "blue": {"saturation": -40},
                "aqua": {"saturation": -35},
            }
        ),
    ),
}


def with_look(tone: Tone) -> Tone:
    """``tone`` with its look's settings, times its strength, added to its own.

    A look's curve, levels and recolouring come in where the tone has none of its own. A colour
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
    bands = {}
    for hue in HUE_NAMES:
        own, added = getattr(tone.bands, hue), getattr(settings.bands, hue)
        bands[hue] = {
            part: _limited(part, getattr(own, part) + share * getattr(added, part))
            for part in ("hue", "saturation", "lightness")
        }
    fields["bands"] = HueBands.model_validate(bands)
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
    if (tone.black_point, tone.white_point) == (0, 1):
        fields["black_point"] = share * look.black_point
        fields["white_point"] = 1 - share * (1 - look.white_point)
    if tone.recolour.strength == 0:
        recolour = look.recolour.model_dump() | {"strength": share * look.recolour.strength}
        fields["recolour"] = Recolour.model_validate(recolour)
    return fields


def _limited(name: str, value: float) -> float:
    limit = _LIMITS.get(name, 100.0)
    return min(max(value, 0.0 if name in _FROM_ZERO else -limit), limit)
