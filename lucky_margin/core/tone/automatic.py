"""A proposal for the ordinary controls, measured on the photo."""

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import Tone
from lucky_margin.core.sampling import encode_16_bits, to_linear
from lucky_margin.core.tone.apply import toned
from lucky_margin.core.tone.bases import LUMINANCE, bases_of
from lucky_margin.core.tone.measure import Clipping, clipping_of
from lucky_margin.core.types import AnyPicture, Picture16

WORKING_SIDE = 384
"""Longest side at which proposals are tried, in pixels."""

NEWLY_CLIPPED = 0.003
"""Share of pixels that a proposal may clip on top of what is clipped already."""

DARK_MEDIAN, LIGHT_MEDIAN = 0.42, 0.62
"""Encoded brightness between which a photo's middle is left alone."""

Lines = NDArray[np.float32]

_MOST_EXPOSURE = 2.5
_TRIES = 7


def propose_tone(photo: AnyPicture) -> Tone:
    """Settings of exposure, shadows, black and white point, contrast and muted colours that use
    the photo's whole span of brightness and bring its middle to where it is seen well.

    Each is taken as far as it goes towards its aim without clipping more than
    ``NEWLY_CLIPPED`` of the pixels.
    """
    step = max(1, round(max(photo.shape[:2]) / WORKING_SIDE))
    small = _picked(photo, step)
    height, width = small.shape[:2]
    onto_photo = Affine(step, 0, 0, step)
    lines = bases_of(photo, photo.shape[1]).laid(onto_photo, (0, 0, width, height))
    allowed = clipping_of(toned(small, Tone()))
    middle = _percentile(small, 50)
    tone = Tone()
    ends: tuple[tuple[str, float], ...] = (
        ("white_point", 39),
        ("black_point", -39),
        ("contrast", 25),
        ("muted_colours", 15),
    )
    if middle < DARK_MEDIAN:
        # What glows already is held back, so that the rest can be lifted.
        tone = Tone(shadows=70, highlights=-100)
        wanted = min(_MOST_EXPOSURE, 2.2 * np.log2(DARK_MEDIAN / max(middle, 0.02)))
        tone = _as_far("exposure", float(wanted), tone, small, lines, allowed)
        # Black stays where it is, under the noise that is lifted with the rest.
        ends = (("white_point", 39.0),)
    elif middle > LIGHT_MEDIAN:
        wanted = 2.2 * np.log2(LIGHT_MEDIAN / middle)
        tone = tone.model_copy(update={"exposure": round(float(wanted), 2)})
    for control, aim in ends:
        tone = _as_far(control, aim, tone, small, lines, allowed)
    return tone


def _as_far(
    control: str, aim: float, tone: Tone, small: Picture16, lines: Lines, allowed: Clipping
) -> Tone:
    """``tone`` with ``control`` as near to ``aim`` as clipping allows, by bisection."""
    low, high = 0.0, 1.0
    if not _clips(_with(tone, control, aim), small, lines, allowed):
        return _with(tone, control, aim)
    for _ in range(_TRIES):
        middle = (low + high) / 2
        if _clips(_with(tone, control, aim * middle), small, lines, allowed):
            high = middle
        else:
            low = middle
    return _with(tone, control, aim * low)


def _with(tone: Tone, control: str, value: float) -> Tone:
    digits = 2 if control == "exposure" else 0
    return tone.model_copy(update={control: round(value, digits)})


def _clips(tone: Tone, small: Picture16, lines: Lines, allowed: Clipping) -> bool:
    found = clipping_of(toned(small, tone, lines=lines))
    return found.high - allowed.high > NEWLY_CLIPPED or found.low - allowed.low > NEWLY_CLIPPED


def _picked(photo: AnyPicture, step: int) -> Picture16:
    """Every so many pixels alone: averaged ones would hide the noise, which clips first."""
    start = min(step // 2, photo.shape[0] - 1, photo.shape[1] - 1)
    return encode_16_bits(to_linear(photo[start::step, start::step]))


def _percentile(picture: Picture16, percent: float) -> float:
    brightness = picture[:, :, :3] @ np.array(LUMINANCE) / 65_535
    return float(np.percentile(brightness, percent))
