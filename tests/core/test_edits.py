"""Edits: what people ask of a finish and what it becomes, with what is said about it."""

import unittest

from lucky_margin.core.document import (
    AsCropped,
    Border,
    BorderChanges,
    Box,
    ExportChanges,
    FixedPixels,
    Focus,
    OneSide,
    Point,
    Ratio,
    Shape,
    Sides,
    Size,
    SolidColour,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.edit import (
    ChooseRatio,
    DragWindow,
    DrawWindow,
    Rename,
    ResetStep,
    SetBorder,
    SetExport,
    SetFileDetails,
    SetFocus,
    SetGround,
    SetMargin,
    SetPixels,
    SetShape,
    SetWindow,
    TypeWindow,
)
from lucky_margin.core.errors import BadDocument, NotFound, TooLarge
from lucky_margin.core.framing import frame_of
from lucky_margin.core.photos import PhotoFacts
from tests.support import finish_of

FACTS = PhotoFacts(width=3600, height=2400, file_format="JPEG", bits=8, has_alpha=False)


def edited(finish, *edits, said=False):
    result = None
    for edit in edits:
        result = apply_edit(finish, "main", edit, FACTS)
        finish = result.finish
    return (finish, result.said) if said else finish


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
            SetShape(shape=Shape(radius=0.1)),
            ResetStep(step="crop"),
        )
        self.assertEqual(window(finish), (1680, 0, 1920, 2400))
        self.assertEqual(finish.sizes[0].shape, Shape())

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
        border = SetBorder(changes=BorderChanges(colour="#000000"))
        everywhere = edited(finish, border)
        self.assertEqual(everywhere.border.colour, "#000000")
        here = edited(finish, border.model_copy(update={"only_this_size": True}))
        self.assertEqual(here.border.colour, "#FFFFFF")
        self.assertEqual(here.border_of(here.sizes[0]).colour, "#000000")
        self.assertEqual(here.border_of(here.sizes[1]).colour, "#FFFFFF")

    def test_own_ways_add_up(self):
        second = Size(id="second", name="Second", pixels=AsCropped())
        finish = finish_of()
        finish = finish.model_copy(update={"sizes": (*finish.sizes, second)})
        for changes in (BorderChanges(colour="#000000"), BorderChanges(opacity=0.5)):
            finish = edited(finish, SetBorder(changes=changes, only_this_size=True))
        own = finish.sizes[0].own.border
        self.assertEqual(
            (own.colour, own.opacity, own.given), ("#000000", 0.5, {"colour", "opacity"})
        )

    def test_the_only_size_has_no_own_ways(self):
        export = SetExport(changes=ExportChanges(format="png"), only_this_size=True)
        finish = edited(finish_of(), export)
        self.assertEqual(finish.export.format, "png")

    def test_a_reset_step_is_the_default(self):
        finish = finish_of(border=Border(thickness=Sides.all(0.1)))
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


class RefusedTest(unittest.TestCase):
    def test_values_out_of_range_are_refused_in_one_sentence(self):
        for edit in (
            SetMargin(margin=3),
            Rename(name=" "),
            SetBorder(changes=BorderChanges(colour="nope")),
            SetExport(changes=ExportChanges(quality=900)),
        ):
            with self.subTest(edit.kind), self.assertRaisesRegex(BadDocument, r"\.$"):
                edited(finish_of(), edit)

    def test_unknown_sizes_and_impossible_pixels(self):
        with self.assertRaises(NotFound):
            apply_edit(finish_of(), "other", Rename(name="x"), FACTS)
        with self.assertRaises(TooLarge):
            edited(finish_of(), SetPixels(pixels=OneSide(side="width", length=16000)))
