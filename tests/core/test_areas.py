"""Areas: where their masks are, that the rest stays, and that they stay on the photo."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.affine import UNCHANGED
from lucky_margin.core.document import (
    Area,
    BandMask,
    EllipseMask,
    Export,
    HueMask,
    LightMask,
    PhotoPoint,
    Tone,
    Window,
)
from lucky_margin.core.errors import BadInput
from lucky_margin.core.render import render
from lucky_margin.core.sampling import sample
from lucky_margin.core.tone import OnPhoto, area_coverage, bases_of, toned
from tests.support import demo_sources, finish_of, noise, scene_of, sources_of, with_size

PNG = Export(format="png")


def fine(picture):
    return picture.astype(np.uint16) * np.uint16(257)


def covered(picture, *masks):
    """What of a photo an area of these masks covers, 0..1."""
    height, width = picture.shape[:2]
    lines = bases_of(picture, width).laid(UNCHANGED, (0, 0, width, height))
    area = Area(masks=masks, exposure=1)
    return area_coverage(fine(picture), area, on_photo=OnPhoto(width, height), lines=lines)


class MaskTest(unittest.TestCase):
    grey = np.full((100, 200, 3), 128, np.uint8)

    def test_a_band_is_whole_before_its_start_and_gone_past_its_end(self):
        band = BandMask(start=PhotoPoint(x=0.5, y=0.3), end=PhotoPoint(x=0.5, y=0.7))
        found = covered(self.grey, band)
        self.assertTrue((found[:30] == 1).all())
        self.assertTrue((found[70:] == 0).all())
        self.assertTrue((np.diff(found[:, 7]) <= 0).all())
        self.assertAlmostEqual(found[49:51].mean(), 0.5, places=2)

    def test_a_slanting_band_is_square_to_its_line_in_photo_pixels(self):
        band = BandMask(start=PhotoPoint(x=0.25, y=0.25), end=PhotoPoint(x=0.5, y=0.75))
        found = covered(self.grey, band)
        # From (50, 25) to (100, 75): points on a line square to it count the same.
        self.assertAlmostEqual(found[35, 90], found[65, 60], places=5)

    def test_an_ellipse_has_its_radii_and_its_angle(self):
        hard = {"softness": 0, "radius_x": 0.3, "radius_y": 0.1}
        found = covered(self.grey, EllipseMask(**hard))
        self.assertAlmostEqual(found.sum() / (np.pi * 60 * 20), 1, delta=0.02)
        self.assertEqual((found[50, 150], found[50, 165], found[75, 100]), (1, 0, 0))
        turned = covered(self.grey, EllipseMask(angle=90, **hard))
        self.assertEqual((turned[50, 150], turned[95, 100]), (0, 1))
        soft = covered(self.grey, EllipseMask(radius_x=0.2, radius_y=0.2, softness=100))
        self.assertTrue((np.diff(soft[50, 100:]) <= 0).all())

    def test_inverted_masks_count_the_rest_and_masks_intersect(self):
        band = BandMask(start=PhotoPoint(x=0.5, y=0.3), end=PhotoPoint(x=0.5, y=0.7))
        ellipse = EllipseMask(softness=40)
        inside, outside = (
            covered(self.grey, band),
            covered(self.grey, band.model_copy(update={"inverted": True})),
        )
        np.testing.assert_allclose(inside + outside, 1, atol=1e-6)
        both = covered(self.grey, band, ellipse)
        np.testing.assert_allclose(both, inside * covered(self.grey, ellipse), atol=1e-6)

    def test_a_range_of_lightness_takes_dark_regions_with_their_texture(self):
        photo = np.full((120, 240, 3), 40, np.uint8)
        photo[:, 120:] = 210
        grain = np.random.default_rng(5).normal(0, 6, photo.shape[:2])[:, :, None]
        photo = np.clip(photo + grain, 0, 255).round().astype(np.uint8)
        found = covered(photo, LightMask(low=0, high=45, softness=20))
        self.assertGreater(found[:, :110].min(), 0.95)
        self.assertLess(found[:, 130:].max(), 0.05)

    def test_a_range_of_hue_takes_its_colours_and_no_greys(self):
        photo = np.zeros((10, 40, 3), np.uint8)
        photo[:, :10], photo[:, 10:20] = (60, 110, 200), (200, 110, 60)
        photo[:, 20:30], photo[:, 30:] = (128, 128, 128), (70, 190, 90)
        found = covered(photo, HueMask(hue=258, reach=40))[5]
        self.assertGreater(found[5], 0.9)
        self.assertEqual((found[15], found[35]), (0, 0))
        self.assertLess(found[25], 0.01)
        rest = covered(photo, HueMask(hue=258, reach=40, inverted=True))[5]
        self.assertGreater(rest[[15, 25, 35]].min(), 0.99)

    def test_hues_go_round(self):
        photo = np.full((4, 4, 3), (220, 40, 90), np.uint8)
        for hue in (0, 10, 20, 355):
            self.assertGreater(covered(photo, HueMask(hue=hue, reach=60)).min(), 0.9)


class HighlightsTest(unittest.TestCase):
    def test_an_area_takes_back_what_the_whole_tone_burnt(self):
        photo = np.full((40, 60, 3), 250, np.uint8)
        lines = bases_of(photo, 60).laid(UNCHANGED, (0, 0, 60, 40))
        sky = BandMask(start=PhotoPoint(x=0.5, y=0.4), end=PhotoPoint(x=0.5, y=0.6))
        tone = Tone(exposure=1, areas=(Area(masks=(sky,), highlights=-100),))
        out = toned(fine(photo), tone, on_photo=OnPhoto(60, 40), lines=lines)
        self.assertTrue((out[35:] == 255).all())
        self.assertTrue((out[:5] < 250).all() and (out[:5] > 225).all(), out[0, 0])


class EffectTest(unittest.TestCase):
    def test_the_rest_of_the_photo_is_untouched(self):
        picture = noise(200, 100)
        band = BandMask(start=PhotoPoint(x=0.5, y=0.3), end=PhotoPoint(x=0.5, y=0.6))
        area = Area(masks=(band,), exposure=-1, contrast=30, saturation=40, warmth=7160)
        out = toned(fine(picture), Tone(areas=(area,)))
        np.testing.assert_array_equal(out[60:], picture[60:])
        whole = toned(fine(picture), Tone(exposure=-1, contrast=30, saturation=40, warmth=7160))
        self.assertLessEqual(np.abs(out[:30].astype(int) - whole[:30]).max(), 1)

    @settings(max_examples=40)
    @given(strength=st.floats(0, 100), exposure=st.floats(-3, 0))
    def test_the_strength_mixes_in_linear_light(self, strength, exposure):
        grey = np.full((4, 4, 3), 30000, np.uint16)
        everywhere = EllipseMask(radius_x=3, radius_y=3, softness=0)
        area = Area(masks=(everywhere,), exposure=exposure, strength=strength)
        out = toned(grey, Tone(areas=(area,)))[0, 0, 0]
        factor = 1 + strength / 100 * (2**exposure - 1)
        expected = toned(grey, Tone(exposure=max(-5, np.log2(max(factor, 1e-3)))))[0, 0, 0]
        self.assertLessEqual(abs(int(out) - int(expected)), 1)

    def test_nothing_set_switched_off_or_of_no_strength_is_no_area(self):
        picture = noise(60, 40)
        masks = (EllipseMask(),)
        for area in (
            Area(masks=masks),
            Area(masks=masks, exposure=2, on=False),
            Area(masks=masks, exposure=2, strength=0),
        ):
            out = toned(fine(picture), Tone(areas=(area,)))
            np.testing.assert_array_equal(out, picture)

    def test_shadows_of_an_area_need_and_get_the_regions(self):
        photo = np.full((60, 120, 3), 40, np.uint8)
        area = Area(masks=(EllipseMask(radius_x=3, radius_y=3),), shadows=100)
        finish = finish_of(tone=Tone(areas=(area,)), export=PNG)
        out = render(scene_of(finish, sources_of(photo)))
        self.assertGreater(out.min(), 55)


class RenderedTest(unittest.TestCase):
    """Areas and washes in whole pictures of the demo photos."""

    def field(self, **fields):
        sky = Area(
            masks=(
                BandMask(start=PhotoPoint(x=0.5, y=0.2), end=PhotoPoint(x=0.5, y=0.6)),
                LightMask(low=75, high=100),
            ),
            exposure=-0.7,
            saturation=40,
        )
        barn = Area(masks=(LightMask(high=40),), shadows=60, exposure=0.4)
        tone = Tone(areas=(sky, barn), contrast=15, shadows=10)
        return finish_of(900, 600, tone=tone, export=PNG, **fields)

    def test_previews_and_regions_show_what_the_export_will_have(self):
        sources = demo_sources("field-noon.jpg")
        finish = self.field()
        full = render(scene_of(finish, sources))
        half = render(scene_of(finish, sources), scale=0.5)
        shrunk = sample(full, left=0, top=0, step_x=2, step_y=2, region=(0, 0, 450, 300))
        difference = np.abs(shrunk.astype(int) - half)
        self.assertLessEqual(difference.mean(), 1.5)
        self.assertLessEqual(np.percentile(difference, 99), 8)
        part = render(scene_of(finish, sources), region=(300, 200, 250, 140))
        self.assertLessEqual(np.abs(part.astype(int) - full[200:340, 300:550]).max(), 1)

    def test_an_area_follows_the_photo_under_a_new_crop(self):
        photo = np.full((200, 300, 3), 90, np.uint8)
        area = Area(
            masks=(EllipseMask(centre=PhotoPoint(x=0.6, y=0.5), radius_x=0.1, radius_y=0.1),),
            exposure=2,
        )
        finish = finish_of(tone=Tone(areas=(area,)), export=PNG)
        sources = sources_of(photo)
        full = render(scene_of(finish, sources))
        self.assertGreater(full[100, 180, 0], 150)
        window = Window(centre_x=180, centre_y=100, width=80, height=80)
        cut = with_size(finish, crop={"window": window.model_dump()})
        part = render(scene_of(cut, sources))
        # The dither belongs to the output's pixels.
        self.assertLessEqual(np.abs(part.astype(int) - full[60:140, 140:220]).max(), 1)

    def test_the_mask_view_veils_all_but_the_area(self):
        sources = demo_sources("field-noon.jpg")
        finish = self.field()
        final = render(scene_of(finish, sources)).astype(int)
        marked = render(scene_of(finish, sources), view="mask", area=0).astype(int)
        moved = np.abs(marked - final).max(axis=2)
        self.assertEqual(moved[20, 450], 0)
        # A grey without a tint lies over the rest.
        self.assertLess(np.ptp(marked[-100:], axis=2).max(), 60)
        self.assertLess(np.abs(marked[-100:] - 128).max(), 40)
        with self.assertRaisesRegex(BadInput, "no area 3"):
            render(scene_of(finish, sources), view="mask", area=2)
