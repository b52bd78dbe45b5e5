"""Own ways: what one size does differently, field by field; everything else follows.

A field of a changes model counts when it was *given*, even as ``null`` (a size may lift the
finish's weight cap), so unset fields are left out when a document is written. The types here
only name the fields: a finish validates the step that results.
"""

from typing import Any, TypeVar

from pydantic import SerializerFunctionWrapHandler, model_serializer

from lucky_margin.core.document.steps import Border, BorderLine, Export, Turn
from lucky_margin.core.document.tone import (
    CurvePoint,
    Fade,
    HueBands,
    LookUse,
    Recolour,
    Tone,
)
from lucky_margin.core.document.values import Sides, Value
from lucky_margin.core.types import ImageFormat

Step = TypeVar("Step", Turn, Tone, Border, Export)


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


class OwnWays(Value):
    """What one size does differently from its finish, step by step."""

    turn: TurnChanges = TurnChanges()
    tone: ToneChanges = ToneChanges()
    border: BorderChanges = BorderChanges()
    export: ExportChanges = ExportChanges()
