"""Spots in the browser: a sticker and dust are gone from the downloaded file."""

import io
import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.support import DEMO_PHOTOS

STICKER = np.s_[540:592, 532:624]
"""On the middle mug of the demo photo at 1440 pixels."""


class SpotsTest(BrowserTest):
    def setUp(self):
        super().setUp()
        photo = Image.open(DEMO_PHOTOS / "mugs-window.jpg").convert("RGB").resize((1440, 960))
        self.clean = np.asarray(photo).astype(int)
        spoilt = np.array(photo)
        spoilt[STICKER] = (250, 240, 90)
        buffer = io.BytesIO()
        Image.fromarray(spoilt).save(buffer, "PNG")
        self.bring_data(("sticker.png", buffer.getvalue()))
        self.on_bench()
        self.step("Spots")
        expect(self.page.get_by_text("Click a speck of dust")).to_be_visible()

    def at(self, x, y):
        """A place of the photo on the page."""
        box = self.page.locator(".stage img.picture").bounding_box()
        return box["x"] + x / 1440 * box["width"], box["y"] + y / 960 * box["height"]

    def exported(self):
        page = self.page
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("radio", name="PNG", exact=True).click()
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save this size").click()
        data = Path(caught.value.path()).read_bytes()
        return np.asarray(Image.open(io.BytesIO(data)).convert("RGB")).astype(int)

    def yellow(self, picture):
        return ((picture[:, :, 0] > 235) & (picture[:, :, 2] < 130)).sum()

    def test_a_price_sticker_is_removed_from_a_mug(self):
        page = self.page
        self.type_in("Brush size, typed", "64")
        with self.one_change():
            page.mouse.move(*self.at(540, 566))
            page.mouse.down()
            page.mouse.move(*self.at(618, 566), steps=6)
            page.mouse.up()
        out = self.exported()
        self.assertEqual(self.yellow(out), 0)
        self.assertLess(np.abs(out - self.clean)[STICKER].mean(), 8)
        elsewhere = np.abs(out - self.clean).max(axis=2)
        elsewhere[500:632, 492:664] = 0
        self.assertEqual(elsewhere.max(), 0)

    def test_spots_are_put_down_by_keys_shown_and_removed(self):
        page = self.page
        page.locator("body").click(position={"x": 5, "y": 400})
        page.keyboard.press(".")
        page.keyboard.press("ArrowLeft")
        with self.one_change():
            page.keyboard.press("Enter")
        with self.one_change():
            page.mouse.click(*self.at(200, 200))
        docket = page.get_by_role("region", name="Docket")
        expect(docket.get_by_text("2 filled")).to_be_visible()
        docket.get_by_role("button", name=re.compile("^Show spots")).click()
        with self.one_change():
            page.get_by_role("button", name="Remove spot 1").press("Enter")
        expect(docket.get_by_text("1 filled")).to_be_visible()
        with self.one_change():
            docket.get_by_role("button", name="remove all").click()
        self.assertGreater(self.yellow(self.exported()), 4000)
