"""Washes and areas added, dragged and picked; and that the screen's shapes are where they act."""

import math
import re
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    Area,
    BandMask,
    EllipseMask,
    LightMask,
    PhotoPoint,
    Tone,
    Turn,
    Window,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.masks import AddMask, DragMask, PickForMask
from lucky_margin.core.edits.sizes import DuplicateSize
from lucky_margin.core.edits.tone import AddArea, AddWash, DragWash
from lucky_margin.core.errors import BadInput
from lucky_margin.core.render import layout, render
from lucky_margin.core.scene import Scene
from lucky_margin.core.tone import noise_of
from tests.support import demo_sources, finish_of, scene_of, sources_of, with_size

SOURCES = sources_of(np.full((200, 300, 3), 90, np.uint8))
WINDOW = Window(centre_x=200, centre_y=100, width=100, height=100)


def cropped(**fields):
    """300 x 200 photo pixels, of which 100 x 100 are shown at double size."""
    finish = finish_of(200, 200, **fields)
    return with_size(finish, crop={"window": WINDOW.model_dump()})


def edited(finish, edit):
    return apply_edit(Scene.of(finish, finish.sizes[0].id, SOURCES), edit).finish


def shapes(finish):
    return layout(scene_of(finish, SOURCES)).tone_shapes


def grip(finish, name, number=0):
    return next(one for one in shapes(finish)[number].grips if one.grip == name)


class AddingTest(unittest.TestCase):
    def test_what_is_added_lies_in_what_is_shown(self):
        wash = edited(cropped(), AddWash()).tone.washes[0]
        self.assertEqual((wash.start, wash.end), (spot(200, 50), spot(200, 150)))
        band = edited(cropped(), AddArea(mask="band")).tone.areas[0].masks[0]
        self.assertEqual(band.start, spot(200, 75))
        ellipse = edited(cropped(), AddArea(mask="ellipse")).tone.areas[0].masks[0]
        self.assertEqual((ellipse.centre, ellipse.radius_x), (spot(200, 100), 0.1))

    def test_an_area_is_narrowed_down_and_a_tone_switched_on(self):
        finish = edited(cropped(tone=Tone(on=False)), AddArea(mask="band"))
        finish = edited(finish, AddMask(number=0, mask="hue"))
        self.assertTrue(finish.tone.on)
        self.assertEqual([mask.kind for mask in finish.tone.areas[0].masks], ["band", "hue"])

    def test_one_size_may_have_its_own(self):
        finish = edited(cropped(), DuplicateSize())
        finish = edited(finish, AddWash(only_this_size=True))
        washes = [len(finish.tone_of(size).washes) for size in finish.sizes]
        self.assertEqual(washes, [1, 0])

    def test_too_many_and_gone_are_one_sentence(self):
        finish = cropped()
        for _ in range(8):
            finish = edited(edited(finish, AddWash()), AddArea(mask="light"))
        for _ in range(3):
            finish = edited(finish, AddMask(number=0, mask="hue"))
        for said, edit in (
            ("8 washes at most", AddWash()),
            ("8 areas at most", AddArea(mask="band")),
            ("4 masks at most", AddMask(number=0, mask="band")),
            ("no wash 9", DragWash(number=8, grip="start", dx=1, dy=1)),
            ("no area 9", AddMask(number=8, mask="band")),
            ("no mask 5", DragMask(number=0, mask=4, grip="middle", dx=1, dy=1)),
            ("Only a band or an ellipse", DragMask(number=0, mask=0, grip="end", dx=1, dy=1)),
            ("no area 0", PickForMask(number=-1, mask=0, colour="#FFFFFF")),
        ):
            with self.subTest(said=said), self.assertRaisesRegex(BadInput, said):
                edited(finish, edit)


def spot(x, y):
    """Photo pixels as a place in photo space, as edits round it."""
    return PhotoPoint(x=round(x / 300, 6), y=round(y / 200, 6))


