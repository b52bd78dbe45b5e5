"""Frame styles: borders to start from, stock ones and own ones."""

from fastapi import APIRouter

from lucky_margin.core.borders import FRAME_STYLES
from lucky_margin.core.document import (
    Border,
    BorderBand,
    BrushedBand,
    LineBand,
    MatBand,
    Name,
    PatternBand,
    Sides,
    Value,
)
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.examples import example
from lucky_margin.web.routes.finishes import RowId

router = APIRouter(prefix="/frames", tags=["frames"])


class StockFrame(Value):
    """A frame style that comes with the application."""

    key: str
    name: str
    border: Border


class KeptFrame(Value):
    """A border that was kept for reuse."""

    id: int
    name: str
    border: Border


class FrameList(Value):
    """What a border can start from; ``fresh`` is a new band of each kind."""

    stock: list[StockFrame]
    own: list[KeptFrame]
    fresh: list[BorderBand]


class NewFrame(Value):
    """A border to keep."""

    model_config = example(name="Shop frame", border={"bands": [{"kind": "mat", "around": True}]})

    name: Name
    border: Border


@router.get("")
def list_frames(state: AppStateDep) -> FrameList:
    """Stock styles in their order, own ones the newest first."""
    return FrameList(
        stock=[StockFrame(key=s.key, name=s.name, border=s.border) for s in FRAME_STYLES],
        own=[
            KeptFrame(id=one.id, name=one.name, border=one.value)
            for one in state.store.own_frames.list()
        ],
        fresh=[
            LineBand(),
            MatBand(around=True, thickness=Sides.all(0.09)),
            PatternBand(around=True),
            BrushedBand(),
        ],
    )


@router.post("", status_code=201)
def keep_frame(new: NewFrame, state: AppStateDep) -> KeptFrame:
    """Keep a border; one of the same name takes the place of the older one."""
    kept = state.store.own_frames.put(new.name, new.border)
    return KeptFrame(id=kept.id, name=kept.name, border=kept.value)


@router.delete("/{frame_id}", status_code=204)
def forget_frame(frame_id: RowId, state: AppStateDep) -> None:
    """Forget an own frame style; finishes that have it keep it."""
    state.store.own_frames.delete(frame_id)
