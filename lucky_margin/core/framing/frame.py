"""A size's frame: its output pixels and the part of the photo they show.

Framing uses the ratio of the *photo box* (see ``outputs``). The typed window is kept as it
is; what is sampled is the largest box of exactly the photo box's ratio, centred in it, so
that nothing is ever stretched. A size as cropped takes its window on whole photo pixels.
"""

from dataclasses import dataclass

from lucky_margin.core.document import AsCropped, Box, Finish, FixedPixels, Size
from lucky_margin.core.framing.outputs import Output, output_of
from lucky_margin.core.framing.windows import (
    following,
    largest_inside,
    moved_inside,
    on_whole_pixels,
    whole,
)


@dataclass(frozen=True)
class Frame:
    """Where one size's pixels come from."""

    output: Output
    window: Box
    """The window as typed (moved inside the photo), in photo pixels."""
    sampled: Box
    """What is sampled: of the photo box's exact ratio, in photo pixels."""
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
        return self.output.photo_box.width / self.sampled.width


def frame_of(finish: Finish, size: Size, photo_width: int, photo_height: int) -> Frame:
    """The frame of ``size`` on a photo of these (upright) photo pixels.

    Raises:
        TooLarge: the size comes to too many pixels.
    """
    photo = whole(photo_width, photo_height)
    border = finish.border_of(size)
    held = _held_ratio(finish, size, photo)
    own = size.crop.window
    window = moved_inside(own.box, photo) if own else following(finish.focus, photo, held)
    if isinstance(size.pixels, AsCropped):
        # One output pixel for each photo pixel, so that they are copied and never resampled.
        sampled = on_whole_pixels(largest_inside(window, held) if held else window, photo)
        output = output_of(size, border, sampled)
    else:
        output = output_of(size, border, window)
        sampled = largest_inside(window, output.photo_box.ratio)
    return Frame(
        output=output,
        window=window,
        sampled=sampled,
        follows_focus=own is None,
        held_ratio=held,
    )


def _held_ratio(finish: Finish, size: Size, photo: Box) -> float | None:
    """A fixed size holds its photo box's ratio, another one the ratio it was locked to."""
    if isinstance(size.pixels, FixedPixels):
        return output_of(size, finish.border_of(size), photo).photo_box.ratio
    return size.pixels.ratio.value if size.pixels.ratio else None
