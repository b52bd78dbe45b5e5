"""Tone: identity, order and greys kept, no halos, fine steps, and the tasks it is there for."""

import unittest

import cv2
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import (
    HUE_NAMES,
    CurvePoint,
    Duotone,
    Export,
    Fade,
    Hues,
    HueShift,
    StockLook,
    Tone,
)
from lucky_margin.core.render import render
from lucky_margin.core.sampling import place_at_16_bits, sample
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.scene import Scene
from lucky_margin.core.tone import (
    LOOKS,
    Neutral,
    bases_of,
    clipping_of,
    curve_line,
    detailed,
    histogram_of,
    neutral_settings,
    propose_tone,
    toned,
    with_look,
)
from lucky_margin.core.tone.curves import STEPS, end_places, luminance_curve
from lucky_margin.core.tone.hues import HUE_STEPS, by_hue
from lucky_margin.core.tone.white_balance import RGB_TO_XYZ, balance_matrix, neutral_settings_of
from tests.support import SHA, demo_sources, finish_of, noise, scene_of, sources_of
from tests.truth.damage import decoded, encoded

PNG = Export(format="png")
amounts = st.floats(-100, 100)
greys = np.repeat(np.linspace(0, 65535, 512).round().astype(np.uint16)[None, :, None], 3, axis=2)


def linear(picture):
    return decode(picture / np.iinfo(picture.dtype).max)


def oklab(picture):
    """B. Ottosson's OKLab of a picture, in plain numpy."""
    to_lms = np.array(
        [
            [0.4122214708, 0.5363325363, 0.0514459929],
            [0.2119034982, 0.6806995451, 0.1073969566],
            [0.0883024619, 0.2817188376, 0.6299787005],
        ]
    )
    to_lab = np.array(
        [
            [0.2104542553, 0.7936177850, -0.0040720468],
            [1.9779984951, -2.4285922050, 0.4505937099],
            [0.0259040371, 0.7827717662, -0.8086757660],
        ]
    )
    return np.cbrt(linear(picture)[..., :3] @ to_lms.T) @ to_lab.T


class IdentityTest(unittest.TestCase):
    def test_nothing_set_gives_every_8_bit_value_back(self):
        picture = noise(96, 80).astype(np.uint16) * np.uint16(257)
        np.testing.assert_array_equal(toned(picture, Tone()), noise(96, 80))

    def test_a_tone_at_zero_or_switched_off_is_no_tone(self):
        sources = sources_of(noise(90, 70))
        plain = render(Scene(finish_of(40, 30), finish_of(40, 30).sizes[0], sources))
        for tone in (Tone(), Tone(on=False, exposure=2), Tone(on=False, look=StockLook(key="ink"))):
            finish = finish_of(40, 30, tone=tone)
            np.testing.assert_array_equal(render(scene_of(finish, sources)), plain)

    def test_before_shows_no_tone(self):
        sources = sources_of(noise(90, 70))
        finish = finish_of(40, 30, tone=Tone(exposure=1))
        plain = render(Scene(finish_of(40, 30), finish_of(40, 30).sizes[0], sources))
        before = render(scene_of(finish, sources), view="before")
        np.testing.assert_array_equal(before, plain)


