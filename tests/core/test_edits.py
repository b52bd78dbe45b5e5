"""Edits: what people ask of a finish and what it becomes, with what is said about it."""

import itertools
import math
import unittest

import numpy as np

from lucky_margin.core.document import (
    MAX_SIZES,
    SIZE_LIBRARY,
    AsCropped,
    Border,
    BorderChanges,
    Box,
    Export,
    ExportChanges,
    FixedPixels,
    Focus,
    LineBand,
    OneSide,
    PlainShape,
    Point,
    Printed,
    Ratio,
    Rectangle,
    Sides,
    Size,
    SolidColour,
    Turn,
    TurnChanges,
    WatermarkChanges,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.framing import (
    DragWindow,
    DrawFocus,
    DrawWindow,
    LevelLine,
    Mirror,
    SetFocus,
    SetWindow,
    TurnQuarter,
    TypeWindow,
)
from lucky_margin.core.edits.resetting import ResetStep
from lucky_margin.core.edits.shapes import DragMargin, DragShape, SetMargin, SetShape
from lucky_margin.core.edits.sizes import (
    AddSize,
    ChooseRatio,
    DuplicateSize,
    PlaceSize,
    RemoveSize,
    RenameSize,
    SetPixels,
    UseSize,
)
from lucky_margin.core.edits.steps import (
    Follow,
    Rename,
    SetBorder,
    SetExport,
    SetFileDetails,
    SetGround,
    SetTurn,
    SetWatermark,
)
from lucky_margin.core.errors import BadDocument, BadInput, NotFound, TooLarge
from lucky_margin.core.framing import frame_of
from lucky_margin.core.render import render
from lucky_margin.core.scene import Scene
from tests.support import finish_of, noise, scene_of, sources_of

PHOTO = sources_of(noise(1, 1), width=3600, height=2400)


def edited(finish, *edits, said=False):
    result = None
    for edit in edits:
        result = apply_edit(scene_of(finish, PHOTO), edit)
        finish = result.finish
    return (finish, result.message) if said else finish


def window(finish):
    box = frame_of(finish, finish.sizes[0], 3600, 2400).window
    return (box.left, box.top, box.width, box.height)


class RatioTest(unittest.TestCase):
    four_five = ChooseRatio(ratio=Ratio(width=4, height=5))

    def test_a_ratio_as_cropped_locks_the_window(self):
        finish = edited(finish_of(), self.four_five)
        self.assertEqual(window(finish), (840, 0, 1920, 2400))
        self.assertIsNone(finish.sizes[0].crop.window)

    def test_a_fixed_size_changes_its_shorter_side_and_says_so(self):
        finish, said = edited(
            finish_of(1080, 1080), ChooseRatio(ratio=Ratio(width=16, height=9)), said=True
        )
        self.assertEqual(finish.sizes[0].pixels, FixedPixels(width=1080, height=608))
        self.assertIn("1080 × 608", said)

    def test_the_same_ratio_says_nothing(self):
        _, said = edited(finish_of(1080, 1350), self.four_five, said=True)
        self.assertEqual(said, "")

    def test_freeing_a_fixed_size_keeps_what_shows_and_its_longer_side(self):
        finish, said = edited(finish_of(1080, 1350), ChooseRatio(ratio=None), said=True)
        self.assertEqual(finish.sizes[0].pixels, OneSide(side="height", length=1350))
        self.assertEqual(window(finish), (840, 0, 1920, 2400))
        self.assertIn("height stays 1350 px", said)

    def test_the_photos_own_ratio(self):
        finish = edited(finish_of(600, 600), ChooseRatio(ratio="original"))
        self.assertEqual(finish.sizes[0].pixels, FixedPixels(width=600, height=400))

    def test_an_own_window_keeps_its_centre_and_area(self):
        own = SetWindow(window=Box(left=1000, top=1000, width=400, height=400))
        finish = edited(finish_of(), own, ChooseRatio(ratio=Ratio(width=4, height=1)))
        left, top, width, height = window(finish)
        self.assertAlmostEqual(width * height, 160_000, places=3)
        self.assertEqual((left + width / 2, top + height / 2), (1200, 1200))


class WindowTest(unittest.TestCase):
    def test_a_drag_gives_the_size_its_own_window(self):
        finish = edited(finish_of(1080, 1350), DragWindow(grip="move", dx=-100.4, dy=3))
        self.assertEqual(window(finish), (740, 0, 1920, 2400))
        self.assertIsNotNone(finish.sizes[0].crop.window)

    def test_a_typed_number_that_the_photo_cannot_give_is_said(self):
        finish, said = edited(
            finish_of(1080, 1350), TypeWindow(field="from_left", value=9000), said=True
        )
        self.assertEqual(window(finish)[0], 1680)
        self.assertIn("1680", said)
        _, said = edited(finish_of(1080, 1350), TypeWindow(field="left", value=900), said=True)
        self.assertEqual(said, "")

    def test_drawing_in_the_dark_begins_a_new_window(self):
        finish = edited(finish_of(), DrawWindow(x0=10, y0=20, x1=110, y1=220))
        self.assertEqual(window(finish), (10, 20, 100, 200))

    def test_resetting_the_crop_follows_the_focus_again(self):
        focus = SetFocus(focus=Focus(point=Point(x=0.9, y=0.5)))
        finish = edited(
            finish_of(1080, 1350),
            focus,
            DragWindow(grip="move", dx=-500, dy=0),
            SetShape(shape=Rectangle(radius=0.1)),
            ResetStep(step="crop"),
        )
        self.assertEqual(window(finish), (1680, 0, 1920, 2400))
        self.assertEqual(finish.sizes[0].shape, Rectangle())

    def test_other_pixels_reframe_an_own_window(self):
        finish = edited(
            finish_of(),
            SetWindow(window=Box(left=0, top=0, width=1000, height=1000)),
            SetPixels(pixels=FixedPixels(width=1500, height=500), name="Wide banner"),
        )
        left, top, width, height = window(finish)
        self.assertAlmostEqual(width / height, 3)
        self.assertGreaterEqual(min(left, top), 0)
        self.assertEqual(finish.sizes[0].name, "Wide banner")

    def test_windows_outside_are_brought_in(self):
        finish = edited(finish_of(), SetWindow(window=Box(left=-50, top=9000, width=10, height=10)))
        self.assertEqual(window(finish), (0, 2390, 10, 10))


class StepTest(unittest.TestCase):
    def test_an_edit_goes_to_the_finish_unless_only_this_size_is_meant(self):
        second = Size(id="second", name="Second", pixels=AsCropped())
        finish = finish_of()
        finish = finish.model_copy(update={"sizes": (*finish.sizes, second)})
        black, blue = (BorderChanges(bands=(LineBand(colour=c),)) for c in ("#000000", "#112233"))
        border = SetBorder(changes=black)
        everywhere = edited(finish, border)
        self.assertEqual(everywhere.border.bands, black.bands)
        here = edited(finish, border.model_copy(update={"only_this_size": True}))
        again = edited(here, Follow(step="border"))
        self.assertEqual(again.border_of(again.sizes[0]), Border())
        # What is changed for all has to be seen in the size in hand, so its override is dropped.
        both = edited(here, SetBorder(changes=blue))
        self.assertEqual(both.border_of(both.sizes[0]).bands, blue.bands)
        self.assertEqual(here.border, Border())
        self.assertEqual(here.border_of(here.sizes[0]).bands, black.bands)
        self.assertEqual(here.border_of(here.sizes[1]), Border())

    def test_own_ways_add_up(self):
        second = Size(id="second", name="Second", pixels=AsCropped())
        finish = finish_of()
        finish = finish.model_copy(update={"sizes": (*finish.sizes, second)})
        for changes in ({"place": "across"}, {"opacity": 0.5}):
            edit = SetWatermark(changes=WatermarkChanges(**changes), only_this_size=True)
            finish = edited(finish, edit)
        own = finish.sizes[0].overrides.watermark
        self.assertEqual((own.place, own.opacity, own.given), ("across", 0.5, {"place", "opacity"}))

    def test_the_only_size_has_no_own_ways(self):
        export = SetExport(changes=ExportChanges(format="png"), only_this_size=True)
        finish = edited(finish_of(), export)
        self.assertEqual(finish.export.format, "png")

    def test_a_reset_step_is_the_default(self):
        finish = finish_of(border=Border.of(LineBand(thickness=Sides.all(0.1))))
        self.assertEqual(edited(finish, ResetStep(step="border")).border, Border())

    def test_details_change_alone(self):
        finish = edited(
            finish_of(), SetFileDetails(author="Ana"), SetFileDetails(keep_camera_data=True)
        )
        self.assertEqual((finish.export.author, finish.export.keep_camera_data), ("Ana", True))

    def test_grounds_margins_and_names(self):
        finish = edited(
            finish_of(),
            SetGround(place="outside", ground=SolidColour(colour="#123456")),
            SetMargin(margin=0.1),
            Rename(name="  New name "),
        )
        self.assertEqual(finish.outside, SolidColour(colour="#123456"))
        self.assertEqual((finish.sizes[0].margin, finish.name), (0.1, "New name"))


class SizesTest(unittest.TestCase):
    """Sizes are added, copied, moved and removed; the one in hand is always one of them."""

    plan = next(size.plan for size in SIZE_LIBRARY if size.key == "round-avatar")

    def result(self, finish, edit, size_id="main"):
        return apply_edit(Scene.of(finish, size_id, PHOTO), edit)

    def test_an_added_size_comes_with_its_shape_and_ways_and_is_in_hand(self):
        result = self.result(finish_of(), AddSize(plan=self.plan))
        size = result.finish.size(result.size_id)
        self.assertEqual(
            (size.name, size.shape.kind, size.pixels.width), ("Round avatar", "circle", 400)
        )
        self.assertFalse(result.finish.border_of(size).is_set)
        self.assertEqual(result.finish.export_of(size).format, "png")

    def test_a_copy_stands_beside_and_removing_takes_the_next_in_hand(self):
        added = self.result(finish_of(), AddSize(plan=self.plan))
        copied = self.result(added.finish, DuplicateSize(), added.size_id)
        names = [size.name for size in copied.finish.sizes]
        self.assertEqual(names, ["As cropped", "Round avatar", "Round avatar (copy)"])
        removed = self.result(copied.finish, RemoveSize(), "main")
        self.assertEqual(removed.size_id, added.size_id)
        self.assertEqual(len(removed.finish.sizes), 2)

    def test_the_last_size_stays_and_a_33rd_does_not_come(self):
        with self.assertRaisesRegex(BadInput, "at least one size"):
            self.result(finish_of(), RemoveSize())
        finish = finish_of()
        for _ in range(MAX_SIZES - 1):
            finish = self.result(finish, AddSize(plan=self.plan)).finish
        for edit in (AddSize(plan=self.plan), DuplicateSize()):
            with self.assertRaisesRegex(BadInput, "at most 32 sizes"):
                self.result(finish, edit)

    def test_names_and_order(self):
        added = self.result(finish_of(), AddSize(plan=self.plan))
        moved = self.result(added.finish, PlaceSize(place=0), added.size_id)
        self.assertEqual([s.id for s in moved.finish.sizes], [added.size_id, "main"])
        named = self.result(moved.finish, RenameSize(name=" Für die Wand "), "main")
        self.assertEqual(named.finish.size("main").name, "Für die Wand")
        with self.assertRaises(BadDocument):
            self.result(moved.finish, RenameSize(name="  "), "main")

    def test_another_size_keeps_the_window_and_takes_its_ratio(self):
        own = SetWindow(window=Box(left=1000, top=500, width=800, height=400))
        finish = edited(finish_of(), own, UseSize(plan=self.plan))
        left, top, width, height = window(finish)
        self.assertAlmostEqual(width, height)
        self.assertAlmostEqual(left + width / 2, 1400)
        self.assertAlmostEqual(top + height / 2, 700)

    def test_a_size_on_paper_keeps_its_longer_side_at_another_ratio(self):
        printed = FixedPixels.on_paper(Printed(width=150, height=100))
        finish, said = edited(
            finish_of(), SetPixels(pixels=printed), ChooseRatio(ratio=Ratio(width=1, height=1)),
            said=True,
        )  # fmt: skip
        pixels = finish.sizes[0].pixels
        self.assertEqual((pixels.printed.width, pixels.printed.height), (150, 150))
        self.assertEqual(pixels.width, pixels.height)
        self.assertIn("shorter side", said)

    def test_a_reset_crop_goes_back_to_the_shape_the_size_came_with(self):
        added = self.result(finish_of(), AddSize(plan=self.plan))
        finish, size_id = added.finish, added.size_id
        for edit in (
            SetShape(shape=PlainShape(kind="heart")),
            SetTurn(changes=TurnChanges(straighten=9)),
            ResetStep(step="crop"),
        ):
            finish = apply_edit(Scene.of(finish, size_id, PHOTO), edit).finish
        self.assertEqual(finish.size(size_id).shape, PlainShape(kind="circle"))
        self.assertFalse(finish.turn.is_set)


class TurnTest(unittest.TestCase):
    def turn(self, *edits):
        return edited(finish_of(), *edits).turn

    def test_four_quarters_and_two_mirrors_come_back(self):
        self.assertEqual(self.turn(*[TurnQuarter(way="right")] * 4), Turn())
        self.assertEqual(self.turn(TurnQuarter(way="right"), TurnQuarter(way="left")), Turn())
        for way in ("across", "down"):
            self.assertEqual(self.turn(Mirror(way=way), Mirror(way=way)), Turn())

    def test_what_is_seen_is_what_turns(self):
        """Against numpy, for any sequence of turns and mirrors as the eye sees them."""
        ways = {
            "left": (TurnQuarter(way="left"), lambda picture: np.rot90(picture)),
            "right": (TurnQuarter(way="right"), lambda picture: np.rot90(picture, -1)),
            "across": (Mirror(way="across"), lambda picture: picture[:, ::-1]),
            "down": (Mirror(way="down"), lambda picture: picture[::-1]),
        }
        photo = noise(7, 5)
        sources = sources_of(photo)
        for names in itertools.product(ways, repeat=3):
            finish, expected = finish_of(export=Export(format="png")), photo
            for name in names:
                edit, turned = ways[name]
                finish = apply_edit(scene_of(finish, sources), edit).finish
                expected = turned(expected)
            picture = render(scene_of(finish, sources))
            with self.subTest(names=names):
                np.testing.assert_array_equal(picture, expected)

    def test_a_window_keeps_its_centre_while_the_photo_turns(self):
        own = SetWindow(window=Box(left=1500, top=1000, width=300, height=200))
        finish = edited(finish_of(), own, SetTurn(changes=TurnChanges(straighten=10)))
        crop = finish.sizes[0].crop.window
        self.assertEqual((crop.centre_x, crop.centre_y), (1650, 1100))
        quarter = edited(finish_of(), own, TurnQuarter(way="right"))
        self.assertEqual(window(quarter)[2:], (200, 300))

    def test_a_line_becomes_level_or_upright_whichever_is_nearer(self):
        for line, expected in (
            ((0, 0, 100, 0), 0),
            ((0, 0, 100, 100 * math.tan(math.radians(3))), -3),
            ((100, 0, 0, -100 * math.tan(math.radians(3))), -3),
            ((0, 0, 100 * math.tan(math.radians(2)), 100), 2),
        ):
            x0, y0, x1, y1 = line
            turn = self.turn(LevelLine(x0=x0, y0=y0, x1=x1, y1=y1))
            with self.subTest(line=line):
                self.assertAlmostEqual(turn.straighten, expected, places=2)
        with self.assertRaisesRegex(BadInput, "too short"):
            self.turn(LevelLine(x0=5, y0=5, x1=5, y1=5))

    def test_only_this_size_turns_when_that_is_meant(self):
        plan = SIZE_LIBRARY[0].plan
        finish = apply_edit(Scene.of(finish_of(), "main", PHOTO), AddSize(plan=plan)).finish
        finish = edited(finish, SetTurn(changes=TurnChanges(straighten=5), only_this_size=True))
        angles = [finish.turn_of(size).straighten for size in finish.sizes]
        self.assertEqual(angles, [5, 0])
        self.assertEqual(edited(finish, Follow(step="turn")).turn_of(finish.sizes[1]), Turn())


class FocusTest(unittest.TestCase):
    def test_a_click_is_a_point_and_a_drag_a_box(self):
        point = edited(finish_of(), DrawFocus(x0=900, y0=600, x1=900, y1=600)).focus
        self.assertEqual((point.point, point.box), (Point(x=0.25, y=0.25), None))
        box = edited(finish_of(), DrawFocus(x0=1800, y0=1200, x1=900, y1=600)).focus.box
        self.assertEqual((box.left, box.top, box.width, box.height), (0.25, 0.25, 0.25, 0.25))

    def test_a_box_of_no_pixels_is_a_point(self):
        for y1 in (600, 600.4, 600 + 1e-30):
            focus = edited(finish_of(), DrawFocus(x0=900, y0=600, x1=1800, y1=y1)).focus
            self.assertIsNone(focus.box)

    def test_it_is_kept_inside_the_photo_and_found_again_when_that_is_turned(self):
        focus = edited(finish_of(), DrawFocus(x0=-500, y0=-500, x1=9000, y1=9000)).focus
        self.assertEqual((focus.box.width, focus.box.height), (1, 1))
        turned = edited(
            finish_of(), TurnQuarter(way="right"), DrawFocus(x0=100, y0=0, x1=100, y1=0)
        )
        # The turned photo's top left is the upright one's bottom left.
        self.assertAlmostEqual(turned.focus.point.y, 1 - 100 / 2400)
        self.assertAlmostEqual(turned.focus.point.x, 0)


class ShapeDragTest(unittest.TestCase):
    def dragged(self, shape, grip, dx, dy):
        finish = edited(finish_of(400, 200), SetShape(shape=shape))
        return edited(finish, DragShape(grip=grip, dx=dx, dy=dy)).sizes[0].shape

    def test_the_lower_right_grip_follows_the_pointer_and_the_upper_left_stays(self):
        shape = self.dragged(Rectangle(x=0, y=0), "scale", -200, -100)
        self.assertEqual((shape.scale, shape.x, shape.y), (0.5, 0, 0))
        circle = self.dragged(PlainShape(kind="circle"), "scale", -100, -100)
        self.assertAlmostEqual(circle.scale, 0.5)
        self.assertAlmostEqual(circle.x * (400 - 100), 100)  # its left edge, as before

    def test_a_smaller_shape_is_moved_within_the_size(self):
        shape = self.dragged(Rectangle(scale=0.5), "move", 50, 500)
        self.assertEqual((shape.x, shape.y), (0.75, 1))

    def test_the_radius_grows_inwards_up_to_half(self):
        self.assertAlmostEqual(self.dragged(Rectangle(), "radius", 20, 20).radius, 0.1)
        self.assertEqual(self.dragged(Rectangle(), "radius", 999, 999).radius, 0.5)
        with self.assertRaisesRegex(BadInput, "Only a rectangle"):
            self.dragged(PlainShape(kind="heart"), "radius", 1, 1)

    def test_the_margin_stays_between_nothing_and_its_most(self):
        for by, expected in ((20, 0.14), (-99, 0), (9999, 0.4)):
            finish = edited(finish_of(400, 200), DragMargin(by=by))
            self.assertAlmostEqual(finish.sizes[0].margin, expected)


class RefusedTest(unittest.TestCase):
    def test_values_out_of_range_are_refused_in_one_sentence(self):
        for edit in (
            SetMargin(margin=3),
            Rename(name=" "),
            SetExport(changes=ExportChanges(max_kb=0)),
            SetExport(changes=ExportChanges(quality=900)),
        ):
            with self.subTest(edit.kind), self.assertRaisesRegex(BadDocument, r"\.$"):
                edited(finish_of(), edit)

    def test_unknown_sizes_and_impossible_pixels(self):
        with self.assertRaises(NotFound):
            apply_edit(Scene.of(finish_of(), "other", PHOTO), Rename(name="x"))
        with self.assertRaises(TooLarge):
            edited(finish_of(), SetPixels(pixels=OneSide(side="width", length=16000)))
