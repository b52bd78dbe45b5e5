"""Words, badges and the watermark in the browser, judged by the exported pixels."""

import io
import re
from pathlib import Path

import cv2
import numpy as np
from PIL import Image
from playwright.sync_api import expect

from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.text import face_of
from tests.browser.base import BrowserTest
from tests.support import encoded


def luminance(codes):
    """Of WCAG 2.2, for colours of 0 to 255."""
    return decode(np.asarray(codes) / 255) @ (0.2126, 0.7152, 0.0722)


class WordsBrowserTest(BrowserTest):
    def start(self, name, size=None):
        self.open_finish_of(name)
        if size:
            self.use_size(size)
        self.step("Text & badges")

    def exported(self):
        page = self.page
        page.get_by_role("button", name="Export…").click()
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save this size").click()
        picture = Image.open(io.BytesIO(Path(caught.value.path()).read_bytes()))
        return np.asarray(picture.convert("RGB")).astype(int)

    def piece(self, name):
        """A piece on the stage, such as "text 1"."""
        return self.page.locator(f"[data-piece={name.replace(' ', '-')}]")

    def reads(self, name, words):
        """A text has these words, and screen readers hear them."""
        expect(self.piece(name)).to_have_attribute("aria-label", words)

    def saved(self):
        expect(self.page.locator("header .state")).to_have_text(re.compile("^saved"))

    def on_picture(self, piece):
        """Rows and columns of the exported picture that a piece's box covers."""
        stage = self.page.get_by_role("img", name="The finished picture")
        picture, box = stage.bounding_box(), piece.bounding_box()
        columns = int(re.search(r"(\d+) by", stage.get_attribute("alt")).group(1))
        scale = columns / picture["width"]
        left, top = (box[side] - picture[side] for side in ("x", "y"))
        return (
            slice(int(top * scale), int((top + box["height"]) * scale)),
            slice(int(left * scale), int((left + box["width"]) * scale)),
        )

    def add_text(self, purpose, words):
        """Add words and write them on the stage."""
        page = self.page
        self.button(purpose, exact=True).click()
        expect(page.get_by_label("Words of the text")).to_be_focused()
        page.keyboard.type(words)
        page.keyboard.press("Escape")
        expect(page.get_by_label("Words of the text")).to_be_hidden()
        self.saved()


