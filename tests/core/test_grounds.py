"""Grounds: of one size alone, and of a finish without a photo."""

import unittest
from unittest import mock

import numpy as np

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    BlurredPhoto,
    Box,
    Export,
    Focus,
    Gradient,
    OtherPhoto,
    Overrides,
    Point,
    SolidColour,
    TextPiece,
    ThisPhoto,
    Tone,
    read_finish,
    rgb_of,
)
from lucky_margin.core.document.docket import docket_of
from lucky_margin.core.document.history import describe_change
from lucky_margin.core.document.summaries import overrides_in_words
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.cut_out import SetSubject
from lucky_margin.core.edits.pieces import AddText
from lucky_margin.core.edits.sizes import AddSize, SetPixels
from lucky_margin.core.edits.steps import Follow, SetGround
from lucky_margin.core.errors import BadDocument, BadInput
from lucky_margin.core.export import export
from lucky_margin.core.grounds import stock_backdrop
from lucky_margin.core.proposals import focus_proposal, tone_proposal, trim_proposal
from lucky_margin.core.render import layout, measure_tone, render
from lucky_margin.core.scene import MemorySources, Scene
from lucky_margin.core.stock import BACKDROPS
from tests.support import SHA, finish_of, noise, scene_of, sources_of, with_size

RED, BLUE = SolidColour(colour="#FF0000"), SolidColour(colour="#0000FF")
PNG = Export(format="png")


class GroundOfOneSizeTest(unittest.TestCase):
    """A circle on red for all sizes, and on blue for one."""

    def setUp(self):
        self.sources = sources_of(noise(60, 60))
        finish = with_size(finish_of(40, 40, outside=RED), shape={"kind": "circle"})
        other = finish.sizes[0].model_copy(update={"id": "other", "name": "Other"})
        self.finish = finish.model_copy(update={"sizes": (*finish.sizes, other)})

    def edited(self, edit, finish=None, size_id="other"):
        scene = Scene.of(finish or self.finish, size_id, self.sources)
        return apply_edit(scene, edit).finish

    def corner(self, finish, size_id):
        picture = render(Scene.of(finish, size_id, self.sources))
        return tuple(picture[0, 0].tolist())

    def test_only_this_size_shows_it_until_it_follows_again(self):
        own = self.edited(SetGround(place="outside", ground=BLUE, only_this_size=True))
        self.assertEqual(self.corner(own, "main"), (255, 0, 0))
        self.assertEqual(self.corner(own, "other"), (0, 0, 255))
        self.assertEqual(own.size("other").overrides.all_overridden, ["outside"])
        (told,) = overrides_in_words(own.size("other"))
        self.assertEqual((told.step, told.fields), ("outside", ["#0000FF"]))
        self.assertIn("changed on its own", describe_change(self.finish, own))
        follows = self.edited(Follow(step="outside"), own)
        self.assertEqual(follows, self.finish)

    def test_a_change_for_all_is_seen_on_the_size_in_hand(self):
        own = self.edited(SetGround(place="outside", ground=BLUE, only_this_size=True))
        green = SolidColour(colour="#00FF00")
        changed = self.edited(SetGround(place="outside", ground=green), own)
        self.assertEqual(self.corner(changed, "other"), (0, 255, 0))
        elsewhere = self.edited(SetGround(place="outside", ground=green), own, "main")
        self.assertEqual(self.corner(elsewhere, "other"), (0, 0, 255))

    def test_it_survives_being_written(self):
        own = self.edited(SetGround(place="backdrop", ground=BLUE, only_this_size=True))
        self.assertEqual(read_finish(own.model_dump(mode="json")), own)

    def test_the_docket_says_crop_is_set_where_it_is(self):
        plain = finish_of()
        size = plain.sizes[0].model_copy(update={"overrides": Overrides(backdrop=BLUE)})
        self.assertFalse(docket_of(plain, plain.sizes[0])[0].is_set)
        self.assertTrue(docket_of(plain.with_size(size), size)[0].is_set)


