"""Tone: what is done to the photo's light and colour.

Amounts go from -100 to 100 with 0 changing nothing; what each does, and the formulas, are in
``lucky_margin.core.tone``.
"""

from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field, model_validator

from lucky_margin.core.document.areas import Area
from lucky_margin.core.document.values import Amount, Colour, Name, Sha256, Share, Value
from lucky_margin.core.document.washes import Wash

MOST_AREAS, MOST_WASHES = 8, 8
MOST_CURVE_POINTS = 16
LEAST_CURVE_STEP = 0.005
"""Points of a curve are at least this far apart, left to right."""

HueName = Literal["red", "orange", "yellow", "green", "aqua", "blue", "purple", "magenta"]
HUE_NAMES: tuple[HueName, ...] = (
    "red",
    "orange",
    "yellow",
    "green",
    "aqua",
    "blue",
    "purple",
    "magenta",
)

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


class HueBand(Value):
    """What happens to the colours around one hue."""

    hue: Amount = 0
    saturation: Amount = 0
    lightness: Amount = 0


class HueBands(Value):
    """Eight bands of hue that overlap smoothly."""

    red: HueBand = HueBand()
    orange: HueBand = HueBand()
    yellow: HueBand = HueBand()
    green: HueBand = HueBand()
    aqua: HueBand = HueBand()
    blue: HueBand = HueBand()
    purple: HueBand = HueBand()
    magenta: HueBand = HueBand()


class CurvePoint(Value):
    """A point of the curve: encoded brightness in and out, 0..1."""

    x: float = Field(ge=0, le=1)
    y: float = Field(ge=0, le=1)


STRAIGHT = (CurvePoint(x=0, y=0), CurvePoint(x=1, y=1))


class Recolour(Value):
    """The photo in one or two colours: ``dark`` for its shadows, ``light`` for its highlights."""

    strength: Share = 0
    dark: Colour = "#1E2A2F"
    light: Colour = "#F5F1E8"


class Fade(Value):
    """The whole photo towards a colour, or towards transparent when that is null."""

    amount: Share = 0
    colour: Colour | None = "#FFFFFF"


class Settings(Value):
    """Light and colour of the whole photo: what a look is made of."""

    exposure: float = Field(default=0, ge=-5, le=5, description="EV.")
    contrast: Amount = 0
    highlights: Amount = 0
    shadows: Amount = 0
    whites: Amount = 0
    blacks: Amount = 0
    temperature: Amount = 0
    tint: Amount = 0
    saturation: Amount = 0
    vibrance: Amount = 0
    clarity: Amount = 0
    texture: Amount = 0
    smooth_light: Share = Field(default=0, description="Noise of brightness.")
    smooth_colour: Share = Field(default=0, description="Noise of colour.")
    sharpen: Share = 0
    bands: HueBands = HueBands()
    grey: Share = 0
    curve: tuple[CurvePoint, ...] = Field(
        default=STRAIGHT, min_length=2, max_length=MOST_CURVE_POINTS
    )
    black_point: float = Field(default=0, ge=0, le=0.9)
    white_point: float = Field(default=1, ge=0.1, le=1)
    recolour: Recolour = Recolour()

    @model_validator(mode="after")
    def _is_sound(self) -> "Settings":
        places = [point.x for point in self.curve]
        if any(b - a < LEAST_CURVE_STEP for a, b in pairwise(places)):
            raise ValueError("the curve's points have to go from left to right")
        if self.white_point - self.black_point < 0.05:
            raise ValueError("the white point has to lie above the black point")
        return self


class StockLook(Value):
    """One of the looks that come with the application."""

    kind: Literal["stock"] = "stock"
    key: LookKey
    strength: Share = 100


class OwnLook(Value):
    """A look of one's own; its settings are kept here, whatever becomes of it on the shelf."""

    kind: Literal["own"] = "own"
    name: Name
    settings: Settings
    strength: Share = 100


class TableLook(Value):
    """A colour table (3D LUT) by the SHA-256 of its file."""

    kind: Literal["table"] = "table"
    name: Name
    table: Sha256
    strength: Share = 100


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
