"""Edits that move, scale, turn, align and anchor pieces."""

import math
from collections.abc import Callable
from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from lucky_margin.core.document import (
    BadgePiece,
    Box,
    Colour,
    Identifier,
    MarginAnchor,
    PhotoAnchor,
    TextPiece,
    WatermarkChanges,
    rgb_of,
)
from lucky_margin.core.edits.edited import Edited, Guide
from lucky_margin.core.edits.on_photo import spot_at
from lucky_margin.core.edits.placing import (
    changed_piece,
    laid_one,
    put,
    within,
)
from lucky_margin.core.edits.registry import EditBase, PieceIds, carries_out
from lucky_margin.core.edits.snapping import ends_and_middle, lines_at, snapped, snapped_box
from lucky_margin.core.edits.steps import step_changed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.pieces import LaidPiece
from lucky_margin.core.pieces.watermark import watermark_pieces
from lucky_margin.core.render.shown import subject_on_size
from lucky_margin.core.scene import Scene

LIGHT, DARK = "#FFFFFF", "#000000"

_SMALLEST, _LARGEST = 0.005, 4.0

_LEAST_DISTANCE = 1.0
"""Output pixels: nearer to the margin no distance is shown."""


class DragPieces(EditBase):
    """Move pieces, in output pixels."""

    kind: Literal["drag_pieces"] = "drag_pieces"
    ids: PieceIds
    dx: float
    dy: float
    snap: float = Field(default=0, ge=0, description="How near a line draws, in output pixels.")
    only_this_size: bool = False


@carries_out(DragPieces)
def drag_pieces(scene: Scene, edit: DragPieces) -> Edited:
    """The pieces moved by so many output pixels, drawn together to lines near them: of the margin,
    the size, the subject and other pieces."""
    laid = {one.piece.id: one for one in scene.pieces}
    moved = [laid[key] for key in edit.ids if key in laid and not laid[key].piece.locked]
    if not moved:
        return Edited.of(scene, scene.finish)
    dx, dy = edit.dx, edit.dy
    output, room = scene.frame.output, scene.margins.box
    whole = Box(left=0, top=0, width=output.width, height=output.height)
    others = [one.bounds for key, one in laid.items() if key not in edit.ids]
    union = _union([one.bounds for one in moved]).moved(dx, dy)
    subject = subject_on_size(scene) if edit.snap else None
    boxes = [room, whole, *others, *([subject] if subject else [])]
    across, down, lines = snapped_box(
        union,
        [at for one in boxes for at in ends_and_middle(one.left, one.width)],
        [at for one in boxes for at in ends_and_middle(one.top, one.height)],
        edit.snap,
        output,
    )
    dx, dy, union = dx + across, dy + down, union.moved(across, down)
    put_down = put(scene, {one: (one.x + dx, one.y + dy) for one in moved}, edit.only_this_size)
    return replace(put_down, guides=(*lines, *_distances(union, room)))


class DragWatermark(EditBase):
    """Move a watermark that is on one spot, in output pixels."""

    kind: Literal["drag_watermark"] = "drag_watermark"
    dx: float
    dy: float
    snap: float = Field(default=0, ge=0, description="How near a line draws, in output pixels.")
    only_this_size: bool = False


@carries_out(DragWatermark)
def drag_watermark(scene: Scene, edit: DragWatermark) -> Edited:
    """The watermark's spot moved, inside the margin box, drawn to its sides and middles.

    Raises:
        BadInput: it is not on one spot.
    """
    mark = scene.finish.watermark_of(scene.size)
    margins = scene.margins
    if mark.place != "spot" or not mark.is_set:
        raise BadInput("Only a watermark on one spot can be moved.")
    box = watermark_pieces(mark, margins, scene.frame, scene.sources.font)[0].bounds
    room, output = margins.box, scene.frame.output
    x, at_x = _spot(box.left + edit.dx, box.width, room.left, room.width, edit.snap)
    y, at_y = _spot(box.top + edit.dy, box.height, room.top, room.height, edit.snap)
    changes = WatermarkChanges(spot=MarginAnchor(x=x, y=y))
    moved = step_changed(scene, "watermark", changes, edit.only_this_size)
    return replace(moved, guides=tuple(lines_at(at_x, at_y, output)))


def _spot(
    start: float, length: float, room_start: float, room: float, snap: float
) -> tuple[float, float | None]:
    """The anchor (0..1) of something ``length`` long that begins at ``start``, and the line that
    drew it."""
    ends = ends_and_middle(room_start, room)
    drawn, line = snapped(start, length, ends, snap) if snap else (0.0, None)
    free = room - length
    if abs(free) < 1:
        return 0.5, line
    return round(within((start + drawn - room_start) / free, 0, 1), 6), line


