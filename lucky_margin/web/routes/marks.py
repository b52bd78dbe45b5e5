"""Marks that are made once and used by any finish."""

from typing import Literal

from fastapi import APIRouter, Response
from pydantic import Field

from lucky_margin.core.document import MarkDesign, MarkShade, Name, UsedMark, Value
from lucky_margin.core.errors import BadInput
from lucky_margin.core.export import safe_stem
from lucky_margin.core.pieces import MARK_LAYOUTS, mark_picture, mark_svg
from lucky_margin.store import Kept, used
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.examples import example
from lucky_margin.web.pictures import FILE, FRESH, PICTURE, attached, picture_response
from lucky_margin.web.routes.finishes import RowId

router = APIRouter(prefix="/marks", tags=["marks"])


PREVIEW_WIDTH = 480
EXPORT_WIDTH = 2000

_DESIGN = {"words": "Pebblewick", "line": "pottery", "icon": "amphora", "rule": True}


class NewMark(Value):
    model_config = example(name="Round mark", design=_DESIGN)

    name: Name
    design: MarkDesign


class MarkKept(Value):
    """A kept mark, and how many finishes use an earlier version of it."""

    mark: UsedMark
    older_uses: int


class MarkList(Value):
    marks: list[MarkKept]


class MarkLayout(Value):
    """An arrangement to start a mark from, without words."""

    name: str
    design: MarkDesign


class MarkLayouts(Value):
    layouts: list[MarkLayout]


class MarkDrawn(Value):
    model_config = example(design=_DESIGN, shade="dark")

    design: MarkDesign
    shade: MarkShade = "dark"


class Renewed(Value):
    finishes: int = Field(description="How many use the present version from now on.")


@router.get("")
def list_marks(state: AppStateDep) -> MarkList:
    """Kept marks, the one changed last first."""
    return MarkList(marks=[_told(mark, state) for mark in state.store.marks.list()])


@router.get("/layouts")
def list_layouts() -> MarkLayouts:
    """Arrangements to start from."""
    layouts = [MarkLayout(name=name, design=design) for name, design in MARK_LAYOUTS.items()]
    return MarkLayouts(layouts=layouts)


@router.post("", status_code=201)
def add_mark(new: NewMark, state: AppStateDep) -> MarkKept:
    """Keep a new mark."""
    return _told(state.store.marks.add(new.name, _drawable(new.design)), state)


@router.put("/{mark_id}")
def change_mark(mark_id: RowId, new: NewMark, state: AppStateDep) -> MarkKept:
    """Make a new version of a mark; finishes that use it keep theirs until they are renewed."""
    return _told(state.store.marks.change(mark_id, new.name, _drawable(new.design)), state)


@router.delete("/{mark_id}", status_code=204)
def delete_mark(mark_id: RowId, state: AppStateDep) -> None:
    """Forget a mark; finishes that use it keep it."""
    state.store.marks.delete(mark_id)


@router.post("/{mark_id}/renew")
def renew(mark_id: RowId, state: AppStateDep) -> Renewed:
    """The present version in every finish that uses an earlier one, a change in each."""
    return Renewed(finishes=state.store.finishes.renew(used(state.store.marks.get(mark_id))))


@router.post("/drawn", response_class=Response, responses=PICTURE)
def draw(wanted: MarkDrawn, state: AppStateDep) -> Response:
    """A design before it is kept, on transparent."""
    return _picture(_drawable(wanted.design), wanted.shade, state)


@router.get("/{mark_id}/picture", response_class=Response, responses=PICTURE)
def get_picture(mark_id: RowId, state: AppStateDep, shade: MarkShade = "dark") -> Response:
    """A kept mark, on transparent."""
    return _picture(state.store.marks.get(mark_id).value, shade, state)


@router.get("/{mark_id}/file", response_class=Response, responses=FILE)
def get_file(
    mark_id: RowId, state: AppStateDep, kind: Literal["png", "svg"], shade: MarkShade = "dark"
) -> Response:
    """A kept mark as a transparent PNG, or as an SVG whose letters are outlines."""
    mark = state.store.marks.get(mark_id)
    name = f"{safe_stem(mark.name)}-{shade}.{kind}"
    headers = attached(name)
    if kind == "svg":
        text = mark_svg(mark.value, shade, state.store.fonts.face)
        return Response(text, media_type="image/svg+xml", headers=headers)
    picture = mark_picture(mark.value, shade, EXPORT_WIDTH, state.store.fonts.face)
    return picture_response(picture, headers=headers)


def _told(kept: Kept[MarkDesign], state: AppStateDep) -> MarkKept:
    mark = used(kept)
    return MarkKept(mark=mark, older_uses=state.store.finishes.count_older_uses(mark))


def _picture(design: MarkDesign, shade: MarkShade, state: AppStateDep) -> Response:
    font = state.store.fonts.face
    picture = mark_picture(design, shade, PREVIEW_WIDTH, font)
    return picture_response(picture, headers=FRESH)


def _drawable(design: MarkDesign) -> MarkDesign:
    """
    Raises:
        BadInput: nothing is on it.
    """
    if design.is_empty:
        raise BadInput("A mark needs words, a tagline or an icon.")
    return design
