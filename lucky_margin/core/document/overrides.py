"""Overrides: what one size does differently, field by field; everything else follows.

A field of a changes model counts when it was *given*, even as ``null`` (a size may lift the
finish's weight cap), so unset fields are left out when a document is written. The types here
only name the fields: a finish validates the step that results.
"""

from typing import Any, TypeVar

from pydantic import Field, SerializerFunctionWrapHandler, create_model, model_serializer

from lucky_margin.core.document.borders import Border
from lucky_margin.core.document.cut_out import CutOut, Outlines, SubjectShadow
from lucky_margin.core.document.lifts import Lifts
from lucky_margin.core.document.pieces import (
    BadgePiece,
    MarkPiece,
    PicturePiece,
    TextPiece,
    Watermark,
)
from lucky_margin.core.document.spots import Spots
from lucky_margin.core.document.steps import FILE_DETAILS, Export, Turn
from lucky_margin.core.document.tone import Tone
from lucky_margin.core.document.treatments import Treatments
from lucky_margin.core.document.values import Ground, Identifier, Value

Step = TypeVar("Step", bound=Value)


class Changes(Value):
    """The fields of a step that were given; an unset field follows the finish."""

    @model_serializer(mode="wrap")
    def _only_given(self, serialize: SerializerFunctionWrapHandler) -> dict[str, Any]:
        given = self.given
        if not given:  # as most are
            return {}
        return {key: value for key, value in serialize(self).items() if key in given}

    @property
    def given(self) -> set[str]:
        """The names of the fields that count, those given as null too."""
        return self.model_fields_set

    def applied_to(self, step: Step) -> Step:
        """``step`` with these fields in place of its own.

        Raises:
            pydantic.ValidationError: the result is no valid step.
        """
        if not self.given:
            return step
        return type(step).model_validate(step.model_dump() | self.model_dump())


def changes_of(*models: type[Value], leave_out: tuple[str, ...] = ()) -> type[Changes]:
    """A base with the fields of ``models``, each of which may be left out.

    Limits are left to the model of the step itself, which the changes are applied to.
    """
    fields: dict[str, Any] = {}
    for model in models:
        for name, field in model.model_fields.items():
            known, _ = fields.get(name, (None, None))
            annotation: Any = field.annotation
            fields[name] = (annotation | None if known is None else known | annotation, None)
    for name in leave_out:
        del fields[name]
    return create_model("Fields", __base__=Changes, **fields)


PIECE_MODELS = (TextPiece, BadgePiece, PicturePiece, MarkPiece)
OF_ONE = ("id", "kind", "sha256", "subject")
"""Fields of a piece that make it this one."""

# Each has the fields of its step by itself, which the type checker can't see.


class TurnChanges(changes_of(Turn), Changes):  # type: ignore[misc]
    """Overrides of how the photo is turned."""


class ToneChanges(changes_of(Tone), Changes):  # type: ignore[misc]
    """Overrides of the photo's brightness and colour."""


class SpotsChanges(changes_of(Spots, leave_out=("filled",)), Changes):  # type: ignore[misc]
    """Overrides of the spots: whether they are filled; where they are is the photo's alone."""


_FOR_ALL_SIZES = ("boxes", "mask", "strokes", "edge", "found_by")


class CutOutChanges(changes_of(CutOut, leave_out=_FOR_ALL_SIZES), Changes):  # type: ignore[misc]
    """Overrides of the cut-out: whether it is on; what is cut out is the photo's alone."""


class OutlinesChanges(changes_of(Outlines), Changes):  # type: ignore[misc]
    """Overrides of the lines round the subject, all of them at once."""


class SubjectShadowChanges(changes_of(SubjectShadow), Changes):  # type: ignore[misc]
    """Overrides of the subject's shadows."""


class TreatmentsChanges(changes_of(Treatments), Changes):  # type: ignore[misc]
    """Overrides of the treatments: whether they are on, and all of them at once."""


class LiftsChanges(changes_of(Lifts), Changes):  # type: ignore[misc]
    """Overrides of what is lifted, all of it at once, and of its base."""


class BorderChanges(changes_of(Border), Changes):  # type: ignore[misc]
    """Overrides of the border: whether it is on, and all of its bands at once."""


class ExportChanges(changes_of(Export, leave_out=FILE_DETAILS), Changes):  # type: ignore[misc]
    """Overrides of the export; what every file carries is the finish's alone."""


class PieceChanges(changes_of(*PIECE_MODELS, leave_out=OF_ONE), Changes):  # type: ignore[misc]
    """Overrides of a piece, of any kind; also what an edit changes of one."""


class WatermarkChanges(changes_of(Watermark), Changes):  # type: ignore[misc]
    """Overrides of the watermark."""


class Overrides(Value):
    """What one size does differently from its finish, step by step and piece by piece."""

    turn: TurnChanges = TurnChanges()
    spots: SpotsChanges = SpotsChanges()
    tone: ToneChanges = ToneChanges()
    cut_out: CutOutChanges = CutOutChanges()
    outlines: OutlinesChanges = OutlinesChanges()
    subject_shadow: SubjectShadowChanges = SubjectShadowChanges()
    treatments: TreatmentsChanges = TreatmentsChanges()
    lifts: LiftsChanges = LiftsChanges()
    border: BorderChanges = BorderChanges()
    pieces: dict[Identifier, PieceChanges] = Field(default_factory=dict)
    watermark: WatermarkChanges = WatermarkChanges()
    export: ExportChanges = ExportChanges()
    backdrop: Ground | None = None
    outside: Ground | None = None

    @property
    def overridden(self) -> list[str]:
        """The fields of the finish in which a step is done differently, field by field."""
        steps = [field for field in type(self).model_fields if field not in _WHOLE]
        return [field for field in steps if getattr(self, field).given]

    @property
    def all_overridden(self) -> list[str]:
        """The fields of the finish that are overridden in any way."""
        return self.overridden + [field for field in _WHOLE if getattr(self, field)]


_WHOLE = ("pieces", "backdrop", "outside")
"""Fields that are no step: the pieces one by one, and grounds, which are overridden whole."""