def _distances(box: Box, room: Box) -> list[Guide]:
    """From a box to the nearer sides of the margin box."""
    x, y = box.centre
    left, right = box.left - room.left, room.right - box.right
    top, bottom = box.top - room.top, room.bottom - box.bottom
    ends_x = (room.left, box.left) if left <= right else (box.right, room.right)
    ends_y = (room.top, box.top) if top <= bottom else (box.bottom, room.bottom)
    found = []
    if min(left, right) >= _LEAST_DISTANCE:
        label = f"{min(left, right):.0f} px"
        found.append(Guide(x1=ends_x[0], y1=y, x2=ends_x[1], y2=y, label=label))
    if min(top, bottom) >= _LEAST_DISTANCE:
        label = f"{min(top, bottom):.0f} px"
        found.append(Guide(x1=x, y1=ends_y[0], x2=x, y2=ends_y[1], label=label))
    return found


class AlignPieces(EditBase):
    """Align pieces: one to the margin box, several to each other; ``both`` centres them both
    ways."""

    kind: Literal["align_pieces"] = "align_pieces"
    ids: PieceIds
    to: Literal["left", "centre", "right", "top", "middle", "bottom", "both"]
    only_this_size: bool = False


@carries_out(AlignPieces)
def align_pieces(scene: Scene, edit: AlignPieces) -> Edited:
    """One piece to the margin box, several to the box around them."""
    chosen = [one for one in scene.pieces if one.piece.id in edit.ids]
    if not chosen:
        return Edited.of(scene, scene.finish)
    boxes = [one.bounds for one in chosen]
    room = scene.margins.box if len(chosen) == 1 else _union(boxes)
    places: dict[LaidPiece, tuple[float, float]] = {}
    for one, box in zip(chosen, boxes, strict=True):
        dx, dy = _ALIGNED[edit.to](box, room)
        places[one] = one.x + dx, one.y + dy
    return put(scene, places, edit.only_this_size)


class ScalePiece(EditBase):
    """Drag a piece's grip, in output pixels."""

    kind: Literal["scale_piece"] = "scale_piece"
    id: Identifier
    grip: Literal["n", "e", "s", "w", "ne", "se", "sw", "nw"]
    dx: float
    dy: float
    only_this_size: bool = False


@carries_out(ScalePiece)
def scale_piece(scene: Scene, edit: ScalePiece) -> Edited:
    """A corner dragged scales a piece about the opposite corner, keeping its proportions; a
    side grip changes the width of a text's lines, or one side of a badge."""
    laid = laid_one(scene, edit.id)
    angle = math.radians(laid.angle)
    along = edit.dx * math.cos(angle) + edit.dy * math.sin(angle)
    across = -edit.dx * math.sin(angle) + edit.dy * math.cos(angle)
    x = {"w": -1, "e": 1}.get(edit.grip[-1], 0)
    y = {"n": -1, "s": 1}.get(edit.grip[0], 0)
    piece = laid.piece
    if laid.spans_ends and isinstance(piece, BadgePiece):
        height = piece.height + 2 * across * y / laid.short_side
        fields: dict[str, Any] = {"height": within(height, _SMALLEST, _LARGEST)}
        return Edited.of(scene, changed_piece(scene, piece.id, fields, edit.only_this_size).finish)
    if x and y:
        diagonal = math.hypot(laid.width, laid.height)
        gained = (along * x * laid.width + across * y * laid.height) / diagonal**2
        fields = scaled_fields(laid, max(0.02, 1 + gained))
    elif isinstance(piece, TextPiece) and x and not piece.repeat:
        width = max(laid.width + along * x, laid.em / 2)
        fields = {"wrap": within(width / scene.margins.box.width, 0.02, 4), "fill": False}
    elif isinstance(piece, BadgePiece) and not piece.repeat:
        side, gain = ("width", along * x) if x else ("height", across * y)
        length = getattr(piece, side) + gain / laid.short_side
        fields = {side: within(length, _SMALLEST, _LARGEST)}
    else:
        fields = scaled_fields(laid, max(0.02, 1 + (along * x + across * y) / laid.width))
    edited = changed_piece(scene, piece.id, fields, edit.only_this_size)
    # The side or corner opposite the grip stays where it is.
    now = laid_one(edited, edit.id)
    shift_x, shift_y = (now.width - laid.width) / 2 * x, (now.height - laid.height) / 2 * y
    centre_x = laid.x + shift_x * math.cos(angle) - shift_y * math.sin(angle)
    centre_y = laid.y + shift_x * math.sin(angle) + shift_y * math.cos(angle)
    return put(edited, {now: (centre_x, centre_y)}, edit.only_this_size)


class TurnPiece(EditBase):
    """Drag the knob above a piece, which lies ``distance`` output pixels from its edge."""

    kind: Literal["turn_piece"] = "turn_piece"
    id: Identifier
    distance: float = Field(ge=0)
    dx: float
    dy: float
    step: float = Field(default=0, ge=0, le=90, description="Degrees; 0 turns freely.")
    only_this_size: bool = False


