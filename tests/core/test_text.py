"""Text: families, scripts, directions, lines, and the largest size that fits."""

import unittest

import numpy as np
import skia
from hypothesis import example, given, settings
from hypothesis import strategies as st

from lucky_margin.core.text import FAMILIES, TextStyle, face_of, fitted_text, lay_text
from lucky_margin.core.text.faces import load_face
from lucky_margin.core.text.families import FALLBACKS, FOLDER
from lucky_margin.core.text.layout import BEARINGS
from lucky_margin.core.text.shaping import clusters, itemize, levels_of, shape

LATIN = "AZazÄÖÜßéčşřŁőñ€£“”–…½×"
GREEK_AND_CYRILLIC = "αβγάώΩЖабвїЁ"
SCRIPTS = {
    "Latin": "New glaze, every Thursday",
    "Greek": "Γειά σου Κόσμε",
    "Cyrillic": "Привет, мир",
    "Arabic": "مرحبا بالعالم",
    "Hebrew": "שלום עולם",
    "Devanagari": "नमस्ते दुनिया",
    "Thai": "ภาษาไทยง่ายมาก",
    "emoji": "☕😀👩‍👩‍👧",
    "combining": "e\u0301 n\u0303 o\u0308",
}
letters = st.sampled_from("".join(SCRIPTS.values()) + " \n\t-.,12€\u00a0\u200d")
sentences = st.lists(st.sampled_from(" ".join(SCRIPTS.values()).split())).map(" ".join)
texts = st.one_of(st.text(letters, max_size=60), st.text(max_size=20))


def shaped(text, family="figtree", spacing=0.0):
    return shape(itemize(text, family, 400, False), spacing)


class FamiliesTest(unittest.TestCase):
    def test_each_ships_its_faces_and_its_licence(self):
        self.assertGreaterEqual(len(FAMILIES), 14)
        for key in {*FAMILIES, *FALLBACKS}:
            with self.subTest(family=key):
                licence = (FOLDER / key / "OFL.txt").read_text(encoding="utf-8")
                self.assertIn(
                    "SIL Open Font License",
                    licence.replace("SIL OPEN FONT LICENSE", "SIL Open Font License"),
                )
        for family in FAMILIES.values():
            for weight in family.weights:
                self.assertEqual(face_of(family.key, weight, False).stem, str(weight))
            for weight in family.italic_weights:
                self.assertTrue(face_of(family.key, weight, True).is_file())

    def test_weights_and_italics_that_a_family_lacks_come_out_as_the_nearest(self):
        self.assertEqual(face_of("anton", 900, True).name, "400.ttf")
        self.assertEqual(face_of("figtree", 800, False).name, "700.ttf")
        self.assertEqual(face_of("figtree", 700, True).name, "400-italic.ttf")

    def test_all_have_good_latin_and_seven_have_greek_and_cyrillic(self):
        both = 0
        for key in FAMILIES:
            face = load_face(face_of(key, 400, False))
            self.assertTrue(all(face.has(letter) for letter in LATIN), key)
            both += all(face.has(letter) for letter in GREEK_AND_CYRILLIC)
        self.assertGreaterEqual(both, 7)


class ScriptsTest(unittest.TestCase):
    def test_every_family_draws_every_script(self):
        for key in FAMILIES:
            for script, text in SCRIPTS.items():
                laid = lay_text(text, TextStyle(key), 40)
                with self.subTest(family=key, script=script):
                    self.assertEqual(laid.missing, "")
                    self.assertGreater(laid.ink.width, 40)

    def test_letters_that_no_font_has_are_named_once(self):
        self.assertEqual(lay_text("a𓂀b𓂀", TextStyle("figtree"), 40).missing, "𓂀")

    def test_a_word_is_taken_from_one_face(self):
        """Playfair Display has a μ, but not the rest of a Greek word."""
        faces = {item.face.key for item in itemize("Κόσμε", "playfair-display", 400, False)}
        self.assertEqual(faces, {"noto-sans"})

    def test_right_to_left_goes_from_the_right(self):
        glyphs = shaped("שלום").glyphs
        first = next(glyph for glyph in glyphs if glyph.character == 0)
        self.assertEqual(first.x, max(glyph.x for glyph in glyphs))
        mixed = shaped("abc שלום")
        self.assertLess(mixed.glyphs[0].x, 0.01)
        self.assertEqual(mixed.glyphs[0].character, 0)

    def test_numbers_keep_their_order_among_hebrew(self):
        self.assertEqual(levels_of("א12"), [1, 2, 2])
        glyphs = {glyph.character: glyph.x for glyph in shaped("א12").glyphs}
        self.assertLess(glyphs[1], glyphs[2])
        self.assertGreater(glyphs[0], glyphs[2])

    def test_brackets_go_with_what_they_hold(self):
        """The first bracket of "שלום (test) 42" lies to the left of what it holds: the pair goes
        the way of the paragraph, or of its own words when those went before too."""
        for text, first_is_right in (("שלום (test) 42", False), ("שלום (שלום)", True)):
            places = {glyph.character: glyph.x for glyph in shaped(text).glyphs}
            opening, closing = places[text.index("(")], places[text.index(")")]
            inside = places[text.index("(") + 1]
            with self.subTest(text=text):
                self.assertTrue(min(opening, closing) <= inside <= max(opening, closing))
                self.assertLess(places[0], max(places.values()) + 1)
                if first_is_right:
                    self.assertGreater(opening, closing)

    def test_marks_of_direction_take_part_and_do_not_show(self):
        self.assertEqual(len(levels_of("a\u202bb\u202cc")), 5)
        self.assertEqual(lay_text("a\u200fb", TextStyle("figtree"), 40).missing, "")

    def test_arabic_letters_join(self):
        joined = shaped("بب", "noto-sans").advance
        apart = 2 * shaped("ب", "noto-sans").advance
        self.assertLess(joined, 0.95 * apart)

    def test_letter_spacing_goes_between_what_a_reader_calls_letters(self):
        for text, gaps in (("abc", 2), ("e\u0301e\u0301", 1), ("a", 0), ("אבג", 2)):
            with self.subTest(text=text):
                gained = shaped(text, spacing=0.5).advance - shaped(text).advance
                self.assertAlmostEqual(gained, 0.5 * gaps, places=6)
        self.assertEqual(shaped("مرحبا", spacing=0.5).advance, shaped("مرحبا").advance)

    def test_clusters_are_counted_in_code_points(self):
        self.assertEqual(clusters("a👩‍👩‍👧b"), [(0, 1), (1, 6), (6, 7)])


