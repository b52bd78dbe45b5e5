"""Tone: what is done to the photo's brightness and colour.

Amounts go from -100 to 100 with 0 changing nothing; what each does, and the formulas, are in
``lucky_margin.core.tone``.
"""

from itertools import pairwise
from typing import Annotated, Literal, get_args

from pydantic import Field, model_validator

from lucky_margin.core.document.areas import Area
from lucky_margin.core.document.values import (
    Colour,
    Name,
    Percent,
    Sha256,
    SignedPercent,
    Value,
    Warmth,
)
from lucky_margin.core.document.washes import Wash

MOST_AREAS, MOST_WASHES = 8, 8
MOST_CURVE_POINTS = 16
LEAST_CURVE_STEP = 0.005
"""Points of a curve are at least this far apart, left to right."""

HueName = Literal["red", "orange", "yellow", "lime", "green", "teal", "blue", "violet", "pink"]
HUE_NAMES: tuple[HueName, ...] = get_args(HueName)

NEUTRAL_KELVIN = 6500.0
"""The light that a photo is taken to be balanced for; at this warmth nothing changes."""

MOST_TURN = 30.0
"""Degrees that a hue is turned at most."""

LookKey = Literal[
    "bright-day",
    "clear",
    "deep",
    "dusk",
    "faded",
    "forest",
    "golden",
    "linen",
    "quiet",
    "slate",
    "ink",
    "clay",
]


class HueShift(Value):
    """What happens to the colours around one hue: turned by degrees of OKLCH, made stronger or
    weaker, lighter or darker."""

    turn: float = Field(default=0, ge=-MOST_TURN, le=MOST_TURN, description="Degrees.")
    strength: SignedPercent = 0
    lightness: SignedPercent = 0


class Hues(Value):
    """Nine hues, evenly round the circle, that overlap smoothly."""

    red: HueShift = HueShift()
    orange: HueShift = HueShift()
    yellow: HueShift = HueShift()
    lime: HueShift = HueShift()
    green: HueShift = HueShift()
    teal: HueShift = HueShift()
    blue: HueShift = HueShift()
    violet: HueShift = HueShift()
    pink: HueShift = HueShift()


class CurvePoint(Value):
    """A point of the curve: encoded brightness in and out, 0..1."""

    x: float = Field(ge=0, le=1)
    y: float = Field(ge=0, le=1)


STRAIGHT = (CurvePoint(x=0, y=0), CurvePoint(x=1, y=1))


class Duotone(Value):
    """The photo in one or two colours: ``dark`` for its shadows, ``light`` for its highlights."""

    strength: Percent = 0
    dark: Colour = "#1E2A2F"
    light: Colour = "#F5F1E8"


class Fade(Value):
    """The whole photo towards a colour, or towards transparent when that is null."""

    amount: Percent = 0
    colour: Colour | None = "#FFFFFF"


class Settings(Value):
    """Brightness and colour of the whole photo: what a look is made of.

    ``black_point`` below 0 makes dark greys black, above it lifts black to grey; ``white_point``
    above 0 makes light greys white, below it lowers white to grey. ``warmth`` is the light the
    photo is taken to be lit by, in kelvin, so that a higher one makes it warmer.
    """

    exposure: float = Field(default=0, ge=-5, le=5, description="EV.")
    contrast: SignedPercent = 0
    highlights: SignedPercent = 0
    shadows: SignedPercent = 0
    black_point: SignedPercent = 0
    white_point: SignedPercent = 0
    haze: SignedPercent = Field(
        default=0, description="Above 0 takes a veil off, below lays one on."
    )
    warmth: Warmth = NEUTRAL_KELVIN
    tint: SignedPercent = 0
    saturation: SignedPercent = 0
    muted_colours: SignedPercent = Field(
        default=0, description="Pale colours more than strong ones."
    )
    local_contrast: SignedPercent = 0
    fine_detail: SignedPercent = 0
    noise_reduction: Percent = Field(default=0, description="Of noise in brightness.")
    colour_noise_reduction: Percent = 0
    sharpening: Percent = 0
    hues: Hues = Hues()
    black_and_white: Percent = 0
    curve: tuple[CurvePoint, ...] = Field(
        default=STRAIGHT, min_length=2, max_length=MOST_CURVE_POINTS
    )
    duotone: Duotone = Duotone()

    @model_validator(mode="after")
    def _curve_goes_from_left_to_right(self) -> "Settings":
        places = [point.x for point in self.curve]
        if any(b - a < LEAST_CURVE_STEP for a, b in pairwise(places)):
            raise ValueError("the curve's points have to go from left to right")
        return self


class StockLook(Value):
    """One of the looks that come with the application."""

    kind: Literal["stock"] = "stock"
    key: LookKey
    strength: Percent = 100


class OwnLook(Value):
    """A look of one's own; its settings are kept here, whatever becomes of it on the shelf."""

    kind: Literal["own"] = "own"
    name: Name
    settings: Settings
    strength: Percent = 100


class TableLook(Value):
    """A colour table (3D LUT) by the SHA-256 of its file."""

    kind: Literal["table"] = "table"
    name: Name
    table: Sha256
    strength: Percent = 100


LookUse = Annotated[StockLook | OwnLook | TableLook, Field(discriminator="kind")]
"""A look under the other settings: its own settings times ``strength``, or its table."""


class Tone(Settings):
    """The photo's light and colour."""

    on: bool = True
    look: LookUse | None = None
    areas: Annotated[tuple[Area, ...], Field(max_length=MOST_AREAS)] = ()
    washes: Annotated[tuple[Wash, ...], Field(max_length=MOST_WASHES)] = ()
    fade: Fade = Fade()

    @property
    def is_set(self) -> bool:
        """Whether it changes anything."""
        return self.on and self != Tone(on=self.on)
