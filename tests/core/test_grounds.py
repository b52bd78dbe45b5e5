"""Grounds: of one size alone, and of a finish without a photo."""

import unittest

import numpy as np

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    STOCK_BACKDROPS,
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
    "paper": ((239.1, 233.1, 221.1), 8.3),
    "laid": ((232.8, 222.8, 200.8), 13.9),
    "plaster": ((216.9, 207.9, 194.9), 10.3),
    "limewash": ((215.8, 202.2, 181.6), 17.1),
    "linen": ((217.2, 207.2, 188.2), 13.9),
    "felt": ((95.0, 117.0, 102.0), 11.2),
    "stone": ((204.3, 199.0, 192.1), 12.8),
    "sand": ((220.0, 199.0, 161.0), 25.6),
    "speckle": ((238.7, 231.7, 217.7), 10.3),
    "glow": ((202.8, 146.8, 102.7), 50.7),
    "sweep": ((190.9, 180.7, 168.5), 12.5),
    "bloom": ((204.6, 189.2, 169.3), 23.7),
}


class BackdropTest(unittest.TestCase):
    """Grounds drawn by code."""

    def test_each_draws_the_same_from_the_same_seed_and_keeps_near_its_first_colour(self):
        for key, ground in STOCK_BACKDROPS.items():
            with self.subTest(key=key):
                one, again = (stock_backdrop(ground, 1.0) for _ in range(2))
                np.testing.assert_array_equal(one, again)
                self.assertEqual(one.shape, (1200, 1200, 3))
                first = np.array(rgb_of(ground.colours[0]))
                nearest = np.abs(one.reshape(-1, 3) - first).max(axis=1)
                self.assertGreater((nearest < 24).mean(), 0.05)

    def test_what_has_been_released_is_drawn_as_it_was(self):
        """Means and deviations of every backdrop; a better drawing gets a key of its own."""
        for key, (mean, deviation) in RELEASED.items():
            drawn = stock_backdrop(STOCK_BACKDROPS[key], 1.0)
            np.testing.assert_allclose(drawn.mean(axis=(0, 1)), mean, atol=0.15, err_msg=key)
            self.assertAlmostEqual(float(drawn.std()), deviation, delta=0.15, msg=key)

    def test_a_preview_shows_the_same_as_the_file(self):
        finish = finish_of(600, 400, backdrop=STOCK_BACKDROPS["speckle"], photo=None)
        scene = scene_of(finish, sources_of(noise(9, 9)))
        whole = render(scene).astype(float)
        half = render(scene, scale=0.5, rough=True)
        shrunk = whole.reshape(200, 2, 300, 2, 3).mean(axis=(1, 3))
        self.assertLess(np.abs(half - shrunk).mean(), 1.5)
        np.testing.assert_array_equal(
            render(scene, region=(100, 50, 80, 60)), whole[50:110, 100:180]
        )

    def test_a_part_of_it_may_be_enlarged(self):
        ground = STOCK_BACKDROPS["speckle"]
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

    def test_each_covers_sizes_of_any_ratio(self):
        for key, ground in STOCK_BACKDROPS.items():
            for sides in ((64, 36), (9, 90)):
                finish = finish_of(*sides, backdrop=ground, photo=None)
                picture = render(scene_of(finish, sources_of(noise(9, 9))))
                self.assertEqual(picture.shape, (sides[1], sides[0], 3), key)

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
