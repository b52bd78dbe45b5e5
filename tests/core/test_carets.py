"""Where the caret stands in a text, and where each letter is: judged by the drawn letters."""

import itertools
import math
import unittest

import numpy as np
from hypothesis import example, given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import MarginAnchor, Repeat, TextPart, TextPiece
from lucky_margin.core.errors import NotFound
from lucky_margin.core.render import render, writing_of
from lucky_margin.core.text import PartStyle, TextStyle, lay_text, letters_of
from lucky_margin.core.text.shaping import clusters
from tests.core.test_text import SCRIPTS, texts
from tests.support import finish_of, scene_of, sources_of

RED = "#FF0000"
SIZE = 40.0
BEARING = 0.12
"""Ems that a letter's ink may reach out of its own width."""


def written(text, wrap=None, **fields):
    style = TextStyle("figtree", **fields)
    laid = lay_text(text, style, SIZE, wrap)
    return letters_of(text, style, laid), laid, style


def across(edge):
    return edge[0]


class LettersTest(unittest.TestCase):
    def test_each_letter_s_ink_is_between_its_edges(self):
        """A letter that is coloured alone tells where it is drawn."""
        cases = [
            ("Glaze", {}, None), ("office", {"letter_spacing": 0.2}, None),
            ("שלום 12", {}, None), ("one two three", {}, 120.0),
            ("straße", {"case": "capitals"}, None),
        ]  # fmt: skip
        for text, fields, wrap in cases:
            (letters, _), _, style = written(text, wrap, **fields)
            self.assertEqual([letter.start for letter in letters], list(range(len(text))))
            for letter in letters:
                part = PartStyle(letter.start, letter.end, colour=RED)
                alone = lay_text(text, style, SIZE, wrap, [part]).coloured
                if not alone or alone[0][1].isEmpty():
                    continue  # a space
                ink = alone[0][1].computeTightBounds()
                low, high = sorted((across(letter.leading), across(letter.trailing)))
                with self.subTest(text=text, letter=text[letter.start : letter.end]):
                    self.assertGreater(ink.left(), low - BEARING * SIZE)
                    self.assertLess(ink.right(), high + BEARING * SIZE)
                    self.assertGreater(ink.top(), letter.leading[1] - 1)
                    self.assertLess(ink.bottom(), letter.leading[3] + 1)

    def test_letters_stand_side_by_side_from_end_to_end(self):
        (letters, ends), laid, _ = written("Fresh glaze")
        for one, following in itertools.pairwise(letters):
            self.assertAlmostEqual(across(one.trailing), across(following.leading), places=3)
        self.assertEqual(across(letters[0].leading), 0)
        self.assertAlmostEqual(across(letters[-1].trailing), laid.advance, places=3)
        self.assertEqual(ends[0].edge, letters[-1].trailing)

    def test_what_is_written_from_the_right_begins_there(self):
        (letters, ends), laid, _ = written("שלום")
        self.assertAlmostEqual(across(letters[0].leading), laid.advance, places=3)
        self.assertAlmostEqual(across(ends[0].edge), 0, places=3)
        for letter in letters:
            self.assertGreater(across(letter.leading), across(letter.trailing))

    def test_numbers_in_it_run_from_the_left(self):
        (letters, _), _, _ = written("שלום 12")
        one, two = letters[-2:]
        self.assertLess(across(one.leading), across(one.trailing))
        self.assertAlmostEqual(across(one.trailing), across(two.leading), places=3)

    def test_letters_that_join_into_one_glyph_share_its_width(self):
        (letters, _), laid, _ = written("لا")
        widths = [abs(across(one.trailing) - across(one.leading)) for one in letters]
        self.assertEqual(len(letters), 2)
        self.assertAlmostEqual(sum(widths), laid.advance, places=3)
        self.assertTrue(all(width > 0.2 * laid.advance for width in widths))

    def test_each_line_ends_with_a_place_of_its_own(self):
        (letters, ends), _, _ = written("ab\n\ncd")
        self.assertEqual([(end.at, end.line) for end in ends], [(2, 0), (3, 1), (6, 2)])
        self.assertEqual([letter.line for letter in letters], [0, 0, 2, 2])
        self.assertLess(ends[0].edge[1], ends[1].edge[1])

    def test_spaces_that_end_a_broken_line_move_the_caret_on(self):
        (letters, ends), _, _ = written("hello world ", 110)
        self.assertEqual([letter.line for letter in letters], [0] * 6 + [1] * 6)
        last = letters[-1]
        self.assertGreater(across(last.trailing), across(last.leading))
        self.assertEqual(ends[-1].edge, last.trailing)

    def test_an_empty_text_has_one_place(self):
        (letters, ends), _, _ = written("")
        self.assertEqual(letters, [])
        self.assertEqual([end.at for end in ends], [0])
        self.assertGreater(ends[0].edge[3], ends[0].edge[1])

    def test_on_an_arc_edges_point_at_its_middle(self):
        (letters, _), laid, _ = written("on an arc", bend=120)
        radius = laid.advance / math.radians(120)
        middle = np.array([laid.advance / 2, radius])
        for letter in letters:
            top, bottom = np.array(letter.leading[:2]), np.array(letter.leading[2:])
            inward = (bottom - top) / np.linalg.norm(bottom - top)
            to_middle = (middle - top) / np.linalg.norm(middle - top)
            np.testing.assert_allclose(inward, to_middle, atol=1e-3)

    @settings(max_examples=60)
    @given(text=texts, wrap=st.sampled_from([None, 60.0, 200.0]))
    @example(text="1 \u093e", wrap=60.0)  # a vowel sign on a space
    def test_of_any_text_every_letter_that_is_drawn_is_told_once(self, text, wrap):
        (letters, ends), _, _ = written(text, wrap)
        starts = [letter.start for letter in letters]
        self.assertEqual(starts, sorted(set(starts)))
        self.assertEqual(ends[-1].at, len(text))
        boundaries = {start for start, _ in clusters(text)} | {len(text)}
        if all(c == "\n" or c.isprintable() for c in text):
            self.assertLessEqual(set(starts), boundaries)


