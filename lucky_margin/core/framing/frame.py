"""A size's frame: its output pixels and the part of the photo they show.

Framing uses the ratio of the *photo box* (see ``outputs``). The typed window is kept as it
is; what is sampled is the largest box of exactly the ratio it is shown at, centred in it, so
that nothing is ever stretched. A size as cropped takes its window on whole photo pixels.
"""

from dataclasses import dataclass

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import AsCropped, Box, Finish, FixedPixels, Focus, Size
from lucky_margin.core.framing.outputs import Output, output_of
from lucky_margin.core.framing.turning import TurnedPhoto
from lucky_margin.core.framing.windows import (
    focus_box,
    following,
    largest_inside,
    on_whole_pixels,
    whole,
)


@dataclass(frozen=True)
class Frame:
    """Where one size's pixels come from."""

    photo: TurnedPhoto
    output: Output
    window: Box
    """The window as typed (moved inside the photo's room), in turned pixels."""
    sampled: Box
    """What is sampled: of ``shown``'s exact ratio, in turned pixels."""
    shown: Box
    """Where it lies, in output pixels: the photo box, or less of it when the photo is contained."""
    follows_focus: bool
    held_ratio: float | None
    """Width over height that the window is held to; None when it is free."""

    @property
    def lost(self) -> float:
        """How much of the typed window is not sampled, in photo pixels of its longer cut."""
        return max(self.window.width - self.sampled.width, self.window.height - self.sampled.height)

    @property
    def enlargement(self) -> float:
        """Output pixels for each photo pixel; above 1 the photo has too few."""
        return self.shown.width / self.sampled.width

    @property
    def from_output(self) -> Affine:
        """From output pixels to photo pixels."""
        return self.photo.to_photo.after(laid(self.sampled, self.shown))

    @property
    def to_output(self) -> Affine:
        """From turned pixels to output pixels."""
        return laid(self.shown, self.sampled)

    @property
    def covers(self) -> bool:
        """Whether the photo covers all of the photo box."""
        return self.shown == self.output.photo_box and self.photo.surface.holds(self.sampled)


def laid(window: Box, box: Box) -> Affine:
    """The mapping that lays ``box`` onto ``window``."""
    x, y = window.width / box.width, window.height / box.height
    return Affine(x, 0, 0, y, window.left - box.left * x, window.top - box.top * y)


def frame_of(finish: Finish, size: Size, photo_width: int, photo_height: int) -> Frame:
    """The frame of ``size`` on a photo of these (upright) photo pixels.

    Raises:
        TooLarge: the size comes to too many pixels.
    """
    photo = turned_photo(finish, size, photo_width, photo_height)
    border = finish.border_of(size)
    held = _held_ratio(finish, size)
    own = size.crop.window
    if own:
        window = photo.window_room.moved_inside(photo.box_of(own))
    else:
        window = following(finish.focus_of(size), photo, held)
    if isinstance(size.pixels, AsCropped):
        # One output pixel for each photo pixel, so that they are copied and never resampled.
        sampled = on_whole_pixels(largest_inside(window, held) if held else window, photo)
        output = output_of(size, border, sampled)
        shown = output.photo_box
    else:
        output = output_of(size, border, window)
        shown = _shown(size, output.photo_box, window)
        sampled = largest_inside(window, shown.ratio)
    return Frame(
        photo=photo,
        output=output,
        window=window,
        sampled=sampled,
        shown=shown,
        follows_focus=own is None,
        held_ratio=held,
    )


def turned_photo(finish: Finish, size: Size, photo_width: int, photo_height: int) -> TurnedPhoto:
    """The photo, of these (upright) photo pixels, as it is turned for ``size``."""
    beyond = finish.cut_out_of(size).on
    return TurnedPhoto(photo_width, photo_height, finish.turn_of(size), beyond)


def _held_ratio(finish: Finish, size: Size) -> float | None:
    """A fixed size that is covered holds its photo box's ratio; another size the ratio it was
    locked to, if any."""
    if not isinstance(size.pixels, FixedPixels):
        return size.pixels.ratio.value if size.pixels.ratio else None
    if size.crop.contain:
        return None
    sides = whole(size.pixels.width, size.pixels.height)
    return output_of(size, finish.border_of(size), sides).photo_box.ratio


def _shown(size: Size, photo_box: Box, window: Box) -> Box:
    """Where the window lies in ``photo_box``: everywhere, or contained, on whole pixels."""
    if not size.crop.contain:
        return photo_box
    fitting = largest_inside(photo_box, window.ratio)
    width, height = max(1, round(fitting.width)), max(1, round(fitting.height))
    return Box(
        left=photo_box.left + round((photo_box.width - width) / 2),
        top=photo_box.top + round((photo_box.height - height) / 2),
        width=width,
        height=height,
    )


def focus_on(focus: Focus | None, frame: Frame) -> Box | None:
    """The upright box around the focus box where it lies on the size, in output pixels, or None
    without one."""
    turned = focus_box(focus, frame.photo)
    if turned is None:
        return None
    left, top = frame.to_output(turned.left, turned.top)
    right, bottom = frame.to_output(turned.right, turned.bottom)
    return Box(left=left, top=top, width=right - left, height=bottom - top)
