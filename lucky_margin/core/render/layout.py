"""Layout: every number and outline of a size that a screen may want to draw or say.

The interface measures nothing itself; it draws what stands here.
"""

from pydantic import Field

from lucky_margin.core.document import Box, Finish, Size, Value
from lucky_margin.core.framing import frame_of
from lucky_margin.core.render.outline import RoundedBox, inner_outline, outline_of
from lucky_margin.core.render.sources import Sources

_PLENTY = 6
"""Digits after the point that a sent number keeps: a millionth of a pixel."""


class Layout(Value):
    """One size, laid out. Boxes say their unit; outlines are SVG path data in output pixels."""

    size_id: str
    width: int = Field(description="Output pixels.")
    height: int = Field(description="Output pixels.")
    photo_width: int = Field(description="Photo pixels, upright.")
    photo_height: int = Field(description="Photo pixels, upright.")
    photo_box: Box = Field(description="Where the photo is framed, in output pixels.")
    window: Box = Field(description="The window as typed, in photo pixels.")
    sampled: Box = Field(description="What is sampled of it, in photo pixels.")
    follows_focus: bool
    held_ratio: float | None = Field(description="Width over height; null when free.")
    lost: float = Field(description="Photo pixels of the typed window that are not sampled.")
    enlargement: float = Field(description="Output pixels for each photo pixel.")
    border: tuple[int, int, int, int] = Field(
        description="The border's thickness: top, right, bottom, left, in output pixels."
    )
    margin: float = Field(description="The margin's thickness in output pixels.")
    margin_box: Box = Field(
        description="The largest upright rectangle of the size's ratio inside the margin."
    )
    outline: str = Field(description="The shape.")
    inner_outline: str = Field(description="The border's inner edge.")
    margin_outline: str = Field(description="The safe band's inner edge.")


def layout(finish: Finish, size: Size, sources: Sources) -> Layout:
    """The layout of ``size``.

    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    facts = sources.facts(finish.photo.sha256)
    frame = frame_of(finish, size, facts.width, facts.height)
    output = frame.output
    outer = outline_of(size.shape, output.width, output.height)
    inner = inner_outline(outer, output.band)
    margin = size.margin * output.short_side
    inside_border = outer if finish.border_of(size).outside else inner
    margin_outline = inside_border.inset(margin, margin, margin, margin)
    return Layout(
        size_id=size.id,
        width=output.width,
        height=output.height,
        photo_width=facts.width,
        photo_height=facts.height,
        photo_box=output.photo_box,
        window=_rounded(frame.window),
        sampled=_rounded(frame.sampled),
        follows_focus=frame.follows_focus,
        held_ratio=frame.held_ratio,
        lost=max(0.0, round(frame.lost, _PLENTY)),
        enlargement=round(frame.enlargement, _PLENTY),
        border=(output.band.top, output.band.right, output.band.bottom, output.band.left),
        margin=round(margin, _PLENTY),
        margin_box=_rounded(_margin_box(margin_outline, output.width / output.height)),
        outline=outer.svg(),
        inner_outline=inner.svg(),
        margin_outline=margin_outline.svg(),
    )


def _margin_box(outline: RoundedBox, ratio: float) -> Box:
    """The largest box of ``ratio`` on the outline's centre that no corner cuts.

    A centred box with half sides ``(a, b)`` touches a corner's ellipse where
    ``((a - (A - rx)) / rx)^2 + ((b - (B - ry)) / ry)^2 = 1``, ``A`` and ``B`` being the
    outline's half sides; with ``b = a / ratio`` the largest ``a`` is found by bisection.
    """
    box = outline.box
    half_width, half_height = box.width / 2, box.height / 2

    def fits(a: float) -> bool:
        b = a / ratio
        for rx, ry in outline.radii:
            x, y = a - (half_width - rx), b - (half_height - ry)
            if rx > 0 and ry > 0 and x > 0 and y > 0 and (x / rx) ** 2 + (y / ry) ** 2 > 1:
                return False
        return True

    low, high = 0.0, min(half_width, half_height * ratio)
    if not fits(high):
        for _ in range(50):
            middle = (low + high) / 2
            low, high = (middle, high) if fits(middle) else (low, middle)
        high = low
    x, y = box.center
    return Box(left=x - high, top=y - high / ratio, width=2 * high, height=2 * high / ratio)


def _rounded(box: Box) -> Box:
    return Box(
        left=round(box.left, _PLENTY),
        top=round(box.top, _PLENTY),
        width=round(box.width, _PLENTY),
        height=round(box.height, _PLENTY),
    )
