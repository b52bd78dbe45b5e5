"""The finish: one photo and everything decided about it. Small JSON that holds no pixels.

``docs/document.md`` describes the format in prose; ``json_schema`` publishes it.
"""

from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field, ValidationError, model_validator

from lucky_margin.core.document.borders import Border
from lucky_margin.core.document.cut_out import CutOut, Outlines, SubjectShadow
from lucky_margin.core.document.house_style import MAX_SIZES, StyleUse
from lucky_margin.core.document.invalid import describe_validation_error
from lucky_margin.core.document.lifts import Lifts
from lucky_margin.core.document.migrations import up_to_date
from lucky_margin.core.document.overrides import Changes
from lucky_margin.core.document.pieces import MOST_PIECES, Piece, Watermark
from lucky_margin.core.document.sizes import AsCropped, FixedPixels, Size
from lucky_margin.core.document.spots import Spots
from lucky_margin.core.document.square import Square
from lucky_margin.core.document.steps import Export, Turn
from lucky_margin.core.document.tone import Tone
from lucky_margin.core.document.treatments import Treatments
from lucky_margin.core.document.values import (
    Ground,
    GroundPlace,
    Identifier,
    Name,
    PhotoBox,
    Point,
    Sha256,
    Transparent,
    Value,
)
from lucky_margin.core.errors import BadDocument, NotFound

FORMAT: Literal["lucky-margin-finish"] = "lucky-margin-finish"
VERSION: Literal[6] = 6

EXAMPLE: dict[str, Any] = {
    "format": FORMAT,
    "version": VERSION,
    "name": "Thursday mugs",
    "photo": {"sha256": "d6d74675b33fb7520f5e55a632738886a300e99a609da1732b31e58e20ecc780"},
    "border": {
        "bands": [
            {
                "kind": "line",
                "thickness": {"top": 0.025, "right": 0.025, "bottom": 0.025, "left": 0.025},
            }
        ]
    },
    "export": {"format": "jpeg", "max_kb": 400},
    "sizes": [
        {
            "id": "main",
            "name": "Tall post",
            "pixels": {"kind": "fixed", "width": 1080, "height": 1350},
        }
    ],
}
"""A finish as somebody would write it: only what is not the default."""


class Focus(Value):
    """What must stay in view: a point and perhaps a box, in photo space (0..1)."""

    point: Point
    box: PhotoBox | None = None


class PhotoReference(Value):
    """A photo by the SHA-256 of its original bytes, and what of it is squared up."""

    sha256: Sha256
    square: Square | None = None


