"""The subjects that a document shows, and under what the matte of each is kept: how far it covers
each pixel of its photo."""

import hashlib
from collections.abc import Iterator
from dataclasses import dataclass

from lucky_margin.core.document import CutOut, Finish, PicturePiece, Square, SubjectOfPhoto, Value
from lucky_margin.core.document.references import values_in
from lucky_margin.core.scene.sources import DerivedKey
from lucky_margin.core.scene.taken import square_inputs

MATTE = "matte"
"""The kind of array that a matte is."""


@dataclass(frozen=True)
class Subject:
    """What a ``cut_out`` keeps of a photo, or of what is squared up of it."""

    sha256: str
    square: Square | None
    cut_out: CutOut

    @property
    def matte_key(self) -> DerivedKey:
        """Under what its matte is kept: the photo and all that the cut-out says of the subject, by
        the version that was asked to find it."""
        inputs = (*square_inputs(self.square), subject_digest(self.cut_out))
        return DerivedKey(MATTE, self.sha256, inputs, self.cut_out.found_by)


def subject_digest(cut_out: CutOut) -> str:
    """A digest of all that a cut-out says of the subject."""
    # Mattes that were kept before hair had a switch are those of hair that is soft.
    edge = {"soft_hair"} if cut_out.edge.soft_hair else set[str]()
    said = cut_out.model_dump_json(
        exclude={"on": True, "stands_out": True, "found_by": True, "edge": edge}
    )
    return hashlib.sha256(said.encode()).hexdigest()[:32]


def subjects_in(value: Value) -> set[Subject]:
    """All subjects that a finish, or a part of one, may be drawn with."""
    return set(_subjects_in(value))


def _subjects_in(value: Value) -> Iterator[Subject]:
    for inner in values_in(value):
        if isinstance(inner, Finish) and inner.photo:
            yield Subject(inner.photo.sha256, inner.photo.square, inner.cut_out)
        elif isinstance(inner, PicturePiece) and inner.subject:
            yield Subject(inner.sha256, inner.subject.square, inner.subject.cut_out)
        elif isinstance(inner, SubjectOfPhoto):
            yield Subject(inner.sha256, inner.square, inner.cut_out)
