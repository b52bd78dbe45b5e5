"""Calm places on a size for one of its pieces."""

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import WatermarkChanges
from lucky_margin.core.errors import NotFound
from lucky_margin.core.framing import focus_on
from lucky_margin.core.pieces.calm import CalmPlace, calm_places
from lucky_margin.core.render.render import render
from lucky_margin.core.scene import Scene

WORKING_SIDE = 320
"""Longest side of the picture that is searched."""


def calm_places_of(scene: Scene, piece_id: str) -> list[CalmPlace]:
    """Middles for the piece in output pixels, the calmest first; none when it does not fit.

    The other pieces are avoided like the focus box, and like a subject that is cut out.

    Raises:
        NotFound: the piece is not on this size.
    """
    finish, frame = scene.finish, scene.frame
    laid = {one.piece.id: one for one in scene.pieces}
    if piece_id not in laid:
        raise NotFound("This piece is not on this size; switch it on first.")
    own = laid.pop(piece_id).bounds
    avoid = [one.bounds for one in laid.values()]
    is_cut_out = scene.cut_out.on
    if focus := focus_on(finish.focus if is_cut_out else scene.focus, frame):
        avoid.append(focus)
    bare = finish.model_copy(update={"pieces": ()})
    plain = scene.size.with_overrides(pieces={}, watermark=WatermarkChanges(on=False))
    scale = scene.scale_for(WORKING_SIDE)
    plain_scene = replace(scene, finish=bare, size=plain)
    picture = render(plain_scene, scale=scale, rough=True)
    step = picture.shape[1] / frame.output.width
    places = calm_places(
        picture,
        scene.margins.box.scaled(step),
        own.width * step,
        own.height * step,
        [box.scaled(step) for box in avoid],
        _subject(plain_scene, scale) if is_cut_out else None,
    )
    return [replace(place, x=place.x / step, y=place.y / step) for place in places]


def _subject(scene: Scene, scale: float) -> NDArray[np.float64]:
    """How much (0..1) the subject covers of each pixel."""
    return render(scene, scale=scale, view="coverage", rough=True)[:, :, 0] / 255
