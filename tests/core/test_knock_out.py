"""Plain backgrounds are noticed and taken out, with smooth edges and without a fringe."""

import unittest

import cv2
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import KnockOut
from lucky_margin.core.pieces import knocked_out, plain_background

colours = st.tuples(*[st.integers(0, 255)] * 3)


def disc(drawn, plain):
    """A disc on a plain colour, drawn four times as large and shrunk, and its true coverage."""
    large = np.zeros((400, 400), np.uint8)
    cv2.circle(large, (200, 200), 140, 255, -1)
    cover = cv2.resize(large, (100, 100), interpolation=cv2.INTER_AREA) / 255
    mixed = cover[..., None] * np.array(drawn) + (1 - cover[..., None]) * np.array(plain)
    return np.rint(mixed).astype(np.uint8), cover


class NoticedTest(unittest.TestCase):
    @given(plain=colours)
    @settings(max_examples=20)
    def test_a_plain_background_is_named(self, plain):
        picture, _ = disc((10, 200, 30), plain)
        self.assertEqual(plain_background(picture), "#{:02X}{:02X}{:02X}".format(*plain))

    def test_photos_and_transparent_pictures_have_none(self):
        noise = np.random.default_rng(1).integers(0, 255, (60, 60, 3), np.uint8)
        self.assertIsNone(plain_background(noise))
        ramp = np.broadcast_to(np.arange(200, dtype=np.uint8)[:, None], (200, 200))
        self.assertIsNone(plain_background(np.dstack([ramp] * 3)))
        clear = np.full((20, 20, 4), 255, np.uint8)
        clear[5:, 5:, 3] = 0
        self.assertIsNone(plain_background(clear))


class KnockedOutTest(unittest.TestCase):
    @given(drawn=colours, plain=colours)
    @settings(max_examples=40)
    def test_the_drawing_keeps_its_colour_and_its_coverage(self, drawn, plain):
        away = np.linalg.norm(np.subtract(drawn, plain)) / (255 * np.sqrt(3))
        if away < 0.3:
            return
        picture, cover = disc(drawn, plain)
        hex_ = "#{:02X}{:02X}{:02X}".format(*plain)
        out = knocked_out(picture, KnockOut(colour=hex_, reach=0.02))
        np.testing.assert_allclose(out[:, :, 3] / 255, cover, atol=0.08)
        # What is seen has the drawing's colour, up to its very edge.
        seen = out[:, :, 3] > 40
        self.assertLess(np.abs(out[seen][:, :3].astype(int) - drawn).max(), 3)

    def test_enclosed_parts_go_or_stay(self):
        picture, _ = disc((0, 0, 0), (255, 255, 255))
        cv2.circle(picture, (50, 50), 12, (255, 255, 255), -1)
        self.assertEqual(knocked_out(picture, KnockOut())[50, 50, 3], 0)
        kept = knocked_out(picture, KnockOut(enclosed=False))
        self.assertEqual((kept[50, 50, 3], kept[2, 2, 3]), (255, 0))

    def test_transparency_that_was_there_stays_and_the_picture_is_not_changed(self):
        picture = np.full((30, 30, 4), 255, np.uint8)
        picture[10:20, 10:20] = (200, 0, 0, 90)
        before = picture.copy()
        out = knocked_out(picture, KnockOut())
        self.assertEqual((out[15, 15, 3], out[2, 2, 3]), (90, 0))
        np.testing.assert_array_equal(picture, before)
