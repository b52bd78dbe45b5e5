"""Edits: everything the interface, the command line or a check's action may ask of a finish.

Framing edits belong to one size. An edit of a step goes to the finish, so that every size
follows, unless ``only_this_size`` is on; a finish with one size has no use for own ways.
"""

from typing import Annotated, Literal

from pydantic import Field

from lucky_margin.core.document import (
    BorderChanges,
    Box,
    ExportChanges,
    Focus,
    Ground,
    Name,
    Pixels,
    Ratio,
    Shape,
    Value,
)
from lucky_margin.core.framing import Grip, WindowField


class ChooseRatio(Value):
    """Hold the window to a ratio; null frees it, "original" is the photo's own."""

    kind: Literal["choose_ratio"] = "choose_ratio"
    ratio: Ratio | Literal["original"] | None


class SetPixels(Value):
    """Give the size other pixels, and a name when they have one."""

    kind: Literal["set_pixels"] = "set_pixels"
    pixels: Pixels
    name: Name | None = None


class DragWindow(Value):
    """Drag the window or one of its grips by photo pixels."""

    kind: Literal["drag_window"] = "drag_window"
    grip: Grip
    dx: float
    dy: float


class DrawWindow(Value):
    """Draw a new window from one corner to the pointer, in photo pixels."""

    kind: Literal["draw_window"] = "draw_window"
    x0: float
    y0: float
    x1: float
    y1: float


class TypeWindow(Value):
    """Type one number of the window, in photo pixels."""

    kind: Literal["type_window"] = "type_window"
    field: WindowField
    value: float


class SetWindow(Value):
    """Give the size this window (photo pixels); null follows the focus again."""

    kind: Literal["set_window"] = "set_window"
    window: Box | None


class SetFocus(Value):
    """Say what must stay in view in every size; null forgets it."""

    kind: Literal["set_focus"] = "set_focus"
    focus: Focus | None


class SetShape(Value):
    """Give the size another outline."""

    kind: Literal["set_shape"] = "set_shape"
    shape: Shape


class SetMargin(Value):
    """Give the size another margin, as a fraction of its short side."""

    kind: Literal["set_margin"] = "set_margin"
    margin: float


class SetGround(Value):
    """Change what shows behind the photo or outside the shape."""

    kind: Literal["set_ground"] = "set_ground"
    place: Literal["backdrop", "outside"]
    ground: Ground


class SetBorder(Value):
    """Change fields of the border."""

    kind: Literal["set_border"] = "set_border"
    changes: BorderChanges
    only_this_size: bool = False


class SetExport(Value):
    """Change fields of the export that a size may have of its own."""

    kind: Literal["set_export"] = "set_export"
    changes: ExportChanges
    only_this_size: bool = False


class SetFileDetails(Value):
    """Change what every exported file of the finish carries; unset fields stay."""

    kind: Literal["set_file_details"] = "set_file_details"
    name_pattern: str | None = None
    keep_camera_data: bool | None = None
    author: str | None = None
    copyright: str | None = None


class Rename(Value):
    """Call the finish something else."""

    kind: Literal["rename"] = "rename"
    name: str


class ResetStep(Value):
    """Put one step back to how it came."""

    kind: Literal["reset_step"] = "reset_step"
    step: Literal["crop", "border", "export"]


Edit = Annotated[
    ChooseRatio
    | SetPixels
    | DragWindow
    | DrawWindow
    | TypeWindow
    | SetWindow
    | SetFocus
    | SetShape
    | SetMargin
    | SetGround
    | SetBorder
    | SetExport
    | SetFileDetails
    | Rename
    | ResetStep,
    Field(discriminator="kind"),
]