class NeutralTest(unittest.TestCase):
    """Greys stay grey and brighter stays brighter."""

    @settings(max_examples=80)
    @given(
        exposure=st.floats(-5, 5),
        contrast=amounts,
        white=amounts,
        black_end=amounts,
        saturation=amounts,
    )
    def test_greys_stay_grey_and_in_order(self, exposure, contrast, white, black_end, saturation):
        tone = Tone(
            exposure=exposure,
            contrast=contrast,
            white_point=white,
            black_point=black_end,
            saturation=saturation,
        )
        out = toned(greys, tone)[0].astype(int)
        # The dither is the same in all channels.
        self.assertLessEqual(np.ptp(out, axis=1).max(), 1)
        # Order is kept up to the dither, which is below one step.
        self.assertGreaterEqual(np.diff(out[:, 1]).min(), -1)

    @settings(max_examples=60)
    @given(contrast=amounts, white=amounts, black_end=amounts)
    def test_the_curve_rises_everywhere(self, contrast, white, black_end):
        tone = Tone(contrast=contrast, white_point=white, black_point=black_end)
        curve = luminance_curve(tone)
        if curve is not None:
            self.assertGreaterEqual(np.diff(curve).min(), -1e-12)

    @settings(max_examples=60)
    @given(
        colour=st.tuples(*[st.floats(0.05, 0.95)] * 3),
        exposure=st.floats(-2, 2),
    )
    def test_exposure_keeps_the_hue(self, colour, exposure):
        picture = np.rint(np.array(colour) * 65535).astype(np.uint16).reshape(1, 1, 3)
        lifted = linear(picture) * 2**exposure
        before = oklab(picture)[0, 0]
        if lifted.max() > 1 or np.hypot(*before[1:]) < 0.02:
            return
        # Exact on the float result: read it back from 16 bits, which 8 would be too coarse for.
        after = oklab(np.rint(65535 * encode(lifted)).astype(np.uint16))[0, 0]
        turn = np.degrees(np.arctan2(before[2], before[1]) - np.arctan2(after[2], after[1]))
        self.assertLess(abs((turn + 180) % 360 - 180), 1)
        found = toned(picture, Tone(exposure=exposure))[0, 0]
        self.assertLessEqual(np.abs(found - 255 * encode(lifted)[0, 0]).max(), 1.01)

    def test_a_tiny_change_makes_a_tiny_difference_at_the_gamut_s_edge(self):
        ramp = np.zeros((1, 400, 3), np.uint16)
        ramp[0, :, 0] = np.linspace(40000, 65535, 400)
        ramp[0, :, 1] = 9000
        for tone in (Tone(exposure=0.8), Tone(saturation=80), Tone(warmth=8950)):
            steps = np.abs(np.diff(toned(ramp, tone)[0].astype(int), axis=0)).max()
            self.assertLessEqual(steps, 3)


class LightTest(unittest.TestCase):
    def test_exposure_doubles_light(self):
        picture = np.full((1, 1, 3), 20000, np.uint16)
        expected = 255 * encode(linear(picture) * 2)
        self.assertAlmostEqual(
            toned(picture, Tone(exposure=1))[0, 0, 0], expected[0, 0, 0], delta=1
        )

    def test_contrast_turns_about_mid_grey(self):
        grey = np.full((1, 1, 3), round(65535 * float(encode(np.array(0.18)))), np.uint16)
        for contrast in (-100, 60, 100):
            found = int(toned(grey, Tone(contrast=contrast))[0, 0, 0])
            self.assertAlmostEqual(found, grey[0, 0, 0] / 257, delta=1)

    def test_shadows_and_highlights_leave_no_halo(self):
        """Beside a step of a dark and a light field, nothing is more than 3 % past either."""
        photo = np.zeros((120, 400, 3), np.uint8)
        photo[:, :200], photo[:, 200:] = 40, 200
        fine = photo.astype(np.uint16) * np.uint16(257)
        lines = bases_of(photo, 400).laid(Affine(1, 0, 0, 1), (0, 0, 400, 120))
        for tone in (Tone(shadows=100), Tone(highlights=-100), Tone(shadows=80, highlights=-80)):
            row = toned(fine, tone, lines=lines)[60, :, 0].astype(float)
            dark, light = row[20], row[380]
            step = light - dark
            with self.subTest(tone=tone):
                self.assertGreater(step, 20)
                self.assertLess((dark - row[:200].min()) / step, 0.03)
                self.assertLess((row[:200].max() - dark) / step, 0.03)
                self.assertLess((row[200:].max() - light) / step, 0.03)
                self.assertLess((light - row[200:].min()) / step, 0.03)

    def test_shadows_lift_the_dark_region_and_leave_the_light_one(self):
        photo = np.zeros((60, 200, 3), np.uint8)
        photo[:, :100], photo[:, 100:] = 30, 220
        fine = photo.astype(np.uint16) * np.uint16(257)
        lines = bases_of(photo, 200).laid(Affine(1, 0, 0, 1), (0, 0, 200, 60))
        row = toned(fine, Tone(shadows=100), lines=lines)[30, :, 0]
        self.assertGreater(row[10], 45)
        self.assertAlmostEqual(int(row[190]), 220, delta=1)

    def flat(self, value, tone):
        """What becomes of a plain photo of one grey."""
        photo = np.full((40, 60, 3), value, np.uint8)
        lines = bases_of(photo, 60).laid(Affine(1, 0, 0, 1), (0, 0, 60, 40))
        fine = photo.astype(np.uint16) * np.uint16(257)
        return float(toned(fine, tone, lines=lines)[20, 30, 0])

    def test_highlights_taken_back_leave_paper_white(self):
        self.assertGreater(self.flat(250, Tone(highlights=-100)), 235)
        self.assertLess(self.flat(200, Tone(highlights=-100)), 175)
        # What exposure would burn comes back, to the same white.
        self.assertEqual(self.flat(250, Tone(exposure=0.9)), 255)
        held = self.flat(250, Tone(exposure=0.9, highlights=-100))
        self.assertTrue(230 < held < 250, held)

    def test_highlights_keep_the_order_of_greys(self):
        for exposure in (-0.5, 0, 0.4, 1):
            for highlights in (-100, -50, -20):
                tone = Tone(exposure=exposure, highlights=highlights)
                greys = [self.flat(value, tone) for value in range(100, 256, 5)]
                with self.subTest(tone=tone):
                    self.assertGreaterEqual(min(np.diff(greys)), 0)

    def test_local_contrast_strengthens_texture_and_keeps_the_mean(self):
        photo = (120 + 12 * np.sin(np.arange(300) / 4)[None, :, None]).repeat(80, 0).repeat(3, 2)
        photo = photo.round().astype(np.uint8)
        fine = photo.astype(np.uint16) * np.uint16(257)
        lines = bases_of(photo, 300).laid(Affine(1, 0, 0, 1), (0, 0, 300, 80))
        out = toned(fine, Tone(local_contrast=100), lines=lines).astype(float)
        self.assertGreater(out.std(), 1.4 * photo.std())
        self.assertAlmostEqual(out.mean(), photo.mean(), delta=2)


