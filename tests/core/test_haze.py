"""Haze: a known veil comes off, one is laid on, and nothing changes at nought."""

import unittest

import numpy as np

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import Tone
from lucky_margin.core.render import render
from lucky_margin.core.sampling import as_16_bits
from lucky_margin.core.tone import air_of, left_out, veil_of, with_haze
from tests.core.test_tone import PNG
from tests.support import SHA, demo_sources, finish_of, noise, scene_of, sources_of
from tests.truth.damage import DAMAGES, damaged, decoded, distance


def checks(rows=240, columns=320):
    """Dark, coloured and light squares, so small that each has something dark near it."""
    y, x = np.mgrid[0:rows, 0:columns] // 6
    colours = np.array([[4, 4, 4], [190, 60, 30], [30, 120, 180], [235, 232, 225]], np.uint8)
    return colours[(x + 2 * y) % 4]


def cleared(picture, haze=100):
    rows, columns = picture.shape[:2]
    air = air_of(picture)
    lines = veil_of(picture, air, columns).laid(Affine(1, 0, 0, 1), (0, 0, columns, rows))
    return (with_haze(as_16_bits(picture), haze, air, lines) / 257).round().astype(np.uint8)


class VeilTest(unittest.TestCase):
    def test_an_even_veil_over_a_chart_comes_off(self):
        chart = checks()
        for damage in DAMAGES:
            if damage.kind != "haze":
                continue
            with self.subTest(damage.name):
                hazy = damaged(chart, damage, 1)
                self.assertLess(distance(cleared(hazy), chart), 0.5 * distance(hazy, chart))

    def test_its_share_is_what_was_laid_on(self):
        chart = np.zeros((200, 300, 3), np.uint8)
        chart[:20] = 255  # the air alone
        light = decoded(chart / 255) * 0.6 + 0.8 * 0.4
        light[:20] = 0.8
        hazy = np.rint(255 * (1.055 * light ** (1 / 2.4) - 0.055)).astype(np.uint8)
        air = air_of(hazy)
        np.testing.assert_allclose(air, 0.8, atol=0.01)
        laid = veil_of(hazy, air, 300).laid(Affine(1, 0, 0, 1), (0, 100, 300, 50))
        share = laid[:, :, 0] * hazy[100:150, :, 0] / 255 + laid[:, :, 1]
        np.testing.assert_allclose(share, 0.4, atol=0.02)

    def test_below_nought_everything_comes_nearer_to_the_air(self):
        chart = checks()
        hazy = cleared(chart, -60)
        air = 255 * (1.055 * air_of(chart) ** (1 / 2.4) - 0.055)
        was, now = (np.abs(p.astype(float) - air) for p in (chart, hazy))
        self.assertTrue((now <= was + 1).all())
        self.assertLess(now.mean(), 0.75 * was.mean())

    def test_more_of_it_takes_more_off(self):
        hazy = damaged(checks(), next(d for d in DAMAGES if d.name == "middle veil"), 1)
        means = [cleared(hazy, haze).mean() for haze in (0, 30, 60, 100)]
        self.assertEqual(means, sorted(means, reverse=True))
        np.testing.assert_array_equal(cleared(hazy, 0), hazy)


class RenderTest(unittest.TestCase):
    tone = Tone(haze=70, shadows=30, exposure=0.2)

    def test_regions_fit_together_and_alpha_stays(self):
        photo = noise(300, 200, 4)
        scene = scene_of(finish_of(tone=self.tone, export=PNG), sources_of(photo))
        whole = render(scene)
        part = render(scene, region=(40, 30, 120, 90))
        self.assertLessEqual(np.abs(part.astype(int) - whole[30:120, 40:160]).max(), 1)
        np.testing.assert_array_equal(whole[:, :, 3], photo[:, :, 3])

    def test_a_preview_is_the_export_shrunk(self):
        sources = demo_sources("field-noon.jpg")
        scene = scene_of(finish_of(900, 600, tone=self.tone, export=PNG), sources)
        whole, half = render(scene).astype(float), render(scene, scale=0.5).astype(float)
        shrunk = whole.reshape(300, 2, 450, 2, 3).mean(axis=(1, 3))
        off = np.abs(shrunk - half)
        self.assertLess(off.mean(), 1.5)
        self.assertLess(np.percentile(off, 99), 8)

    def test_a_photo_by_its_hash_gets_the_far_hills_back(self):
        sources = demo_sources("field-noon.jpg")
        photo = sources.level(SHA, 2)
        clear = render(scene_of(finish_of(900, 600, tone=Tone(haze=100), export=PNG), sources))
        hills = slice(270, 300), slice(0, 500)
        small = photo[:: len(photo) // 600][:600, :: photo.shape[1] // 900][:, :900]
        self.assertGreater(clear[hills].std(), 1.2 * small[hills].std())

    def test_a_colour_table_says_that_it_is_left_out(self):
        self.assertIn("haze", left_out(Tone(haze=10)))
        self.assertEqual(left_out(Tone(exposure=1)), [])