class WritingTest(unittest.TestCase):
    """On a size: turned, placed and repeated as the piece is drawn."""

    def scene(self, **fields):
        text = TextPiece(
            id="text-1", text="Kiln", family="figtree", size=0.2, colour="#FFFFFF",
            parts=(TextPart(start=2, end=3, colour=RED),), **fields,
        )  # fmt: skip
        picture = np.zeros((300, 400, 3), np.uint8)
        return scene_of(finish_of(400, 300, pieces=(text,)), sources_of(picture))

    def red_pixels(self, scene):
        drawn = render(scene).astype(int)
        rows, columns = np.nonzero((drawn[:, :, 0] > 128) & (drawn[:, :, 1] < 60))
        return np.stack([columns, rows], axis=1) + 0.5

    def test_the_letter_is_where_it_is_drawn(self):
        cases = {
            "upright": {}, "turned": {"angle": 35}, "on an arc": {"bend": 140},
            "in a corner": {"anchor": MarginAnchor(x=0, y=1), "angle": -90},
        }  # fmt: skip
        for name, fields in cases.items():
            scene = self.scene(**fields)
            letter = next(one for one in writing_of(scene, "text-1").letters if one.start == 2)
            corners = np.array([letter.leading, letter.trailing]).reshape(4, 2)
            places = self.red_pixels(scene)
            with self.subTest(name):
                self.assertGreater(len(places), 50)
                # Inside the box, as seen from its own middle along its own sides.
                middle = corners.mean(axis=0)
                along = corners[2] - corners[0]
                down = corners[1] - corners[0]
                for side in (along, down):
                    reach = np.abs((places - middle) @ side) / (side @ side)
                    self.assertLess(reach.max(), 0.5 + 0.15)

    def test_of_copies_the_first_is_written(self):
        repeat = Repeat(kind="row", count=3, spread=1.0)
        found = writing_of(self.scene(repeat=repeat), "text-1")
        alone = writing_of(self.scene(), "text-1")
        self.assertEqual(len(found.letters), len(alone.letters))
        self.assertLess(found.letters[0].leading[0], alone.letters[0].leading[0] - 20)

    def test_what_is_no_text_of_the_size_is_refused(self):
        with self.assertRaises(NotFound):
            writing_of(self.scene(), "badge-9")

    def test_every_script_is_told(self):
        for name, text in SCRIPTS.items():
            (letters, ends), _, _ = written(text)
            with self.subTest(name):
                self.assertEqual(letters[-1].end, len(text))
                self.assertEqual(len(ends), 1)
