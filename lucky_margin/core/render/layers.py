"""What a size is composed of, back to front."""

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, field

import cv2
import numpy as np

from lucky_margin.core.affine import UNCHANGED, Affine
from lucky_margin.core.document import Area, Piece, PieceBase, SolidColour, Tone, Transparent
from lucky_margin.core.edits.registry import MaskPlace
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing import TurnedPhoto
from lucky_margin.core.outlines import Outline, PolygonOutline, RoundedBox
from lucky_margin.core.pieces import LaidPiece, Part, Sprite, shaded_watermark
from lucky_margin.core.render.bands import (
    beside_photo,
    border_layers,
    covered,
    is_seen_through,
)
from lucky_margin.core.render.compose import AnyLayer, Group, Layer, SpriteLayer
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.grounds import fill_of
from lucky_margin.core.render.laying import area_under, placed, under
from lucky_margin.core.render.lifts import lift_layers, on_base
from lucky_margin.core.render.marking import with_clipping, with_veil
from lucky_margin.core.render.pieces import light_taken_over, sprite_on
from lucky_margin.core.render.shown import shown_photo
from lucky_margin.core.render.subject_lines import changed_by_stroke, lines_round_subject
from lucky_margin.core.render.subject_shadow import shadows_of_subject
from lucky_margin.core.render.treated import base_treatments, treated_under
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Mask, Picture8

WHITE, BLACK = "#FFFFFF", "#000000"

DIMMED = 0.7
"""How much of the light is taken from what is not subject."""

SUBJECT_VIEWS = ("subject", "dimmed", "coverage", "changed")
"""Views of the cut-out while it is worked on."""

DRAWING_ORDER = (
    "flattening", "outside", "backdrop", "lifts behind", "pieces behind", "shadow", "outlines",
    "photo", "lifts", "inside outlines", "pieces", "border", "standing out",
    "pieces over the border", "unclipped pieces", "watermark",
)  # fmt: skip
"""Of everything that is drawn, back to front."""

FRAMED = (
    "backdrop", "lifts behind", "pieces behind", "shadow", "outlines", "photo", "lifts",
    "inside outlines", "pieces",
)  # fmt: skip
"""What bands around the photo frame: it ends where they begin."""

UNCLIPPED = ("flattening", "outside", "standing out", "unclipped pieces")
"""What the shape does not cut."""


@dataclass(frozen=True, eq=False)
class Drawing:
    """How a scene is looked at.

    ``parts`` names pieces of which not all is drawn; ``held`` those that are being dragged, which
    the view ``piece`` draws alone and any other leaves out; ``area`` is the number of the one, an
    area or a treatment by ``masks_of``, whose masks the view ``mask`` shows; ``behind`` gives a
    small picture without the watermark, by which that is light or dark, and ``bare`` one without
    pieces, whose light pictures take over.
    """

    grid: Grid
    behind: Callable[[], Picture8]
    bare: Callable[[], Picture8]
    view: str = "final"
    parts: Mapping[str, Part] = field(default_factory=dict)
    held: Collection[str] = ()
    area: int = 0
    masks_of: MaskPlace = "area"