class DraggingTest(unittest.TestCase):
    turns = st.builds(
        Turn,
        quarters=st.integers(0, 3),
        mirrored=st.booleans(),
        straighten=st.floats(-20, 20),
    )

    @settings(max_examples=40)
    @given(
        turn=turns,
        dx=st.floats(-80, 80),
        dy=st.floats(-80, 80),
        name=st.sampled_from(["start", "middle", "end"]),
    )
    def test_a_grip_of_a_wash_goes_with_the_pointer(self, turn, dx, dy, name):
        finish = edited(cropped(turn=turn), AddWash())
        before = grip(finish, name)
        after = grip(edited(finish, DragWash(number=0, grip=name, dx=dx, dy=dy)), name)
        self.assertAlmostEqual(after.x - before.x, dx, delta=0.01)
        self.assertAlmostEqual(after.y - before.y, dy, delta=0.01)

    @settings(max_examples=40)
    @given(turn=turns, dx=st.floats(-40, 40), dy=st.floats(-40, 40))
    def test_an_ellipse_goes_with_the_pointer(self, turn, dx, dy):
        finish = edited(cropped(turn=turn), AddArea(mask="ellipse"))
        for name in ("middle", "right"):
            before = grip(finish, name)
            edit = DragMask(number=0, mask=0, grip=name, dx=dx, dy=dy)
            after = grip(edited(finish, edit), name)
            # The angle is kept to a tenth of a degree.
            self.assertAlmostEqual(after.x - before.x, dx, delta=0.2)
            self.assertAlmostEqual(after.y - before.y, dy, delta=0.2)

    def test_the_rim_below_changes_the_other_radius_alone(self):
        finish = edited(cropped(), AddArea(mask="ellipse"))
        finish = edited(finish, DragMask(number=0, mask=0, grip="below", dx=30, dy=40))
        ellipse = finish.tone.areas[0].masks[0]
        self.assertEqual((ellipse.radius_x, ellipse.angle), (0.1, 0))
        self.assertAlmostEqual(ellipse.radius_y, (30 + 20) / 300)

    def test_a_range_is_picked_from_the_photo(self):
        finish = edited(cropped(), AddArea(mask="light"))
        finish = edited(finish, AddMask(number=0, mask="hue"))
        finish = edited(finish, PickForMask(number=0, mask=0, colour="#777777"))
        finish = edited(finish, PickForMask(number=0, mask=1, colour="#2244CC"))
        light, hue = finish.tone.areas[0].masks
        self.assertTrue(light.low < 57 < light.high)
        self.assertAlmostEqual(hue.hue, 266, delta=6)
        band = edited(cropped(), AddArea(mask="band"))
        with self.assertRaisesRegex(BadInput, "Only a range"):
            edited(band, PickForMask(number=0, mask=0, colour="#777777"))


class ShapesTest(unittest.TestCase):
    """What is drawn over the picture is where the picture changes."""

    def test_an_ellipse_is_drawn_around_what_it_changes(self):
        ellipse = EllipseMask(
            centre=PhotoPoint(x=0.65, y=0.5), radius_x=0.12, radius_y=0.07, angle=30, softness=0
        )
        tone = Tone(areas=(Area(masks=(ellipse,), exposure=1),))
        finish = cropped(tone=tone, turn=Turn(mirrored=True, straighten=10))
        picture = render(scene_of(finish, SOURCES))[:, :, 0]
        path = shapes(finish)[0].path
        corners = np.array(re.findall(r"(-?[\d.]+) (-?[\d.]+)", path), float)
        centre = corners.mean(axis=0)
        for corner in corners:
            inside, outside = (centre + (corner - centre) * share for share in (0.9, 1.1))
            for (x, y), bright in ((inside, True), (outside, False)):
                if 0 <= x < 200 and 0 <= y < 200:
                    self.assertEqual(picture[int(y), int(x)] > 91, bright)

    def test_ranges_have_no_shape_and_the_others_name_their_mask(self):
        masks = (LightMask(), BandMask(), EllipseMask())
        finish = cropped(tone=Tone(areas=(Area(masks=masks),)))
        found = [(shape.place, shape.number, shape.mask) for shape in shapes(finish)]
        self.assertEqual(found, [("area", 0, 1), ("area", 0, 2)])

    def test_shapes_are_there_while_the_tone_is_off(self):
        finish = edited(cropped(), AddWash())
        off = finish.model_copy(update={"tone": finish.tone.model_copy(update={"on": False})})
        self.assertEqual(shapes(off), shapes(finish))


class NoiseTest(unittest.TestCase):
    def test_the_noise_of_a_smooth_slope_is_found(self):
        slope = np.linspace(40, 200, 600)[None, :, None] * np.ones((400, 1, 3))
        for sigma in (0, 2, 5, 10):
            grain = np.random.default_rng(4).normal(0, sigma, (400, 600, 1))
            noisy = np.clip(slope + grain, 0, 255).round().astype(np.uint8)
            with self.subTest(sigma=sigma):
                # Rounding adds noise of its own, of 1 / sqrt(12).
                found, wanted = noise_of(noisy), math.hypot(sigma, 0.2)
                self.assertAlmostEqual(found, wanted, delta=0.12 * sigma + 0.2)

    def test_edges_are_not_noise_and_tiny_or_clipped_pictures_have_none(self):
        checks = np.kron(np.indices((8, 8)).sum(axis=0) % 2, np.ones((50, 50))) * 120 + 60
        self.assertLess(noise_of(np.dstack([checks] * 3).astype(np.uint8)), 0.1)
        self.assertEqual(noise_of(np.zeros((3, 3, 3), np.uint8)), 0)
        self.assertEqual(noise_of(np.full((90, 90, 3), 255, np.uint8)), 0)

    def test_a_lifted_night_is_noisy_and_the_check_s_action_mends_it(self):
        sources = demo_sources("kiln-night.jpg")
        finish = finish_of(1080, 1350, tone=Tone(exposure=1.5, shadows=50))
        found = {one.key: one for one in check(scene_of(finish, sources))}
        self.assertIn("Noise is visible", found["noise"].text)
        mended = apply_edit(scene_of(finish, sources), found["noise"].action.edit).finish
        left = {one.key for one in check(scene_of(mended, sources))}
        self.assertNotIn("noise", left)
        calm = finish_of(1080, 1350)
        plain = {one.key for one in check(scene_of(calm, demo_sources("mugs-window.jpg")))}
        self.assertNotIn("noise", plain)
