"""Frames on the bench: finished ones, patterns at any ratio, brushed edges among all modes."""

import re

import numpy as np
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.support import encoded


class BorderTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.open_finish_of("mugs-window.jpg")
        self.step("Border")

    def frame(self, name):
        self.fold("Frames")
        with self.one_change():
            self.page.get_by_role("radiogroup", name="Frames").get_by_role(
                "radio", name=name, exact=True
            ).click()

    def choose(self, name, group):
        with self.one_change():
            self.page.get_by_role("radiogroup", name=group, exact=True).get_by_role(
                "radio", name=name, exact=True
            ).click()

    def test_a_pattern_fits_every_ratio_without_a_bare_pixel(self):
        self.choose("pattern", "Kind")
        self.choose("checks", "Pattern")
        for colour in ("Pattern colour, typed", "Second colour of the pattern, typed"):
            with self.one_change():
                self.type_in(colour, "#FF00FF")
        self.step("Crop")
        for ratio in ("1:1", "9:16", "3:1"):
            with self.one_change():
                self.button(ratio, exact=True).click()
            picture = self.saved_picture("Border")
            thick = round(0.05 * min(picture.shape[:2]))
            edges = (picture[: thick - 2], picture[2 - thick :], picture[:, : thick - 2],
                     picture[:, 2 - thick :])  # fmt: skip
            with self.subTest(ratio):
                for edge in edges:
                    self.assertLess(np.abs(edge - (255, 0, 255)).max(), 60)
            self.step("Crop")

    def test_a_frame_is_tried_taken_kept_and_undone(self):
        page = self.page
        self.frame("Oak")
        line = page.locator("button[aria-controls=step-border]")
        expect(line).to_contain_text("moulding, mat")
        page.get_by_role("radio", name="2 mat").click()
        with self.one_change():
            self.type_in("Depth, typed", "20")
        self.button("Save this frame").click()
        page.get_by_label("Name of this frame").fill("Shop frame")
        page.keyboard.press("Enter")
        expect(page.get_by_text("“Shop frame” is saved with the frames.")).to_be_visible()
        self.frame("None")
        expect(line).to_contain_text("none")
        self.frame("Shop frame")
        expect(self.field("Depth, typed")).to_have_value("20")
        self.button("Remove “Shop frame”").click()
        expect(page.get_by_role("radio", name="Shop frame")).to_be_hidden()
        for words in ("none", "moulding, mat"):
            self.button("Undo").click()
            expect(line).to_contain_text(words)

    def test_a_brushed_edge_is_chosen_among_all_modes_with_the_keys(self):
        page = self.page
        self.choose("brushed edge", "Kind")
        self.button("Try them all").click()
        dialog = page.get_by_role("dialog")
        modes = dialog.get_by_role("radiogroup", name="Blend mode")
        expect(modes.locator("img")).to_have_count(16)
        modes.get_by_role("radio", name="normal").focus()
        page.keyboard.press("ArrowRight")
        expect(modes.get_by_role("radio", name="darken")).to_be_focused()
        with self.one_change():
            page.keyboard.press("Enter")
        expect(dialog).to_be_hidden()
        expect(page.locator(".docket").get_by_text("darken", exact=True)).to_be_visible()
        with self.one_change():
            self.button("Shuffle").click()
        for _ in range(3):
            self.button("Undo").click()
        expect(page.get_by_role("button", name=re.compile("^Border none"))).to_be_visible()

    def test_a_picture_of_a_frame_is_laid_round_the_photo(self):
        page = self.page
        picture = np.full((90, 120, 4), (200, 30, 30, 255), np.uint8)
        picture[20:70, 20:100, 3] = 0
        self.choose("pattern", "Kind")
        page.get_by_role("radio", name="own picture").click()
        with self.one_change():
            frame = {"name": "frame.png", "mimeType": "image/png", "buffer": encoded(picture)}
            page.get_by_label("A picture file").set_input_files(frame)
        expect(page.get_by_text("This picture has a window")).to_be_visible()
        with self.one_change():
            page.get_by_role("radio", name="stretch", exact=True).click()
        edge = self.saved_picture("Border")[2]
        self.assertLess(np.abs(edge - (200, 30, 30)).max(), 30)
        with self.one_change():
            page.get_by_role("radio", name="stock", exact=True).click()
        expect(page.get_by_role("radio", name="beads")).to_be_visible()

    def test_a_heart_with_a_red_border(self):
        self.step("Crop")
        self.fold("Shape")
        with self.one_change():
            self.button("heart", exact=True).click()
        self.step("Border")
        self.choose("wide", "Thickness")
        with self.one_change():
            self.type_in("Border colour, typed", "#C01020")
        line = self.page.locator("button[aria-controls=step-border]")
        expect(line).to_contain_text("#C01020")
        picture = self.saved_picture("Border")
        middle = picture[:, picture.shape[1] // 2]
        red = np.flatnonzero(np.abs(middle - (0xC0, 0x10, 0x20)).max(axis=1) < 40)
        self.assertGreater(len(red), 0.05 * min(picture.shape[:2]))

    def test_more_than_fits_is_said_in_one_sentence(self):
        page = self.page
        self.choose("mat", "Kind")
        self.button("Set each side").click()
        with self.one_change():
            self.type_in("left", "1000")
        with self.one_change():
            self.button("Add a band inside").click()
        self.button("Set each side").click()
        self.type_in("left", "500")
        expect(page.get_by_text(re.compile("the bands take more than 45%"))).to_be_visible()
        expect(self.field("left")).not_to_have_value("500")
