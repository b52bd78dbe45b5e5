"""Stock: what there is, and finding it by word, kind and colour."""

import unittest

import numpy as np

from lucky_margin.core.document import BadgePiece, TextPiece
from lucky_margin.core.palette import colour_names, colours_seen
from lucky_margin.core.scene import MemorySources
from lucky_margin.core.stock import BACKDROPS, BADGES, found
from lucky_margin.core.stock.pictures import BADGE_SIDE, backdrop_face, badge_face


class StockTest(unittest.TestCase):
    def test_there_are_backdrops_of_every_kind_each_with_a_name_and_a_drawing_of_its_own(self):
        self.assertGreaterEqual(len(BACKDROPS), 52)
        self.assertEqual(len({item.name for item in BACKDROPS.values()}), len(BACKDROPS))
        self.assertEqual(len({item.ground.key for item in BACKDROPS.values()}), len(BACKDROPS))
        self.assertEqual(len({item.kind for item in BACKDROPS.values()}), 9)

    def test_every_badge_has_several_parts_in_one_group_and_is_legible(self):
        for key, item in BADGES.items():
            with self.subTest(key=key):
                self.assertGreater(len(item.parts), 1)
                self.assertEqual({part.group for part in item.parts}, {1})
                face = badge_face(item.parts, MemorySources({}))
                self.assertEqual(face.shape[2], 4)
                self.assertAlmostEqual(max(face.shape[:2]), BADGE_SIDE, delta=2)
                self.assertGreater((face[:, :, 3] > 128).mean(), 0.05)
                edges = (face[0], face[-1], face[:, 0], face[:, -1])
                self.assertEqual(max(int(edge[..., 3].max()) for edge in edges), 0, "cut off")

    def test_a_badge_that_points_at_a_photo_has_a_picture_without_one(self):
        point = {"x": 0.9, "y": 0.1}
        arrow = BadgePiece(id="a", form="arrow", tip=point)
        words = TextPiece(id="b", text="here", anchor={"kind": "photo", "point": point})
        face = badge_face((arrow, words), MemorySources({}))
        self.assertGreater(int(face[:, :, 3].max()), 200)

    def test_a_face_is_the_whole_backdrop_small(self):
        face = backdrop_face(BACKDROPS["fade"].ground)
        np.testing.assert_allclose(face[0].mean(axis=0), (0xDC, 0xE7, 0xEA), atol=2)
        np.testing.assert_allclose(face[-1].mean(axis=0), (0xF4, 0xEC, 0xDF), atol=2)


class FindingTest(unittest.TestCase):
    def keys(self, **wanted):
        return [item.key for item in found(BACKDROPS.values(), **wanted)]

    def test_words_begin_a_name_a_word_or_a_kind(self):
        for words, expected in (
            ("linen", ["linen"]),
            ("AUTUMN", ["leaf-fall"]),
            ("  fir  wint ", ["fir"]),
            ("brick", ["brick"]),
            ("nothing such", []),
        ):
            with self.subTest(words=words):
                self.assertEqual(self.keys(words=words), expected)
        self.assertEqual(self.keys(), list(BACKDROPS))

    def test_kind_and_colour_narrow_it_together(self):
        blue = self.keys(kind="seasonal", colour="blue")
        self.assertEqual(blue, ["snow", "stars", "sparks"])
        self.assertEqual(self.keys(kind="wood", colour="blue"), [])


class ColoursTest(unittest.TestCase):
    def test_plain_colours_have_the_names_that_everyone_gives_them(self):
        for code, name in {
            "#FF0000": "red",
            "#7B1E2E": "red",
            "#FF8800": "orange",
            "#FFE000": "yellow",
            "#20A040": "green",
            "#109090": "teal",
            "#2050D0": "blue",
            "#7030A0": "purple",
            "#F090B0": "pink",
            "#7A5030": "brown",
            "#E8DCC4": "beige",
            "#FFFFFF": "white",
            "#808080": "grey",
            "#000000": "black",
        }.items():
            self.assertEqual(colour_names([code]), (name,), code)

    def test_a_small_strong_colour_is_seen_and_a_speck_is_not(self):
        photo = np.full((100, 100, 3), 128, np.uint8)
        photo[:20, :30] = (20, 60, 200)
        photo[50:52, 50:52] = (220, 20, 20)
        self.assertEqual(colours_seen(photo), ("grey", "blue"))

    def test_what_is_transparent_has_no_colour(self):
        logo = np.zeros((40, 40, 4), np.uint8)
        logo[10:20, 10:20] = (200, 30, 30, 255)
        self.assertEqual(colours_seen(logo), ("red",))

    def test_none_and_one_pixel_are_pictures_too(self):
        self.assertEqual(colour_names([]), ())
        self.assertEqual(colours_seen(np.zeros((1, 1, 3), np.uint8)), ("black",))


if __name__ == "__main__":
    unittest.main()
