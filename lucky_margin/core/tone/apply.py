"""Applying a tone to sampled pixels."""

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import HueBands, Tone, rgb_of
from lucky_margin.core.sampling.srgb import decode_table, encode_table
from lucky_margin.core.tone.curves import luminance_curve
from lucky_margin.core.tone.hues import by_hue
from lucky_margin.core.tone.kernel import tone_pixels
from lucky_margin.core.tone.looks import with_look
from lucky_margin.core.tone.white_balance import balance_matrix
from lucky_margin.core.types import Picture8, Picture16

_NO_LINES = np.zeros((0, 0, 2), np.float32)
_NO_CURVE = np.zeros(0)
_BY_STRENGTH, _BY_HUE = 1.0, 2.0


def needs_bases(tone: Tone) -> bool:
    """Whether a control acts by region."""
    whole = with_look(tone)
    return bool(whole.highlights or whole.shadows or whole.clarity)


def toned(
    picture: Picture16,
    tone: Tone,
    *,
    lines: NDArray[np.float32] | None = None,
    origin: tuple[int, int] = (0, 0),
) -> Picture8:
    """``picture`` (16 bits) with ``tone``, dithered to 8 bits.

    ``lines`` are the bases laid under it (see ``Bases.laid``), which highlights, shadows and
    clarity need; ``origin`` its absolute place in the output, which the dither needs.
    """
    whole = with_look(tone)
    curve = luminance_curve(whole)
    balance = balance_matrix(whole.temperature, whole.tint) * 2**whole.exposure
    local = np.array([100 * whole.exposure, whole.shadows, whole.highlights, whole.clarity]) / 100
    colour = np.array([0.0, whole.saturation, whole.vibrance, whole.grey]) / 100
    has_bands = whole.bands != HueBands()
    if colour[1:].any() or has_bands:
        # Vibrance and bands need a colour's hue, the others only its strength.
        colour[0] = _BY_HUE if whole.vibrance or has_bands else _BY_STRENGTH
    return tone_pixels(
        picture,
        decode_table(picture.dtype),
        encode_table(),
        balance.ravel(),
        local,
        _NO_LINES if lines is None else lines,
        _NO_CURVE if curve is None else curve,
        colour,
        by_hue(whole.bands),
        _tints(whole),
        *origin,
    )


def _tints(tone: Tone) -> NDArray[np.float64]:
    """Recolouring and fading as the fused pass takes them."""
    recolour, fade = tone.recolour, tone.fade
    return np.array(
        [
            recolour.strength / 100,
            *_rgb(recolour.dark),
            *_rgb(recolour.light),
            fade.amount / 100,
            *_rgb(fade.colour or "#000000"),
            float(fade.colour is None),
        ]
    )


def _rgb(colour: str) -> list[float]:
    return [code / 255 for code in rgb_of(colour)]
