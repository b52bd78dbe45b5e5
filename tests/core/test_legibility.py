"""Reading words: contrast by the published formula, what mends it, calm places, the checks."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.checks import check, contrast_of, make_readable
from lucky_margin.core.checks.legibility import contrast_ratio, relative_luminance
from lucky_margin.core.document import (
    BadgePiece,
    Box,
    Focus,
    LetterOutline,
    MarginAnchor,
    Plate,
    Point,
    Repeat,
    Shadow,
    TextPiece,
    Watermark,
    rgb_of,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.moving import PlacePiece
from lucky_margin.core.edits.pieces import SetPiece
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.palette import palette_of
from lucky_margin.core.pieces.calm import calm_places
from lucky_margin.core.render import calm_places_of, layout
from lucky_margin.core.scene import Scene
from tests.support import demo_sources, finish_of, gradient, scene_of, sources_of, with_size

WORDS = TextPiece(id="text-1", text="New glaze", size=0.12, colour="#FFFFFF")


def wcag(one, other):
    """The ratio as WCAG 2.2 writes it down, for two #RRGGBB."""

    def luminance(colour):
        parts = [code / 255 for code in rgb_of(colour)]
        parts = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts]
        return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2]

    high, low = sorted((luminance(one), luminance(other)), reverse=True)
    return (high + 0.05) / (low + 0.05)


def plain(colour):
    return sources_of(np.full((400, 600, 3), rgb_of(colour), np.uint8))


def finish_with(*pieces, **fields):
    return finish_of(600, 400, pieces=pieces, **fields)


def contrast(piece, sources, **fields):
    finish = finish_with(piece, **fields)
    return contrast_of(scene_of(finish, sources), piece.id)


colours = st.integers(0, 0xFFFFFF).map(lambda code: f"#{code:06X}")


class ContrastTest(unittest.TestCase):
    def test_known_pairs(self):
        for one, other, expected in (
            ("#FFFFFF", "#000000", 21.0),
            ("#FFFFFF", "#FFFFFF", 1.0),
            ("#767676", "#FFFFFF", 4.54),
            ("#0000FF", "#FFFFFF", 8.59),
        ):
            lights = [relative_luminance(np.array(rgb_of(c)) / 255) for c in (one, other)]
            self.assertAlmostEqual(float(contrast_ratio(*lights)), expected, places=2)

    @settings(max_examples=25)
    @given(letters=colours, behind=colours)
    def test_on_a_plain_picture_it_is_that_of_the_two_colours(self, letters, behind):
        piece = WORDS.model_copy(update={"colour": letters})
        found = contrast(piece, plain(behind))
        self.assertAlmostEqual(found.ratio, wcag(letters, behind), places=2)

    def test_plate_and_outline_count_as_behind(self):
        white = plain("#FFFFFF")
        self.assertAlmostEqual(contrast(WORDS, white).ratio, 1, places=2)
        plate = WORDS.model_copy(update={"plate": Plate(colour="#000000", opacity=1)})
        self.assertAlmostEqual(contrast(plate, white).ratio, 21, places=1)
        outlined = WORDS.model_copy(update={"outline": LetterOutline(width=0.2)})
        self.assertGreater(contrast(outlined, white).ratio, 15)
        shaded = WORDS.model_copy(update={"shadow": Shadow(y=0, blur=0.02, opacity=1)})
        self.assertGreater(contrast(shaded, white).ratio, 1.5)

    def test_opacity_and_blending_weaken_the_letters(self):
        black = plain("#000000")
        half = contrast(WORDS.model_copy(update={"opacity": 0.5}), black)
        self.assertAlmostEqual(half.ratio, wcag("#808080", "#000000"), delta=0.1)
        lost = contrast(WORDS.model_copy(update={"blend": "multiply"}), black)
        self.assertAlmostEqual(lost.ratio, 1, places=2)

    def test_the_figure_is_that_of_the_worst_tenth(self):
        photo = np.zeros((400, 600, 3), np.uint8)
        photo[:, 250:] = 255
        self.assertLess(contrast(WORDS, sources_of(photo)).ratio, 1.2)

    def test_what_is_wanted_goes_by_the_size_people_see(self):
        grey = plain("#808080")
        self.assertEqual(contrast(WORDS, grey).wanted, 3)
        small = WORDS.model_copy(update={"size": 0.04})
        self.assertEqual(contrast(small, grey).wanted, 4.5)
        finish = with_size(finish_with(WORDS), seen_width=200)
        seen_small = contrast_of(scene_of(finish, grey), "text-1")
        self.assertEqual(seen_small.wanted, 4.5)

    def test_only_texts_that_are_there_and_seen(self):
        badge = BadgePiece(id="badge-1")
        finish = finish_with(badge, WORDS.model_copy(update={"dx": 15}))
        grey, size = plain("#808080"), finish.sizes[0]
        self.assertIsNone(contrast_of(Scene(finish, size, grey), "text-1"))
        with self.assertRaisesRegex(BadInput, "Only text"):
            contrast_of(Scene(finish, size, grey), "badge-1")
        with self.assertRaises(NotFound):
            contrast_of(Scene(finish, size, grey), "text-9")


