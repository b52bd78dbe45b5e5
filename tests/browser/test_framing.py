"""Framing in the browser: shapes, several sizes, turning, trimming, grounds, many files at once."""

import io
import re
import zipfile
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.core.test_squaring import seen_at_an_angle
from tests.support import encoded, gradient, noise


class Framing(BrowserTest):
    def save(self):
        """The picture that “Save this size” downloads."""
        page = self.page
        page.get_by_role("button", name="Export…").click()
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save this size").click()
        return Image.open(io.BytesIO(Path(caught.value.path()).read_bytes()))

    def stage_box(self):
        return self.page.get_by_role("img", name="The whole photo").bounding_box()

    def at(self, x, y):
        """A place of the photo (0..1) on the page."""
        box = self.stage_box()
        return box["x"] + x * box["width"], box["y"] + y * box["height"]


def blue_middle(pixels):
    """Where, on average, the blue of the bowl's glaze is, in pixels."""
    light = pixels.astype(int)
    y, x = np.nonzero(light[:, :, 2] - light[:, :, 0] > 60)
    return x.mean(), y.mean()


class ShapeTest(Framing):
    def test_a_round_avatar_from_the_bowl_that_is_not_in_the_middle(self):
        page = self.page
        middle = blue_middle(
            np.asarray(Image.open("demo/photos/bowl-top.jpg"))[900:1700, 1300:2200]
        )
        x, y = round(1300 + middle[0]), round(900 + middle[1])
        self.open_finish_of("bowl-top.jpg")
        self.use_size("Round avatar")
        self.fold("Focus")
        page.get_by_role("button", name="Mark it").click()
        with self.one_change():
            self.drag(self.at(0.365, 0.217), (0.446 * self.stage_box()["width"],) * 2)
        with self.one_change():
            self.type_in("width", "1500")
        self.type_in("from left", f"{x}-750")
        self.type_in("from top", f"{y}-750")
        image = self.save()
        self.assertEqual((image.size, image.mode, image.format), ((400, 400), "RGBA", "PNG"))
        pixels = np.asarray(image)
        self.assertEqual([pixels[y, x, 3] for x in (0, -1) for y in (0, -1)], [0, 0, 0, 0])
        found = blue_middle(pixels[100:300, 100:300, :3])
        self.assertAlmostEqual(found[0], 100, delta=2)
        self.assertAlmostEqual(found[1], 100, delta=2)

    def test_hovering_shapes_shows_them_and_grips_change_them(self):
        page = self.page
        self.open_finish_of("bird-figure.jpg")
        self.use_size("Square post")
        self.fold("Shape")
        cut_off = page.locator("svg.dark path").nth(1)
        square = cut_off.get_attribute("d")
        page.get_by_role("radio", name="star", exact=True).hover()
        expect(cut_off).not_to_have_attribute("d", square)
        page.get_by_role("heading", name="Docket").hover()
        expect(cut_off).to_have_attribute("d", square)
        with self.one_change():
            self.drag(self.middle(page.get_by_role("button", name="Corner radius;")), (40, 40))
        radius = float(self.field("Corners, typed").input_value())
        self.assertGreater(radius, 5)
        page.get_by_role("button", name=re.compile("^Corner radius, output pixels")).click()
        page.get_by_label("Corner radius, output pixels", exact=True).fill("108")
        with self.one_change():
            page.keyboard.press("Enter")
        expect(self.field("Corners, typed")).to_have_value("10")
        with self.one_change():
            page.get_by_role("radio", name="heart", exact=True).click()
        page.get_by_role("heading", name="Docket").hover()
        with self.one_change():
            self.drag(
                self.middle(page.get_by_role("button", name="Size of the shape;")), (-60, -60)
            )
        self.assertLess(float(self.field("Scale, typed").input_value()), 95)

    def test_the_margin_is_dragged_typed_and_nudged(self):
        page = self.page
        self.open_finish_of("bird-figure.jpg")
        self.use_size("Square post")
        page.keyboard.press("Escape")
        with self.one_change():
            self.drag(self.middle(page.get_by_role("button", name="Margin; ")), (0, 40))
        tag = page.get_by_role("button", name=re.compile("^Margin, output pixels: "))
        dragged = int(tag.text_content())
        self.assertGreater(dragged, 70)
        page.get_by_role("button", name="Margin; ").focus()
        page.keyboard.press("ArrowDown")
        expect(tag).to_have_text(str(dragged + 1))
        tag.click()
        page.get_by_label("Margin, output pixels", exact=True).fill("54")
        page.keyboard.press("Enter")
        expect(tag).to_have_text("54")


