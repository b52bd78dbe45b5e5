"""Edits of spots: dust, wires and stickers that are filled from what lies around them."""

from typing import Any, Literal

from pydantic import Field

from lucky_margin.core.document import Spot
from lucky_margin.core.document.spots import MOST_SPOT_POINTS, MOST_SPOTS
from lucky_margin.core.edits.drawn_lines import DrawnPoints, line_on_photo, radius_on_photo
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.edits.registry import EditBase, carries_out
from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene

RADII = (0.0003, 0.1)
"""The least and the largest of a spot, in long sides."""


class DrawSpot(EditBase):
    """Fill what lies along a stroke, or at a click; points in pixels of the turned photo,
    ``radius`` in photo pixels."""

    kind: Literal["draw_spot"] = "draw_spot"
    radius: float = Field(gt=0)
    points: DrawnPoints


@carries_out(DrawSpot)
def draw_spot(scene: Scene, edit: DrawSpot) -> Edited:
    """One more spot, after the others; the step is switched on for all sizes.

    Raises:
        BadInput: it lies beside the photo, or there are too many.
    """
    spots = scene.finish.spots
    if len(spots.filled) == MOST_SPOTS:
        raise BadInput(f"{MOST_SPOTS} spots can be filled at most; remove some first.")
    spot = Spot(
        radius=radius_on_photo(scene, edit.radius, *RADII),
        points=line_on_photo(scene, edit.points, edit.radius, MOST_SPOT_POINTS),
    )
    return _with(scene, on=True, filled=(*spots.filled, spot))


class RemoveSpot(EditBase):
    """Remove one spot by its number, counted from 0, so that the photo shows there again; null
    removes all."""

    kind: Literal["remove_spot"] = "remove_spot"
    number: int | None


@carries_out(RemoveSpot)
def remove_spot(scene: Scene, edit: RemoveSpot) -> Edited:
    """The spots without that one.

    Raises:
        BadInput: there is no such spot.
    """
    filled = scene.finish.spots.filled
    if edit.number is None:
        return _with(scene, filled=())
    if not 0 <= edit.number < len(filled):
        raise BadInput(f"There is no spot {edit.number + 1}; there are {len(filled)}.")
    return _with(scene, filled=filled[: edit.number] + filled[edit.number + 1 :])


def _with(scene: Scene, **fields: Any) -> Edited:
    spots = scene.finish.spots.model_copy(update=fields)
    finish = scene.finish.model_copy(update={"spots": spots})
    size = scene.size.with_overrides(spots={}) if "on" in fields else scene.size
    return Edited.of(scene, finish.with_size(size))
