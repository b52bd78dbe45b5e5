"""The fused pass against the same steps written down slowly in numpy, in the published order."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import HUE_NAMES, Tone
from lucky_margin.core.oklab import from_light, to_light
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.tone import OnPhoto, area_coverage, toned, toned_values
from lucky_margin.core.tone.curves import STEPS, luminance_curve
from lucky_margin.core.tone.hues import HUE_STEPS, by_hue
from lucky_margin.core.tone.washes import STEPS as WASH_STEPS
from lucky_margin.core.tone.washes import wash_colours
from lucky_margin.core.tone.white_balance import balance_matrix

LUMINANCE = np.array([0.2126390059, 0.7151686788, 0.0721923154])
SIDES = 37, 300
"""Of the pictures: more than one block across."""

amounts = st.one_of(st.just(0.0), st.floats(-100, 100))
BOTH_WAYS = (
    *("contrast", "highlights", "shadows", "white_point", "black_point", "tint"),
    *("saturation", "muted_colours", "local_contrast"),
)
light_and_colour = st.fixed_dictionaries(
    {
        "exposure": st.one_of(st.just(0.0), st.floats(-4, 4)),
        **dict.fromkeys(BOTH_WAYS, amounts),
        "warmth": st.one_of(st.just(6500.0), st.floats(2500, 15_000)),
        "black_and_white": st.one_of(st.just(0.0), st.floats(0, 100)),
    }
)
hues = st.fixed_dictionaries(
    {
        name: st.fixed_dictionaries(
            {"turn": st.floats(-30, 30), "strength": amounts, "lightness": amounts}
        )
        for name in HUE_NAMES[:3]
    }
)


def picture(seed=0):
    """Noise over all colours, a grey ramp, black and white, at 16 bits."""
    rows, columns = SIDES
    out = np.random.default_rng(seed).integers(0, 65536, (rows, columns, 3), dtype=np.uint16)
    out[0] = np.linspace(0, 65535, columns).astype(np.uint16)[:, None]
    out[1, : columns // 2], out[1, columns // 2 :] = 0, 65535
    return out


def lines(seed=1):
    """Bases as ``Bases.laid`` gives them: slopes of 0 to 1, and offsets in EV."""
    rng = np.random.default_rng(seed)
    return np.dstack([rng.random(SIDES), rng.normal(-1, 1, SIDES)]).astype(np.float32)


def smooth(t):
    t = np.clip(t, 0, 1)
    return t * t * (3 - 2 * t)


def regions_of(light, laid):
    """Brightness of the regions and what pixels are above it, in EV from mid-grey."""
    own = np.log2(np.maximum(light @ LUMINANCE, 2.0**-12) / 0.18)
    base = laid[..., 0] * own + laid[..., 1]
    return base, own - base


def adjusted(light, tone, base=None, detail=None):
    """Steps 1 to 6 of one layer, in linear light, and how far it moves its regions."""
    light = light @ balance_matrix(tone.warmth, tone.tint).T * 2**tone.exposure
    moved = tone.exposure
    if base is not None:
        was, base = base, base + moved
        lit = 1.2 * tone.highlights / 100 * smooth(base / np.log2(1 / 0.18))
        too_bright = max(moved, 0) + np.maximum(was - 2.4, 0)
        on_paper = np.maximum(lit, -0.18 - too_bright)
        paper = smooth((was - 1) / 1.4)
        gain = 1.8 * tone.shadows / 100 * smooth(-base / 4) + (1 - paper) * lit + paper * on_paper
        moved = moved + gain
        light = light * 2 ** (gain + 0.8 * tone.local_contrast / 100 * detail)[..., None]
    curve = luminance_curve(tone)
    if curve is not None:
        y = light @ LUMINANCE
        wanted = np.interp(encode(np.clip(y, 0, 1)) * STEPS, np.arange(STEPS + 1), curve)
        scaled = light * (wanted / np.maximum(y, 1e-6))[..., None]
        light = np.where((y > 1e-6)[..., None], scaled, wanted[..., None])
    return coloured(light, tone), moved


def coloured(light, tone):
    """Step 6, in OKLCH."""
    lab = from_light(light)
    chroma, hue = np.hypot(lab[..., 1], lab[..., 2]), np.arctan2(lab[..., 2], lab[..., 1])
    places = (hue + np.pi) / (2 * np.pi) * HUE_STEPS
    turn, more, lift, spared = (
        np.interp(places, np.arange(HUE_STEPS + 1), table) for table in by_hue(tone.hues)
    )
    muted = tone.muted_colours / 100
    weight = chroma / (chroma + 0.04)
    weak = 1 - np.minimum(chroma / 0.25, 1) if muted > 0 else 1.0
    factor = (1 + tone.saturation / 100) * (1 - tone.black_and_white / 100)
    factor = factor * (1 + muted * weak * (1 - spared)) * (1 + more * weight)
    lightness = lab[..., 0]
    room = np.where((lightness > 0) & (lightness < 1), 4 * lightness * (1 - lightness), 0)
    lightness = lightness + lift * weight * room
    strength = chroma * factor
    return to_light(
        np.dstack([lightness, strength * np.cos(hue + turn), strength * np.sin(hue + turn)])
    )


def in_gamut(light):
    """Step 8: towards the grey of the same luminance, by as little as it takes."""
    y = np.clip(light @ LUMINANCE, 0, 1)[..., None]
    high, low = light.max(axis=-1, keepdims=True), light.min(axis=-1, keepdims=True)
    above = np.where(high > 1, (1 - y) / np.maximum(high - y, 1e-6), 1)
    below = np.where(low < 0, y / np.maximum(y - low, 1e-6), 1)
    return np.clip(y + np.minimum(above, below) * (light - y), 0, 1)


def slowly(pixels, tone, laid=None):
    """The whole order, before the dither: encoded, 0..1."""
    light = decode(pixels / 65535)
    base = detail = None
    if laid is not None:
        base, detail = regions_of(light, laid)
    out, moved = adjusted(light, tone, base, detail)
    at = None if base is None else base + moved
    whole = OnPhoto(pixels.shape[1], pixels.shape[0])
    for area in tone.areas:
        share = area_coverage(pixels, area, on_photo=whole, lines=laid) * area.strength / 100
        other, moved = adjusted(out, Tone(**area.settings), at, detail)
        out = out + share[..., None] * (other - out)
        at = None if at is None else at + share * moved
    return encode(in_gamut(out))


def wash_across(wash):
    """How much a wash from left to right counts at each column, and its colour there."""
    columns = SIDES[1]
    start, end = wash.start.x * columns, wash.end.x * columns
    t = np.clip((np.arange(columns) + 0.5 - start) / (end - start), 0, 1)
    off = 2 * np.minimum(t, 1 - t)
    share = wash.opacity / 100 * (1 - smooth(2 * (off - 1.5 * wash.reach / 100 + 0.5)))
    places, steps = t * WASH_STEPS, np.arange(WASH_STEPS + 1)
    table = wash_colours(wash.stops)
    return share, np.stack([np.interp(places, steps, part) for part in table.T], axis=-1)


class GlobalTest(unittest.TestCase):
    @settings(max_examples=60)
    @given(fields=light_and_colour, hues=st.one_of(st.none(), hues))
    def test_light_and_colour_of_the_whole_photo(self, fields, hues):
        by_region = {"highlights": 0, "shadows": 0, "local_contrast": 0}
        tone = Tone.model_validate(fields | by_region | ({"hues": hues} if hues else {}))
        found = toned_values(picture(), tone)
        np.testing.assert_allclose(found, slowly(picture(), tone), atol=1e-3)

    @settings(max_examples=60)
    @given(fields=light_and_colour)
    def test_what_acts_by_region(self, fields):
        tone = Tone.model_validate(fields)
        wanted = 255 * slowly(picture(), tone, lines())
        found = toned(picture(), tone, lines=lines())
        self.assertLess(np.abs(found - wanted).max(), 1.1)
        self.assertLess(abs((found - wanted).mean()), 0.02)


class AreaTest(unittest.TestCase):
    @settings(max_examples=40)
    @given(
        fields=light_and_colour,
        masks=st.lists(
            st.sampled_from(
                [
                    {"kind": "ellipse", "radius_x": 0.2, "radius_y": 0.3},
                    {"kind": "band", "start": {"x": 0.3, "y": 0}, "end": {"x": 0.7, "y": 1}},
                    {"kind": "light", "low": 20, "high": 60, "softness": 40},
                    {"kind": "hue", "hue": 60, "reach": 50, "softness": 50, "inverted": True},
                ]
            ),
            min_size=1, max_size=2,
        ),
        strength=st.floats(1, 100),
    )  # fmt: skip
    def test_areas_after_one_another(self, fields, masks, strength):
        first = {"masks": masks, "strength": strength, "exposure": 0.8, "saturation": 40}
        second = {"masks": masks[:1], "strength": 60, "shadows": 50, "warmth": 5740}
        tone = Tone.model_validate(fields | {"areas": [first, second]})
        wanted = 255 * slowly(picture(), tone, lines())
        found = toned(picture(), tone, lines=lines())
        self.assertLess(np.abs(found - wanted).max(), 1.1)


class WashTest(unittest.TestCase):
    @settings(max_examples=30)
    @given(reach=st.floats(0, 100), opacity=st.floats(1, 100), start=st.floats(0, 0.4))
    def test_a_wash_by_its_reach_and_opacity(self, reach, opacity, start):
        wash = {"start": {"x": start, "y": 0.5}, "end": {"x": 0.9, "y": 0.5}, "blend": "normal"}
        tone = Tone.model_validate({"washes": [wash | {"reach": reach, "opacity": opacity}]})
        share, source = wash_across(tone.washes[0])
        plain = picture() / 65535
        wanted = 255 * (plain + share[:, None] * (source - plain))
        self.assertLess(np.abs(toned(picture(), tone) - wanted).max(), 1.1)
