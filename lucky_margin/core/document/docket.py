"""The docket: the steps in order, each with its name, what is set in it in plain words, and what a
size may do differently in it. A new step begins with an entry here."""

from collections.abc import Callable
from dataclasses import dataclass

from pydantic import Field

from lucky_margin.core.document.borders import Border
from lucky_margin.core.document.cut_out import CutOut, Outlines, SubjectShadow
from lucky_margin.core.document.finish import Finish
from lucky_margin.core.document.lifts import Lifts
from lucky_margin.core.document.pieces import Watermark
from lucky_margin.core.document.shapes import Rectangle
from lucky_margin.core.document.sizes import AsCropped, Size
from lucky_margin.core.document.spots import Spots
from lucky_margin.core.document.steps import Export, Turn
from lucky_margin.core.document.summaries import (
    border_in_words,
    crop_in_words,
    cut_out_in_words,
    export_change_in_words,
    export_in_words,
    pieces_change_in_words,
    pieces_in_words,
    spots_in_words,
    tone_in_words,
    treatments_in_words,
    turn_in_words,
    watermark_in_words,
)
from lucky_margin.core.document.tone import Tone
from lucky_margin.core.document.treatments import Treatments
from lucky_margin.core.document.values import Transparent, Value


@dataclass(frozen=True)
class Step:
    """One step of the docket.

    ``values`` are its fields on the finish by their models; a size may override each of them.
    ``summary`` and ``is_set`` are of one size, ``change`` names a revision that changed it. A step
    ``of_photo`` has nothing to do where there is none.
    """

    key: str
    title: str
    summary: Callable[[Finish, Size], str]
    is_set: Callable[[Finish, Size], bool]
    change: Callable[[Finish, Finish], str]
    values: dict[str, type[Value]]
    has_switch: bool = False
    of_photo: bool = False

    @property
    def fields(self) -> tuple[str, ...]:
        """Its fields on the finish."""
        return tuple(self.values) or (self.key,)


class DocketLine(Value):
    """A step's line on the docket, as one size has it."""

    key: str
    title: str
    summary: str
    is_set: bool
    has_switch: bool
    lacks_photo: bool = Field(description="Whether there is no photo for it to change.")


def _crop_is_set(finish: Finish, size: Size) -> bool:
    return (
        not isinstance(size.pixels, AsCropped)
        or size.crop.window is not None
        or size.crop.contain
        or size.shape != Rectangle()
        or finish.turn_of(size).is_set
        or (finish.photo is not None and finish.photo.square is not None)
        or finish.ground_of("backdrop", size) != Transparent()
        or finish.ground_of("outside", size) != Transparent()
    )


STEPS = (
    Step(
        key="crop",
        title="Crop",
        summary=crop_in_words,
        is_set=_crop_is_set,
        change=lambda _, now: f"Turned: {turn_in_words(now.turn)}",
        values={"turn": Turn},
    ),
    Step(
        key="spots",
        title="Spots",
        summary=lambda finish, size: spots_in_words(finish.as_set("spots", size)),
        is_set=lambda finish, size: finish.as_set("spots", size).is_set,
        change=lambda _, now: f"Spots: {spots_in_words(now.spots)}",
        values={"spots": Spots},
        has_switch=True,
        of_photo=True,
    ),
    Step(
        key="tone",
        title="Tone",
        summary=lambda finish, size: tone_in_words(finish.as_set("tone", size)),
        is_set=lambda finish, size: finish.as_set("tone", size).is_set,
        change=lambda _, now: f"Tone: {tone_in_words(now.tone)}",
        values={"tone": Tone},
        has_switch=True,
        of_photo=True,
    ),
    Step(
        key="cut_out",
        title="Cut-out",
        summary=lambda finish, size: cut_out_in_words(
            finish.cut_out_of(size), finish.outlines_of(size), finish.subject_shadow_of(size)
        ),
        is_set=lambda finish, size: finish.cut_out_of(size).is_set,
        change=lambda _, now: (
            "Cut-out: " + cut_out_in_words(now.cut_out, now.outlines, now.subject_shadow)
        ),
        values={"cut_out": CutOut, "outlines": Outlines, "subject_shadow": SubjectShadow},
        has_switch=True,
        of_photo=True,
    ),
    Step(
        key="treatments",
        title="Treatments",
        summary=lambda finish, size: treatments_in_words(
            finish.as_set("treatments", size), finish.as_set("lifts", size)
        ),
        is_set=lambda finish, size: (
            finish.treatments_of(size).is_set or finish.lifts_of(size).is_set
        ),
        change=lambda _, now: f"Treatments: {treatments_in_words(now.treatments, now.lifts)}",
        values={"treatments": Treatments, "lifts": Lifts},
        has_switch=True,
        of_photo=True,
    ),
    Step(
        key="border",
        title="Border",
        summary=lambda finish, size: border_in_words(finish.as_set("border", size)),
        is_set=lambda finish, size: finish.as_set("border", size).is_set,
        change=lambda _, now: f"Border: {border_in_words(now.border)}",
        values={"border": Border},
        has_switch=True,
    ),
    Step(
        key="pieces",
        title="Text & badges",
        summary=lambda finish, size: pieces_in_words(finish.pieces_of(size)),
        is_set=lambda finish, size: bool(finish.pieces_of(size)),
        change=lambda old, now: pieces_change_in_words(old.pieces, now.pieces),
        values={},
    ),
    Step(
        key="watermark",
        title="Watermark",
        summary=lambda finish, size: watermark_in_words(finish.as_set("watermark", size)),
        is_set=lambda finish, size: finish.as_set("watermark", size).is_set,
        change=lambda _, now: f"Watermark: {watermark_in_words(now.watermark)}",
        values={"watermark": Watermark},
        has_switch=True,
    ),
    Step(
        key="export",
        title="Export",
        summary=lambda finish, size: export_in_words(finish.export_of(size)),
        is_set=lambda finish, size: finish.export_of(size) != Export(),
        change=lambda old, now: export_change_in_words(old.export, now.export),
        values={"export": Export},
    ),
)
"""In the order in which people work, which is the order of their numbers."""

VALUES: dict[str, type[Value]] = {
    field: model for step in STEPS for field, model in step.values.items()
}
"""Every field of the finish that belongs to a step and that a size may override."""


def docket_of(finish: Finish, size: Size) -> list[DocketLine]:
    """The docket's lines for one size."""
    return [_line(step, finish, size) for step in STEPS]


def _line(step: Step, finish: Finish, size: Size) -> DocketLine:
    lacks_photo = step.of_photo and finish.photo is None
    return DocketLine(
        key=step.key,
        title=step.title,
        summary="needs a photo" if lacks_photo else step.summary(finish, size),
        is_set=not lacks_photo and step.is_set(finish, size),
        has_switch=step.has_switch,
        lacks_photo=lacks_photo,
    )
