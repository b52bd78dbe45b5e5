"""Putting a step back to how it came."""

from typing import Literal

from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.framing import reset_crop
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.edits.squaring import SquareUp, square_up
from lucky_margin.core.edits.steps import StepKey, step_named
from lucky_margin.core.scene import Scene


class ResetStep(EditBase):
    """Put one step back to how it came."""

    kind: Literal["reset_step"] = "reset_step"
    step: StepKey


@carries_out(ResetStep)
def reset_step(scene: Scene, edit: ResetStep) -> Edited:
    """The step's default for the finish, and no override by the size in hand."""
    if edit.step == "crop":
        photo = scene.finish.photo
        if photo and photo.square:
            finish = square_up(scene, SquareUp(corners=None)).finish
            scene = Scene.of(finish, scene.size.id, scene.sources)
        return reset_crop(scene)
    finish = scene.finish
    if edit.step == "pieces":
        finish = finish.model_copy(update={"pieces": ()})
        for size in finish.sizes:
            finish = finish.with_size(size.with_overrides(pieces={}))
        return Edited.of(scene, finish)
    fields = step_named(edit.step).values
    reset = finish.model_copy(update={field: model() for field, model in fields.items()})
    return Edited.of(
        scene, reset.with_size(scene.size.with_overrides(**{field: {} for field in fields}))
    )
