"""Layout: every number and outline of a size that a screen may want to draw or say.

The interface measures nothing itself; it draws what stands here.
"""

from typing import Any, Literal

from pydantic import Field

from lucky_margin.core.document import Box, Finish, Identifier, Value
from lucky_margin.core.framing import Frame, focus_box
from lucky_margin.core.outlines import PolygonOutline, covered_box
from lucky_margin.core.pieces import LaidPiece
from lucky_margin.core.pieces.watermark import watermark_pieces
from lucky_margin.core.render.lifts import lift_shapes
from lucky_margin.core.render.tone_shapes import ToneShape, tone_shapes
from lucky_margin.core.scene import Scene

_PLENTY = 6
"""Digits after the point that a sent number keeps: a millionth of a pixel."""


_LEAST = 10**-_PLENTY


class LaidPoint(Value):
    """A point."""

    x: float
    y: float


class FocusLaid(Value):
    """The focus in turned pixels."""

    point: LaidPoint
    box: Box | None


class PhotoSpace(Value):
    """The upright photo, in photo pixels, and the mapping (a, b, c, d, e, f of an SVG matrix) from
    those to output pixels."""

    width: int
    height: int
    to_output: tuple[float, float, float, float, float, float]


class PieceLaid(Value):
    """A piece on the size, in output pixels; its own box lies about x, y, turned by ``angle``
    degrees clockwise."""

    id: Identifier
    kind: Literal["text", "badge", "picture", "mark"]
    x: float
    y: float
    width: float
    height: float
    angle: float
    font_pixels: float = Field(description="A text's em; 0 for other pieces.")
    lines: int
    missing: str = Field(description="Characters of a text that no font has.")
    corners: list[LaidPoint] = Field(
        description="Of its own box as they are seen, clockwise from the upper left."
    )
    tail: LaidPoint | None = Field(description="Where a piece begins that points at the photo.")
    tip: LaidPoint | None = Field(description="What it points at.")


class CoveredLaid(Value):
    """A zone that something lies over where the size is shown."""

    name: str
    round: bool
    box: Box = Field(description="In output pixels.")


class Layout(Value):
    """One size, laid out. Boxes say their unit; outlines are SVG path data.

    Turned pixels count from the top left of the upright box around the turned photo.
    """

    size_id: str
    width: int = Field(description="Output pixels.")
    height: int = Field(description="Output pixels.")
    photo_width: int = Field(description="The turned photo's bounds, in whole turned pixels.")
    photo_height: int = Field(description="The turned photo's bounds, in whole turned pixels.")
    photo_edges: str = Field(description="The turned photo itself, in turned pixels.")
    photo_box: Box = Field(description="Where the photo is framed, in output pixels.")
    shown: Box = Field(description="Where the sampled part lies, in output pixels.")
    window: Box = Field(description="The window as typed, in turned pixels.")
    sampled: Box = Field(description="What is sampled of it, in turned pixels.")
    photo_space: PhotoSpace
    focus: FocusLaid | None
    follows_focus: bool
    held_ratio: float | None = Field(description="Width over height; null when free.")
    lost: float = Field(description="Turned pixels of the typed window that are not sampled.")
    enlargement: float = Field(description="Output pixels for each photo pixel.")
    border: tuple[int, int, int, int] = Field(
        description="All bands together: top, right, bottom, left, in output pixels."
    )
    margin: float = Field(description="The margin's thickness in output pixels.")
    margin_start: int = Field(
        description="How far below the shape's upper edge the margin begins, in output pixels."
    )
    margin_box: Box | None = Field(
        description="The largest upright rectangle of the size's ratio inside the margin, in "
        "output pixels; null when the margin leaves nothing."
    )
    shape_box: Box = Field(description="The upright box around the shape, in output pixels.")
    tone_shapes: list[ToneShape] = Field(
        description="Washes, masks, sharp zones and lifts as they lie here."
    )
    pieces: list[PieceLaid] = Field(description="Back to front.")
    watermark: Box | None = Field(
        description="The upright box of a watermark on one spot, in output pixels."
    )
    covered: list[CoveredLaid]
    outline: str = Field(description="The shape, in output pixels.")
    inner_outline: str = Field(description="The border's inner edge, in output pixels.")
    margin_outline: str = Field(description="The safe band's inner edge, in output pixels.")


