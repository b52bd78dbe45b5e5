"""The cut-out in the browser, by pointer and by keyboard, judged by the exported pixels."""

import io
import re
import zipfile
from pathlib import Path

import cv2
import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.truth.photos import FOLDER, true_photo


class CutOutBrowserTest(BrowserTest):
    def start(self, name="bird-figure.jpg", size=None):
        self.open_finish_of(name)
        if size:
            self.use_size(size)
        self.step("Cut-out")

    def saved(self):
        expect(self.page.locator("header .state")).to_have_text(re.compile("^saved"))

    def picture(self):
        return self.page.locator(".stage img.picture")

    def at(self, x, y):
        """A place of the picture (0..1) on the page."""
        box = self.picture().bounding_box()
        return box["x"] + x * box["width"], box["y"] + y * box["height"]

    def draw(self, *places):
        """Press at the first place, and draw through the others."""
        mouse = self.page.mouse
        mouse.move(*self.at(*places[0]))
        mouse.down()
        for place in places[1:]:
            mouse.move(*self.at(*place), steps=6)
        mouse.up()

    def box(self, left, top, right, bottom, which="Draw a box"):
        self.button(which).click()
        expect(self.page.get_by_alt_text(re.compile("^Before"))).to_be_visible()
        with self.one_change():
            self.draw((left, top), (right, bottom))
        expect(self.page.get_by_text("View")).to_be_visible()

    def exported(self, image_format="PNG"):
        page = self.page
        self.button("Export…").click()
        self.button(image_format, exact=True).click()
        self.saved()
        with page.expect_download() as caught:
            self.button("Save this size").click()
        picture = np.asarray(Image.open(io.BytesIO(Path(caught.value.path()).read_bytes())))
        page.keyboard.press("Escape")
        return picture

    def strokes(self):
        return self.page.get_by_role("button", name=re.compile("^Show strokes"))


class FindingTest(CutOutBrowserTest):
    def test_a_plant_in_a_box_becomes_a_transparent_file_that_is_true(self):
        truth = true_photo("leafy-plant")
        data = (FOLDER / "leafy-plant.jpg").read_bytes()
        self.bring_data(("leafy-plant.jpg", data))
        self.on_bench()
        self.step("Cut-out")
        box = truth.box(2)
        self.box(box.left, box.top, box.right, box.bottom)
        picture = self.exported()
        self.assertEqual(picture.shape, (*truth.alpha.shape, 4))
        off = np.abs(picture[:, :, 3] / 255 - truth.alpha)
        self.assertLess(off.mean(), 0.02)
        solid = (truth.alpha > 0.99) & (off < 0.01)
        self.assertGreater(solid.mean(), 0.8 * (truth.alpha > 0.99).mean())
        apart = np.abs(picture[:, :, :3].astype(int) - truth.photo)[solid]
        self.assertLess(apart.mean(), 1)

    def test_it_is_found_without_a_box_switched_off_and_on_again(self):
        page = self.page
        self.start("bowl-top.jpg")
        with self.one_change():
            self.button("Find the subject").click()
        expect(page.get_by_text("View")).to_be_visible()
        with self.one_change():
            page.get_by_role("switch", name="Cut-out on or off").locator("..").click()
        expect(page.get_by_text("View")).to_be_hidden()
        with self.one_change():
            page.get_by_role("switch", name="Cut-out on or off").locator("..").click()
        expect(page.get_by_text("View")).to_be_visible()

    def test_long_finding_leaves_the_bench_usable_and_can_be_called_off(self):
        page = self.page
        self.start("bowl-top.jpg")
        running = {"id": "a1" * 16, "news": 1, "state": "running", "progress": 0.3}
        waiting, cancelled = [], []

        def start(route):
            route.fulfill(json=running | {"result": None, "problem": None})

        def follow(route):
            if route.request.method == "DELETE":
                cancelled.append(route)
                return route.fulfill(status=204)
            return waiting.append(route)  # answered later, or never

        page.route("**/api/bench/subject", start)
        page.route("**/api/jobs/*", follow)
        before = self.changes()
        self.button("Find the subject").click()
        expect(page.get_by_role("progressbar")).to_have_attribute("aria-valuenow", "30")
        self.step("Border")
        with self.one_change():
            self.type_in("All sides, typed", "12")
        self.step("Cut-out")
        self.button("Cancel").click()
        self.wait_until(lambda: len(cancelled) == 1)
        expect(page.get_by_role("progressbar")).to_be_hidden()
        for route in waiting:  # what comes late changes nothing
            route.fulfill(json=running | {"state": "done", "result": None, "problem": None})
        page.unroute("**/api/bench/subject")
        page.unroute("**/api/jobs/*")
        self.assertEqual(self.changes(), before + 1)
        with self.one_change():
            self.button("Find the subject").click()
        expect(page.get_by_text("View")).to_be_visible()

    def test_a_box_of_no_area_is_refused_and_nothing_is_lost(self):
        self.start()
        self.button("Draw a box").click()
        before = self.changes()
        self.draw((0.4, 0.4), (0.4, 0.6))
        expect(self.page.get_by_text("To draw a box, press")).to_be_visible()
        self.assertEqual(self.changes(), before)


