"""Sizes to choose from: by purpose, and those that were saved for reuse."""

from fastapi import APIRouter

from lucky_margin.core.document import (
    SIZE_LIBRARY,
    FixedPixels,
    LibrarySize,
    Printed,
    SizePlan,
    Value,
)
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.examples import example
from lucky_margin.web.routes.finishes import RowId

router = APIRouter(prefix="/sizes", tags=["sizes"])


class SavedSize(Value):
    """A size that was saved for reuse."""

    id: int
    plan: SizePlan


class SizeList(Value):
    library: tuple[LibrarySize, ...]
    own: list[SavedSize]


class NewSize(Value):
    model_config = example(
        plan={"name": "Stall card", "pixels": {"kind": "fixed", "width": 900, "height": 600}}
    )

    plan: SizePlan


class Measured(Value):
    """A size on paper to be counted in pixels."""

    model_config = example(printed={"width": 50, "height": 40, "unit": "mm", "ppi": 300})

    printed: Printed


@router.get("")
def list_sizes(state: AppStateDep) -> SizeList:
    """Sizes by purpose, and own ones, the newest first."""
    own = state.store.own_sizes.list()
    return SizeList(library=SIZE_LIBRARY, own=[SavedSize(id=o.id, plan=o.value) for o in own])


@router.post("", status_code=201)
def save_size(new: NewSize, state: AppStateDep) -> SavedSize:
    """Keep a size for reuse; one of the same name takes the place of the older one."""
    saved = state.store.own_sizes.put(new.plan.name, new.plan)
    return SavedSize(id=saved.id, plan=saved.value)


@router.delete("/{size_id}", status_code=204)
def delete_size(size_id: RowId, state: AppStateDep) -> None:
    """Forget an own size; finishes that have it keep theirs."""
    state.store.own_sizes.delete(size_id)


@router.post("/measure")
def measure(measured: Measured) -> FixedPixels:
    """The pixels that a size on paper comes to."""
    return FixedPixels.on_paper(measured.printed)
