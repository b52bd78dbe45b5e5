"""A size with its photo, and all that is worked out of the two once: frame, outlines, margins and
laid pieces. Rendering, layout, checks and picking take it from here."""

from dataclasses import dataclass, replace
from functools import cached_property

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import Border, Finish, Size, Tone, Watermark, WatermarkChanges
from lucky_margin.core.framing import Frame, frame_of
from lucky_margin.core.outlines import Outline, outline_of
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.pieces import LaidPiece, Margins, lay_piece, margins_of
from lucky_margin.core.render.sources import Sources


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

    @property
    def photo_sha256(self) -> str:
        return self.finish.photo.sha256

    @cached_property
    def facts(self) -> PhotoFacts:
        return self.sources.facts(self.photo_sha256)

    @cached_property
    def frame(self) -> Frame:
        return frame_of(self.finish, self.size, self.facts.width, self.facts.height)

    @property
    def sides(self) -> tuple[int, int]:
        """Width and height in output pixels."""
        return self.frame.output.width, self.frame.output.height

    @cached_property
    def tone(self) -> Tone:
        return self.finish.tone_of(self.size)

    @cached_property
    def border(self) -> Border:
        return self.finish.border_of(self.size)

    @cached_property
    def watermark(self) -> Watermark:
        return self.finish.watermark_of(self.size)

    @cached_property
    def outer(self) -> Outline:
        """The shape, in output pixels."""
        return outline_of(self.size.shape, *self.sides)

    @cached_property
    def inner(self) -> Outline:
        """The border's inner edge, in output pixels."""
        band = self.frame.output.band
        return self.outer.inset(band.top, band.right, band.bottom, band.left)

    @cached_property
    def margins(self) -> Margins:
        return margins_of(self.size, self.border, self.frame.output)

    @cached_property
    def pieces(self) -> list[LaidPiece]:
        """Every piece that is on the size, laid out, back to front."""
        return [
            lay_piece(piece, self.margins, self.frame, self.sources.font)
            for piece in self.finish.pieces_of(self.size)
        ]

    @property
    def seen_scale(self) -> float:
        """Pixels, as people see the size, for each one of its own."""
        return min(1.0, self.size.seen_width / self.frame.output.width)

    def scale_for(self, longest: int) -> float:
        """The scale, at most 1, at which the longest side has this many pixels."""
        return min(1.0, longest / max(self.sides))

    def without_watermark(self) -> "Scene":
        """The same size with its watermark switched off."""
        return replace(self, size=self.size.with_overrides(watermark=WatermarkChanges(on=False)))

    def mapping(self, to_full: Affine) -> Affine:
        """From pixels of a picture to photo pixels; ``to_full`` leads to output pixels."""
        return self.frame.from_output.after(to_full)
