"""Checks: measured, with an action that mends what they found."""

import unittest

import numpy as np

from lucky_margin.core.document import Box, Export, Shape, SolidColour, Window
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.render import check
from tests.support import SHA, finish_of, noise, sources_of, with_size


class CheckTest(unittest.TestCase):
    sources = sources_of(noise(1000, 800))

    def found(self, finish, sources=None):
        sources = sources or self.sources
        return {c.key: c for c in check(finish, finish.sizes[0], sources)}

    def mended(self, finish, key, sources=None):
        sources = sources or self.sources
        action = self.found(finish, sources)[key].action
        facts = sources.facts(SHA)
        return self.found(apply_edit(finish, "main", action.edit, facts).finish, sources)

    def test_enough_pixels_are_fine(self):
        found = self.found(finish_of(400, 400))
        self.assertEqual((found["sharpness"].light, found["sharpness"].action), ("fine", None))
        self.assertIn("2.0 photo pixels", found["sharpness"].text)
        self.assertEqual(set(found), {"sharpness"})

    def test_exactly_one_to_one_is_still_sharp(self):
        self.assertEqual(self.found(finish_of(800, 800))["sharpness"].light, "fine")
        self.assertEqual(self.found(finish_of())["sharpness"].light, "fine")

    def test_soft_and_poor_are_told_apart(self):
        self.assertTrue(self.found(finish_of(900, 900))["sharpness"].text.startswith("Soft"))
        self.assertTrue(self.found(finish_of(1200, 1200))["sharpness"].text.startswith("Poor"))

    def test_fewer_pixels_mend_it(self):
        self.assertEqual(self.mended(finish_of(1300, 1200), "sharpness")["sharpness"].light, "fine")

    def test_showing_more_of_the_photo_mends_it_where_that_is_enough(self):
        own = {"window": Window.around(Box(left=0, top=0, width=200, height=200))}
        finish = with_size(finish_of(600, 600), crop=own)
        self.assertEqual(self.found(finish)["sharpness"].action.label, "Show more of the photo")
        self.assertEqual(self.mended(finish, "sharpness")["sharpness"].light, "fine")

    def test_a_window_of_another_ratio_is_said_and_fitted(self):
        own = {"window": Window.around(Box(left=0, top=0, width=500, height=300))}
        finish = with_size(finish_of(200, 200), crop=own)
        self.assertIn("200 photo pixels", self.found(finish)["window"].text)
        self.assertNotIn("window", self.mended(finish, "window"))

    def test_transparency_lost_in_jpeg_is_measured(self):
        clear = noise(100, 100, 3)
        clear = np.dstack([clear, np.full((100, 100), 255, np.uint8)])
        clear[:, :25, 3] = 0
        sources = sources_of(clear)
        found = self.found(finish_of(), sources)
        self.assertIn(
            "25.0\N{NO-BREAK SPACE}% of this size is filled with white", found["transparency"].text
        )
        self.assertNotIn("transparency", self.mended(finish_of(), "transparency", sources))
        self.assertNotIn(
            "transparency", self.found(finish_of(export=Export(format="webp")), sources)
        )

    def test_a_colour_outside_the_shape_leaves_nothing_to_lose(self):
        finish = with_size(finish_of(200, 200), shape=Shape(radius=0.2))
        self.assertIn("transparency", self.found(finish))
        coloured = finish.model_copy(update={"outside": SolidColour(colour="#FFFFFF")})
        self.assertNotIn("transparency", self.found(coloured))
