"""Edits: everything the interface, the command line or a check's action may ask of a finish.

Framing edits belong to one size. An edit of a step goes to the finish, so that every size
follows, unless ``only_this_size`` is on; a finish with one size has no use for own ways.
"""

from typing import Annotated, Literal

from pydantic import Field

from lucky_margin.core.document import (
    BadgeForm,
    BorderChanges,
    Box,
    Colour,
    ExportChanges,
    Focus,
    Ground,
    IconName,
    Identifier,
    KnockOut,
    Name,
    Piece,
    PieceChanges,
    Pixels,
    Ratio,
    Sha256,
    Shape,
    SizePlan,
    ToneChanges,
    TurnChanges,
    UsedMark,
    Value,
    WatermarkChanges,
)
from lucky_margin.core.framing import Grip, WindowField

PieceIds = Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=100)]
MaskKind = Literal["band", "ellipse", "light", "hue"]
ToneGrip = Literal["start", "middle", "end", "right", "below"]
"""What a wash or a mask is dragged by; an ellipse by its middle and two places of its rim."""


class ChooseRatio(Value):
    """Hold the window to a ratio; null frees it, "original" is the photo's own."""

    kind: Literal["choose_ratio"] = "choose_ratio"
    ratio: Ratio | Literal["original"] | None


class UseSize(Value):
    """Make the size in hand one of the library, or one of one's own."""

    kind: Literal["use_size"] = "use_size"
    plan: SizePlan


class AddSize(Value):
    """Add a size to the finish and take it in hand."""

    kind: Literal["add_size"] = "add_size"
    plan: SizePlan


class DuplicateSize(Value):
    """Add a copy of the size in hand after it, and take that in hand."""

    kind: Literal["duplicate_size"] = "duplicate_size"


class RemoveSize(Value):
    """Remove the size in hand, unless it is the last one."""

    kind: Literal["remove_size"] = "remove_size"


class RenameSize(Value):
    """Call the size in hand something else."""

    kind: Literal["rename_size"] = "rename_size"
    name: str


class PlaceSize(Value):
    """Move the size in hand to this place among the sizes, counted from 0."""

    kind: Literal["place_size"] = "place_size"
    place: int = Field(ge=0)


class SetSeenWidth(Value):
    """Say how wide people usually see the size, in pixels."""

    kind: Literal["set_seen_width"] = "set_seen_width"
    seen_width: int


class SetPixels(Value):
    """Give the size other pixels, and a name when they have one."""

    kind: Literal["set_pixels"] = "set_pixels"
    pixels: Pixels
    name: Name | None = None


class DragWindow(Value):
    """Drag the window or one of its grips, in pixels of the turned photo."""

    kind: Literal["drag_window"] = "drag_window"
    grip: Grip
    dx: float
    dy: float
    snap: float = Field(default=0, ge=0, description="How near a line draws it, in photo pixels.")


class DrawWindow(Value):
    """Draw a new window from one corner to the pointer, in pixels of the turned photo."""

    kind: Literal["draw_window"] = "draw_window"
    x0: float
    y0: float
    x1: float
    y1: float


class TypeWindow(Value):
    """Type one number of the window, in pixels of the turned photo."""

    kind: Literal["type_window"] = "type_window"
    field: WindowField
    value: float


class SetWindow(Value):
    """Give the size this window, in pixels of the turned photo; null follows the focus again."""

    kind: Literal["set_window"] = "set_window"
    window: Box | None


class ScaleWindow(Value):
    """Make the window larger or smaller about its centre."""

    kind: Literal["scale_window"] = "scale_window"
    factor: float = Field(gt=0.01, lt=100)


class SetContain(Value):
    """Show the whole window with the backdrop beside it, or cover the size."""

    kind: Literal["set_contain"] = "set_contain"
    contain: bool


class SetTurn(Value):
    """Change fields of how the photo is turned."""

    kind: Literal["set_turn"] = "set_turn"
    changes: TurnChanges
    only_this_size: bool = False


class TurnQuarter(Value):
    """Turn the photo by a quarter, as it is seen."""

    kind: Literal["turn_quarter"] = "turn_quarter"
    way: Literal["left", "right"]
    only_this_size: bool = False


class Mirror(Value):
    """Mirror the photo as it is seen: ``across`` swaps left and right, ``down`` top and bottom."""

    kind: Literal["mirror"] = "mirror"
    way: Literal["across", "down"]
    only_this_size: bool = False


class LevelLine(Value):
    """Straighten so that a line drawn along a horizon or an upright (pixels of the turned
    photo) becomes level or upright, whichever is nearer."""

    kind: Literal["level_line"] = "level_line"
    x0: float
    y0: float
    x1: float
    y1: float
    only_this_size: bool = False


class SetFocus(Value):
    """Say what must stay in view in every size (photo space); null forgets it."""

    kind: Literal["set_focus"] = "set_focus"
    focus: Focus | None


