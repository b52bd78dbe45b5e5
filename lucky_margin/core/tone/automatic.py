"""A proposal for the ordinary controls, measured on the photo.

What is wrong is looked for in turn: a cast (``cast``), a veil (``haze``), too little or too much
light and contrast, pale colours, noise that the rest would show. Every measure counts smoothly, so
that photos which hardly differ get proposals which hardly differ, and what lies within the usual
range is left alone. What is flat is aimed at more than the usual, since it has lost both ends.

Exposure, black point, white point and contrast are the least ones that bring four figures of the
photo's brightness into their usual range: the sum of squares of what they miss and of the controls
themselves is smallest (K. Levenberg, "A method for the solution of certain non-linear problems in
least squares", 1944). The ranges and weights were found by damaging clear photos and repairing
them.
"""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import NEUTRAL_KELVIN, Box, Tone
from lucky_margin.core.oklab import picture_from_light
from lucky_margin.core.sampling import as_8_bits, encode_16_bits, shrunk, to_linear
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.tone.apply import toned_values
from lucky_margin.core.tone.bases import LUMINANCE
from lucky_margin.core.tone.cast import cast_of
from lucky_margin.core.tone.curves import contrasted, ends_moved
from lucky_margin.core.tone.haze import air_of, veil_of, veil_shares, with_haze
from lucky_margin.core.tone.noise import noise_of
from lucky_margin.core.tone.white_balance import neutral_settings_of, warmth_moved
from lucky_margin.core.types import AnyPicture, Picture16

WORKING_SIDE = 320
"""Longest side at which the photo is measured, in pixels."""

NOISE_SIDE = 1024
"""Longest side of the middle part whose noise is measured, in photo pixels."""

FOCUS_COUNTS = 3
"""How many times as much what has to stay in view counts."""

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class _Range:
    """Where a figure usually lies, how much it counts, and over how much of its scale that sets
    in."""

    low: float
    high: float
    weight: float
    softness: float = 0.03

    def missed(self, value: float) -> float:
        """How far ``value`` lies outside, 0 well inside, smoothly."""
        below, above = (self.low - value) / self.softness, (value - self.high) / self.softness
        return self.weight * self.softness * float(np.logaddexp(0, above) - np.logaddexp(0, below))


LIGHTEST_WEIGHT, DARKEST_WEIGHT, ENDS_SOFTNESS = 2.7, 0.5, 0.01
"""Of the 99.5th percentile of the largest channel and the half percentile of brightness, encoded.
Where they are wanted an ``_Aim`` says."""
NO_DARKER = 0.03
"""How much darker than wanted the darkest may get."""
BURNT_FROM, BURNT_TO, NO_DIMMER = 0.90, 1.0, 0.02
"""Of the lightest: what is not burnt gets dimmer by no more than that."""
MIDDLE = _Range(-1.0, 0.67, 0.67)
"""Of the median."""
SPREAD = _Range(0.41, 0.71, 0.12)
"""From the 10th to the 90th percentile."""


@dataclass(frozen=True)
class _Aim:
    """What light and contrast are fitted to."""

    lightest: float
    """From where on the lightest is light enough."""
    darkest: float
    """Up to where the darkest is dark enough."""
    most_darkened: float
    """How much darker the darkest is wanted at most."""
    reluctance: Floats
    """What exposure (EV), black point, white point and contrast (of 100) weigh themselves."""

    def towards(self, other: "_Aim", share: float) -> "_Aim":
        return _Aim(
            *(
                getattr(self, name) + share * (getattr(other, name) - getattr(self, name))
                for name in ("lightest", "darkest", "most_darkened", "reluctance")
            )
        )


USUAL = _Aim(0.63, 0.13, 0.15, np.array([0.038, 0.025, 0.088, 0.447]))
FLAT = _Aim(0.72, 0.02, 0.18, np.array([0.08, 0.025, 0.04, 0.11]))
"""Of a photo whose contrast was lost: it gets its ends back by contrast rather than by exposure."""
MOST = np.array([2.5, 0.9, 0.9, 0.6])
STEPS, FIRST_DAMPING = 24, 1e-3

VEIL_SEEN = 2
VEIL_FROM, VEIL_TO, MOST_HAZE = 0.02, 0.3, 90
"""The percentile of the veil's share that counts; up to what it is none, from where it surely is
one, and the haze that is then taken off."""

