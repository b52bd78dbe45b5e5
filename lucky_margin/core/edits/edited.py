"""What comes out of an edit, and the ways in which most edits make it."""

from dataclasses import dataclass, field
from typing import Any, TypeVar

from lucky_margin.core.document import Box, Finish, Size, Value
from lucky_margin.core.framing import Frame, frame_of
from lucky_margin.core.scene import Scene, Scenes

AnyValue = TypeVar("AnyValue", bound=Value)


class Guide(Value):
    """A line to show while something is dragged, in output pixels; perhaps with its length."""

    x1: float
    y1: float
    x2: float
    y2: float
    label: str = ""


@dataclass(frozen=True)
class Edited:
    """What an edit made of a finish.

    ``message`` is a remark for the user, or empty; ``size_id`` is the size that is in hand now;
    ``guides`` show what a drag was drawn to and how far it is from the margin; ``scenes`` are
    those of the finish's sizes.
    """

    finish: Finish
    size_id: str
    message: str = ""
    guides: tuple[Guide, ...] = ()
    scenes: Scenes = field(default_factory=dict)

    @classmethod
    def of(cls, scene: Scene, finish: Finish, message: str = "") -> "Edited":
        """``finish`` in place of the scene's, with the same size in hand."""
        return cls(finish, scene.size.id, message)


def with_size(scene: Scene, message: str = "", **fields: Any) -> Edited:
    """The size in hand with other fields.

    Raises:
        pydantic.ValidationError: a field does not suit.
    """
    return Edited.of(scene, scene.finish.with_size(changed(scene.size, **fields)), message)


def with_window(scene: Scene, box: Box) -> Edited:
    """The size in hand with its own window, in turned pixels."""
    return with_crop(scene, window=scene.photo.window_of(box))


def with_crop(scene: Scene, **fields: Any) -> Edited:
    """The size in hand with its crop changed."""
    return with_size(scene, crop=changed(scene.size.crop, **fields))


def frame_with(scene: Scene, size: Size) -> Frame:
    """The frame that ``size`` would have in the scene's finish."""
    return frame_of(scene.finish, size, scene.facts.width, scene.facts.height)


def changed(value: AnyValue, **fields: Any) -> AnyValue:
    """A copy of ``value`` with other fields, validated.

    Raises:
        pydantic.ValidationError: a field does not suit.
    """
    return type(value).model_validate(value.model_dump() | fields)