class FineTest(unittest.TestCase):
    def test_a_16_bit_ramp_stays_fine_to_the_last_step(self):
        ramp = np.linspace(6000, 50000, 6000).astype(np.uint16)
        photo = np.ascontiguousarray(np.broadcast_to(ramp[None, :, None], (4, 6000, 3)))
        laid = place_at_16_bits(photo, Affine(1.0001, 0, 0, 1), (0, 0, 5990, 4))
        self.assertGreater(len(np.unique(laid[0, :, 0])), 4096)
        out = toned(laid, Tone(exposure=-0.5, contrast=10))
        # Dithered: no run of one value is 1.5 times as long as its step on the ramp.
        row = out[1, :, 0].astype(int)
        runs = np.diff(np.flatnonzero(np.append(True, np.append(np.diff(row) != 0, True))))
        steps = len(row) / (row.max() - row.min())
        self.assertLess(runs.max(), 1.5 * steps)


class DetailTest(unittest.TestCase):
    """Noise goes, edges stay; texture both ways; sharpening at the export's size."""

    def noisy(self, sigma=10):
        """A step and a soft ramp under Gaussian noise, and the same without it."""
        clean = np.full((200, 300, 3), 90.0)
        clean[:, 150:] = 170
        clean[100:] += np.linspace(-30, 30, 300)[None, :, None]
        grain = np.random.default_rng(11).normal(0, sigma, clean.shape)
        return clean, (clean + grain).clip(0, 255)

    def smoothed(self, picture, **fields):
        fine = np.rint(picture * 257).astype(np.uint16)
        out = detailed(fine, Tone(**fields), step=1, scale=1, long_side=300)
        return out / 257

    def psnr(self, picture, clean):
        return 10 * np.log10(255**2 / ((picture - clean) ** 2).mean())

    def test_noise_goes_by_4_db_and_the_step_keeps_its_contrast(self):
        clean, noisy = self.noisy()
        out = self.smoothed(noisy, noise_reduction=60, colour_noise_reduction=100)
        self.assertGreater(self.psnr(out, clean), self.psnr(noisy, clean) + 4)
        # Right beside the step, over the upper half, which is flat.
        step = out[:100, 151:153].mean() - out[:100, 147:149].mean()
        self.assertGreater(step, 0.9 * 80)

    def test_noise_of_a_sensor_goes_and_a_clear_photo_stays(self):
        """Noise grows with the light, and neighbours share a little of it."""
        photo = demo_sources("shelf-wide.jpg").level(SHA, 0)[500:900, 900:1300]
        clear = cv2.GaussianBlur(photo, (0, 0), 0.6).astype(float)
        light = decoded(clear / 255)
        grain = np.random.default_rng(5).standard_normal((401, 401, 3))
        shared = (grain[1:, 1:] + 0.5 * grain[:-1, 1:] + 0.5 * grain[1:, :-1]) / np.sqrt(1.5)
        noisy = 255 * encoded(light + np.sqrt(0.0012**2 + 0.0005 * light) * shared)
        self.assertLess(self.psnr(noisy, clear), 39.5)
        out = self.smoothed(noisy, noise_reduction=50, colour_noise_reduction=50)
        self.assertGreater(self.psnr(out, clear), 43.5)
        kept = self.smoothed(clear, noise_reduction=30, colour_noise_reduction=30)
        self.assertGreater(self.psnr(kept, clear), 47)

    def test_noise_of_colour_goes_alone(self):
        _, noisy = self.noisy()
        out = self.smoothed(noisy, colour_noise_reduction=100)
        weights = np.array([0.2126, 0.7152, 0.0722])
        np.testing.assert_allclose(out @ weights, noisy @ weights, atol=0.6)
        before, after = (np.ptp(picture, axis=2).mean() for picture in (noisy, out))
        self.assertLess(after, 0.35 * before)

    def test_texture_strengthens_and_calms_and_keeps_the_mean(self):
        waves = (120 + 10 * np.sin(np.arange(900) / 2.2)[None, :, None]).repeat(60, 0).repeat(3, 2)
        fine = np.rint(waves * 257).astype(np.uint16)
        spread = {}
        for texture in (-80, 0, 80):
            out = detailed(fine, Tone(fine_detail=texture), step=1, scale=1, long_side=3600) / 257
            spread[texture] = out.std()
            self.assertAlmostEqual(out.mean(), 120, delta=0.5)
        self.assertLess(spread[-80], 0.75 * spread[0])
        self.assertGreater(spread[80], 1.25 * spread[0])

    def test_sharpening_steepens_an_edge_of_the_export(self):
        x = np.arange(100)
        edge = (128 + 60 * np.tanh((x - 50) / 1.5))[None, :, None].repeat(20, 0).repeat(3, 2)
        out = self.smoothed(edge, sharpening=100)
        self.assertGreater(np.diff(out[10, :, 0]).max(), 1.2 * np.diff(edge[10, :, 0]).max())

    def test_all_at_zero_is_the_identity(self):
        fine = noise(40, 30, dtype=np.uint16)
        out = detailed(fine, Tone(), step=1, scale=1, long_side=40)
        self.assertLessEqual(np.abs(out.astype(int) - fine).max(), 1)

    def test_previews_and_regions_show_what_the_export_will_have(self):
        sources = demo_sources("kiln-night.jpg")
        tone = Tone(
            exposure=1, noise_reduction=60, colour_noise_reduction=80, fine_detail=30, sharpening=50
        )
        finish = finish_of(900, 600, tone=tone, export=PNG)
        full = render(scene_of(finish, sources))
        half = render(scene_of(finish, sources), scale=0.5)
        shrunk = sample(full, left=0, top=0, step_x=2, step_y=2, region=(0, 0, 450, 300))
        difference = np.abs(shrunk.astype(int) - half)
        self.assertLessEqual(difference.mean(), 1.5)
        self.assertLessEqual(np.percentile(difference, 99), 8)
        part = render(scene_of(finish, sources), region=(300, 200, 250, 140))
        self.assertLessEqual(np.abs(part.astype(int) - full[200:340, 300:550]).max(), 1)


