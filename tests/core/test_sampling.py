"""Sampling: exact copies, true areas, linear light, no dark fringes."""

import unittest

import numpy as np
from PIL import Image

from lucky_margin.core.affine import Affine
from lucky_margin.core.sampling import halved, place, sample, shrunk
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.sampling.weights import axis_weights
from tests.support import gradient, noise


def slow_shrink(picture, factor):
    """Whole-factor shrinking in linear light by plain means: the reference."""
    height, width = picture.shape[0] // factor, picture.shape[1] // factor
    linear = decode(picture / 255.0)
    blocks = linear.reshape(height, factor, width, factor, 3)
    return 255 * encode(blocks.mean(axis=(1, 3)))


def waves(cycles, turned=0.0):
    """Stripes of so many cycles a pixel, in linear light about mid-grey."""
    y, x = np.mgrid[0:500, 0:500]
    along = x * np.cos(turned) + y * np.sin(turned)
    light = 0.5 + 0.3 * np.cos(2 * np.pi * cycles * along)
    return np.rint(255 * encode(light))[:, :, None].repeat(3, axis=2).astype(np.uint8)


def upright(photo, step, left, width=200, height=40):
    return sample(photo, left=left, top=5.3, step_x=step, step_y=step, region=(0, 0, width, height))


def contrast_kept(picture):
    """Of stripes: the share of their contrast that is left, from their spread."""
    return np.sqrt(2) * decode(picture[:, :, 0] / 255).std() / 0.3