class SizesTest(Framing):
    def setUp(self):
        super().setUp()
        self.open_finish_of("mugs-window.jpg")

    def test_three_sizes_follow_one_focus_and_one_goes_its_own_way(self):
        page = self.page
        self.use_size("Tall post")
        self.add_size("Square post")
        self.add_size("Wide banner")
        self.fold("Focus")
        page.get_by_role("button", name="Mark it").click()
        with self.one_change():
            page.mouse.click(*self.at(0.73, 0.6))
        expect(self.field("from left")).to_have_value("0")
        self.work_on("Square post")
        following = self.field("from left").input_value()
        self.assertGreater(float(following), 1100)
        with self.one_change():
            self.drag(self.middle(page.locator("div.window[style]")), (-90, 0))
        expect(self.proof("Square post")).to_contain_text("own crop")
        self.work_on("Tall post")
        self.assertGreater(float(self.field("from left").input_value()), 1400)
        self.work_on("Square post")
        with self.one_change():
            page.get_by_role("button", name="Follow the focus").click()
        expect(self.field("from left")).to_have_value(following)

    def test_a_border_for_one_size_only_and_following_again(self):
        page = self.page
        self.use_size("Tall post")
        self.add_size("Square post")
        self.step("Border")
        page.get_by_label("Change only this size").check()
        with self.one_change():
            page.get_by_role("radio", name="broad", exact=True).click()
        page.get_by_role("heading", name="Docket").hover()
        self.work_on("Tall post")
        expect(page.get_by_role("button", name=re.compile("^Border none"))).to_be_visible()
        self.work_on("Square post")
        expect(page.get_by_text("white, 8 %")).to_be_visible()
        page.get_by_role("button", name="use the shared setting").click()
        expect(page.get_by_role("button", name=re.compile("^Border none"))).to_be_visible()

    def menu(self, item):
        expect(self.page.get_by_role("menuitem")).to_have_count(0)  # the one before has closed
        self.page.get_by_role("button", name="This size: name").click()
        self.page.get_by_role("menuitem", name=item).click()

    def names(self):
        return self.page.get_by_role("complementary").locator("li b").all_text_contents()

    def test_the_proof_stands_in_until_the_stage_is_drawn(self):
        page = self.page
        self.use_size("Tall post")
        self.add_size("Square post")
        page.keyboard.press("Escape")
        expect(self.proof("Tall post").locator("img")).to_be_visible()
        expect(self.proof("Square post").locator("img")).to_be_visible()
        page.wait_for_timeout(500)
        proof = self.proof("Tall post").locator("img").get_attribute("src")
        picture = page.get_by_role("img", name=re.compile("The finished picture, 1080 by 1\\d+"))
        with self.held_back("**/bench/preview"):
            self.work_on("Tall post")
            expect(picture).to_have_attribute("src", proof)
            box = picture.bounding_box()
        expect(picture).not_to_have_attribute("src", proof)
        after = picture.bounding_box()
        for side, where in box.items():
            self.assertAlmostEqual(after[side], where, delta=1)

    def test_sizes_are_renamed_copied_moved_and_removed(self):
        self.use_size("Tall post")
        with self.one_change():
            self.menu("Duplicate")
        self.menu("Name and displayed width")
        dialog = self.page.get_by_role("dialog", name="This size")
        dialog.get_by_label("Name").fill("Für die Wand ☘")
        self.type_in("Displayed width, px", "320")
        dialog.get_by_role("button", name="Done").click()
        expect(self.page.locator("header .state")).to_have_text("saved · change 4")
        expect(self.proof("Für die Wand ☘")).to_be_visible()
        with self.one_change():
            self.menu("Move up")
        self.assertEqual(self.names(), ["Für die Wand ☘", "Tall post"])
        with self.one_change():
            self.menu("Remove")
        self.assertEqual(self.names(), ["Tall post"])
        self.page.keyboard.press("Control+z")
        expect(self.proof("Für die Wand ☘")).to_be_visible()

    def test_a_size_on_paper_says_its_pixels_first_and_is_kept_for_reuse(self):
        page = self.page
        page.get_by_role("button", name="+ size").click()
        dialog = page.get_by_role("dialog", name="Add a size")
        dialog.get_by_role("radio", name="mm", exact=True).click()
        self.type_in("width, mm", "50,8")
        self.type_in("height, mm", "25.4")
        self.type_in("resolution, pixels per inch", "200")
        expect(dialog).to_contain_text("That is 400 × 200 px.")
        dialog.get_by_label("Name").fill("Stall tag")
        dialog.get_by_role("button", name="Save for reuse").click()
        dialog.get_by_label("Search sizes").fill("stall")
        dialog.get_by_role("button", name="Stall tag 50.8 × 25.4 mm, 200 ppi").click()
        expect(self.proof("Stall tag")).to_contain_text("50.8 × 25.4 mm, 200 ppi")
        image = self.save()
        self.assertEqual((image.size, image.info["dpi"]), ((400, 200), (200, 200)))

    def test_a_typed_ratio_and_its_turn(self):
        self.type_in("Other ratio", "7:9,5")
        expect(self.page.get_by_role("button", name=re.compile("^Crop 7:9.5"))).to_be_visible()
        self.page.get_by_role("button", name="Swap sides").click()
        expect(self.field("Other ratio")).to_have_value("9.5:7")
        self.type_in("Other ratio", "wide")
        expect(self.field("Other ratio")).to_have_attribute("aria-invalid", "true")

    def test_all_sizes_leave_as_one_archive(self):
        page = self.page
        self.use_size("Tall post")
        self.add_size("Tall post")
        self.add_size("Round avatar")
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("button", name="Save several").click()
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save 3 sizes").click()
        expect(page.get_by_text(re.compile("^3 files, .* together"))).to_be_visible()
        self.assertEqual(caught.value.suggested_filename, "mugs-window.zip")
        archive = zipfile.ZipFile(caught.value.path())
        sides = {name: Image.open(archive.open(name)).size for name in archive.namelist()}
        self.assertEqual(
            sides,
            {
                "mugs-window-1080x1350.jpg": (1080, 1350),
                "mugs-window-1080x1350-2.jpg": (1080, 1350),
                "mugs-window-400x400.png": (400, 400),
            },
        )

    def test_proofs_as_people_see_them(self):
        page = self.page
        self.use_size("Video thumbnail")
        page.get_by_role("button", name="As seen").click()
        seen = page.get_by_role("group", name="Every size as seen")
        expect(seen.locator("img")).to_have_css("width", "320px")
        seen.get_by_role("button", name="Video thumbnail").click()
        expect(page.get_by_role("img", name="The whole photo")).to_be_visible()
        expect(self.proof("Video thumbnail").locator("img")).to_have_css(
            "width", re.compile(r"^8\d")
        )


