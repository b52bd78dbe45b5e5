"""Layout: every number and outline of a size that a screen may want to draw or say.

The interface measures nothing itself; it draws what stands here.
"""

from pydantic import Field

from lucky_margin.core.document import Box, Finish, Size, Value
from lucky_margin.core.framing import Frame, focus_box, frame_of
from lucky_margin.core.outlines import PolygonOutline, largest_box_inside, outline_of
from lucky_margin.core.render.sources import Sources

_PLENTY = 6
"""Digits after the point that a sent number keeps: a millionth of a pixel."""


_LEAST = 10**-_PLENTY


class Spot(Value):
    """A point."""

    x: float
    y: float


class FocusLaid(Value):
    """The focus in turned pixels."""

    point: Spot
    box: Box | None


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
    focus: FocusLaid | None
    follows_focus: bool
    held_ratio: float | None = Field(description="Width over height; null when free.")
    lost: float = Field(description="Turned pixels of the typed window that are not sampled.")
    enlargement: float = Field(description="Output pixels for each photo pixel.")
    border: tuple[int, int, int, int] = Field(
        description="The border's thickness: top, right, bottom, left, in output pixels."
    )
    margin: float = Field(description="The margin's thickness in output pixels.")
    margin_box: Box | None = Field(
        description="The largest upright rectangle of the size's ratio inside the margin, in "
        "output pixels; null when the margin leaves nothing."
    )
    shape_box: Box = Field(description="The upright box around the shape, in output pixels.")
    outline: str = Field(description="The shape, in output pixels.")
    inner_outline: str = Field(description="The border's inner edge, in output pixels.")
    margin_outline: str = Field(description="The safe band's inner edge, in output pixels.")


def layout(finish: Finish, size: Size, sources: Sources) -> Layout:
    """The layout of ``size``.

    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    facts = sources.facts(finish.photo.sha256)
    frame = frame_of(finish, size, facts.width, facts.height)
    output, photo = frame.output, frame.photo
    band = output.band
    outer = outline_of(size.shape, output.width, output.height)
    inner = outer.inset(band.top, band.right, band.bottom, band.left)
    margin = size.margin * output.short_side
    inside_border = outer if finish.border_of(size).outside else inner
    margin_outline = inside_border.inset(margin, margin, margin, margin)
    margin_box = largest_box_inside(margin_outline, output.width / output.height)
    photo_width, photo_height = photo.whole_sides
    left, top, right, bottom = outer.region.bounds
    return Layout(
        size_id=size.id,
        width=output.width,
        height=output.height,
        photo_width=photo_width,
        photo_height=photo_height,
        photo_edges=PolygonOutline.of(photo.corners).svg(),
        photo_box=output.photo_box,
        shown=frame.shown,
        window=_rounded(frame.window),
        sampled=_rounded(frame.sampled),
        focus=_focus(finish, frame),
        follows_focus=frame.follows_focus,
        held_ratio=frame.held_ratio,
        lost=max(0.0, round(frame.lost, _PLENTY)),
        enlargement=round(frame.enlargement, _PLENTY),
        border=(band.top, band.right, band.bottom, band.left),
        margin=round(margin, _PLENTY),
        margin_box=_rounded(margin_box) if margin_box else None,
        shape_box=_rounded(Box(left=left, top=top, width=right - left, height=bottom - top)),
        outline=outer.svg(),
        inner_outline=inner.svg(),
        margin_outline=margin_outline.svg(),
    )


def _focus(finish: Finish, frame: Frame) -> FocusLaid | None:
    if finish.focus is None:
        return None
    photo = frame.photo
    x, y = photo.to_turned(
        finish.focus.point.x * photo.photo_width, finish.focus.point.y * photo.photo_height
    )
    box = focus_box(finish.focus, photo)
    return FocusLaid(
        point=Spot(x=round(x, _PLENTY), y=round(y, _PLENTY)), box=_rounded(box) if box else None
    )


def _rounded(box: Box) -> Box:
    return Box(
        left=round(box.left, _PLENTY),
        top=round(box.top, _PLENTY),
        width=max(round(box.width, _PLENTY), _LEAST),
        height=max(round(box.height, _PLENTY), _LEAST),
    )
