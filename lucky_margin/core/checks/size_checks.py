"""Checks of a size and its photo."""

from dataclasses import replace

import shapely

from lucky_margin.core.checks.check import Check, CheckAction, percent
from lucky_margin.core.document import (
    Box,
    Crop,
    ExportChanges,
    FixedPixels,
    OneSide,
    Pixels,
    Rectangle,
    Size,
    ToneChanges,
    TurnChanges,
)
from lucky_margin.core.document.summaries import FORMAT_NAMES, colour_in_words
from lucky_margin.core.edits.framing import SetContain, SetWindow
from lucky_margin.core.edits.resetting import ResetStep
from lucky_margin.core.edits.sizes import SetPixels
from lucky_margin.core.edits.steps import SetExport, SetTone, SetTurn
from lucky_margin.core.framing import Frame, focus_box
from lucky_margin.core.render.layers import flatten_colour
from lucky_margin.core.render.measure import measure_noise, measure_tone
from lucky_margin.core.render.render import render
from lucky_margin.core.render.shown import turned_subject_box
from lucky_margin.core.scene import Scene

SHARP = 1.0
"""Output pixels for each photo pixel up to which a size is as sharp as the photo."""

POOR = 1.5
"""From here on, softness shows at a glance."""

LOST = 1.0
"""Photo pixels of the typed window that may go unsampled without a word."""

CLIPPED = 0.005
"""Share of pixels that a tone may clip without a word."""

NOISY = 2.5
"""8-bit steps of noise from which it shows."""

_SMOOTHING_TRIED = (30, 50, 70, 100)
_CLIPPERS = ("exposure", "contrast", "white_point", "black_point", "saturation", "muted_colours")
_GENTLER_TRIES = 5
_LEAST_SAID = 0.0005
"""A share; less would be said as 0.0."""

_ROUNDING = 1e-6
_MEASURED_AT = 0.5
"""The scale at which transparency is measured."""


def sharpness(scene: Scene) -> Check | None:
    """Whether the photo has enough pixels."""
    if scene.finish.photo is None:
        return None
    enlargement = scene.frame.enlargement
    if enlargement <= SHARP + _ROUNDING:
        text = f"Sharp: {1 / enlargement:.1f} photo pixels for each pixel of this size."
        return Check(key="sharpness", severity="ok", text=text)
    word = "Poor" if enlargement >= POOR else "Soft"
    text = (
        f"{word}: the photo has too few pixels here, each is enlarged to {enlargement:.2f}; "
        f"{'it will look blurred' if word == 'Poor' else 'fine detail will be soft'}."
    )
    action = _more_of_the_photo(scene) or _fewer_pixels(scene.size, enlargement)
    return Check(key="sharpness", severity="warning", text=text, action=action)


def _more_of_the_photo(scene: Scene) -> CheckAction | None:
    """Following the focus shows the largest window, if that is large enough."""
    if scene.frame.follows_focus:
        return None
    edit = SetWindow(window=None)
    wider = replace(scene, size=scene.size.model_copy(update={"crop": Crop()}))
    if wider.frame.enlargement > SHARP + _ROUNDING:
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


def window(scene: Scene) -> Check | None:
    """Whether some of the typed window is not sampled."""
    frame = scene.frame
    if frame.lost <= LOST:
        return None
    text = (
        f"The window does not match this size's ratio: {frame.lost:.0f} photo pixels of it "
        "are left out, evenly on both sides."
    )
    action = CheckAction(label="Match the window", edit=SetWindow(window=frame.sampled))
    return Check(key="window", severity="warning", text=text, action=action)


def focus(scene: Scene) -> Check | None:
    """Whether the focus box is whole, with some air at each edge that is not the photo's own."""
    frame = scene.frame
    name, box = "focus box", focus_box(scene.focus, frame.photo)
    if scene.finish.focus is None and scene.cut_out.on:
        name, box = "subject", turned_subject_box(scene)
    if box is None:
        return None
    seen, window = shapely.box(*box.edges), shapely.box(*frame.sampled.edges)
    cut = 1 - seen.intersection(window).area / seen.area
    touching = [edge for edge in ("left", "top", "right", "bottom") if _touches(edge, box, frame)]
    if cut < _LEAST_SAID and not touching:
        return Check(key="focus", severity="ok", text=f"The {name} is whole.")
    text = (
        f"The {name} is cut: {percent(cut, 1)} of it is outside."
        if cut >= _LEAST_SAID
        else f"The {name} touches the edge ({', '.join(touching)})."
    )
    action = (
        CheckAction(label="Show the whole photo", edit=SetContain(contain=True))
        if frame.follows_focus
        else CheckAction(label="Follow the focus", edit=SetWindow(window=None))
    )
    return Check(key="focus", severity="warning", text=text, action=action)


def _touches(edge: str, box: Box, frame: Frame) -> bool:
    """Whether the focus box comes to this edge of what is sampled, and not for want of photo."""
    here: float = getattr(box, edge)
    sampled: float = getattr(frame.sampled, edge)
    photo: float = getattr(frame.photo.bounds, edge)
    return abs(here - sampled) < LOST and abs(here - photo) >= LOST


