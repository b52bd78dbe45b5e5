"""The renderer: a finish, a size and a photo in, a picture out. Pure.

The way of a picture: frame -> place (proxy or original, linear light) -> compose -> picture.
"""

from collections.abc import Collection, Mapping
from dataclasses import replace
from typing import Literal

import cv2
import numpy as np

from lucky_margin.core.affine import UNCHANGED, Affine
from lucky_margin.core.document import (
    Border,
    BorderLine,
    Finish,
    Size,
    SolidColour,
    Tone,
    Transparent,
    WatermarkChanges,
)
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing import Band, Frame, TurnedPhoto, frame_of
from lucky_margin.core.outlines import (
    Outline,
    PolygonOutline,
    RoundedBox,
    line_coverage,
    outline_of,
)
from lucky_margin.core.pieces import Margins, Part, Sprite, margins_of, shaded_watermark
from lucky_margin.core.render.compose import Sheet, compose
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.grounds import fill_of
from lucky_margin.core.render.laying import area_under, placed, toned_photo
from lucky_margin.core.render.marking import with_clipping, with_veil
from lucky_margin.core.render.pieces import sprite_on, sprites_of
from lucky_margin.core.render.sources import Sources
from lucky_margin.core.sampling import sample
from lucky_margin.core.tone import needs_detail
from lucky_margin.core.types import Mask, Picture8, Region

View = Literal["final", "photo", "before", "clipping", "mask", "piece"]
"""``final`` is what is exported, ``before`` the same framing without any other step,
``clipping`` the final picture with clipped pixels of the photo hatched, ``mask`` the same
with all but an area veiled, ``piece`` pieces that are held alone, on nothing, and ``photo`` the
whole turned photo, whose pixels are then turned pixels."""

SMALLEST_DRAWN = 0.5
"""Smaller pictures are drawn at this scale and then shrunk, so that they look like the export."""

JUDGED_SIDE = 240
"""Longest side of the picture by which a watermark is light or dark."""

NO_PARTS: Mapping[str, Part] = {}

QUICK_PIXELS = 3_000_000
"""Output pixels up to which a picture with detail is drawn whole for its previews."""

WHITE = "#FFFFFF"


def render(
    finish: Finish,
    size: Size,
    sources: Sources,
    *,
    scale: float = 1.0,
    region: Region | None = None,
    view: View = "final",
    rough: bool = False,
    area: int = 0,
    parts: Mapping[str, Part] = NO_PARTS,
    held: Collection[str] = (),
) -> Picture8:
    """The picture of ``size`` at ``scale`` (over 0, at most 1), or the ``region`` of it.

    A scaled picture has ``scaled_sides`` pixels, and ``region`` is in those. What the export's
    format cannot keep is flattened in the final view, as it will be in the file. A ``rough`` one
    is drawn at its own scale however small that is: quick, and good for comparing. The mask
    view shows the tone's area of that number; ``parts`` names pieces of which not all is drawn,
    ``held`` those that are being dragged: the piece view draws them alone, any other without.

    Raises:
        BadInput: scale or region out of range, or there is no such area.
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    if not 0 < scale <= 1:
        raise BadInput(f"The scale has to be over 0 and at most 1, not {scale:g}.")
    facts = sources.facts(finish.photo.sha256)
    frame = frame_of(finish, size, facts.width, facts.height)
    if view == "photo":
        return _whole_photo(finish, frame.photo, sources, scale, region)
    grid = Grid.of(frame.output.width, frame.output.height, scale, region)
    smallest = _smallest_drawn(finish, size, frame)
    if scale < smallest and not rough:
        drawn = render(
            finish, size, sources, scale=smallest, view=view, area=area, parts=parts, held=held
        )
        return _shrunk(drawn, grid)
    margins = margins_of(size, finish.border_of(size), frame.output)
    if view == "piece":
        sprites = sprites_of(finish, size, frame, margins, grid, sources, parts, held, alone=True)
        _, _, columns, rows = grid.region
        bare = np.zeros((rows, columns, 4), np.uint8)
        return compose(Sheet(photo=bare, **vars(sprites), origin=grid.region[:2]))
    sheet = _sheet(finish, size, sources, frame, grid, view)
    if view == "clipping":
        sheet = replace(sheet, photo=with_clipping(sheet.photo, grid.region))
    elif view == "mask":
        sheet = _with_area(sheet, finish, size, area, sources, frame, grid)
    if view != "before":
        sprites = sprites_of(finish, size, frame, margins, grid, sources, parts, held)
        mark = _watermark(finish, size, frame, margins, grid, sources)
        sheet = replace(sheet, **vars(sprites), watermark=mark, origin=grid.region[:2])
    return compose(sheet)


def _watermark(
    finish: Finish, size: Size, frame: Frame, margins: Margins, grid: Grid, sources: Sources
) -> tuple[Sprite, ...]:
    """The watermark's sprites; its shade goes by a small picture of the size without it."""
    mark = finish.watermark_of(size)
    if not mark.is_set:
        return ()
    own = size.own.model_copy(update={"watermark": WatermarkChanges(on=False)})
    without = size.model_copy(update={"own": own})
    scale = min(1.0, JUDGED_SIDE / max(frame.output.width, frame.output.height))
    behind = render(finish, without, sources, scale=scale, rough=True)
    laid = shaded_watermark(mark, margins, frame, behind, sources.font)
    return tuple(sprite_on(one, grid, sources) for one in laid)


def _smallest_drawn(finish: Finish, size: Size, frame: Frame) -> float:
    """Detail depends on the very pixels, so a picture with it is drawn whole when that is quick;
    of a large one a preview is shrunk so much that the difference is gone."""
    pixels = frame.output.width * frame.output.height
    return 1.0 if needs_detail(finish.tone_of(size)) and pixels <= QUICK_PIXELS else SMALLEST_DRAWN