class LinesTest(unittest.TestCase):
    style = TextStyle("source-serif-4")

    @settings(max_examples=150)
    @given(text=texts, wrap=st.floats(60, 600))
    @example(text="0000ioA", wrap=60.0)  # the A draws the o towards it, but goes to the next line
    def test_lines_are_no_longer_than_their_box(self, text, wrap):
        self.assertLessEqual(lay_text(text, self.style, 20, wrap).advance, wrap + 1e-6)

    @settings(max_examples=150)
    @given(text=sentences, wrap=st.floats(60, 600))
    def test_only_the_overhang_of_letters_reaches_past_the_box(self, text, wrap):
        """Signs set on letters of a script that is not theirs may hang out further."""
        self.assertLessEqual(lay_text(text, self.style, 20, wrap).ink.width, wrap + 0.6 * 20)

    @settings(max_examples=60)
    @given(text=texts, factor=st.sampled_from([0.25, 0.5, 3]))
    def test_lines_break_in_the_same_places_at_any_scale(self, text, factor):
        whole = lay_text(text, self.style, 40, 300)
        scaled = lay_text(text, self.style, 40 * factor, 300 * factor)
        self.assertEqual(scaled.lines, whole.lines)
        self.assertAlmostEqual(
            scaled.ink.width, whole.ink.width * factor, delta=0.02 * factor + 0.01
        )

    def test_words_go_to_the_next_line_whole(self):
        laid = lay_text("one two three", self.style, 40, 130)
        self.assertEqual(laid.lines, 3)
        torn = lay_text("Donaudampfschifffahrt", self.style, 40, 130)
        self.assertGreater(torn.lines, 2)

    def test_thai_breaks_between_words_without_spaces(self):
        self.assertGreater(lay_text(SCRIPTS["Thai"], self.style, 40, 160).lines, 1)

    def test_lines_are_aligned_and_begin_where_their_script_does(self):
        def left(text, align):
            laid = lay_text(text, TextStyle("figtree", align=align), 40)
            path = skia.Path(laid.outline)
            return laid, path.computeTightBounds().left()

        wide = "wide wide wide\n"
        for align, share in (("left", 0), ("centre", 0.5), ("right", 1)):
            laid = lay_text(wide + "i", TextStyle("figtree", align=align), 40)
            last = min(x for x, y in points(laid.outline) if y > 20)
            room = laid.ink.width - 10
            with self.subTest(align=align):
                self.assertAlmostEqual(last / room, share, delta=0.06)
        _, start = left(wide + "ש", "left")
        self.assertAlmostEqual(start, 0, delta=4)

    def test_case_spacing_and_control_characters(self):
        style = TextStyle("figtree", case="capitals")
        big = lay_text("straße", style, 40).ink.width
        self.assertAlmostEqual(big, lay_text("STRASSE", TextStyle("figtree"), 40).ink.width)
        self.assertEqual(lay_text("a\x07b\x00", TextStyle("figtree"), 40).missing, "")
        loose = TextStyle("figtree", line_spacing=2)
        self.assertAlmostEqual(
            lay_text("a\na", loose, 40).ink.height - lay_text("a", loose, 40).ink.height,
            96,
            delta=0.1,
        )

    def test_nothing_written_has_a_box_to_take_hold_of(self):
        for text in ("", " ", "\n\n"):
            laid = lay_text(text, self.style, 40)
            self.assertGreater(laid.ink.height, 20)
            self.assertTrue(laid.outline.isEmpty())

    def test_five_thousand_letters(self):
        laid = lay_text("glaze " * 833, self.style, 12, 400)
        self.assertGreater(laid.lines, 50)
        self.assertLessEqual(laid.ink.width, 402)


class FillTest(unittest.TestCase):
    """The largest size that fits, to one pixel."""

    @settings(max_examples=40)
    @example(
        "Γειά σου Κόσμε", 80.0, 78.0, "figtree"
    )  # fits in two lines, not a bit larger, then in three
    @given(
        text=st.sampled_from([*SCRIPTS.values(), "Sale", "one two\nthree", "€28"]),
        width=st.floats(80, 900),
        height=st.floats(60, 700),
        family=st.sampled_from(["figtree", "anton", "pacifico"]),
    )
    def test_it_fits_and_one_pixel_more_does_not(self, text, width, height, family):
        style = TextStyle(family)
        laid = fitted_text(text, style, width, height)
        size, ink = laid.size, laid.ink
        self.assertLessEqual(ink.width, width + 0.01)
        self.assertLessEqual(ink.height, height + 0.01)
        more = lay_text(text, style, size + 1, width + BEARINGS * (size + 1)).ink
        longest = max(
            lay_text(word, style, size + 1).ink.width for word in text.replace("\n", " ").split()
        )
        self.assertTrue(more.width > width or more.height > height or longest > width)


def points(path):
    return np.array([(p.x(), p.y()) for p in path.getPoints(path.countPoints())])