class PhotoTest(Framing):
    """Another photo in a finish, or none."""

    def setUp(self):
        super().setUp()
        self.open_finish_of("bowl-top.jpg")
        self.page.get_by_role("button", name="Shelf", exact=True).click()
        expect(self.page.get_by_role("heading", name="Photos")).to_be_visible()
        self.open_finish_of("mugs-window.jpg")

    def docket(self):
        return self.page.get_by_role("region", name="Docket")

    def choose_photo(self, name):
        self.fold("Photo")
        self.page.get_by_role("radiogroup", name="Photo to put in").get_by_role(
            "radio", name=name
        ).click()
        expect(self.docket()).to_contain_text(name)

    def test_another_photo_takes_the_place_and_undo_brings_the_old_one_back(self):
        page = self.page
        self.use_size("Square post")
        self.step("Border")
        with self.one_change():
            self.type_in("All sides, typed", "30")
        self.step("Crop")
        with self.one_change():
            self.type_in("from left", "40")
        before = self.saved_picture("Crop")
        with self.one_change():
            self.choose_photo("bowl-top.jpg")
        expect(page.get_by_text("Gone with the old photo: 1 crop of your own.")).to_be_visible()
        expect(self.docket().get_by_text("3000 × 3000")).to_be_visible()
        after = self.saved_picture("Crop")
        np.testing.assert_array_equal(
            after[:24], before[:24]
        )  # the border, whose last row shares JPEG blocks
        self.assertGreater(np.abs(after - before).mean(), 20)
        page.get_by_role("button", name="Undo").click()
        expect(self.docket().get_by_text("3600 × 2400")).to_be_visible()
        expect(self.field("from left")).to_have_value("40")
        np.testing.assert_array_equal(self.saved_picture("Crop"), before)

    def test_a_new_finish_like_this_one_is_started_with_another_photo(self):
        page = self.page
        self.use_size("Square post")
        old = page.url
        self.fold("Photo")
        page.get_by_role("radio", name="a new one like it").click()
        self.choose_photo("bowl-top.jpg")
        expect(page.locator("header .state")).to_have_text("saved · no changes yet")
        expect(self.field("Name of this finish")).to_have_value("bowl-top")
        self.assertNotEqual(page.url, old)
        expect(self.proof("Square post")).to_be_visible()
        page.goto(old)
        self.on_bench()
        expect(self.docket().get_by_text("3600 × 2400")).to_be_visible()

    def test_words_on_a_plain_ground_without_a_photo_which_may_come_later(self):
        page = self.page
        page.get_by_role("button", name="Shelf", exact=True).click()
        page.get_by_role("button", name="Start from a plain ground").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_role("button", name="As cropped")).to_have_count(0)
        dialog.get_by_role("button", name=re.compile("^Wide banner")).click()
        expect(self.proof("Wide banner")).to_be_visible()
        for step in ("Spots", "Tone", "Cut-out", "Treatments"):
            line = self.docket().get_by_role("button", name=re.compile(f"^{step} needs a photo"))
            expect(line).to_be_disabled()
        page.keyboard.press("3")  # the number of Tone
        expect(self.docket().get_by_role("button", name="Suggest a tone")).to_have_count(0)
        self.step("Crop")
        self.fold("Backgrounds")
        with self.one_change():
            page.get_by_role("radiogroup", name="Backdrop").get_by_role(
                "radio", name="gradient"
            ).click()
        self.step("Text & badges")
        with self.one_change():
            self.button("Headline", exact=True).click()
        plain = self.saved_picture("Crop")
        self.assertEqual(plain.shape, (500, 1500, 3))
        with self.one_change():
            self.choose_photo("bowl-top.jpg")
        expect(self.field("from left")).to_be_visible()
        filled = self.saved_picture("Crop")
        self.assertGreater(np.abs(filled - plain).mean(), 20)