class ColourTest(unittest.TestCase):
    ramp = np.stack(np.meshgrid(*[np.linspace(3000, 60000, 9)] * 2), axis=-1)

    def coloured(self):
        third = np.full((9, 9, 1), 30000.0)
        return np.concatenate([self.ramp, third], axis=2).round().astype(np.uint16)

    def test_grey_takes_all_colour_and_keeps_lightness(self):
        picture = self.coloured()
        out = toned(picture, Tone(black_and_white=100))
        self.assertLessEqual(np.ptp(out.astype(int), axis=2).max(), 1)
        np.testing.assert_allclose(oklab(out)[..., 0], oklab(picture)[..., 0], atol=0.006)

    def test_saturation_scales_chroma_where_the_gamut_allows(self):
        picture = np.array([[[30000, 26000, 24000], [22000, 26000, 30000]]], np.uint16)
        before, after = oklab(picture), oklab(toned(picture, Tone(saturation=50)))
        ratio = np.hypot(after[..., 1], after[..., 2]) / np.hypot(before[..., 1], before[..., 2])
        np.testing.assert_allclose(ratio, 1.5, atol=0.12)
        np.testing.assert_allclose(after[..., 0], before[..., 0], atol=0.004)

    def test_muted_colours_spare_skin_and_what_is_strong(self):
        """The weak blue gains more than the strong one and than skin."""
        weak, strong, skin = (24000, 26000, 29000), (9000, 20000, 52000), (50000, 40000, 34000)
        picture = np.array([[weak, strong, skin]], np.uint16)
        before, after = oklab(picture), oklab(toned(picture, Tone(muted_colours=80)))
        gain = np.hypot(after[..., 1], after[..., 2]) / np.hypot(before[..., 1], before[..., 2])
        self.assertGreater(gain[0, 0], 1.4)
        self.assertLess(gain[0, 1], gain[0, 0] - 0.2)
        self.assertLess(gain[0, 2], gain[0, 0] - 0.2)

    def test_warmth_warms_and_tint_goes_to_magenta(self):
        grey = np.full((1, 1, 3), 30000, np.uint16)
        red, green, blue = toned(grey, Tone(warmth=8950))[0, 0].astype(int)
        self.assertGreater(red, blue + 20)
        red, green, blue = toned(grey, Tone(tint=80))[0, 0].astype(int)
        self.assertGreater(min(red, blue), green + 5)
        for settings_ in ((6500, 0), (15_000, 0), (2500, 40), (3990, 0)):
            matrix = balance_matrix(*settings_)
            luminance = np.array([0.2126390059, 0.7151686788, 0.0721923154])
            self.assertAlmostEqual(float(luminance @ matrix @ np.ones(3)), 1, places=9)
        np.testing.assert_array_equal(balance_matrix(6500, 0), np.eye(3))

    def test_more_kelvin_is_warmer_all_the_way_and_without_a_step(self):
        """Across where daylight begins, too; in reciprocal kelvins, which look even."""
        kelvins = 1e6 / np.linspace(1e6 / 2500, 1e6 / 15_000, 400)
        candle_lit = np.array([1, 0.45, 0.12])
        found = np.array([balance_matrix(kelvin, 0) @ candle_lit for kelvin in kelvins])
        warmer = np.log2(found[:, 0] / found[:, 2])
        self.assertGreater(np.diff(warmer).min(), 0)
        self.assertLess(np.abs(np.diff(warmer, 2)).max(), 0.002)

    def test_candle_light_becomes_neutral(self):
        """Grey paper by a candle of 2,600 K: Planck's law, the CIE 1931 observer as fitted by
        C. Wyman et al. (J. Comput. Graph. Tech. 2, 2013)."""
        waves = np.arange(380, 781, 5.0)

        def bump(at, low, high):
            width = np.where(waves < at, low, high)
            return np.exp(-0.5 * ((waves - at) * width) ** 2)

        x = 1.056 * bump(599.8, 0.0264, 0.0323) + 0.362 * bump(442.0, 0.0624, 0.0374)
        x = x - 0.065 * bump(501.1, 0.0490, 0.0382)
        y = 0.821 * bump(568.8, 0.0213, 0.0247) + 0.286 * bump(530.9, 0.0613, 0.0322)
        z = 1.217 * bump(437.0, 0.0845, 0.0278) + 0.681 * bump(459.0, 0.0385, 0.0725)
        glow = waves**-5 / (np.exp(1.4388e7 / (waves * 2600)) - 1)
        xyz = np.array([(glow * part).sum() for part in (x, y, z)])
        light = np.linalg.solve(RGB_TO_XYZ, xyz)
        codes = np.rint(255 * encode(light / light.max() * 0.6)).astype(int)
        found = neutral_settings("#{:02X}{:02X}{:02X}".format(*codes.clip(0, 255)))
        self.assertTrue(found.is_reached)
        self.assertLess(found.warmth, 3200)

    def test_what_ought_to_be_grey_becomes_grey(self):
        for colour in ("#BCAA95", "#7C818E", "#958895", "#AAAAAA"):
            codes = np.array([int(colour[place : place + 2], 16) for place in (1, 3, 5)])
            found = neutral_settings(colour)
            light = balance_matrix(found.warmth, found.tint) @ decode(codes / 255)
            with self.subTest(colour=colour):
                self.assertLess(np.ptp(light) / light.mean(), 0.02)
        self.assertEqual(neutral_settings("#AAAAAA"), Neutral(6500, 0, True))
        self.assertEqual(neutral_settings("#000000"), Neutral(6500, 0, True))

    def test_the_settings_that_make_a_light_grey_are_found_again(self):
        for warmth in (2600, 3990, 4010, 5200, 7100, 14_800):
            for tint in (-98, -31, 0, 64):
                light = np.linalg.solve(balance_matrix(warmth, tint), np.ones(3))
                if light.min() <= 0:  # no colour of the photo's
                    continue
                with self.subTest(warmth=warmth, tint=tint):
                    found = neutral_settings_of(light)
                    self.assertEqual(found, (warmth, tint))

    def test_what_cannot_be_made_grey_comes_as_near_as_the_ranges_allow(self):
        for colour, nearest in (("#0000FF", (15_000, -100)), ("#802000", (2500, -100))):
            with self.subTest(colour=colour):
                found = neutral_settings(colour)
                self.assertEqual(((found.warmth, found.tint), found.is_reached), (nearest, False))

    def test_a_hue_changes_its_own_colours_and_not_the_opposite(self):
        green, magenta = (20000, 45000, 22000), (45000, 20000, 40000)
        picture = np.array([[green, magenta]], np.uint16)
        plain = toned(picture, Tone()).astype(int)
        for part, value in (("strength", -60), ("lightness", -60), ("turn", -20)):
            hues = Hues(lime=HueShift(**{part: value}))
            out = toned(picture, Tone(hues=hues)).astype(int)
            with self.subTest(part):
                self.assertGreater(np.abs(out - plain)[0, 0].max(), 8)
                self.assertLessEqual(np.abs(out - plain)[0, 1].max(), 1)

    def test_hues_overlap_smoothly_all_round(self):
        """Round the hues at one lightness, in tenths of a degree, no strong setting jumps."""
        angles = np.radians(np.arange(0, 360, 0.1))
        lab = np.stack([np.full(3600, 0.7), 0.09 * np.cos(angles), 0.09 * np.sin(angles)], axis=1)
        from_lab = np.array(
            [
                [1, 0.3963377774, 0.2158037573],
                [1, -0.1055613458, -0.0638541728],
                [1, -0.0894841775, -1.2914855480],
            ]
        )
        from_lms = np.array(
            [
                [4.0767416621, -3.3077115913, 0.2309699292],
                [-1.2684380046, 2.6097574011, -0.3413193965],
                [-0.0041960863, -0.7034186147, 1.7076147010],
            ]
        )
        rgb = ((lab @ from_lab.T) ** 3) @ from_lms.T
        picture = np.rint(65535 * encode(rgb.clip(0, 1)))[None].astype(np.uint16)
        for name in HUE_NAMES:
            hues = Hues(**{name: HueShift(strength=80, lightness=50)})
            out = toned(picture, Tone(hues=hues))[0].astype(int)
            with self.subTest(name):
                self.assertLessEqual(np.abs(np.diff(out, axis=0)).max(), 3)

    def test_all_nine_alike_are_one_for_every_hue(self):
        """Their shares add up to one everywhere."""
        hues = Hues(**{name: HueShift(turn=12, strength=40, lightness=-30) for name in HUE_NAMES})
        turn, strength, lightness, _ = by_hue(hues)
        np.testing.assert_allclose(turn, np.radians(12), atol=1e-12)
        np.testing.assert_allclose(strength, 0.4, atol=1e-12)
        np.testing.assert_allclose(lightness, lightness[0], atol=1e-12)
        one = Hues(blue=HueShift(strength=100))
        places = np.linspace(-180, 180, HUE_STEPS + 1)
        self.assertAlmostEqual(places[np.argmax(by_hue(one)[1])], -100, delta=0.5)

    def test_duotone_and_fading_mix_encoded_colours(self):
        picture = np.full((1, 1, 3), round(0.4 * 65535), np.uint16)
        two = Tone(duotone=Duotone(strength=100, dark="#000080", light="#FFFF00"))
        expected = [0.4 * 255, 0.4 * 255, 128 + 0.4 * (0 - 128)]
        np.testing.assert_allclose(toned(picture, two)[0, 0], expected, atol=1)
        quarter = Tone(fade=Fade(amount=75, colour="#FFFFFF"))
        np.testing.assert_allclose(toned(picture, quarter)[0, 0], 102 + 0.75 * 153, atol=1)

    def test_fading_to_transparent_keeps_the_colour(self):
        finish = finish_of(20, 20, tone=Tone(fade=Fade(amount=75, colour=None)), export=PNG)
        picture = render(scene_of(finish, sources_of(np.full((20, 20, 3), 90, np.uint8))))
        np.testing.assert_allclose(picture[5, 5], [90, 90, 90, 64], atol=1)