@carries_out(TurnPiece)
def turn_piece(scene: Scene, edit: TurnPiece) -> Edited:
    """Turned so that what was right above the middle goes along with the pointer."""
    laid = laid_one(scene, edit.id)
    angle = math.radians(laid.angle)
    reach = laid.height / 2 + edit.distance
    x = reach * math.sin(angle) + edit.dx
    y = -reach * math.cos(angle) + edit.dy
    turned = math.degrees(math.atan2(x, -y))
    if edit.step:
        turned = edit.step * round(turned / edit.step)
    edited = changed_piece(scene, edit.id, {"angle": round(turned, 1)}, edit.only_this_size)
    now = laid_one(edited, edit.id)
    return put(edited, {now: (laid.x, laid.y)}, edit.only_this_size)


class AnchorPiece(EditBase):
    """Hang a piece on the margin box, or on the photo where it is."""

    kind: Literal["anchor_piece"] = "anchor_piece"
    id: Identifier
    to: Literal["margin", "photo"]


@carries_out(AnchorPiece)
def anchor_piece(scene: Scene, edit: AnchorPiece) -> Edited:
    """Hang a piece on the photo's point under its middle, or on the margin box; it stays where it
    is on the size in hand."""
    laid = laid_one(scene, edit.id)
    if edit.to == "margin":
        edited = changed_piece(scene, edit.id, {"anchor": MarginAnchor().model_dump()}, False)
        return put(edited, {laid_one(edited, edit.id): (laid.x, laid.y)}, False)
    tail = laid.ends.tail if laid.ends else (laid.x, laid.y)
    anchor = PhotoAnchor(point=spot_at(scene, *tail)).model_dump()
    return Edited.of(
        scene, changed_piece(scene, edit.id, {"anchor": anchor, "dx": 0.0, "dy": 0.0}, False).finish
    )


class PlacePiece(EditBase):
    """Put a piece's middle on a place of the size, in output pixels, perhaps in a colour that
    can be read there."""

    kind: Literal["place_piece"] = "place_piece"
    id: Identifier
    x: float
    y: float
    colour: Colour | None = None
    only_this_size: bool = False


@carries_out(PlacePiece)
def place_piece(scene: Scene, edit: PlacePiece) -> Edited:
    """The piece with its middle there, and its letters in a colour if one is named.

    Raises:
        NotFound: it is not on this size.
    """
    laid = laid_one(scene, edit.id)
    if edit.colour and isinstance(laid.piece, TextPiece):
        fields: dict[str, Any] = {"colour": edit.colour}
        if laid.piece.shadow:
            # A shadow sets letters off only when it is unlike them.
            light = sum(rgb_of(edit.colour)) > 3 * 128
            shadow = laid.piece.shadow.model_copy(update={"colour": DARK if light else LIGHT})
            fields["shadow"] = shadow.model_dump()
        scene = changed_piece(scene, edit.id, fields, edit.only_this_size)
    return put(scene, {laid: (edit.x, edit.y)}, edit.only_this_size)


def scaled_fields(laid: LaidPiece, factor: float) -> dict[str, Any]:
    """What a piece's fields are when it is ``factor`` times as large."""
    piece = laid.piece
    fields = _scaled_one(laid, factor)
    if piece.repeat:
        spread = within(piece.repeat.spread * factor, 0.01, _LARGEST)
        fields["repeat"] = piece.repeat.model_copy(update={"spread": spread}).model_dump()
    return fields


def _scaled_one(laid: LaidPiece, factor: float) -> dict[str, Any]:
    piece = laid.piece
    if isinstance(piece, TextPiece):
        size = within(laid.em / laid.short_side * factor, 0.002, _LARGEST)
        wrap = None if piece.wrap is None else within(piece.wrap * factor, 0.02, 4)
        return {"size": size, "wrap": wrap, "fill": False}
    sides = {"width": piece.width}
    if isinstance(piece, BadgePiece):
        sides["height"] = piece.height
    return {side: within(length * factor, _SMALLEST, _LARGEST) for side, length in sides.items()}


def _union(boxes: list[Box]) -> Box:
    left, top = min(box.left for box in boxes), min(box.top for box in boxes)
    right, bottom = max(box.right for box in boxes), max(box.bottom for box in boxes)
    return Box(left=left, top=top, width=right - left, height=bottom - top)


_ALIGNED: dict[str, Callable[[Box, Box], tuple[float, float]]] = {
    "left": lambda box, room: (room.left - box.left, 0.0),
    "centre": lambda box, room: (room.centre[0] - box.centre[0], 0.0),
    "right": lambda box, room: (room.right - box.right, 0.0),
    "top": lambda box, room: (0.0, room.top - box.top),
    "middle": lambda box, room: (0.0, room.centre[1] - box.centre[1]),
    "bottom": lambda box, room: (0.0, room.bottom - box.bottom),
    "both": lambda box, room: (
        room.centre[0] - box.centre[0],
        room.centre[1] - box.centre[1],
    ),
}
