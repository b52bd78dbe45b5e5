"""The story the application exists for, end to end."""

import hashlib
import io
import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.support import DEMO_PHOTOS


class StoryTest(BrowserTest):
    def test_a_photo_comes_in_is_cropped_framed_and_leaves_at_its_exact_pixels(self):
        self.open_finish_of("mugs-window.jpg")
        self.crop()
        self.frame()
        self.export_under_400_kb()
        self.come_back_tomorrow()

    def crop(self):
        page = self.page
        with self.one_change():
            page.get_by_role("radio", name="4:5").click()
        expect(self.field("width")).to_have_value("1920")
        with self.one_change():
            self.use_size("Tall post")
        expect(self.field("width, px")).to_have_value("1080")
        proof = page.get_by_role("complementary").locator("img")
        page.wait_for_timeout(600)  # until the proof shows the new size
        shown, before = proof.get_attribute("src"), float(self.field("from left").input_value())
        with self.one_change():
            self.drag(self.middle(page.locator("div.window[style]")), (-60, 0))
        expect(proof).not_to_have_attribute("src", shown)
        self.assertLess(float(self.field("from left").input_value()), before - 200)
        with self.one_change():
            self.drag(self.middle(page.get_by_role("button", name="Right edge; ")), (-40, 0))
        self.assertLess(float(self.field("width").input_value()), 1800)
        page.get_by_role("button", name="Left edge, photo pixels").click()
        page.get_by_label("Left edge, photo pixels", exact=True).fill("1300")
        with self.one_change():
            page.keyboard.press("Enter")
        expect(self.field("from left")).to_have_value("1300")

    def frame(self):
        page = self.page
        page.get_by_role("button", name="Keep a version").click()
        page.get_by_role("textbox", name="Name of this version").fill("Before the border")
        page.get_by_role("button", name="Keep", exact=True).click()
        expect(page.get_by_text("“Before the border” is kept")).to_be_visible()
        self.step("Border")
        changes = self.changes()
        picture = page.get_by_role("img", name="The finished picture")
        for thickness in ("thin", "medium", "wide"):
            shown = picture.get_attribute("src")
            page.get_by_role("radio", name=thickness, exact=True).hover()
            expect(picture).not_to_have_attribute("src", shown)
        self.assertEqual(self.changes(), changes)
        with self.one_change():
            page.get_by_role("radio", name="medium", exact=True).click()
        expect(page.get_by_text("(27 px)")).to_be_visible()

    def export_under_400_kb(self):
        page = self.page
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("radio", name="at most").click()
        self.type_in("At most, kilobytes", "150")
        expect(page.get_by_text(re.compile("quality .* is light enough"))).to_be_visible()
        shown = page.locator(".result b")
        expect(shown).to_have_text(re.compile(r"\d+ KB"))
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save this size").click()
        data = Path(caught.value.path()).read_bytes()
        self.assertEqual(caught.value.suggested_filename, "mugs-window-1080x1350.jpg")
        self.assertLessEqual(len(data), 150_000)
        self.assertEqual(shown.text_content(), f"{round(len(data) / 1000)} KB")
        image = Image.open(io.BytesIO(data))
        self.assertEqual((image.size, image.format), ((1080, 1350), "JPEG"))
        pixels = np.asarray(image).astype(int)
        self.assertGreater(pixels[:22].min(), 245)
        self.assertGreater(pixels[:, -22:].min(), 245)
        self.assertLess(pixels[32:-32, 32:-32].mean(), 200)

    def come_back_tomorrow(self):
        page = self.page
        page.goto(self.service.url)
        page.get_by_role("button", name="Open mugs-window").click()
        self.on_bench()
        page.locator("header .state").click()
        page.get_by_role("button", name="Open Before the border").click()
        expect(page.get_by_role("button", name=re.compile("^Border none"))).to_be_visible()
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("radio", name="PNG").click()
        expect(page.get_by_text("mugs-window-1080x1350.png")).to_be_visible()
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save this size").click()
        image = Image.open(caught.value.path())
        self.assertEqual((image.size, image.format), ((1080, 1350), "PNG"))
        self.assertLess(np.asarray(image)[:22].mean(), 240)
        page.get_by_role("button", name="Earlier exports").click()
        expect(page.get_by_role("button", name="Open that state")).to_have_count(2)
        page.get_by_role("button", name="Open that state").last.click()
        expect(page.get_by_text("(27 px)")).to_be_visible()
        self.original_untouched("mugs-window.jpg")

    def original_untouched(self, name):
        original = (DEMO_PHOTOS / name).read_bytes()
        sha256 = hashlib.sha256(original).hexdigest()
        kept = self.service.data / "originals" / sha256[:2] / sha256
        self.assertEqual(kept.read_bytes(), original)
