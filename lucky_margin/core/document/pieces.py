"""Pieces: what is placed on the picture, and the watermark over it all.

Places and lengths are in the size's space: offsets and heights are fractions of its short side,
ems are of a text's own size.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from lucky_margin.core.document.cut_out import CutOut
from lucky_margin.core.document.square import Square
from lucky_margin.core.document.values import (
    Box,
    Colour,
    Identifier,
    Opacity,
    Percent,
    PhotoBox,
    PhotoPoint,
    Sha256,
    UnitCoordinate,
    Value,
)
from lucky_margin.core.document.washes import BlendMode

MOST_PIECES = 100
MOST_LETTERS = 5000

FamilyKey = Literal[
    "figtree",
    "source-sans-3",
    "inter",
    "noto-sans",
    "montserrat",
    "oswald",
    "anton",
    "source-serif-4",
    "noto-serif",
    "playfair-display",
    "zilla-slab",
    "abril-fatface",
    "comfortaa",
    "pacifico",
    "caveat",
    "jetbrains-mono",
]
"""The families that ship with the application (``lucky_margin.core.text``)."""

AnyFamily = FamilyKey | Sha256
"""One of them, or an own font by the SHA-256 of its file."""

Words = Annotated[str, StringConstraints(max_length=MOST_LETTERS)]
Offset = Annotated[float, Field(ge=-20, le=20)]
Weight = Annotated[int, Field(ge=100, le=900)]
Align = Literal["left", "centre", "right"]
Case = Literal["typed", "capitals", "lower"]


class MarginAnchor(Value):
    """A place of the margin box (0 left or top, 1 right or bottom); a piece's box lies against it
    as it lies in the box: at 1, its right edge at the right edge."""

    kind: Literal["margin"] = "margin"
    x: UnitCoordinate = 0.5
    y: UnitCoordinate = 0.5


class PhotoAnchor(Value):
    """A point of the photo, on which the piece's middle lies."""

    kind: Literal["photo"] = "photo"
    point: PhotoPoint


Anchor = Annotated[MarginAnchor | PhotoAnchor, Field(discriminator="kind")]


class Shadow(Value):
    """A soft shadow; lengths are fractions of the short side."""

    x: float = Field(default=0, ge=-0.5, le=0.5)
    y: float = Field(default=0.006, ge=-0.5, le=0.5)
    blur: float = Field(default=0.008, ge=0, le=0.2)
    colour: Colour = "#000000"
    opacity: Opacity = 0.6


class LetterOutline(Value):
    """A line around letters, outside them; its width in ems."""

    width: float = Field(default=0.06, ge=0, le=0.5)
    colour: Colour = "#000000"


class Plate(Value):
    """A plate behind a text's letters; lengths in ems."""

    padding: float = Field(default=0.35, ge=0, le=4)
    radius: float = Field(default=0.2, ge=0, le=4)
    colour: Colour = "#000000"
    opacity: Opacity = 0.55


class Repeat(Value):
    """Copies of a piece, as one piece: in a row, round a ring or loosely scattered.

    ``spread`` is the row's length, the ring's diameter or the scatter's side, between the
    outermost middles, in short sides; ``turned`` turns copies along a ring, or any way in a
    scatter, which is another one for each ``seed``. In a scatter each copy is as near as chance
    has it: the farthest is ``smallest`` (percent) of the nearest, and the nearest blurred by
    ``near_blur``, in short sides. Where something is in focus, scattered copies may ``keep_off``
    it, and any may ``lean`` towards it or away from it with their tops.
    """

    kind: Literal["row", "ring", "scatter"] = "row"
    count: int = Field(default=5, ge=2, le=60)
    spread: float = Field(default=0.6, ge=0.01, le=4)
    turned: bool = False
    seed: int = Field(default=1, ge=0, le=9999)
    smallest: float = Field(default=100, ge=10, le=100)
    near_blur: float = Field(default=0, ge=0, le=0.1)
    keep_off: bool = False
    lean: Literal["none", "towards", "away"] = "none"

    @property
    def heeds_focus(self) -> bool:
        """Whether its copies lie or turn by what is in focus."""
        return self.lean != "none" or (self.keep_off and self.kind == "scatter")


Shift = Annotated[float, Field(ge=-10, le=10)]
FourShifts = Annotated[tuple[tuple[Shift, Shift], ...], Field(min_length=4, max_length=4)]

