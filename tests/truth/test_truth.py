"""The photos with truth are what they claim, and strokes are laid where a mistake is."""

import unittest

import numpy as np

from tests.truth.figures import errors
from tests.truth.photos import FOLDER, HELD_OUT, MOST_ROOM, SEEN, TUNING, composite, true_photo
from tests.truth.strokes import next_stroke


class ScenesTest(unittest.TestCase):
    def test_half_of_at_least_eight_are_held_out_and_all_are_small(self):
        self.assertEqual(len(TUNING), len(HELD_OUT))
        self.assertGreaterEqual(len(TUNING) + len(HELD_OUT), 8)
        files = list(FOLDER.iterdir())
        self.assertLess(sum(path.stat().st_size for path in files), 12_000_000)
        names = {path.name.split(".")[0] for path in files}
        self.assertEqual(names, {*TUNING, *HELD_OUT})

    def test_every_subject_is_a_fair_part_of_its_photo_and_whole(self):
        for name in (*TUNING, *HELD_OUT):
            scene = true_photo(name)
            with self.subTest(name):
                self.assertEqual(scene.photo.shape[:2], scene.alpha.shape)
                self.assertGreaterEqual(max(scene.alpha.shape), 1500)
                self.assertLessEqual(max(scene.alpha.shape), 2000)
                self.assertGreater(scene.alpha.mean(), 0.15)
                self.assertLess(scene.alpha.mean(), 0.60)
                self.assertGreater((scene.alpha == 1).mean(), 0.05)

    def test_a_box_holds_the_subject_with_little_room(self):
        scene = true_photo(TUNING[0])
        rows, columns = scene.alpha.shape
        down, across = np.nonzero(scene.alpha > SEEN)
        for seed in range(5):
            box = scene.box(seed)
            self.assertLessEqual(box.left * columns, across.min() + 1e-6)
            self.assertLessEqual(box.top * rows, down.min() + 1e-6)
            self.assertGreaterEqual(box.right * columns, across.max() + 1 - 1e-6)
            wide = (across.max() + 1 - across.min()) / columns
            self.assertLessEqual(box.width, (1 + 2 * MOST_ROOM) * wide + 1e-9)
        self.assertNotEqual(scene.box(0), scene.box(1))

    def test_a_composite_shows_the_other_picture_where_there_is_no_subject(self):
        scene = true_photo(TUNING[0])
        green = np.full((10, 10, 3), (0, 200, 0), np.uint8)
        mixed = composite(scene, green)
        np.testing.assert_array_equal(mixed.photo[scene.alpha == 0][:5], [[0, 200, 0]] * 5)
        solid = scene.alpha == 1
        np.testing.assert_array_equal(mixed.photo[solid], scene.photo[solid])


class StrokeTest(unittest.TestCase):
    def setUp(self):
        self.truth = np.zeros((100, 200), np.float32)
        self.truth[20:80, 50:150] = 1

    def test_a_lost_part_is_kept_by_a_stroke_along_its_middle(self):
        alpha = self.truth.copy()
        alpha[20:30, 60:140] = 0
        stroke = next_stroke(alpha, self.truth)
        self.assertEqual(stroke.kind, "keep")
        self.assertGreater(len(stroke.points), 4)
        for x, y in stroke.points:
            self.assertTrue(60 <= 200 * x <= 140 and 20 <= 100 * y <= 30)
        for _, y in stroke.points[1:-1]:
            self.assertAlmostEqual(100 * y, 25, delta=1.5)
        self.assertAlmostEqual(200 * stroke.radius, 2.5, delta=0.5)

    def test_the_largest_mistake_goes_first_whatever_its_kind(self):
        alpha = self.truth.copy()
        alpha[22:26, 60:64] = 0
        alpha[80:96, 60:140] = 1
        self.assertEqual(next_stroke(alpha, self.truth).kind, "leave out")

    def test_a_small_error_is_no_mistake(self):
        self.assertIsNone(next_stroke(0.6 * self.truth, self.truth))
        self.assertIsNone(next_stroke(self.truth, self.truth))

    def test_one_wrong_pixel_is_a_point(self):
        alpha = self.truth.copy()
        alpha[50, 100] = 0
        self.assertEqual(len(next_stroke(alpha, self.truth).points), 1)


class FiguresTest(unittest.TestCase):
    def test_errors_are_counted_over_photo_box_and_soft_edge(self):
        scene = true_photo(TUNING[0])
        box = scene.box(0)
        self.assertEqual(errors(scene.alpha, scene, box).photo, 0)
        nothing = errors(np.zeros_like(scene.alpha), scene, box)
        self.assertAlmostEqual(nothing.photo, float(scene.alpha.mean()), places=6)
        self.assertGreater(nothing.box, nothing.photo)
        self.assertTrue(0.02 < nothing.soft < 0.98)
        with self.assertRaises(ValueError):
            errors(np.zeros((2, 2), np.float32), scene, box)
