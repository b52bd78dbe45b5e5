"""Treatments: changes of the photo's texture, one after the other."""

from typing import Annotated, Literal, get_args

from pydantic import Field

from lucky_margin.core.document.areas import MOST_MASKS, AreaMask
from lucky_margin.core.document.values import Colour, Percent, PhotoPoint, Value
from lucky_margin.core.document.washes import BlendMode

MOST_TREATMENTS = 12

Seed = Annotated[int, Field(ge=0, le=9999)]

PAPER, INK = "#F5F1E8", "#1E2A2F"


class TreatmentBase(Value):
    """What all treatments have.

    A treatment counts by its ``strength`` where all of its ``masks`` let it through, which is
    everywhere when there are none. It ``covers`` the photo and what is lifted from it alike, or
    one of the two. All lengths are in short sides of the size.
    """

    on: bool = True
    strength: Percent = 100
    blend: BlendMode = "normal"
    masks: Annotated[tuple[AreaMask, ...], Field(max_length=MOST_MASKS)] = ()
    covers: Literal["all", "base", "lifts"] = "all"


class Mosaic(TreatmentBase):
    """Cells of one colour each, the mean of what they cover; ``joint`` lies between them."""

    kind: Literal["mosaic"] = "mosaic"
    form: Literal["square", "hexagon", "pebble"] = "square"
    cell: float = Field(default=0.03, ge=0.004, le=0.5)
    joint: float = Field(default=0, ge=0, le=0.4, description="Its share of a cell.")
    joint_colour: Colour = PAPER


class Dots(TreatmentBase):
    """A printed raster: dots or lines whose ``ink`` covers as much as the photo is dark, or less by
    ``lighter``. Without an ink they are printed in the three colours of print, each at its own
    angle."""

    kind: Literal["dots"] = "dots"
    form: Literal["round", "line"] = "round"
    pitch: float = Field(default=0.014, ge=0.003, le=0.2)
    angle: float = Field(default=45, ge=-180, le=180)
    lighter: Percent = 50
    ink: Colour | None = INK
    paper: Colour = PAPER


class Drawing(TreatmentBase):
    """The photo drawn: ``line`` is how wide its strokes are, ``detail`` how much is drawn, and
    ``shading`` how much of the dark is hatched (percent)."""

    kind: Literal["drawing"] = "drawing"
    medium: Literal["pencil", "ink"] = "pencil"
    line: float = Field(default=0.003, ge=0.001, le=0.02)
    detail: Percent = 55
    shading: Percent = 60
    ink: Colour = INK
    paper: Colour = PAPER


class Poster(TreatmentBase):
    """Few flat colours, which are the photo's own; ``smooth`` leaves small things out."""

    kind: Literal["poster"] = "poster"
    colours: int = Field(default=6, ge=2, le=12)
    smooth: float = Field(default=0.012, ge=0, le=0.08)


class Paint(TreatmentBase):
    """Strokes of a brush that follow the edges; ``bristles`` are how much its hairs show."""

    kind: Literal["paint"] = "paint"
    brush: float = Field(default=0.02, ge=0.003, le=0.06)
    bristles: Percent = 40


class Relief(TreatmentBase):
    """The grain of a ground on which the photo lies, lit from ``light`` (degrees clockwise from
    above)."""

    kind: Literal["relief"] = "relief"
    ground: Literal["paper", "canvas", "plaster"] = "paper"
    grain: float = Field(default=0.006, ge=0.002, le=0.05)
    depth: Percent = 40
    light: float = Field(default=-45, ge=-180, le=180)


class Grain(TreatmentBase):
    """The grain of film, strongest in the middle tones."""

    kind: Literal["grain"] = "grain"
    size: float = Field(default=0.002, ge=0.001, le=0.02)
    amount: Percent = 35
    coloured: bool = False
    seed: Seed = 1


class Vignette(TreatmentBase):
    """A colour towards the corners; it begins at ``reach`` of the way from the middle (percent) and
    grows over ``softness`` of it."""

    kind: Literal["vignette"] = "vignette"
    colour: Colour = "#000000"
    amount: Percent = 45
    reach: Percent = 45
    softness: Percent = 60


class Glow(TreatmentBase):
    """Light that spreads over ``radius`` from what is lighter than ``above`` (percent)."""

    kind: Literal["glow"] = "glow"
    radius: float = Field(default=0.03, ge=0.004, le=0.2)
    amount: Percent = 55
    above: Percent = 40


class LensBlur(TreatmentBase):
    """A blur as by a lens: a disc of ``radius`` over linear light."""

    kind: Literal["blur"] = "blur"
    radius: float = Field(default=0.015, ge=0, le=0.5)


class SharpZone(TreatmentBase):
    """Sharp in a band or a round zone about ``centre``, and more and more blurred beyond.

    It is sharp up to ``sharp`` from there, and wholly blurred, by a lens's disc of ``radius``,
    ``fade`` further out; a band runs at ``angle`` (degrees clockwise from level).
    """

    kind: Literal["sharp_zone"] = "sharp_zone"
    form: Literal["band", "round"] = "band"
    centre: PhotoPoint = PhotoPoint(x=0.5, y=0.5)
    angle: float = Field(default=0, ge=-180, le=180)
    sharp: float = Field(default=0.12, ge=0, le=2)
    fade: float = Field(default=0.25, ge=0.01, le=2)
    radius: float = Field(default=0.03, ge=0, le=0.5)


Treatment = Annotated[
    Mosaic
    | Dots
    | Drawing
    | Poster
    | Paint
    | Relief
    | Grain
    | Vignette
    | Glow
    | LensBlur
    | SharpZone,
    Field(discriminator="kind"),
]

TreatmentKind = Literal[
    "mosaic",
    "dots",
    "drawing",
    "poster",
    "paint",
    "relief",
    "grain",
    "vignette",
    "glow",
    "blur",
    "sharp_zone",
]
TREATMENT_KINDS: tuple[TreatmentKind, ...] = get_args(TreatmentKind)


class Treatments(Value):
    """The photo's treatments in the order in which they are made."""

    on: bool = True
    made: Annotated[tuple[Treatment, ...], Field(max_length=MOST_TREATMENTS)] = ()

    @property
    def is_set(self) -> bool:
        """Whether it changes anything."""
        return bool(self.seen)

    @property
    def seen(self) -> tuple[Treatment, ...]:
        """Those that change anything, in order."""
        if not self.on:
            return ()
        return tuple(one for one in self.made if one.on and one.strength > 0)
