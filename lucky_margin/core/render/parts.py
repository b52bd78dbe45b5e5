"""The parts of a picture: each alone, and with all that lies below it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from lucky_margin.core.document import BlendMode
from lucky_margin.core.document.summaries import piece_in_words
from lucky_margin.core.render.compose import AnyLayer, SpriteLayer, compose, with_alpha
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.layers import DRAWING_ORDER, Drawn, arranged, drawn_parts
from lucky_margin.core.render.render import drawing_of
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Picture8

_NAMES: Mapping[str, str] = {
    "flattening": "Ground",
    "outside": "Outside",
    "backdrop": "Backdrop",
    "lifts behind": "Lifts",
    "shadow": "Shadow",
    "outlines": "Outline",
    "photo": "Photo",
    "lifts": "Lifts",
    "inside outlines": "Inside outline",
    "border": "Border",
    "standing out": "Subject over the border",
    "watermark": "Watermark",
}


@dataclass(frozen=True, eq=False)
class PicturePart:
    """A part by its name. ``alone`` and ``so_far`` (it and all below) have the picture's sides and
    4 channels; ``blend`` is how it lies on what is below."""

    name: str
    blend: BlendMode
    alone: Picture8
    so_far: Picture8


def parts_of(scene: Scene) -> Iterator[PicturePart]:
    """The parts of the final picture in their drawing order, each piece one of them; the last
    one's ``so_far`` is the picture.

    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    grid = Grid.of(*scene.sides, 1, None)
    drawing = drawing_of(scene, grid)
    drawn = drawn_parts(scene, drawing)

    def composed(some: Drawn) -> Picture8:
        return with_alpha(compose(arranged(some, scene, drawing), grid.sides))

    if compose(arranged({**drawn, "flattening": []}, scene, drawing), grid.sides).shape[2] == 3:
        drawn = {**drawn, "flattening": []}  # nothing of it can be seen
    below: dict[str, list[AnyLayer]] = {}
    for place in DRAWING_ORDER:
        for name, layers in _named(place, drawn[place], scene):
            below[place] = [*below.get(place, ()), *layers]
            yield PicturePart(name, _blend_of(layers), composed({place: layers}), composed(below))


def _named(
    place: str, layers: list[AnyLayer], scene: Scene
) -> Iterator[tuple[str, list[AnyLayer]]]:
    for layer in layers:
        if isinstance(layer, SpriteLayer) and layer.piece:
            yield piece_in_words(layer.piece), [layer]
    if layers and place in _NAMES:
        yield _name(place, scene), layers


def _name(place: str, scene: Scene) -> str:
    if place == "photo" and scene.cut_out.on:
        return "Subject"
    return _NAMES[place]


def _blend_of(layers: list[AnyLayer]) -> BlendMode:
    if len(layers) == 1 and isinstance(layers[0], SpriteLayer):
        return layers[0].sprite.blend
    return "normal"
