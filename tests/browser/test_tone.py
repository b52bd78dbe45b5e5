"""Tone in the browser: three photos put right, judged by the exported pixels."""

import io
import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.support import DEMO_PHOTOS


def shrunk(image):
    """Colours of a small copy, 0..255."""
    return np.asarray(image.convert("RGB").resize((360, 240), Image.Resampling.BOX)).astype(int)


def yellow_of(part):
    """How much stronger red is than blue, on average."""
    return (part[:, :, 0] - part[:, :, 2]).mean()


class ToneBrowserTest(BrowserTest):
    """A photo put right on the bench, and what is exported of it."""

    def start(self, name):
        self.open_finish_of(name)
        self.step("Tone")
        self.fold("Shadows, highlights, haze")
        self.fold("More colour")
        self.before = shrunk(Image.open(DEMO_PHOTOS / name))

    def after(self):
        """The colours of the exported file."""
        page = self.page
        page.get_by_role("button", name="Export…").click()
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save this size").click()
        return shrunk(Image.open(io.BytesIO(Path(caught.value.path()).read_bytes())))

    def set(self, label, value):
        with self.one_change():
            self.type_in(f"{label}, typed", str(value))


class ToneTest(ToneBrowserTest):
    def test_the_hazy_field_by_proposal_and_hues(self):
        page = self.page
        self.start("field-noon.jpg")
        with self.one_change():
            page.get_by_role("button", name="Suggest").click()
        expect(page.get_by_text("Suggested:")).to_be_visible()
        expect(self.field("black point")).not_to_have_value("0")
        offered = page.get_by_role("radiogroup", name="Suggested tone")
        expect(offered.get_by_role("radio", name="as measured")).to_be_checked()
        measured = float(self.field("black point").input_value())
        with self.one_change():
            offered.get_by_role("radio", name="bold").click()
        self.assertLess(float(self.field("black point").input_value()), measured)
        self.set("Shadows", 60)
        self.set("Haze", 80)
        self.fold("Hues")
        page.get_by_role("button", name="yellow", exact=True).focus()
        self.set("Strength", 70)
        after = self.after()
        grass_before, grass = self.before[190:235, 30:200], after[190:235, 30:200]
        self.assertGreater(yellow_of(grass), yellow_of(grass_before) + 10)
        barn_before, barn = self.before[140:170, 320:350], after[140:170, 320:350]
        self.assertGreater(barn.std(), barn_before.std())

    def test_while_a_slider_is_dragged_nothing_is_asked_for_but_the_stage(self):
        page = self.page
        self.start("mugs-window.jpg")
        slider = page.get_by_role("slider", name="Exposure")
        slider.scroll_into_view_if_needed()
        asked = self.requests()
        during = self.asked_in_a_drag(*self.middle(slider))
        page.wait_for_load_state("networkidle")
        self.assertEqual(during, {"/bench/preview stage", "/bench/draft"})
        after = {"/bench/preview proof", "/bench/checks", "/bench/tone"}
        self.assertLessEqual(after, set(asked))

    def test_the_ends_are_dragged_at_the_histogram_and_moved_by_keys(self):
        page = self.page
        self.start("field-noon.jpg")
        black = page.get_by_role("slider", name="Black point", exact=True)
        black.scroll_into_view_if_needed()
        with self.one_change():
            self.drag(self.middle(black), (30, 0))
        amount = float(self.field("black point").input_value())
        self.assertLess(amount, -30)
        self.assertEqual(black.get_attribute("aria-valuenow"), f"{amount:g}")
        black.focus()
        with self.one_change():
            page.keyboard.press("Shift+ArrowRight")
        expect(self.field("black point")).to_have_value(f"{amount + 10:g}")
        white = page.get_by_role("slider", name="White point", exact=True)
        with self.one_change():
            self.drag(self.middle(white), (18, 0))  # outwards: white becomes grey
        self.assertLess(float(self.field("white point").input_value()), -20)
        after = self.after()
        self.assertLess(after.min(), self.before.min())
        self.assertLess(np.percentile(after, 99.9), 245)
        with self.one_change():
            self.step("Tone")
            white.dblclick()
        expect(self.field("white point")).to_have_value("0")

    def test_a_hue_is_dragged_round_the_ring_and_outwards(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.fold("Hues")
        orange = page.get_by_role("button", name="orange", exact=True)
        orange.scroll_into_view_if_needed()
        x, y = self.middle(orange)
        with self.one_change():
            self.drag((x, y), (22, 10))
        expect(self.field("Turn, typed")).not_to_have_value("0")
        self.assertGreater(float(self.field("Strength, typed").input_value()), 20)
        moved = self.middle(orange)
        self.assertGreater(moved[0], x + 10)
        with self.one_change():
            orange.focus()
            page.keyboard.press("ArrowLeft")
        with self.one_change():
            orange.dblclick()
        expect(self.field("Turn, typed")).to_have_value("0")
        expect(self.field("Strength, typed")).to_have_value("0")

    def test_the_dark_workshop_by_sliders_and_keys(self):
        page = self.page
        self.start("kiln-night.jpg")
        page.get_by_role("slider", name="Exposure").focus()
        with self.one_change():
            for _ in range(16):
                page.keyboard.press("ArrowRight")
        expect(self.field("Exposure, typed")).to_have_value("0.8")
        self.set("Highlights", -80)
        self.set("Warmth", 5600)
        after = self.after()
        wall_before, wall = self.before[60:180, 40:100], after[60:180, 40:100]
        self.assertGreater(wall.mean(), wall_before.mean() * 1.2)
        blue_share, before_share = (
            part[:, :, 2].mean() / part[:, :, 0].mean() for part in (wall, wall_before)
        )
        self.assertGreater(blue_share, before_share)
        self.assertLess(after[5:40, 300:350].mean(), 25)  # black stays black

    def test_the_mugs_by_a_look_and_contrast(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.fold("Look")
        picture = page.get_by_role("img", name="The finished picture")
        shown = picture.get_attribute("src")
        page.get_by_role("radio", name="Ink", exact=True).hover()
        expect(picture).not_to_have_attribute("src", shown)
        expect(page.locator("header .state")).to_have_text("saved · no changes yet")
        with self.one_change():
            page.get_by_role("radio", name="Golden", exact=True).click()
        page.get_by_role("heading", name="Docket").hover()
        self.set("Strength", 60)
        self.set("Contrast", 20)
        words = re.compile("^Tone Golden 60.%, contrast .20")
        expect(page.get_by_role("button", name=words)).to_be_visible()
        after = self.after()
        self.assertGreater(yellow_of(after), yellow_of(self.before) + 5)
        self.assertGreater(after.std(), self.before.std())

    def test_a_neutral_that_is_picked_becomes_grey(self):
        page = self.page
        self.start("mugs-window.jpg")
        page.get_by_role("button", name="pick a neutral").click()
        box = page.get_by_role("img", name="The finished picture").bounding_box()
        # The wall at the upper right, which is a warm beige.
        with self.one_change():
            page.mouse.click(box["x"] + 0.8 * box["width"], box["y"] + 0.1 * box["height"])
        expect(page.get_by_text("make that spot grey")).to_be_visible()
        wall_before, wall = self.before[18:30, 280:296], self.after()[18:30, 280:296]
        self.assertGreater(np.ptp(wall_before.mean(axis=(0, 1))), 25)
        self.assertLess(np.ptp(wall.mean(axis=(0, 1))), 8)

    def test_fading_so_that_words_can_be_written_over(self):
        self.start("shelf-wide.jpg")
        self.fold("Two-tone and fade")
        self.set("Fade", 75)
        after = self.after()
        np.testing.assert_allclose(after, self.before * 0.25 + 255 * 0.75, atol=6)

    def test_the_curve_takes_points_by_pointer_keys_and_numbers(self):
        page = self.page
        self.start("bird-figure.jpg")
        self.fold("Curve")
        curve = page.get_by_role("group", name=re.compile("^Curve"))
        box = curve.bounding_box()
        with self.one_change():
            self.drag((box["x"] + box["width"] / 2, box["y"] + box["height"] / 2), (0, -20))
        expect(curve.locator("circle")).to_have_count(3)
        self.assertGreater(float(self.field("out, %").input_value()), 54)
        curve.focus()
        with self.one_change():
            page.keyboard.press("ArrowUp")
        with self.one_change():
            self.type_in("out, %", "70")
        self.assertGreater(self.after().mean(), self.before.mean() + 15)

    def test_one_setting_a_group_and_the_step_go_back(self):
        page = self.page
        self.start("bird-figure.jpg")
        for label in ("Exposure", "Contrast", "Tint"):
            self.set(label, 1)
        with self.one_change():
            page.locator(".slider-row", has_text="Exposure").locator("span").first.dblclick()
        expect(self.field("Exposure, typed")).to_have_value("0")
        with self.one_change():
            page.get_by_role("button", name="Reset these").first.click()
        expect(self.field("Contrast, typed")).to_have_value("0")
        expect(self.field("Tint, typed")).to_have_value("1")
        page.get_by_role("switch", name="Tone on or off").locator("..").click()
        expect(page.get_by_role("button", name=re.compile("^Tone switched off"))).to_be_visible()
        page.get_by_role("button", name="Reset Tone").click()
        expect(page.get_by_role("button", name=re.compile("^Tone as taken"))).to_be_visible()

    def test_before_and_after_beside_each_other_and_clipping_marked(self):
        page = self.page
        self.start("bird-figure.jpg")
        self.set("Exposure", 2)
        page.get_by_role("heading", name="Docket").click()  # out of the field, where keys type
        page.keyboard.press("s")
        line = page.get_by_role("button", name=re.compile("^Line between before and after"))
        expect(page.get_by_role("img", name="Before", exact=True)).to_be_visible()
        start = line.bounding_box()["x"]
        self.drag(self.middle(line), (-80, 0))
        self.assertAlmostEqual(line.bounding_box()["x"], start - 80, delta=2)
        line.focus()
        page.keyboard.press("ArrowRight")
        self.assertGreater(line.bounding_box()["x"], start - 80)
        page.get_by_role("button", name="Split").click()
        expect(line).to_be_hidden()
        page.keyboard.press("c")
        expect(page.get_by_role("img", name="clipped pixels marked")).to_be_visible()
        expect(page.get_by_text(re.compile("^The tone clips detail"))).to_be_visible()
        page.get_by_role("button", name="Make it gentler").click()
        expect(page.get_by_text(re.compile("^The tone clips detail"))).to_be_hidden()


class PartsTest(ToneBrowserTest):
    """What lies on the photo, looks of one's own, and tones that travel."""

    def part(self, name):
        """The inside of the fold of this name."""
        docket = self.page.get_by_role("region", name="Docket")
        head = docket.get_by_role("button", name=re.compile(f"^{name} "))
        return docket.locator(f"[id='{head.get_attribute('aria-controls')}']")

    def set_in(self, part, label, value):
        with self.one_change():
            part.get_by_label(f"{label}, typed", exact=True).fill(str(value))
            self.page.keyboard.press("Enter")

    def test_the_sky_is_deepened_by_a_band_and_the_grass_stays(self):
        page = self.page
        self.start("field-noon.jpg")
        self.fold("Areas")
        areas = self.part("Areas")
        with self.one_change():
            areas.get_by_role("button", name="band", exact=True).click()
        self.set_in(areas, "Exposure", -1.2)
        knob = page.get_by_role("button", name=re.compile("^End of the area"))
        with self.one_change():
            self.drag(self.middle(knob), (0, -60))
        with self.one_change():
            knob.focus()
            page.keyboard.press("Shift+ArrowUp")
        after = self.after()
        self.assertLess(after[5:30].mean(), 0.75 * self.before[5:30].mean())
        np.testing.assert_allclose(after[190:], self.before[190:], atol=4)

    def test_an_area_is_seen_alone_narrowed_down_and_removed(self):
        page = self.page
        self.start("kiln-night.jpg")
        self.fold("Areas")
        areas = self.part("Areas")
        with self.one_change():
            areas.get_by_role("button", name="lightness", exact=True).click()
        areas.get_by_label("Show mask").check()
        expect(page.get_by_role("img", name="with an area marked")).to_be_visible()
        box = page.get_by_role("img", name="with an area marked").bounding_box()
        areas.get_by_role("button", name="pick from the photo").click()
        with self.one_change():
            page.mouse.click(box["x"] + 0.5 * box["width"], box["y"] + 0.5 * box["height"])
        low = float(areas.get_by_label("From, typed").input_value())
        self.assertGreater(low, 0)
        with self.one_change():
            areas.get_by_role("button", name="hue", exact=True).last.click()
        with self.one_change():
            areas.get_by_label("inverted").last.check()
        expect(areas.locator("legend")).to_have_text(["lightness", "hue"])
        with self.one_change():
            areas.get_by_role("button", name="remove area").click()
        expect(page.get_by_role("img", name="The finished picture")).to_be_visible()

    def test_the_background_loses_its_colour_and_the_subject_keeps_it(self):
        page = self.page
        self.start("bowl-top.jpg")
        self.fold("Areas")
        areas = self.part("Areas")
        areas.get_by_role("button", name="dark background").hover()
        expect(areas.locator("legend")).to_have_count(0)
        areas.get_by_role("button", name="colour on the subject only").click()
        expect(areas.locator("legend")).to_have_text(["all but the subject"])
        docket = page.get_by_role("region", name="Docket")
        expect(docket.get_by_role("switch", name=re.compile("Cut-out"))).not_to_be_checked()
        self.set_in(areas, "Feather", 20)
        after = self.after()
        self.assertLess(np.ptp(after[:10], axis=2).max(), 12)
        middle = np.s_[98:112, 205:218]
        np.testing.assert_allclose(after[middle], self.before[middle], atol=6)

    def test_a_wash_is_picked_made_richer_and_tried_in_every_mode(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.fold("Washes")
        washes = self.part("Washes")
        with self.one_change():
            washes.get_by_role("button", name="Add a wash").click()
        box = page.get_by_role("img", name="The finished picture").bounding_box()
        washes.get_by_role("button", name="Colour 1: pick from the picture").click()
        with self.one_change():
            page.mouse.click(box["x"] + 0.4 * box["width"], box["y"] + 0.6 * box["height"])
        richer = washes.get_by_label("Depth of colour, typed").first
        with self.one_change():
            richer.fill("80")
            richer.press("Enter")
        with self.one_change():
            washes.get_by_role("button", name="Add a colour").click()
        expect(washes.get_by_label("Place of colour 2, %")).to_have_value("50")
        washes.get_by_role("button", name="Try them all").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.locator("img")).to_have_count(16)
        with self.one_change():
            dialog.get_by_role("radio", name="multiply").click()
        expect(dialog).to_be_hidden()
        self.assertEqual(washes.get_by_label("Blend", exact=True).input_value(), "multiply")
        self.set_in(washes, "Extent", 40)
        after = self.after()
        middle = (slice(112, 128), slice(100, 260))
        np.testing.assert_allclose(after[middle], self.before[middle], atol=4)
        self.assertLess(after[:20].mean(), self.before[:20].mean() - 10)

    def test_a_look_of_one_s_own_is_kept_and_a_table_goes_out_and_in(self):
        page = self.page
        self.start("bird-figure.jpg")
        self.set("Exposure", -0.8)
        self.set("Black and white", 100)
        self.fold("Look")
        looks = self.part("Look")
        looks.get_by_role("button", name="Save as a look").click()
        looks.get_by_label("Name of the look").fill("Slate ☘")
        looks.get_by_role("button", name="Save", exact=True).click()
        with page.expect_download() as caught:
            looks.get_by_role("button", name="save as .cube").click()
        text = Path(caught.value.path()).read_text()
        self.assertIn("LUT_3D_SIZE 33", text)
        table = {"name": "x.cube", "mimeType": "text/plain", "buffer": text.encode()}
        looks.get_by_label("A .cube file").set_input_files(table)
        expect(looks.get_by_role("radio", name="bird-figure", exact=True)).to_be_visible()
        as_set = self.after()
        self.step("Tone")
        with self.one_change():
            page.get_by_role("button", name="Reset Tone").click()
        for name in ("Slate ☘", "bird-figure"):
            self.step("Tone")
            self.fold("Look")
            with self.one_change():
                self.part("Look").get_by_role("radio", name=name, exact=True).click()
            np.testing.assert_allclose(self.after(), as_set, atol=5)
        bad = {"name": "bad.cube", "mimeType": "text/plain", "buffer": b"nothing of the kind"}
        self.step("Tone")
        self.fold("Look")
        self.part("Look").get_by_label("A .cube file").set_input_files(bad)
        expect(page.get_by_text("has no LUT_3D_SIZE")).to_be_visible()

    def test_a_tone_is_copied_to_another_finish(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.set("Exposure", 0.5)
        self.set("Contrast", 30)
        page.get_by_role("button", name="copy this tone").click()
        expect(page.get_by_text("Tone copied")).to_be_visible()
        page.get_by_role("button", name="Shelf").click()
        self.open_finish_of("vase-grasses.jpg")
        self.step("Tone")
        with self.one_change():
            page.get_by_role("button", name="Paste tone").click()
        expect(self.field("Exposure, typed")).to_have_value("0.5")
        expect(self.field("Contrast, typed")).to_have_value("30")

    def test_keys_alone_reach_a_wash(self):
        page = self.page
        self.start("mugs-window.jpg")
        page.get_by_role("button", name=re.compile("^Washes ")).focus()
        page.keyboard.press("Enter")
        page.keyboard.press("Tab")
        with self.one_change():
            page.keyboard.press("Enter")
        start = page.get_by_role("button", name=re.compile("^Start of the wash"))
        before = start.bounding_box()
        start.focus()
        with self.one_change():
            page.keyboard.press("Shift+ArrowDown")
        self.assertGreater(start.bounding_box()["y"], before["y"])