_FLAT = ((-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5))
"""The corners of a box about its middle, in its sides, clockwise from the upper left."""

_LEAST_TURN = 1e-3
"""Of two sides that follow each other, as the area between them: below this they are one line."""


class Perspective(Value):
    """A piece turned out of the picture's plane: it leans back at its top and swings back at its
    right, by degrees, and is seen from so many of its own longer sides away.

    Or its ``corners`` were pulled: how far each, clockwise from the upper left, lies from where it
    is flat, in the sides of the piece's own box. They go before lean and swing.
    """

    lean: float = Field(default=0, ge=-80, le=80)
    swing: float = Field(default=0, ge=-80, le=80)
    distance: float = Field(default=2.5, ge=1.2, le=20)
    corners: FourShifts | None = None

    @model_validator(mode="after")
    def _corners_go_round(self) -> Self:
        corners = self.pulled
        sides = [
            (b[0] - a[0], b[1] - a[1])
            for a, b in zip(corners, (*corners[1:], corners[0]), strict=True)
        ]
        following = (*sides[1:], sides[0])
        turns = [a[0] * b[1] - a[1] * b[0] for a, b in zip(sides, following, strict=True)]
        if min(turns) < _LEAST_TURN:
            raise ValueError("these corners cross each other; pull one of them back")
        return self

    @property
    def is_set(self) -> bool:
        """Whether it turns anything."""
        return self.corners is not None or self.lean != 0 or self.swing != 0

    @property
    def pulled(self) -> tuple[tuple[float, float], ...]:
        """Where its corners lie from the middle of its box, in the box's sides."""
        shifts = self.corners or ((0.0, 0.0),) * 4
        return tuple((x + dx, y + dy) for (x, y), (dx, dy) in zip(_FLAT, shifts, strict=True))


class PieceBase(Value):
    """What all pieces have. ``sizes`` names those it is on; null is all of them. ``blur`` is the
    deviation of a Gaussian in linear light, in short sides."""

    id: Identifier
    on: bool = True
    locked: bool = False
    anchor: Anchor = MarginAnchor()
    dx: Offset = 0
    dy: Offset = 0
    angle: float = Field(default=0, ge=-360, le=360)
    opacity: Opacity = 1
    blend: BlendMode = "normal"
    shadow: Shadow | None = None
    perspective: Perspective | None = None
    blur: float = Field(default=0, ge=0, le=0.2)
    over_border: bool = True
    behind: bool = Field(default=False, description="Behind the subject, where that is cut out.")
    clipped: bool = True
    repeat: Repeat | None = None
    group: int | None = Field(default=None, ge=1, description="Chosen and moved together.")
    sizes: tuple[Identifier, ...] | None = None


class TextPart(Value):
    """Letters that are set differently, from ``start`` up to ``end`` (characters of the text);
    null keeps the text's own way."""

    start: int = Field(ge=0, le=MOST_LETTERS)
    end: int = Field(ge=0, le=MOST_LETTERS)
    weight: Weight | None = None
    italic: bool | None = None
    colour: Colour | None = None
    struck: bool = False


class TextPiece(PieceBase):
    """Words. ``size`` is an em; ``wrap`` the width of a line, of the margin box's (null: lines end
    where they were ended); ``fill`` takes the largest size that fits the margin box. ``bend``
    lays the lines on an arc of so many degrees, over a circle's top or, below 0, under it."""

    kind: Literal["text"] = "text"
    text: Words = ""
    family: AnyFamily = "figtree"
    weight: Weight = 700
    italic: bool = False
    size: float = Field(default=0.07, ge=0.002, le=4)
    fill: bool = False
    wrap: float | None = Field(default=1, ge=0.02, le=4)
    align: Align = "centre"
    case: Case = "typed"
    letter_spacing: float = Field(default=0, ge=-0.2, le=2)
    line_spacing: float = Field(default=1, ge=0.4, le=4)
    colour: Colour = "#FFFFFF"
    outline: LetterOutline | None = None
    plate: Plate | None = None
    bend: float = Field(default=0, ge=-350, le=350)
    parts: Annotated[tuple[TextPart, ...], Field(max_length=50)] = ()