class SampleTest(unittest.TestCase):
    def test_one_to_one_on_whole_pixels_is_an_exact_copy(self):
        for channels in (3, 4):
            with self.subTest(channels=channels):
                photo = noise(60, 50, channels)
                copy = sample(photo, left=7, top=5, step_x=1, step_y=1, region=(3, 2, 20, 10))
                np.testing.assert_array_equal(copy, photo[7:17, 10:30])

    def test_shrinking_averages_areas_in_linear_light(self):
        photo = noise(120, 90)
        for factor in (2, 3, 5):
            with self.subTest(factor=factor):
                region = (0, 0, 120 // factor, 90 // factor)
                small = sample(photo, left=0, top=0, step_x=factor, step_y=factor, region=region)
                # The dither moves a value by less than one step.
                self.assertLess(np.abs(small - slow_shrink(photo, factor)).max(), 1.0)

    def test_the_mean_is_kept_at_any_fractional_step(self):
        photo = noise(400, 300)
        small = sample(
            photo, left=0, top=0, step_x=400 / 123, step_y=300 / 77, region=(0, 0, 123, 77)
        )
        self.assertAlmostEqual(
            decode(small / 255.0).mean(), decode(photo / 255.0).mean(), delta=0.002
        )

    def test_flat_colours_stay_exactly_what_they_are(self):
        photo = np.full((41, 37, 3), [200, 3, 255], np.uint8)
        for step in (0.37, 1.0, 1.7, 6.2):
            with self.subTest(step=step):
                drawn = sample(
                    photo, left=0.3, top=0.1, step_x=step, step_y=step, region=(0, 0, 5, 5)
                )
                self.assertEqual(np.unique(drawn.reshape(-1, 3), axis=0).tolist(), [[200, 3, 255]])

    def test_a_region_is_the_same_cut_of_the_whole(self):
        photo = noise(200, 150)
        place = {"left": 3.3, "top": 1.7, "step_x": 1.9, "step_y": 1.9}
        all_of_it = sample(photo, **place, region=(0, 0, 100, 70))
        part = sample(photo, **place, region=(31, 22, 40, 30))
        np.testing.assert_array_equal(part, all_of_it[22:52, 31:71])

    def test_enlarging_passes_through_the_photo_and_matches_pillow(self):
        photo = gradient(40, 30)
        large = sample(photo, left=0, top=0, step_x=0.25, step_y=0.25, region=(0, 0, 160, 120))
        bicubic = np.asarray(
            Image.fromarray(photo).resize((160, 120), Image.Resampling.BICUBIC), int
        )
        # Pillow interpolates encoded values, which a gentle gradient makes nearly the same.
        self.assertLess(np.abs(large - bicubic)[8:-8, 8:-8].mean(), 2.0)

    def test_fine_patterns_keep_their_contrast_wherever_pixels_fall(self):
        for step in (1.0, 1 / 0.97, 1.5, 1.9):
            for cycles, kept in ((0.25, 0.97), (0.33, 0.92)):
                for left in (5.1, 5.4):
                    with self.subTest(step=step, cycles=cycles, left=left):
                        drawn = upright(waves(cycles / step), step, left)
                        found = [contrast_kept(drawn[:, i : i + 30]) for i in range(0, 170, 10)]
                        self.assertGreater(np.mean(found), kept)
                        self.assertLess(np.ptp(found), 0.05 * np.max(found))

    def test_nothing_rings_beside_an_edge(self):
        photo = np.full((120, 400, 3), 60, np.uint8)
        photo[:, 200:] = 190
        for step in (0.4, 0.97, 1.0, 1.3, 1.9):
            drawn = upright(photo, step, 200.3 - 50 * step, width=100, height=20)
            with self.subTest(step=step):
                self.assertGreaterEqual(drawn.min(), 60)
                self.assertLessEqual(drawn.max(), 190)

    def test_transparent_pixels_lend_no_colour(self):
        photo = np.zeros((40, 40, 4), np.uint8)
        photo[:, 20:] = [250, 120, 30, 255]
        small = sample(photo, left=1, top=0, step_x=4, step_y=4, region=(0, 0, 9, 10))
        seen = small[small[:, :, 3] > 0]
        self.assertLessEqual(np.abs(seen[:, :3].astype(int) - [250, 120, 30]).max(), 1)

    def test_sixteen_bits_stay_finer_than_eight(self):
        ramp = np.linspace(20000, 20600, 256).astype(np.uint16)  # less than three 8-bit steps
        photo = np.repeat(np.repeat(ramp[None, :, None], 64, axis=0), 3, axis=2)
        drawn = sample(photo, left=0, top=0, step_x=1, step_y=1, region=(0, 0, 256, 64))
        means = drawn[:, :, 0].mean(axis=0).reshape(16, 16).mean(axis=1)
        expected = photo[0, :, 0].reshape(16, 16).mean(axis=1) / 257
        np.testing.assert_allclose(means, expected, atol=0.12)


class ShrunkTest(unittest.TestCase):
    def test_each_pixel_is_the_mean_of_its_block_in_linear_light(self):
        photo = noise(60, 40)
        small = shrunk(photo, 12, 10)
        light = decode(photo / 255).reshape(10, 4, 12, 5, 3).mean(axis=(1, 3))
        self.assertEqual((small.shape, small.dtype), ((10, 12, 3), np.uint16))
        self.assertLess(np.abs(small - 65_535 * encode(light)).max(), 2)

    def test_what_is_clear_lends_no_colour(self):
        photo = np.full((8, 8, 4), 255, np.uint8)
        photo[:, :4] = (10, 20, 30, 0)
        small = shrunk(photo, 1, 1)[0, 0]
        self.assertEqual(small[:3].tolist(), [65_535] * 3)
        self.assertAlmostEqual(int(small[3]), 32_768, delta=2)


class StraightenedTest(unittest.TestCase):
    def test_fine_patterns_keep_their_contrast(self):
        """Turned far, a line of the photo is met at fewer places, which costs some."""
        for degrees, share in ((2, 1), (7, 1), (30, 0.93), (88, 1)):
            for step, kept in ((1.0, 0.92), (2.5, 0.92), (3.5, 0.84)):
                turn = np.radians(degrees)
                a, b = step * np.cos(turn), step * np.sin(turn)
                photo = waves(0.33 / step)
                laid = Affine(a, -b, b, a, 250 - 40 * (a - b), 250 - 40 * (a + b))
                with self.subTest(degrees=degrees, step=step):
                    drawn = place(photo, laid, (0, 0, 80, 80))
                    self.assertGreater(contrast_kept(drawn), kept * share)

    def test_pixels_are_where_the_mapping_says(self):
        """A smooth picture, read at the places that the mapping leads to."""
        y, x = np.mgrid[0:300, 0:400]
        light = 0.5 + 0.2 * np.sin(x / 31) + 0.2 * np.cos(y / 23)
        photo = np.rint(255 * encode(light))[:, :, None].repeat(3, axis=2).astype(np.uint8)
        for degrees in (-40, -3, 5, 100):
            for step in (0.6, 1.4, 2.6, 3.4):
                turn = np.radians(degrees)
                a, b = step * np.cos(turn), step * np.sin(turn)
                laid = Affine(a, -b, b, a, 200 - 20 * (a - b), 150 - 20 * (a + b))
                j, i = np.mgrid[0:40, 0:40] + 0.5
                sx, sy = laid(i, j)
                wanted = 0.5 + 0.2 * np.sin((sx - 0.5) / 31) + 0.2 * np.cos((sy - 0.5) / 23)
                with self.subTest(degrees=degrees, step=step):
                    drawn = place(photo, laid, (0, 0, 40, 40))[:, :, 0] / 255
                    self.assertLess(np.abs(drawn - encode(wanted)).max(), 0.012)


class HalvedTest(unittest.TestCase):
    def test_halving_is_the_linear_mean_of_four(self):
        photo = noise(64, 48)
        self.assertLessEqual(np.abs(halved(photo) - slow_shrink(photo, 2)).max(), 0.51)

    def test_halving_weighs_colours_by_alpha_and_an_odd_end_counts_twice(self):
        photo = noise(5, 4, 4)
        photo[0, 0], photo[:2, 2:4, 3] = (255, 0, 0, 200), 0
        photo[0, 1], photo[1, :2] = (0, 0, 255, 0), (0, 255, 0, 0)
        small = halved(photo)
        self.assertEqual(small[0, 0].tolist(), [255, 0, 0, 50])
        self.assertEqual(small[0, 1, 3], 0)
        alpha = photo[:2, 4, 3].astype(float)
        linear = decode(photo[:2, 4, :3] / 255)
        wanted = 255 * encode((alpha[:, None] * linear).sum(axis=0) / alpha.sum())
        np.testing.assert_allclose(small[0, 2, :3], wanted, atol=0.51)
        self.assertAlmostEqual(small[0, 2, 3], alpha.mean(), delta=0.51)

    def test_odd_sides_round_up_and_the_dtype_stays(self):
        for dtype in (np.uint8, np.uint16):
            small = halved(noise(7, 5, 4, dtype))
            self.assertEqual((small.shape, small.dtype), ((3, 4, 4), np.dtype(dtype)))

    def test_the_argument_is_not_changed(self):
        photo = noise(9, 9)
        before = photo.copy()
        halved(photo)
        np.testing.assert_array_equal(photo, before)


class WeightsTest(unittest.TestCase):
    def test_weights_sum_to_one_and_stay_inside(self):
        for start, step, outputs, length in (
            (0, 3.7, 10, 37),
            (-2, 2.3, 20, 5),
            (0.5, 1, 8, 1),
            (5, 9, 3, 4),
        ):
            with self.subTest(start=start, step=step):
                axis = axis_weights(start, step, 0, outputs, length)
                np.testing.assert_allclose(axis.weights.sum(axis=1), 1, atol=1e-6)
                self.assertGreaterEqual(axis.first.min(), 0)
                self.assertLessEqual(axis.first.max() + axis.weights.shape[1], length)

    def test_transfer_functions_are_inverses(self):
        values = np.linspace(0, 1, 1001)
        np.testing.assert_allclose(encode(decode(values)), values, atol=1e-7)
