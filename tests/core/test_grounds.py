"""Grounds: of one size alone, and of a finish without a photo."""

import unittest

import numpy as np

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    BlurredPhoto,
    Export,
    Focus,
    Gradient,
    Overrides,
    Point,
    SolidColour,
    TextPiece,
    Tone,
    read_finish,
)
from lucky_margin.core.document.docket import docket_of
from lucky_margin.core.document.history import describe_change
from lucky_margin.core.document.summaries import overrides_in_words
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.pieces import AddText
from lucky_margin.core.edits.sizes import AddSize, SetPixels
from lucky_margin.core.edits.steps import Follow, SetGround
from lucky_margin.core.errors import BadDocument, BadInput
from lucky_margin.core.export import export
from lucky_margin.core.proposals import focus_proposal, tone_proposal, trim_proposal
from lucky_margin.core.render import layout, measure_tone, render
from lucky_margin.core.scene import MemorySources, Scene
from tests.support import finish_of, noise, scene_of, sources_of, with_size

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
        self.assertIn("changed alone", describe_change(self.finish, own))
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