class TurnTest(Framing):
    def test_a_line_drawn_along_the_horizon_levels_it(self):
        page = self.page
        self.open_finish_of("field-noon.jpg")
        self.fold("Turn")
        page.get_by_role("button", name="Level line").click()
        with self.one_change():
            self.drag(self.at(0.1, 0.5), (300, 15))
        # atan(15 / 300) is 2.86 degrees.
        expect(self.field("Straighten, typed")).to_have_value("-2.86")
        expect(page.get_by_text("Draw along something")).to_be_hidden()
        image = self.save()
        self.assertEqual(image.mode, "RGB")
        self.assertLess(image.size[0], 3600)

    def test_quarter_turns_and_mirrors_by_button_and_key(self):
        page = self.page
        self.open_finish_of("scan-margins.png")
        with self.one_change():
            page.keyboard.press("t")
        expect(page.get_by_role("button", name=re.compile("^Crop .*90°"))).to_be_visible()
        self.fold("Turn")
        with self.one_change():
            page.get_by_role("button", name="Mirror left and right").click()
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("radio", name="PNG").click()
        image = np.asarray(self.save())
        original = np.asarray(Image.open("demo/photos/scan-margins.png").convert("RGB"))
        np.testing.assert_array_equal(image, np.rot90(original, -1)[:, ::-1])

    def test_empty_corners_are_allowed_measured_and_mended(self):
        page = self.page
        self.open_finish_of("bird-figure.jpg")
        self.use_size("Square post")
        self.fold("Turn")
        self.type_in("Straighten, typed", "20")
        page.get_by_label("Allow empty corners").check()
        self.type_in("width", "9999")
        expect(page.get_by_text(re.compile(r"^Empty corners: [\d.]+"))).to_be_visible()
        page.get_by_role("button", name="Keep inside the photo").click()
        expect(page.get_by_text(re.compile(r"^Empty corners"))).to_be_hidden()


