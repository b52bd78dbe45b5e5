"""Looks: tone settings that lie under the user's own."""

from typing import Any

from lucky_margin.core.document import HUE_NAMES, HueBands, LookKey, Tone

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


LOOKS: dict[LookKey, Tone] = {
    "bright-day": Tone(exposure=0.35, shadows=25, highlights=-20, vibrance=18),
    "clear": Tone(contrast=22, clarity=22, whites=12, vibrance=10),
    "deep": Tone(contrast=30, blacks=-22, saturation=10, exposure=-0.1),
    "dusk": Tone(temperature=-28, tint=8, exposure=-0.25, contrast=14, shadows=12),
    "faded": Tone(blacks=45, contrast=-12, saturation=-18, temperature=6),
    "forest": Tone(
        contrast=12,
        temperature=-6,
        bands=HueBands.model_validate(
            {
                "green": {"hue": 15, "saturation": -10, "lightness": -25},
                "yellow": {"hue": 20, "saturation": -20},
            }
        ),
    ),
    "golden": Tone(temperature=32, exposure=0.1, highlights=-15, vibrance=15),
    "linen": Tone(temperature=10, contrast=-10, whites=-10, blacks=22, saturation=-12),
    "quiet": Tone(saturation=-35, contrast=-8, highlights=-20, shadows=15),
    "slate": Tone(saturation=-55, temperature=-18, contrast=20, clarity=15),
    "ink": Tone(grey=100, contrast=28, blacks=-10, clarity=12),
    "clay": Tone(
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
    """``tone`` with its look's settings, times its strength, added to its own."""
    if tone.look is None or tone.look.strength == 0:
        return tone
    look, share = LOOKS[tone.look.key], tone.look.strength / 100
    fields: dict[str, Any] = {
        name: _limited(name, getattr(tone, name) + share * getattr(look, name)) for name in ADDED
    }
    bands = {}
    for hue in HUE_NAMES:
        own, added = getattr(tone.bands, hue), getattr(look.bands, hue)
        bands[hue] = {
            part: _limited(part, getattr(own, part) + share * getattr(added, part))
            for part in ("hue", "saturation", "lightness")
        }
    fields["bands"] = HueBands.model_validate(bands)
    return tone.model_copy(update=fields | {"look": None})


def _limited(name: str, value: float) -> float:
    limit = _LIMITS.get(name, 100.0)
    return min(max(value, 0.0 if name in _FROM_ZERO else -limit), limit)
