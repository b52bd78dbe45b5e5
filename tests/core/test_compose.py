"""Composing: drawing straight onto an opaque photo is the same as putting layers together."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import Border, Sides
from lucky_margin.core.pieces import Sprite
from lucky_margin.core.render.compose import Sheet, compose
from tests.support import gradient, noise

SIDES = 60, 40
MODES = ("normal", "multiply", "screen", "soft-light", "difference", "luminosity")


def framed(thickness, width=SIDES[0], height=SIDES[1]):
    """What lies inside a border: 255 there, 0 in the band."""
    inside = np.zeros((height, width), np.uint8)
    inside[thickness : height - thickness, thickness : width - thickness] = 255
    return inside


def sprite(left, top, opacity=1.0, blend="normal"):
    pixels = noise(17, 11, 4).copy()
    pixels[:, :, :3] = np.minimum(pixels[:, :, :3], pixels[:, :, 3:])  # premultiplied
    return Sprite(left, top, pixels, opacity, blend)


sprites = st.lists(
    st.builds(
        sprite,
        st.integers(-20, 70),
        st.integers(-20, 50),
        st.floats(0, 1),
        st.sampled_from(MODES),
    ),
    max_size=3,
).map(tuple)


class OverPhotoTest(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(
        under=sprites, over=sprites, unclipped=sprites, mark=sprites,
        thickness=st.integers(0, 12), opacity=st.floats(0, 1),
    )  # fmt: skip
    def test_a_covering_photo_is_drawn_on_as_if_it_lay_on_a_ground(
        self, under, over, unclipped, mark, thickness, opacity
    ):
        """The other way is taken for a photo of four channels, opaque as it may be."""
        sheet = Sheet(
            photo=gradient(*SIDES),
            inside_border=framed(thickness) if thickness else None,
            border=Border(thickness=Sides.all(0.1), colour="#B8401A", opacity=opacity),
            under_border=under,
            over_border=over,
            unclipped=unclipped,
            watermark=mark,
            paper="#FFFFFF",
        )
        opaque = np.full((SIDES[1], SIDES[0], 1), 255, np.uint8)
        layered = replace(sheet, photo=np.dstack([sheet.photo, opaque]))
        direct, other = compose(sheet), compose(layered)
        self.assertEqual(direct.shape, other.shape)
        self.assertLessEqual(np.abs(direct.astype(int) - other).max(), 1)

    def test_grounds_behind_a_covering_photo_do_not_show(self):
        sheet = Sheet(photo=gradient(*SIDES), over_border=(sprite(3, 3),))
        grounds = {"backdrop": "#FF0000", "outside": "#00FF00", "paper": "#0000FF"}
        np.testing.assert_array_equal(compose(sheet), compose(replace(sheet, **grounds)))

    def test_the_photo_and_the_sprites_are_not_changed(self):
        photo, one = gradient(*SIDES), sprite(5, 5, 0.5, "multiply")
        before = photo.copy(), one.pixels.copy()
        compose(Sheet(photo=photo, over_border=(one,)))
        np.testing.assert_array_equal(photo, before[0])
        np.testing.assert_array_equal(one.pixels, before[1])