class DrawFocus(Value):
    """Set the focus by a click or by a box, in pixels of the turned photo.

    Both corners in the same place set a point.
    """

    kind: Literal["draw_focus"] = "draw_focus"
    x0: float
    y0: float
    x1: float
    y1: float


class SetShape(Value):
    """Give the size another outline."""

    kind: Literal["set_shape"] = "set_shape"
    shape: Shape


class DragShape(Value):
    """Drag the shape, the grip at its lower right or that of its corner radius, in output
    pixels."""

    kind: Literal["drag_shape"] = "drag_shape"
    grip: Literal["move", "scale", "radius"]
    dx: float
    dy: float


class DragMargin(Value):
    """Make the margin wider by so many output pixels."""

    kind: Literal["drag_margin"] = "drag_margin"
    by: float


class SetMargin(Value):
    """Give the size another margin, as a fraction of its short side."""

    kind: Literal["set_margin"] = "set_margin"
    margin: float


class SetGround(Value):
    """Change what shows behind the photo or outside the shape."""

    kind: Literal["set_ground"] = "set_ground"
    place: Literal["backdrop", "outside"]
    ground: Ground


class SetTone(Value):
    """Change fields of the tone."""

    kind: Literal["set_tone"] = "set_tone"
    changes: ToneChanges
    only_this_size: bool = False


class AddWash(Value):
    """Add a wash over what is shown."""

    kind: Literal["add_wash"] = "add_wash"
    only_this_size: bool = False


class DragWash(Value):
    """Drag a wash by one of its grips, in output pixels."""

    kind: Literal["drag_wash"] = "drag_wash"
    number: int
    grip: ToneGrip
    dx: float
    dy: float
    only_this_size: bool = False


class AddArea(Value):
    """Add an area under a mask of this kind."""

    kind: Literal["add_area"] = "add_area"
    mask: MaskKind
    only_this_size: bool = False


class AddMask(Value):
    """Narrow an area down by one more mask."""

    kind: Literal["add_mask"] = "add_mask"
    number: int
    mask: MaskKind
    only_this_size: bool = False


class PickForMask(Value):
    """Set the range of an area's mask around a colour of the photo."""

    kind: Literal["pick_for_mask"] = "pick_for_mask"
    number: int
    mask: int
    colour: Colour
    only_this_size: bool = False


class DragMask(Value):
    """Drag a band or an ellipse by one of its grips, in output pixels."""

    kind: Literal["drag_mask"] = "drag_mask"
    number: int
    mask: int
    grip: ToneGrip
    dx: float
    dy: float
    only_this_size: bool = False


class SetBorder(Value):
    """Change fields of the border."""

    kind: Literal["set_border"] = "set_border"
    changes: BorderChanges
    only_this_size: bool = False


class AddText(Value):
    """Add words, set for what they are for."""

    kind: Literal["add_text"] = "add_text"
    purpose: Literal["headline", "line", "small", "price"] = "line"
    text: str = ""
    palette: tuple[Colour, ...] = Field(
        default=(), description="The photo's colours, of which the words take a light one."
    )


class AddBadge(Value):
    """Add a drawn form."""

    kind: Literal["add_badge"] = "add_badge"
    form: BadgeForm
    icon: IconName | None = None


class AddPicture(Value):
    """Add a picture of the shelf."""

    kind: Literal["add_picture"] = "add_picture"
    sha256: Sha256
    ratio: float
    knock_out: KnockOut | None = None


class AddMark(Value):
    """Place a kept mark."""

    kind: Literal["add_mark"] = "add_mark"
    mark: UsedMark


class PastePieces(Value):
    """Add copies of pieces, perhaps of another finish."""

    kind: Literal["paste_pieces"] = "paste_pieces"
    pieces: tuple[Piece, ...]


class DuplicatePieces(Value):
    """Add copies of pieces beside them."""

    kind: Literal["duplicate_pieces"] = "duplicate_pieces"
    ids: PieceIds


class RemovePieces(Value):
    """Remove pieces from the finish."""

    kind: Literal["remove_pieces"] = "remove_pieces"
    ids: PieceIds


class GroupPieces(Value):
    """Make pieces one group, or each a piece of its own again."""

    kind: Literal["group_pieces"] = "group_pieces"
    ids: PieceIds
    together: bool = True


class OrderPiece(Value):
    """Move a piece towards the front or the back."""

    kind: Literal["order_piece"] = "order_piece"
    id: Identifier
    to: Literal["front", "forward", "backward", "back"]


class SetPiece(Value):
    """Change fields of pieces; each takes those that it has."""

    kind: Literal["set_piece"] = "set_piece"
    ids: PieceIds
    changes: PieceChanges
    only_this_size: bool = False


class FollowPiece(Value):
    """Drop the size's own ways in a piece."""

    kind: Literal["follow_piece"] = "follow_piece"
    id: Identifier


class DragPieces(Value):
    """Move pieces, in output pixels."""

    kind: Literal["drag_pieces"] = "drag_pieces"
    ids: PieceIds
    dx: float
    dy: float
    snap: float = Field(default=0, ge=0, description="How near a line draws, in output pixels.")
    only_this_size: bool = False