class CurveTest(unittest.TestCase):
    def test_it_goes_through_its_points_without_overshooting(self):
        points = ((0, 0.1), (0.3, 0.25), (0.5, 0.7), (1, 0.9))
        tone = Tone(curve=tuple(CurvePoint(x=x, y=y) for x, y in points))
        line = curve_line(tone, 1000)
        for x, y in points:
            self.assertAlmostEqual(line[round(1000 * x)], y, places=6)
        self.assertGreaterEqual(np.diff(line).min(), 0)
        self.assertEqual((line.min(), line.max()), (0.1, 0.9))

    def test_the_ends_stretch_one_way_and_lift_the_other(self):
        share = np.linspace(0, 1, 512)
        for amount in (20, 60, 100):
            tone = Tone(black_point=-amount, white_point=amount)
            black, white = end_places(tone)
            out = toned(greys, tone)[0, :, 0].astype(int)
            with self.subTest(amount):
                self.assertEqual(out[share < black - 0.005].max(initial=0), 0)
                self.assertEqual(out[share > white + 0.005].min(initial=255), 255)
                self.assertGreater(out[share > black + 0.02].min(), 0)
                self.assertLess(out[share < white - 0.02].max(), 255)
                self.assertAlmostEqual(black, 1 - white, places=3)
        self.assertGreater(end_places(Tone(black_point=-100))[0], 0.25)
        self.assertEqual(end_places(Tone(black_point=30, white_point=-30)), (0, 1))
        lifted = toned(greys, Tone(black_point=100, white_point=-100))[0, :, 0].astype(int)
        self.assertEqual((lifted.min(), lifted.max()), (51, 204))

    def test_points_have_to_go_from_left_to_right(self):
        for points in (((0.5, 0), (0.5, 1)), ((0.6, 0), (0.2, 1))):
            with self.assertRaisesRegex(ValueError, "left to right"):
                Tone(curve=tuple(CurvePoint(x=x, y=y) for x, y in points))

    def test_a_straight_curve_is_none(self):
        middle = CurvePoint(x=0.5, y=0.5)
        ends = (CurvePoint(x=0, y=0), CurvePoint(x=1, y=1))
        self.assertIsNone(luminance_curve(Tone(curve=(ends[0], middle, ends[1]))))
        self.assertEqual(len(luminance_curve(Tone(contrast=1))), STEPS + 1)


