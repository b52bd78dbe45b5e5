"""The photo as a size shows it: whole, only its subject, or what is behind that."""

import hashlib
from collections.abc import Hashable
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core import cut_out as cutting
from lucky_margin.core.affine import Affine, scaling
from lucky_margin.core.cut_out import Evidence, FringeColours, Matte
from lucky_margin.core.document import Box, CutOut, Spot, Stroke
from lucky_margin.core.finding import subject_candidates
from lucky_margin.core.grounds import blurred_behind
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.render.spotted import spotted_copy
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.scene import (
    DerivedKey,
    Scene,
    Sources,
    Subject,
    TakenPhoto,
    subject_digest,
)
from lucky_margin.core.types import AnyPicture, Mask


@dataclass(frozen=True)
class ShownPhoto:
    """A photo's halved copies, or those of its subject alone, the rest transparent."""

    taken: TakenPhoto
    cut_out: CutOut | None = None
    """What of it is the subject; None where nobody says."""
    shows: Literal["all", "subject", "behind"] = "all"
    spots: tuple[Spot, ...] = ()
    """What of it is filled from around."""
    blur: float = 0
    """Of what is behind the subject, in the photo's long sides."""

    @cached_property
    def key(self) -> Hashable:
        """What tells it from other photos and other cut-outs."""
        if self.shows == "all":
            return self.taken.key, self.spots
        return self.taken.key, self.spots, self._inputs, self.shows, self.blur

    @property
    def sources(self) -> Sources:
        """Where photos come from."""
        return self.taken.sources

    @property
    def as_taken(self) -> "ShownPhoto":
        """All of it, and nothing filled."""
        return replace(self, shows="all", spots=())

    def behind(self, blur: float) -> "ShownPhoto":
        """What is behind the subject, filled in where that was, and blurred."""
        return replace(self, shows="behind", blur=blur)

    @property
    def before_last_stroke(self) -> "ShownPhoto":
        """The same without the newest stroke."""
        assert self.cut_out is not None
        strokes = self.cut_out.strokes[:-1]
        return replace(self, cut_out=self.cut_out.model_copy(update={"strokes": strokes}))

    @property
    def whole(self) -> "ShownPhoto":
        """The photo with all that is on it."""
        return replace(self, shows="all")

    @property
    def subject_alone(self) -> "ShownPhoto":
        """What of it is the subject."""
        return replace(self, shows="subject")

    @property
    def facts(self) -> PhotoFacts:
        """What is known of the photo."""
        return self.taken.facts

    def copy(self, number: int) -> tuple[AnyPicture, Affine]:
        """The picture halved ``number`` times, and the mapping from photo pixels onto it; what is
        blurred is as large as it was made."""
        if self.shows != "behind":
            share = 0.5**number
            return self.level(number), scaling(share, share)
        blurred = self._behind(self.blur)
        rows, columns = blurred.shape[:2]
        return blurred, scaling(columns / self.facts.width, rows / self.facts.height)

    def level(self, number: int) -> AnyPicture:
        """The picture halved ``number`` times; see ``Sources.level``."""
        copy = spotted_copy(self.taken, self.spots, number)
        if self.shows == "all":
            return copy
        return self.sources.cache.get_or_make(
            ("subject", self.taken.key, self.spots, self._inputs, number),
            lambda: cutting.subject_picture(copy, self.matte(), self._cleaning()),
        )

    def _behind(self, blur: float) -> AnyPicture:
        return self.sources.cache.get_or_make(
            ("behind", self.taken.key, self.spots, self._inputs, blur),
            lambda: blurred_behind(self.whole.at_working_size(), self.matte(), blur),
        )

    def matte(self) -> Matte:
        """What was found of the subject, or is found now."""
        assert self.cut_out is not None
        subject = Subject(self.taken.sha256, self.taken.square, self.cut_out)
        return self.sources.derived(subject.matte_key, self._found)

    def covered(self, shift: float, feather: float) -> Matte:
        """How far (0..255) the subject covers each pixel, with its edge moved out by ``shift`` and
        fading over ``feather`` (both in the photo's long sides)."""

        def make() -> Matte:
            matte = self.with_own_alpha(self.matte()) if self.facts.has_alpha else self.matte()
            return cutting.with_other_edge(matte, shift, feather)

        return self.sources.cache.get_or_make(
            ("covered", self.taken.key, self._inputs, shift, feather), make
        )

    def own_shadow(self) -> Mask:
        """The shadow that the subject throws in the photo, at the matte's sides."""
        key = self._derived_key("own-shadow", self._digest)
        return self.sources.derived(key, lambda: cutting.own_shadow(self.working, self.matte()))

    def fringe_colours(self) -> FringeColours:
        """The colours on both sides of the subject's edge, without what spots took away."""
        return self.sources.cache.get_or_make(
            ("fringe", self.taken.key, self.spots, self._inputs),
            lambda: cutting.fringe_colours(self.whole.at_working_size(), self.matte()),
        )

    def strands_at_edge(self) -> float:
        """How much at the subject's edge looks like hair or grass (see ``cut_out.strands``)."""
        kept: np.float64 = self.sources.cache.get_or_make(
            ("strands", self.taken.key, self._inputs),
            lambda: np.float64(cutting.strands_at_edge(self.working, self.matte())),
        )
        return float(kept)

    def disagreement(self) -> float:
        """How far what was found is from what the network says (see ``cut_out.second_opinion``);
        0 once strokes have told what is subject."""
        cut_out = self.cut_out
        assert cut_out is not None
        if cutting.deciding_strokes(cut_out):
            return 0.0

        def make() -> np.float64:
            boxes = cut_out.boxes or self.candidates()[:1]
            place = cutting.place_of(self.working, cut_out)
            return np.float64(cutting.disagreement(self.working, self.matte(), boxes, place))

        kept: np.float64 = self.sources.cache.get_or_make(
            ("disagreement", self.taken.key, self._inputs), make
        )
        return float(kept)

    def _cleaning(self) -> FringeColours | None:
        assert self.cut_out is not None
        return self.fringe_colours() if self.cut_out.edge.clean_fringe else None

    def _found(self) -> Matte:
        cut_out, working = self.cut_out, self.working
        assert cut_out is not None
        rows, columns = working.shape[:2]
        if cut_out.mask is not None:
            found = cutting.mask_coverage(self.sources.level(cut_out.mask.sha256, 0), rows, columns)
            return cutting.matte_of(cutting.mended(working, found, cut_out))
        if not cut_out.boxes and self.brings_own:
            found = np.ones((rows, columns), np.float32)
            return cutting.matte_of(cutting.mended(working, found, cut_out))
        place = cutting.place_of(working, cut_out)
        alpha = cutting.coverage(working, self._evidence(place), cut_out, place)
        return cutting.matte_of(alpha)

    def _evidence(self, place: Box) -> Evidence:
        """What the finding and each deciding stroke have come to."""
        assert self.cut_out is not None
        boxes = self.cut_out.boxes
        so_far = hashlib.sha256(repr((boxes, place)).encode())
        key = self._derived_key("evidence", so_far.hexdigest()[:16])

        def make() -> Evidence:
            looked_for = boxes or self.candidates()[:1]
            return cutting.proposal(self.working, tuple(looked_for), place)

        evidence: Evidence = self.sources.derived(key, make)
        for stroke in cutting.deciding_strokes(self.cut_out):
            so_far.update(stroke.model_dump_json().encode())
            after = ("evidence", self.taken.key, so_far.hexdigest(), self.cut_out.found_by)
            evidence = self._after(evidence, stroke, place, after)
        return evidence

    def _after(self, evidence: Evidence, stroke: Stroke, place: Box, key: Hashable) -> Evidence:
        return self.sources.cache.get_or_make(
            key, lambda: cutting.after_stroke(evidence, stroke, place)
        )

    def _to_look_at(self) -> AnyPicture:
        """The photo as it was taken, hardly larger than subjects are found on."""
        return self.taken.level(self._number_to_look_at)

    @property
    def _number_to_look_at(self) -> int:
        longest, number = max(self.facts.width, self.facts.height), 0
        while longest / 2 >= cutting.WORKING_SIDE:
            longest, number = longest // 2, number + 1
        return number

    def with_own_alpha(self, matte: Matte) -> Matte:
        """A matte, as opaque as the photo is itself."""
        alpha = as_8_bits(self._to_look_at())[:, :, 3]
        own = cv2.resize(alpha, matte.shape[::-1], interpolation=cv2.INTER_AREA)
        return np.asarray(cv2.multiply(matte, own, scale=1 / 255), np.uint8)

    def candidates(self) -> list[Box]:
        """Boxes (photo space) that may hold the subject, the likeliest first; at least one."""
        return subject_candidates(self.taken)

    @property
    def brings_own(self) -> bool:
        """Whether the photo is cut out already."""
        return cutting.brings_own(self._to_look_at())

    @property
    def working(self) -> NDArray[np.float32]:
        """The photo as it was taken, at the size at which subjects are found."""
        return self.as_taken.at_working_size()

    def at_working_size(self) -> NDArray[np.float32]:
        """The picture at the size at which subjects are found."""
        return self.sources.cache.get_or_make(
            ("working", self.key),
            lambda: cutting.working_picture(self.level(self._number_to_look_at)),
        )

    def _derived_key(self, kind: str, inputs: str) -> DerivedKey:
        """What is kept on disk is named with the version that was asked to find the subject: while
        it is there, no newer one takes its place."""
        assert self.cut_out is not None
        return DerivedKey(
            kind, self.taken.sha256, (*self.taken.inputs, inputs), self.cut_out.found_by
        )

    @cached_property
    def _inputs(self) -> Hashable:
        """All that the matte depends on, besides the photo."""
        assert self.cut_out is not None
        return self._digest, self.cut_out.found_by

    @cached_property
    def _digest(self) -> str:
        assert self.cut_out is not None
        return subject_digest(self.cut_out)


