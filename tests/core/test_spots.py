"""Spots: made-up damage is filled so that it can hardly be told, and nothing else changes."""

import unittest

import cv2
import numpy as np

from lucky_margin.core.document import (
    CutOut,
    Export,
    Overrides,
    Spot,
    Spots,
    SpotsChanges,
    Tone,
    Window,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.resetting import ResetStep
from lucky_margin.core.edits.spots import DrawSpot, RemoveSpot
from lucky_margin.core.edits.steps import SwitchStep
from lucky_margin.core.errors import BadInput
from lucky_margin.core.photos import decode
from lucky_margin.core.render import render
from lucky_margin.core.render.spotted import spotted_copy
from lucky_margin.core.sampling import halved
from lucky_margin.core.scene import TakenPhoto
from lucky_margin.core.spots import filled_along
from tests.support import DEMO_PHOTOS, SHA, finish_of, noise, scene_of, sources_of, with_size

DAMAGE = (255, 0, 255)
SMOOTH, TEXTURED = 3.0, 10.0
"""Mean errors (8-bit steps) that may be left in smooth and in textured places."""


ROUGH = 3.0


def roughness(photo, scale):
    """How far a photo strays from its own blur, in 8-bit steps."""
    fine = photo.astype(np.float32)
    return float((fine - cv2.GaussianBlur(fine, (0, 0), scale)).std())


def damaged(photo, x, y, radius):
    """The photo with a disc of paint on it, and where that is."""
    rows, columns = np.mgrid[: photo.shape[0], : photo.shape[1]] + 0.5
    disc = np.hypot(rows - y, columns - x) < radius
    out = photo.copy()
    out[disc] = DAMAGE
    return out, disc


class FillTest(unittest.TestCase):
    def test_damage_all_over_the_demo_photos_is_hardly_to_be_told(self):
        random = np.random.default_rng(5)
        errors = {SMOOTH: [], TEXTURED: []}
        for path in sorted(DEMO_PHOTOS.glob("*.jpg")):
            photo = decode(path.read_bytes()).picture[:, :, :3]
            for _ in range(8):
                radius = float(random.choice([6, 12, 25]))
                reach = int(16 * radius + 30)
                y, x = (int(random.integers(reach, side - reach)) for side in photo.shape[:2])
                part = photo[y - reach : y + reach, x - reach : x + reach]
                spoilt, disc = damaged(part, reach, reach, radius)
                filled = filled_along(spoilt, [(reach, reach)], radius + 1)
                error = np.abs(filled.astype(float) - part)[disc].mean()
                close = int(2 * radius)
                around = part[reach - close : reach + close, reach - close : reach + close]
                rough = roughness(around, max(2, radius / 3)) > ROUGH
                errors[TEXTURED if rough else SMOOTH].append(error)
        for most, found in errors.items():
            with self.subTest(most):
                self.assertGreater(len(found), 10)
                self.assertLess(np.mean(found), most)

    def test_only_the_place_and_its_rim_change(self):
        photo = noise(120, 100)
        filled = filled_along(photo, [(60, 50)], 8)
        rows, columns = np.mgrid[:100, :120] + 0.5
        away = np.hypot(rows - 50, columns - 60)
        np.testing.assert_array_equal(filled[away > 8 * 1.05 + 2], photo[away > 8 * 1.05 + 2])
        self.assertGreater((filled != photo)[away < 7].mean(), 0.9)

    def test_a_long_stroke_is_filled_length_by_length(self):
        """A wire across two halves of other colours."""
        photo = np.full((200, 300, 3), (60, 120, 60), np.uint8)
        photo[:, 150:] = (180, 170, 150)
        wired = photo.copy()
        cv2.line(wired, (10, 20), (290, 180), (20, 20, 20), 5)
        filled = filled_along(wired, [(10, 20), (290, 180)], 5)
        off = np.abs(filled.astype(int) - photo).max(axis=2)
        self.assertLess((off > 20).mean(), 0.001)

    def test_the_same_pattern_is_found_again(self):
        """Stripes go on through the place."""
        photo = np.zeros((160, 160, 3), np.uint8)
        photo[:, (np.arange(160) // 5) % 2 == 0] = 230
        spoilt, disc = damaged(photo, 80, 80, 12)
        filled = filled_along(spoilt, [(80, 80)], 13)
        self.assertLess(np.abs(filled.astype(int) - photo)[disc].mean(), 2)

    def test_what_cannot_be_filled_stays(self):
        photo = noise(20, 20)
        np.testing.assert_array_equal(filled_along(photo, [(10, 10)], 400), photo)
        one = noise(1, 1)
        np.testing.assert_array_equal(filled_along(one, [(0.5, 0.5)], 3), one)

    def test_alpha_stays_and_clear_pixels_are_not_taken(self):
        photo = np.full((80, 80, 4), (90, 140, 60, 255), np.uint8)
        photo[:, 50:] = (255, 0, 0, 0)
        spoilt = photo.copy()
        spoilt[36:44, 36:44, :3] = DAMAGE
        filled = filled_along(spoilt, [(40, 40)], 7)
        np.testing.assert_array_equal(filled[:, :, 3], photo[:, :, 3])
        self.assertLess(np.abs(filled[:, :50].astype(int) - photo[:, :50]).max(), 4)

    def test_16_bits_stay_16_bits(self):
        photo = np.full((60, 60, 3), 30_001, np.uint16)
        photo[28:32, 28:32] = 60_000
        filled = filled_along(photo, [(30, 30)], 4)
        self.assertEqual(filled.dtype, np.uint16)
        self.assertLess(np.abs(filled.astype(int) - 30_001).max(), 200)


class SpottedCopyTest(unittest.TestCase):
    def test_every_halved_copy_is_that_of_the_filled_photo(self):
        photo = noise(301, 203)
        sources = sources_of(photo)
        spots = (
            Spot(radius=0.03, points=((0.3, 0.4), (0.5, 0.5))),
            Spot(radius=0.02, points=((0.52, 0.5),)),
            Spot(radius=0.02, points=((0.99, 0.99),)),
        )
        whole = spotted_copy(TakenPhoto(SHA, sources), spots, 0)
        self.assertGreater((whole != photo).any(axis=2).sum(), 100)
        for number in range(1, 9):
            whole = halved(whole)
            copy = spotted_copy(TakenPhoto(SHA, sources), spots, number)
            self.assertLessEqual(np.abs(copy.astype(int) - whole).max(), 0, number)

    def test_a_spot_takes_nothing_that_an_earlier_one_took_away(self):
        photo = np.full((120, 400, 3), 120, np.uint8)
        places = range(40, 380, 40)
        for x in places:
            photo[54:66, x - 6 : x + 6] = DAMAGE
        spots = tuple(Spot(radius=0.025, points=((x / 400, 0.5),)) for x in places)
        out = spotted_copy(TakenPhoto(SHA, sources_of(photo)), spots, 0)
        self.assertLess(np.abs(out.astype(int) - 120).max(), 3)


class RenderedTest(unittest.TestCase):
    """A grey photo with a red speck in its middle."""

    def photo(self):
        photo = np.full((200, 300, 3), 128, np.uint8)
        photo[95:105, 145:155] = (220, 20, 20)
        return photo

    def finish(self, **fields):
        fields = {"export": Export(format="png"), **fields}
        spot = Spot(radius=0.03, points=((0.5, 0.5),))
        return finish_of(spots=Spots(filled=(spot,)), **fields)

    def test_it_is_gone_before_tone_and_cut_out_and_seen_in_before(self):
        sources = sources_of(self.photo())
        for fields in ({}, {"tone": Tone(exposure=0.5, shadows=20)}):
            out = render(scene_of(self.finish(**fields), sources)).astype(int)
            self.assertLess(np.ptp(out[:, :, 0]), 4)
        before = render(scene_of(self.finish(), sources), view="before")
        np.testing.assert_array_equal(before, self.photo())
        cut_out = CutOut(on=True, boxes=({"left": 0.3, "top": 0.2, "width": 0.4, "height": 0.6},))
        cut = render(scene_of(self.finish(cut_out=cut_out), sources))
        shown = cut[cut[:, :, 3] > 0]
        self.assertLess(np.abs(shown[:, 0].astype(int) - shown[:, 1]).max(initial=0), 10)

    def test_off_is_absent_and_one_size_may_leave_them_out(self):
        sources = sources_of(self.photo())
        finish = self.finish()
        off = apply_edit(scene_of(finish, sources), SwitchStep(step="spots", on=False)).finish
        np.testing.assert_array_equal(render(scene_of(off, sources)), self.photo())
        own = with_size(finish, overrides=Overrides(spots=SpotsChanges(on=False)))
        np.testing.assert_array_equal(render(scene_of(own, sources)), self.photo())
        reset = apply_edit(scene_of(finish, sources), ResetStep(step="spots")).finish
        self.assertEqual(reset.spots, Spots())

    def test_it_stays_on_the_photo_under_a_new_crop(self):
        sources = sources_of(self.photo())
        window = Window(centre_x=150, centre_y=100, width=60, height=60)
        finish = with_size(self.finish(), crop={"window": window.model_dump()})
        self.assertLess(np.ptp(render(scene_of(finish, sources))), 4)


class EditTest(unittest.TestCase):
    def setUp(self):
        self.scene = scene_of(finish_of(), sources_of(noise(300, 200)))

    def drawn(self, *points, scene=None, radius=6.0):
        return apply_edit(scene or self.scene, DrawSpot(radius=radius, points=points)).finish

    def test_spots_are_drawn_on_the_photo_and_removed_one_by_one(self):
        finish = self.drawn((150, 50))
        (spot,) = finish.spots.filled
        self.assertEqual(spot.points, ((0.5, 0.25),))
        self.assertAlmostEqual(spot.radius, 6 / 300)
        both = self.drawn((30, 30), (60, 30), scene=scene_of(finish, self.scene.sources))
        self.assertEqual(len(both.spots.filled), 2)
        scene = scene_of(both, self.scene.sources)
        first = apply_edit(scene, RemoveSpot(number=0)).finish
        self.assertEqual(first.spots.filled, both.spots.filled[1:])
        self.assertEqual(apply_edit(scene, RemoveSpot(number=None)).finish.spots.filled, ())

    def test_what_makes_no_sense_is_said(self):
        with self.assertRaisesRegex(BadInput, "outside the photo"):
            self.drawn((-90, -90))
        with self.assertRaisesRegex(BadInput, "There is no spot 1"):
            apply_edit(self.scene, RemoveSpot(number=0))
        many = Spots(filled=tuple(Spot(radius=0.01, points=((0.5, 0.5),)) for _ in range(200)))
        full = scene_of(finish_of(spots=many), self.scene.sources)
        with self.assertRaisesRegex(BadInput, "200 spots can be filled at most"):
            self.drawn((50, 50), scene=full)


if __name__ == "__main__":
    unittest.main()