class LookTest(unittest.TestCase):
    def test_a_look_is_added_to_one_s_own_settings_by_its_strength(self):
        tone = Tone(warmth=6810, saturation=10, look=StockLook(key="golden", strength=50))
        whole = with_look(tone)
        self.assertEqual(whole.muted_colours, LOOKS["golden"].muted_colours / 2)
        self.assertEqual(whole.saturation, 10)
        # Warmth adds up in reciprocal kelvins.
        way = 1 / LOOKS["golden"].warmth - 1 / 6500
        self.assertAlmostEqual(1e6 / whole.warmth, 1e6 * (1 / 6810 + way / 2), places=6)
        self.assertIsNone(whole.look)
        clamped = with_look(Tone(black_and_white=80, look=StockLook(key="ink")))
        self.assertEqual(clamped.black_and_white, 100)

    def test_every_look_differs_from_the_photo_and_from_the_others(self):
        photo = demo_sources("mugs-window.jpg").level(SHA, 4)
        fine = photo.astype(np.uint16) * np.uint16(257)
        lines = bases_of(photo, photo.shape[1]).laid(
            Affine(1, 0, 0, 1), (0, 0, photo.shape[1], photo.shape[0])
        )
        pictures = [photo.astype(int)]
        for key in LOOKS:
            pictures.append(toned(fine, Tone(look=StockLook(key=key)), lines=lines).astype(int))
        for one, picture in enumerate(pictures):
            for other in pictures[:one]:
                self.assertGreater(np.abs(picture - other).mean(), 1.5)


