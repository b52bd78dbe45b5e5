"""What an edit is carried out on, and what comes out."""

from dataclasses import dataclass
from functools import cached_property
from typing import Any, TypeVar

from lucky_margin.core.document import Box, Finish, Size, Value
from lucky_margin.core.framing import Frame, TurnedPhoto, frame_of
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.text import FontFinder, no_fonts

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
    ``guides`` show what a drag was drawn to and how far it is from the margin.
    """

    finish: Finish
    size_id: str
    message: str = ""
    guides: tuple[Guide, ...] = ()


@dataclass(frozen=True)
class Context:
    """A finish, the size in hand and its photo."""

    finish: Finish
    size: Size
    facts: PhotoFacts
    font: FontFinder = no_fonts
    """Finds the own fonts that words are set in."""

    @cached_property
    def photo(self) -> TurnedPhoto:
        """The photo as it is turned for the size."""
        turn = self.finish.turn_of(self.size)
        return TurnedPhoto(self.facts.width, self.facts.height, turn)

    @cached_property
    def frame(self) -> Frame:
        return self.frame_with(self.size)

    def frame_with(self, size: Size) -> Frame:
        """The frame that ``size`` would have in this finish."""
        return frame_of(self.finish, size, self.facts.width, self.facts.height)

    def edited(self, finish: Finish, message: str = "") -> Edited:
        return Edited(finish, self.size.id, message)

    def with_size(self, message: str = "", **fields: Any) -> Edited:
        """The size in hand with other fields."""
        return self.edited(self.finish.with_size(changed(self.size, **fields)), message)

    def with_window(self, box: Box) -> Edited:
        """The size in hand with a window of its own, in turned pixels."""
        return self.with_crop(window=self.photo.window_of(box))

    def with_crop(self, **fields: Any) -> Edited:
        return self.with_size(crop=changed(self.size.crop, **fields))


def changed(value: AnyValue, **fields: Any) -> AnyValue:
    """A copy of ``value`` with other fields, validated.

    Raises:
        pydantic.ValidationError: a field does not suit.
    """
    return type(value).model_validate(value.model_dump() | fields)
