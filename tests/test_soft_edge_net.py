"""What the network for soft edges is trained on: crops of what the product found."""

import tempfile
import unittest
from pathlib import Path

import cv2
import numpy as np

from lucky_margin.core.cut_out.soft_edges import DECIDED, MIXED, WHERE
from tools.soft_edge_net.make_data import SIDE, Crops

TRUE = 14


def keep_scene(folder, name, rng):
    """A dark thing with spines on a light ground, as ``render_scenes`` keeps one."""
    side = 240
    alpha = np.zeros((side, side), np.uint8)
    cv2.circle(alpha, (120, 120), 45, 255, -1, cv2.LINE_AA)
    for turn in np.linspace(0, 2 * np.pi, 90, endpoint=False):
        tip = 120 + rng.uniform(60, 95) * np.array([np.cos(turn), np.sin(turn)])
        cv2.line(alpha, (120, 120), tuple(np.rint(tip).astype(int).tolist()), 255, 1, cv2.LINE_AA)
    subject = np.full((side, side, 3), (50, 40, 90), np.uint8)
    share = alpha[..., None] / 255
    picture = np.rint(share * subject + (1 - share) * (210, 190, 170)).astype(np.uint8)
    for kind, pixels in (("picture", picture), ("subject", subject), ("alpha", alpha)):
        cv2.imwrite(str(folder / f"{name}_{kind}.png"), pixels)


class CropsTest(unittest.TestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        rng = np.random.default_rng(5)
        for number in range(11):
            keep_scene(self.folder, f"{number:03}", rng)

    def crops(self, count, seed=1, unseen=False):
        maker = Crops(self.folder, np.random.default_rng(seed), unseen)
        made = []
        while len(made) < count:
            made += maker.any()
        return made

    def test_each_crop_has_something_to_soften_and_its_truth(self):
        helps = 0
        for crop in self.crops(12):
            self.assertEqual((crop.shape, crop.dtype), ((SIDE, SIDE, TRUE + 1), np.uint8))
            planes = crop / 255
            where = planes[..., WHERE] > 0.3
            self.assertTrue(where.any())
            off = [
                np.abs(planes[..., k] - planes[..., TRUE])[where].mean() for k in (DECIDED, MIXED)
            ]
            helps += off[1] < off[0]
        # The mixture is mostly nearer, or the planes don't belong together.
        self.assertGreater(helps, 6)

    def test_the_same_seed_makes_the_same_crops(self):
        for one, other in zip(self.crops(3), self.crops(3), strict=False):
            np.testing.assert_array_equal(one, other)

    def test_unseen_scenes_are_never_trained_on(self):
        scenes = [Crops(self.folder, np.random.default_rng(0), unseen).scenes for unseen in (0, 1)]
        self.assertEqual([len(part) for part in scenes], [9, 2])
        self.assertFalse(set(scenes[0]) & set(scenes[1]))
