"""A house style: what the pictures of one shop have in common, and its use in a finish."""

from typing import Annotated, Literal, get_args

from pydantic import Field

from lucky_margin.core.document.borders import Border
from lucky_margin.core.document.cut_out import Outlines, SubjectEdge, SubjectShadow
from lucky_margin.core.document.pieces import MOST_PIECES, Piece, Watermark
from lucky_margin.core.document.row import NO_ROW, Row
from lucky_margin.core.document.sizes import Size
from lucky_margin.core.document.steps import Export
from lucky_margin.core.document.tone import MOST_WASHES, Fade, LookUse, Settings
from lucky_margin.core.document.treatments import Treatments
from lucky_margin.core.document.values import Ground, Name, PhotoBox, Transparent, Value
from lucky_margin.core.document.washes import Wash

MAX_SIZES = 32

StyleId = Annotated[str, Field(pattern=r"^[0-9a-f]{16}$")]
"""It stays the same through every version of a style, and wherever that is taken."""

PartKey = Literal[
    "sizes",
    "ground",
    "light",
    "look",
    "cut_out",
    "treatments",
    "border",
    "pieces",
    "watermark",
    "export",
]
PART_KEYS: tuple[PartKey, ...] = get_args(PartKey)


class GroundPart(Value):
    """What shows where there is no picture."""

    backdrop: Ground = Transparent()
    outside: Ground = Transparent()


class LookPart(Value):
    """The look of the photo, and what lies over it."""

    look: LookUse | None = None
    washes: Annotated[tuple[Wash, ...], Field(max_length=MOST_WASHES)] = ()
    fade: Fade = Fade()


class CutOutPart(Value):
    """Whether the subject is cut out, and how it stands on its ground."""

    on: bool = False
    edge: SubjectEdge = SubjectEdge()
    stands_out: bool = False
    outlines: Outlines = Outlines()
    subject_shadow: SubjectShadow = SubjectShadow()


class StyleParts(Value):
    """Values of a finish by the parts of a style; null is no part of it.

    ``light`` is of one photo, as suggested for that; a style itself has none.
    """

    sizes: Annotated[tuple[Size, ...], Field(min_length=1, max_length=MAX_SIZES)] | None = None
    ground: GroundPart | None = None
    light: Settings | None = None
    look: LookPart | None = None
    cut_out: CutOutPart | None = None
    treatments: Treatments | None = None
    border: Border | None = None
    pieces: Annotated[tuple[Piece, ...], Field(max_length=MOST_PIECES)] | None = None
    watermark: Watermark | None = None
    export: Export | None = None

    @property
    def given(self) -> tuple[PartKey, ...]:
        """The parts that are there."""
        return tuple(key for key in PART_KEYS if getattr(self, key) is not None)


class HouseStyle(Value):
    """What a finish takes over from a shop's other pictures; with ``suggest_light`` each photo's
    light and colour are first put right as suggested for it."""

    id: StyleId
    name: Name
    version: int = Field(default=1, ge=1)
    parts: StyleParts
    suggest_light: bool = False


class StyleUse(Value):
    """The version of a house style that a finish has: what it ``gave``, what the finish had
    ``before`` in its place, the ``row`` of a table that filled its words, and the subjects that
    were ``found`` for it (photo space)."""

    id: StyleId
    name: Name
    version: int = Field(ge=1)
    gave: StyleParts
    before: StyleParts
    row: Row = NO_ROW
    found: tuple[PhotoBox, ...] = ()
