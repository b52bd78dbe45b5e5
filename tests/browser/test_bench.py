"""Working on the bench: pointer, keys, numbers, undo, two windows, a lost service."""

import re

from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.support import encoded, noise


class CropTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.open_finish_of("bowl-top.jpg")

    def test_the_keyboard_alone_crops(self):
        page = self.page
        page.keyboard.press("Escape")
        expect(page.get_by_role("button", name=re.compile("^Crop"))).to_have_attribute(
            "aria-expanded", "false"
        )
        page.keyboard.press("1")
        page.get_by_role("radio", name="1:1").focus()
        page.keyboard.press("Enter")
        self.type_in("width", "1500")
        self.type_in("from left", "3000/10")
        expect(self.field("from left")).to_have_value("300")
        page.get_by_role("button", name="Margin", exact=True).focus()
        page.keyboard.press("ArrowRight")
        page.keyboard.press("Shift+ArrowRight")
        page.keyboard.press("ArrowDown")
        expect(self.field("from left")).to_have_value("311")
        expect(self.field("from top")).to_have_value("1")
        # The ratio, the width, the left, and one burst of nudges.
        expect(page.locator("header .state")).to_have_text("saved · change 4")
        page.keyboard.press("Control+z")
        expect(self.field("from left")).to_have_value("300")

    def test_a_focused_grip_moves_by_the_arrow_keys(self):
        page = self.page
        page.get_by_role("radio", name="free", exact=True).click()
        page.get_by_role("button", name=re.compile("^Right edge; ")).focus()
        page.keyboard.press("Shift+ArrowLeft")
        expect(self.field("width")).to_have_value("2990")

    def test_numbers_take_commas_units_and_sums_and_keep_the_last_good_one(self):
        for typed, expected in (
            ("1500,5", "1500.5"),
            ("50 %", "1500"),
            ("2*600 px", "1200"),
            ("3000-500/2", "2750"),
        ):
            self.type_in("width", typed)
            expect(self.field("width")).to_have_value(expected)
        width = self.field("width")
        for bad in ("abc", "", "1//2", "10 kg", "-5"):
            width.fill(bad)
            expect(width).to_have_attribute("aria-invalid", "true")
            width.press("Enter")
        width.blur()
        expect(width).to_have_value("2750")

    def test_no_key_works_inside_a_field(self):
        width = self.field("width")
        width.fill("")
        width.press_sequentially("12")
        expect(width).to_have_value("12")
        expect(self.page.get_by_role("button", name=re.compile("^Crop"))).to_have_attribute(
            "aria-expanded", "true"
        )
        width.press("Escape")
        expect(width).to_have_value("3000")

    def test_hovering_a_ratio_shows_its_window_without_taking_it(self):
        page = self.page
        window = page.locator("div.window[style]")
        whole = window.bounding_box()["width"]
        page.get_by_role("radio", name="9:16").hover()
        expect(
            page.get_by_role("button", name=re.compile("Left edge, photo pixels: [1-9]"))
        ).to_be_visible()
        self.assertLess(window.bounding_box()["width"], whole * 0.6)
        page.get_by_role("heading", name="Docket").hover()
        expect(
            page.get_by_role("button", name=re.compile("Left edge, photo pixels: 0"))
        ).to_be_visible()
        expect(page.locator("header .state")).to_have_text("saved · no changes yet")

    def test_a_picture_that_takes_long_is_said_to_be_under_way_and_waited_for(self):
        page = self.page
        said = page.get_by_role("status").filter(has_text="Drawing…")
        up_to_date = page.locator(".proof-picture:not(.behind) img").first
        expect(up_to_date).to_be_visible()
        # The checks of what is there already come last.
        checks = page.locator("section", has=page.get_by_role("heading", name="Checks"))
        expect(checks.get_by_role("listitem").first).to_be_visible()
        asked = self.requests()
        with page.expect_request("**/api/bench/checks"):
            with self.held_back("**/api/bench/preview"):
                self.step("Border")
                self.type_in("All sides, typed", "40")
                expect(said).to_be_visible()
                meanwhile = set(asked)
            expect(said).to_be_hidden()
            expect(up_to_date).to_be_visible()
        self.assertIn("/bench/preview stage", meanwhile)
        self.assertEqual(meanwhile & {"/bench/preview proof", "/bench/checks"}, set())

    def test_hovering_a_border_around_the_photo_does_not_stretch_it(self):
        page = self.page
        self.step("Border")
        with self.one_change():
            page.get_by_role("radio", name="broad", exact=True).click()
        page.get_by_role("radio", name="around the photo").hover()
        picture = page.get_by_role("img", name="The finished picture, 3572 by 3572")
        expect(picture).to_be_visible()
        sides = picture.evaluate("i => [i.naturalWidth / i.naturalHeight, i.width / i.height]")
        self.assertAlmostEqual(sides[0], sides[1], delta=0.01)

    def test_escape_cancels_a_drag(self):
        page = self.page
        with self.one_change():
            page.get_by_role("radio", name="9:16").click()
        expect(self.field("width")).to_have_value("1687.5")
        before = self.field("from left").input_value()
        self.drag(self.middle(page.locator("div.window[style]")), (90, 0), drop=False)
        expect(self.field("from left")).not_to_have_value(before)
        page.keyboard.press("Escape")
        expect(self.field("from left")).to_have_value(before)
        page.mouse.up()
        expect(page.locator("header .state")).to_have_text("saved · change 1")

    def test_a_drag_in_the_dark_draws_a_new_window(self):
        page = self.page
        with self.one_change():
            page.get_by_role("radio", name="4:5").click()
        with self.one_change():
            self.type_in("width", "600")
        picture = page.get_by_role("img", name="The whole photo").bounding_box()
        with self.one_change():
            self.drag((picture["x"] + 350, picture["y"] + 350), (100, 100))
        self.assertGreater(float(self.field("from left").input_value()), 1000)
        self.assertNotEqual(self.field("width").input_value(), "600")

    def test_choosing_a_ratio_of_a_fixed_size_says_what_it_did(self):
        page = self.page
        self.use_size("Square post")
        page.get_by_role("radio", name="16:9").click()
        expect(page.get_by_text("1080 × 608 px: its shorter side")).to_be_visible()

    def test_the_readout_tells_the_pixel_under_the_pointer(self):
        page = self.page
        picture = page.get_by_role("img", name="The whole photo").bounding_box()
        page.mouse.move(picture["x"] + picture["width"] / 2, picture["y"] + picture["height"] / 2)
        expect(page.get_by_role("toolbar")).to_contain_text(
            re.compile(r"1[45]\d\d, 1[45]\d\d +#[0-9A-F]{6}")
        )

    def test_single_pixels_are_drawn_only_where_they_are_seen(self):
        page = self.page
        picture = page.get_by_role("img", name="The whole photo")
        page.keyboard.press("p")
        expect(page.get_by_role("toolbar")).to_contain_text("100 %")

        def drawn():
            return picture.evaluate("image => [image.naturalWidth, image.width]")

        # The picture of before is shown enlarged until the new one comes.
        self.wait_until(lambda: abs(drawn()[0] - drawn()[1]) <= 1)
        self.assertLess(drawn()[0], 1600)
        frame = page.get_by_role("group", name="Stage").bounding_box()
        box = picture.bounding_box()
        self.assertLessEqual(box["x"], frame["x"])
        self.assertGreaterEqual(box["x"] + box["width"], frame["x"] + frame["width"])

    def test_a_corner_is_looked_at_closely(self):
        page = self.page
        page.keyboard.press("e")
        expect(page.get_by_role("toolbar")).to_contain_text("200 %")
        page.keyboard.press("w")
        expect(page.get_by_role("button", name="Fit", exact=True)).to_have_attribute(
            "aria-pressed", "true"
        )

    def test_the_surround_is_grey_lighter_or_darker(self):
        stage = self.page.get_by_role("group", name="Stage")
        expect(stage).to_have_css("background-color", "rgb(139, 139, 137)")
        width = stage.bounding_box()["width"]
        for name, colour in (("dark", "rgb(51, 51, 51)"), ("light", "rgb(213, 213, 210)")):
            self.button(f"{name} surround").click()
            expect(stage).to_have_css("background-color", colour)
            self.assertEqual(stage.bounding_box()["width"], width)

    def test_space_and_a_drag_move_the_view_and_nothing_else(self):
        page = self.page
        picture = page.get_by_role("img", name="The whole photo")
        before = picture.bounding_box()["x"]
        page.get_by_role("heading", name="Docket").click()
        page.keyboard.down("Space")
        self.drag(self.middle(picture), (70, 20))
        page.keyboard.up("Space")
        self.assertAlmostEqual(picture.bounding_box()["x"], before + 70, delta=2)
        expect(page.locator("header .state")).to_have_text("saved · no changes yet")

    def test_zooming_does_not_edit(self):
        page = self.page
        picture = page.get_by_role("img", name="The whole photo")
        before = picture.bounding_box()["width"]
        page.mouse.move(640, 400)
        page.mouse.wheel(0, -400)
        page.wait_for_timeout(300)
        self.assertGreater(picture.bounding_box()["width"], before * 1.3)
        page.get_by_role("button", name="Fit", exact=True).click()
        self.assertAlmostEqual(picture.bounding_box()["width"], before, delta=1)
        expect(page.locator("header .state")).to_have_text("saved · no changes yet")


class SavingTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.open_finish_of("vase-grasses.jpg")

    def colour(self, name):
        self.step("Border")
        with self.one_change():
            self.button(name, exact=True).click()

    def test_undo_and_redo_work_after_a_reload(self):
        self.colour("wide")
        self.colour("black")
        self.page.reload()
        self.on_bench()
        self.page.get_by_role("button", name="Undo").click()
        expect(self.page.get_by_text("white, 5 %")).to_be_visible()
        self.page.get_by_role("button", name="Undo").click()
        expect(self.page.get_by_role("button", name=re.compile("^Border none"))).to_be_visible()
        self.page.get_by_role("button", name="Redo").click()
        expect(self.page.get_by_text("white, 5 %")).to_be_visible()

    def test_undoing_quickly_takes_back_one_change_for_each_press(self):
        page = self.page
        self.step("Border")
        for colour in ("sand", "clay", "black"):
            self.button(colour, exact=True).click()
        for _ in range(2):
            page.keyboard.press("Control+z")
        expect(self.field("Border colour, typed")).to_have_value("#D9C6A5")
        page.keyboard.press("Control+Shift+z")
        page.keyboard.press("Control+Shift+z")
        expect(self.field("Border colour, typed")).to_have_value("#000000")
        expect(page.get_by_text("changed in another window")).to_be_hidden()

    def test_undo_in_the_middle_of_a_burst_takes_back_the_burst(self):
        page = self.page
        page.get_by_role("radio", name="1:1").click()
        expect(self.field("height")).to_have_value(self.field("width").input_value())
        top = self.field("from top").input_value()
        page.get_by_role("button", name="Margin", exact=True).focus()
        for _ in range(3):
            page.keyboard.press("ArrowDown")
        page.keyboard.press("Control+z")
        expect(self.field("from top")).to_have_value(top)
        expect(page.get_by_text("changed in another window")).to_be_hidden()

    def test_switching_a_border_off_and_resetting_it(self):
        page = self.page
        self.colour("wide")
        page.get_by_role("switch", name="Border on or off").locator("..").click()
        expect(page.get_by_text("switched off")).to_be_visible()
        page.get_by_role("button", name="Reset Border").click()
        expect(page.get_by_role("button", name=re.compile("^Border none"))).to_be_visible()

    def test_numbers_typed_in_quick_succession_all_count(self):
        page = self.page
        self.step("Border")
        page.get_by_role("button", name="Set each side").click()
        for side, px in (("top", "30"), ("right", "40"), ("bottom", "200"), ("left", "50")):
            self.type_in(side, px)
        expect(
            page.get_by_text("top 1.25 %, right 1.67 %, bottom 8.33 %, left 2.08 %")
        ).to_be_visible()

    def test_switching_on_a_border_that_is_none_gives_it_a_thickness(self):
        self.page.get_by_role("switch", name="Border on or off").locator("..").click()
        expect(self.page.get_by_text("white, 2.5 % (60 px)")).to_be_visible()

    def late_window(self):
        """A second window whose change comes after one in the first."""
        other = self.page.context.new_page()
        other.goto(self.page.url)
        expect(other.get_by_role("heading", name="Docket")).to_be_visible()
        self.colour("wide")
        other.get_by_role("button", name=re.compile("^Border")).click()
        other.get_by_role("radio", name="thin", exact=True).click()
        return other

    def test_two_windows_and_the_late_one_is_kept_as_a_copy(self):
        other = self.late_window()
        expect(other.get_by_text("changed in another window")).to_be_visible()
        other.get_by_role("button", name="Keep mine as a copy").click()
        expect(other.get_by_label("Name of this finish")).to_have_value("vase-grasses (copy)")
        expect(other.get_by_text("white, 1 %")).to_be_visible()
        self.page.reload()
        expect(self.page.get_by_text("white, 5 %")).to_be_visible()

    def test_loading_the_newer(self):
        other = self.late_window()
        other.get_by_role("button", name="Load the newer one").click()
        expect(other.get_by_text("white, 5 %")).to_be_visible()

    def test_a_service_that_stops_and_comes_back_loses_nothing(self):
        page = self.page
        self.step("Border")
        self.service.stop()
        try:
            page.get_by_role("radio", name="broad", exact=True).click()
            expect(page.get_by_text("is not answering")).to_be_visible()
        finally:
            self.service.start()
        expect(page.get_by_text("is not answering")).to_be_hidden()
        expect(page.locator("header .state")).to_have_text("saved · change 1")
        page.reload()
        expect(page.get_by_text("white, 8 %")).to_be_visible()

    def test_moving_a_slider_by_several_keys_is_one_change(self):
        page = self.page
        self.colour("wide")
        page.get_by_role("slider", name="Opacity").focus()
        with self.one_change():
            for _ in range(3):
                page.keyboard.press("ArrowLeft")
        expect(page.get_by_text("97 % opaque")).to_be_visible()

    def test_a_full_disk_is_said_and_the_work_saved_when_there_is_room(self):
        page = self.page
        self.step("Border")
        problem = '{"title": "StorageFull", "status": 507, "detail": "The disk is full."}'
        full = {"status": 507, "content_type": "application/problem+json", "body": problem}
        saves = re.compile("/api/finishes/[0-9a-f]{16}$")
        page.route(saves, lambda route: route.fulfill(**full))
        page.get_by_role("radio", name="broad", exact=True).click()
        expect(page.get_by_text("The disk is full. Your work is kept")).to_be_visible()
        page.unroute(saves)
        expect(page.get_by_text("The disk is full. Your work is kept")).to_be_hidden()
        page.reload()
        expect(page.get_by_text("white, 8 %")).to_be_visible()

    def test_the_picture_is_copied_to_the_clipboard(self):
        page = self.page
        page.context.grant_permissions(["clipboard-read", "clipboard-write"])
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("button", name="Copy", exact=True).click()
        expect(page.get_by_text("The picture is on the clipboard")).to_be_visible()
        sides = page.evaluate(
            """async () => {
                const [item] = await navigator.clipboard.read();
                const image = await createImageBitmap(await item.getType('image/png'));
                return [image.width, image.height];
            }"""
        )
        self.assertEqual(sides, [2400, 3000])

    def test_a_cap_that_cannot_be_met_is_said_with_a_way_out(self):
        page = self.page
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("radio", name="at most").click()
        self.type_in("At most, kilobytes", "25")
        expect(page.get_by_text("Even at quality 40")).to_be_visible()
        page.get_by_role("button", name=re.compile("px would do")).click()
        expect(page.get_by_text(re.compile("quality .* is light enough"))).to_be_visible()

    def test_odd_names_are_kept(self):
        name = self.page.get_by_label("Name of this finish")
        name.fill("Vase / 🏺 <b>")
        with self.one_change():
            name.press("Enter")
        self.page.reload()
        expect(name).to_have_value("Vase / 🏺 <b>")


class AccessTest(BrowserTest):
    def test_the_keys_table_opens_with_a_question_mark(self):
        self.page.keyboard.press("?")
        expect(self.page.get_by_role("dialog")).to_contain_text("Nudge the window")

    def test_a_long_shelf_scrolls(self):
        page = self.page
        page.set_viewport_size({"width": 1024, "height": 400})
        self.bring_data(*((f"{n}.png", encoded(noise(50 + n, 40))) for n in range(5)))
        last = page.get_by_role("list", name="Photos").get_by_role("listitem").last
        last.scroll_into_view_if_needed()
        box = last.bounding_box()
        self.assertLessEqual(box["y"] + box["height"], 401)