class NoPhotoTest(unittest.TestCase):
    """Words on a ground, and nothing that would need a photo."""

    def setUp(self):
        self.sources = MemorySources({})
        words = TextPiece(id="text-1", text="Open on Thursday", size=0.1).model_dump()
        self.finish = finish_of(
            120, 80, photo=None, backdrop=Gradient(start="#102030", end="#A0B0C0"), pieces=[words]
        )

    def test_it_renders_lays_out_and_exports_its_ground_and_pieces(self):
        scene = scene_of(self.finish, self.sources)
        picture = render(scene)
        self.assertEqual(picture.shape, (80, 120, 3))
        bare = self.finish.model_copy(update={"pieces": ()})
        ground = render(scene_of(bare, self.sources))
        self.assertTrue((picture != ground).any())
        self.assertGreater(np.ptp(ground[:, :, 0].astype(int)), 100)
        self.assertEqual((layout(scene).width, layout(scene).photo_width), (120, 120))
        self.assertEqual(export(scene).width, 120)
        self.assertEqual([c for c in check(scene) if c.key in ("sharpness", "noise", "focus")], [])

    def test_without_a_ground_it_is_transparent(self):
        bare = finish_of(12, 8, photo=None, export=PNG, backdrop=BlurredPhoto())
        for view in ("final", "photo", "before"):
            picture = render(scene_of(bare, self.sources), view=view)
            self.assertEqual((picture.shape, picture[:, :, 3].max()), ((8, 12, 4), 0), view)

    def test_tone_and_focus_are_off(self):
        toned = self.finish.model_copy(
            update={"tone": Tone(exposure=2), "focus": Focus(point=Point(x=0.1, y=0.1))}
        )
        scene = scene_of(toned, self.sources)
        np.testing.assert_array_equal(render(scene), render(scene_of(self.finish, self.sources)))
        self.assertIsNone(layout(scene).focus)
        for ask in (focus_proposal, tone_proposal, trim_proposal, measure_tone):
            with self.assertRaisesRegex(BadInput, "no photo"):
                ask(scene)

    def test_its_sizes_have_fixed_pixels(self):
        for pixels in ({"kind": "as_cropped"}, {"kind": "one_side", "side": "width", "length": 9}):
            data = self.finish.model_dump(mode="json")
            data["sizes"][0]["pixels"] = pixels
            with self.assertRaisesRegex(BadDocument, "without a photo every size needs"):
                read_finish(data)
            with self.assertRaises(BadDocument):
                apply_edit(scene_of(self.finish, self.sources), SetPixels(pixels=pixels))

    def test_it_is_edited_like_any_other(self):
        scene = scene_of(self.finish, self.sources)
        plan = {"name": "Card", "pixels": {"kind": "fixed", "width": 60, "height": 60}}
        for edit in (AddText(text="More"), AddSize(plan=plan)):
            edited = apply_edit(scene, edit)
            for one in edited.scenes.values():
                self.assertEqual(render(one).shape[:2], (one.sides[1], one.sides[0]))


