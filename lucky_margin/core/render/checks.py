"""Checks: measured warnings about a size, each with the action that mends it."""

import shapely

from lucky_margin.core.document import (
    Box,
    Crop,
    ExportChanges,
    Finish,
    FixedPixels,
    OneSide,
    Pixels,
    Rectangle,
    Size,
    ToneChanges,
    TurnChanges,
)
from lucky_margin.core.document.words import colour_in_words
from lucky_margin.core.edits.framing import SetContain, SetWindow
from lucky_margin.core.edits.resetting import ResetStep
from lucky_margin.core.edits.sizes import SetPixels
from lucky_margin.core.edits.steps import SetExport, SetTone, SetTurn
from lucky_margin.core.framing import Frame, focus_box, frame_of
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.render.check import Check, CheckAction
from lucky_margin.core.render.measure import measure_noise, measure_tone
from lucky_margin.core.render.piece_checks import piece_checks
from lucky_margin.core.render.render import flatten_colour, render
from lucky_margin.core.render.sources import Sources

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
_LEAST_SAID = 0.05
"""Percent; less would be said as 0.0."""

_ROUNDING = 1e-6
_MEASURED_AT = 0.5
"""The scale at which transparency is measured."""


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
        _window(frame),
        _focus(finish, frame),
        _corners(finish, frame),
        _column(size, frame),
        _clipping(finish, size, sources),
        _noise(finish, size, sources),
        *piece_checks(finish, size, frame, sources),
        _transparency(finish, size, frame, sources),
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
        f"{'it will look blurred' if word == 'Poor' else 'fine detail will be soft'}."
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


def _window(frame: Frame) -> Check | None:
    if frame.lost <= LOST:
        return None
    text = (
        f"The window is not of this size's ratio: {frame.lost:.0f} photo pixels of it "
        "are left out, evenly on both sides."
    )
    action = CheckAction(label="Fit the window", edit=SetWindow(window=frame.sampled))
    return Check(key="window", light="look", text=text, action=action)


def _focus(finish: Finish, frame: Frame) -> Check | None:
    """Whether the focus box is whole, with some air at each edge that is not the photo's own."""
    box = focus_box(finish.focus, frame.photo)
    if box is None:
        return None
    seen, window = shapely.box(*_ends(box)), shapely.box(*_ends(frame.sampled))
    cut = 100 * (1 - seen.intersection(window).area / seen.area)
    touching = [edge for edge in ("left", "top", "right", "bottom") if _touches(edge, box, frame)]
    if cut < _LEAST_SAID and not touching:
        return Check(key="focus", light="fine", text="The focus box is whole.")
    text = (
        f"The focus box is cut: {cut:.1f}\N{NO-BREAK SPACE}% of it is outside."
        if cut >= _LEAST_SAID
        else f"The focus box touches the edge ({', '.join(touching)})."
    )
    action = (
        CheckAction(label="Show the whole photo", edit=SetContain(contain=True))
        if frame.follows_focus
        else CheckAction(label="Follow the focus", edit=SetWindow(window=None))
    )
    return Check(key="focus", light="look", text=text, action=action)


def _touches(edge: str, box: Box, frame: Frame) -> bool:
    """Whether the focus box comes to this edge of what is sampled, and not for want of photo."""
    here: float = getattr(box, edge)
    sampled: float = getattr(frame.sampled, edge)
    photo: float = getattr(frame.photo.bounds, edge)
    return abs(here - sampled) < LOST and abs(here - photo) >= LOST


def _corners(finish: Finish, frame: Frame) -> Check | None:
    """How much of the window lies beside the turned photo, where nothing else shows."""
    if finish.backdrop.kind != "transparent":
        return None
    window = shapely.box(*_ends(frame.sampled))
    empty = 100 * (1 - shapely.Polygon(frame.photo.corners).intersection(window).area / window.area)
    if empty < _LEAST_SAID:
        return None
    return Check(
        key="corners",
        light="look",
        text=f"Empty corners: {empty:.1f}\N{NO-BREAK SPACE}% of this size lies beside the photo.",
        action=CheckAction(
            label="Keep inside the photo",
            edit=SetTurn(changes=TurnChanges(empty_corners=False), only_this_size=True),
        ),
    )


def _column(size: Size, frame: Frame) -> Check | None:
    if not size.in_column:
        return None
    width, height = frame.output.width, frame.output.height
    column = size.seen_width
    if width <= column:
        return Check(key="column", light="fine", text=f"Fits its column of {column} px.")
    fitting = FixedPixels(width=column, height=max(1, round(height * column / width)))
    return Check(
        key="column",
        light="look",
        text=f"Wider than its column: {width} px in {column}, so it will be shown at "
        f"{100 * column / width:.0f}\N{NO-BREAK SPACE}%.",
        action=CheckAction(
            label=f"Make it {fitting.width} × {fitting.height}", edit=SetPixels(pixels=fitting)
        ),
    )


