"""The line for a cutting plotter: where it runs, and at what size."""

import math
import re
import unittest

import cv2
import numpy as np
from defusedxml.ElementTree import fromstring

from lucky_margin.core.document import FixedPixels, Printed
from lucky_margin.core.errors import BadInput
from lucky_margin.core.export import cut_line
from lucky_margin.core.export.cut_line import contours
from tests.support import finish_of, scene_of, sources_of, with_size

MASK = "cd" * 32
SVG = "{http://www.w3.org/2000/svg}"


def disc(side, x, y, radius):
    """A white disc on black, smooth at its edge, as a picture of 3 channels."""
    rows, columns = np.mgrid[0:side, 0:side] + 0.5
    light = np.clip(radius - np.hypot(columns - x, rows - y) + 0.5, 0, 1)
    return np.repeat(np.rint(255 * light).astype(np.uint8)[:, :, None], 3, axis=2)


class CutLineTest(unittest.TestCase):
    def drawing(self, mask, pixels=None, **fields):
        cut_out = {"on": True, "mask": {"sha256": MASK}, "edge": {"specks": 0, "holes": 0}}
        pixels = pixels or FixedPixels(width=200, height=200)
        finish = finish_of(cut_out=cut_out, **fields)
        finish = with_size(finish, pixels=pixels)
        photo = np.full((200, 200, 3), 128, np.uint8)
        return fromstring(cut_line(scene_of(finish, sources_of(photo, others={MASK: mask}))))

    def points(self, drawing):
        """Each closed line's points."""
        (path,) = drawing.findall(f"{SVG}path")
        lines = re.findall(r"M ([^Z]+) Z", path.get("d"))
        return [np.array([point.split(",") for point in line.split()], float) for line in lines]

    def test_it_runs_where_the_subject_ends(self):
        (line,) = self.points(self.drawing(disc(200, 90, 110, 50)))
        away = np.hypot(*(line - (90, 110)).T)
        self.assertLess(np.abs(away - 50).max(), 0.6)
        self.assertLess(abs(away.mean() - 50), 0.2)

    def test_it_runs_outside_the_outermost_outline(self):
        lines = {"lines": [{"width": 0.05}, {"width": 0.04, "gap": 0.06}, {"inside": True}]}
        (line,) = self.points(self.drawing(disc(200, 100, 100, 50), outlines=lines))
        away = np.hypot(*(line - (100, 100)).T)
        self.assertLess(np.abs(away - 70).max(), 0.8)

    def test_a_ring_has_its_hole_and_specks_are_left_out(self):
        ring = disc(200, 100, 100, 60) - disc(200, 100, 100, 30)
        ring[3:5, 3:5] = 255
        radii = sorted(
            round(math.sqrt(cv2.contourArea(line.astype(np.float32)) / math.pi))
            for line in self.points(self.drawing(ring))
        )
        self.assertEqual(radii, [30, 60])

    def test_it_closes_along_the_sheet(self):
        (line,) = self.points(self.drawing(disc(200, 0, 100, 60)))
        self.assertEqual(line[:, 0].min(), 0)
        self.assertAlmostEqual(line[:, 0].max(), 60, delta=0.6)

    def test_it_has_the_millimetres_of_the_print(self):
        printed = Printed(width=50, height=50, ppi=101.6)
        pixels = FixedPixels(width=200, height=200, printed=printed)
        drawing = self.drawing(disc(200, 100, 100, 50), pixels)
        self.assertEqual(drawing.get("width"), "50.000mm")
        self.assertEqual(drawing.get("viewBox"), "0 0 200 200")

    def test_nothing_cut_out_or_in_sight_is_said(self):
        photo = np.full((50, 50, 3), 128, np.uint8)
        with self.assertRaisesRegex(BadInput, "find the subject first"):
            cut_line(scene_of(finish_of(60, 60), sources_of(photo)))
        with self.assertRaisesRegex(BadInput, "move the window over it"):
            self.drawing(np.zeros((200, 200, 3), np.uint8))

    def test_a_slanting_line_is_exact(self):
        rows, columns = np.mgrid[0:80, 0:90] + 0.5
        distance = ((columns - 45) * 0.6 + (rows - 40) * 0.8).astype(np.float32)
        (line,) = contours(distance, 4)
        inner = (line > 1).all(axis=1) & (line[:, 0] < 89) & (line[:, 1] < 79)
        off = (line[inner, 0] - 45) * 0.6 + (line[inner, 1] - 40) * 0.8
        self.assertLess(np.abs(off).max(), 0.12)