class TrimTest(Framing):
    def test_a_plain_margin_is_shown_and_trimmed(self):
        page = self.page
        self.open_finish_of("scan-margins.png")
        self.fold("Trim")
        expect(page.get_by_text("left 212, top 148, right 405, bottom 301 px")).to_be_visible()
        expect(page.get_by_role("img", name="The picture inside the margin")).to_be_visible()
        expect(page.locator("header .state")).to_have_text("saved · no changes yet")
        with self.one_change():
            page.get_by_role("button", name="Trim to it").click()
        for field, expected in (
            ("from left", "212"),
            ("from top", "148"),
            ("width", "1383"),
            ("height", "1151"),
        ):
            expect(self.field(field)).to_have_value(expected)

    def test_what_has_no_margin_says_so(self):
        self.open_finish_of("kiln-night.jpg")
        self.fold("Trim")
        expect(self.page.get_by_text("There is no plain margin to trim.")).to_be_visible()


class StageDragTest(Framing):
    def setUp(self):
        super().setUp()
        self.open_finish_of("shelf-wide.jpg")
        self.use_size("Square post")

    def test_with_no_step_open_a_drag_moves_the_photo_in_its_frame(self):
        page = self.page
        left = float(self.field("from left").input_value())
        page.keyboard.press("Escape")
        picture = page.get_by_role("img", name="The finished picture")
        expect(picture).to_be_visible()
        page.wait_for_timeout(500)
        with self.one_change():
            self.drag(self.middle(picture), (-40, 0))
        moved = 40 * 2250 / picture.bounding_box()["width"]
        self.step("Crop")
        found = float(self.field("from left").input_value())
        self.assertAlmostEqual(found, left + moved, delta=12)

    def test_photo_and_picture_lie_on_each_other_while_one_makes_way_for_the_other(self):
        page = self.page
        window = page.locator("div.window[style]")
        picture = page.locator(".stage img.picture")
        expect(page.get_by_role("img", name="The whole photo")).to_be_visible()
        page.wait_for_timeout(500)
        width = picture.evaluate("(picture) => picture.naturalWidth")
        page.keyboard.press("Escape")
        expect(page.get_by_role("img", name="The finished picture")).to_be_visible()
        page.wait_for_timeout(500)
        frame = picture.bounding_box()
        with self.held_back("**/bench/preview"):
            self.step("Crop")
            expect(window).to_be_visible()
            for side, where in window.bounding_box().items():
                self.assertAlmostEqual(picture.bounding_box()[side], where, delta=3)
        expect(picture).to_have_js_property("naturalWidth", width)
        whole, cut = picture.bounding_box(), window.bounding_box()
        share = whole["width"] / cut["width"]
        with self.held_back("**/bench/preview"):
            page.keyboard.press("Escape")
            expect(window).to_be_hidden()
            now = picture.bounding_box()
        self.assertAlmostEqual(now["width"], share * frame["width"], delta=6)
        self.assertAlmostEqual(
            now["x"], frame["x"] - (cut["x"] - whole["x"]) * frame["width"] / cut["width"], delta=6
        )

    def test_while_the_window_is_dragged_only_its_place_is_asked_for(self):
        window = self.page.locator("div.window[style]")
        self.assertEqual(self.asked_in_a_drag(*self.middle(window)), {"/bench/draft"})

    def test_alt_and_the_wheel_scale_the_window(self):
        page = self.page
        page.mouse.move(*self.at(0.5, 0.5))
        page.keyboard.down("Alt")
        page.mouse.wheel(0, -300)
        page.keyboard.up("Alt")
        expect(self.field("width")).not_to_have_value("2250")
        self.assertLess(float(self.field("width").input_value()), 1600)

    def test_a_drag_snaps_to_the_photos_lines_unless_ctrl_is_held(self):
        page = self.page
        with self.one_change():
            self.type_in("width", "1000")
        with self.one_change():
            self.type_in("from left", "1330")  # 3.3 px beside a third of 4000
        window = self.middle(page.locator("div.window[style]"))
        with self.one_change():
            self.drag(window, (5, 0))
        self.assertAlmostEqual(float(self.field("from left").input_value()), 1333.3, delta=0.1)
        with self.one_change():
            self.type_in("from left", "1330")
        page.keyboard.down("Control")
        with self.one_change():
            self.drag(window, (5, 0))
        page.keyboard.up("Control")
        moved = 5 * 4000 / self.stage_box()["width"]
        self.assertAlmostEqual(float(self.field("from left").input_value()), 1330 + moved, delta=1)

    def test_a_contained_photo_has_a_backdrop_picked_from_it(self):
        page = self.page
        with self.one_change():
            page.get_by_role("radio", name="show the whole photo").click()
        self.fold("Backgrounds")
        backdrop = page.get_by_role("radiogroup", name="Backdrop", exact=True)
        with self.one_change():
            backdrop.get_by_role("radio", name="colour", exact=True).click()
        # What a ground makes of the picture is seen while it is chosen.
        expect(page.get_by_role("img", name="The finished picture")).to_be_visible()
        page.get_by_role("button", name="Backdrop colour: pick").click()
        with self.one_change():
            page.mouse.click(*self.at(0.5, 0.3))
        colour = page.get_by_label("Backdrop colour, typed").input_value()
        self.assertRegex(colour, "^#[0-9A-F]{6}$")
        self.assertNotEqual(colour, "#FFFFFF")
        pixel = np.asarray(self.save().convert("RGB"))[3, 540].astype(int)
        picked = [int(colour[place : place + 2], 16) for place in (1, 3, 5)]
        self.assertLessEqual(np.abs(pixel - picked).max(), 3)