class ReadableTest(unittest.TestCase):
    def mended(self, piece, sources):
        finish = finish_with(piece)
        found = make_readable(scene_of(finish, sources), piece.id)
        if found is None:
            return None, None
        edit = SetPiece(ids=(piece.id,), changes=found[0])
        return found, apply_edit(scene_of(finish, sources), edit).finish

    @settings(max_examples=15)
    @given(letters=colours, behind=colours)
    def test_on_any_plain_colour_the_letters_become_readable(self, letters, behind):
        piece = WORDS.model_copy(update={"colour": letters})
        sources = plain(behind)
        found, finish = self.mended(piece, sources)
        if found is None:
            self.assertTrue(contrast(piece, sources).suffices)
            return
        self.assertEqual(found[0].given, {"colour"})
        after = contrast_of(scene_of(finish, sources), "text-1")
        self.assertTrue(after.suffices)
        # It is the smallest change: it reaches what is wanted, and hardly more.
        self.assertLess(after.ratio, after.wanted * 1.15)

    def test_where_no_colour_can_something_goes_behind(self):
        stripes = np.zeros((400, 600, 3), np.uint8)
        stripes[:, ::8] = stripes[:, 1::8] = stripes[:, 2::8] = stripes[:, 3::8] = 255
        sources = sources_of(stripes)
        found, finish = self.mended(WORDS, sources)
        self.assertTrue({"shadow", "plate"} & found[0].given)
        self.assertTrue(contrast_of(scene_of(finish, sources), "text-1").suffices)


class CalmTest(unittest.TestCase):
    def picture(self):
        """Noise but for a bare field at the lower right."""
        picture = np.random.default_rng(2).integers(0, 256, (120, 200, 3)).astype(np.uint8)
        picture[60:, 110:] = 90
        return picture

    whole = Box(left=0, top=0, width=200, height=120)

    def test_the_bare_field_is_found(self):
        best = calm_places(self.picture(), self.whole, 60, 30)[0]
        self.assertTrue(110 + 30 <= best.x <= 170 and 60 + 15 <= best.y <= 105, best)
        self.assertLess(best.busy, 0.1)

    def test_places_get_busier_and_lie_apart_and_inside(self):
        places = calm_places(self.picture(), self.whole, 60, 30)
        self.assertGreater(len(places), 3)
        self.assertEqual([p.busy for p in places], sorted(p.busy for p in places))
        for number, one in enumerate(places):
            self.assertTrue(30 <= one.x <= 170 and 15 <= one.y <= 105)
            for other in places[:number]:
                self.assertTrue(abs(one.x - other.x) >= 30 or abs(one.y - other.y) >= 30)

    def test_what_has_to_stay_in_view_is_avoided(self):
        bare = Box(left=110, top=60, width=90, height=60)
        best = calm_places(self.picture(), self.whole, 60, 30, [bare])[0]
        self.assertFalse(best.x > 140 and best.y > 75)

    def test_the_subject_is_avoided_by_its_shape(self):
        subject = np.zeros((120, 200))
        subject[60:, 150:] = 1
        best = calm_places(self.picture(), self.whole, 36, 30, (), subject)[0]
        self.assertTrue(110 + 18 <= best.x <= 150 - 18 + 2 and best.y > 74, best)

    def test_what_does_not_fit_has_no_place(self):
        self.assertEqual(calm_places(self.picture(), self.whole, 201, 10), [])
        one = calm_places(
            np.zeros((1, 1, 3), np.uint8), Box(left=0, top=0, width=1, height=1), 1, 1
        )
        self.assertEqual(len(one), 1)

    def test_words_are_put_there_on_a_size_of_any_scale(self):
        photo = np.random.default_rng(2).integers(0, 256, (800, 1200, 3)).astype(np.uint8)
        photo[500:, 600:] = 200
        sources = sources_of(photo)
        finish = finish_of(600, 400, pieces=(WORDS.model_copy(update={"size": 0.08}),))
        best = calm_places_of(scene_of(finish, sources), "text-1")[0]
        self.assertTrue(best.x > 300 and best.y > 250)
        self.assertGreater(best.lightness, 0.7)
        edit = PlacePiece(id="text-1", x=best.x, y=best.y, colour="#1E2A2F")
        moved = apply_edit(scene_of(finish, sources), edit).finish
        where = layout(scene_of(moved, sources)).pieces[0]
        self.assertAlmostEqual(where.x, best.x, places=2)
        self.assertAlmostEqual(where.y, best.y, places=2)
        with self.assertRaises(NotFound):
            calm_places_of(scene_of(finish, sources), "text-9")


