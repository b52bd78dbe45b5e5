"""Composing layers: against a slow composer, and beginning at whatever covers all below."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import (
    Border,
    Export,
    LineBand,
    Sides,
    SolidColour,
    TextPiece,
    Watermark,
)
from lucky_margin.core.pieces import Sprite
from lucky_margin.core.render.compose import Group, Layer, SpriteLayer, compose
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.layers import DRAWING_ORDER, Drawing, layers_of
from tests.support import finish_of, gradient, noise, scene_of, sources_of, with_size

SIDES = 60, 40
MODES = ("normal", "multiply", "screen", "soft-light", "difference", "luminosity")


def opaque(picture):
    """The same picture with four channels, which composing takes for one to look through."""
    return np.dstack([picture, np.full(picture.shape[:2], 255, np.uint8)])


def mask(seed):
    smooth = np.random.default_rng(seed).integers(0, 256, (SIDES[1], SIDES[0]))
    return np.where(smooth < 60, 0, np.where(smooth > 200, 255, smooth)).astype(np.uint8)


def sprite(left, top, opacity=1.0, blend="normal"):
    pixels = noise(17, 11, 4).copy()
    pixels[:, :, :3] = np.minimum(pixels[:, :, :3], pixels[:, :, 3:])  # premultiplied
    return SpriteLayer(Sprite(left, top, pixels, opacity, blend), left, top)


sprites = st.builds(
    sprite, st.integers(-20, 70), st.integers(-20, 50), st.floats(0, 1), st.sampled_from(MODES)
)
colours = st.builds(
    Layer,
    st.sampled_from(["#B8401A", "#FFFFFF", "#20406F"]),
    st.one_of(st.none(), st.integers(0, 9).map(mask)),
    st.floats(0, 1),
)
pictures = st.builds(
    Layer,
    st.sampled_from([gradient(*SIDES), noise(*SIDES), noise(*SIDES, 4)]),
    st.one_of(st.none(), st.integers(0, 9).map(mask)),
)
plain = st.lists(st.one_of(colours, pictures), min_size=1, max_size=4)
groups = st.builds(
    lambda layers, which: Group(tuple(layers), None if which is None else mask(which)),
    plain,
    st.one_of(st.none(), st.integers(0, 9)),
)


def slowly(layers, below=None):
    """Premultiplied floats of layers without sprites: Porter and Duff's "over", pixel by pixel."""
    out = np.zeros((SIDES[1], SIDES[0], 4)) if below is None else below
    for layer in layers:
        if isinstance(layer, Group):
            drawn, share = slowly(layer.layers), layer.mask
        else:
            drawn, share = np.ones((SIDES[1], SIDES[0], 4)), layer.mask
            if isinstance(layer.paint, str):
                codes = [int(layer.paint[place : place + 2], 16) / 255 for place in (1, 3, 5)]
                drawn[:, :, :3] = codes
                drawn *= round(255 * layer.opacity) / 255
            else:
                drawn[:, :, : layer.paint.shape[2]] = layer.paint / 255
                drawn[:, :, :3] *= drawn[:, :, 3:]
        if share is not None:
            drawn = drawn * (share[:, :, None] / 255)
        added = isinstance(layer, Group) and layer.added
        out = drawn + out * (1 if added else 1 - drawn[:, :, 3:])
    return out


def premultiplied(picture):
    if picture.shape[2] == 3:
        picture = opaque(picture)
    alpha = picture[:, :, 3:] / 255
    return np.concatenate([picture[:, :, :3] / 255 * alpha, alpha], axis=2)