class DialogKeyTest(Framing):
    def test_escape_closes_a_dialog_and_nothing_behind_it(self):
        page = self.page
        self.open_finish_of("bird-figure.jpg")
        page.get_by_role("button", name="+ size").click()
        expect(page.get_by_role("dialog")).to_be_visible()
        page.get_by_role("heading", name="Your own size").click()  # the focus is on no field
        page.keyboard.press("n")
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_be_hidden()
        expect(page.get_by_role("button", name=re.compile("^Crop"))).to_have_attribute(
            "aria-expanded", "true"
        )


class KeyboardTest(Framing):
    def test_a_round_picture_with_a_border_by_keyboard_alone(self):
        page = self.page
        self.bring_data(("dots.png", encoded(noise(600, 500))))
        self.on_bench()

        def press(role, name):
            target = page.get_by_role(role, name=name, exact=True).first
            target.focus()
            page.keyboard.press("Enter")

        press("button", "Choose a size…")
        search = page.get_by_label("Search sizes")
        search.focus()
        page.keyboard.type("avatar")
        page.get_by_role("button", name=re.compile("^Round avatar")).last.focus()
        page.keyboard.press("Enter")
        expect(self.proof("Round avatar")).to_be_visible()
        page.keyboard.press("f")
        expect(page.locator(".focus.drawing")).to_be_attached()
        page.keyboard.press("Escape")
        expect(page.locator(".focus.drawing")).not_to_be_attached()
        page.keyboard.press("6")
        press("radio", "medium")
        expect(page.get_by_text("white, 2.5 % (10 px)")).to_be_visible()
        page.keyboard.press("9")
        expect(page.get_by_role("button", name="Save this size")).to_be_enabled()
        page.get_by_role("button", name="Save this size").focus()
        with page.expect_download() as caught:
            page.keyboard.press("Enter")
        pixels = np.asarray(Image.open(caught.value.path()))
        self.assertEqual((pixels[0, 0, 3], pixels[4, 200].tolist()), (0, [255, 255, 255, 255]))


