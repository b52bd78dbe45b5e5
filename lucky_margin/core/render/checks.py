"""Checks: measured warnings about a size, each with the action that mends it."""

from typing import Literal

from lucky_margin.core.document import (
    Crop,
    ExportChanges,
    Finish,
    FixedPixels,
    OneSide,
    Pixels,
    Size,
    Value,
)
from lucky_margin.core.document.words import colour_in_words
from lucky_margin.core.edits.edit import Edit, SetExport, SetPixels, SetWindow
from lucky_margin.core.framing import Frame, frame_of
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.render.render import flatten_colour, render
from lucky_margin.core.render.sources import Sources

SHARP = 1.0
"""Output pixels for each photo pixel up to which a size is as sharp as the photo."""

POOR = 1.5
"""From here on, softness shows at a glance."""

LOST = 1.0
"""Photo pixels of the typed window that may go unsampled without a word."""

_ROUNDING = 1e-6
_MEASURED_AT = 0.5
"""The scale at which transparency is measured."""


class CheckAction(Value):
    """One action that mends what a check found."""

    label: str
    edit: Edit


class Check(Value):
    """One measured statement about a size; ``look`` asks the user to look at it."""

    key: Literal["sharpness", "window", "transparency"]
    light: Literal["fine", "look"]
    text: str
    action: CheckAction | None = None


def check(finish: Finish, size: Size, sources: Sources) -> list[Check]:
    """The checks of ``size``: those that are fine and still worth saying, and those that ask
    for a look.

    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    facts = sources.facts(finish.photo.sha256)
    frame = frame_of(finish, size, facts.width, facts.height)
    found = [
        _sharpness(finish, size, frame, facts),
        _window(size, frame),
        _transparency(finish, size, sources),
    ]
    return [item for item in found if item is not None]


def _sharpness(finish: Finish, size: Size, frame: Frame, facts: PhotoFacts) -> Check:
    enlargement = frame.enlargement
    if enlargement <= SHARP + _ROUNDING:
        text = f"Sharp: {1 / enlargement:.1f} photo pixels for each pixel of this size."
        return Check(key="sharpness", light="fine", text=text)
    word = "Poor" if enlargement >= POOR else "Soft"
    text = (
        f"{word}: the photo has too few pixels here, each is enlarged to {enlargement:.2f}; "
        f"{'it will look grainy' if word == 'Poor' else 'fine detail will blur'}."
    )
    action = _more_of_the_photo(finish, size, frame, facts) or _fewer_pixels(size, enlargement)
    return Check(key="sharpness", light="look", text=text, action=action)


def _more_of_the_photo(
    finish: Finish, size: Size, frame: Frame, facts: PhotoFacts
) -> CheckAction | None:
    """Following the focus shows the largest window, if that is large enough."""
    if frame.follows_focus:
        return None
    edit = SetWindow(window=None)
    largest = size.model_copy(update={"crop": Crop()})
    wider = frame_of(finish, largest, facts.width, facts.height)
    if wider.enlargement > SHARP + _ROUNDING:
        return None
    return CheckAction(label="Show more of the photo", edit=edit)


def _fewer_pixels(size: Size, enlargement: float) -> CheckAction | None:
    pixels: Pixels
    if isinstance(size.pixels, FixedPixels):
        width, height = (
            max(1, int(side / enlargement)) for side in (size.pixels.width, size.pixels.height)
        )
        pixels = FixedPixels(width=width, height=height)
        label = f"Make it {width} × {height}"
    elif isinstance(size.pixels, OneSide):
        length = max(1, int(size.pixels.length / enlargement))
        pixels = size.pixels.model_copy(update={"length": length})
        label = f"Make the {size.pixels.side} {length} px"
    else:
        return None
    return CheckAction(label=label, edit=SetPixels(pixels=pixels))


def _window(size: Size, frame: Frame) -> Check | None:
    if frame.lost <= LOST:
        return None
    text = (
        f"The window is not of this size's ratio: {frame.lost:.0f} photo pixels of it "
        "are left out, evenly on both sides."
    )
    action = CheckAction(label="Fit the window", edit=SetWindow(window=frame.sampled))
    return Check(key="window", light="look", text=text, action=action)


def _transparency(finish: Finish, size: Size, sources: Sources) -> Check | None:
    """Measured on the pixels as a format with transparency would keep them."""
    if finish.export_of(size).format != "jpeg":
        return None
    own = size.own.model_copy(update={"export": ExportChanges(format="png")})
    picture = render(finish, size.model_copy(update={"own": own}), sources, scale=_MEASURED_AT)
    if picture.shape[2] == 3:
        return None
    share = 100 * (1 - float(picture[:, :, 3].mean()) / 255)
    return Check(
        key="transparency",
        light="look",
        text=f"JPEG keeps no transparency: {share:.1f}\N{NO-BREAK SPACE}% of this size is "
        f"filled with {colour_in_words(flatten_colour(finish))}.",
        action=CheckAction(
            label="Export as PNG",
            edit=SetExport(changes=ExportChanges(format="png"), only_this_size=True),
        ),
    )
