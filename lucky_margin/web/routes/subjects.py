"""Subjects cut out of photos, kept for other finishes."""

from fastapi import APIRouter, Response
from pydantic import Field

from lucky_margin.core.document import (
    Name,
    Sha256,
    UsedSubject,
    Value,
)
from lucky_margin.core.export import kept_subject
from lucky_margin.core.render import subject_picture
from lucky_margin.core.scene import TakenPhoto
from lucky_margin.store import used_subject
from lucky_margin.web.app_state import AppState, AppStateDep, InDraft
from lucky_margin.web.examples import DRAFT, example
from lucky_margin.web.pictures import FRESH, PICTURE, picture_response
from lucky_margin.web.routes.finishes import RowId
from lucky_margin.web.routes.marks import Renewed
from lucky_margin.web.work_desk import Priority

router = APIRouter(prefix="/subjects", tags=["subjects"])

PREVIEW_WIDTH = 160


class KeptSubject(Value):
    """A kept subject, its photo, and how many finishes use an earlier version of it."""

    photo: Sha256
    ratio: float = Field(description="Width over height of the whole photo.")
    subject: UsedSubject
    older_uses: int


class SubjectList(Value):
    subjects: list[KeptSubject]


class NewSubject(InDraft):
    """The draft whose subject is to be kept, under a name."""

    model_config = example(draft=DRAFT, size_id="main", name="Speckled mug")

    name: Name


@router.get("")
def list_subjects(state: AppStateDep) -> SubjectList:
    """Kept subjects, the one changed last first."""
    return SubjectList(subjects=[_told(kept.id, state) for kept in state.store.subjects.list()])


@router.post("", status_code=201)
async def keep_subject(new: NewSubject, state: AppStateDep) -> KeptSubject:
    """Keep the subject of a draft. One of the same photo and name becomes a new version of that;
    finishes that use it keep theirs until they are renewed."""
    scene = state.scene(new)
    subject = await state.measured(scene, lambda: kept_subject(scene))
    kept = state.store.subjects
    known = [
        one.id for one in kept.list() if (one.name, one.value.sha256) == (new.name, subject.sha256)
    ]
    made = kept.change(known[0], new.name, subject) if known else kept.add(new.name, subject)
    return _told(made.id, state)


@router.delete("/{subject_id}", status_code=204)
def forget_subject(subject_id: RowId, state: AppStateDep) -> None:
    """Forget a subject; finishes that use it keep it."""
    state.store.subjects.delete(subject_id)


@router.post("/{subject_id}/renew")
def renew(subject_id: RowId, state: AppStateDep) -> Renewed:
    """The present version in every finish that uses an earlier one, a change in each."""
    subject = used_subject(state.store.subjects.get(subject_id))
    return Renewed(finishes=state.store.finishes.renew(subject))


@router.get("/{subject_id}/picture", response_class=Response, responses=PICTURE)
async def get_picture(subject_id: RowId, state: AppStateDep) -> Response:
    """A kept subject, small, on transparent."""
    subject = state.store.subjects.get(subject_id).value

    def draw() -> Response:
        picture = subject_picture(subject, PREVIEW_WIDTH, state.store.photos)
        return picture_response(picture, headers=FRESH)

    return await state.desk.run(draw, Priority.THUMBNAIL)


def _told(subject_id: int, state: AppState) -> KeptSubject:
    kept = state.store.subjects.get(subject_id)
    subject, value = used_subject(kept), kept.value
    facts = TakenPhoto(value.sha256, state.store.photos, value.square).facts
    return KeptSubject(
        photo=value.sha256,
        ratio=facts.width / facts.height,
        subject=subject,
        older_uses=state.store.finishes.count_older_uses(subject),
    )