def _clipping(finish: Finish, size: Size, sources: Sources) -> Check | None:
    """What the tone clips that the photo does not."""
    tone = finish.tone_of(size)
    if not tone.is_set:
        return None
    newly = measure_tone(finish, size, sources).newly
    shares = ((newly.high, "white"), (newly.low, "black"))
    clipped = " and ".join(
        f"{100 * share:.1f}\N{NO-BREAK SPACE}% to {end}" for share, end in shares
    )
    if max(newly.high, newly.low) <= CLIPPED:
        return Check(key="clipping", light="fine", text=f"The tone clips {clipped}.")
    return Check(
        key="clipping",
        light="look",
        text=f"The tone clips what the photo still shows: {clipped}.",
        action=_gentler(finish, size, sources),
    )


def _gentler(finish: Finish, size: Size, sources: Sources) -> CheckAction:
    """The settings that clip, each by the same share weaker, until no more is clipped; where
    that is not enough, no tone at all."""
    tone = finish.as_set("tone", size)

    def weaker(share: float) -> ToneChanges:
        return ToneChanges(**{name: round(share * getattr(tone, name), 2) for name in _CLIPPERS})

    def clips(share: float) -> bool:
        own = size.own.model_copy(update={"tone": ToneChanges()})
        tried = finish.model_copy(update={"tone": weaker(share).applied_to(tone)})
        newly = measure_tone(tried, size.model_copy(update={"own": own}), sources).newly
        return max(newly.high, newly.low) > CLIPPED

    if clips(0.0):
        return CheckAction(label="Reset Tone", edit=ResetStep(step="tone"))
    low, high = 0.0, 1.0
    for _ in range(_GENTLER_TRIES):
        middle = (low + high) / 2
        low, high = (low, middle) if clips(middle) else (middle, high)
    edit = SetTone(changes=weaker(low), only_this_size=True)
    return CheckAction(label="Make it gentler", edit=edit)


def _noise(finish: Finish, size: Size, sources: Sources) -> Check | None:
    """What noise is left in the toned photo."""
    noise = measure_noise(finish, size, sources)
    if noise < NOISY:
        return None
    return Check(
        key="noise",
        light="look",
        text=f"Noise shows: {noise:.1f} of 255 steps in the quiet parts of the photo.",
        action=_smoother(finish, size, sources),
    )


def _smoother(finish: Finish, size: Size, sources: Sources) -> CheckAction | None:
    """The least smoothing, of what is tried, that brings the noise down."""
    tone = finish.tone_of(size)
    for amount in _SMOOTHING_TRIED:
        if amount <= tone.noise_reduction:
            continue
        changes = ToneChanges(
            on=True,
            noise_reduction=amount,
            colour_noise_reduction=max(amount, tone.colour_noise_reduction),
        )
        tried = size.model_copy(
            update={"own": size.own.model_copy(update={"tone": _over(size.own.tone, changes)})}
        )
        if measure_noise(finish, tried, sources) < NOISY:
            edit = SetTone(changes=changes, only_this_size=True)
            return CheckAction(label=f"Smooth it by {amount}", edit=edit)
    return None


def _over(own: ToneChanges, changes: ToneChanges) -> ToneChanges:
    return ToneChanges.model_validate(own.model_dump() | changes.model_dump())


def _transparency(finish: Finish, size: Size, frame: Frame, sources: Sources) -> Check | None:
    """Measured on the pixels as a format with transparency would keep them."""
    if finish.export_of(size).format != "jpeg" or finish.outside.kind != "transparent":
        return None
    facts = sources.facts(finish.photo.sha256)
    fades = finish.tone_of(size).fade.amount > 0 and finish.tone_of(size).fade.colour is None
    if frame.covers and size.shape == Rectangle() and not facts.has_alpha and not fades:
        return None  # nothing can be transparent, so nothing needs drawing
    own = size.own.model_copy(update={"export": ExportChanges(format="png")})
    picture = render(finish, size.model_copy(update={"own": own}), sources, scale=_MEASURED_AT)
    if picture.shape[2] == 3:
        return None
    share = 100 * (1 - float(picture[:, :, 3].mean()) / 255)
    if share < _LEAST_SAID:
        return None
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


def _ends(box: Box) -> tuple[float, float, float, float]:
    return box.left, box.top, box.right, box.bottom
