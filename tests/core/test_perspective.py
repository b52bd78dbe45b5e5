"""Pieces turned out of the picture's plane, blurred, and scattered in depth."""

import math
import unittest

import numpy as np

from lucky_margin.core.document import BadgePiece, Box, Perspective, PicturePiece, Repeat, Shadow
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.in_space import DragCorner, TakeApart
from lucky_margin.core.edits.pieces import RemovePieces, SetPiece
from lucky_margin.core.errors import BadInput
from lucky_margin.core.pieces.repeats import copies_of
from lucky_margin.core.render import layout, render
from lucky_margin.core.squaring import is_convex
from tests.support import finish_of, scene_of, sources_of, with_size

SIDE = 400
WHITE = np.full((SIDE, SIDE, 3), 255, np.uint8)
BLACK = np.zeros((SIDE, SIDE, 3), np.uint8)
OTHER = "cd" * 32
PNG = {"format": "png"}


def badge(**fields):
    """A black plate of 200 x 120 px in the middle, unless said otherwise."""
    known = {"id": "badge-1", "form": "label", "width": 0.5, "height": 0.3, "colour": "#000000"}
    return BadgePiece.model_validate(known | fields)


def drawn(*pieces, photo=WHITE, scale=1.0):
    finish = finish_of(pieces=pieces, export=PNG)
    return render(
        scene_of(finish, sources_of(photo, others={OTHER: BLACK[:120, :200]})), scale=scale
    )


def projected(x, y, perspective, width=200, height=120):
    """A point of a plate about its middle, by turning it in space and looking at it from afar."""
    lean, swing = math.radians(perspective.lean), math.radians(perspective.swing)
    about_upright = np.array(
        [
            [math.cos(swing), 0, -math.sin(swing)],
            [0, 1, 0],
            [math.sin(swing), 0, math.cos(swing)],
        ]
    )
    about_level = np.array(
        [[1, 0, 0], [0, math.cos(lean), math.sin(lean)], [0, -math.sin(lean), math.cos(lean)]]
    )
    turned = about_level @ about_upright @ np.array([x, y, 0.0])
    away = perspective.distance * max(width, height)
    return turned[:2] * away / (away + turned[2]) + SIDE / 2


