"""Edits of the docket's steps, which the finish sets and a size may override."""

from typing import TYPE_CHECKING, Any, Literal, TypeAlias

from pydantic import create_model

from lucky_margin.core.document import GROUND_PLACES, Ground, GroundPlace, LineBand, Overrides
from lucky_margin.core.document.docket import STEPS, VALUES, Step
from lucky_margin.core.document.overrides import Changes
from lucky_margin.core.edits.edited import Edited, changed
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.scene import Scene

USUAL: dict[str, dict[str, Any]] = {"border": {"bands": (LineBand(),)}}
"""What a step begins with when it is switched on before anything is set in it."""


def _one_of(keys: list[str]) -> Any:
    """Text that has to be one of ``keys``, which are the registry's."""
    return Literal[tuple(keys)]


if TYPE_CHECKING:
    StepKey: TypeAlias = str
    SwitchKey: TypeAlias = str
    FollowKey: TypeAlias = str
else:
    StepKey = _one_of([step.key for step in STEPS])
    SwitchKey = _one_of([step.key for step in STEPS if step.has_switch])
    FollowKey = _one_of([*VALUES, "pieces", *GROUND_PLACES])


def step_changed(scene: Scene, step: str, changes: Changes, only_this_size: bool) -> Edited:
    """The finish with ``changes`` to one step, for every size or only the one in hand.

    A size that overrides a field keeps doing so, unless it is the one in hand: what is changed
    there has to be seen there, so its override is dropped.
    """
    finish, size = scene.finish, scene.size
    own = getattr(size.overrides, step)
    if only_this_size and len(finish.sizes) > 1:
        ways = size.with_overrides(**{step: changed(own, **changes.model_dump())})
        return Edited.of(scene, finish.with_size(ways))
    finish = finish.model_copy(update={step: changes.applied_to(getattr(finish, step))})
    kept = type(own)(
        **{key: value for key, value in own.model_dump().items() if key not in changes.given}
    )
    return Edited.of(scene, finish.with_size(size.with_overrides(**{step: kept})))


def _setter(field: str) -> type[EditBase]:
    """The edit that changes a step's field, and what carries it out."""
    model, changes = VALUES[field], Overrides.model_fields[field].annotation
    fields: dict[str, Any] = {
        "kind": (_one_of([f"set_{field}"]), f"set_{field}"),
        "changes": (changes, ...),
        "only_this_size": (bool, False),
    }
    edit: type[EditBase] = create_model(
        f"Set{model.__name__}",
        __base__=EditBase,
        __module__=__name__,
        __doc__=f"Change fields of the {field}, for all sizes or only the one in hand.",
        **fields,
    )

    @carries_out(edit)
    def set_field(scene: Scene, edit: Any) -> Edited:
        return step_changed(scene, field, edit.changes, edit.only_this_size)

    return edit


_SETTERS = {field: _setter(field) for field in VALUES}
SetTurn: Any = _SETTERS["turn"]
SetTone: Any = _SETTERS["tone"]
SetCutOut: Any = _SETTERS["cut_out"]
SetOutlines: Any = _SETTERS["outlines"]
SetSubjectShadow: Any = _SETTERS["subject_shadow"]
SetTreatments: Any = _SETTERS["treatments"]
SetLifts: Any = _SETTERS["lifts"]
SetBorder: Any = _SETTERS["border"]
SetWatermark: Any = _SETTERS["watermark"]
SetExport: Any = _SETTERS["export"]


class SwitchStep(EditBase):
    """Switch a step on or off, for all sizes or only the one in hand."""

    kind: Literal["switch_step"] = "switch_step"
    step: SwitchKey
    on: bool
    only_this_size: bool = False


@carries_out(SwitchStep)
def switch_step(scene: Scene, edit: SwitchStep) -> Edited:
    """A step that is switched on with nothing in it yet begins with what is usual."""
    field = step_named(edit.step).fields[0]
    usual = USUAL.get(field, {}) if edit.on else {}
    present = scene.finish.as_set(field, scene.size)
    begins = usual if not changed(present, on=True).is_set else {}
    changes = type(getattr(scene.size.overrides, field))(on=edit.on, **begins)
    return step_changed(scene, field, changes, edit.only_this_size)


class Follow(EditBase):
    """Drop the size's overrides of a step, so that it follows the finish again."""

    kind: Literal["follow"] = "follow"
    step: FollowKey


@carries_out(Follow)
def follow(scene: Scene, edit: Follow) -> Edited:
    """The size in hand without an override of the step."""
    nothing: dict[str, Any] | None = None if edit.step in GROUND_PLACES else {}
    size = scene.size.with_overrides(**{edit.step: nothing})
    return Edited.of(scene, scene.finish.with_size(size))


class SetGround(EditBase):
    """Change what shows behind the photo or outside the shape, for all sizes or only the one in
    hand."""

    kind: Literal["set_ground"] = "set_ground"
    place: GroundPlace
    ground: Ground
    only_this_size: bool = False


@carries_out(SetGround)
def set_ground(scene: Scene, edit: SetGround) -> Edited:
    """Where it is changed for all, the size in hand has no ground of its own any more."""
    finish, size = scene.finish, scene.size
    if edit.only_this_size and len(finish.sizes) > 1:
        own = size.with_overrides(**{edit.place: edit.ground})
        return Edited.of(scene, finish.with_size(own))
    finish = finish.model_copy(update={edit.place: edit.ground})
    return Edited.of(scene, finish.with_size(size.with_overrides(**{edit.place: None})))


class SetFileDetails(EditBase):
    """Change what every exported file of the finish carries; unset fields stay."""

    kind: Literal["set_file_details"] = "set_file_details"
    name_pattern: str | None = None
    keep_camera_data: bool | None = None
    keep_place: bool | None = None
    author: str | None = None
    copyright: str | None = None
    title: str | None = None
    description: str | None = None
    alt_text: str | None = None


@carries_out(SetFileDetails)
def set_file_details(scene: Scene, edit: SetFileDetails) -> Edited:
    """The export with the fields that were given."""
    fields = edit.model_dump(exclude_none=True, exclude={"kind"})
    return Edited.of(
        scene, scene.finish.model_copy(update={"export": changed(scene.finish.export, **fields)})
    )


class Rename(EditBase):
    """Call the finish something else."""

    kind: Literal["rename"] = "rename"
    name: str


@carries_out(Rename)
def rename(scene: Scene, edit: Rename) -> Edited:
    """The finish under another name."""
    return Edited.of(scene, changed(scene.finish, name=edit.name))


def step_named(key: str) -> Step:
    """The docket's step of this key."""
    return next(step for step in STEPS if step.key == key)