class SquareTest(BrowserTest):
    """A card that lies askew on a table."""

    corners = np.array([(210.0, 130.0), (630.0, 190.0), (565.0, 450.0), (150.0, 350.0)])

    def test_a_card_is_squared_up_by_its_four_corners(self):
        page = self.page
        card = gradient(320, 200)
        card[60:140, 120:200] = 0
        self.bring_data(("card.png", encoded(seen_at_an_angle(card, self.corners, 800, 550))))
        self.on_bench()
        self.fold("Square up")
        page.get_by_role("button", name="Place four corners").click()
        picture = page.locator(".stage img.picture").bounding_box()
        scale = picture["width"] / 800
        for name, (x, y) in zip(
            ("Top left", "Top right", "Bottom right", "Bottom left"), self.corners, strict=True
        ):
            knob = page.get_by_role("button", name=re.compile(f"^{name} corner of what is flat"))
            start = self.middle(knob)
            wanted = picture["x"] + x * scale, picture["y"] + y * scale
            self.drag(start, (wanted[0] - start[0], wanted[1] - start[1]))
        page.get_by_label("Real ratio").fill("8:x")
        expect(page.get_by_role("button", name="Square it up")).to_be_disabled()
        page.get_by_label("Real ratio").fill("8:5")
        with self.one_change():
            page.get_by_role("button", name="Square it up").click()
        expect(page.get_by_role("button", name="Undo squaring")).to_be_visible()
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("radio", name="PNG", exact=True).click()
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save this size").click()
        shown = Image.open(caught.value.path()).convert("RGB").resize((320, 200))
        off = np.abs(np.asarray(shown).astype(int) - card)[6:-6, 6:-6]
        self.assertLess(off.mean(), 4)
        self.step("Crop")
        self.fold("Square up")
        with self.one_change():
            page.get_by_role("button", name="Undo squaring").click()
        expect(page.get_by_label("width, px", exact=True)).to_have_value("800")

    def test_corners_that_cross_are_said_and_can_be_moved_by_keys(self):
        page = self.page
        self.bring_data(("card.png", encoded(noise(400, 300))))
        self.on_bench()
        self.fold("Square up")
        page.get_by_role("button", name="Place four corners").click()
        knob = page.get_by_role("button", name=re.compile("^Top left corner of what is flat"))
        for _ in range(28):
            knob.press("Shift+ArrowRight")
        page.get_by_role("button", name="Square it up").click()
        expect(page.get_by_text("These corners cross or lie in a line")).to_be_visible()
        expect(page.get_by_role("button", name="Square it up")).to_be_visible()
        page.keyboard.press("Escape")
        expect(page.get_by_role("button", name="Place four corners")).to_be_visible()


class CoveredZoneTest(BrowserTest):
    """Words under a thumbnail's clock, and the zone dragged elsewhere."""

    def test_words_under_a_zone_are_moved_clear_and_a_zone_is_dragged(self):
        page = self.page
        self.open_finish_of("mugs-window.jpg")
        self.use_size("Video thumbnail")
        self.step("Text & badges")
        with self.one_change():
            page.get_by_role("button", name="Price", exact=True).click()
            expect(page.get_by_label("Words of the text")).to_be_focused()
            page.keyboard.press("Escape")
        self.fold("Position and effects")
        for side in ("right", "bottom"):
            with self.one_change():
                page.locator(".aligns").get_by_role("button", name=side, exact=True).click()
        check = page.get_by_text(re.compile("lies .* under the clock")).last
        expect(check).to_be_visible()
        with self.one_change():
            page.get_by_role("button", name="Move it clear").click()
        expect(check).to_be_hidden()
        self.step("Crop")
        self.fold("Covered zones")
        knob = page.get_by_role("button", name=re.compile("^Covered by the clock; the arrow"))
        with self.one_change():
            self.drag(self.middle(knob), (-160, -90))
        with self.one_change():
            page.get_by_role("button", name="Remove clock").click()
        expect(knob).to_have_count(0)
        with self.one_change():
            page.get_by_role("button", name="Add a zone").click()
        with self.one_change():
            page.get_by_label("Name of covered zone 1").fill("bar")
            page.keyboard.press("Tab")
        expect(
            page.get_by_role("button", name=re.compile("^Covered by the bar; the arrow"))
        ).to_be_visible()
