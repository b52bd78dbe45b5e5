"""Edits of treatments that are made on the picture; all others set their list."""

import math
from typing import Literal

from lucky_margin.core.document import SharpZone, TreatmentsChanges
from lucky_margin.core.edits.edited import Edited, changed
from lucky_margin.core.edits.on_photo import moved
from lucky_margin.core.edits.registry import EditBase, ToneGrip, carries_out
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.scene import Scene

WIDEST = 2.0
"""Of a sharp zone, in short sides."""


class DragZone(EditBase):
    """Drag what stays sharp by one of its grips, in output pixels: its middle, or its end, which
    sets how wide it is and how a band lies."""

    kind: Literal["drag_zone"] = "drag_zone"
    number: int
    grip: ToneGrip
    dx: float
    dy: float
    only_this_size: bool = False


@carries_out(DragZone)
def drag_zone(scene: Scene, edit: DragZone) -> Edited:
    """
    Raises:
        BadInput: there is no such treatment, or it is none that leaves a zone sharp.
    """
    made = list(scene.finish.as_set("treatments", scene.size).made)
    zone = made[edit.number] if 0 <= edit.number < len(made) else None
    if not isinstance(zone, SharpZone):
        raise BadInput(f"Treatment {edit.number + 1} leaves no zone sharp.")
    if edit.grip == "middle":
        made[edit.number] = changed(zone, centre=moved(scene, zone.centre, edit.dx, edit.dy))
    else:
        made[edit.number] = _widened(zone, edit, min(scene.sides))
    changes = TreatmentsChanges(on=True, made=tuple(made))
    return step_changed(scene, "treatments", changes, edit.only_this_size)


def _widened(zone: SharpZone, edit: DragZone, short: int) -> SharpZone:
    """The end lies across a band's way, and to the right of a round zone."""
    turn = math.radians(zone.angle)
    across = (1.0, 0.0) if zone.form == "round" else (-math.sin(turn), math.cos(turn))
    x = zone.sharp * across[0] + edit.dx / short
    y = zone.sharp * across[1] + edit.dy / short
    sharp = round(min(math.hypot(x, y), WIDEST), 4)
    if zone.form == "round" or sharp == 0:
        return changed(zone, sharp=sharp)
    return changed(zone, sharp=sharp, angle=round(math.degrees(math.atan2(-x, y)), 1))
