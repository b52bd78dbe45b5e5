"""The renderer: a finish, a size and a photo in, a picture out. Pure.

The way of a picture: frame -> sample (proxy or original, linear light) -> compose -> picture.
"""

from dataclasses import dataclass
from typing import Literal

from lucky_margin.core.document import Border, Box, Finish, Size, SolidColour, Transparent
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing import Frame, frame_of, whole
from lucky_margin.core.render.compose import Sheet, compose
from lucky_margin.core.render.outline import RoundedBox, inner_outline, outline_of
from lucky_margin.core.render.sources import Sources
from lucky_margin.core.sampling import sample
from lucky_margin.core.types import Mask, Picture8, Region

View = Literal["final", "photo", "before"]
"""``final`` is what is exported, ``before`` the same framing without any other step, and
``photo`` the whole photo, whose pixels are then photo pixels."""

SMALLEST_DRAWN = 0.5
"""Smaller pictures are drawn at this scale and then shrunk, so that they look like the export."""

LEAST_DETAIL = 2
"""Pixels of a halved copy for each picture pixel, along one side. With only one, a fine weave
comes out up to 2/255 different on average from the same picture drawn large and shrunk."""

WHITE = "#FFFFFF"


def render(
    finish: Finish,
    size: Size,
    sources: Sources,
    *,
    scale: float = 1.0,
    region: Region | None = None,
    view: View = "final",
) -> Picture8:
    """The picture of ``size`` at ``scale`` (over 0, at most 1), or the ``region`` of it.

    A scaled picture has ``scaled_sides`` pixels, and ``region`` is in those. What the export's
    format cannot keep is flattened in the final view, as it will be in the file.

    Raises:
        BadInput: scale or region out of range.
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    if not 0 < scale <= 1:
        raise BadInput(f"The scale has to be over 0 and at most 1, not {scale:g}.")
    facts = sources.facts(finish.photo.sha256)
    if view == "photo":
        grid = _Grid.of(facts.width, facts.height, scale, region)
        photo = whole(facts.width, facts.height)
        return _sampled(finish, photo, photo.scaled(grid.scale_x, grid.scale_y), grid, sources)
    frame = frame_of(finish, size, facts.width, facts.height)
    grid = _Grid.of(frame.output.width, frame.output.height, scale, region)
    if scale < SMALLEST_DRAWN:
        drawn = render(finish, size, sources, scale=SMALLEST_DRAWN, view=view)
        return _shrunk(drawn, grid)
    return compose(_sheet(finish, size, sources, frame, grid, view))


def scaled_sides(width: int, height: int, scale: float) -> tuple[int, int]:
    """The whole pixels of a picture of these sides at ``scale``; at least 1 x 1."""
    return max(1, round(width * scale)), max(1, round(height * scale))


def flatten_colour(finish: Finish) -> str:
    """What a format without transparency shows where the picture is transparent."""
    return finish.outside.colour if isinstance(finish.outside, SolidColour) else WHITE


@dataclass(frozen=True)
class _Grid:
    """The pixels that are drawn: a region of ``columns`` x ``rows``, and their true scale,
    which rounding to whole pixels makes differ a little between the axes."""

    columns: int
    rows: int
    scale_x: float
    scale_y: float
    region: Region

    @classmethod
    def of(cls, width: int, height: int, scale: float, region: Region | None) -> "_Grid":
        columns, rows = scaled_sides(width, height, scale)
        left, top, wide, high = region or (0, 0, columns, rows)
        if left < 0 or top < 0 or wide < 1 or high < 1:
            raise BadInput("A region needs a corner from 0 on and at least one pixel.")
        if left + wide > columns or top + high > rows:
            raise BadInput(f"The region reaches past the picture's {columns} x {rows} pixels.")
        return cls(columns, rows, columns / width, rows / height, (left, top, wide, high))


def _sheet(
    finish: Finish, size: Size, sources: Sources, frame: Frame, grid: _Grid, view: View
) -> Sheet:
    """All that is composed on ``grid``."""
    output = frame.output
    outer = outline_of(size.shape, output.width, output.height)
    photo_box = output.photo_box.scaled(grid.scale_x, grid.scale_y)
    before = view == "before"
    outside = finish.outside
    if finish.export_of(size).format == "jpeg":
        # A format without transparency is flattened here, so that the screen shows it too.
        outside = SolidColour(colour=flatten_colour(finish))
    border = Border() if before else finish.border_of(size)
    inner = inner_outline(outer, output.band)
    left, top, _, _ = grid.region
    clear = inner.scaled(grid.scale_x, grid.scale_y).filled
    return Sheet(
        photo=_sampled(finish, frame.sampled, photo_box, grid, sources),
        shape=None if outer.is_plain else _covered(outer, grid, sources),
        inside_border=_covered(inner, grid, sources) if border.is_set else None,
        untouched=clear.moved(-left, -top),
        border=border,
        backdrop=Transparent() if before else finish.backdrop,
        outside=outside,
    )


def _sampled(finish: Finish, window: Box, box: Box, grid: _Grid, sources: Sources) -> Picture8:
    """The photo laid so that ``window`` (photo pixels) fills ``box`` (grid pixels)."""
    sha256 = finish.photo.sha256

    def make() -> Picture8:
        number = _level_for(window, box)
        shown = window.scaled(0.5**number)
        step_x, step_y = shown.width / box.width, shown.height / box.height
        return sample(
            sources.level(sha256, number),
            left=shown.left - box.left * step_x,
            top=shown.top - box.top * step_y,
            step_x=step_x,
            step_y=step_y,
            region=grid.region,
        )

    return sources.cache.get_or_make(("sample", sha256, window, box, grid.region), make)


def _covered(outline: RoundedBox, grid: _Grid, sources: Sources) -> Mask:
    """What ``outline`` (output pixels) covers of the grid's region."""
    scaled = outline.scaled(grid.scale_x, grid.scale_y)
    whole_mask = sources.cache.get_or_make(
        ("coverage", scaled, grid.columns, grid.rows),
        lambda: scaled.coverage(grid.columns, grid.rows),
    )
    left, top, width, height = grid.region
    return whole_mask[top : top + height, left : left + width]


def _level_for(window: Box, box: Box) -> int:
    """The most often halved copy that still has ``LEAST_DETAIL`` pixels for a picture pixel."""
    number = 0
    step = window.width / box.width
    while step >= 2 * LEAST_DETAIL and min(window.width, window.height) >= 2 ** (number + 1):
        step /= 2
        number += 1
    return number


def _shrunk(drawn: Picture8, grid: _Grid) -> Picture8:
    rows, columns = drawn.shape[:2]
    return sample(
        drawn,
        left=0,
        top=0,
        step_x=columns / grid.columns,
        step_y=rows / grid.rows,
        region=grid.region,
    )