CLOSE, APART = 0.30, 0.46
"""Of the difference between the lightest and the darkest: up to the one they surely are close."""
BLACK, RAISED = 0.08, 0.22
"""Of the darkest: from the second on it is surely no black."""
DARK, EVEN, LIT, VEILED = 0.66, 0.84, 1.03, 1.20
"""Of the sum of the lightest and the darkest: what is flat has lost at both ends and lies between
the middle two; too little light takes from the lightest alone, a veil from the darkest."""

DIM, MOST_SHADOWS, SHADOWS_BY = 0.33, 45, 200
"""Medians below ``DIM`` have their shadows lifted, by so much for what they lack."""

NIGHT_FROM, NIGHT_TO = 0.11, 0.065
NIGHT_EXPOSURE, NIGHT_SHADOWS, NIGHT_HIGHLIGHTS = 0.8, 30, -80
"""Medians below the one belong to a night, below the other in full, which is lifted by so much more
while what glows in it is held back."""

PALE, LESS_PALE, MOST_COLOUR = 0.028, 0.45, 60
"""Of the mean OKLab chroma below which muted colours are strengthened, as a power of what is
lacking."""

NOISE_FROM, NOISE_TO, MOST_SMOOTHING = 2.5, 8.0, 60
"""Noise in 8-bit steps after the lift, from where it is smoothed and where that is in full."""

SLIGHT = {"exposure": 0.05, "warmth": 60}
SLIGHT_AMOUNT = 2
"""Proposed controls up to this change nothing that is seen."""


def propose_tone(photo: AnyPicture, focus: Box | None = None) -> Tone:
    """Settings of warmth, tint, haze, exposure, end points, contrast, shadows, muted colours and
    noise under which ``photo`` looks about right, a little shy; ``Tone()`` when nothing is wrong.

    What lies in ``focus`` (photo space) counts ``FOCUS_COUNTS`` times.
    """
    light = _small_light(photo)
    warmth, tint = neutral_settings_of(cast_of(light))
    haze = _haze_of(light)
    found = Tone(warmth=warmth, tint=tint)
    picture = _cleared(light, haze)
    figures = _Figures.of(toned_values(picture, found), focus)
    # What is light, if not burnt, stays as light as it was under its veil.
    veiled = _Figures.of(toned_values(encode_16_bits(light), found), focus).lightest
    burnt = _smooth((veiled - BURNT_FROM) / (BURNT_TO - BURNT_FROM))
    kept = (1 - burnt) * max(0.0, min(veiled, BURNT_FROM) - NO_DIMMER - USUAL.lightest)
    aim = USUAL.towards(FLAT, _flatness(figures))
    aim = replace(aim, lightest=max(aim.lightest, USUAL.lightest + kept))
    exposure, black, white, contrast = (float(value) for value in _fitted(figures, aim))
    middle = figures.after(np.array([exposure, black, white, contrast])).middle
    night = _smooth((NIGHT_FROM - middle) / (NIGHT_FROM - NIGHT_TO))
    shadows = _limited(SHADOWS_BY * _short_of(middle, DIM), MOST_SHADOWS)
    exposure += NIGHT_EXPOSURE * night
    black *= 1 - night  # under the noise that is lifted with the rest
    found = found.model_copy(
        update={
            "haze": round(haze),
            "exposure": round(exposure, 2),
            "highlights": round(NIGHT_HIGHLIGHTS * night),
            "shadows": round(shadows + NIGHT_SHADOWS * night),
            "black_point": round(100 * black),
            "white_point": round(100 * white),
            "contrast": round(100 * contrast),
        }
    )
    lifted = 2 ** (exposure * 0.42) * (1 + found.shadows / 100)
    smoothing = round(_smoothing(noise_of(_middle_part(photo)), lifted))
    found = found.model_copy(
        update={
            "muted_colours": round(_colour_lacking(toned_values(picture, found))),
            "noise_reduction": smoothing,
            "colour_noise_reduction": smoothing,
        }
    )
    return _without_slight(found)