class Finish(Value):
    """One photo and everything decided about it.

    The photo may be absent; its tone and focus are then off, and every size has fixed pixels.
    """

    model_config = ConfigDict(json_schema_extra={"examples": [EXAMPLE]})

    format: Literal["lucky-margin-finish"] = FORMAT
    version: Literal[6] = VERSION
    name: Name
    photo: PhotoReference | None
    focus: Focus | None = None
    turn: Turn = Turn()
    spots: Spots = Spots()
    tone: Tone = Tone()
    cut_out: CutOut = CutOut()
    outlines: Outlines = Outlines()
    subject_shadow: SubjectShadow = SubjectShadow()
    treatments: Treatments = Treatments()
    lifts: Lifts = Lifts()
    border: Border = Border()
    pieces: Annotated[tuple[Piece, ...], Field(max_length=MOST_PIECES)] = ()
    watermark: Watermark = Watermark()
    export: Export = Export()
    backdrop: Ground = Transparent()
    outside: Ground = Transparent()
    style: StyleUse | None = None
    sizes: Annotated[tuple[Size, ...], Field(min_length=1, max_length=MAX_SIZES)]

    @model_validator(mode="after")
    def _sizes_are_sound(self) -> "Finish":
        if len({size.id for size in self.sizes}) != len(self.sizes):
            raise ValueError("two sizes have the same id")
        if len({piece.id for piece in self.pieces}) != len(self.pieces):
            raise ValueError("two pieces have the same id")
        for size in self.sizes:
            if self.photo is None and not isinstance(size.pixels, FixedPixels):
                raise ValueError("without a photo every size needs its width and height")
            for field in size.overrides.overridden:
                self.as_set(field, size)
            self.pieces_of(size)
        return self

    def size(self, size_id: Identifier) -> Size:
        """The size with this id.

        Raises:
            NotFound: the finish has no such size.
        """
        for size in self.sizes:
            if size.id == size_id:
                return size
        raise NotFound(f"This finish has no size “{size_id}”; pick one of its proofs.")

    def with_size(self, size: Size) -> "Finish":
        """The finish with ``size`` in place of the one that has its id."""
        sizes = tuple(size if old.id == size.id else old for old in self.sizes)
        return self.model_copy(update={"sizes": sizes})

    def as_set(self, field: str, size: Size) -> Any:
        """A step's value as ``size`` has it, switched on or not."""
        changes: Changes = getattr(size.overrides, field)
        return changes.applied_to(getattr(self, field))

    def turn_of(self, size: Size) -> Turn:
        """How the photo is turned for ``size``."""
        turn: Turn = self.as_set("turn", size)
        return turn

    def spots_of(self, size: Size) -> Spots:
        """The spots as ``size`` has them; none where they are switched off, or of no photo."""
        spots: Spots = self.as_set("spots", size)
        return spots if spots.on and self.photo else Spots()

    def tone_of(self, size: Size) -> Tone:
        """The tone as ``size`` has it; one that is switched off, or of no photo, is the default
        one."""
        tone: Tone = self.as_set("tone", size)
        return tone if tone.on and self.photo else Tone()

    def cut_out_of(self, size: Size) -> CutOut:
        """The cut-out as ``size`` has it; of no photo, the default one."""
        cut_out: CutOut = self.as_set("cut_out", size)
        return cut_out if self.photo else CutOut()

    def focus_of(self, size: Size) -> Focus | None:
        """What ``size`` keeps in view: the focus, or else the subject where that is cut out."""
        cut_out = self.cut_out_of(size)
        if self.focus is not None or not cut_out.on or cut_out.box is None:
            return self.focus
        x, y = cut_out.box.centre
        return Focus(point=Point(x=x, y=y), box=cut_out.box)

    def outlines_of(self, size: Size) -> Outlines:
        """The lines round the subject as ``size`` has them; none where nothing is cut out."""
        outlines: Outlines = self.as_set("outlines", size)
        return outlines if self.cut_out_of(size).on else Outlines()

    def subject_shadow_of(self, size: Size) -> SubjectShadow:
        """The subject's shadows as ``size`` has them; none where nothing is cut out."""
        shadow: SubjectShadow = self.as_set("subject_shadow", size)
        return shadow if self.cut_out_of(size).on else SubjectShadow()

    def treatments_of(self, size: Size) -> Treatments:
        """The treatments as ``size`` has them; none where they are switched off, or of no photo."""
        treatments: Treatments = self.as_set("treatments", size)
        return treatments if treatments.on and self.photo else Treatments()

    def lifts_of(self, size: Size) -> Lifts:
        """The lifts as ``size`` has them; none where treatments are switched off."""
        lifts: Lifts = self.as_set("lifts", size)
        return lifts if self.as_set("treatments", size).on and self.photo else Lifts()

    def ground_of(self, place: GroundPlace, size: Size) -> Ground:
        """What shows behind the photo, or outside the shape, on ``size``."""
        own: Ground | None = getattr(size.overrides, place)
        shared: Ground = getattr(self, place)
        return shared if own is None else own

    def border_of(self, size: Size) -> Border:
        """The border as ``size`` has it and can have it; one that is switched off has no bands."""
        border: Border = self.as_set("border", size)
        if not border.on:
            return Border()
        return border.even(size.shape.kind == "rectangle")

    def pieces_of(self, size: Size) -> list[Piece]:
        """The pieces that are on ``size``, back to front, as it has them."""
        here = self.pieces_as(size)
        return [p for p in here if p.on and (p.sizes is None or size.id in p.sizes)]

    def pieces_as(self, size: Size) -> list[Piece]:
        """All pieces as ``size`` has them, those that are not on it too."""
        ways = size.overrides.pieces
        return [ways[p.id].applied_to(p) if p.id in ways else p for p in self.pieces]

    def piece(self, piece_id: Identifier) -> Piece:
        """The piece with this id, as the finish has it.

        Raises:
            NotFound: there is no such piece.
        """
        for piece in self.pieces:
            if piece.id == piece_id:
                return piece
        raise NotFound("This piece was removed; undo brings it back.")

    def watermark_of(self, size: Size) -> Watermark:
        """The watermark as ``size`` has it."""
        watermark: Watermark = self.as_set("watermark", size)
        return watermark

    def export_of(self, size: Size) -> Export:
        """The export as ``size`` has it."""
        export: Export = self.as_set("export", size)
        return export


def new_finish(*, name: str, photo_sha256: str) -> Finish:
    """A finish that changes nothing: the whole photo, pixel for pixel."""
    return Finish(
        name=name,
        photo=PhotoReference(sha256=photo_sha256),
        sizes=(Size(id="main", name="As cropped", pixels=AsCropped()),),
    )


def blank_finish(*, name: str, size: Size, ground: Ground) -> Finish:
    """A finish without a photo: ``ground`` alone, to put words and badges on.

    Raises:
        BadDocument: the size does not say both of its sides.
    """
    try:
        return Finish(name=name, photo=None, sizes=(size,), backdrop=ground)
    except ValidationError as error:
        raise BadDocument(describe_validation_error(error)) from error


def read_finish(data: Any) -> Finish:
    """A finish from parsed JSON.

    Raises:
        BadDocument: ``data`` is no finish, is of a newer version, or a field is wrong; the
            message names the first such field.
    """
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise BadDocument(f'This is not a finish: its "format" has to be "{FORMAT}".')
    version = data.get("version")
    if isinstance(version, int) and version > VERSION:
        raise BadDocument(
            f"This finish was made by a newer Lucky Margin (format {version}, "
            f"known up to {VERSION}); update this one first."
        )
    try:
        return Finish.model_validate(up_to_date(data))
    except ValidationError as error:
        raise BadDocument(describe_validation_error(error)) from error


def json_schema() -> dict[str, Any]:
    """The JSON Schema (2020-12) of a finish."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema"} | Finish.model_json_schema()