class ComposeTest(unittest.TestCase):
    @settings(max_examples=80)
    @given(layers=st.lists(st.one_of(colours, pictures, groups), min_size=1, max_size=4))
    def test_it_is_what_a_slow_composer_puts_together(self, layers):
        found = premultiplied(compose(layers, SIDES))
        # A step for each layer that is rounded to 8 bits on the way.
        np.testing.assert_allclose(found, slowly(layers), atol=6 / 255)

    @settings(max_examples=60)
    @given(above=st.lists(st.one_of(sprites, colours), max_size=5))
    def test_beginning_at_a_covering_layer_is_the_same_as_beginning_at_the_ground(self, above):
        """The other way is taken for a photo of four channels, opaque as it may be."""
        photo = gradient(*SIDES)
        grounds = [Layer("#FF0000"), Layer("#00FF00")]
        direct = compose([*grounds, Layer(photo), *above], SIDES)
        other = compose([Layer(opaque(photo)), *above], SIDES)
        self.assertEqual(direct.shape[2], 3)
        self.assertLessEqual(np.abs(direct.astype(int) - other[:, :, :3]).max(), 1)

    def test_nothing_over_a_picture_is_the_picture_itself(self):
        for picture in (gradient(*SIDES), noise(*SIDES, 4)):
            self.assertIs(compose([Layer(picture)], SIDES), picture)
            self.assertIs(compose([Group((Layer(picture),), None)], SIDES), picture)

    def test_no_layer_is_nothing(self):
        self.assertEqual(compose([], SIDES).max(), 0)
        self.assertEqual(compose([], SIDES).shape, (SIDES[1], SIDES[0], 4))

    def test_added_groups_fill_exactly_what_the_mask_below_leaves(self):
        inside = mask(4)
        layers = [
            Group((Layer("#808080"),), inside),
            Group((Layer("#808080"),), 255 - inside, added=True),
        ]
        found = compose(layers, SIDES)
        self.assertEqual(found.shape[2], 3)
        self.assertLessEqual(np.abs(found.astype(int) - 128).max(), 1)

    def test_what_goes_in_is_not_changed(self):
        photo, one = gradient(*SIDES), sprite(5, 5, 0.5, "multiply")
        before = photo.copy(), one.sprite.pixels.copy()
        compose([Layer(photo), one], SIDES)
        np.testing.assert_array_equal(photo, before[0])
        np.testing.assert_array_equal(one.sprite.pixels, before[1])


class DrawingOrderTest(unittest.TestCase):
    """Everything there is, each part in a colour of its own, on top of one another."""

    def layers(self, **fields):
        words = TextPiece(id="text-1", text="A", size=0.5, over_border=False)
        over = words.model_copy(update={"id": "text-2", "over_border": True})
        loose = over.model_copy(update={"id": "text-3", "clipped": False})
        finish = finish_of(
            80,
            80,
            border=Border.of(LineBand(thickness=Sides.all(0.1), colour="#00FF00", **fields)),
            backdrop=SolidColour(colour="#0000FF"),
            outside=SolidColour(colour="#FFFF00"),
            pieces=(words, over, loose),
            watermark=Watermark(text="W"),
            export=Export(format="jpeg"),
        )
        finish = with_size(finish, shape={"kind": "circle"})
        scene = scene_of(finish, sources_of(gradient(100, 100)))
        grid = Grid.of(80, 80, 1, None)
        behind = np.zeros((8, 8, 3), np.uint8)
        drawing = Drawing(grid, behind=lambda: behind, bare=lambda: behind)
        return layers_of(scene, drawing)

    def test_it_is_that_of_the_list_with_the_shape_round_what_it_clips(self):
        flattening, outside, content, loose, mark = self.layers()
        self.assertEqual((flattening.paint, outside.paint), ("#FFFF00", "#FFFF00"))
        backdrop, photo, words, border, over = content.layers
        self.assertEqual((backdrop.paint, border.paint), ("#0000FF", "#00FF00"))
        self.assertEqual(photo.paint.shape, (80, 80, 3))
        for piece in (words, over, loose):
            self.assertIsInstance(piece, SpriteLayer)
        self.assertEqual(len(mark.layers), 1)
        np.testing.assert_array_equal(mark.mask, content.mask)
        self.assertLess(DRAWING_ORDER.index("border"), DRAWING_ORDER.index("watermark"))

    def test_an_outside_border_lies_beside_what_it_frames(self):
        content = self.layers(around=True, opacity=0.5)[2]
        framed, border, over = content.layers
        self.assertEqual([type(one) for one in framed.layers], [Layer, Layer, SpriteLayer])
        backdrop, band = border.layers
        self.assertEqual(backdrop.paint, "#0000FF")
        self.assertEqual(band.paint[40, 1].tolist(), [0, 255, 0, 128])
        np.testing.assert_array_equal(framed.mask.astype(int) + border.mask, 255)
        self.assertIsInstance(over, SpriteLayer)
