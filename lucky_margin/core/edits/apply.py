"""Carrying out edits. Pure: a finish goes in, the changed one and perhaps a remark come out."""

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field, ValidationError

from lucky_margin.core.document import Finish, describe_validation_error
from lucky_margin.core.edits import (  # noqa: F401 - importing them registers their edits
    framing,
    moving,
    pieces,
    pointing,
    resetting,
    shapes,
    sizes,
    steps,
    tone,
)
from lucky_margin.core.edits.context import Context, Edited
from lucky_margin.core.edits.registry import CARRIERS, EditBase
from lucky_margin.core.errors import BadDocument
from lucky_margin.core.framing import frame_of
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.text import FontFinder, no_fonts

if TYPE_CHECKING:
    Edit = EditBase
else:
    Edit = Annotated[Union[tuple(CARRIERS)], Field(discriminator="kind")]  # noqa: UP007 - of a tuple
    """Any edit, told apart by its kind."""


def apply_edit(
    finish: Finish,
    size_id: str,
    edit: EditBase,
    facts: PhotoFacts,
    font: FontFinder = no_fonts,
) -> Edited:
    """``finish`` after ``edit``, which concerns the size ``size_id`` where it concerns one;
    ``font`` finds own fonts, which say how large words are.

    Raises:
        BadDocument: the edit asks for a value out of range.
        BadInput: the edit makes no sense here.
        NotFound: there is no such size.
        TooLarge: a size would come to too many pixels.
    """
    size = finish.size(size_id)
    try:
        edited = CARRIERS[type(edit)](Context(finish, size, facts, font), edit)
        checked = Finish.model_validate(edited.finish.model_dump())
    except ValidationError as error:
        raise BadDocument(describe_validation_error(error)) from error
    for size in checked.sizes:
        frame_of(checked, size, facts.width, facts.height)
    return Edited(checked, edited.size_id, edited.message, edited.guides)
