"""Carrying out edits. Pure: a finish goes in, the changed one and perhaps a remark come out."""

from dataclasses import replace
from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field, ValidationError

from lucky_margin.core.document import Finish, describe_validation_error
from lucky_margin.core.edits import (  # noqa: F401 - importing them registers their edits
    borders,
    covered,
    cut_out,
    framing,
    in_space,
    lifts,
    masks,
    moving,
    piece_subjects,
    pieces,
    pointing,
    resetting,
    shapes,
    sizes,
    spots,
    squaring,
    steps,
    styling,
    subject_placing,
    swapping,
    tone,
    treatments,
)
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.registry import CARRIERS, EditBase
from lucky_margin.core.errors import BadDocument
from lucky_margin.core.scene import NO_SCENES, Scene, Scenes, sound_scenes

if TYPE_CHECKING:
    Edit = EditBase
else:
    Edit = Annotated[Union[tuple(CARRIERS)], Field(discriminator="kind")]  # noqa: UP007 - of a tuple
    """Any edit, told apart by its kind."""


def apply_edit(scene: Scene, edit: EditBase, before: Scenes = NO_SCENES) -> Edited:
    """The scene's finish after ``edit``, which concerns the scene's size where it concerns one.
    What the edit leaves alone is not worked out again of those scenes that are known ``before``.

    Raises:
        BadDocument: the edit asks for a value out of range.
        BadInput: the edit makes no sense here.
        NotFound: a photo or a piece is not there.
        TooLarge: a size would come to too many pixels.
    """
    try:
        edited = CARRIERS[type(edit)](scene, edit)
        checked = Finish.model_validate(edited.finish.model_dump())
    except ValidationError as error:
        raise BadDocument(describe_validation_error(error)) from error
    return replace(edited, finish=checked, scenes=sound_scenes(checked, scene.sources, before))