IconName = Annotated[str, StringConstraints(pattern=r"^[a-z0-9-]{1,40}$")]
"""A name in ``lucky_margin/icons/icons.json``."""

BadgeForm = Literal[
    "arrow",
    "curved-arrow",
    "line",
    "label",
    "circle",
    "ring",
    "burst",
    "star",
    "heart",
    "bubble",
    "tick",
    "ribbon",
    "price-tag",
    "icon",
]


class BadgePiece(PieceBase):
    """A drawn form; null leaves out its fill or its line. It may hold words or an icon, as large
    as fit, in the colour ``letters``; the form ``icon`` is the icon alone. ``tip`` holds the end
    of an arrow or a line, or a bubble's pointer, at a point of the photo; an arrow then begins
    where it is anchored."""

    kind: Literal["badge"] = "badge"
    form: BadgeForm = "label"
    width: float = Field(default=0.3, ge=0.005, le=4)
    height: float = Field(default=0.12, ge=0.005, le=4)
    colour: Colour | None = "#B8401A"
    stroke: Colour | None = None
    stroke_width: float = Field(default=0.008, ge=0, le=0.2)
    text: Annotated[str, StringConstraints(max_length=200)] = ""
    family: AnyFamily = "figtree"
    weight: Weight = 700
    icon: IconName | None = None
    letters: Colour = "#FFFFFF"
    tip: PhotoPoint | None = None


class KnockOut(Value):
    """A plain colour taken out of a picture, so that what is behind shows instead.

    ``reach`` is how far a colour may be from it (0..1 of black to white); without ``enclosed``
    only what hangs together with the picture's edge goes.
    """

    colour: Colour = "#FFFFFF"
    reach: float = Field(default=0.08, ge=0.005, le=0.5)
    enclosed: bool = True


_SMALLEST_RATIO, _LARGEST_RATIO = 0.01, 100.0
PictureRatio = Annotated[float, Field(ge=_SMALLEST_RATIO, le=_LARGEST_RATIO)]
"""Width over height."""

_NARROWEST, _WIDEST = 0.005, 4.0

PictureCut = Literal["whole", "square", "rounded", "circle", "heart", "star"]


class SubjectOfPhoto(Value):
    """What of a photo, or of what is squared up of it, is its subject, and the ``box`` around that
    (photo space)."""

    sha256: Sha256
    square: Square | None = None
    cut_out: CutOut
    box: PhotoBox


class UsedSubject(Value):
    """A kept subject as it was when it was taken: the shelf's ``id`` and ``version`` of it, what of
    its photo it is, and the ``box`` around that (photo space)."""

    id: int
    name: Annotated[str, StringConstraints(max_length=120)]
    version: int = Field(ge=1)
    square: Square | None = None
    cut_out: CutOut
    box: PhotoBox


class PicturePiece(PieceBase):
    """A picture of the shelf, such as a logo, whose sides are in ``ratio``; its height follows
    that, or the form that it is cut to. With a ``subject`` only that is shown of it, and ``ratio``
    is that of the box around it.

    ``match`` is how far its light and colour are those of what lies around it.
    """

    kind: Literal["picture"] = "picture"
    sha256: Sha256
    ratio: PictureRatio = 1
    width: float = Field(default=0.25, ge=_NARROWEST, le=_WIDEST)
    cut: PictureCut = "whole"
    stroke: Colour | None = None
    stroke_width: float = Field(default=0.008, ge=0, le=0.2)
    knock_out: KnockOut | None = None
    subject: UsedSubject | None = None
    match: Percent = 0

    def with_subject(self, subject: UsedSubject | None) -> "PicturePiece":
        """Only this ``subject`` of the picture shown, or all of it, as large as before."""
        before, after = (one.box if one else _ALL for one in (self.subject, subject))
        across, down = after.width / before.width, after.height / before.height
        ratio = min(max(self.ratio * across / down, _SMALLEST_RATIO), _LARGEST_RATIO)
        width = clamped_width(self.width * across)
        return self.model_copy(update={"subject": subject, "ratio": ratio, "width": width})


def clamped_width(width: float) -> float:
    """The nearest width that a picture may have."""
    return min(max(width, _NARROWEST), _WIDEST)


_ALL = Box(left=0, top=0, width=1, height=1)


MarkShade = Literal["light", "dark"]
"""Which version of a mark: the one for dark pictures is light."""


