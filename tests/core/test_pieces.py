"""Pieces: where they lie on every size, what edits make of them, and how they are drawn."""

import itertools
import math
import unittest

import cv2
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import (
    BadgePiece,
    Border,
    Box,
    Export,
    FixedPixels,
    Focus,
    LineBand,
    MarginAnchor,
    MarkDesign,
    PhotoAnchor,
    PhotoPoint,
    PicturePiece,
    PieceChanges,
    PlainShape,
    Plate,
    Point,
    Shadow,
    Sides,
    Size,
    TextPiece,
    UsedMark,
    Watermark,
    Window,
    read_finish,
    rgb_of,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.moving import (
    AlignPieces,
    DragPieces,
    DragWatermark,
    ScalePiece,
    TurnPiece,
)
from lucky_margin.core.edits.pieces import (
    AddBadge,
    AddMark,
    AddPicture,
    AddText,
    DuplicatePieces,
    FollowPiece,
    OrderPiece,
    PastePieces,
    RemovePieces,
    SetPiece,
)
from lucky_margin.core.errors import BadDocument, BadInput, NotFound
from lucky_margin.core.oklab import from_light
from lucky_margin.core.photos import DecodedPhoto, PhotoFacts
from lucky_margin.core.pieces.forms import badge_outline
from lucky_margin.core.pieces.watermark import repeated_spots, watermark_pieces
from lucky_margin.core.render import layout, render
from lucky_margin.core.sampling import sample
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.scene import MemorySources, Scene
from tests.support import SHA, demo_sources, finish_of, scene_of, sources_of, with_size

PNG = Export(format="png")
LOGO = "ef" * 32
GREY = sources_of(np.full((400, 600, 3), 120, np.uint8))
words = TextPiece(id="text-1", text="New glaze", size=0.1)
badge = BadgePiece(id="badge-1", form="label", width=0.3, height=0.1)


def many_sizes(*pieces, **fields):
    """A finish of four sizes with these pieces."""
    sides = ((400, 500), (500, 500), (640, 360), (600, 200))
    finish = finish_of(*sides[0], pieces=pieces, export=PNG, **fields)
    others = tuple(
        Size(id=f"s{n}", name=f"S{n}", pixels=FixedPixels(width=w, height=h))
        for n, (w, h) in enumerate(sides[1:])
    )
    return finish.model_copy(update={"sizes": (*finish.sizes, *others)})


def edited(finish, edit, size="main", sources=GREY):
    return apply_edit(Scene.of(finish, size, sources), edit).finish


def laid(finish, piece_id, size=None, sources=GREY):
    where = finish.size(size) if size else finish.sizes[0]
    return next(p for p in layout(Scene(finish, where, sources)).pieces if p.id == piece_id)


def lab_of(colour):
    return from_light(decode(np.array(rgb_of(colour)) / 255))


def bounds(piece):
    cos, sin = (abs(f(math.radians(piece.angle))) for f in (math.cos, math.sin))
    wide = piece.width * cos + piece.height * sin
    high = piece.width * sin + piece.height * cos
    return piece.x - wide / 2, piece.y - high / 2, piece.x + wide / 2, piece.y + high / 2


class PlaceTest(unittest.TestCase):
    @settings(max_examples=40)
    @given(
        x=st.sampled_from([0, 0.5, 1]),
        y=st.sampled_from([0, 0.5, 1]),
        angle=st.floats(-180, 180),
    )
    def test_a_corner_is_a_corner_on_every_size(self, x, y, angle):
        piece = badge.model_copy(update={"anchor": MarginAnchor(x=x, y=y), "angle": angle})
        finish = many_sizes(piece)
        for size in finish.sizes:
            box = layout(Scene(finish, size, GREY)).margin_box
            left, top, right, bottom = bounds(laid(finish, "badge-1", size.id))
            self.assertAlmostEqual(left - box.left, x * (box.width - (right - left)), places=3)
            self.assertAlmostEqual(top - box.top, y * (box.height - (bottom - top)), places=3)

    def test_a_label_stays_on_its_mug_when_the_crop_changes(self):
        anchor = PhotoAnchor(point=PhotoPoint(x=0.5, y=0.25))
        finish = finish_of(300, 200, pieces=(badge.model_copy(update={"anchor": anchor}),))
        self.assertEqual((laid(finish, "badge-1").x, laid(finish, "badge-1").y), (150, 50))
        window = Window(centre_x=300, centre_y=100, width=150, height=100)
        cut = with_size(finish, crop={"window": window.model_dump()})
        self.assertEqual((laid(cut, "badge-1").x, laid(cut, "badge-1").y), (150, 100))

    def test_lengths_follow_the_short_side_and_fill_is_solved_anew(self):
        fill = words.model_copy(update={"fill": True})
        finish = many_sizes(badge, fill)
        for size in finish.sizes:
            room = layout(Scene(finish, size, GREY))
            short = min(room.width, room.height)
            self.assertAlmostEqual(laid(finish, "badge-1", size.id).width, 0.3 * short, places=4)
            text = laid(finish, "text-1", size.id)
            self.assertLessEqual(text.width, room.margin_box.width + 0.01)
            self.assertLessEqual(text.height, room.margin_box.height + 0.01)
            touches = max(text.width / room.margin_box.width, text.height / room.margin_box.height)
            self.assertGreater(touches, 0.7)


class EditTest(unittest.TestCase):
    @settings(max_examples=60)
    @given(
        dx=st.floats(-300, 300),
        dy=st.floats(-300, 300),
        angle=st.floats(-90, 90),
        x=st.sampled_from([0, 0.5, 1]),
    )
    def test_a_drag_goes_with_the_pointer_wherever_it_is_hung(self, dx, dy, angle, x):
        for piece in (words, badge):
            start = piece.model_copy(update={"anchor": MarginAnchor(x=x, y=0), "angle": angle})
            finish = many_sizes(start)
            before = laid(finish, piece.id)
            after = laid(edited(finish, DragPieces(ids=(piece.id,), dx=dx, dy=dy)), piece.id)
            self.assertAlmostEqual(after.x - before.x, dx, delta=0.01)
            self.assertAlmostEqual(after.y - before.y, dy, delta=0.01)

    def test_what_is_put_in_a_corner_hangs_on_that_corner(self):
        finish = edited(many_sizes(badge), DragPieces(ids=("badge-1",), dx=140, dy=190))
        anchor = finish.pieces[0].anchor
        self.assertEqual((anchor.x, anchor.y), (1, 1))

    def test_lines_draw_and_ctrl_suspends_it(self):
        finish = many_sizes(badge.model_copy(update={"anchor": MarginAnchor(x=0.5, y=0)}))
        room = layout(scene_of(finish, GREY)).margin_box
        middle = laid(finish, "badge-1")
        near = room.left + room.width - middle.x - middle.width / 2 - 5
        snapped = edited(finish, DragPieces(ids=("badge-1",), dx=near, dy=0, snap=8))
        free = edited(finish, DragPieces(ids=("badge-1",), dx=near, dy=0))
        self.assertAlmostEqual(
            bounds(laid(snapped, "badge-1"))[2], room.left + room.width, places=3
        )
        self.assertAlmostEqual(
            bounds(laid(free, "badge-1"))[2], room.left + room.width - 5, places=3
        )

    @settings(max_examples=40)
    @given(
        dx=st.floats(-60, 90),
        dy=st.floats(-60, 90),
        angle=st.floats(-90, 90),
        grip=st.sampled_from(["nw", "ne", "se", "sw"]),
    )
    def test_a_corner_scales_about_the_opposite_one(self, dx, dy, angle, grip):
        for piece in (words.model_copy(update={"wrap": None}), badge):
            finish = many_sizes(piece.model_copy(update={"angle": angle}))
            before = laid(finish, piece.id)
            edit = ScalePiece(id=piece.id, grip=grip, dx=dx, dy=dy)
            after = laid(edited(finish, edit), piece.id)
            self.assertAlmostEqual(
                after.width / after.height, before.width / before.height, delta=0.02
            )
            np.testing.assert_allclose(
                corner(after, opposite(grip)), corner(before, opposite(grip)), atol=0.05
            )

    def test_a_side_grip_sets_the_width_of_lines_or_one_side_of_a_badge(self):
        finish = many_sizes(words.model_copy(update={"text": "one two three four"}), badge)
        edit = ScalePiece(id="text-1", grip="e", dx=-120, dy=0)
        self.assertGreater(laid(edited(finish, edit), "text-1").lines, laid(finish, "text-1").lines)
        taller = edited(finish, ScalePiece(id="badge-1", grip="s", dx=9, dy=20))
        before, after = laid(finish, "badge-1"), laid(taller, "badge-1")
        self.assertEqual(after.width, before.width)
        self.assertAlmostEqual(after.height - before.height, 20, places=3)

    def test_the_knob_above_turns_about_the_middle(self):
        finish = many_sizes(badge)
        before = laid(finish, "badge-1")
        reach = before.height / 2 + 30
        turned = edited(finish, TurnPiece(id="badge-1", distance=30, dx=reach, dy=reach))
        after = laid(turned, "badge-1")
        self.assertAlmostEqual(after.angle, 90, places=1)
        np.testing.assert_allclose((after.x, after.y), (before.x, before.y), atol=0.01)
        stepped = TurnPiece(id="badge-1", distance=30, dx=20, dy=0, step=15)
        self.assertEqual(laid(edited(finish, stepped), "badge-1").angle % 15, 0)

    def test_one_is_aligned_to_the_margin_several_to_each_other(self):
        other = badge.model_copy(update={"id": "badge-2", "dx": 0.2, "dy": 0.3})
        finish = many_sizes(badge, other)
        room = layout(scene_of(finish, GREY)).margin_box
        right = edited(finish, AlignPieces(ids=("badge-1",), to="right"))
        self.assertAlmostEqual(bounds(laid(right, "badge-1"))[2], room.left + room.width, places=3)
        top = edited(finish, AlignPieces(ids=("badge-1", "badge-2"), to="top"))
        self.assertAlmostEqual(
            bounds(laid(top, "badge-1"))[1], bounds(laid(top, "badge-2"))[1], places=3
        )
        both = edited(finish, AlignPieces(ids=("badge-1", "badge-2"), to="both"))
        one, two = laid(both, "badge-1"), laid(both, "badge-2")
        np.testing.assert_allclose((one.x, one.y), (two.x, two.y), atol=0.01)

    def test_one_size_has_its_own_place_and_follows_again(self):
        drag = DragPieces(ids=("badge-1",), dx=30, dy=0, only_this_size=True)
        finish = many_sizes(badge)
        own = edited(finish, drag)
        self.assertAlmostEqual(laid(own, "badge-1").x - laid(finish, "badge-1").x, 30, places=3)
        self.assertEqual(laid(own, "badge-1", "s0"), laid(finish, "badge-1", "s0"))
        colour = SetPiece(ids=("badge-1",), changes=PieceChanges(colour="#00FF00"))
        recoloured = edited(own, colour)
        self.assertEqual(recoloured.pieces_of(recoloured.sizes[0])[0].colour, "#00FF00")
        self.assertAlmostEqual(laid(recoloured, "badge-1").x, laid(own, "badge-1").x, places=3)
        followed = edited(recoloured, FollowPiece(id="badge-1"))
        self.assertEqual(laid(followed, "badge-1"), laid(finish, "badge-1"))
        gone = edited(own, RemovePieces(ids=("badge-1",)))
        self.assertEqual((gone.pieces, gone.sizes[0].overrides.pieces), ((), {}))

    def test_added_copied_ordered_hidden_and_on_chosen_sizes(self):
        finish = many_sizes()
        for edit in (
            AddText(purpose="headline"),
            AddText(purpose="price", text="€9"),
            AddBadge(form="star"),
            AddPicture(sha256=SHA, ratio=1.5),
            DuplicatePieces(ids=("badge-1",)),
            PastePieces(pieces=(words,)),
        ):
            finish = edited(finish, edit)
        ids = [piece.id for piece in finish.pieces]
        self.assertEqual(ids, ["text-1", "text-2", "badge-1", "picture-1", "badge-2", "text-3"])
        finish = edited(finish, OrderPiece(id="text-1", to="front"))
        self.assertEqual(finish.pieces[-1].id, "text-1")
        finish = edited(finish, OrderPiece(id="text-1", to="backward"))
        self.assertEqual(finish.pieces[-2].id, "text-1")
        hide = SetPiece(ids=("text-1", "badge-1"), changes=PieceChanges(on=False))
        finish = edited(finish, hide)
        some = SetPiece(ids=("text-2",), changes=PieceChanges(sizes=("s1",)))
        finish = edited(finish, some)
        here = {piece.id for piece in finish.pieces_of(finish.sizes[0])}
        self.assertEqual(here, {"picture-1", "badge-2", "text-3"})
        self.assertIn("text-2", {piece.id for piece in finish.pieces_of(finish.size("s1"))})

    def test_several_of_different_kinds_each_take_what_they_have(self):
        changes = PieceChanges(colour="#112233", weight=400)
        finish = edited(
            many_sizes(words, badge), SetPiece(ids=("text-1", "badge-1"), changes=changes)
        )
        self.assertEqual([piece.colour for piece in finish.pieces], ["#112233"] * 2)
        self.assertEqual(finish.pieces[0].weight, 400)

    def test_locked_pieces_stay_and_gone_ones_are_said(self):
        finish = many_sizes(badge.model_copy(update={"locked": True}))
        drag = DragPieces(ids=("badge-1",), dx=50, dy=0)
        self.assertEqual(laid(edited(finish, drag), "badge-1"), laid(finish, "badge-1"))
        for edit in (
            SetPiece(ids=("text-9",), changes=PieceChanges(on=False)),
            ScalePiece(id="text-9", grip="se", dx=1, dy=1),
            OrderPiece(id="text-9", to="back"),
        ):
            with self.assertRaises(NotFound):
                edited(finish, edit)

    def test_a_hundred_is_the_most_and_bad_values_are_named(self):
        finish = many_sizes(*(badge.model_copy(update={"id": f"b{n}"}) for n in range(100)))
        with self.assertRaisesRegex(BadInput, "100 pieces at most"):
            edited(finish, AddBadge(form="heart"))
        document = many_sizes(words).model_dump(mode="json")
        for field, value, said in (
            ("text", "x" * 5001, "5000"),
            ("family", "arial", "family"),
            ("size", float("nan"), "finite"),
            ("colour", "red", "colour"),
        ):
            bad = {**document, "pieces": [{**document["pieces"][0], field: value}]}
            with self.subTest(field=field), self.assertRaisesRegex(BadDocument, said):
                read_finish(bad)
        twice = {**document, "pieces": document["pieces"] * 2}
        with self.assertRaisesRegex(BadDocument, "same id"):
            read_finish(twice)


def corner(piece, grip):
    x, y = (
        (1 if grip[1] == "e" else -1) * piece.width / 2,
        (1 if grip[0] == "s" else -1) * piece.height / 2,
    )
    angle = math.radians(piece.angle)
    return (
        piece.x + x * math.cos(angle) - y * math.sin(angle),
        piece.y + x * math.sin(angle) + y * math.cos(angle),
    )


def opposite(grip):
    return grip.translate(str.maketrans("nsew", "snwe"))


class DrawnTest(unittest.TestCase):
    def drawn(self, *pieces, sources=GREY, view="final", **fields):
        finish = finish_of(300, 200, pieces=pieces, export=PNG, **fields)
        return render(scene_of(finish, sources), view=view).astype(int)

    def test_a_badge_covers_its_box_and_nothing_else(self):
        plain, out = self.drawn(), self.drawn(badge.model_copy(update={"form": "line"}))
        changed = np.abs(out - plain).max(axis=2) > 0
        rows, columns = np.flatnonzero(changed.any(axis=1)), np.flatnonzero(changed.any(axis=0))
        self.assertEqual((len(columns), len(rows)), (60, 20))
        np.testing.assert_array_equal(out[100, 150], (0xB8, 0x40, 0x1A))

    def test_before_shows_none_and_hidden_ones_are_absent(self):
        plain = self.drawn()
        np.testing.assert_array_equal(self.drawn(words, badge, view="before"), plain)
        hidden = words.model_copy(update={"on": False})
        np.testing.assert_array_equal(self.drawn(hidden), plain)

    def test_under_and_over_the_border(self):
        border = Border.of(LineBand(thickness=Sides.all(0.2), colour="#FFFFFF"))
        line = BadgePiece(
            id="badge-1", form="line", width=2, height=0.1, colour="#000000", over_border=False
        )
        under = self.drawn(line, border=border)
        over = self.drawn(line.model_copy(update={"over_border": True}), border=border)
        self.assertEqual((under[100, 10, 0], over[100, 10, 0]), (255, 0))
        self.assertEqual((under[100, 150, 0], over[100, 150, 0]), (0, 0))

    def test_cut_by_the_shape_or_not(self):
        line = BadgePiece(id="badge-1", form="line", width=2, height=0.1, colour="#000000")
        size = {"shape": PlainShape(kind="circle").model_dump()}
        finish = with_size(finish_of(300, 200, pieces=(line,), export=PNG), **size)
        free = line.model_copy(update={"clipped": False})
        beyond = finish.model_copy(update={"pieces": (free,)})
        cut, uncut = (render(scene_of(f, GREY)) for f in (finish, beyond))
        self.assertEqual((cut[100, 10, 3], uncut[100, 10, 3]), (0, 255))
        self.assertEqual((cut[10, 10, 3], uncut[10, 10, 3]), (0, 0))

    def test_opacity_and_blend_modes_mix_in_encoded_srgb(self):
        line = BadgePiece(id="badge-1", form="line", width=2, height=2, colour="#C80000")
        half = self.drawn(line.model_copy(update={"opacity": 0.5}))[100, 150]
        np.testing.assert_allclose(half, (160, 60, 60), atol=1)
        multiplied = self.drawn(line.model_copy(update={"blend": "multiply"}))[100, 150]
        np.testing.assert_allclose(multiplied, (120 * 200 / 255, 0, 0), atol=1)

    def test_shadow_plate_and_outline_lie_behind_the_letters(self):
        bare = self.drawn(words)
        for field in (
            {"shadow": Shadow(x=0.1, y=0, blur=0.01, opacity=1)},
            {"plate": Plate(opacity=1, colour="#00FF00")},
            {"outline": {"width": 0.1, "colour": "#0000FF"}},
        ):
            out = self.drawn(TextPiece.model_validate(words.model_dump() | field))
            letters = (bare == 255).all(axis=2)
            with self.subTest(field=field):
                self.assertGreater(letters.sum(), 300)
                self.assertTrue((out[letters] == 255).all())
                self.assertGreater(np.abs(out - bare)[~letters].max(), 60)

    def test_a_logo_keeps_its_transparency_and_proportions(self):
        logo = np.zeros((40, 80, 4), np.uint8)
        logo[:, 40:] = (10, 200, 30, 255)
        facts = PhotoFacts(width=80, height=40, file_format="PNG", bits=8, has_alpha=True)
        photos = {**GREY._photos, LOGO: DecodedPhoto(logo, facts)}
        sources = MemorySources(photos)
        piece = PicturePiece(id="picture-1", sha256=LOGO, ratio=2, width=0.4)
        out = self.drawn(piece, sources=sources)
        np.testing.assert_allclose(out[100, 180], (10, 200, 30), atol=2)
        np.testing.assert_array_equal(out[100, 120], (120, 120, 120))
        np.testing.assert_array_equal(out[100 + 22, 180], (120, 120, 120))

    def test_a_line_goes_round_what_a_transparent_picture_shows(self):
        disc = np.zeros((120, 120, 4), np.uint8)
        cv2.circle(disc, (60, 60), 40, (10, 200, 30, 255), -1, cv2.LINE_AA)
        facts = PhotoFacts(width=120, height=120, file_format="PNG", bits=8, has_alpha=True)
        sources = MemorySources({**GREY._photos, LOGO: DecodedPhoto(disc, facts)})
        # 120 px of a short side of 200: drawn one to one, the line 10 px wide.
        piece = PicturePiece(
            id="p", sha256=LOGO, ratio=1, width=0.6, stroke="#FF0000", stroke_width=0.05
        )
        out = self.drawn(piece, sources=sources).astype(int)
        red = (out[:, :, 0] > 200) & (out[:, :, 1] < 90)
        ring = np.pi * (50.5**2 - 40.5**2)
        self.assertAlmostEqual(red.sum() / ring, 1, delta=0.06)
        np.testing.assert_allclose(out[100, 150], (10, 200, 30), atol=2)
        np.testing.assert_array_equal(out[45, 95], (120, 120, 120))  # a corner of its box
        self.assertTrue(red[100, 150 + 45] and not red[100, 150 + 54])

    def test_previews_and_regions_show_what_the_export_will_have(self):
        sources = demo_sources("mugs-window.jpg")
        pieces = (
            words.model_copy(
                update={"shadow": Shadow(), "angle": 7, "family": "pacifico", "plate": Plate()}
            ),
            badge.model_copy(update={"form": "burst", "dx": 0.2, "dy": 0.2, "stroke": "#FFFFFF"}),
            BadgePiece(id="b2", form="curved-arrow", height=0.3, dx=-0.3, blend="overlay"),
        )
        mark = Watermark(text="Pebblewick", place="repeated", opacity=0.3)
        finish = finish_of(900, 600, pieces=pieces, watermark=mark, export=PNG)
        full = render(scene_of(finish, sources))
        part = render(scene_of(finish, sources), region=(300, 150, 350, 240))
        self.assertLessEqual(np.abs(part.astype(int) - full[150:390, 300:650]).max(), 1)
        half = render(scene_of(finish, sources), scale=0.5)
        shrunk = sample(full, left=0, top=0, step_x=2, step_y=2, region=(0, 0, 450, 300))
        difference = np.abs(shrunk.astype(int) - half)
        self.assertLessEqual(difference.mean(), 1.5)
        self.assertLessEqual(np.percentile(difference, 99), 8)

    def test_pieces_far_outside_and_of_any_size_are_harmless(self):
        for fields in (
            {"dx": 20.0, "dy": -20.0},
            {"width": 4.0, "height": 4.0, "dx": 3.0},
            {"width": 0.005, "height": 4.0, "angle": 45},
        ):
            out = self.drawn(badge.model_copy(update=fields))
            self.assertEqual(out.shape[:2], (200, 300))


def of_form(form):
    return BadgePiece(id="badge-1", form=form)


class FormsTest(unittest.TestCase):
    def test_every_form_fills_its_box_about_its_middle(self):
        for form in BadgePiece.model_fields["form"].annotation.__args__:
            box = badge_outline(of_form(form), 200, 100).computeTightBounds()
            with self.subTest(form=form):
                self.assertGreaterEqual(box.left(), -100.01)
                self.assertLessEqual(box.right(), 100.01)
                self.assertGreaterEqual(box.top(), -50.01)
                self.assertLessEqual(box.bottom(), 50.01)
                # An icon keeps the room that was drawn around it.
                least = 0.6 if form == "icon" else 0.8
                self.assertGreater(box.width() * box.height(), least * 200 * 100)

    def test_a_ring_and_a_price_tag_have_their_hole(self):
        self.assertFalse(badge_outline(of_form("ring"), 100, 100).contains(0, 0))
        self.assertTrue(badge_outline(of_form("ring"), 100, 100).contains(47, 0))
        self.assertFalse(badge_outline(of_form("price-tag"), 200, 100).contains(-62.5, 0))

    def test_an_arrow_points_to_the_right_and_is_even(self):
        arrow = badge_outline(of_form("arrow"), 200, 100)
        self.assertTrue(arrow.contains(98, 0))
        self.assertFalse(arrow.contains(98, 10))
        for x, y in ((-90, 15), (-90, 30), (60, 40), (20, 45)):
            self.assertEqual(arrow.contains(x, y), arrow.contains(x, -y))


class FirstColourTest(unittest.TestCase):
    """Words begin in a colour of the finish or of the photo, light enough for dark photos."""

    palette = ("#3A2414", "#9A5B2C", "#D8C7A8", "#7B7F80")

    def first(self, *pieces, purpose="headline", palette=palette):
        finish = finish_of(400, 500, pieces=pieces)
        edit = AddText(purpose=purpose, palette=palette)
        return edited(finish, edit).pieces[-1].colour

    def test_words_take_a_light_tint_of_the_palest_colour_and_a_price_of_the_strongest(self):
        for purpose, source, lightness in (("line", "#D8C7A8", 0.96), ("price", "#9A5B2C", 0.86)):
            found, wanted = lab_of(self.first(purpose=purpose)), lab_of(source)
            with self.subTest(purpose):
                self.assertAlmostEqual(found[0], lightness, delta=0.01)
                hue, other = (math.atan2(lab[2], lab[1]) for lab in (found, wanted))
                self.assertAlmostEqual(hue, other, delta=0.06)

    def test_they_match_the_words_that_are_there_and_are_white_without_a_photo(self):
        there = words.model_copy(update={"colour": "#123456"})
        self.assertEqual(self.first(there), "#123456")
        self.assertEqual(self.first(palette=()), "#FFFFFF")


class FreePlaceTest(unittest.TestCase):
    def test_words_and_marks_that_are_added_cover_nothing_that_is_there(self):
        finish = many_sizes()
        mark = AddMark(mark=MarkPieceTest.used)
        for edit in (AddText(purpose="headline"), AddText(purpose="headline"), mark):
            finish = edited(finish, edit)
        boxes = [bounds(laid(finish, piece.id)) for piece in finish.pieces]
        for one, other in itertools.combinations(boxes, 2):
            apart = (
                one[2] <= other[0] or other[2] <= one[0] or one[3] <= other[1] or other[3] <= one[1]
            )
            self.assertTrue(apart)
        self.assertEqual(finish.pieces[0].anchor, MarginAnchor(x=0.5, y=0.05))

    def test_words_that_are_added_leave_the_focus_free_if_they_can(self):
        low = Focus(point=Point(x=0.5, y=0.9), box=Box(left=0.2, top=0.75, width=0.6, height=0.25))
        finish = edited(many_sizes(focus=low), AddText(purpose="line"))
        self.assertEqual(finish.pieces[0].anchor, MarginAnchor(x=0.5, y=0.05))

    def test_where_nothing_is_free_they_lie_at_home(self):
        cover = badge.model_copy(update={"width": 4, "height": 4})
        finish = edited(many_sizes(cover), AddText(purpose="line"))
        self.assertEqual(finish.pieces[1].anchor, MarginAnchor(x=0.5, y=0.95))


class DraggedWatermarkTest(unittest.TestCase):
    mark = Watermark(text="Pebblewick", spot=MarginAnchor(x=1, y=1))

    def box(self, finish, size="main"):
        return layout(Scene(finish, finish.size(size), GREY)).watermark

    @settings(max_examples=40)
    @given(dx=st.floats(-400, 30), dy=st.floats(-500, 30))
    def test_it_goes_with_the_pointer_and_stays_inside_the_margin(self, dx, dy):
        finish = many_sizes(watermark=self.mark)
        before = self.box(finish)
        moved = edited(finish, DragWatermark(dx=dx, dy=dy))
        after, room = self.box(moved), layout(scene_of(moved, GREY)).margin_box
        wanted_x = min(max(before.left + dx, room.left), room.right - before.width)
        wanted_y = min(max(before.top + dy, room.top), room.bottom - before.height)
        self.assertAlmostEqual(after.left, wanted_x, delta=0.01)
        self.assertAlmostEqual(after.top, wanted_y, delta=0.01)

    def test_it_is_drawn_to_the_middle_and_the_line_is_shown(self):
        finish = many_sizes(watermark=self.mark)
        box, room = self.box(finish), layout(scene_of(finish, GREY)).margin_box
        away = room.centre[0] - box.centre[0] + 3
        result = apply_edit(scene_of(finish, GREY), DragWatermark(dx=away, dy=-40, snap=6))
        self.assertEqual(result.finish.watermark.spot.x, 0.5)
        self.assertEqual([guide.x1 for guide in result.guides], [room.centre[0]])

    def test_only_this_size_and_only_on_a_spot(self):
        finish = many_sizes(watermark=self.mark)
        edit = DragWatermark(dx=-90, dy=0, only_this_size=True)
        moved = edited(finish, edit)
        self.assertEqual(self.box(moved, "s0"), self.box(finish, "s0"))
        self.assertNotEqual(self.box(moved), self.box(finish))
        for other in (Watermark(), self.mark.model_copy(update={"place": "repeated"})):
            finish = many_sizes(watermark=other)
            self.assertIsNone(self.box(finish))
            with self.assertRaises(BadInput):
                edited(finish, edit)


class MarkPieceTest(unittest.TestCase):
    used = UsedMark(id=1, name="Studio", version=1, design=MarkDesign(words="Pebblewick"))

    def test_a_kept_mark_is_placed_scaled_and_recoloured(self):
        finish = edited(many_sizes(), AddMark(mark=self.used))
        before = laid(finish, "mark-1")
        scale = ScalePiece(id="mark-1", grip="se", dx=before.width, dy=before.height)
        twice = edited(finish, scale)
        after = laid(twice, "mark-1")
        self.assertAlmostEqual(after.width, 2 * before.width, delta=0.01)
        self.assertAlmostEqual(after.height / after.width, before.height / before.width, 4)
        red = SetPiece(ids=("mark-1",), changes=PieceChanges(colour="#CC2200"))
        picture = render(Scene(edited(twice, red), finish.sizes[0], GREY))
        box = bounds(after)
        inside = picture[int(box[1]) : int(box[3]), int(box[0]) : int(box[2])]
        self.assertTrue((inside == (0xCC, 0x22, 0)).all(axis=2).any())

    def test_a_mark_on_which_nothing_is_drawn_has_a_box_to_take_hold_of(self):
        nothing = self.used.model_copy(update={"design": MarkDesign()})
        finish = edited(many_sizes(), AddMark(mark=nothing))
        self.assertGreater(laid(finish, "mark-1").height, 1)
        marked = many_sizes(watermark=Watermark(mark=nothing))
        plain = many_sizes()
        pictures = [render(scene_of(one, GREY)) for one in (marked, plain)]
        np.testing.assert_array_equal(*pictures)


class WatermarkTest(unittest.TestCase):
    @settings(max_examples=80)
    @given(
        width=st.floats(60, 2000),
        height=st.floats(60, 2000),
        mark=st.floats(20, 300),
        angle=st.floats(-90, 90),
        gap=st.floats(5, 200),
        stagger=st.booleans(),
    )
    def test_repeats_are_even_and_leave_no_hole(self, width, height, mark, angle, gap, stagger):
        high = mark / 4
        spots = repeated_spots(width, height, mark, high, angle, gap, gap / 2, stagger)
        places = spots.places
        self.assertGreaterEqual(len(places), 1)
        # Turned back, rows are one pitch apart and places in a row are another.
        turn = math.radians(-angle)
        away = places - [width / 2, height / 2]
        along = away[:, 0] * math.cos(turn) - away[:, 1] * math.sin(turn)
        down = away[:, 0] * math.sin(turn) + away[:, 1] * math.cos(turn)
        rows = np.rint(down / spots.down)
        np.testing.assert_allclose(down, rows * spots.down, atol=1e-6)
        for row in np.unique(rows):
            steps = np.diff(np.sort(along[rows == row])) / spots.across
            np.testing.assert_allclose(steps, 1, atol=1e-6)
            shift = 0.5 if stagger and row % 2 else 0
            offset = along[rows == row][0] / spots.across - shift
            self.assertAlmostEqual(offset, round(offset), places=5)
        # Every place of the lattice that lies in the picture is there.
        reach = math.hypot(width, height)
        far = [math.ceil(reach / pitch) + 1 for pitch in (spots.across, spots.down)]
        column, row = np.mgrid[-far[0] : far[0] + 1, -far[1] : far[1] + 1].reshape(2, -1)
        along = (column + 0.5 * (stagger & (row % 2 == 1))) * spots.across
        down = row * spots.down
        x = width / 2 + along * math.cos(turn) + down * math.sin(turn)
        y = height / 2 - along * math.sin(turn) + down * math.cos(turn)
        inside = (x > 0) & (x < width) & (y > 0) & (y < height)
        for place in np.column_stack([x, y])[inside]:
            self.assertLess(np.abs(places - place).max(axis=1).min(), 1e-6)

    def test_a_repeated_mark_has_the_same_gap_beside_it_and_below_it(self):
        for text, gap in (("Pebblewick Pottery", 1.5), ("P", 0.5)):
            mark = Watermark(text=text, place="repeated", angle=0, stagger=False, gap=gap)
            finish = finish_of(600, 400, watermark=mark)
            scene = scene_of(finish, GREY)
            boxes = [
                one.bounds for one in watermark_pieces(mark, scene.margins, scene.frame, GREY.font)
            ]
            first = boxes[0]
            beside = min(b.left for b in boxes if b.left > first.left + 1) - first.right
            below = min(b.top for b in boxes if b.top > first.top + 1) - first.bottom
            with self.subTest(text):
                self.assertAlmostEqual(beside, gap * mark.size * 400, delta=0.01)
                self.assertAlmostEqual(below, beside, delta=0.01)

    def drawn(self, mark, colour=120):
        photo = np.full((400, 600, 3), colour, np.uint8)
        finish = finish_of(600, 400, watermark=mark, export=PNG)
        return render(scene_of(finish, sources_of(photo))).astype(int) - colour

    def test_the_shade_goes_by_what_is_behind(self):
        mark = Watermark(text="Pebblewick", opacity=0.5)
        self.assertGreater(self.drawn(mark, 20).max(), 50)
        self.assertLess(self.drawn(mark, 235).min(), -50)
        self.assertEqual(self.drawn(mark.model_copy(update={"shade": "light"}), 235).min(), 0)

    def test_one_spot_lies_inside_the_margin(self):
        for x, y in ((0, 0), (1, 1), (0.5, 0)):
            change = np.abs(self.drawn(Watermark(text="Pottery", spot=MarginAnchor(x=x, y=y))))
            rows = np.flatnonzero(change.any(axis=(1, 2)))
            columns = np.flatnonzero(change.any(axis=(0, 2)))
            self.assertGreaterEqual(min(rows[0], columns[0]), 15)
            self.assertLessEqual(columns[-1], 584)
            self.assertLessEqual(rows[-1], 384)

    def test_across_is_one_wide_line_and_repeated_is_all_over(self):
        across = np.abs(self.drawn(Watermark(text="Pebblewick", place="across", angle=0)))
        columns = np.flatnonzero(across.any(axis=(0, 2)))
        self.assertGreater(columns[-1] - columns[0], 450)
        everywhere = np.abs(self.drawn(Watermark(text="Pebblewick", place="repeated")))
        quarters = [everywhere[y : y + 200, x : x + 300].max() for y in (0, 200) for x in (0, 300)]
        self.assertGreater(min(quarters), 20)

    def test_nothing_written_is_no_mark(self):
        for mark in (Watermark(), Watermark(text="  "), Watermark(text="x", on=False)):
            self.assertEqual(np.abs(self.drawn(mark)).max(), 0)