class WritingTest(WordsBrowserTest):
    def test_a_headline_is_written_dragged_snapped_and_undone(self):
        page = self.page
        self.start("mugs-window.jpg", "Tall post")
        self.add_text("Headline", "New glaze")
        text = self.piece("text 1")
        before = text.bounding_box()
        with self.one_change():
            self.drag(self.middle(text), (4, 120))
        after = text.bounding_box()
        self.assertAlmostEqual(after["y"] - before["y"], 120, delta=8)
        # 4 px off the middle is near enough to be drawn back to it.
        self.assertAlmostEqual(after["x"], before["x"], delta=1)
        with self.one_change():
            page.keyboard.press("Shift+ArrowRight")
        self.button("Undo").click()
        self.button("Undo").click()
        expect(text).to_be_visible()
        self.saved()
        page.wait_for_timeout(300)
        self.assertAlmostEqual(text.bounding_box()["y"], before["y"], delta=1)

    def test_letters_typed_with_a_text_chosen_go_into_it(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.add_text("Text line", "Thursda")
        self.piece("text 1").click()
        page.keyboard.press("y")
        expect(page.get_by_label("Words of the text")).to_have_value("Thursday")
        page.keyboard.press("Enter")
        page.keyboard.type("1 to 5")
        page.keyboard.press("Escape")
        self.saved()
        # "1" and "5" wrote; they opened no step.
        self.reads("text 1", "Thursday 1 to 5")

    def test_each_pause_is_a_change_and_empty_words_go(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.button("Text line", exact=True).click()
        expect(page.get_by_label("Words of the text")).to_be_focused()
        self.saved()
        # All at once, so that a slow machine makes no pause between the letters.
        with self.one_change():
            page.keyboard.insert_text("ab")
        with self.one_change():
            page.keyboard.insert_text("cd")
        page.get_by_label("Words of the text").fill("")
        page.keyboard.press("Escape")
        expect(self.piece("text 1")).to_be_hidden()

    def test_a_drag_right_after_writing_goes_on_past_the_pause(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.add_text("Text line", "Kiln")
        before = self.piece("text 1").bounding_box()
        page.keyboard.type("s")
        page.keyboard.press("Escape")
        x, y = self.middle(self.piece("text 1"))
        page.mouse.move(x, y)
        page.mouse.down()
        for step in range(1, 11):
            page.mouse.move(x, y - 12 * step)
            page.wait_for_timeout(100)
        page.mouse.up()
        self.saved()
        self.reads("text 1", "Kilns")
        self.assertAlmostEqual(self.piece("text 1").bounding_box()["y"], before["y"] - 120, delta=8)

    def test_while_words_are_dragged_nothing_is_asked_for_but_the_stage(self):
        self.start("mugs-window.jpg")
        self.add_text("Text line", "Kiln")
        during = self.asked_in_a_drag(*self.middle(self.piece("text 1")))
        self.assertEqual(during, {"/bench/preview stage", "/bench/draft"})

    def test_fonts_show_the_words_and_are_tried_by_hovering(self):
        self.start("mugs-window.jpg")
        self.add_text("Headline", "Glaze")
        width = self.piece("text 1").bounding_box()["width"]
        self.button(re.compile("^Font: Figtree")).click()
        page = self.page
        page.get_by_role("option", name="Anton, heavy").hover()
        self.wait_until(lambda: self.piece("text 1").bounding_box()["width"] < width - 20)
        with self.one_change():
            page.get_by_role("option", name="Pacifico, script").click()
        expect(self.button(re.compile("^Font: Pacifico"))).to_be_visible()

    def test_an_own_font_is_added_used_and_taken_off_the_list(self):
        page = self.page
        self.start("mugs-window.jpg", "Square post")
        self.add_text("Headline", "Glaze")
        page.get_by_role("button", name=re.compile("^Font: ")).click()
        broken = {"name": "broken.ttf", "mimeType": "font/ttf", "buffer": b"\0\1\0\0 no font"}
        page.get_by_label("A font file").set_input_files(broken)
        expect(page.get_by_text("This font is damaged or unsafe")).to_be_visible()
        plain = self.exported()
        self.step("Text & badges")
        self.piece("text 1").click()
        page.get_by_role("button", name=re.compile("^Font: ")).click()
        own = face_of("caveat", 700, False).read_bytes()
        with self.one_change():
            page.get_by_label("A font file").set_input_files(
                {"name": "hand.ttf", "mimeType": "font/ttf", "buffer": own}
            )
        expect(self.button("Font: Caveat Bold")).to_be_visible()
        drawn = self.exported()
        self.assertGreater((np.abs(drawn - plain).max(axis=2) > 60).mean(), 0.005)
        self.step("Text & badges")
        self.piece("text 1").click()
        page.get_by_role("button", name=re.compile("^Font: ")).click()
        self.button("Remove “Caveat Bold”").click()
        expect(self.button("Font: not on this list")).to_be_visible()
        np.testing.assert_array_equal(self.exported(), drawn)

    def test_keys_alone_write_move_turn_copy_and_remove(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.button("Price", exact=True).focus()
        page.keyboard.press("Enter")
        expect(page.get_by_label("Words of the text")).to_be_focused()
        page.keyboard.type("€28")
        page.keyboard.press("Escape")
        self.saved()
        text = self.piece("text 1")
        text.focus()
        before = text.bounding_box()
        with self.one_change():
            page.keyboard.press("Shift+ArrowUp")
        self.assertLess(text.bounding_box()["y"], before["y"])
        with self.one_change():
            page.keyboard.press("Control+d")
        expect(self.piece("text 2")).to_be_visible()
        knob = self.button(re.compile("^Turn the piece"))
        knob.focus()
        with self.one_change():
            page.keyboard.press("Shift+ArrowRight")
        self.piece("text 2").focus()
        with self.one_change():
            page.keyboard.press("Delete")
        expect(self.piece("text 2")).to_be_hidden()


class ReadingTest(WordsBrowserTest):
    def test_a_banner_s_title_and_line_are_made_readable_and_the_export_shows_it(self):
        page = self.page
        self.start("shelf-wide.jpg", "Wide banner")
        self.add_text("Text line", "Saturdays from ten to four")
        self.add_text("Headline", "Open studio")
        boxes = [self.piece(f"text {number}").bounding_box() for number in (1, 2)]
        self.assertGreater(boxes[0]["y"], boxes[1]["y"] + boxes[1]["height"])
        with self.one_change():
            self.type_in("Letter colour, typed", "#A8A49A")
        expect(page.get_by_text(re.compile(r"^\s*contrast [12]\.\d"))).to_be_visible()
        with self.one_change():
            self.button("Improve the contrast").click()
        expect(page.get_by_text(re.compile(r"^\s*contrast ([3-9]|1\d)"))).to_be_visible()
        colour = self.field("Letter colour, typed").input_value()
        letters = np.array([int(colour[place : place + 2], 16) for place in (1, 3, 5)])
        words = self.on_picture(self.piece("text 2"))
        title = self.exported()[words]
        drawn = (np.abs(title - letters).max(axis=2) <= 12).astype(np.uint8)
        self.assertGreater(drawn.sum(), 2000)
        # What lies a pixel further from the letters than their own smooth edge.
        near, nearest = (cv2.dilate(drawn, np.ones((size, size))) for size in (5, 3))
        behind = luminance(title[(near == 1) & (nearest == 0)])
        light, dark = np.maximum(behind, luminance(letters)), np.minimum(behind, luminance(letters))
        self.assertGreater(np.median((light + 0.05) / (dark + 0.05)), 3)

    def test_what_the_picture_shows_is_suggested_put_right_and_in_the_file(self):
        self.start("shelf-wide.jpg", "Wide banner")
        self.add_text("Headline", "Open studio")
        self.step("Export")
        shown = self.page.get_by_label(re.compile("^Alternative text"))
        with self.one_change():
            self.button("Suggest one").click()
        said = "shelf-wide. Words in the picture: \N{LEFT DOUBLE QUOTATION MARK}Open studio"
        expect(shown).to_have_value(re.compile(f"^{said}"))
        expect(shown).to_be_focused()
        with self.one_change():
            shown.fill("Shelves of jugs & bowls, open on Saturdays")
            shown.press("Tab")
        _, data = self.saved_file()
        packet = Image.open(io.BytesIO(data)).info["xmp"].decode()
        self.assertIn(">Shelves of jugs &amp; bowls, open on Saturdays<", packet)

    def test_what_helps_goes_to_this_size_alone_when_that_is_ticked(self):
        page = self.page
        self.start("shelf-wide.jpg", "Wide banner")
        self.add_text("Headline", "Open studio")
        with self.one_change():
            self.type_in("Letter colour, typed", "#A8A49A")
        self.add_size("Square post")
        self.work_on("Wide banner")
        self.piece("text 1").click()
        page.get_by_label("Change only this size").check()
        for help_ in ("Improve the contrast", "Find a calm place"):
            with self.one_change():
                self.button(help_, exact=True).click()
        expect(page.get_by_text("Different on this size: place, colour")).to_be_visible()
        self.work_on("Square post")
        self.piece("text 1").click()
        expect(self.field("Letter colour, typed")).to_have_value("#A8A49A")
        expect(page.get_by_text("Different on this size")).to_be_hidden()

    def test_colours_of_the_photo_and_recent_ones_are_offered_everywhere(self):
        page = self.page
        self.start("mugs-window.jpg", "Square post")
        self.add_text("Headline", "Kiln")
        first = self.field("Letter colour, typed").input_value()
        self.assertNotEqual(first, "#FFFFFF")  # tinted like the picture
        swatches = page.get_by_role("group", name="Letter colour", exact=True)
        of_photo = swatches.get_by_role("radio", name=re.compile("of the photo"))
        expect(of_photo).to_have_count(5)
        chosen = of_photo.first.get_attribute("aria-label")[:7]
        with self.one_change():
            of_photo.first.click()
        expect(self.field("Letter colour, typed")).to_have_value(chosen)
        with self.one_change():
            self.type_in("Letter colour, typed", "#12AB34")
        self.button("Shelf").click()
        self.open_finish_of("bowl-top.jpg")
        self.step("Border")
        border = page.get_by_role("group", name="Border colour", exact=True)
        with self.one_change():
            border.get_by_role("radio", name="#12AB34, recent").click()
        expect(self.field("Border colour, typed")).to_have_value("#12AB34")

    def test_first_words_wait_for_the_photos_colours(self):
        page, held = self.page, []
        page.route("**/api/bench/palette/*", lambda route: held.append(route))
        self.open_finish_of("mugs-window.jpg")
        self.step("Text & badges")
        self.button("Headline", exact=True).click()
        self.wait_until(lambda: held)
        held[0].continue_()
        page.unroute("**/api/bench/palette/*")
        expect(page.get_by_label("Words of the text")).to_be_focused()
        page.keyboard.press("Escape")
        expect(self.field("Letter colour, typed")).not_to_have_value("#FFFFFF")

    def test_words_over_the_focus_are_moved_beside_it_by_their_check(self):
        page = self.page
        self.open_finish_of("mugs-window.jpg")
        self.use_size("Tall post")
        with self.one_change():
            page.keyboard.press("f")
            stage = page.get_by_role("img", name="The whole photo").bounding_box()
            start = stage["x"] + 0.35 * stage["width"], stage["y"] + 0.65 * stage["height"]
            self.drag(start, (0.3 * stage["width"], 0.2 * stage["height"]))
        self.step("Text & badges")
        self.add_text("Headline", "Thursday")
        with self.one_change():
            box = self.piece("text 1").bounding_box()
            picture = page.get_by_role("img", name="The finished picture").bounding_box()
            down = picture["y"] + 0.72 * picture["height"] - box["y"]
            self.drag(self.middle(self.piece("text 1")), (0, down))
        action = self.button("Move it aside")
        with self.one_change():
            action.click()
        expect(action).to_be_hidden()

    def test_a_calm_place_is_found_and_the_next_one(self):
        self.start("bench-tools.jpg", "Square post")
        self.add_text("Text line", "Tools of the trade")
        text = self.piece("text 1")
        with self.one_change():
            self.button("find a calm place").click()
        first = text.bounding_box()
        expect(self.page.get_by_text("the calmest first")).to_be_visible()
        with self.one_change():
            self.button("next calm place").click()
        self.assertNotEqual(first, text.bounding_box())

    def test_a_check_names_words_past_the_margin_and_mends_it(self):
        page = self.page
        self.start("mugs-window.jpg", "Tall post")
        self.add_text("Text line", "Thursday")
        with self.one_change():
            self.drag(self.middle(self.piece("text 1")), (190, 0))
        action = self.button("Move it inside")
        with self.one_change():
            action.click(timeout=15_000)
        expect(action).to_be_hidden(timeout=15_000)
        expect(page.get_by_text("past the margin")).to_be_hidden()


class SizesTest(WordsBrowserTest):
    def test_four_sizes_with_one_own_place(self):
        page = self.page
        self.start("mugs-window.jpg", "Tall post")
        self.add_text("Headline", "New glaze")
        self.step("Crop")
        for name in ("Square post", "Video thumbnail", "Wide banner"):
            self.add_size(name)
        self.step("Text & badges")
        self.work_on("Video thumbnail")
        text = self.piece("text 1")
        text.click()
        page.get_by_label("Change only this size").check()
        with self.one_change():
            self.drag(self.middle(text), (0, 150))
        moved = text.bounding_box()
        self.work_on("Square post")
        square = self.piece("text 1").bounding_box()
        stage = page.get_by_role("img", name="The finished picture").bounding_box()
        self.assertLess(square["y"], stage["y"] + 0.35 * stage["height"])
        self.work_on("Video thumbnail")
        page.wait_for_timeout(400)
        self.assertAlmostEqual(self.piece("text 1").bounding_box()["y"], moved["y"], delta=1)
        self.piece("text 1").click()
        expect(page.get_by_text("Different on this size: place.")).to_be_visible()
        with self.one_change():
            self.button("use the shared setting").click()
        page.wait_for_timeout(300)
        self.assertLess(self.piece("text 1").bounding_box()["y"], moved["y"] - 50)


class BadgeTest(WordsBrowserTest):
    def test_an_arrow_is_added_scaled_turned_and_recoloured(self):
        self.start("bowl-top.jpg", "Video thumbnail")
        with self.one_change():
            self.button("Badge, arrow").click()
            self.button("Arrow", exact=True).first.click()
        arrow = self.piece("badge 1")
        before = arrow.bounding_box()
        corner = self.button("Piece, lower right corner; the arrow keys drag it")
        with self.one_change():
            self.drag(self.middle(corner), (80, 60))
        after = arrow.bounding_box()
        self.assertGreater(after["width"], before["width"] + 40)
        self.assertAlmostEqual(
            after["width"] / after["height"], before["width"] / before["height"], delta=0.1
        )
        with self.one_change():
            self.type_in("Fill, typed", "#00FF00")
        self.button(re.compile("^Position and effects")).click()
        with self.one_change():
            self.type_in("Angle, typed", "90")
        out = self.exported()
        green = (out[:, :, 1] > 200) & (out[:, :, 0] < 80) & (out[:, :, 2] < 80)
        rows, columns = np.flatnonzero(green.any(1)), np.flatnonzero(green.any(0))
        self.assertGreater(np.ptp(rows), np.ptp(columns))

    def test_a_logo_from_a_file_several_chosen_by_a_frame_and_aligned(self):
        page = self.page
        self.start("mugs-window.jpg", "Square post")
        logo = np.zeros((60, 120, 4), np.uint8)
        logo[10:50, 10:110] = (20, 90, 60, 255)
        self.button("Logo, picture").click()
        with self.one_change():
            file = {"name": "logo.png", "mimeType": "image/png", "buffer": encoded(logo)}
            page.get_by_label("A picture file").set_input_files(file)
        with self.one_change():
            self.button("Badge, arrow").click()
            self.button("Heart", exact=True).first.click()
        with self.one_change():
            self.drag(self.middle(self.piece("badge 1")), (120, 90))
        stage = page.get_by_role("img", name="The finished picture").bounding_box()
        start = (stage["x"] - 10, stage["y"] + 20)
        self.drag(start, (stage["width"] + 15, stage["height"] - 30))
        for name in ("picture 1", "badge 1"):
            expect(self.piece(name)).to_have_attribute("aria-pressed", "true")
        self.button(re.compile("^Position and effects")).click()
        with self.one_change():
            self.button("left", exact=True).click()
        boxes = [self.piece(name).bounding_box() for name in ("picture 1", "badge 1")]
        self.assertAlmostEqual(boxes[0]["x"], boxes[1]["x"], delta=1.5)

    def test_pieces_are_pasted_into_another_finish(self):
        page = self.page
        self.start("mugs-window.jpg")
        self.add_text("Headline", "New glaze")
        self.piece("text 1").click()
        page.keyboard.press("Control+c")
        expect(page.get_by_text("Copied; paste")).to_be_visible()
        self.button("Shelf").click()
        self.start("vase-grasses.jpg")
        with self.one_change():
            page.keyboard.press("Control+v")
        self.reads("text 1", "New glaze")


class WatermarkTest(WordsBrowserTest):
    def test_the_studio_s_name_is_repeated_faintly(self):
        page = self.page
        self.open_finish_of("bench-tools.jpg")
        self.use_size("Square post")
        plain = self.exported()
        self.step("Watermark")
        words = page.get_by_label("Words")
        with self.one_change():
            words.fill("Pebblewick Pottery")
            words.press("Enter")
            page.get_by_role("heading", name="Docket").click()
        with self.one_change():
            self.button("repeated", exact=True).click()
        marked = self.exported()
        change = np.abs(marked - plain).max(axis=2)
        half = len(change) // 2
        for part in (change[:half, :half], change[:half, half:], change[half:], change[:, half:]):
            self.assertGreater((part > 12).mean(), 0.01)
        self.step("Watermark")
        with self.one_change():
            self.button("one spot", exact=True).click()
        with self.one_change():
            self.button("top left", exact=True).click()
        spot = np.abs(self.exported() - plain).max(axis=2)
        self.assertGreater((spot[:half, :half] > 12).mean(), 0.002)
        self.assertEqual((spot[half:, half:] > 12).sum(), 0)
        with self.one_change():
            page.get_by_role("switch", name="Watermark on or off").locator("..").click()
        np.testing.assert_allclose(self.exported(), plain, atol=1)

    def test_a_mark_on_one_spot_is_dragged_and_nudged_inside_the_margin(self):
        page = self.page
        self.open_finish_of("bench-tools.jpg")
        self.use_size("Square post")
        self.step("Watermark")
        with self.one_change():
            page.get_by_label("Words").fill("Pebblewick Pottery")
            page.get_by_role("heading", name="Docket").click()
        mark = self.button(re.compile("^The watermark"))
        before = mark.bounding_box()
        with self.one_change():
            self.drag(self.middle(mark), (-100, -200))
        self.wait_until(lambda: abs(mark.bounding_box()["y"] - before["y"] + 200) < 2)
        self.assertAlmostEqual(mark.bounding_box()["x"], before["x"] - 100, delta=2)
        mark.focus()
        with self.one_change():
            for _ in range(3):
                page.keyboard.press("Shift+ArrowLeft")
        left = mark.bounding_box()["x"]
        page.get_by_role("heading", name="Docket").click()
        with self.one_change():
            page.keyboard.press("Shift+ArrowRight")
        self.wait_until(lambda: mark.bounding_box()["x"] > left + 3)
        # Far out it stays at the margin.
        with self.one_change():
            self.drag(self.middle(mark), (600, 600))
        self.wait_until(lambda: abs(mark.bounding_box()["x"] - before["x"]) < 1)
        expect(self.button("bottom right", exact=True)).to_be_checked()
        page.get_by_role("button", name=re.compile("^Font: ")).click()
        with self.one_change():
            page.keyboard.type("paci")
            page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Font: Pacifico")).to_be_focused()

    def test_a_mark_is_made_and_used_on_another_finish(self):
        page = self.page
        self.open_finish_of("mugs-window.jpg")
        self.use_size("Square post")
        self.step("Watermark")
        self.button("a saved mark").click()
        self.button("make a mark").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Words", exact=True).fill("Pebblewick")
        dialog.get_by_role("button", name=re.compile("^Icon ")).click()
        dialog.get_by_label("Search icons").fill("amphora")
        dialog.get_by_role("radio", name="amphora").click()
        expect(dialog.get_by_role("img", name="The mark, light")).to_be_visible()
        dialog.get_by_label("The mark’s name").fill("Studio mark")
        with self.one_change():
            dialog.get_by_role("button", name="Save the mark").click()
        expect(page.get_by_text("mark “Studio mark”")).to_be_visible()
        self.button("Shelf").click()
        self.open_finish_of("bench-tools.jpg")
        plain = self.exported()
        self.step("Watermark")
        self.button("a saved mark").click()
        with self.one_change():
            self.button("Studio mark", exact=True).click()
        marked = np.abs(self.exported() - plain).max(axis=2)
        rows, columns = np.nonzero(marked > 25)
        self.assertGreater(len(rows), 2000)
        self.assertGreater(rows.min(), 0.7 * len(marked))
        self.assertGreater(columns.min(), 0.6 * marked.shape[1])
        # As a piece it lies where it is dragged, in any colour.
        with self.one_change():
            page.get_by_role("switch", name="Watermark on or off").locator("..").click()
        self.step("Text & badges")
        self.button("Saved mark").click()
        with self.one_change():
            self.button("Studio mark", exact=True).click()
        with self.one_change():
            self.type_in("Mark colour, typed", "#00A040")
        placed = np.abs(self.exported() - (0, 0xA0, 0x40)).max(axis=2) < 6
        rows, columns = np.nonzero(placed)
        self.assertGreater(len(rows), 1000)
        self.assertAlmostEqual(columns.mean() / placed.shape[1], 0.5, delta=0.05)


class ContentTest(WordsBrowserTest):
    def test_a_logo_with_a_white_box_is_knocked_out(self):
        page = self.page
        self.start("kiln-night.jpg", "Square post")
        logo = np.full((120, 240, 3), 255, np.uint8)
        logo[30:90, 30:210] = (0, 200, 0)
        self.button("Logo, picture").click()
        with self.one_change():
            file = {"name": "logo.png", "mimeType": "image/png", "buffer": encoded(logo)}
            page.get_by_label("A picture file").set_input_files(file)
        with self.one_change():
            self.button("Make it transparent").click()
        out = self.exported()
        middle = out[460:620, 400:680]
        # The logo is a quarter of the width, 180 of its 240 x 60 of its 120 pixels are green.
        green = (270 * 180 / 240) * (135 * 60 / 120)
        found = (np.abs(middle - (0, 200, 0)).max(axis=2) < 30).sum()
        self.assertAlmostEqual(found / green, 1, delta=0.05)
        self.assertEqual((middle.min(axis=2) > 200).sum(), 0)

    def test_an_arrow_holds_on_to_the_bowl_and_part_of_a_price_is_struck_out(self):
        page = self.page
        self.start("bowl-top.jpg", "Video thumbnail")
        self.add_text("Headline", "One bowl, one firing")
        with self.one_change():
            self.button("Badge, arrow").click()
            self.button("Arrow", exact=True).first.click()
        with self.one_change():
            page.get_by_label("Keep pointing at this spot").check()
        tip = self.button(re.compile("^What it points at"))
        before = tip.bounding_box()
        with self.one_change():
            self.drag(self.middle(tip), (60, 40))
        self.wait_until(lambda: abs(tip.bounding_box()["x"] - before["x"] - 60) < 2)
        tip.focus()
        with self.one_change():
            page.keyboard.press("Shift+ArrowDown")
        # What is typed right before a drag is not lost to it.
        inside = page.get_by_label("Words inside")
        inside.fill("this one")
        inside.press("Tab")
        arrow = self.piece("badge 1").bounding_box()
        self.drag((arrow["x"] + arrow["width"] / 2, arrow["y"] + arrow["height"] / 2), (5, 30))
        self.wait_until(lambda: abs(self.piece("badge 1").bounding_box()["y"] - arrow["y"]) > 15)
        self.saved()
        expect(inside).to_have_value("this one")
        self.add_text("Price", "€34 €28")
        self.button("Write on the picture").click()
        page.keyboard.press("Home")
        for _ in range(3):
            page.keyboard.press("Shift+ArrowRight")
        with self.one_change():
            page.get_by_label("Struck through").check()
        self.button("Write on the picture").click()
        page.keyboard.press("Home")
        with self.one_change():
            page.keyboard.insert_text("was ")
        page.wait_for_timeout(300)
        for _ in range(3):
            page.keyboard.press("Shift+ArrowRight")
        expect(page.get_by_label("Struck through")).to_be_checked()

    def test_a_code_is_read_off_the_exported_picture(self):
        page = self.page
        self.start("bird-figure.jpg", "Square post")
        self.button("QR code").click()
        page.get_by_label("The code says").fill("https://pebblewick.example")
        self.button("Add the code").click()
        expect(self.piece("picture 1")).to_be_visible()
        self.saved()
        picture = self.exported().astype(np.uint8)
        said, _, _ = cv2.QRCodeDetector().detectAndDecode(picture)
        self.assertEqual(said, "https://pebblewick.example")
