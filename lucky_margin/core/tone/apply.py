"""Applying a tone to sampled pixels."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import Area, Hues, Tone, rgb_of
from lucky_margin.core.sampling.srgb import decode_table
from lucky_margin.core.tone.areas import mask_rows, needs_regions, subject_edges
from lucky_margin.core.tone.curves import STEPS, luminance_curve
from lucky_margin.core.tone.hues import by_hue
from lucky_margin.core.tone.kernel import (
    Layers,
    Overlays,
    area_shares,
    tone_pixels,
    tone_values,
)
from lucky_margin.core.tone.looks import with_look
from lucky_margin.core.tone.oklch import BY_BANDS, BY_SKIN, BY_STRENGTH
from lucky_margin.core.tone.on_photo import OnPhoto
from lucky_margin.core.tone.washes import wash_rows
from lucky_margin.core.tone.white_balance import balance_matrix
from lucky_margin.core.types import Picture8, Picture16

Floats = NDArray[np.float64]
Lines = NDArray[np.float32]
Planes = NDArray[np.float32]

_NO_LINES: Lines = np.zeros((0, 0, 2), np.float32)
_NO_SUBJECT: Planes = np.zeros((0, 0, 0), np.float32)
_NO_CURVE: Floats = np.zeros(STEPS + 1)


def set_areas(tone: Tone) -> list[Area]:
    """The areas that change anything."""
    return [area for area in tone.areas if area.is_set]


def needs_bases(tone: Tone) -> bool:
    """Whether anything acts by region."""
    whole = with_look(tone)
    by_region = whole.highlights or whole.shadows or whole.local_contrast
    return bool(by_region) or any(needs_regions(area) for area in set_areas(whole))


def toned(
    picture: Picture16,
    tone: Tone,
    *,
    on_photo: OnPhoto | None = None,
    lines: Lines | None = None,
    subject: Planes | None = None,
    origin: tuple[int, int] = (0, 0),
) -> Picture8:
    """``picture`` (16 bits) with ``tone``, dithered to 8 bits.

    ``on_photo`` says where it lies on its photo, which areas and washes need (without, it is the
    whole photo); ``lines`` are the bases laid under it (see ``Bases.laid``), which whatever acts
    by region needs; ``subject`` is what the subject covers of it (0..1) at each of the edges that
    areas ask for (see ``subject_edges``), shape (n, height, width); ``origin`` is its absolute
    place in the output.

    Raises:
        ValueError: an area asks for the subject and none is given.
    """
    whole = with_look(tone)
    place = on_photo or _all_of(picture)
    layers = _layers(whole, set_areas(whole), place, lines, subject)
    return tone_pixels(read_only(picture), _decode(), layers, _overlays(whole, place), *origin)


def toned_values(picture: Picture16, tone: Tone) -> NDArray[np.float32]:
    """The colours of ``toned`` before the dither, encoded (0..1), without what acts by place."""
    whole = with_look(tone).model_copy(update={"areas": (), "washes": ()})
    place = _all_of(picture)
    return tone_values(
        read_only(picture), _decode(), _layers(whole, [], place), _overlays(whole, place)
    )


def area_coverage(
    picture: Picture16,
    area: Area,
    *,
    on_photo: OnPhoto,
    lines: Lines | None = None,
    subject: Planes | None = None,
    origin: tuple[int, int] = (0, 0),
) -> NDArray[np.float32]:
    """How much of each pixel of the untouched ``picture`` lies in ``area`` (0..1), shape
    (height, width); the area's strength aside. The rest is as in ``toned``."""
    layers = _layers(Tone(), [area], on_photo, lines, subject)
    return area_shares(read_only(picture), _decode(), layers, 1, *origin)


def _all_of(picture: Picture16) -> OnPhoto:
    height, width = picture.shape[:2]
    return OnPhoto(width, height)


def _decode() -> NDArray[np.float32]:
    return decode_table(np.dtype(np.uint16))


def _layers(
    tone: Tone,
    areas: Sequence[Area],
    on_photo: OnPhoto,
    lines: Lines | None = None,
    subject: Planes | None = None,
) -> Layers:
    if len(subject_edges(areas)) > (0 if subject is None else len(subject)):
        raise ValueError("an area asks for the subject; say what it covers")
    tones = [tone, *(Tone(**area.settings) for area in areas)]
    curves = [luminance_curve(one) for one in tones]
    return Layers(
        balance=np.array([_balance(one) for one in tones], np.float32),
        local=np.array(
            [[100 * t.exposure, t.shadows, t.highlights, t.local_contrast] for t in tones],
            np.float32,
        )
        / np.float32(100),
        curves=np.array([_NO_CURVE if curve is None else curve for curve in curves], np.float32),
        has_curve=np.array([curve is not None for curve in curves]),
        colour=np.array([_colour(one) for one in tones], np.float32),
        by_hue=np.array([by_hue(one.hues) for one in tones], np.float32),
        strength=np.array([1.0, *(area.strength / 100 for area in areas)], np.float32),
        masks=mask_rows(areas, on_photo),
        lines=read_only(_NO_LINES if lines is None else lines),
        subject=read_only(_NO_SUBJECT if subject is None else subject),
    )


def _balance(tone: Tone) -> Floats:
    return (balance_matrix(tone.warmth, tone.tint) * 2**tone.exposure).ravel()


def _colour(tone: Tone) -> list[float]:
    """How colours change, and how much of OKLCH that needs."""
    has_hues = tone.hues != Hues()
    changes = [tone.saturation / 100, tone.muted_colours / 100, tone.black_and_white / 100]
    if not (any(changes) or has_hues):
        return [0.0, *changes]
    if has_hues:
        return [BY_BANDS, *changes]
    return [BY_SKIN if tone.muted_colours else BY_STRENGTH, *changes]


def _overlays(tone: Tone, on_photo: OnPhoto) -> Overlays:
    duotone, fade = tone.duotone, tone.fade
    tint = np.array(
        [
            duotone.strength / 100,
            *_rgb(duotone.dark),
            *_rgb(duotone.light),
            fade.amount / 100,
            *_rgb(fade.colour or "#000000"),
            float(fade.colour is None),
        ]
    )
    return Overlays(tint, *wash_rows(tone.washes, on_photo))


def _rgb(colour: str) -> list[float]:
    return [code / 255 for code in rgb_of(colour)]
