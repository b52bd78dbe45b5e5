"""Compiled loops: each for one kind of array, so that none is compiled while somebody waits."""

import unittest
from importlib import import_module

import numpy as np

from lucky_margin.core.borders import Edges, across
from lucky_margin.core.contour import distance_to_contour
from lucky_margin.core.document import Dots
from lucky_margin.core.tone import ColourTable, with_table
from lucky_margin.core.treatments.dots import draw_dots
from lucky_margin.core.treatments.working import Pixels
from tests.support import noise


class OneKindTest(unittest.TestCase):
    def assert_one_kind(self, module, loop):
        signatures = getattr(import_module(f"lucky_margin.core.{module}"), loop).signatures
        self.assertEqual(len(signatures), 1, signatures)

    def test_whatever_a_contour_is_measured_of(self):
        spot = np.zeros((60, 80), np.float32)
        spot[20:30, 25:50] = 1
        for alpha, reach in ((spot, 2), (spot, 2.5), (spot[10:50, 5:70], np.float32(3))):
            distance_to_contour(alpha, reach)
        self.assert_one_kind("contour", "_measure")

    def test_whatever_edges_a_band_has(self):
        square = np.array([[0.0, 0.0], [4.0, 0.0], [4.0, 4.0], [0.0, 4.0]])
        steps = np.roll(square, -1, axis=0) - square
        beside, normals = np.zeros((4, 2), np.int64), np.zeros((4, 2, 2))
        for points, thickness in (
            (square, np.ones(4)),
            (np.asfortranarray(square), np.ones(4, int)),
            (np.hstack([square, square])[:, :2], np.ones(8)[::2]),
        ):
            edges = Edges(points, steps, thickness, normals, np.array([4]), beside)
            across(edges, 0, 0.5, 1, 4, 4)
        self.assert_one_kind("borders.across", "_nearest")

    def test_however_many_inks_print(self):
        pixels = Pixels((0, 0, 6, 5), 6, 5, 1.2, 1.0)
        for inks in (1, 3):
            covered = np.full((5, 6, inks), 0.5, np.float32)
            for form, loop in (("round", "_cover_by_dots"), ("line", "_cover_by_lines")):
                draw_dots(Dots(form=form), covered, noise(6, 5), pixels)
                self.assert_one_kind("treatments.dots", loop)

    def test_whatever_a_table_covers(self):
        colours = np.linspace(0, 1, 24, dtype=np.float32).reshape(2, 2, 2, 3)
        fixed = noise(6, 5, dtype=np.uint16)
        fixed.flags.writeable = False
        for picture, high, strength in (
            (noise(6, 5), (1, 1, 1), 1),
            (noise(6, 5, dtype=np.uint16), (1.0, 1.0, 2.0), 0.5),
            (fixed, (1, 1, 1), 1.0),
        ):
            with_table(picture, ColourTable("any", colours, high=high), strength)
        self.assert_one_kind("tone.cube", "_through")