def scaled(tone: Tone, share: float) -> Tone:
    """A proposal by ``share`` (over 1: more of it)."""
    fields = {}
    for name in PROPOSED:
        value, most = getattr(tone, name), 5 if name == "exposure" else 100
        if name == "warmth":
            fields[name] = round(warmth_moved(NEUTRAL_KELVIN, value, share), -1)
        else:
            digits = 2 if name == "exposure" else 0
            fields[name] = round(min(max(share * value, -most), most), digits)
    return tone.model_copy(update=fields)


PROPOSED = (
    "exposure",
    "contrast",
    "highlights",
    "shadows",
    "black_point",
    "white_point",
    "haze",
    "warmth",
    "tint",
    "muted_colours",
    "noise_reduction",
    "colour_noise_reduction",
)
"""The controls that a proposal is made of."""


@dataclass(frozen=True)
class _Figures:
    """Encoded brightness, 0..1: what ``_Range`` is told of."""

    darkest: float
    dark: float
    middle: float
    light: float
    lightest: float

    @classmethod
    def of(cls, colours: NDArray[np.float32], focus: Box | None) -> "_Figures":
        """Measured on encoded colours (0..1)."""
        brightness = encode(np.clip(decode(colours.astype(np.float64)) @ LUMINANCE, 0, 1))
        largest = colours.max(axis=2).astype(np.float64)
        values = _counted(brightness, focus)
        darkest, dark, middle, light = np.percentile(values, (0.5, 10, 50, 90))
        return cls(darkest, dark, middle, light, np.percentile(_counted(largest, focus), 99.5))

    def after(self, controls: Floats) -> "_Figures":
        """The same once exposure, black point, white point and contrast are set; what is clipped
        goes on past 0 and 1."""
        exposure, black, white, contrast = controls
        values = np.array([self.darkest, self.dark, self.middle, self.light, self.lightest])
        linear = decode(values) * 2**exposure
        # Past white, by the slope that the encoding has there.
        lit = np.where(linear > 1, 1 + 0.44 * (linear - 1), encode(np.minimum(linear, 1)))
        ended = ends_moved(lit, 100 * black, 100 * white)
        inside = np.clip(ended, 0, 1)
        return _Figures(*(contrasted(inside, 100 * contrast) + ended - inside).tolist())

    def missed(self, before: "_Figures", aim: _Aim) -> list[float]:
        """How far each lies outside its usual range, which for the darkest goes by what it was."""
        above = max(0.0, before.darkest - aim.darkest)
        wanted = before.darkest - _limited(above, aim.most_darkened)
        light = _Range(aim.lightest, 1.0, LIGHTEST_WEIGHT, ENDS_SOFTNESS)
        dark = _Range(wanted - NO_DARKER, wanted, DARKEST_WEIGHT, ENDS_SOFTNESS)
        return [
            light.missed(self.lightest),
            dark.missed(self.darkest),
            MIDDLE.missed(self.middle),
            SPREAD.missed(self.light - self.dark),
        ]


def _flatness(figures: _Figures) -> float:
    """How surely contrast was lost, 0..1: the ends lie close together, about the middle."""
    ends = figures.lightest + figures.darkest
    return (
        _smooth((APART - (figures.lightest - figures.darkest)) / (APART - CLOSE))
        * _smooth((figures.darkest - BLACK) / (RAISED - BLACK))
        * _smooth((ends - DARK) / (EVEN - DARK))
        * (1 - _smooth((ends - LIT) / (VEILED - LIT)))
    )


def _fitted(figures: _Figures, aim: _Aim) -> Floats:
    """Exposure, black point, white point and contrast."""

    def residuals(at: Floats) -> Floats:
        return np.array([*figures.after(at).missed(figures, aim), *(aim.reluctance * at)])

    controls, damping = np.zeros(4), FIRST_DAMPING
    now = residuals(controls)
    for _ in range(STEPS):
        slopes = np.stack([(residuals(controls + step) - now) / 1e-4 for step in 1e-4 * np.eye(4)])
        uphill = slopes @ now
        free = np.where(uphill > 0, controls > -MOST, controls < MOST)
        step = np.zeros(4)
        step[free] = np.linalg.solve(
            (slopes @ slopes.T)[np.ix_(free, free)] + damping * np.eye(free.sum()), uphill[free]
        )
        tried = np.clip(controls - step, -MOST, MOST)
        then = residuals(tried)
        if then @ then < now @ now:
            controls, now, damping = tried, then, damping / 4
        else:
            damping *= 4
    return controls