RELEASED = {
    "plain": ((236.0, 229.0, 216.0), 8.3),
    "horizon": ((220.9, 190.7, 166.6), 40.9),
    "sweep": ((190.9, 180.7, 168.5), 12.5),
    "fade": ((232.0, 233.5, 228.5), 5.0),
    "corner": ((213.5, 180.0, 178.0), 22.4),
    "dusk": ((174.0, 133.2, 138.5), 46.0),
    "halo": ((231.5, 208.1, 185.6), 31.1),
    "paper": ((239.1, 233.1, 221.1), 8.3),
    "laid": ((232.8, 222.8, 200.8), 13.9),
    "kraft": ((195.7, 162.7, 121.7), 30.6),
    "silk-paper": ((230.5, 228.5, 218.8), 8.4),
    "creased": ((227.5, 224.5, 217.5), 8.0),
    "torn": ((186.8, 189.3, 174.3), 55.3),
    "linen": ((217.2, 207.2, 188.2), 13.9),
    "felt": ((95.0, 117.0, 102.0), 11.2),
    "canvas": ((229.4, 219.4, 198.4), 14.7),
    "velvet": ((103.7, 39.6, 55.6), 33.6),
    "knit": ((206.8, 201.0, 187.4), 20.1),
    "gingham": ((217.4, 157.5, 149.0), 60.4),
    "ticking": ((192.3, 194.0, 190.7), 57.8),
    "plaster": ((216.9, 207.9, 194.9), 10.3),
    "limewash": ((215.8, 202.2, 181.6), 17.1),
    "stone": ((204.3, 199.0, 192.1), 12.8),
    "sand": ((220.0, 199.0, 161.0), 25.6),
    "speckle": ((238.7, 231.7, 217.7), 10.3),
    "concrete": ((173.6, 171.6, 166.6), 8.1),
    "terrazzo": ((228.9, 221.2, 210.3), 33.3),
    "slate": ((81.6, 88.9, 93.5), 9.2),
    "tiles": ((208.5, 223.6, 218.3), 10.2),
    "brick": ((227.2, 220.2, 209.2), 12.4),
    "oak": ((197.8, 160.4, 112.0), 36.7),
    "planks": ((160.0, 139.7, 114.2), 23.8),
    "tabletop": ((201.4, 181.3, 158.2), 55.7),
    "glow": ((202.8, 146.8, 102.7), 50.7),
    "bloom": ((204.6, 189.2, 169.3), 23.7),
    "bokeh": ((49.0, 41.3, 53.1), 19.7),
    "window": ((196.8, 185.7, 168.4), 26.3),
    "foliage": ((216.7, 204.6, 184.5), 28.2),
    "beam": ((205.7, 186.8, 162.4), 32.1),
    "spot": ((64.7, 65.5, 65.5), 31.0),
    "dots": ((242.4, 226.0, 211.9), 33.1),
    "checks": ((225.0, 227.5, 218.5), 13.1),
    "stripes": ((204.5, 206.6, 189.3), 46.3),
    "waves": ((206.6, 222.8, 226.1), 35.9),
    "triangles": ((200.8, 186.3, 169.8), 28.0),
    "arches": ((188.4, 159.1, 140.7), 57.7),
    "rays": ((244.0, 213.1, 147.3), 45.0),
    "lozenges": ((195.8, 199.8, 182.1), 31.1),
    "blocks": ((216.7, 190.1, 168.3), 48.0),
    "snow": ((72.5, 103.1, 128.7), 38.2),
    "petals": ((244.5, 225.4, 222.0), 19.7),
    "leaf-fall": ((235.3, 215.1, 187.6), 45.5),
    "hearts": ((248.4, 227.6, 225.9), 28.8),
    "stars": ((41.2, 54.8, 78.8), 30.2),
    "eggs": ((238.5, 233.5, 215.3), 23.2),
    "fir": ((203.0, 215.4, 209.1), 47.2),
    "sparks": ((43.7, 42.9, 60.8), 31.2),
}


GROUNDS = {key: item.ground for key, item in BACKDROPS.items()}