def corners(scene: Scene) -> Check | None:
    """How much of the window lies beside the turned photo, where nothing else shows."""
    frame = scene.frame
    if scene.finish.photo is None or scene.cut_out.on or scene.backdrop.kind != "transparent":
        return None
    window = shapely.box(*frame.sampled.edges)
    empty = 1 - shapely.Polygon(frame.photo.corners).intersection(window).area / window.area
    if empty < _LEAST_SAID:
        return None
    return Check(
        key="corners",
        severity="warning",
        text=f"Empty corners: {percent(empty, 1)} of this size is outside the photo.",
        action=CheckAction(
            label="Keep inside the photo",
            edit=SetTurn(changes=TurnChanges(empty_corners=False), only_this_size=True),
        ),
    )


def column(scene: Scene) -> Check | None:
    """Whether a page's column shows it smaller than it is."""
    if not scene.size.in_column:
        return None
    width, height = scene.sides
    column = scene.size.seen_width
    if width <= column:
        return Check(key="column", severity="ok", text=f"Fits its column of {column} px.")
    fitting = FixedPixels(width=column, height=max(1, round(height * column / width)))
    return Check(
        key="column",
        severity="warning",
        text=f"Wider than its column: {width} px in {column}, so it will be shown at "
        f"{percent(column / width)}.",
        action=CheckAction(
            label=f"Make it {fitting.width} × {fitting.height}", edit=SetPixels(pixels=fitting)
        ),
    )


def clipping(scene: Scene) -> Check | None:
    """What the tone clips that the photo does not."""
    if not scene.tone.is_set:
        return None
    newly = measure_tone(scene).newly
    shares = ((newly.high, "white"), (newly.low, "black"))
    clipped = " and ".join(f"{percent(share, 1)} to {end}" for share, end in shares)
    most = max(newly.high, newly.low)
    if most <= CLIPPED:
        text = f"The tone clips {'nothing' if most < _LEAST_SAID else clipped}."
        return Check(key="clipping", severity="ok", text=text)
    return Check(
        key="clipping",
        severity="warning",
        text=f"The tone clips detail that the photo has: {clipped}.",
        action=_gentler(scene),
    )


def _gentler(scene: Scene) -> CheckAction:
    """The settings that clip, each by the same share weaker, until no more is clipped; where
    that is not enough, no tone at all."""
    tone = scene.finish.as_set("tone", scene.size)
    following = scene.size.with_overrides(tone=ToneChanges())

    def weaker(share: float) -> ToneChanges:
        return ToneChanges(**{name: round(share * getattr(tone, name), 2) for name in _CLIPPERS})

    def clips(share: float) -> bool:
        tried = scene.finish.model_copy(update={"tone": weaker(share).applied_to(tone)})
        newly = measure_tone(replace(scene, finish=tried, size=following)).newly
        return max(newly.high, newly.low) > CLIPPED

    if clips(0.0):
        return CheckAction(label="Reset Tone", edit=ResetStep(step="tone"))
    low, high = 0.0, 1.0
    for _ in range(_GENTLER_TRIES):
        middle = (low + high) / 2
        low, high = (low, middle) if clips(middle) else (middle, high)
    edit = SetTone(changes=weaker(low), only_this_size=True)
    return CheckAction(label="Make it gentler", edit=edit)


def noise(scene: Scene) -> Check | None:
    """What noise is left in the toned photo."""
    left = measure_noise(scene) if scene.finish.photo else 0.0
    if left < NOISY:
        return None
    return Check(
        key="noise",
        severity="warning",
        text=f"Noise is visible: {left:.1f} of 255 steps in the smooth parts of the photo.",
        action=_smoother(scene),
    )


def _smoother(scene: Scene) -> CheckAction | None:
    """The least smoothing, of what is tried, that brings the noise down."""
    for amount in _SMOOTHING_TRIED:
        if amount <= scene.tone.noise_reduction:
            continue
        changes = ToneChanges(
            on=True,
            noise_reduction=amount,
            colour_noise_reduction=max(amount, scene.tone.colour_noise_reduction),
        )
        overridden = _over(scene.size.overrides.tone, changes)
        tried = replace(scene, size=scene.size.with_overrides(tone=overridden))
        if measure_noise(tried) < NOISY:
            edit = SetTone(changes=changes, only_this_size=True)
            return CheckAction(label=f"Reduce noise by {amount}", edit=edit)
    return None


def _over(own: ToneChanges, changes: ToneChanges) -> ToneChanges:
    return ToneChanges.model_validate(own.model_dump() | changes.model_dump())


def transparency(scene: Scene) -> Check | None:
    """Measured on the pixels as a format with transparency would keep them."""
    finish, size = scene.finish, scene.size
    wanted = finish.export_of(size)
    if not wanted.is_opaque or scene.outside.kind != "transparent":
        return None
    fade = scene.tone.fade
    fades = fade.amount > 0 and fade.colour is None
    has_alpha = scene.facts.has_alpha or scene.cut_out.on
    is_opaque = scene.frame.covers and not has_alpha and not fades
    if is_opaque and size.shape == Rectangle():
        return None  # nothing can be transparent, so nothing needs drawing
    as_png = size.with_overrides(export=ExportChanges(format="png"))
    picture = render(replace(scene, size=as_png), scale=_MEASURED_AT)
    if picture.shape[2] == 3:
        return None
    share = 1 - float(picture[:, :, 3].mean()) / 255
    if share < _LEAST_SAID:
        return None
    return Check(
        key="transparency",
        severity="warning",
        text=f"{FORMAT_NAMES[wanted.format]} has no transparency: {percent(share, 1)} of this "
        f"size is filled with {colour_in_words(flatten_colour(scene))}.",
        action=CheckAction(
            label="Export as PNG",
            edit=SetExport(changes=ExportChanges(format="png"), only_this_size=True),
        ),
    )
