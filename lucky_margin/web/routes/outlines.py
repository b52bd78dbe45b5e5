"""Own outlines: lines round the subject that are kept for other finishes."""

from fastapi import APIRouter

from lucky_margin.core.document import Name, Outlines, Value
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.examples import example
from lucky_margin.web.routes.finishes import RowId

router = APIRouter(prefix="/outlines", tags=["outlines"])


class KeptOutlines(Value):
    """Lines that were kept for reuse."""

    id: int
    name: str
    outlines: Outlines


class OutlinesList(Value):
    own: list[KeptOutlines]


class NewOutlines(Value):
    """Lines to keep."""

    model_config = example(name="Sticker", outlines={"lines": [{"width": 0.03}]})

    name: Name
    outlines: Outlines


@router.get("")
def list_outlines(state: AppStateDep) -> OutlinesList:
    """Own outlines, the newest first."""
    kept = state.store.own_outlines.list()
    return OutlinesList(
        own=[KeptOutlines(id=one.id, name=one.name, outlines=one.value) for one in kept]
    )


@router.post("", status_code=201)
def keep_outlines(new: NewOutlines, state: AppStateDep) -> KeptOutlines:
    """Keep lines; those of the same name take the place of the older ones."""
    kept = state.store.own_outlines.put(new.name, new.outlines)
    return KeptOutlines(id=kept.id, name=kept.name, outlines=kept.value)


@router.delete("/{outlines_id}", status_code=204)
def forget_outlines(outlines_id: RowId, state: AppStateDep) -> None:
    """Forget own outlines; finishes that have them keep them."""
    state.store.own_outlines.delete(outlines_id)