def layers_of(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    """The layers of a size in the drawing order, grouped by what clips them."""
    return arranged(drawn_parts(scene, drawing), scene, drawing)


Drawn = Mapping[str, list[AnyLayer]]
"""What is drawn of the parts of the order, each before anything cuts it."""


def drawn_parts(scene: Scene, drawing: Drawing) -> Drawn:
    """All that is drawn of a scene."""
    return {name: _DRAWN[name](scene, drawing) for name in DRAWING_ORDER}


def arranged(drawn: Drawn, scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    """What is drawn, in its order. A border that can be seen through leaves room for itself, and
    the shape cuts all at once that lies between what it does not cut."""
    if "border" in drawn and _shows_backdrop(scene, drawing):
        framed = [layer for name in FRAMED for layer in drawn.get(name, ())]
        beside = beside_photo(scene, drawing.grid, framed, drawn.get("backdrop", []))
        drawn = {**drawn, **{name: [] for name in FRAMED}, "border": beside}
    shape = _shape_mask(scene, drawing.grid)
    layers: list[AnyLayer] = []
    clipped: list[AnyLayer] = []
    for name in DRAWING_ORDER:
        part = drawn.get(name, ())
        if name not in UNCLIPPED:
            clipped += part
        elif part:
            layers += [*_clipped(clipped, shape), *part]
            clipped = []
    return [*layers, *_clipped(clipped, shape)]


def _shows_backdrop(scene: Scene, drawing: Drawing) -> bool:
    border = scene.border
    around = border.bands[: border.around]
    return drawing.view != "before" and any(is_seen_through(band) for band in around)


def held_pieces(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    """Only the pieces that are being dragged."""
    return [_piece(one, scene, drawing) for one in scene.pieces if one.piece.id in drawing.held]


def subject_layers(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    """The subject as a view shows it while the cut-out is worked on, without what else is on the
    size."""
    if scene.finish.photo is None:
        return []
    grid, mask = drawing.grid, _photo_mask(scene, drawing.grid)
    if drawing.view == "changed":
        return [Layer(changed_by_stroke(scene, grid), mask)]
    subject = photo_under(scene, scene.tone, grid)
    if drawing.view == "subject":
        return [Layer(subject, mask)]
    if drawing.view == "coverage":
        white = subject[:, :, 3] if subject.shape[2] == 4 else None
        return [Layer(BLACK), Group((Layer(WHITE, white),), mask)]
    around = photo_under(scene, scene.tone, grid, whole=True)
    return [Layer(BLACK), Layer(around, mask), Layer(BLACK, None, DIMMED), Layer(subject, mask)]


def whole_photo(scene: Scene, grid: Grid) -> list[AnyLayer]:
    """All of the turned photo; transparent in the corners beside it."""
    if scene.finish.photo is None:
        return []
    photo = scene.frame.photo
    mapping = photo.to_photo.after(grid.to_full)
    is_askew = photo.turn.straighten != 0
    mask = covered(_surface(photo), grid, scene) if is_askew else None
    return [Layer(placed(shown_photo(scene).whole, mapping, grid.region), mask)]


def photo_under(scene: Scene, tone: Tone, grid: Grid, *, whole: bool = False) -> Picture8:
    """The photo laid under ``grid`` as the scene frames it, with ``tone``: its subject alone where
    that is cut out, unless the ``whole`` one is asked for."""
    photo = shown_photo(scene)
    return under(photo.whole if whole else photo, scene, tone, grid)


def flatten_colour(scene: Scene) -> str:
    """What a format without transparency shows where the picture is transparent."""
    outside = scene.outside
    return outside.colour if isinstance(outside, SolidColour) else WHITE


def _clipped(layers: list[AnyLayer], shape: Mask | None) -> list[AnyLayer]:
    return [Group(tuple(layers), shape)] if layers else []


def _flattening(scene: Scene, _: Drawing) -> list[AnyLayer]:
    """A format without transparency is flattened here, so that the screen shows it too."""
    if not scene.finish.export_of(scene.size).is_opaque:
        return []
    return [Layer(flatten_colour(scene))]


def _outside(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    fill = fill_of(scene.outside, scene, drawing.grid)
    return [] if fill is None else [Layer(fill)]


def _backdrop(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    backdrop = Transparent() if drawing.view == "before" else scene.backdrop
    fill = fill_of(backdrop, scene, drawing.grid)
    return [] if fill is None else [Layer(fill)]


def _photo(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    """The photo, which goes on past its box to the sheet's edges, cut to where it is."""
    if scene.finish.photo is None:
        return []
    grid, view = drawing.grid, drawing.view
    if view == "before":
        taken = under(shown_photo(scene).as_taken, scene, Tone(), grid)
        return [Layer(taken, _photo_mask(scene, grid))]
    if view == "clipping":
        picture = with_clipping(photo_under(scene, scene.tone, grid), grid.region)
    elif view == "mask":
        picture = with_veil(photo_under(scene, scene.tone, grid), _area_mask(scene, drawing))
    else:
        treated = treated_under(shown_photo(scene), scene, grid, base_treatments(scene))
        picture = on_base(treated, scene)
    return [Layer(picture, _photo_mask(scene, grid))]


def _lifts(scene: Scene, drawing: Drawing, *, behind: bool) -> list[AnyLayer]:
    """Lifts lie behind a subject that is cut out, and over the photo where nothing is."""
    if scene.cut_out.on != behind or drawing.view in ("before", "clipping", "mask"):
        return []
    return lift_layers(scene, drawing.grid)


def _outlines(scene: Scene, drawing: Drawing, *, inside: bool) -> list[AnyLayer]:
    if drawing.view == "before":
        return []
    return [
        Layer(line.colour, mask, line.opacity, blend=line.blend)
        for line, mask in lines_round_subject(scene, drawing.grid, inside=inside)
    ]


def _standing_out(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    """What of the subject and its outlines reaches past the upper half of the shape, over an inside
    border."""
    shape, grid = _shape_mask(scene, drawing.grid), drawing.grid
    stands_out = scene.cut_out.on and scene.cut_out.stands_out
    if shape is None or not stands_out or scene.border.around or drawing.view == "before":
        return []
    # A pixel further in, so that nothing of the border shows where the two meet.
    inner = cv2.erode(covered(scene.inner, grid, scene), np.ones((3, 3), np.uint8))
    beyond = np.asarray(255 - inner, np.uint8)
    _, top, _, bottom = scene.outer.region.bounds
    middle = round((top + bottom) / 2 * grid.scale_y) - grid.region[1]
    beyond[max(0, middle) :] = 0
    subject = [
        *_outlines(scene, drawing, inside=False),
        *_photo(scene, drawing),
        *_outlines(scene, drawing, inside=True),
    ]
    return [Group(tuple(subject), beyond)]


def _area_mask(scene: Scene, drawing: Drawing) -> Mask:
    """
    Raises:
        BadInput: there is no such area or treatment, or it has no masks.
    """
    number, grid = drawing.area, drawing.grid
    if drawing.masks_of == "treatment":
        made = scene.finish.treatments_of(scene.size).made
        areas = [Area(masks=one.masks) if one.masks else None for one in made]
    else:
        areas = list(scene.tone.areas)
    area = areas[number] if 0 <= number < len(areas) else None
    if area is None:
        raise BadInput(f"There is no {drawing.masks_of} {number + 1} with masks.")
    return area_under(
        shown_photo(scene),
        scene.tone,
        area,
        scene.mapping(grid.to_full),
        grid.scale_x,
        grid.region,
    )


def _shadow(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    if drawing.view == "before":
        return []
    laid = shadows_of_subject(scene, drawing.grid)
    return [Layer(one.colour, one.mask, one.opacity) for one in laid]


def _pieces(scene: Scene, drawing: Drawing, *, over: bool, clipped: bool) -> list[AnyLayer]:
    def is_here(piece: PieceBase, scene: Scene) -> bool:
        return (
            not behind_subject(piece, scene)
            and piece.clipped == clipped
            and (not clipped or piece.over_border == over)
        )

    return _sprites(scene, drawing, is_here)


def _sprites(
    scene: Scene, drawing: Drawing, is_here: Callable[[PieceBase, Scene], bool]
) -> list[AnyLayer]:
    if drawing.view == "before":
        return []
    return [
        _piece(one, scene, drawing)
        for one in scene.pieces
        if one.piece.id not in drawing.held and is_here(one.piece, scene)
    ]


def _piece(laid: LaidPiece, scene: Scene, drawing: Drawing) -> SpriteLayer:
    part = drawing.parts.get(laid.piece.id, "all")
    around = light_taken_over(laid, scene, drawing.bare)
    sprite = sprite_on(laid, drawing.grid, scene.sources, part, around)
    return _sprite(sprite, drawing.grid, laid.piece)


def behind_subject(piece: PieceBase, scene: Scene) -> bool:
    """Whether a piece lies behind the subject of a scene."""
    return piece.behind and scene.cut_out.on


def _border(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    """The bands over all that they frame."""
    is_seen = scene.border.is_set and drawing.view != "before"
    return border_layers(scene, drawing.grid) if is_seen else []


def _watermark(scene: Scene, drawing: Drawing) -> list[AnyLayer]:
    mark = scene.watermark
    if not mark.is_set or drawing.view == "before":
        return []
    laid = shaded_watermark(mark, scene.margins, scene.frame, drawing.behind, scene.sources.font)
    sprites = (sprite_on(one, drawing.grid, scene.sources) for one in laid)
    return [_sprite(sprite, drawing.grid) for sprite in sprites]


_DRAWN: dict[str, Callable[[Scene, Drawing], list[AnyLayer]]] = {
    "flattening": _flattening,
    "outside": _outside,
    "backdrop": _backdrop,
    "lifts behind": lambda scene, drawing: _lifts(scene, drawing, behind=True),
    "pieces behind": lambda scene, drawing: _sprites(scene, drawing, behind_subject),
    "shadow": _shadow,
    "outlines": lambda scene, drawing: _outlines(scene, drawing, inside=False),
    "photo": _photo,
    "lifts": lambda scene, drawing: _lifts(scene, drawing, behind=False),
    "inside outlines": lambda scene, drawing: _outlines(scene, drawing, inside=True),
    "pieces": lambda scene, drawing: _pieces(scene, drawing, over=False, clipped=True),
    "border": _border,
    "standing out": _standing_out,
    "pieces over the border": lambda scene, drawing: _pieces(
        scene, drawing, over=True, clipped=True
    ),
    "unclipped pieces": lambda scene, drawing: _pieces(scene, drawing, over=True, clipped=False),
    "watermark": _watermark,
}
"""What draws each part of the order."""


def _sprite(sprite: Sprite, grid: Grid, piece: Piece | None = None) -> SpriteLayer:
    left, top, _, _ = grid.region
    return SpriteLayer(sprite, sprite.left - left, sprite.top - top, piece)


def _shape_mask(scene: Scene, grid: Grid) -> Mask | None:
    """What lies inside the shape; None is everything."""
    outer = scene.outer
    if isinstance(outer, RoundedBox) and outer.fills(*scene.sides):
        return None
    return covered(outer, grid, scene)


def _photo_mask(scene: Scene, grid: Grid) -> Mask | None:
    """Where the photo is: on its surface, and inside the box that shows it; None everywhere."""
    frame = scene.frame
    if frame.covers:
        return None
    surface = covered(_surface(frame.photo, frame.to_output), grid, scene)
    shown = covered(RoundedBox(frame.shown), grid, scene)
    return cv2.multiply(surface, shown, scale=1 / 255).astype(np.uint8, copy=False)


def _surface(photo: TurnedPhoto, mapping: Affine = UNCHANGED) -> Outline:
    """The turned photo's edges after ``mapping`` (from turned pixels)."""
    return PolygonOutline.of(np.array([mapping(x, y) for x, y in photo.corners]))