def _with_area(
    sheet: Sheet,
    finish: Finish,
    size: Size,
    number: int,
    sources: Sources,
    frame: Frame,
    grid: Grid,
) -> Sheet:
    """The sheet with a veil over all but an area of its tone."""
    tone = finish.tone_of(size)
    if not 0 <= number < len(tone.areas):
        raise BadInput(f"There is no area {number + 1}; this tone has {len(tone.areas)}.")
    mask = area_under(
        finish.photo.sha256,
        tone,
        tone.areas[number],
        frame.from_output.after(grid.to_full),
        grid.scale_x,
        grid.region,
        sources,
    )
    return replace(sheet, photo=with_veil(sheet.photo, mask))


def flatten_colour(finish: Finish) -> str:
    """What a format without transparency shows where the picture is transparent."""
    return finish.outside.colour if isinstance(finish.outside, SolidColour) else WHITE


def _whole_photo(
    finish: Finish, photo: TurnedPhoto, sources: Sources, scale: float, region: Region | None
) -> Picture8:
    """All of the turned photo; transparent in the corners beside it."""
    grid = Grid.of(*photo.whole_sides, scale, region)
    mapping = photo.to_photo.after(grid.to_full)
    askew = photo.turn.straighten != 0
    return compose(
        Sheet(
            photo=placed(finish.photo.sha256, mapping, grid.region, sources),
            photo_mask=_covered(_surface(photo), grid, sources) if askew else None,
        )
    )


def _sheet(
    finish: Finish, size: Size, sources: Sources, frame: Frame, grid: Grid, view: View
) -> Sheet:
    """All that is composed on ``grid``."""
    output = frame.output
    band = output.band
    before = view == "before"
    border = Border() if before else finish.border_of(size)
    outer = outline_of(size.shape, output.width, output.height)
    inner = outer.inset(band.top, band.right, band.bottom, band.left)
    fills_all = isinstance(outer, RoundedBox) and outer.fills(output.width, output.height)
    clear = inner.scaled(grid.scale_x, grid.scale_y).clear
    left, top, _, _ = grid.region
    backdrop = Transparent() if before else finish.backdrop
    tone = Tone() if before else finish.tone_of(size)
    return Sheet(
        photo=photo_under(finish.photo.sha256, tone, frame, grid, sources),
        photo_mask=_photo_mask(frame, grid, sources),
        shape=None if fills_all else _covered(outer, grid, sources),
        inside_border=_covered(inner, grid, sources) if border.is_set else None,
        line=_line(outer, output.band, border.line, grid, sources) if border.is_set else None,
        untouched=clear.moved(-left, -top) if clear else None,
        border=border,
        backdrop=fill_of(backdrop, finish, frame, grid, sources),
        outside=fill_of(finish.outside, finish, frame, grid, sources),
        # A format without transparency is flattened here, so that the screen shows it too.
        paper=flatten_colour(finish) if finish.export_of(size).format == "jpeg" else None,
    )


def photo_under(sha256: str, tone: Tone, frame: Frame, grid: Grid, sources: Sources) -> Picture8:
    """The photo laid under ``grid`` as ``frame`` says, with ``tone``."""
    mapping = frame.from_output.after(grid.to_full)
    if not tone.is_set:
        return placed(sha256, mapping, grid.region, sources)
    return toned_photo(sha256, tone, mapping, grid.scale_x, grid.region, sources)


def _photo_mask(frame: Frame, grid: Grid, sources: Sources) -> Mask | None:
    """Where the photo is: on its surface, and inside the box that shows it."""
    if frame.covers:
        return None
    surface = _covered(_surface(frame.photo, frame.to_output), grid, sources)
    shown = _covered(RoundedBox(frame.shown), grid, sources)
    return cv2.multiply(surface, shown, scale=1 / 255).astype(np.uint8, copy=False)


def _surface(photo: TurnedPhoto, mapping: Affine = UNCHANGED) -> Outline:
    """The turned photo's edges after ``mapping`` (from turned pixels)."""
    return PolygonOutline.of(np.array([mapping(x, y) for x, y in photo.corners]))


def _covered(outline: Outline, grid: Grid, sources: Sources) -> Mask:
    """What ``outline`` (output pixels) covers of the grid's region."""
    scaled = outline.scaled(grid.scale_x, grid.scale_y)
    whole_mask = sources.cache.get_or_make(
        ("coverage", scaled, grid.columns, grid.rows),
        lambda: scaled.coverage(grid.columns, grid.rows),
    )
    return grid.cut(whole_mask)


def _line(
    outer: Outline, band: Band, line: BorderLine, grid: Grid, sources: Sources
) -> Mask | None:
    """Where the border's line lies in its band; None everywhere."""
    if line == "solid":
        return None
    thickness = (
        band.top * grid.scale_y,
        band.right * grid.scale_x,
        band.bottom * grid.scale_y,
        band.left * grid.scale_x,
    )
    scaled = outer.scaled(grid.scale_x, grid.scale_y)
    mask = sources.cache.get_or_make(
        ("line", scaled, thickness, line, grid.columns, grid.rows),
        lambda: line_coverage(scaled, thickness, line, grid.columns, grid.rows),
    )
    return grid.cut(mask)


def _shrunk(drawn: Picture8, grid: Grid) -> Picture8:
    rows, columns = drawn.shape[:2]
    return sample(
        drawn,
        left=0,
        top=0,
        step_x=columns / grid.columns,
        step_y=rows / grid.rows,
        region=grid.region,
    )