class BackdropTest(unittest.TestCase):
    """Grounds drawn by code."""

    def test_what_has_been_released_is_drawn_as_it_was_and_keeps_near_its_first_colour(self):
        """Means and deviations of every backdrop; a better drawing gets a new key."""
        self.assertEqual(RELEASED.keys(), GROUNDS.keys())
        for key, (mean, deviation) in RELEASED.items():
            with self.subTest(key=key):
                drawn = stock_backdrop(GROUNDS[key], 1.0)
                self.assertEqual(drawn.shape, (1200, 1200, 3))
                np.testing.assert_allclose(drawn.mean(axis=(0, 1)), mean, atol=0.15)
                self.assertAlmostEqual(float(drawn.std()), deviation, delta=0.15)
                first = np.array(rgb_of(GROUNDS[key].colours[0]))
                nearest = np.abs(drawn.reshape(-1, 3) - first).max(axis=1)
                self.assertGreater((nearest < 24).mean(), 0.05)

    def test_each_draws_the_same_from_the_same_seed_for_sizes_of_any_ratio(self):
        with mock.patch("lucky_margin.core.grounds.stock.SHORT_SIDE", 60):
            for key, ground in GROUNDS.items():
                for ratio, shape in ((1.6, (60, 96, 3)), (0.05, (1200, 60, 3))):
                    with self.subTest(key=key, ratio=ratio):
                        one, again = (stock_backdrop(ground, ratio) for _ in range(2))
                        np.testing.assert_array_equal(one, again)
                        self.assertEqual(one.shape, shape)

    def test_a_preview_shows_the_same_as_the_file(self):
        finish = finish_of(600, 400, backdrop=GROUNDS["speckle"], photo=None)
        scene = scene_of(finish, sources_of(noise(9, 9)))
        whole = render(scene).astype(float)
        half = render(scene, scale=0.5, rough=True)
        shrunk = whole.reshape(200, 2, 300, 2, 3).mean(axis=(1, 3))
        self.assertLess(np.abs(half - shrunk).mean(), 1.5)
        np.testing.assert_array_equal(
            render(scene, region=(100, 50, 80, 60)), whole[50:110, 100:180]
        )

    def test_a_part_of_it_may_be_enlarged(self):
        ground = GROUNDS["speckle"]
        placed = ground.model_copy(update={"zoom": 2, "x": 1, "y": 0})
        near, all_of_it = (
            render(scene_of(finish_of(400, 400, backdrop=one, photo=None), sources_of(noise(9, 9))))
            for one in (placed, ground)
        )
        shrunk = near.reshape(200, 2, 200, 2, 3).mean(axis=(1, 3))
        self.assertLess(np.abs(shrunk - all_of_it[:200, 200:]).mean(), 1.5)

    def test_another_photo_shows_the_part_that_is_chosen(self):
        halves = np.zeros((100, 300, 3), np.uint8)
        halves[:, :100], halves[:, 200:] = (255, 0, 0), (0, 0, 255)
        for x, colour in ((0, (255, 0, 0)), (1, (0, 0, 255))):
            ground = OtherPhoto(sha256=SHA, x=x)
            finish = finish_of(50, 50, backdrop=ground, photo=None)
            scene = scene_of(finish, sources_of(halves))
            self.assertTrue((render(scene) == colour).all(), x)

    def test_a_radial_gradient_goes_from_the_middle_to_the_corners(self):
        ground = Gradient(form="radial", start="#FF0000", end="#0000FF")
        finish = finish_of(101, 51, backdrop=ground, photo=None)
        picture = render(scene_of(finish, sources_of(noise(9, 9))))
        np.testing.assert_allclose(picture[25, 50], (255, 0, 0), atol=4)
        np.testing.assert_allclose(picture[0, 0], (0, 0, 255), atol=4)
        self.assertTrue((np.diff(picture[25, 50:, 2].astype(int)) >= -2).all())


class ThisPhotoTest(unittest.TestCase):
    """A red disc cut out of a photo that is blue at the left and green at the right."""

    def setUp(self):
        y, x = np.mgrid[:200, :300]
        photo = np.where((x < 150)[..., None], (40, 60, 180), (60, 160, 70)).astype(np.uint8)
        photo[np.hypot(y - 100, x - 150) < 50] = (220, 30, 30)
        self.sources = sources_of(photo)

    def rendered(self, **ground):
        fields = {"backdrop": ThisPhoto(**ground)}
        scene = scene_of(finish_of(**fields), self.sources)
        box = Box(left=0.25, top=0.15, width=0.5, height=0.7)
        return render(scene_of(apply_edit(scene, SetSubject(boxes=(box,))).finish, self.sources))

    def test_no_halo_of_the_subject_is_left_in_the_blurred_photo(self):
        picture = self.rendered(blur=0.03).astype(int)
        y, x = np.mgrid[:200, :300]
        ring = (np.hypot(y - 100, x - 150) > 53) & (np.hypot(y - 100, x - 150) < 70)
        self.assertLess(picture[ring][:, 0].max(), 110)
        np.testing.assert_allclose(picture[100, 150], (220, 30, 30), atol=3)

    def test_unblurred_it_is_the_photo(self):
        photo = self.sources.level("ab" * 32, 0)
        off = np.abs(self.rendered(blur=0).astype(int) - photo)
        self.assertLess(off.mean(), 0.5)

    def test_it_is_greyed_and_darkened(self):
        grey = self.rendered(blur=0, grey=1)
        self.assertEqual(np.ptp(grey[10, 10].astype(int)), 0)
        dark = self.rendered(blur=0, light=-0.5)
        np.testing.assert_allclose(dark[10, 10], (20, 30, 90), atol=1)
        np.testing.assert_allclose(dark[100, 150], (220, 30, 30), atol=2)