class MendingTest(CutOutBrowserTest):
    def start_with_bird(self):
        self.start()
        self.box(0.19, 0.31, 0.79, 0.81)

    def test_strokes_are_drawn_shown_undone_and_deleted_one_by_one(self):
        page = self.page
        self.start_with_bird()
        self.button("keep", exact=True).click()
        expect(page.get_by_alt_text(re.compile("over the darkened photo"))).to_be_visible()
        with self.one_change():
            self.draw((0.36, 0.72), (0.46, 0.75), (0.53, 0.72))
            expect(page.locator("img.changed")).to_be_attached()  # a flash of what it changed
        page.keyboard.press("x")
        with self.one_change():
            self.draw((0.58, 0.2), (0.7, 0.22))
        expect(self.strokes()).to_have_text("Show strokes (2)")
        self.button("Undo").click()
        expect(self.strokes()).to_have_text("Show strokes (1)")
        self.button("Redo").click()
        expect(self.strokes()).to_have_text("Show strokes (2)")
        page.keyboard.press("Escape")
        self.strokes().click()
        with self.one_change():
            page.get_by_role("button", name="Delete stroke 2").press("Enter")
        with self.one_change():
            page.mouse.click(*self.at(0.46, 0.75))
        expect(page.get_by_text("Touch up with a brush")).to_be_visible()
        expect(self.strokes()).to_be_hidden()

    def test_what_is_erased_is_gone_and_what_is_brought_back_is_there(self):
        page = self.page
        self.start_with_bird()
        self.button("erase", exact=True).click()
        self.page.get_by_label("Brush softness, typed").fill("0")
        self.draw((0.36, 0.5), (0.44, 0.5))
        self.saved()
        self.button("bring back", exact=True).click()
        self.draw((0.1, 0.1), (0.2, 0.1))
        self.saved()
        page.keyboard.press("Escape")
        alpha = self.exported()[:, :, 3]
        rows, columns = alpha.shape
        self.assertEqual(alpha[rows // 2, int(0.4 * columns)], 0)
        self.assertEqual(alpha[rows // 10, int(0.15 * columns)], 255)

    def test_it_is_done_by_keys_alone(self):
        page = self.page
        self.open_finish_of("bowl-top.jpg")
        page.keyboard.press("4")
        self.button("Find the subject").focus()
        with self.one_change():
            page.keyboard.press("Enter")
        page.locator("body").click(position={"x": 700, "y": 22})
        page.keyboard.press("k")
        for _ in range(3):
            page.keyboard.press(".")
        page.keyboard.press("Shift+ArrowRight")
        with self.one_change():
            page.keyboard.press("Enter")
        expect(self.strokes()).to_have_text("Show strokes (1)")
        page.keyboard.press("Escape")
        expect(self.button("keep", exact=True)).not_to_be_checked()
        page.keyboard.press("Escape")
        expect(page.get_by_text("View")).to_be_hidden()

    def test_every_look_shows_it_and_a_brush_has_a_size_and_a_lens(self):
        page = self.page
        self.start_with_bird()
        for look, alt in (
            ("on checks", "The subject alone"),
            ("over the photo", "The subject over"),
            ("black and white", "What is kept in white"),
            ("finished", "The finished picture"),
        ):
            self.button(look, exact=True).click()
            expect(page.get_by_alt_text(re.compile(f"^{alt}"))).to_be_visible()
        page.keyboard.press("k")
        field = page.get_by_label("Brush size, typed")
        before = int(field.input_value())
        page.keyboard.press(",")
        self.assertLess(int(field.input_value()), before)
        page.mouse.move(*self.at(0.5, 0.5))
        expect(page.locator(".lens")).to_be_visible()
        page.keyboard.down("Alt")
        page.mouse.wheel(0, -600)
        page.keyboard.up("Alt")
        self.wait_until(lambda: int(field.input_value()) > before)


class OutlineTest(CutOutBrowserTest):
    def test_a_thumbnail_gets_a_white_outline_on_a_warm_ground(self):
        self.start(size="Video thumbnail")
        self.box(0.25, 0.1, 0.75, 0.9)
        with self.one_change():
            self.button("bold", exact=True).click()
        grounds = self.page.get_by_role("region", name="Docket")
        with self.one_change():
            grounds.get_by_role("radio", name="colour", exact=True).click()
        with self.one_change():
            self.type_in("Background colour, typed", "D9822B")
        picture = self.exported("JPEG").astype(int)
        self.assertEqual(picture.shape, (720, 1280, 3))
        near = np.abs(picture - (0xD9, 0x82, 0x2B)).max(axis=2) < 12
        white = picture.min(axis=2) > 240
        self.assertGreater(near.mean(), 0.3)
        self.assertTrue(near[:20].all())
        width = 0.045 * 720
        ring = cv2.distanceTransform(white.astype(np.uint8), cv2.DIST_L2, 5)
        self.assertAlmostEqual(2 * np.percentile(ring[ring > width / 4], 90), width, delta=8)

    def test_one_size_may_have_an_outline_of_its_own(self):
        page = self.page
        self.start()
        self.add_size("Tall post")
        self.box(0.2, 0.2, 0.8, 0.8)
        page.get_by_label("Change only this size").check()
        with self.one_change():
            self.button("double", exact=True).click()
        expect(page.get_by_text("Different on this size")).to_be_visible()
        self.work_on("As cropped")
        expect(self.button("add an outline")).to_be_visible()

    def test_a_title_lies_half_behind_the_bird_whose_shadow_falls_on_it(self):
        page = self.page
        self.start()
        self.box(0.19, 0.31, 0.79, 0.81)
        grounds = page.get_by_role("region", name="Docket")
        with self.one_change():
            grounds.get_by_role("radio", name="colour", exact=True).click()
        self.fold("Shadow")
        with self.one_change():
            self.button("standing", exact=True).click()
        with self.one_change():
            self.button("Add a cast shadow").click()
        with self.one_change():
            self.type_in("Distance, typed", "240")
        self.button("Undo").click()
        expect(self.field("Distance, typed")).to_have_value("72")
        self.step("Text & badges")
        with self.one_change():
            self.button("Headline", exact=True).click()
        page.keyboard.press("Escape")
        self.fold("Position and effects")
        with self.one_change():
            self.button("middle", exact=True).click()
        with self.one_change():
            self.type_in("Letter colour, typed", "000000")
        with self.one_change():
            page.get_by_label("Behind the subject").check()
        picture = self.exported("JPEG").astype(int)
        dark = picture.max(axis=2) < 40
        rows, columns = dark.shape
        beside = np.hstack([dark[:, : int(0.2 * columns)], dark[:, int(0.8 * columns) :]])
        self.assertGreater(beside.sum(), 1000)
        body = picture[int(0.5 * rows), int(0.3 * columns) : int(0.45 * columns)]
        self.assertGreater(body.min(axis=1).mean(), 60)  # the bird's pale breast is whole

    def test_own_outlines_are_kept_and_used_on_another_photo(self):
        page = self.page
        self.start()
        self.box(0.19, 0.31, 0.79, 0.81)
        with self.one_change():
            self.button("bold", exact=True).click()
        with self.one_change():
            self.type_in("Outline colour, typed", "FFAA00")
        self.button("Save these outlines").click()
        page.get_by_label("Name of these outlines").fill("Honey 糖")
        page.keyboard.press("Enter")
        own = self.button("Honey 糖", exact=True)
        expect(own).to_be_checked()
        page.get_by_role("button", name="Shelf").click()
        self.start("bowl-top.jpg")
        self.box(0.36, 0.22, 0.81, 0.66)
        with self.one_change():
            own.click()
        expect(page.get_by_label("Outline colour, typed")).to_have_value("#FFAA00")
        self.button("Remove “Honey 糖”").click()
        expect(own).to_be_hidden()

    def test_the_mask_is_saved_as_a_picture(self):
        self.start("bowl-top.jpg")
        self.box(0.36, 0.22, 0.81, 0.66)
        self.fold("Edge")
        mask = self.saved_mask()
        rows, columns = mask.shape
        self.assertEqual((mask[rows // 2, int(0.6 * columns)], mask[0, 0]), (255, 0))
        with self.page.expect_download() as caught:
            self.button("Save the cut line").click()
        self.assertIn(b"<path", Path(caught.value.path()).read_bytes())

    def saved_mask(self):
        with self.page.expect_download() as caught:
            self.button("Save the mask as a picture").click()
        self.assertTrue(caught.value.suggested_filename.endswith("-mask.png"))
        return np.asarray(Image.open(caught.value.path()))

    def test_hair_is_sharp_where_soft_hair_is_off(self):
        self.start("vase-grasses.jpg")
        self.box(0.2, 0.14, 0.8, 0.96)
        self.fold("Edge")
        soft = self.saved_mask()
        with self.one_change():
            self.page.get_by_label("Soft hair").uncheck()
        expect(self.page.get_by_text("hair sharp", exact=True)).to_be_visible()
        sharp = self.saved_mask()
        in_part = [((mask > 20) & (mask < 235)).mean() for mask in (soft, sharp)]
        self.assertLess(in_part[1], 0.7 * in_part[0])

    def test_the_layers_hold_subject_and_ground(self):
        self.start("bird-figure.jpg")
        self.box(0.2, 0.1, 0.9, 0.9)
        self.button("Export…").click()
        name, data = self.saved_file("Layers")
        self.assertRegex(name, r"\.ora$")
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            self.assertIn(b'name="Subject"', archive.read("stack.xml"))

    def test_an_outline_that_cannot_be_seen_is_said_and_mended(self):
        page = self.page
        self.start()
        self.box(0.19, 0.31, 0.79, 0.81)
        grounds = page.get_by_role("region", name="Docket")
        grounds.get_by_role("radio", name="colour", exact=True).click()
        page.get_by_role("radiogroup", name="Ready-made outlines").get_by_text("white").click()
        warning = page.locator(".docket").get_by_text(re.compile("The outline hardly shows"))
        expect(warning).to_be_visible()
        with self.one_change():
            page.locator(".docket").get_by_role("button", name="Make it visible").click()
        expect(warning).to_be_hidden()

    def test_the_subject_is_placed_by_drag_wheel_and_fields(self):
        page = self.page
        self.start()
        self.box(0.19, 0.31, 0.79, 0.81)
        self.fold("Position")
        with self.one_change():
            self.button("Crop to the subject").click()
        width = int(page.locator(".stage img.picture").get_attribute("alt").split()[-4])
        self.assertLess(width, 2200)
        with self.one_change():
            self.draw((0.5, 0.5), (0.7, 0.5))
        with self.one_change():
            page.keyboard.down("Alt")
            page.mouse.wheel(0, 300)
            page.keyboard.up("Alt")
        with self.one_change():
            self.button("Position automatically").click()


class KeptSubjectTest(CutOutBrowserTest):
    """A subject of one photo on another."""

    def square(self):
        photo = np.full((400, 600, 3), (150, 160, 170), np.uint8)
        photo[120:280, 200:360] = (200, 40, 30)
        buffer = io.BytesIO()
        Image.fromarray(photo).save(buffer, "PNG")
        return buffer.getvalue()

    def red(self, picture):
        return (picture[:, :, 0] > 150) & (picture[:, :, 1] < 90) & (picture[:, :, 2] < 90)

    def finishes_of(self, name):
        """How many of this name there are, those in the bin left out."""
        address = f"{self.service.url}/api/finishes?search={name}"
        return self.page.request.get(address).json()["total"]

    def on_the_wall(self):
        """A finish of a grey wall, the square among the photos of the shelf."""
        page = self.page
        wall = io.BytesIO()
        Image.new("RGB", (800, 800), (128, 128, 128)).save(wall, "PNG")
        for name, data in (("square.png", self.square()), ("wall.png", wall.getvalue())):
            page.goto(self.service.url)
            self.bring_data((name, data))
            self.on_bench()

    def test_a_picture_is_cut_out_on_a_bench_of_its_own_and_put_in(self):
        page = self.page
        self.on_the_wall()
        before = self.finishes_of("square")
        self.step("Text & badges")
        self.button("Logo, picture").click()
        with self.one_change():
            self.button("square.png").click()
        wall = page.url
        self.button("Cut the subject out…").click()
        expect(page.get_by_text("goes into the other finish")).to_be_visible()
        expect(page.get_by_text("View")).to_be_visible()
        self.button("Put it in").click()
        expect(page.get_by_text("“square” is shown without")).to_be_visible()
        self.assertEqual(page.url, wall)
        picture = self.exported()
        self.assertGreater(self.red(picture).sum(), 2000)
        pale = (np.abs(picture[:, :, :3].astype(int) - (150, 160, 170)).max(axis=2) < 8).sum()
        self.assertLess(pale, 100)
        # Mended there, it comes back as a newer version.
        self.step("Text & badges")
        page.get_by_role("button", name="square", exact=True).first.click()
        self.button("Edit the cut-out").click()
        self.button("Draw a box").wait_for()
        self.fold("Edge")
        with self.one_change():
            self.type_in("Shift, typed", "-6")
        self.button("Put it in").click()
        expect(page.get_by_text("“square” is shown without")).to_be_visible()
        self.assertLess(self.red(self.exported()).sum(), self.red(picture).sum())
        # The finishes in which it was cut out are in the bin.
        self.assertEqual(self.finishes_of("square"), before)

    def test_a_kept_subject_is_used_twice_and_goes_with_another_photo(self):
        page = self.page
        self.on_the_wall()
        page.goto(self.service.url)
        page.get_by_role("button", name="Open square", exact=True).first.click()
        self.on_bench()
        self.step("Cut-out")
        self.button("Find the subject").click()
        expect(page.get_by_text("View")).to_be_visible()
        self.button("Save this subject…").click()
        page.get_by_label("Name of this subject").fill("Brick")
        page.keyboard.press("Enter")
        expect(page.get_by_text("“Brick” is saved")).to_be_visible()
        page.go_back()
        page.get_by_role("button", name="Open wall", exact=True).first.click()
        self.on_bench()
        self.step("Text & badges")
        for _ in range(2):
            self.button("Logo, picture").click()
            with self.one_change():
                subjects = page.get_by_role("group", name="Saved subjects")
                subjects.get_by_role("button", name="Brick").click()
        docket = page.get_by_role("region", name="Docket")
        expect(
            docket.get_by_role("button", name=re.compile("^Text & badges 2 pictures"))
        ).to_be_visible()
        self.assertGreater(self.red(self.exported()).sum(), 2000)