class MarkColours(Value):
    """The colours of a mark's parts; the smaller line has that of the words, the rule that of the
    frame."""

    words: Colour
    icon: Colour
    frame: Colour


class MarkVersions(Value):
    """A mark's colours for light pictures (``dark``) and for dark ones (``light``)."""

    dark: MarkColours
    light: MarkColours

    def of(self, shade: MarkShade) -> MarkColours:
        """Those of one version."""
        return self.light if shade == "light" else self.dark


class MarkDesign(Value):
    """A mark: an icon beside or over words, a smaller line under them, a rule between both, a
    frame around it all. In a ``round`` one the words run along a circle, the line below, the icon
    in the middle. It is of one colour, which is chosen where it is used, or of up to three."""

    words: Annotated[str, StringConstraints(max_length=60)] = ""
    line: Annotated[str, StringConstraints(max_length=60)] = ""
    icon: IconName | None = None
    layout: Literal["beside", "stacked", "round"] = "stacked"
    frame: Literal["none", "circle", "oval", "label", "box"] = "none"
    rule: bool = False
    family: AnyFamily = "figtree"
    weight: Weight = 700
    case: Case = "typed"
    colours: MarkVersions | None = None

    @property
    def is_empty(self) -> bool:
        """Whether nothing is on it."""
        return not (self.words.strip() or self.line.strip() or self.icon)


class UsedMark(Value):
    """A kept mark as it was when it was taken: the shelf's ``id`` and ``version`` of it."""

    id: int
    name: Annotated[str, StringConstraints(max_length=120)]
    version: int = Field(ge=1)
    design: MarkDesign


class MarkPiece(PieceBase):
    """A kept mark, placed on the picture: in one colour, or in the colours of its design's light
    or dark version where that has them."""

    kind: Literal["mark"] = "mark"
    mark: UsedMark
    width: float = Field(default=0.3, ge=0.005, le=20)
    colour: Colour = "#FFFFFF"
    shade: MarkShade | None = None

    @property
    def colours(self) -> MarkColours | None:
        """The colours of its parts; None when it is drawn in one."""
        versions = self.mark.design.colours
        if versions is None or self.shade is None:
            return None
        return versions.of(self.shade)


Piece = Annotated[TextPiece | BadgePiece | PicturePiece | MarkPiece, Field(discriminator="kind")]

DrawnPiece = Annotated[TextPiece | BadgePiece | MarkPiece, Field(discriminator="kind")]
"""A piece that is no picture."""

MOST_BADGE_PARTS = 20
BadgeParts = Annotated[tuple[DrawnPiece, ...], Field(min_length=1, max_length=MOST_BADGE_PARTS)]
"""The pieces of a badge that is kept for reuse, back to front."""


class MarkLogo(Value):
    """A picture of the shelf as a watermark, in its own colours."""

    sha256: Sha256
    ratio: PictureRatio = 1
    knock_out: KnockOut | None = None


class Watermark(Value):
    """Words, a kept mark or a logo, drawn last, faintly: on one spot, across the picture, or
    repeated all over it. A logo goes before a kept mark, a kept mark before words.

    ``size`` is an em of the words, five of which are a logo's width; across the picture the
    whole is as wide as its diagonal allows. ``shade`` auto is light on dark and dark on
    light, as the picture behind asks. ``gap`` is in ems; ``whole`` leaves out repeats that the
    picture's edge would cut.
    """

    on: bool = True
    text: Annotated[str, StringConstraints(max_length=200)] = ""
    family: AnyFamily = "figtree"
    weight: Weight = 700
    mark: UsedMark | None = None
    logo: MarkLogo | None = None
    size: float = Field(default=0.04, ge=0.004, le=1)
    opacity: Opacity = 0.35
    shade: Literal["auto", "light", "dark"] = "auto"
    place: Literal["spot", "across", "repeated"] = "spot"
    spot: MarginAnchor = MarginAnchor(x=1, y=1)
    angle: float = Field(default=-30, ge=-90, le=90)
    gap: float = Field(default=3, ge=0, le=30)
    stagger: bool = True
    whole: bool = False

    @property
    def is_set(self) -> bool:
        """Whether anything of it is drawn."""
        has_mark = bool(self.logo or self.mark or self.text.strip())
        return self.on and has_mark and self.opacity > 0