class ProposalTest(unittest.TestCase):
    def proposed(self, name):
        """The photo, and it as proposed, at full size."""
        sources = demo_sources(name)
        photo = sources.level(SHA, 0)
        finish = finish_of(export=PNG, tone=propose_tone(photo))
        return photo, render(scene_of(finish, sources))

    def test_the_hazy_field_gains_span(self):
        photo, picture = self.proposed("field-noon.jpg")
        spans = [
            np.ptp(np.percentile(oklab(p[::4, ::4])[..., 0], (1, 99))) for p in (photo, picture)
        ]
        self.assertGreaterEqual(spans[1], 1.15 * spans[0])
        self.newly_clipped(photo, picture)

    def test_the_dark_workshop_gains_light(self):
        photo, picture = self.proposed("kiln-night.jpg")
        medians = [np.median(oklab(p[::4, ::4])[..., 0]) for p in (photo, picture)]
        self.assertGreaterEqual(medians[1], 1.5 * medians[0])
        self.newly_clipped(photo, picture)

    def newly_clipped(self, photo, picture):
        before, after = clipping_of(photo), clipping_of(picture)
        self.assertLessEqual(after.high - before.high, 0.005)
        self.assertLessEqual(after.low - before.low, 0.005)


class MeasureTest(unittest.TestCase):
    def test_a_histogram_counts_every_pixel_once(self):
        found = histogram_of(noise(80, 60))
        for part in (found.red, found.green, found.blue, found.brightness):
            self.assertAlmostEqual(sum(part), 1, places=4)
        white = histogram_of(np.full((3, 3, 3), 255, np.uint8))
        self.assertEqual((white.red[-1], white.brightness[-1]), (1, 1))

    def test_transparent_pixels_are_not_counted(self):
        picture = np.zeros((2, 2, 4), np.uint8)
        self.assertEqual(sum(histogram_of(picture).red), 0)
        self.assertEqual(clipping_of(picture).low, 0)
        picture[0, 0] = (0, 0, 0, 255)
        self.assertEqual(clipping_of(picture).low, 1)


