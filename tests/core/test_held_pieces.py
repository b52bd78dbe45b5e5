"""What badges hold, what arrows and bubbles hold on to, and texts set in parts or on an arc."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    BadgePiece,
    Export,
    FixedPixels,
    PhotoPoint,
    PieceChanges,
    Repeat,
    Shadow,
    Size,
    TextPart,
    TextPiece,
    Watermark,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.moving import DragPieces, ScalePiece
from lucky_margin.core.edits.pieces import DuplicatePieces, GroupPieces, SetPiece, parts_after
from lucky_margin.core.edits.pointing import PointPiece, ReleaseTip
from lucky_margin.core.errors import BadInput
from lucky_margin.core.framing import frame_of
from lucky_margin.core.pieces import margins_of
from lucky_margin.core.pieces.forms import badge_outline
from lucky_margin.core.pieces.lettering import holds_words, lettering_of
from lucky_margin.core.pieces.watermark import watermark_pieces
from lucky_margin.core.render import layout, render
from lucky_margin.core.scene import Scene
from lucky_margin.core.text import PartStyle, TextStyle, lay_text, no_fonts
from tests.support import finish_of, scene_of, sources_of

GREY = sources_of(np.full((400, 600, 3), 120, np.uint8))
FORMS = [form for form in BadgePiece.model_fields["form"].annotation.__args__ if holds_words(form)]
spots = st.floats(0.05, 0.95)


def finish_with(*pieces):
    return finish_of(400, 500, pieces=pieces, export=Export(format="png"))


def edited(finish, edit):
    return apply_edit(scene_of(finish, GREY), edit)


def laid(finish, number=0):
    return layout(scene_of(finish, GREY)).pieces[number]


class LetteringTest(unittest.TestCase):
    @settings(max_examples=40)
    @given(
        form=st.sampled_from(FORMS), words=st.text(min_size=1, max_size=12),
        width=st.floats(40, 600), height=st.floats(40, 600),
    )  # fmt: skip
    def test_words_stay_inside_the_box(self, form, words, width, height):
        inside = lettering_of(BadgePiece(id="a", form=form, text=words), width, height, no_fonts)
        if inside is None or inside.isEmpty():
            return
        box = inside.computeTightBounds()
        self.assertGreaterEqual(box.left(), -width / 2)
        self.assertLessEqual(box.right(), width / 2)
        self.assertGreaterEqual(box.top(), -height / 2)
        self.assertLessEqual(box.bottom(), height / 2)

    def test_words_and_icons_lie_on_the_form(self):
        """On what is drawn of it, but for a ring, in whose hole they lie."""
        for form in FORMS:
            for content in ({"text": "now"}, {"icon": "star"}):
                piece = BadgePiece(id="a", form=form, **content)
                inside = lettering_of(piece, 300, 300, no_fonts)
                box = inside.computeTightBounds()
                outline = badge_outline(piece, 300, 300)
                corners = [(x, y) for x in (box.left(), box.right())
                           for y in (box.top(), box.bottom())]  # fmt: skip
                held = [outline.contains(x, y) for x, y in corners]
                with self.subTest(form=form, content=content):
                    self.assertEqual(set(held), {form != "ring"})

    def test_no_word_is_torn_to_make_it_larger(self):
        for form in FORMS:
            inside = lettering_of(BadgePiece(id="a", form=form, text="new"), 300, 300, no_fonts)
            box = inside.computeTightBounds()
            with self.subTest(form):
                self.assertGreater(box.width(), 1.8 * box.height())

    def test_the_picture_shows_them_in_their_colour(self):
        piece = BadgePiece(
            id="badge-1", form="circle", text="NEW", width=0.5, height=0.5, letters="#00FF00"
        )
        finish = finish_with(piece)
        out = render(scene_of(finish, GREY))
        self.assertGreater((out == (0, 255, 0)).all(axis=2).sum(), 500)


class HeldTest(unittest.TestCase):
    @settings(max_examples=25)
    @given(x=spots, y=spots, dx=st.floats(-150, 150), dy=st.floats(-150, 150))
    def test_a_held_tip_stays_on_its_spot_whatever_the_crop(self, x, y, dx, dy):
        arrow = BadgePiece(id="badge-1", form="arrow", tip=PhotoPoint(x=x, y=y))
        finish = finish_with(arrow)
        wide = Size(id="w", name="W", pixels=FixedPixels(width=600, height=200))
        finish = finish.model_copy(update={"sizes": (*finish.sizes, wide)})
        for size in finish.sizes:
            where = layout(Scene(finish, size, GREY))
            scale_x = where.shown.width / where.sampled.width
            tip = where.pieces[0].tip
            self.assertAlmostEqual(
                (tip.x - where.shown.left) / scale_x + where.sampled.left, 600 * x, delta=0.01
            )
        moved = edited(finish, PointPiece(id="badge-1", end="tip", dx=dx, dy=dy)).finish
        before, after = laid(finish), laid(moved)
        self.assertAlmostEqual(after.tip.x - before.tip.x, dx, delta=0.01)
        self.assertAlmostEqual(after.tip.y - before.tip.y, dy, delta=0.01)
        self.assertAlmostEqual(after.tail.x, before.tail.x, delta=0.01)

    def test_holding_and_letting_go_leave_it_where_it_is(self):
        arrow = BadgePiece(id="badge-1", form="arrow", width=0.4, angle=30, dx=0.05)
        finish = finish_with(arrow)
        held = edited(finish, PointPiece(id="badge-1", end="tip", dx=0, dy=0)).finish
        free = edited(held, ReleaseTip(id="badge-1")).finish
        self.assertIsNotNone(held.pieces[0].tip)
        self.assertIsNone(free.pieces[0].tip)
        first = laid(finish)
        for other in (laid(held), laid(free)):
            for field in ("x", "y", "width", "height", "angle"):
                self.assertAlmostEqual(getattr(other, field), getattr(first, field), delta=0.05)

    def test_a_drag_takes_both_ends_along(self):
        arrow = BadgePiece(id="badge-1", form="line", tip=PhotoPoint(x=0.4, y=0.4))
        finish = finish_with(arrow)
        moved = edited(finish, DragPieces(ids=("badge-1",), dx=20, dy=-30)).finish
        before, after = laid(finish), laid(moved)
        for end in ("tail", "tip"):
            one, other = getattr(before, end), getattr(after, end)
            self.assertAlmostEqual(other.x - one.x, 20, delta=0.01)
            self.assertAlmostEqual(other.y - one.y, -30, delta=0.01)

    def test_a_bubble_s_pointer_reaches_its_spot_and_the_body_moves_alone(self):
        bubble = BadgePiece(
            id="badge-1", form="bubble", colour="#FF0000", tip=PhotoPoint(x=0.5, y=0.9)
        )
        finish = finish_with(bubble)
        where = laid(finish)
        out = render(scene_of(finish, GREY)).astype(int)
        x, y = (0.8 * tip + 0.2 * middle for tip, middle in
                ((where.tip.x, where.x), (where.tip.y, where.y)))  # fmt: skip
        np.testing.assert_array_equal(out[round(y), round(x)], (255, 0, 0))
        moved = edited(finish, DragPieces(ids=("badge-1",), dx=60, dy=0)).finish
        self.assertAlmostEqual(laid(moved).tip.x, where.tip.x, delta=0.01)
        self.assertAlmostEqual(laid(moved).x, where.x + 60, delta=0.01)

    def test_what_is_cropped_away_is_said_and_can_be_left_out_there(self):
        arrow = BadgePiece(id="badge-1", form="arrow", tip=PhotoPoint(x=0.01, y=0.5))
        finish = finish_with(arrow)
        found = [one for one in check(scene_of(finish, GREY)) if one.key == "points out"]
        self.assertEqual(len(found), 1)
        mended = edited(finish, found[0].action.edit).finish
        self.assertEqual(layout(scene_of(mended, GREY)).pieces, [])

    def test_only_what_points_can_point(self):
        finish = finish_with(BadgePiece(id="badge-1", form="heart"))
        with self.assertRaisesRegex(BadInput, "Only arrows"):
            edited(finish, PointPiece(id="badge-1", end="tip", dx=0, dy=0))


class SnappedTest(unittest.TestCase):
    def test_a_drag_says_what_it_was_drawn_to_and_how_far_it_is(self):
        finish = finish_with(BadgePiece(id="badge-1", form="label", width=0.2, height=0.1))
        drag = DragPieces(ids=("badge-1",), dx=3, dy=70, snap=8)
        guides = edited(finish, drag).guides
        upright = [one for one in guides if not one.label and one.x1 == one.x2]
        self.assertEqual([one.x1 for one in upright], [200])
        labels = {one.label for one in guides if one.label}
        where = layout(scene_of(finish, GREY))
        gap = where.margin_box.bottom - (250 + 70 + 20)
        self.assertIn(f"{gap:.0f} px", labels)


class RepeatedTest(unittest.TestCase):
    def test_copies_are_one_piece_drawn_so_often(self):
        one = BadgePiece(id="badge-1", form="circle", width=0.05, height=0.05, colour="#00FF00")
        single, row = (
            render(scene_of(finish, GREY))
            for finish in (
                finish_with(one),
                finish_with(one.model_copy(update={"repeat": Repeat(count=6, spread=0.7)})),
            )
        )
        green = [((out == (0, 255, 0)).all(axis=2)).sum() for out in (single, row)]
        self.assertAlmostEqual(green[1] / green[0], 6, delta=0.3)

    def test_a_corner_scales_the_spread_along(self):
        one = BadgePiece(id="badge-1", form="star", width=0.1, height=0.1, repeat=Repeat())
        finish = finish_with(one)
        grown = edited(finish, ScalePiece(id="badge-1", grip="se", dx=40, dy=40)).finish
        before, after = laid(finish), laid(grown)
        self.assertGreater(after.width, before.width + 10)
        self.assertAlmostEqual(after.width / after.height, before.width / before.height, delta=0.01)


class GroupTest(unittest.TestCase):
    def test_pieces_are_grouped_copied_as_a_group_and_let_go(self):
        ids = ("badge-1", "badge-2")
        finish = finish_with(*(BadgePiece(id=one, form="heart") for one in (*ids, "badge-3")))
        grouped = edited(finish, GroupPieces(ids=ids)).finish
        self.assertEqual([piece.group for piece in grouped.pieces], [1, 1, None])
        copied = edited(grouped, DuplicatePieces(ids=ids)).finish
        self.assertEqual([piece.group for piece in copied.pieces], [1, 1, None, 2, 2])
        free = edited(copied, GroupPieces(ids=ids, together=False)).finish
        self.assertEqual([piece.group for piece in free.pieces], [None, None, None, 2, 2])


class DraggedTest(unittest.TestCase):
    def test_a_held_piece_over_the_picture_without_it_is_the_picture(self):
        pieces = (
            BadgePiece(id="badge-1", form="heart", width=0.4, height=0.4, opacity=0.5),
            TextPiece(id="text-1", text="New glaze", dy=0.2, shadow=Shadow()),
        )
        finish = finish_with(*pieces)
        size = finish.sizes[0]
        for held in (("text-1",), ("badge-1", "text-1")):
            for options in ({}, {"scale": 0.5}, {"region": (100, 100, 200, 260)}):
                whole, bare, alone = (
                    render(Scene(finish, size, GREY), view=view, held=ids, **options).astype(int)
                    for view, ids in (("final", ()), ("final", held), ("piece", held))
                )
                share = alone[:, :, 3:] / 255
                laid_over = bare * (1 - share) + alone[:, :, :3] * share
                with self.subTest(held=held, options=options):
                    self.assertLess(np.abs(laid_over - whole).max(), 4)
                    self.assertGreater(np.abs(bare - whole).max(), 40)


class WholeMarkTest(unittest.TestCase):
    def test_repeats_that_the_edge_would_cut_are_left_out(self):
        mark = Watermark(text="Pebblewick", place="repeated", gap=1)
        finish = finish_with()
        size = finish.sizes[0]
        frame = frame_of(finish, size, 600, 400)
        margins = margins_of(size, finish.border_of(size), frame.output)
        every = watermark_pieces(mark, margins, frame, no_fonts)
        whole = watermark_pieces(mark.model_copy(update={"whole": True}), margins, frame, no_fonts)
        inside = [
            one for one in every
            if min(one.bounds.left, one.bounds.top) >= 0
            and one.bounds.right <= 400 and one.bounds.bottom <= 500
        ]  # fmt: skip
        self.assertEqual([(one.x, one.y) for one in whole], [(one.x, one.y) for one in inside])
        self.assertTrue(4 < len(whole) < len(every))


class PartsTest(unittest.TestCase):
    def test_a_part_has_its_own_colour_weight_and_line(self):
        text = "€34 €28"
        style = TextStyle("figtree", 400)
        plain = lay_text(text, style, 100)
        part = PartStyle(0, 3, weight=900, colour="#FF0000", struck=True)
        laid_out = lay_text(text, style, 100, parts=[part])
        self.assertGreater(laid_out.ink.width, plain.ink.width + 5)
        ((colour, red),) = laid_out.coloured
        box = red.computeTightBounds()
        self.assertEqual(colour, "#FF0000")
        self.assertLess(box.right(), laid_out.ink.right - 100)
        # The line covers the gap between letters that is bare without it.
        bare = lay_text(text, style, 100, parts=[PartStyle(0, 3, weight=900)])
        x_height = -laid_out.x_height / 2
        line = [laid_out.outline.contains(x, x_height) for x in range(5, round(box.right()) - 5)]
        letters = [bare.outline.contains(x, x_height) for x in range(5, round(box.right()) - 5)]
        self.assertTrue(all(line))
        self.assertFalse(all(letters))

    @given(st.text("ab ", max_size=8), st.text("ab ", max_size=8), st.data())
    def test_parts_follow_the_words_whatever_is_written(self, old, new, data):
        start = data.draw(st.integers(0, len(old)))
        end = data.draw(st.integers(start, len(old)))
        parts = [TextPart(start=start, end=end)] if end > start else []
        for part in parts_after(parts, old, new):
            self.assertTrue(0 <= part.start < part.end <= len(new))
        self.assertEqual(parts_after(parts, old, old), parts)
        # Written before it, it moves along; written behind it, it stays.
        for part in parts:
            (moved,) = parts_after(parts, old, "X" + old)
            self.assertEqual((moved.start, moved.end), (part.start + 1, part.end + 1))
            self.assertEqual(parts_after(parts, old, old + "X"), parts)

    def test_an_edit_of_the_words_keeps_the_part(self):
        piece = TextPiece(
            id="text-1", text="old 34", parts=(TextPart(start=4, end=6, struck=True),)
        )
        changes = PieceChanges(text="an old 34")
        now = edited(finish_with(piece), SetPiece(ids=("text-1",), changes=changes)).finish
        self.assertEqual([(one.start, one.end) for one in now.pieces[0].parts], [(7, 9)])


class ArcTest(unittest.TestCase):
    @given(bend=st.one_of(st.floats(20, 300), st.floats(-300, -20)))
    @settings(max_examples=15)
    def test_letters_stand_on_a_circle(self, bend):
        """A row of full stops: each middle is as far from the circle's middle as the others."""
        text = lay_text("." * 24, TextStyle("figtree", bend=bend), 40)
        radius = text.advance / np.radians(bend)
        centre = (text.advance / 2, radius)
        dots = _middles(text.outline)
        away = [np.hypot(x - centre[0], y - centre[1]) for x, y in dots]
        self.assertEqual(len(dots), 24)
        np.testing.assert_allclose(away, away[0], atol=0.05)
        self.assertLess(abs(away[0] - abs(radius)), 8)


def _middles(path):
    """The middles of a path's closed parts."""
    middles, points = [], []
    for _, found in path:
        if len(found) == 1 and points:
            middles.append(points)
            points = []
        points += [(point.x(), point.y()) for point in found]
    boxes = [np.array(points) for points in [*middles, points] if len(points) > 2]
    return [tuple((box.min(axis=0) + box.max(axis=0)) / 2) for box in boxes]