class ScalePiece(Value):
    """Drag a piece's grip, in output pixels."""

    kind: Literal["scale_piece"] = "scale_piece"
    id: Identifier
    grip: Literal["n", "e", "s", "w", "ne", "se", "sw", "nw"]
    dx: float
    dy: float
    only_this_size: bool = False


class TurnPiece(Value):
    """Drag the knob above a piece, which lies ``distance`` output pixels from its edge."""

    kind: Literal["turn_piece"] = "turn_piece"
    id: Identifier
    distance: float = Field(ge=0)
    dx: float
    dy: float
    step: float = Field(default=0, ge=0, le=90, description="Degrees; 0 turns freely.")
    only_this_size: bool = False


class PointPiece(Value):
    """Drag an end of an arrow or a line, or a bubble's pointer, in output pixels; what it points
    at is then held at the photo."""

    kind: Literal["point_piece"] = "point_piece"
    id: Identifier
    end: Literal["tail", "tip"]
    dx: float
    dy: float
    only_this_size: bool = False


class ReleaseTip(Value):
    """Let a piece no longer hold on to the photo with its tip; it stays as it is."""

    kind: Literal["release_tip"] = "release_tip"
    id: Identifier


class AlignPieces(Value):
    """Align pieces: one to the margin box, several to each other."""

    kind: Literal["align_pieces"] = "align_pieces"
    ids: PieceIds
    to: Literal["left", "center", "right", "top", "middle", "bottom"]
    only_this_size: bool = False


class AnchorPiece(Value):
    """Hang a piece on the margin box, or on the photo where it is."""

    kind: Literal["anchor_piece"] = "anchor_piece"
    id: Identifier
    to: Literal["margin", "photo"]


class PlacePiece(Value):
    """Put a piece's middle on a place of the size, in output pixels, perhaps in a colour that
    can be read there."""

    kind: Literal["place_piece"] = "place_piece"
    id: Identifier
    x: float
    y: float
    colour: Colour | None = None
    only_this_size: bool = False


class SetWatermark(Value):
    """Change fields of the watermark."""

    kind: Literal["set_watermark"] = "set_watermark"
    changes: WatermarkChanges
    only_this_size: bool = False


class DragWatermark(Value):
    """Move a watermark that is on one spot, in output pixels."""

    kind: Literal["drag_watermark"] = "drag_watermark"
    dx: float
    dy: float
    snap: float = Field(default=0, ge=0, description="How near a line draws, in output pixels.")
    only_this_size: bool = False


class SetExport(Value):
    """Change fields of the export that a size may have of its own."""

    kind: Literal["set_export"] = "set_export"
    changes: ExportChanges
    only_this_size: bool = False


class Follow(Value):
    """Drop the size's own ways in a step, so that it follows the finish again."""

    kind: Literal["follow"] = "follow"
    step: Literal["turn", "tone", "border", "pieces", "watermark", "export"]


class SetFileDetails(Value):
    """Change what every exported file of the finish carries; unset fields stay."""

    kind: Literal["set_file_details"] = "set_file_details"
    name_pattern: str | None = None
    keep_camera_data: bool | None = None
    keep_place: bool | None = None
    author: str | None = None
    copyright: str | None = None


class Rename(Value):
    """Call the finish something else."""

    kind: Literal["rename"] = "rename"
    name: str


class ResetStep(Value):
    """Put one step back to how it came."""

    kind: Literal["reset_step"] = "reset_step"
    step: Literal["crop", "tone", "border", "pieces", "watermark", "export"]


Edit = Annotated[
    ChooseRatio
    | UseSize
    | AddSize
    | DuplicateSize
    | RemoveSize
    | RenameSize
    | PlaceSize
    | SetSeenWidth
    | SetPixels
    | DragWindow
    | DrawWindow
    | TypeWindow
    | SetWindow
    | ScaleWindow
    | SetContain
    | SetTurn
    | TurnQuarter
    | Mirror
    | LevelLine
    | SetFocus
    | DrawFocus
    | SetShape
    | DragShape
    | DragMargin
    | SetMargin
    | SetGround
    | SetTone
    | AddWash
    | DragWash
    | AddArea
    | AddMask
    | PickForMask
    | DragMask
    | SetBorder
    | AddText
    | AddBadge
    | AddPicture
    | AddMark
    | PastePieces
    | DuplicatePieces
    | RemovePieces
    | GroupPieces
    | OrderPiece
    | SetPiece
    | FollowPiece
    | DragPieces
    | ScalePiece
    | TurnPiece
    | PointPiece
    | ReleaseTip
    | AlignPieces
    | AnchorPiece
    | PlacePiece
    | SetWatermark
    | DragWatermark
    | SetExport
    | Follow
    | SetFileDetails
    | Rename
    | ResetStep,
    Field(discriminator="kind"),
]
