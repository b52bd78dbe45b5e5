"""Edits of the cut-out: which part of the photo is its subject."""

from typing import Annotated, Any, Literal

from pydantic import Field

from lucky_margin.core.cut_out import VERSION as FINDING_VERSION
from lucky_margin.core.document import (
    MOST_STROKE_POINTS,
    MOST_STROKES,
    MOST_SUBJECTS,
    Box,
    Brush,
    CutOut,
    Sha256,
    Stroke,
    SubjectEdge,
    SubjectMask,
)
from lucky_margin.core.edits.drawn_lines import DrawnPoints, line_on_photo, radius_on_photo
from lucky_margin.core.edits.edited import Edited, changed
from lucky_margin.core.edits.framing import photo_box
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene


class SetSubject(EditBase):
    """Cut these subjects out, each in a box in photo space; without any, what stands out. Strokes
    are dropped unless they are to be kept. With ``cut_out`` false it is only said what the subject
    is, for the areas of tone."""

    kind: Literal["set_subject"] = "set_subject"
    boxes: Annotated[tuple[Box, ...], Field(max_length=MOST_SUBJECTS)] = ()
    keep_strokes: bool = False
    cut_out: bool = True


@carries_out(SetSubject)
def set_subject(scene: Scene, edit: SetSubject) -> Edited:
    """Another subject, cut out on all sizes, or wherever it is already."""
    found = {
        "boxes": edit.boxes,
        "mask": None,
        "strokes": scene.finish.cut_out.strokes if edit.keep_strokes else (),
        "found_by": FINDING_VERSION,
    }
    if edit.cut_out:
        return _with_cut_out(scene, **found)
    cut_out = scene.finish.cut_out.model_copy(update=found)
    return Edited.of(scene, scene.finish.model_copy(update={"cut_out": cut_out}))


class DrawSubject(EditBase):
    """Cut out what lies in a box drawn on the photo, in pixels of the turned photo; with ``more``
    besides what is cut out already."""

    kind: Literal["draw_subject"] = "draw_subject"
    x0: float
    y0: float
    x1: float
    y1: float
    more: bool = False


@carries_out(DrawSubject)
def draw_subject(scene: Scene, edit: DrawSubject) -> Edited:
    """
    Raises:
        BadInput: the box has no area on the photo, or there are too many.
    """
    box = photo_box(scene, edit.x0, edit.y0, edit.x1, edit.y1)
    if box is None:
        raise BadInput("To draw a box, press and drag across the subject.")
    boxes = (*scene.finish.cut_out.boxes, box) if edit.more else (box,)
    if len(boxes) > MOST_SUBJECTS:
        raise BadInput(
            f"{MOST_SUBJECTS} subjects can be cut out at most; draw the first box again."
        )
    return set_subject(scene, SetSubject(boxes=boxes, keep_strokes=edit.more))


class SetSubjectMask(EditBase):
    """Take the brightness of a picture (by its SHA-256) as what is subject."""

    kind: Literal["set_subject_mask"] = "set_subject_mask"
    mask: Sha256


@carries_out(SetSubjectMask)
def set_subject_mask(scene: Scene, edit: SetSubjectMask) -> Edited:
    """The cut-out switched on, for all sizes.

    Raises:
        NotFound: there is no such picture.
    """
    scene.sources.facts(edit.mask)
    return _with_cut_out(scene, boxes=(), mask=SubjectMask(sha256=edit.mask), strokes=())


class DrawStroke(EditBase):
    """A stroke of a brush, in pixels of the turned photo; ``radius`` in photo pixels."""

    kind: Literal["draw_stroke"] = "draw_stroke"
    brush: Brush
    radius: float = Field(gt=0)
    softness: float = Field(default=0, ge=0, le=1)
    points: DrawnPoints


@carries_out(DrawStroke)
def draw_stroke(scene: Scene, edit: DrawStroke) -> Edited:
    """One more stroke, without the points that it can do without.

    Raises:
        BadInput: it lies beside the photo, or there are too many.
    """
    cut_out = scene.finish.cut_out
    if not scene.cut_out.on:
        raise BadInput("Find the subject first; then brush strokes can touch it up.")
    if len(cut_out.strokes) == MOST_STROKES:
        raise BadInput(f"{MOST_STROKES} strokes are allowed at most; delete some first.")
    stroke = Stroke(
        brush=edit.brush,
        radius=radius_on_photo(scene, edit.radius, *_RADII),
        softness=edit.softness if edit.brush in ("erase", "bring_back") else 0,
        points=line_on_photo(scene, edit.points, edit.radius, MOST_STROKE_POINTS),
    )
    return _with_cut_out(scene, strokes=(*cut_out.strokes, stroke))


class DeleteStroke(EditBase):
    """Delete one stroke by its number, counted from 0; null deletes all."""

    kind: Literal["delete_stroke"] = "delete_stroke"
    number: int | None


@carries_out(DeleteStroke)
def delete_stroke(scene: Scene, edit: DeleteStroke) -> Edited:
    """The strokes without that one.

    Raises:
        BadInput: there is no such stroke.
    """
    strokes = scene.finish.cut_out.strokes
    if edit.number is None:
        return _with_cut_out(scene, strokes=())
    if not 0 <= edit.number < len(strokes):
        raise BadInput(f"There is no stroke {edit.number + 1}; there are {len(strokes)}.")
    return _with_cut_out(scene, strokes=strokes[: edit.number] + strokes[edit.number + 1 :])


class SetSubjectEdge(EditBase):
    """Change how the subject's edge is finished; unset fields stay."""

    kind: Literal["set_subject_edge"] = "set_subject_edge"
    shift: float | None = None
    softness: float | None = None
    specks: float | None = None
    holes: float | None = None
    clean_fringe: bool | None = None
    soft_hair: bool | None = None


@carries_out(SetSubjectEdge)
def set_subject_edge(scene: Scene, edit: SetSubjectEdge) -> Edited:
    """The edge with the fields that were given."""
    fields = edit.model_dump(exclude_none=True, exclude={"kind"})
    edge: SubjectEdge = changed(scene.finish.cut_out.edge, **fields)
    cut_out = scene.finish.cut_out.model_copy(update={"edge": edge})
    return Edited.of(scene, scene.finish.model_copy(update={"cut_out": cut_out}))


_RADII = (0.0005, 0.25)
"""The least and the largest of a stroke, in long sides."""


def _with_cut_out(scene: Scene, **fields: Any) -> Edited:
    """The cut-out with other fields, and on for every size that doesn't say otherwise."""
    cut_out: CutOut = scene.finish.cut_out.model_copy(update={"on": True, **fields})
    finish = scene.finish.model_copy(update={"cut_out": cut_out})
    return Edited.of(scene, finish.with_size(scene.size.with_overrides(cut_out={})))
