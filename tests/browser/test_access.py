"""The screen without a mouse, with a finger, for who wants it calm, and for the first time."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import expect

from tests.browser.base import BrowserTest, Service


class KeyboardTest(BrowserTest):
    def tab_to(self, role, name):
        """Go on with the Tab key until this has the focus, which it must within 60 stops."""
        wanted = self.page.get_by_role(role, name=name).first
        for _ in range(60):
            if wanted.evaluate("(element) => element === document.activeElement"):
                return
            self.page.keyboard.press("Tab")
        self.fail(f"{role} {name} is not reached by the Tab key")

    def take(self, name, key, *, starting_at):
        """Take a choice two places from the one that is chosen."""
        self.tab_to("radio", starting_at)
        self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("ArrowRight")
        with self.one_change():
            self.page.keyboard.press(key)
        expect(self.page.get_by_role("radio", name=name)).to_be_checked()

    def test_a_first_photo_is_cropped_bordered_and_saved_with_keys_alone(self):
        page = self.page
        with page.expect_file_chooser() as chooser:
            self.tab_to("button", "Choose from this computer")
            page.keyboard.press("Enter")
        chooser.value.set_files("demo/photos/bowl-top.jpg")
        self.on_bench()
        self.take("1:1", "Enter", starting_at="free")
        page.keyboard.press("6")
        self.take("medium", "Space", starting_at="none")
        page.keyboard.press("9")
        save = page.get_by_role("button", name="Save this size")
        expect(save).to_be_enabled()
        self.tab_to("button", "Save this size")
        with page.expect_download() as download:
            page.keyboard.press("Enter")
        self.assertRegex(download.value.suggested_filename, r"\.jpg$")

    def test_a_group_is_one_stop_and_its_arrows_only_try_out(self):
        page = self.page
        self.open_finish_of("bowl-top.jpg")
        self.step("Border")
        thickness = page.get_by_role("radiogroup", name="Thickness")
        thickness.get_by_role("radio", name="none").focus()
        picture = page.get_by_role("img", name="The finished picture")
        shown = picture.get_attribute("src")
        changes = self.changes()
        page.keyboard.press("ArrowRight")
        expect(thickness.get_by_role("radio", name="thin")).to_be_focused()
        expect(picture).not_to_have_attribute("src", shown)
        expect(thickness.get_by_role("radio", name="none")).to_be_checked()
        page.keyboard.press("Tab")
        expect(thickness.locator(":focus")).to_have_count(0)
        self.assertEqual(self.changes(), changes)
        page.keyboard.press("Shift+Tab")
        expect(thickness.get_by_role("radio", name="none")).to_be_focused()
        self.assertEqual(thickness.locator("[tabindex='0']").count(), 1)

    def test_fonts_are_walked_looked_for_and_left_by_keys(self):
        page = self.page
        self.open_finish_of("bowl-top.jpg")
        self.step("Text & badges")
        self.button("Price", exact=True).click()
        expect(page.get_by_label("Words of the text")).to_be_focused()
        page.keyboard.type("12")
        page.keyboard.press("Escape")
        self.button(re.compile("^Font: ")).focus()
        page.keyboard.press("Enter")
        fonts = page.get_by_role("listbox", name="Fonts")
        expect(fonts).to_be_focused()
        page.keyboard.type("zi")
        expect(fonts.locator("[data-active=true]")).to_have_attribute(
            "aria-label", re.compile("^Zilla Slab")
        )
        page.keyboard.press("Home")
        first = fonts.get_by_role("option").first.get_attribute("id")
        expect(fonts).to_have_attribute("aria-activedescendant", first)
        page.keyboard.press("Escape")
        expect(fonts).to_be_hidden()
        expect(self.button(re.compile("^Font: "))).to_be_focused()

    def test_keys_of_a_single_letter_are_switched_off(self):
        page = self.page
        self.open_finish_of("bowl-top.jpg")
        self.step("Crop")
        page.keyboard.press("?")
        page.get_by_role("switch", name="Keys of a single letter").locator("..").click()
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_be_hidden()
        page.keyboard.press("6")
        page.wait_for_timeout(200)
        crop = page.locator("button[aria-controls=step-crop]")
        expect(crop).to_have_attribute("aria-expanded", "true")
        page.keyboard.press("Escape")
        expect(crop).to_have_attribute("aria-expanded", "false")

    def test_a_new_warning_is_told_and_only_that(self):
        page = self.page
        self.open_finish_of("bird-figure.jpg")
        told = page.get_by_role("status").filter(has_text="warning")
        expect(page.get_by_text("Sharp:")).to_be_visible()
        self.use_size("Tall post")
        self.step("Tone")
        with self.one_change():
            self.type_in("Exposure, typed", "4")
        # At one look, since what is told goes after a while.
        expect(told).to_have_text(re.compile(r"^(?!.*Sharp).*clips detail", re.DOTALL))

    def test_a_notice_is_closed_by_keys_and_one_goes_on_where_one_was(self):
        page = self.page
        self.open_finish_of("bird-figure.jpg")
        with self.one_change():
            self.type_in("from left", "40")
        self.step("Cut-out")
        self.button("Draw a box").click()
        self.drag(self.middle(page.locator(".stage img.picture")), (0, 40))
        notice = page.get_by_role("alert").filter(has_text="To draw a box")
        expect(notice).to_be_visible()
        self.button("Undo", exact=True).focus()
        cross = notice.get_by_role("button", name="Close")
        for _ in range(200):
            page.keyboard.press("Tab")
            if cross.evaluate("(cross) => cross === document.activeElement"):
                break
        expect(cross).to_be_focused()
        page.keyboard.press("Enter")
        expect(notice).to_be_hidden()
        self.assertNotEqual(page.evaluate("document.activeElement.tagName"), "BODY")


class CalmTest(BrowserTest):
    def test_nothing_moves_for_who_asks_for_that(self):
        page = self.page = self.new_page(reduced_motion="reduce")
        page.goto(self.service.url)
        self.open_finish_of("bowl-top.jpg")
        self.step("Text & badges")
        self.button("Price", exact=True).click()
        expect(page.locator(".writing line").first).to_have_css("animation-name", "none")
        moving = page.evaluate(
            """() => document.getAnimations().filter((one) => one.playState === 'running'
                && one.effect.getComputedTiming().duration > 1).length"""
        )
        self.assertEqual(moving, 0)


class TouchTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.page = self.new_page(
            viewport={"width": 1024, "height": 768}, has_touch=True, is_mobile=True
        )
        self.page.goto(self.service.url)
        self.cdp = self.page.context.new_cdp_session(self.page)
        self.open_finish_of("mugs-window.jpg")

    def touch(self, kind, *places):
        points = [{"x": x, "y": y, "id": number} for number, (x, y) in enumerate(places)]
        self.cdp.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    def picture(self):
        return self.page.locator(".stage img.picture").bounding_box()

    def test_two_fingers_zoom_and_move_the_view_and_edit_nothing(self):
        self.page.wait_for_timeout(500)
        before, changes = self.picture(), self.changes()
        x, y = before["x"] + before["width"] / 2, before["y"] + before["height"] / 2
        self.touch("touchStart", (x - 40, y))
        self.touch("touchMove", (x - 45, y))
        self.touch("touchStart", (x - 45, y), (x + 40, y))
        for step in range(1, 6):
            self.touch(
                "touchMove", (x - 45 - 8 * step, y + 4 * step), (x + 40 + 8 * step, y + 4 * step)
            )
        self.touch("touchEnd")
        after = self.picture()
        self.assertGreater(after["width"], 1.6 * before["width"])
        middle = after["y"] + after["height"] / 2
        self.assertGreater(middle, y + 5)
        self.page.wait_for_timeout(500)
        self.assertEqual(self.changes(), changes)

    def test_grips_take_a_finger(self):
        grip = self.page.get_by_role("button", name=re.compile("^Bottom right corner"))
        box = grip.bounding_box()
        # 20 px off its middle is still the grip, though it looks smaller.
        x, y = box["x"] + box["width"] / 2 + 20, box["y"] + box["height"] / 2 + 20
        self.assertLess(box["width"], 40)
        hit = self.page.evaluate_handle("([x, y]) => document.elementFromPoint(x, y)", [x, y])
        self.assertEqual(hit.get_attribute("aria-label"), grip.get_attribute("aria-label"))
        width = float(self.field("width").input_value())
        with self.one_change():
            self.touch("touchStart", (x, y))
            for step in range(1, 5):
                self.touch("touchMove", (x - 20 * step, y - 15 * step))
            self.touch("touchEnd")
        expect(self.field("from left")).to_have_value("0")
        expect(self.field("from top")).to_have_value("0")
        narrower = width - 80 * width / self.picture()["width"]
        self.assertAlmostEqual(
            float(self.field("width").input_value()), narrower, delta=0.03 * width
        )

    def test_what_can_be_done_with_a_finish_shows_without_hovering(self):
        self.page.get_by_role("button", name="Shelf", exact=True).click()
        card = self.page.get_by_role("listitem").filter(has_text="mugs-window").first
        expect(card.locator(".actions")).to_have_css("opacity", "1")


class ColumnTest(BrowserTest):
    def test_the_docket_s_edge_is_dragged_moved_by_keys_and_stays(self):
        page = self.page
        self.open_finish_of("bowl-top.jpg")
        docket = page.get_by_role("region", name="Docket")
        edge = page.get_by_role("separator", name="Width of the docket")
        before = docket.bounding_box()["width"]
        self.drag(self.middle(edge), (60, 0))
        self.assertAlmostEqual(docket.bounding_box()["width"], before + 60, delta=2)
        edge.focus()
        page.keyboard.press("ArrowLeft")
        narrower = docket.bounding_box()["width"]
        self.assertAlmostEqual(narrower, before + 52, delta=2)
        page.reload()
        self.on_bench()
        self.assertEqual(docket.bounding_box()["width"], narrower)
        # It never takes the stage's room.
        self.drag(self.middle(edge), (700, 0))
        self.assertGreaterEqual(
            page.get_by_role("group", name="Stage").bounding_box()["width"], 440
        )
        edge.dblclick()
        self.assertEqual(docket.bounding_box()["width"], before)


class FirstStepsTest(BrowserTest):
    @classmethod
    def setUpClass(cls):
        """A service of its own, whose shelf is empty."""
        super().setUpClass()
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.service = Service(Path(folder.name))
        cls.addClassCleanup(cls.service.stop)

    def test_the_sample_photo_is_tried_and_hints_go_for_good(self):
        page = self.page
        expect(page.get_by_role("heading", name="Your shelf is still empty")).to_be_visible()
        page.get_by_role("button", name="Write a headline").click()
        self.on_bench()
        expect(page.get_by_label("Words of the text")).to_be_focused()
        page.keyboard.type("Three mugs")
        page.keyboard.press("Escape")
        expect(page.locator("[data-piece=text-1]")).to_have_attribute("aria-label", "Three mugs")
        hint = page.get_by_role("note")
        expect(hint).to_contain_text("Double-click words")
        hint.get_by_role("button", name="Got it").click()
        expect(hint).to_be_hidden()
        self.step("Tone")
        expect(hint).to_contain_text("Suggest a tone")
        page.reload()
        self.step("Text & badges")
        expect(page.get_by_role("button", name="Headline", exact=True)).to_be_visible()
        expect(hint).to_be_hidden()

    def test_what_a_control_does_is_said_after_a_rest(self):
        page = self.page
        self.open_finish_of("bowl-top.jpg")
        self.step("Tone")
        row = page.locator(".slider-row", has_text="Exposure")
        row.locator("span").first.hover()
        tip = page.locator(".control-tip")
        expect(tip).to_contain_text("stops of light")
        docket = page.locator(".docket").bounding_box()
        self.assertGreaterEqual(tip.bounding_box()["x"], docket["x"] + docket["width"])
        slider = page.get_by_role("slider", name="Exposure", exact=True)
        expect(slider).to_have_attribute("aria-description", re.compile("stops of light"))
        page.keyboard.press("Escape")
        expect(tip).to_be_hidden()
        page.get_by_role("button", name="Split", exact=True).hover()
        expect(tip).to_contain_text("side by side. (S)")


class ShelfTest(BrowserTest):
    def test_a_card_opens_wholly_and_is_renamed_in_place(self):
        page = self.page
        self.open_finish_of("kiln-night.jpg")
        page.get_by_role("button", name="Shelf", exact=True).click()
        card = page.get_by_role("listitem").filter(has_text="kiln-night").first
        card.hover()
        card.get_by_role("button", name="Rename").click()
        field = page.get_by_label("New name of kiln-night")
        field.fill("Night firing")
        field.press("Enter")
        renamed = page.get_by_role("list", name="Finishes").get_by_text("Night firing")
        expect(renamed).to_be_visible()
        renamed.click()
        self.on_bench()
        expect(page.get_by_label("Name of this finish")).to_have_value("Night firing")
