"""Lines that follow a photo's edges, as they are laid under a picture."""

import unittest

import numpy as np

from lucky_margin.core.affine import Affine
from lucky_margin.core.tone.guided import GuidedLines

ASKEW = Affine(1.9, 0.43, -0.43, 1.9, 35.7, -20.2)
"""From a picture's pixels to those of a photo four times as large as the lines."""


def lines(rows=40, columns=70):
    values = np.random.default_rng(5).random((rows, columns, 2)).astype(np.float32)
    return GuidedLines(values, 0.25)


class LaidTest(unittest.TestCase):
    def test_each_pixel_has_what_lies_between_the_nearest_four(self):
        guided = lines()
        rows, columns = guided.lines.shape[:2]
        y, x = np.mgrid[:50, :120] + 0.5
        over = (0.25 * (ASKEW.a * x + ASKEW.b * y + ASKEW.x0) - 0.5).clip(0, columns - 1)
        down = (0.25 * (ASKEW.c * x + ASKEW.d * y + ASKEW.y0) - 0.5).clip(0, rows - 1)
        x0, y0 = over.astype(int), down.astype(int)
        x1, y1 = np.minimum(x0 + 1, columns - 1), np.minimum(y0 + 1, rows - 1)
        right, below = (over - x0)[..., None], (down - y0)[..., None]
        upper = (1 - right) * guided.lines[y0, x0] + right * guided.lines[y0, x1]
        lower = (1 - right) * guided.lines[y1, x0] + right * guided.lines[y1, x1]
        wanted = (1 - below) * upper + below * lower
        laid = guided.laid(ASKEW, (0, 0, 120, 50))
        np.testing.assert_allclose(laid, wanted, atol=1e-6)

    def test_a_part_is_what_it_is_in_the_whole(self):
        guided = lines()
        whole = guided.laid(ASKEW, (0, 0, 130, 60))
        for left, top, width, height in ((3, 5, 100, 40), (17, 1, 31, 59), (129, 59, 1, 1)):
            part = guided.laid(ASKEW, (left, top, width, height))
            np.testing.assert_array_equal(part, whole[top : top + height, left : left + width])

    def test_lines_of_a_single_pixel_are_the_same_everywhere(self):
        guided = GuidedLines(np.array([[[0.3, -1.2]]], np.float32), 0.01)
        laid = guided.laid(ASKEW, (0, 0, 9, 7))
        np.testing.assert_array_equal(laid, np.broadcast_to(guided.lines, laid.shape))
