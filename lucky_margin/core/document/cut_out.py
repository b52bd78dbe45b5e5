"""The cut-out: which part of the photo is its subject."""

from typing import Annotated, Literal

from pydantic import Field

from lucky_margin.core.document.values import (
    Box,
    Colour,
    PhotoBox,
    Sha256,
    UnitCoordinate,
    Value,
)
from lucky_margin.core.document.washes import BlendMode

MOST_SUBJECTS = 8
MOST_OUTLINES = 5
MOST_STROKES = 600
MOST_STROKE_POINTS = 200

Brush = Literal["keep", "leave_out", "soft_edge", "erase", "bring_back"]
"""What a stroke says: this is subject, this is not, here is hair or grass; the last two paint
coverage itself."""


class Stroke(Value):
    """A stroke of a brush on the photo.

    ``points`` are x and y in photo space (0..1), ``radius`` counts in the photo's long sides,
    ``softness`` (0..1) is how much of the radius fades out; only painted coverage has one.
    """

    brush: Brush
    radius: float = Field(ge=0.0005, le=0.25)
    softness: float = Field(default=0, ge=0, le=1)
    points: Annotated[
        tuple[tuple[UnitCoordinate, UnitCoordinate], ...],
        Field(min_length=1, max_length=MOST_STROKE_POINTS),
    ]


class SubjectEdge(Value):
    """How the subject's edge is finished; lengths in the photo's long sides.

    ``shift`` moves the edge out (above 0) or in, ``softness`` blurs it. Loose specks and holes
    narrower than ``specks`` and ``holes`` are removed. ``clean_fringe`` takes the old background
    out of the edge's colours. ``soft_hair`` softens the edge where hair, fur or grass is noticed.
    """

    shift: float = Field(default=0, ge=-0.01, le=0.01)
    softness: float = Field(default=0, ge=0, le=0.01)
    specks: float = Field(default=0.01, ge=0, le=0.2)
    holes: float = Field(default=0, ge=0, le=0.2)
    clean_fringe: bool = True
    soft_hair: bool = True


class SubjectMask(Value):
    """A picture whose brightness says how far each pixel is subject."""

    sha256: Sha256


class CutOut(Value):
    """The subject cut out of the photo, so that the backdrop shows behind it.

    ``boxes`` (photo space, 0..1) hold one subject each; without any, what stands out is found.
    A ``mask`` is taken instead of what is found. ``found_by`` is the version of the finding that
    was asked, so that a newer one changes nothing before it is asked too. A subject that
    ``stands_out`` is not cut by the upper half of the shape, as a head above a round picture.
    """

    on: bool = False
    boxes: Annotated[tuple[PhotoBox, ...], Field(max_length=MOST_SUBJECTS)] = ()
    mask: SubjectMask | None = None
    strokes: Annotated[tuple[Stroke, ...], Field(max_length=MOST_STROKES)] = ()
    edge: SubjectEdge = SubjectEdge()
    stands_out: bool = False
    found_by: int = Field(default=1, ge=1)

    @property
    def is_set(self) -> bool:
        """Whether anything is cut out."""
        return self.on

    @property
    def box(self) -> Box | None:
        """The box around all of its boxes."""
        if not self.boxes:
            return None
        left, top = min(box.left for box in self.boxes), min(box.top for box in self.boxes)
        width = max(box.right for box in self.boxes) - left
        height = max(box.bottom for box in self.boxes) - top
        return Box(left=left, top=top, width=width, height=height)


class SubjectOutline(Value):
    """A line round the subject; lengths in the size's short sides.

    It is ``width`` wide and ``gap`` away from the subject's edge, outside or inside. ``softness``
    (0..1) is the share of its width over which it fades out, to a glow at 1; ``strength`` makes
    such a glow fuller.
    """

    width: float = Field(default=0.02, ge=0.001, le=0.2)
    gap: float = Field(default=0, ge=0, le=0.2)
    softness: float = Field(default=0, ge=0, le=1)
    strength: float = Field(default=1, ge=0.2, le=4)
    colour: Colour = "#FFFFFF"
    opacity: float = Field(default=1, gt=0, le=1)
    inside: bool = False
    blend: BlendMode = "normal"

    @property
    def reach(self) -> float:
        """How far it reaches from the subject's edge."""
        return self.gap + self.width


class CastShadow(Value):
    """The subject's shape thrown onto its ground: ``distance`` away towards ``angle`` (degrees
    clockwise from upwards), its edge fading over ``softness``. Lengths in the size's short sides.
    """

    angle: float = Field(default=150, ge=-360, le=360)
    distance: float = Field(default=0.03, ge=0, le=0.5)
    softness: float = Field(default=0.04, ge=0, le=0.4)
    colour: Colour = "#000000"
    opacity: float = Field(default=0.35, gt=0, le=1)


class ContactShadow(Value):
    """The shadow under the subject: its shape flattened to ``height`` on the line on which it
    stands, fading over ``softness``. Lengths in the size's short sides."""

    height: float = Field(default=0.05, ge=0, le=0.5)
    softness: float = Field(default=0.03, ge=0, le=0.4)
    colour: Colour = "#000000"
    opacity: float = Field(default=0.5, gt=0, le=1)


class SubjectShadow(Value):
    """The subject's shadows on its ground. ``own`` is how much (0..1) of the one in the photo is
    kept."""

    cast: CastShadow | None = None
    contact: ContactShadow | None = None
    own: float = Field(default=0, ge=0, le=1)

    @property
    def is_set(self) -> bool:
        """Whether there is any."""
        return bool(self.cast or self.contact or self.own)


class Outlines(Value):
    """The lines round the subject, back to front.

    Where the size cuts the subject there are none, unless those inside it run ``along_cuts`` too.
    """

    along_cuts: bool = False
    lines: Annotated[tuple[SubjectOutline, ...], Field(max_length=MOST_OUTLINES)] = ()
