"""Own ways: what one size does differently, field by field; everything else follows.

A field of a changes model counts when it was *given*, even as ``null`` (a size may lift the
finish's weight cap), so unset fields are left out when a document is written. The types here
only name the fields: a finish validates the step that results.
"""

from typing import Any, Literal, TypeVar

from pydantic import Field, SerializerFunctionWrapHandler, model_serializer

from lucky_margin.core.document.areas import Area
from lucky_margin.core.document.pieces import (
    Align,
    Anchor,
    AnyFamily,
    BadgeForm,
    Case,
    KnockOut,
    LetterOutline,
    MarginAnchor,
    MarkLogo,
    PictureCut,
    Plate,
    Repeat,
    Shadow,
    TextPart,
    UsedMark,
)
from lucky_margin.core.document.steps import BorderLine
from lucky_margin.core.document.tone import (
    CurvePoint,
    Fade,
    HueBands,
    LookUse,
    Recolour,
)
from lucky_margin.core.document.values import Identifier, PhotoSpot, Sides, Value
from lucky_margin.core.document.washes import BlendMode, Wash
from lucky_margin.core.types import ImageFormat

Step = TypeVar("Step", bound=Value)


class Changes(Value):
    """The fields of a step that were given; an unset field follows the finish."""

    @model_serializer(mode="wrap")
    def _only_given(self, serialize: SerializerFunctionWrapHandler) -> dict[str, Any]:
        return {key: value for key, value in serialize(self).items() if key in self.given}

    @property
    def given(self) -> set[str]:
        return self.model_fields_set

    def applied_to(self, step: Step) -> Step:
        """``step`` with these fields in place of its own.

        Raises:
            pydantic.ValidationError: the result is no valid step.
        """
        if not self.given:
            return step
        return type(step).model_validate(step.model_dump() | self.model_dump())


class TurnChanges(Changes):
    """Own ways in how the photo is turned."""

    mirrored: bool | None = None
    quarters: int | None = None
    straighten: float | None = None
    empty_corners: bool | None = None


class ToneChanges(Changes):
    """Own ways in the photo's light and colour."""

    on: bool | None = None
    look: LookUse | None = None
    exposure: float | None = None
    contrast: float | None = None
    highlights: float | None = None
    shadows: float | None = None
    whites: float | None = None
    blacks: float | None = None
    temperature: float | None = None
    tint: float | None = None
    saturation: float | None = None
    vibrance: float | None = None
    clarity: float | None = None
    texture: float | None = None
    smooth_light: float | None = None
    smooth_colour: float | None = None
    sharpen: float | None = None
    bands: HueBands | None = None
    grey: float | None = None
    curve: tuple[CurvePoint, ...] | None = None
    black_point: float | None = None
    white_point: float | None = None
    recolour: Recolour | None = None
    areas: tuple[Area, ...] | None = None
    washes: tuple[Wash, ...] | None = None
    fade: Fade | None = None


class BorderChanges(Changes):
    """Own ways in the border."""

    on: bool | None = None
    thickness: Sides | None = None
    colour: str | None = None
    opacity: float | None = None
    outside: bool | None = None
    line: BorderLine | None = None


class ExportChanges(Changes):
    """Own ways in the export."""

    format: ImageFormat | None = None
    quality: int | None = None
    max_kb: float | None = None


class PieceChanges(Changes):
    """Own ways in a piece, of any kind; also what an edit changes of one."""

    on: bool | None = None
    locked: bool | None = None
    anchor: Anchor | None = None
    dx: float | None = None
    dy: float | None = None
    angle: float | None = None
    opacity: float | None = None
    blend: BlendMode | None = None
    shadow: Shadow | None = None
    over_border: bool | None = None
    clipped: bool | None = None
    sizes: tuple[Identifier, ...] | None = None
    text: str | None = None
    family: AnyFamily | None = None
    weight: int | None = None
    italic: bool | None = None
    size: float | None = None
    fill: bool | None = None
    wrap: float | None = None
    align: Align | None = None
    case: Case | None = None
    letter_spacing: float | None = None
    line_spacing: float | None = None
    colour: str | None = None
    outline: LetterOutline | None = None
    plate: Plate | None = None
    form: BadgeForm | None = None
    width: float | None = None
    height: float | None = None
    stroke: str | None = None
    stroke_width: float | None = None
    repeat: Repeat | None = None
    group: int | None = None
    bend: float | None = None
    parts: tuple[TextPart, ...] | None = None
    icon: str | None = None
    letters: str | None = None
    tip: PhotoSpot | None = None
    cut: PictureCut | None = None
    knock_out: KnockOut | None = None
    mark: UsedMark | None = None


class WatermarkChanges(Changes):
    """Own ways in the watermark."""

    on: bool | None = None
    text: str | None = None
    family: AnyFamily | None = None
    weight: int | None = None
    mark: UsedMark | None = None
    logo: MarkLogo | None = None
    size: float | None = None
    opacity: float | None = None
    shade: Literal["auto", "light", "dark"] | None = None
    place: Literal["spot", "across", "repeated"] | None = None
    spot: MarginAnchor | None = None
    angle: float | None = None
    gap: float | None = None
    stagger: bool | None = None
    whole: bool | None = None


class OwnWays(Value):
    """What one size does differently from its finish, step by step and piece by piece."""

    turn: TurnChanges = TurnChanges()
    tone: ToneChanges = ToneChanges()
    border: BorderChanges = BorderChanges()
    pieces: dict[Identifier, PieceChanges] = Field(default_factory=dict)
    watermark: WatermarkChanges = WatermarkChanges()
    export: ExportChanges = ExportChanges()

    @property
    def steps(self) -> list[str]:
        """The steps in which there is an own way."""
        return [
            name
            for name in type(self).model_fields
            if (self.pieces if name == "pieces" else getattr(self, name).given)
        ]
