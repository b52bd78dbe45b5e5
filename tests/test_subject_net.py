"""What the network for things is trained on: drawn outlines and surfaces, boxes, masks, strokes."""

import unittest

import cv2
import numpy as np

from tools.subject_net.conditions import box_of, example
from tools.subject_net.silhouettes import SIDE, TRAINING, VALIDATION, Silhouettes
from tools.subject_net.surfaces import Surfaces

SIDES = 96


def drawn_thing(rng):
    """A drawn thing in one colour on another, and its alpha, as training pictures are kept."""
    parts = Silhouettes(rng, unseen=False).any()
    whole = np.max(parts, axis=0)
    alpha = cv2.resize(whole, (SIDES, SIDES), interpolation=cv2.INTER_AREA)
    photo = np.where(alpha[..., None] > 127, np.uint8([200, 80, 40]), np.uint8([30, 90, 160]))
    return photo, alpha


class ConditionsTest(unittest.TestCase):
    def test_strokes_lie_on_what_they_say_and_within_the_picture(self):
        keeps = leaves = 0
        for seed in range(40):
            rng = np.random.default_rng(seed)
            shown, alpha = example(*drawn_thing(rng), SIDES, rng)
            self.assertEqual((shown.shape, alpha.shape), ((7, SIDES, SIDES), (1, SIDES, SIDES)))
            self.assertEqual((shown.min() >= 0, shown.max() <= 1), (True, True))
            keep, leave_out = shown[4] > 0, shown[5] > 0
            keeps, leaves = keeps + keep.sum(), leaves + leave_out.sum()
            self.assertTrue((alpha[0][keep] > 0.5).all(), seed)
            self.assertTrue((alpha[0][leave_out] < 0.5).all(), seed)
        self.assertGreater(min(keeps, leaves), 100)

    def test_a_box_is_about_that_of_its_subject(self):
        alpha = np.zeros((100, 200), np.uint8)
        alpha[20:80, 50:150] = 255
        boxes = np.array([box_of(alpha, np.random.default_rng(seed)) for seed in range(200)])
        out = np.abs(boxes - [50, 20, 150, 80]) / [100, 60, 100, 60]
        self.assertLess(out.max(), 0.17)
        self.assertGreater(out.mean(), 0.02)

    def test_of_an_empty_picture_the_box_is_all(self):
        nothing = np.zeros((30, 40), np.uint8)
        self.assertEqual(box_of(nothing, np.random.default_rng(0)), (0, 0, 40, 30))

    def test_a_small_subject_often_comes_without_a_box(self):
        photo, alpha = np.full((SIDES, SIDES, 3), 90, np.uint8), np.zeros((SIDES, SIDES), np.uint8)
        for rows, least, most in ((20, 0.4, 0.6), (50, 0.05, 0.2)):
            alpha[18 : 18 + rows] = 255
            shown = [example(photo, alpha, SIDES, np.random.default_rng(n))[0] for n in range(300)]
            boxes = np.array([one[3] for one in shown])
            whole = (boxes[:, 2:10] == 0).any((1, 2)) & (boxes[:, 10:-10, 10:-10] == 1).all((1, 2))
            self.assertTrue(least < whole.mean() < most, whole.mean())


class DrawingTest(unittest.TestCase):
    def test_every_kind_of_outline_is_drawn(self):
        rng = np.random.default_rng(1)
        for unseen, kinds in ((False, TRAINING), (True, VALIDATION)):
            silhouettes = Silhouettes(rng, unseen)
            for kind in kinds:
                silhouettes.kinds = (kind,)
                parts = silhouettes.any()
                self.assertEqual({part.shape for part in parts}, {(SIDE, SIDE)}, kind)
                self.assertGreater((np.max(parts, axis=0) > 127).mean(), 0.005, kind)

    def test_validation_sees_no_outline_and_hardly_a_surface_of_training(self):
        self.assertFalse(set(TRAINING) & set(VALIDATION))
        seen, unseen = (Surfaces(np.random.default_rng(0), which).kinds for which in (False, True))
        self.assertEqual(set(seen) & set(unseen), {"flat", "shaded"})

    def test_surfaces_are_colours_and_mostly_not_plain(self):
        surfaces = Surfaces(np.random.default_rng(2), unseen=False)
        made = [surfaces.any(40, 60) for _ in range(30)]
        self.assertEqual({one.shape for one in made}, {(40, 60, 3)})
        self.assertTrue(all(one.min() >= 0 and one.max() <= 1 for one in made))
        self.assertGreater(sum(one.std(axis=(0, 1)).max() > 0.02 for one in made), 15)