class RenderTest(unittest.TestCase):
    tone = Tone(
        exposure=0.3,
        shadows=40,
        highlights=-30,
        local_contrast=20,
        contrast=15,
        muted_colours=20,
        warmth=6880,
        hues=Hues(blue=HueShift(strength=30)),
    )

    def test_regions_fit_together(self):
        sources = demo_sources("bird-figure.jpg")
        finish = finish_of(500, 400, tone=self.tone, export=PNG)
        whole = render(scene_of(finish, sources))
        part = render(scene_of(finish, sources), region=(120, 90, 200, 150))
        self.assertLessEqual(np.abs(part.astype(int) - whole[90:240, 120:320]).max(), 1)

    def test_a_large_picture_made_in_strips_is_the_same(self):
        photo = noise(2500, 2000)
        finish = finish_of(export=PNG, tone=Tone(exposure=0.5, shadows=30))
        whole = render(scene_of(finish, sources_of(photo)))
        part = render(scene_of(finish, sources_of(photo)), region=(0, 1500, 2500, 300))
        self.assertLessEqual(np.abs(part.astype(int) - whole[1500:1800]).max(), 1)

    def test_clipped_pixels_are_marked(self):
        photo = np.full((20, 20, 3), 120, np.uint8)
        photo[:5], photo[5:9] = 255, 0
        finish = finish_of(export=PNG)
        picture = render(scene_of(finish, sources_of(photo)), view="clipping")
        light, dark = picture[:5].reshape(-1, 3), picture[5:9].reshape(-1, 3)
        # A third of each is a line: dark on what is light, light on what is dark.
        for part, plain, line in ((light, 255, [30, 42, 47]), (dark, 0, [245, 241, 232])):
            lines = (part == line).all(axis=1)
            self.assertAlmostEqual(lines.mean(), 1 / 3, delta=0.05)
            self.assertTrue((part[~lines] == plain).all())
        self.assertTrue((picture[9:] == 120).all())
        # Two parts of the picture fit together.
        part = render(scene_of(finish, sources_of(photo)), view="clipping", region=(7, 3, 9, 5))
        np.testing.assert_array_equal(part, picture[3:8, 7:16])
