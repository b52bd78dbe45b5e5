"""Rendering: a size of a finish, or a part of it, to pixels at a scale."""

from collections.abc import Callable, Collection, Mapping
from dataclasses import replace
from typing import Literal

from lucky_margin.core.edits.registry import MaskPlace
from lucky_margin.core.errors import BadInput
from lucky_margin.core.pieces import Part
from lucky_margin.core.render.compose import AnyLayer, compose
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.layers import (
    SUBJECT_VIEWS,
    Drawing,
    held_pieces,
    layers_of,
    subject_layers,
    whole_photo,
)
from lucky_margin.core.sampling import sample
from lucky_margin.core.scene import Scene
from lucky_margin.core.tone import needs_detail
from lucky_margin.core.treatments import method_of
from lucky_margin.core.types import Picture8, Region

View = Literal[
    "final",
    "photo",
    "before",
    "clipping",
    "mask",
    "piece",
    "subject",
    "dimmed",
    "coverage",
    "changed",
]
"""``final`` is what is exported, ``before`` the same framing without any other step,
``clipping`` the final picture with clipped pixels of the photo hatched, ``mask`` the same
with all but an area veiled, ``piece`` pieces that are held alone, on nothing, and ``photo`` the
whole turned photo, whose pixels are then turned pixels. Of a cut-out ``subject`` shows the subject
alone, ``dimmed`` the subject before the rest of the photo, darkened, and ``coverage`` how far each
pixel is subject, from black to white; ``changed`` is what the newest stroke changed, on nothing."""

SMALLEST_DRAWN = 0.36
"""Smaller pictures are drawn larger and then shrunk, so that they look like the export."""

SHRUNK_BY = 2.0
"""How much at least: from here on shrinking is quick."""

JUDGED_SIDE = 240
"""Longest side of the picture by which a watermark and pictures are fitted to their ground."""

NO_PARTS: Mapping[str, Part] = {}

QUICK_PIXELS = 3_000_000
"""Output pixels up to which a picture with detail is drawn whole for its previews."""


def render(
    scene: Scene,
    *,
    scale: float = 1.0,
    region: Region | None = None,
    view: View = "final",
    rough: bool = False,
    area: int = 0,
    masks_of: MaskPlace = "area",
    parts: Mapping[str, Part] = NO_PARTS,
    held: Collection[str] = (),
) -> Picture8:
    """The picture of a size at ``scale`` (over 0, at most 1), or the ``region`` of it.

    A scaled picture has ``scaled_sides`` pixels, and ``region`` is in those. What the export's
    format cannot keep is flattened in the final view, as it will be in the file. A ``rough`` one
    is drawn at its own scale however small that is: quick, and good for comparing. The mask
    view shows the tone's area, or the treatment, of that number; ``parts`` names pieces of which
    not all is drawn, ``held`` those that are being dragged: the piece view draws them alone, any
    other without.

    Raises:
        BadInput: scale or region out of range, or there is nothing masked of this number.
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    if not 0 < scale <= 1:
        raise BadInput(f"The scale has to be over 0 and at most 1, not {scale:g}.")
    if view == "photo":
        grid = Grid.of(*scene.frame.photo.whole_sides, scale, region)
        return compose(whole_photo(scene, grid), grid.sides)
    grid = Grid.of(*scene.sides, scale, region)
    drawn_at = scale if rough or view in SUBJECT_VIEWS else _drawn_at(scene, scale)
    if drawn_at > scale:
        drawn = render(
            scene, scale=drawn_at, view=view, area=area, masks_of=masks_of, parts=parts, held=held
        )
        return _shrunk(drawn, grid)
    drawing = replace(
        drawing_of(scene, grid), view=view, parts=parts, held=held, area=area, masks_of=masks_of
    )
    return compose(_layers_in(view)(scene, drawing), grid.sides)


def drawing_of(scene: Scene, grid: Grid) -> Drawing:
    """The final view of a scene under ``grid``."""
    return Drawing(
        grid,
        behind=lambda: _judged(scene.without_watermark()),
        bare=lambda: _judged(scene.without_pieces()),
    )


def _layers_in(view: View) -> Callable[[Scene, Drawing], list[AnyLayer]]:
    """What a view is composed of."""
    if view == "piece":
        return held_pieces
    return subject_layers if view in SUBJECT_VIEWS else layers_of


def _judged(scene: Scene) -> Picture8:
    """The small picture by which a watermark is light or dark, and pictures take over light."""
    return render(scene, scale=scene.scale_for(JUDGED_SIDE), rough=True)


def _drawn_at(scene: Scene, scale: float) -> float:
    """The scale at which a picture is drawn that is wanted at ``scale``. Detail and hard lines
    depend on the very pixels, so a picture with them is drawn whole when that is quick; of a large
    one a preview is shrunk so much that the difference is gone."""
    width, height = scene.sides
    is_quick = width * height <= QUICK_PIXELS
    has_hard_lines = any(method_of(treatment).hard_lines for treatment in scene.treatments)
    if is_quick and (has_hard_lines or needs_detail(scene.tone)):
        return 1.0
    return scale if scale >= SMALLEST_DRAWN else max(0.5, SHRUNK_BY * scale)


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
