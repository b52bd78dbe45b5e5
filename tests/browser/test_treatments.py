"""Treatments and lifts on the bench, measured in the files that are saved."""

import io
import re

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest


class TreatmentsTest(BrowserTest):
    def pick(self, name):
        with self.one_change():
            self.page.get_by_role("radio", name=name, exact=True).click()

    def summary(self):
        return self.page.locator("button[aria-controls=step-treatments]")

    def test_a_dotted_background_with_the_subject_plain(self):
        self.open_finish_of("bird-figure.jpg")
        self.step("Crop")
        with self.one_change():
            self.button("1:1", exact=True).click()
        self.step("Treatments")
        plain = self.saved_picture("Treatments")
        self.pick("Print dots")
        expect(self.summary()).to_contain_text("print raster")
        self.page.get_by_role("radio", name="all but the subject").click()
        expect(self.page.get_by_role("radio", name="all but the subject")).to_be_checked()
        expect(self.page.locator("header .state")).to_have_text(re.compile("^saved"))
        changed = np.abs(self.saved_picture("Treatments") - plain).mean(axis=2)
        rows, columns = changed.shape
        # The bird's belly is in the middle of the photo; in the corners there is none of it.
        belly = changed[rows // 2 : rows * 5 // 8, columns * 3 // 8 : columns // 2]
        corner = changed[: rows // 6, : columns // 6]
        self.assertLess(belly.mean(), 4)
        self.assertGreater(corner.mean(), 25)
        self.button("Undo").click()
        expect(self.page.get_by_role("radio", name="whole photo")).to_be_checked()
        self.button("Undo").click()  # what was found of the subject
        self.button("Undo").click()
        expect(self.summary()).to_contain_text("none")

    def test_one_is_tried_and_several_are_put_in_order(self):
        self.open_finish_of("mugs-window.jpg")
        self.step("Treatments")
        gallery = self.page.get_by_role("radiogroup", name="Ready-made treatments")
        gallery.get_by_role("radio", name="Honeycomb").hover()
        self.page.wait_for_timeout(600)
        expect(self.summary()).to_contain_text("none")
        self.pick("Honeycomb")
        self.button("Add another").click()
        self.pick("Coarse grain")
        expect(self.summary()).to_contain_text("mosaic, grain")
        with self.one_change():
            self.button("Earlier").click()
        expect(self.summary()).to_contain_text("grain, mosaic")
        with self.one_change():
            self.type_in("Strength, typed", "40")
        with self.one_change():
            self.page.get_by_label("Blend").select_option("multiply")
        with self.one_change():
            self.page.locator(".links").get_by_text("On", exact=True).click()
        expect(self.summary()).to_contain_text("mosaic")
        with self.one_change():
            self.button("Remove", exact=True).click()
        expect(self.summary()).not_to_contain_text("grain")

    def test_a_sharp_band_is_dragged_and_nudged_on_the_picture(self):
        self.open_finish_of("mugs-window.jpg")
        self.step("Treatments")
        self.pick("Sharp band")
        end = self.page.get_by_role("button", name=re.compile("^End of the sharp zone"))
        before = self.field("Sharp up to, typed").input_value()
        with self.one_change():
            end.focus()
            self.page.keyboard.press("Shift+ArrowDown")
        expect(self.field("Sharp up to, typed")).not_to_have_value(before)
        middle = self.page.get_by_role("button", name=re.compile("^Middle of the sharp zone"))
        box = middle.bounding_box()
        with self.one_change():
            self.page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
            self.page.mouse.down()
            self.page.mouse.move(box["x"] + 40, box["y"] + 90, steps=4)
            self.page.mouse.up()
        self.assertGreater(middle.bounding_box()["y"], box["y"] + 40)

    def test_a_bay_of_the_shelf_is_lifted_over_its_grey_base_and_revealed(self):
        self.open_finish_of("shelf-wide.jpg")
        self.step("Crop")
        with self.one_change():
            self.type_in("width, px", "1080")
        self.step("Treatments")
        plain = self.saved_picture("Treatments")
        self.fold("Lifts")
        with self.one_change():
            self.button("Lift a part").click()
        expect(self.summary()).to_contain_text("1 lift")
        with self.one_change():
            self.page.locator(".docket").get_by_text("Shadow", exact=True).click()
        with self.one_change():
            self.type_in("Edge, typed", "0")
        grip = self.page.get_by_role("button", name=re.compile("^End of the lift"))
        with self.one_change():
            grip.focus()
            self.page.keyboard.press("Shift+ArrowRight")
        lifted = self.saved_picture("Treatments")
        grey = np.ptp(lifted, axis=2) <= 12
        same = np.abs(lifted - plain).max(axis=2) <= 40
        rows, columns = grey.shape
        self.assertTrue(grey[:8].mean() > 0.98 and grey[-8:].mean() > 0.98)
        middle = np.s_[rows * 4 // 10 : rows * 6 // 10, columns * 4 // 10 : columns * 6 // 10]
        self.assertGreater(same[middle].mean(), 0.98)
        self.assertLess(grey[middle].mean(), 0.9)
        self.step("Export")
        self.fold("Reveal")
        with self.one_change():
            ways = self.page.get_by_role("radiogroup", name="Format of the animation")
            ways.get_by_role("radio", name="GIF").click()
        name, data = self.saved_file("Save animation")
        self.assertTrue(name.endswith("-reveal.gif"))
        image = Image.open(io.BytesIO(data))
        self.assertEqual(image.size, (1080, plain.shape[0]))
        self.assertGreater(image.n_frames, 20)
        expect(self.page.get_by_role("img", name="The animation")).to_be_visible()


class SpaceTest(BrowserTest):
    """Pieces in space, on the bench."""

    def setUp(self):
        super().setUp()
        self.open_finish_of("bowl-top.jpg")
        self.step("Text & badges")
        with self.one_change():
            self.button("Badge, arrow").click()
            self.button("Heart", exact=True).click()

    def hearts(self):
        return self.page.locator("[data-piece]")

    def test_six_hearts_in_depth_of_which_two_are_blurred_differently(self):
        self.fold("Repeat")
        with self.one_change():
            self.page.get_by_role("radio", name="scattered").click()
        for name, text in (("Count", "6"), ("Smallest", "40"), ("Near blur", "6")):
            with self.one_change():
                self.type_in(f"{name}, typed", text)
        with self.one_change():
            self.button("Take apart").click()
        expect(self.hearts()).to_have_count(6)
        rows = self.page.get_by_role("listitem").filter(has_text="Heart")
        for row, blur in ((0, "20"), (3, "12"), (0, "0")):
            rows.nth(row).click()
            self.fold("Perspective and blur")
            with self.one_change():
                self.type_in("Blur, typed", blur)
        self.button("Undo").click()
        rows.nth(0).click()
        expect(self.field("Blur, typed")).to_have_value("20")

    def test_a_corner_is_pulled_with_the_pointer_and_the_keys(self):
        self.fold("Perspective and blur")
        with self.one_change():
            self.type_in("Lean back, typed", "40")
        self.page.get_by_text("Pull the corners").click()
        knob = self.page.get_by_role("button", name="Pull the upper left corner")
        before = knob.bounding_box()
        with self.one_change():
            self.page.mouse.move(before["x"] + 13, before["y"] + 13)
            self.page.mouse.down()
            self.page.mouse.move(before["x"] - 20, before["y"] - 10, steps=4)
            self.page.mouse.up()
        self.assertLess(knob.bounding_box()["x"], before["x"] - 20)
        with self.one_change():
            knob.focus()
            self.page.keyboard.press("Shift+ArrowUp")
        with self.one_change():
            self.button("Flat").click()
        expect(self.field("Lean back, typed")).to_have_value("0")

    def test_a_badge_of_several_parts_is_centred_saved_and_put_on_again(self):
        with self.one_change():
            self.button("Badge, arrow").click()
            self.page.get_by_role("group", name="Badge to add").get_by_role(
                "button", name="Circle"
            ).click()
        with self.one_change():
            self.page.locator("[data-piece=badge-2]").press("Shift+ArrowRight")
        for row in (0, 1):
            rows = self.page.get_by_role("listitem").filter(has_text=re.compile("Heart|Circle"))
            rows.nth(row).click(modifiers=["Shift"] if row else [])
        self.fold("Position and effects")
        with self.one_change():
            self.button("Centre on each other").click()
        one, other = (piece.bounding_box() for piece in self.hearts().all())
        self.assertAlmostEqual(
            one["x"] + one["width"] / 2, other["x"] + other["width"] / 2, delta=1
        )
        self.assertAlmostEqual(
            one["y"] + one["height"] / 2, other["y"] + other["height"] / 2, delta=1
        )
        self.button("Save as a badge").click()
        self.page.get_by_label("Name of this badge").fill("Love")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_text("“Love” is saved with the badges.")).to_be_visible()
        self.button("Badge, arrow").click()
        with self.one_change():
            self.button("Love", exact=True).click()
        expect(self.hearts()).to_have_count(4)