class PaletteTest(unittest.TestCase):
    def test_the_most_frequent_colour_comes_first(self):
        photo = np.full((100, 100, 3), (200, 30, 30), np.uint8)
        photo[:, 70:] = (20, 40, 180)
        first, second = palette_of(photo, 2)
        self.assertEqual((first, second), ("#C81E1E", "#1428B4"))
        self.assertEqual(len(palette_of(np.zeros((1, 1, 3), np.uint8))), 1)


class CheckTest(unittest.TestCase):
    sources = sources_of(gradient(1200, 800))

    def found(self, finish):
        return {c.key: c for c in check(scene_of(finish, self.sources))}

    def mended(self, finish, key):
        """The checks after the action of one."""
        edit = self.found(finish)[key].action.edit
        return self.found(apply_edit(scene_of(finish, self.sources), edit).finish)

    def test_words_that_are_well_are_not_spoken_of(self):
        piece = WORDS.model_copy(update={"anchor": MarginAnchor(x=0.5, y=0.5)})
        mark = Watermark(text="Pebblewick", opacity=0.4)
        finish = finish_of(600, 400, pieces=(piece,), watermark=mark)
        keys = set(self.found(finish))
        self.assertFalse(keys & {"past", "small", "missing", "over focus", "mark"}, keys)

    def test_hard_to_read_is_measured_and_mended(self):
        piece = WORDS.model_copy(update={"colour": "#777777"})
        finish = finish_with(piece)
        self.assertRegex(self.found(finish)["contrast"].text, r"“New glaze” .* 1\.\d to 1, 3 is")
        self.assertNotIn("contrast", self.mended(finish, "contrast"))

    def test_past_the_margin_is_measured_and_mended(self):
        moved = finish_with(WORDS.model_copy(update={"anchor": MarginAnchor(x=1, y=0), "dx": 0.02}))
        self.assertIn("8 px past the margin", self.found(moved)["past"].text)
        self.assertNotIn("past", self.mended(moved, "past"))
        wide = WORDS.model_copy(update={"text": "Wide " * 9, "wrap": None})
        finish = finish_with(wide)
        self.assertEqual(self.found(finish)["past"].action.label, "Make it fit")
        self.assertNotIn("past", self.mended(finish, "past"))

    def test_too_small_as_people_see_it_is_measured_and_mended(self):
        finish = with_size(finish_with(WORDS.model_copy(update={"size": 0.04})), seen_width=300)
        self.assertRegex(self.found(finish)["small"].text, r"a lower-case x is \d\.\d px high")
        self.assertNotIn("small", self.mended(finish, "small"))

    def test_badges_and_rows_of_them_past_the_margin_are_made_to_fit(self):
        wide = BadgePiece(id="badge-1", form="label", width=2, height=0.4)
        row = wide.model_copy(update={"width": 0.3, "repeat": Repeat(count=4, spread=3)})
        for piece in (wide, row):
            mended = self.mended(finish_with(piece), "past")
            self.assertNotIn("past", mended)

    def test_letters_that_no_font_has_are_named_and_left_out(self):
        finish = finish_with(WORDS.model_copy(update={"text": "Glaze 𓂀"}))
        self.assertIn("𓂀", self.found(finish)["missing"].text)
        self.assertNotIn("missing", self.mended(finish, "missing"))

    def test_words_over_the_focus_are_said_and_moved_beside_it(self):
        focus = Focus(point=Point(x=0.5, y=0.5), box=Box(left=0.4, top=0.4, width=0.2, height=0.2))
        finish = finish_with(WORDS, focus=focus)
        self.assertRegex(self.found(finish)["over focus"].text, r"covers \d+.% of the focus box")
        self.assertNotIn("over focus", self.mended(finish, "over focus"))
        aside = WORDS.model_copy(update={"anchor": MarginAnchor(x=0.5, y=0)})
        self.assertNotIn("over focus", self.found(finish_with(aside, focus=focus)))

    def test_words_on_other_words_are_said_and_made_smaller(self):
        name = WORDS.model_copy(update={"anchor": MarginAnchor(x=0, y=1), "size": 0.1})
        price = name.model_copy(
            update={"id": "text-2", "anchor": MarginAnchor(x=1, y=1), "text": "9 €"}
        )
        self.assertNotIn("overlap", self.found(finish_with(name, price)))
        long = price.model_copy(update={"text": "ask us about the price", "wrap": None})
        finish = finish_with(name, long)
        found = self.found(finish)["overlap"]
        self.assertEqual(found.text, "“ask us about the price” lies on “New glaze”.")
        self.assertEqual(found.action.label, "Make “ask us about the price” smaller")
        self.assertNotIn("overlap", self.mended(finish, "overlap"))
        for ways in ({"opacity": 0.3}, {"group": 1}):
            both = [piece.model_copy(update=ways) for piece in (name, long)]
            with self.subTest(ways=ways):
                self.assertNotIn("overlap", self.found(finish_with(*both)))
        crossing = long.model_copy(update={"anchor": MarginAnchor(x=0, y=1), "text": "ask " * 30})
        self.assertIsNone(self.found(finish_with(name, crossing))["overlap"].action)

    def test_boxes_that_meet_where_no_letters_do_are_well(self):
        tilted = WORDS.model_copy(update={"angle": 45, "size": 0.1})
        beside = WORDS.model_copy(update={"id": "text-2", "text": "9", "dy": 0.22, "dx": -0.2})
        finish = finish_with(tilted, beside)
        one, other = scene_of(finish, self.sources).pieces
        self.assertLess(other.bounds.top, one.bounds.bottom)
        self.assertGreater(other.bounds.right, one.bounds.left)
        self.assertNotIn("overlap", self.found(finish))

    def test_words_on_a_ring_are_judged_letter_by_letter(self):
        focus = Focus(point=Point(x=0.5, y=0.5), box=Box(left=0.4, top=0.3, width=0.2, height=0.4))
        ring = TextPiece(id="text-1", text="Words all along the round edge. " * 2, size=0.06,
                         wrap=None, bend=350, anchor=MarginAnchor(x=0.5, y=0.5))  # fmt: skip
        for size, keys in ((0.06, set()), (0.08, {"past"}), (0.03, {"over focus"})):
            piece = ring.model_copy(update={"size": size})
            finish = with_size(finish_with(piece, focus=focus), shape={"kind": "circle"},
                               pixels={"kind": "fixed", "width": 600, "height": 600})  # fmt: skip
            with self.subTest(size):
                self.assertEqual(set(self.found(finish)) & {"past", "over focus"}, keys)

    def test_a_mark_too_faint_or_too_loud_is_measured_and_mended(self):
        for opacity, word in ((0.02, "faint"), (1, "loud")):
            finish = finish_of(600, 400, watermark=Watermark(text="Pebblewick", opacity=opacity))
            with self.subTest(word=word):
                self.assertIn(f"too {word}", self.found(finish)["mark"].text)
                self.assertNotIn("mark", self.mended(finish, "mark"))

    def test_the_demo_tasks_come_out_readable(self):
        sources = demo_sources("mugs-window.jpg")
        piece = WORDS.model_copy(
            update={"text": "New glaze, every Thursday", "anchor": MarginAnchor(x=0.5, y=0)}
        )
        finish = finish_of(1080, 1350, pieces=(piece,))
        found = make_readable(scene_of(finish, sources), "text-1")
        edit = SetPiece(ids=("text-1",), changes=found[0])
        mended = apply_edit(scene_of(finish, sources), edit).finish
        self.assertTrue(contrast_of(scene_of(mended, sources), "text-1").suffices)