def _small_light(photo: AnyPicture) -> NDArray[np.float32]:
    height, width = photo.shape[:2]
    shrink = min(1.0, WORKING_SIDE / max(height, width))
    sides = max(1, round(width * shrink)), max(1, round(height * shrink))
    return np.ascontiguousarray(to_linear(shrunk(photo, *sides))[:, :, :3])


def _haze_of(light: NDArray[np.float32]) -> float:
    """How much haze to take off: none unless even the least veiled parts have some."""
    shares = veil_shares(light, air_of(encode_16_bits(light)))
    is_veiled = _smooth(
        (float(np.percentile(shares, VEIL_SEEN)) - VEIL_FROM) / (VEIL_TO - VEIL_FROM)
    )
    # A veil raises the darkest without dimming the lightest; what is flat does a little of both.
    ends = np.percentile(light.max(axis=2), 99.5), np.percentile(light @ LUMINANCE, 0.5)
    is_light = _smooth((float(np.sum(encode(np.array(ends)))) - LIT) / (VEILED - LIT))
    return MOST_HAZE * is_veiled * is_light


def _cleared(light: NDArray[np.float32], haze: float) -> Picture16:
    """The small picture at 16 bits, without its haze."""
    picture = encode_16_bits(light)
    if haze == 0:
        return picture
    rows, columns = picture.shape[:2]
    air = air_of(picture)
    laid = veil_of(picture, air, columns).laid(Affine(1, 0, 0, 1), (0, 0, columns, rows))
    return with_haze(picture, haze, air, laid)


def _counted(values: Floats, focus: Box | None) -> Floats:
    """``values`` with those in ``focus`` as often as they count."""
    if focus is None:
        return values.ravel()
    rows, columns = values.shape
    box = focus.scaled(columns, rows)
    inside = values[round(box.top) : round(box.bottom), round(box.left) : round(box.right)]
    return np.concatenate([values.ravel(), *[inside.ravel()] * (FOCUS_COUNTS - 1)])


def _colour_lacking(colours: NDArray[np.float32]) -> float:
    lab = picture_from_light(decode(colours.astype(np.float64)).astype(np.float32))
    chroma = max(float(np.hypot(lab[:, :, 1], lab[:, :, 2]).mean()), 1e-3)
    # What has hardly any colour is meant to have none.
    is_coloured = _smooth(chroma / (0.3 * PALE))
    return is_coloured * _limited(100 * ((PALE / min(chroma, PALE)) ** LESS_PALE - 1), MOST_COLOUR)


def _smoothing(noise: float, lifted: float) -> float:
    """As far as a lift makes ``noise`` visible."""
    seen = noise * max(lifted, 1.0)
    return (
        MOST_SMOOTHING
        * _smooth((seen - NOISE_FROM) / (NOISE_TO - NOISE_FROM))
        * _smooth((lifted - 1) / 0.5)
    )


def _middle_part(photo: AnyPicture) -> NDArray[np.uint8]:
    height, width = photo.shape[:2]
    top, left = max(0, (height - NOISE_SIDE) // 2), max(0, (width - NOISE_SIDE) // 2)
    return as_8_bits(photo[top : top + NOISE_SIDE, left : left + NOISE_SIDE])


def _without_slight(tone: Tone) -> Tone:
    """``tone``, or nothing at all when no control would be seen."""
    fresh = Tone()
    if all(
        abs(getattr(tone, name) - getattr(fresh, name)) <= SLIGHT.get(name, SLIGHT_AMOUNT)
        for name in PROPOSED
    ):
        return fresh
    return tone


def _short_of(value: float, wanted: float) -> float:
    """How far ``value`` lies below ``wanted``, beginning smoothly."""
    lacking = max(0.0, wanted - value)
    return lacking * _smooth(lacking / 0.06)


def _limited(value: float, most: float) -> float:
    """``value``, which ever more slowly comes near to ``most``."""
    return most * float(np.tanh(value / most))


def _smooth(t: float) -> float:
    t = min(max(t, 0.0), 1.0)
    return t * t * (3 - 2 * t)