def matte_sides(subject: Subject, sources: Sources) -> tuple[int, int]:
    """Rows and columns of a subject's matte."""
    photo = ShownPhoto(TakenPhoto(subject.sha256, sources, subject.square), subject.cut_out)
    rows, columns = photo.working.shape[:2]
    return rows, columns


def shown_photo(scene: Scene) -> ShownPhoto:
    """The photo of a scene, its subject alone where the cut-out is on."""
    cut_out = scene.cut_out
    shows: Literal["all", "subject"] = "subject" if cut_out.on else "all"
    return ShownPhoto(scene.taken, cut_out, shows, scene.spots)


def seen_coverage(scene: Scene) -> Matte:
    """How far each pixel of a scene's cut-out photo is there, 0..255: its matte, as opaque as the
    photo is itself."""
    photo = shown_photo(scene)
    matte = photo.matte()
    return matte if not scene.facts.has_alpha else photo.with_own_alpha(matte)


def turned_subject_box(scene: Scene) -> Box | None:
    """The box around the subject of a scene, in turned pixels; None where nothing is cut out."""
    box = cutting.box_of(seen_coverage(scene)) if scene.cut_out.on else None
    if box is None:
        return None
    return scene.photo.turned_box(box.scaled(scene.facts.width, scene.facts.height))


def subject_on_size(scene: Scene) -> Box | None:
    """The box around the subject of a scene, in output pixels; None where nothing is cut out."""
    box, frame = turned_subject_box(scene), scene.frame
    if box is None:
        return None
    left, top = frame.to_output(box.left, box.top)
    scale = frame.enlargement
    return Box(left=left, top=top, width=box.width * scale, height=box.height * scale)