def layout(scene: Scene) -> Layout:
    """Where everything of a size lies.

    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    frame, outer, inner, margins = scene.frame, scene.outer, scene.inner, scene.margins
    output, photo = frame.output, frame.photo
    band = output.band
    photo_width, photo_height = photo.whole_sides
    left, top, right, bottom = outer.region.bounds
    return Layout(
        size_id=scene.size.id,
        width=output.width,
        height=output.height,
        photo_width=photo_width,
        photo_height=photo_height,
        photo_edges=PolygonOutline.of(photo.corners).svg(),
        photo_box=output.photo_box,
        shown=frame.shown,
        window=_rounded(frame.window),
        sampled=_rounded(frame.sampled),
        photo_space=_photo_space(frame),
        focus=_focus(scene.finish, frame),
        follows_focus=frame.follows_focus,
        held_ratio=frame.held_ratio,
        lost=max(0.0, round(frame.lost, _PLENTY)),
        enlargement=round(frame.enlargement, _PLENTY),
        border=(band.top, band.right, band.bottom, band.left),
        margin=round(margins.thickness, _PLENTY),
        margin_start=0 if scene.border.leaves_strip else band.top,
        margin_box=_rounded(margins.inside) if margins.inside else None,
        shape_box=_rounded(Box(left=left, top=top, width=right - left, height=bottom - top)),
        tone_shapes=[
            *tone_shapes(_set("tone", scene), _set("treatments", scene), frame),
            *lift_shapes(scene),
        ],
        pieces=[_piece(laid) for laid in scene.pieces],
        watermark=_watermark(scene),
        covered=[
            CoveredLaid(name=zone.name, round=zone.round, box=covered_box(zone, *scene.sides))
            for zone in scene.size.covered
        ],
        outline=outer.svg(),
        inner_outline=inner.svg(),
        margin_outline=margins.outline.svg(),
    )


def _set(step: str, scene: Scene) -> Any:
    """A step as it is set, switched on or not."""
    return scene.finish.as_set(step, scene.size)


def _photo_space(frame: Frame) -> PhotoSpace:
    way = frame.from_output.inverse
    return PhotoSpace(
        width=frame.photo.photo_width,
        height=frame.photo.photo_height,
        to_output=(way.a, way.c, way.b, way.d, way.x0, way.y0),
    )


def _focus(finish: Finish, frame: Frame) -> FocusLaid | None:
    if finish.focus is None or finish.photo is None:
        return None
    photo = frame.photo
    x, y = photo.to_turned(
        finish.focus.point.x * photo.photo_width, finish.focus.point.y * photo.photo_height
    )
    box = focus_box(finish.focus, photo)
    return FocusLaid(
        point=LaidPoint(x=round(x, _PLENTY), y=round(y, _PLENTY)),
        box=_rounded(box) if box else None,
    )


def _watermark(scene: Scene) -> Box | None:
    mark = scene.watermark
    if mark.place != "spot" or not mark.is_set:
        return None
    laid = watermark_pieces(mark, scene.margins, scene.frame, scene.sources.font)
    return _rounded(laid[0].bounds)


def _piece(laid: LaidPiece) -> PieceLaid:
    text = laid.text
    return PieceLaid(
        id=laid.piece.id,
        kind=laid.piece.kind,
        x=round(laid.x, _PLENTY),
        y=round(laid.y, _PLENTY),
        width=round(laid.width, _PLENTY),
        height=round(laid.height, _PLENTY),
        angle=laid.angle,
        font_pixels=round(text.size, _PLENTY) if text else 0,
        lines=text.lines if text else 0,
        missing=text.missing if text else "",
        corners=[_laid_point(corner) for corner in laid.corners],
        tail=_laid_point(laid.ends.tail) if laid.ends else None,
        tip=_laid_point(laid.ends.tip) if laid.ends else None,
    )


def _laid_point(point: tuple[float, float]) -> LaidPoint:
    return LaidPoint(x=round(point[0], _PLENTY), y=round(point[1], _PLENTY))


def _rounded(box: Box) -> Box:
    return Box(
        left=round(box.left, _PLENTY),
        top=round(box.top, _PLENTY),
        width=max(round(box.width, _PLENTY), _LEAST),
        height=max(round(box.height, _PLENTY), _LEAST),
    )