class PerspectiveTest(unittest.TestCase):
    def test_its_corners_lie_where_the_lines_of_sight_meet_the_picture(self):
        for lean, swing, distance in ((30, 0, 2.5), (0, -45, 1.5), (40, 25, 3), (-60, 60, 2)):
            with self.subTest(lean=lean, swing=swing):
                space = Perspective(lean=lean, swing=swing, distance=distance)
                plate = PicturePiece(
                    id="picture-1", sha256=OTHER, ratio=200 / 120, width=0.5, perspective=space
                )
                ink = 255 - drawn(plate)[:, :, 0].astype(float)
                corners = [projected(x, y, space) for x, y in
                           ((-100, -60), (100, -60), (100, 60), (-100, 60))]  # fmt: skip
                # Area and centre of gravity of what is drawn are those of the quadrilateral.
                area, centre = area_and_centre(corners)
                self.assertAlmostEqual(ink.sum() / 255, area, delta=0.004 * area)
                y, x = np.mgrid[:SIDE, :SIDE] + 0.5
                seen = (x * ink).sum() / ink.sum(), (y * ink).sum() / ink.sum()
                np.testing.assert_allclose(seen, centre, atol=0.1)

    def test_above_zero_its_top_leans_back_and_its_right_side_swings_back(self):
        lean = drawn(badge(perspective=Perspective(lean=50)))[:, :, 0] < 128
        rows = np.flatnonzero(lean.any(axis=1))
        self.assertLess(lean[rows[2]].sum(), lean[rows[-3]].sum())
        swing = drawn(badge(perspective=Perspective(swing=50)))[:, :, 0] < 128
        columns = np.flatnonzero(swing.any(axis=0))
        self.assertLess(swing[:, columns[-3]].sum(), swing[:, columns[2]].sum())

    def test_flat_is_absent_and_an_angle_turns_what_is_seen(self):
        flat = badge(perspective=Perspective(), angle=20)
        np.testing.assert_array_equal(drawn(flat), drawn(badge(angle=20)))
        space = Perspective(lean=50)
        upright = drawn(badge(perspective=space)).astype(int)
        turned = drawn(badge(perspective=space, angle=90)).astype(int)
        self.assertLess(np.abs(np.rot90(upright, -1) - turned).mean(), 0.2)

    def test_its_shadow_falls_the_same_way_however_it_is_turned(self):
        shadow = Shadow(x=0.1, y=0, blur=0, opacity=1, colour="#FF0000")
        image = drawn(badge(perspective=Perspective(swing=60), shadow=shadow, angle=30)).astype(int)
        red = (image[:, :, 0] > 200) & (image[:, :, 1] < 60)
        ink = image[:, :, 0] < 60
        self.assertGreater(np.argwhere(red)[:, 1].mean(), np.argwhere(ink)[:, 1].mean() + 10)

    def test_a_preview_shows_what_is_exported(self):
        piece = badge(perspective=Perspective(lean=40, swing=20), blur=0.01, text="Fox")
        whole, half = drawn(piece), drawn(piece, scale=0.5)
        shrunk = whole.reshape(SIDE // 2, 2, SIDE // 2, 2, 3).mean(axis=(1, 3))
        off = np.abs(shrunk - half)
        self.assertLessEqual(off.mean(), 1.5)
        self.assertLessEqual(np.percentile(off, 99), 8)

    def test_the_screen_is_told_of_its_own_box(self):
        finish = finish_of(pieces=(badge(perspective=Perspective(lean=40)),))
        (laid,) = layout(scene_of(finish, sources_of(WHITE))).pieces
        self.assertEqual((laid.width, laid.height), (200, 120))


class PulledTest(unittest.TestCase):
    def scene(self, **fields):
        return scene_of(finish_of(pieces=(badge(**fields),), export=PNG), sources_of(WHITE))

    def corners(self, scene):
        return [(corner.x, corner.y) for corner in layout(scene).pieces[0].corners]

    def pulled(self, scene, corner, dx, dy):
        edit = DragCorner(id="badge-1", corner=corner, dx=dx, dy=dy)
        return scene_of(apply_edit(scene, edit).finish, scene.sources)

    def test_only_the_corner_that_is_pulled_goes_along(self):
        for fields in ({}, {"angle": 33}, {"perspective": Perspective(lean=30, swing=-20)}):
            with self.subTest(fields):
                scene = self.scene(**fields)
                before = self.corners(scene)
                after = self.corners(self.pulled(scene, 2, 17, -9))
                before[2] = before[2][0] + 17, before[2][1] - 9
                np.testing.assert_allclose(after, before, atol=0.01)

    def test_what_is_drawn_lies_between_the_corners(self):
        plate = PicturePiece(id="badge-1", sha256=OTHER, ratio=200 / 120, width=0.5)
        sources = sources_of(WHITE, others={OTHER: BLACK[:120, :200]})
        scene = scene_of(finish_of(pieces=(plate,), export=PNG), sources)
        for corner, dx, dy in ((0, -40, 15), (1, 30, 50), (3, 20, 60)):
            scene = self.pulled(scene, corner, dx, dy)
        ink = 255 - render(scene)[:, :, 0].astype(float)
        area, centre = area_and_centre(self.corners(scene))
        self.assertAlmostEqual(ink.sum() / 255, area, delta=0.003 * area)
        y, x = np.mgrid[:SIDE, :SIDE] + 0.5
        seen = (x * ink).sum() / ink.sum(), (y * ink).sum() / ink.sum()
        np.testing.assert_allclose(seen, centre, atol=0.1)

    def test_a_corner_never_crosses_the_others(self):
        scene = self.pulled(self.scene(), 0, 900, 900)
        self.assertTrue(is_convex(np.array(self.corners(scene))))
        with self.assertRaisesRegex(ValueError, "cross each other"):
            Perspective(corners=((2, 2), (0, 0), (0, 0), (0, 0)))

    def test_an_arrow_held_at_the_photo_has_only_its_ends(self):
        scene = self.scene(form="arrow", tip={"x": 0.9, "y": 0.9})
        with self.assertRaisesRegex(BadInput, "two ends"):
            self.pulled(scene, 0, 5, 5)


class TakenApartTest(unittest.TestCase):
    def test_copies_become_pieces_where_they_lie(self):
        repeat = Repeat(kind="scatter", count=6, seed=3, spread=0.6, smallest=40, near_blur=0.02,
                        turned=True)  # fmt: skip
        piece = badge(form="heart", width=0.1, height=0.1, repeat=repeat)
        scene = scene_of(finish_of(pieces=(piece,), export=PNG), sources_of(WHITE))
        before = render(scene).astype(int)
        finish = apply_edit(scene, TakeApart(id="badge-1")).finish
        self.assertEqual(len(finish.pieces), 6)
        self.assertEqual(len({one.group for one in finish.pieces}), 1)
        after = render(scene_of(finish, scene.sources)).astype(int)
        self.assertLess(np.abs(after - before).mean(), 0.1)

    def test_one_of_them_is_blurred_and_another_removed_without_losing_the_rest(self):
        piece = badge(form="heart", width=0.1, height=0.1, repeat=Repeat(count=3))
        scene = scene_of(finish_of(pieces=(piece,), export=PNG), sources_of(WHITE))
        scene = scene_of(apply_edit(scene, TakeApart(id="badge-1")).finish, scene.sources)
        before = render(scene)
        first, _, last = (one.id for one in scene.finish.pieces)
        finish = apply_edit(scene, SetPiece(ids=(first,), changes={"blur": 0.02})).finish
        scene = scene_of(finish, scene.sources)
        scene = scene_of(apply_edit(scene, RemovePieces(ids=(last,))).finish, scene.sources)
        after = render(scene)
        np.testing.assert_array_equal(after[:, 170:230], before[:, 170:230])
        self.assertTrue((after[:, 280:] == 255).all())
        self.assertFalse(np.array_equal(after[:, :120], before[:, :120]))

    def test_what_sizes_did_differently_goes_with_the_piece(self):
        piece = badge(form="heart", width=0.1, height=0.1, repeat=Repeat(count=3))
        finish = with_size(finish_of(pieces=(piece,)), overrides={"pieces": {"badge-1": {"dy": 1}}})
        scene = scene_of(finish, sources_of(WHITE))
        finish = apply_edit(scene, TakeApart(id="badge-1")).finish
        self.assertEqual(finish.sizes[0].overrides.pieces, {})

    def test_what_cannot_be_taken_apart_is_refused(self):
        for piece, others, words in (
            (badge(), (), "only once"),
            (badge(repeat=Repeat(count=60)),
             tuple(badge(id=f"badge-{number}") for number in range(2, 60)), "100 pieces"),
        ):  # fmt: skip
            scene = scene_of(finish_of(pieces=(piece, *others)), sources_of(WHITE))
            with self.assertRaisesRegex(BadInput, words):
                apply_edit(scene, TakeApart(id="badge-1"))


def area_and_centre(corners):
    """Of a polygon, by its triangles with the origin."""
    points = np.array(corners)
    following = np.roll(points, -1, axis=0)
    cross = points[:, 0] * following[:, 1] - following[:, 0] * points[:, 1]
    area = cross.sum() / 2
    return area, ((points + following) * cross[:, None]).sum(axis=0) / (6 * area)


class BlurTest(unittest.TestCase):
    def test_it_is_a_gaussian_over_linear_light(self):
        for blur in (0.005, 0.03, 0.1):
            with self.subTest(blur=blur):
                # A white half plane on black: its edge is the normal distribution.
                plate = badge(width=2, height=1, colour="#FFFFFF", blur=blur, dy=-0.25)
                ways = (SIDE * 0.75 - (np.arange(SIDE) + 0.5)) / (blur * SIDE)
                share = np.array([0.5 * (1 + math.erf(way / math.sqrt(2))) for way in ways])
                # Opacity mixes in encoded values, so what is seen is the share itself.
                seen = drawn(plate, photo=BLACK)[:, SIDE // 2, 1] / 255
                inside = ways > -3
                self.assertLess(np.abs(seen - share)[inside].max(), 0.02)

    def test_it_is_changed_and_taken_back_at_any_time(self):
        sharp = drawn(badge())
        self.assertFalse(np.array_equal(drawn(badge(blur=0.02)), sharp))
        np.testing.assert_array_equal(drawn(badge(blur=0)), sharp)

    def test_two_colours_meet_in_linear_light(self):
        plate = badge(form="circle", width=0.4, height=0.4, colour="#00FF00", stroke="#FF0000",
                      stroke_width=0.1, blur=0.02)  # fmt: skip
        image = drawn(plate, photo=BLACK)
        rim = image[SIDE // 2, SIDE // 2 : SIDE // 2 + 90].astype(int)
        # Halfway between red and green both are at 188, not at 128.
        both = rim[np.abs(rim[:, 0] - rim[:, 1]).argmin()]
        self.assertGreater(both[:2].min(), 170)


class DepthTest(unittest.TestCase):
    def test_old_scatters_lie_as_they_did(self):
        plain = copies_of(Repeat(kind="scatter", count=9, seed=4, turned=True), 100)
        deep = copies_of(Repeat(kind="scatter", count=9, seed=4, turned=True, smallest=30), 100)
        self.assertTrue(all(copy.size == 1 and copy.blur == 0 for copy in plain))
        self.assertEqual(
            {(copy.x, copy.y, copy.angle) for copy in plain},
            {(copy.x, copy.y, copy.angle) for copy in deep},
        )

    def test_nearer_ones_are_larger_more_blurred_and_over_the_others(self):
        copies = copies_of(
            Repeat(kind="scatter", count=20, seed=2, smallest=30, near_blur=0.05), 100
        )
        sizes = [copy.size for copy in copies]
        blurs = [copy.blur for copy in copies]
        self.assertEqual(sizes, sorted(sizes))
        self.assertEqual(blurs, sorted(blurs))
        self.assertTrue(0.3 <= min(sizes) < 0.5 and 0.85 < max(sizes) <= 1)
        self.assertLessEqual(max(blurs), 5)

    def test_copies_keep_off_what_is_in_focus(self):
        focus = {"point": {"x": 0.4, "y": 0.5}, "box": {"left": 0.25, "top": 0.35, "width": 0.3,
                 "height": 0.3}}  # fmt: skip
        for seed in range(1, 6):
            repeat = Repeat(kind="scatter", count=20, seed=seed, spread=0.8, keep_off=True)
            piece = badge(form="circle", width=0.05, height=0.05, repeat=repeat)
            finish = finish_of(pieces=(piece,), focus=focus, export=PNG)
            drawn = render(scene_of(finish, sources_of(WHITE)))
            self.assertTrue((drawn[140:260, 100:220] == 255).all())
            self.assertLess(drawn.min(), 60)

    def test_what_is_kept_of_another_focus_is_not_taken_for_this_one(self):
        repeat = Repeat(kind="scatter", count=12, spread=0.8, keep_off=True, lean="towards")
        piece = badge(form="heart", width=0.05, height=0.05, repeat=repeat)

        def picture(left, sources):
            box = {"left": left, "top": 0.35, "width": 0.3, "height": 0.3}
            focus = {"point": {"x": left + 0.15, "y": 0.5}, "box": box}
            return render(scene_of(finish_of(pieces=(piece,), focus=focus, export=PNG), sources))

        sources = sources_of(WHITE)
        picture(0.1, sources)
        np.testing.assert_array_equal(picture(0.6, sources), picture(0.6, sources_of(WHITE)))

    def test_copies_lean_towards_what_is_in_focus_or_away_from_it(self):
        around = Box(left=90, top=-10, width=20, height=20)
        for lean, sign in (("towards", 1), ("away", -1)):
            for kind in ("row", "ring", "scatter"):
                repeat = Repeat(kind=kind, count=7, lean=lean)
                for copy in copies_of(repeat, 100, around):
                    turn = math.radians(copy.angle)
                    top = np.array([math.sin(turn), -math.cos(turn)]) * sign
                    way = np.array([100 - copy.x, -copy.y])
                    np.testing.assert_allclose(top, way / np.linalg.norm(way), atol=1e-6)

    def test_another_seed_is_another_arrangement(self):
        first, other = (
            copies_of(Repeat(kind="scatter", smallest=50, seed=seed), 100) for seed in (1, 2)
        )
        self.assertNotEqual(first, other)

    def test_far_ones_are_sharp_and_near_ones_blurred_in_the_picture(self):
        repeat = Repeat(kind="scatter", count=6, seed=3, spread=0.9, smallest=40, near_blur=0.03)
        piece = badge(form="circle", width=0.1, height=0.1, repeat=repeat)
        image = drawn(piece)[:, :, 0].astype(float)
        copies = copies_of(repeat, SIDE)
        steepest = []
        for copy in (copies[0], copies[-1]):
            x, y = round(SIDE / 2 + copy.x), round(SIDE / 2 + copy.y)
            line = image[min(max(y, 0), SIDE - 1), max(0, x - 30) : x + 30]
            steepest.append(np.abs(np.diff(line)).max())
        self.assertGreater(steepest[0], 2 * steepest[1])
