"""A size with its photo, and all that is worked out of the two once: frame, outlines, margins and
laid pieces. Edits, rendering, layout, checks and picking take it from here."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from types import MappingProxyType
from typing import Any

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import (
    Border,
    CutOut,
    Finish,
    FixedPixels,
    Focus,
    Ground,
    Lifts,
    Outlines,
    Overrides,
    Size,
    Spot,
    SubjectShadow,
    Tone,
    Treatment,
    Watermark,
    WatermarkChanges,
)
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing import Frame, TurnedPhoto, focus_on, frame_of, turned_photo
from lucky_margin.core.outlines import Outline, band_edges, outline_of
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.pieces import LaidPiece, Margins, lay_piece, margins_of
from lucky_margin.core.scene.sources import Sources
from lucky_margin.core.scene.taken import TakenPhoto


@dataclass(frozen=True, eq=False)
class Scene:
    """One size of a finish. What it needs is worked out when it is first asked for.

    Raises (from its properties):
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """

    finish: Finish
    size: Size
    sources: Sources

    @classmethod
    def of(cls, finish: Finish, size_id: str, sources: Sources) -> "Scene":
        """
        Raises:
            NotFound: the finish has no such size.
        """
        return cls(finish, finish.size(size_id), sources)

    @property
    def photo_sha256(self) -> str:
        """
        Raises:
            BadInput: there is no photo.
        """
        if self.finish.photo is None:
            raise BadInput("This finish has no photo.")
        return self.finish.photo.sha256

    @cached_property
    def taken(self) -> TakenPhoto:
        """The photo that the steps work on.

        Raises:
            BadInput: there is none.
        """
        photo = self.finish.photo
        return TakenPhoto(self.photo_sha256, self.sources, photo.square if photo else None)

    @cached_property
    def facts(self) -> PhotoFacts:
        """What is known of the photo; of none, as of a transparent one of the size's pixels."""
        if self.finish.photo is None:
            assert isinstance(self.size.pixels, FixedPixels)  # a finish without a photo has these
            width, height = self.size.pixels.width, self.size.pixels.height
            return PhotoFacts(width, height, file_format="", bits=8, has_alpha=True)
        return self.taken.facts

    @cached_property
    def photo(self) -> TurnedPhoto:
        """The photo as it is turned for the size."""
        return turned_photo(self.finish, self.size, self.facts.width, self.facts.height)

    @cached_property
    def frame(self) -> Frame:
        """How the photo is framed."""
        return frame_of(self.finish, self.size, self.facts.width, self.facts.height)

    @property
    def sides(self) -> tuple[int, int]:
        """Width and height in output pixels."""
        return self.frame.output.width, self.frame.output.height

    @cached_property
    def focus(self) -> Focus | None:
        """What the size keeps in view: the focus, or else the subject where that is cut out."""
        return self.finish.focus_of(self.size)

    @cached_property
    def tone(self) -> Tone:
        """The tone as the size has it; the default one when it is off."""
        return self.finish.tone_of(self.size)

    @cached_property
    def cut_out(self) -> CutOut:
        """The cut-out as the size has it."""
        return self.finish.cut_out_of(self.size)

    @property
    def spots(self) -> tuple[Spot, ...]:
        """What of the photo is filled from around."""
        return self.finish.spots_of(self.size).filled

    @cached_property
    def outlines(self) -> Outlines:
        """The lines round the subject as the size has them; none where nothing is cut out."""
        return self.finish.outlines_of(self.size)

    @cached_property
    def subject_shadow(self) -> SubjectShadow:
        """The subject's shadows as the size has them; none where nothing is cut out."""
        return self.finish.subject_shadow_of(self.size)

    @cached_property
    def treatments(self) -> tuple[Treatment, ...]:
        """The treatments that change the photo on the size, in order."""
        return self.finish.treatments_of(self.size).seen

    @cached_property
    def lifts(self) -> Lifts:
        """What is lifted of the photo on the size."""
        return self.finish.lifts_of(self.size)

    @property
    def backdrop(self) -> Ground:
        """What shows behind the photo."""
        return self.finish.ground_of("backdrop", self.size)

    @property
    def outside(self) -> Ground:
        """What shows outside the shape."""
        return self.finish.ground_of("outside", self.size)

    @cached_property
    def border(self) -> Border:
        """The border as the size has it; the default one when it is off."""
        return self.finish.border_of(self.size)

    @cached_property
    def watermark(self) -> Watermark:
        """The watermark as the size has it."""
        return self.finish.watermark_of(self.size)

    @cached_property
    def outer(self) -> Outline:
        """The shape, in output pixels."""
        return outline_of(self.size.shape, *self.sides)

    @cached_property
    def edges(self) -> list[Outline]:
        """The edges of the border's bands, in output pixels: the shape's own, then the inner edge
        of each band."""
        return band_edges(self.outer, self.border, self.frame.output)

    @property
    def inner(self) -> Outline:
        """The border's inner edge, in output pixels."""
        return self.edges[-1]

    @cached_property
    def margins(self) -> Margins:
        """The margin, its outline and its box, in output pixels."""
        return margins_of(self.size, self.border, self.frame.output)

    @cached_property
    def pieces(self) -> list[LaidPiece]:
        """Every piece that is on the size, laid out, back to front."""
        laid = {one.piece.id: one for one in self._laid_before}
        found = []
        for piece in self.finish.pieces_of(self.size):
            known = laid.get(piece.id)
            if known is None or known.piece != piece:
                focus = focus_on(self.focus, self.frame)
                known = lay_piece(piece, self.margins, self.frame, self.sources.font, focus)
            found.append(known)
        return found

    @cached_property
    def _laid_before(self) -> Sequence[LaidPiece]:
        """Pieces that were laid out on the same frame and margins."""
        return ()

    @cached_property
    def _framed_by(self) -> tuple[Any, ...]:
        """All that frame, outlines and margins depend on."""
        bare = self.size.model_copy(update={"overrides": Overrides()})
        return self.finish.photo, self.focus, self.photo, self.border, bare

    def take_over(self, before: "Scene") -> None:
        """Take what is the same as before an edit, and so need not be worked out again."""
        if self._framed_by != before._framed_by:
            return
        for name in ("frame", "outer", "edges", "margins"):
            if name in vars(before):
                vars(self)[name] = vars(before)[name]
        vars(self)["_laid_before"] = vars(before).get("pieces", ())

    @property
    def seen_scale(self) -> float:
        """Pixels, as people see the size, for each one of its own."""
        return min(1.0, self.size.seen_width / self.frame.output.width)

    def scale_for(self, longest: int) -> float:
        """The scale, at most 1, at which the longest side has this many pixels."""
        return min(1.0, longest / max(self.sides))

    def without_watermark(self) -> "Scene":
        """The same size with its watermark switched off."""
        bare = self.size.with_overrides(watermark=WatermarkChanges(on=False))
        return self._otherwise(size=bare)

    def without_pieces(self) -> "Scene":
        """The same size with no piece and no watermark on it."""
        return self.without_watermark()._otherwise(
            finish=self.finish.model_copy(update={"pieces": ()})
        )

    def _otherwise(self, **changes: Any) -> "Scene":
        """With fields changed, and all taken over that these leave as it is."""
        changed = replace(self, **changes)
        changed.take_over(self)
        return changed

    def mapping(self, to_full: Affine) -> Affine:
        """From pixels of a picture to photo pixels; ``to_full`` leads to output pixels."""
        return self.frame.from_output.after(to_full)


Scenes = Mapping[str, Scene]
"""The scenes of a finish by the ids of its sizes."""


def scenes_of(finish: Finish, sources: Sources) -> Scenes:
    """The scenes of every size."""
    return {size.id: Scene(finish, size, sources) for size in finish.sizes}


NO_SCENES: Scenes = MappingProxyType({})


def sound_scenes(finish: Finish, sources: Sources, before: Scenes = NO_SCENES) -> Scenes:
    """The scenes of every size, each of which can be framed; ``before`` are those before an edit.

    Raises:
        NotFound: the photo is not known.
        TooLarge: a size comes to too many pixels.
    """
    scenes = scenes_of(finish, sources)
    for size_id, scene in scenes.items():
        if size_id in before:
            scene.take_over(before[size_id])
        _ = scene.frame
    return scenes
