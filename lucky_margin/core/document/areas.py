"""Areas: local changes of light and colour under soft masks. They live in photo space."""

from typing import Annotated, Any, Literal, get_args

from pydantic import Field, StringConstraints

from lucky_margin.core.document.values import Percent, PhotoPoint, SignedPercent, Value, Warmth

MOST_MASKS = 4


class BandMask(Value):
    """All of the photo before ``start``, none of it past ``end``, smoothly less in between."""

    kind: Literal["band"] = "band"
    inverted: bool = False
    start: PhotoPoint = PhotoPoint(x=0.5, y=0.2)
    end: PhotoPoint = PhotoPoint(x=0.5, y=0.6)


class EllipseMask(Value):
    """What lies in an ellipse; the outer ``softness`` of its radius fades out.

    Radii are fractions of the photo's long side; ``angle`` turns it clockwise, in degrees.
    """

    kind: Literal["ellipse"] = "ellipse"
    inverted: bool = False
    centre: PhotoPoint = PhotoPoint(x=0.5, y=0.5)
    radius_x: float = Field(default=0.2, ge=0.005, le=3)
    radius_y: float = Field(default=0.2, ge=0.005, le=3)
    angle: float = Field(default=0, ge=-360, le=360)
    softness: Percent = 60


class LightMask(Value):
    """Regions of the untouched photo whose OKLab lightness is in a range (0..100)."""

    kind: Literal["light"] = "light"
    inverted: bool = False
    low: Percent = 0
    high: Percent = 40
    softness: Percent = 40


class HueMask(Value):
    """Colours of the untouched photo around an OKLCH ``hue``, up to ``reach`` away (degrees)."""

    kind: Literal["hue"] = "hue"
    inverted: bool = False
    hue: float = Field(default=250, ge=0, le=360)
    reach: float = Field(default=40, ge=1, le=180)
    softness: Percent = 50


class SubjectAreaMask(Value):
    """The subject of the photo, whether or not it is cut out; inverted, all but the subject.

    ``shift`` moves its edge out (above 0) or in, and ``feather`` is how wide it fades out; both in
    the photo's long sides.
    """

    kind: Literal["subject"] = "subject"
    inverted: bool = False
    shift: float = Field(default=0, ge=-0.05, le=0.05)
    feather: float = Field(default=0, ge=0, le=0.2)


AreaMask = Annotated[
    BandMask | EllipseMask | LightMask | HueMask | SubjectAreaMask, Field(discriminator="kind")
]


class Area(Value):
    """Light and colour of a part of the photo: of what lies in all of its masks."""

    on: bool = True
    name: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""
    strength: Percent = 100
    masks: Annotated[tuple[AreaMask, ...], Field(min_length=1, max_length=MOST_MASKS)]
    exposure: float = Field(default=0, ge=-5, le=5, description="EV.")
    contrast: SignedPercent = 0
    highlights: SignedPercent = 0
    shadows: SignedPercent = 0
    warmth: Warmth = 6500
    tint: SignedPercent = 0
    saturation: SignedPercent = 0
    muted_colours: SignedPercent = 0

    @property
    def settings(self) -> dict[str, Any]:
        """Its light and colour, by the names that a tone has for them."""
        return {name: getattr(self, name) for name in AREA_SETTINGS}

    @property
    def is_set(self) -> bool:
        """Whether it changes anything."""
        fresh = type(self).model_fields
        changed = any(value != fresh[name].default for name, value in self.settings.items())
        return self.on and self.strength > 0 and changed


AreaSetting = Literal[
    "exposure",
    "contrast",
    "highlights",
    "shadows",
    "warmth",
    "tint",
    "saturation",
    "muted_colours",
]
AREA_SETTINGS: tuple[AreaSetting, ...] = get_args(AreaSetting)
