"""Looks: those that come with the application, one's own, and colour tables in and out."""

from pathlib import PurePath

from fastapi import APIRouter, Request
from pydantic import Field
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.document import (
    LookKey,
    LookUse,
    Name,
    TableLook,
    Tone,
    Value,
)
from lucky_margin.core.document.summaries import LOOK_NAMES
from lucky_margin.core.errors import TooLarge
from lucky_margin.core.export import safe_stem
from lucky_margin.core.tone import MAX_TABLE_BYTES, cube_text, left_out, look_of, table_error
from lucky_margin.web.app_state import AppStateDep, InDraft
from lucky_margin.web.bodies import BYTES, body_of
from lucky_margin.web.examples import DRAFT, example
from lucky_margin.web.routes.finishes import RowId

router = APIRouter(prefix="/looks", tags=["looks"])


class StockLookOffered(Value):
    key: LookKey
    name: str


class SavedLook(Value):
    """A look that was saved for reuse."""

    id: int
    look: LookUse


class LookList(Value):
    stock: list[StockLookOffered]
    own: list[SavedLook]


class NewLook(Value):
    """A tone whose settings make a look."""

    model_config = example(name="Thursday light", tone={"exposure": 0.3, "muted_colours": 15})

    name: Name
    tone: Tone


class CubeWanted(InDraft):
    model_config = example(draft=DRAFT, size_id="main", title="Thursday light")

    title: Name


class Cube(Value):
    """A ``.cube`` file and what of the tone it cannot hold."""

    file_name: str
    text: str
    left_out: list[str]
    off: str | None = Field(description="Where it is off by more than can be overlooked.")


@router.get("")
def list_looks(state: AppStateDep) -> LookList:
    """The looks that a tone can lie over; own ones the newest first."""
    stock = [StockLookOffered(key=key, name=name) for key, name in LOOK_NAMES.items()]
    own = [SavedLook(id=one.id, look=one.value) for one in state.store.own_looks.list()]
    return LookList(stock=stock, own=own)


@router.post("", status_code=201)
def save_look(new: NewLook, state: AppStateDep) -> SavedLook:
    """Keep a tone's settings as a look; one of the same name takes the place of the older one."""
    saved = state.store.own_looks.put(new.name, look_of(new.tone, new.name))
    return SavedLook(id=saved.id, look=saved.value)


@router.post("/table", status_code=201, openapi_extra=BYTES)
async def add_table(request: Request, name: Name, state: AppStateDep) -> SavedLook:
    """Keep a ``.cube`` file, the request's body, as a look."""
    too_large = TooLarge(
        f"“{name}” has more than the {MAX_TABLE_BYTES // 1_000_000} MB that are accepted."
    )
    data = await body_of(request, MAX_TABLE_BYTES, too_large)

    def keep() -> SavedLook:
        sha256, table = state.store.tables.add(data)
        called = table.title.strip()[:120] or PurePath(name).stem
        saved = state.store.own_looks.put(called, TableLook(name=called, table=sha256))
        return SavedLook(id=saved.id, look=saved.value)

    return await run_in_threadpool(keep)


@router.delete("/{look_id}", status_code=204)
def delete_look(look_id: RowId, state: AppStateDep) -> None:
    """Forget an own look; finishes that have it keep it."""
    state.store.own_looks.delete(look_id)


@router.post("/cube")
def write_cube(wanted: CubeWanted, state: AppStateDep) -> Cube:
    """The per-pixel part of a tone as a ``.cube`` file."""
    tone = state.scene(wanted).tone
    table = state.store.tables.get(tone.look.table) if isinstance(tone.look, TableLook) else None
    error = table_error(tone, table)
    return Cube(
        file_name=f"{safe_stem(wanted.title)}.cube",
        text=cube_text(tone, wanted.title, table),
        left_out=left_out(tone),
        off=f"{error.steps:.0f} of 255 steps at {error.colour}" if error.is_seen else None,
    )
