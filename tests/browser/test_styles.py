"""House styles in the browser: kept from one finish, given to the next photo, changed, renewed."""

import io
import re
import zipfile
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.support import encoded

PLAIN = encoded(np.full((600, 800, 3), 90, np.uint8))
GREEN = np.array([31, 107, 75])


class HouseStyleTest(BrowserTest):
    def dialog(self):
        self.page.get_by_role("button", name=re.compile("^House style: ")).click()
        return self.page.get_by_role("dialog", name="House style")

    def keep_green_border(self, name):
        """A finish with a thick green border, and a style kept from it."""
        page = self.page
        self.bring_data((f"{name}.png", PLAIN))
        self.on_bench()
        self.use_size("Square post")
        self.step("Border")
        with self.one_change():
            page.get_by_role("switch", name="Border on or off").locator("..").click()
        with self.one_change():
            self.type_in("Border colour, typed", "#1F6B4B")
        dialog = self.dialog()
        if page.request.get(f"{self.service.url}/api/styles").json()["styles"]:
            dialog.get_by_role("button", name="Keep a style from this finish").click()
        dialog.get_by_label("Name of the style").fill(name)
        with self.one_change():
            dialog.get_by_role("button", name="Save the style").click()
        expect(dialog).to_contain_text("This finish is in this style")
        page.keyboard.press("Escape")

    def test_the_next_photo_starts_with_it_and_lets_it_go(self):
        page = self.page
        self.keep_green_border("Spring")
        page.get_by_role("button", name="Shelf").click()
        page.get_by_label("New photos start in").select_option(label="Spring")
        self.bring_data(("next.png", encoded(np.full((500, 900, 3), 200, np.uint8))))
        self.on_bench()
        expect(page.get_by_role("button", name="House style: Spring")).to_be_visible()
        expect(page.locator("header .state")).to_have_text("saved · no changes yet")
        picture = self.saved_picture("Crop")
        self.assertEqual(picture.shape, (1080, 1080, 3))
        self.assertLess(np.abs(picture[8:14, 300:800] - GREEN).max(), 12)
        dialog = self.dialog()
        with self.one_change():
            dialog.get_by_role("button", name="Remove from this finish").click()
        self.assertEqual(self.saved_picture("Crop").shape, (500, 900, 3))
        page.get_by_role("button", name="Shelf").click()
        page.get_by_label("New photos start in").select_option(label="no house style")

    def test_what_was_changed_since_is_listed_and_replaced_on_request(self):
        page = self.page
        self.keep_green_border("Summer")
        self.step("Border")
        with self.one_change():
            self.type_in("Border colour, typed", "#AA2200")
        dialog = self.dialog()
        border = dialog.get_by_role("listitem").filter(has_text="Border")
        expect(border).to_contain_text("yours")
        expect(border.get_by_role("checkbox")).not_to_be_checked()
        expect(dialog.get_by_role("button", name="Take it over again")).to_be_disabled()
        border.get_by_role("checkbox").check()
        with self.one_change():
            dialog.get_by_role("button", name="Take it over again").click()
        self.assertEqual(page.get_by_label("Border colour, typed").input_value(), "#1F6B4B")

    def test_a_style_that_was_removed_from_the_shelf_can_still_be_let_go(self):
        page = self.page
        self.keep_green_border("Winter")
        styles = f"{self.service.url}/api/styles"
        kept = page.request.get(styles).json()["styles"]
        (winter,) = [one["style"]["id"] for one in kept if one["style"]["name"] == "Winter"]
        page.request.delete(f"{styles}/{winter}")
        dialog = self.dialog()
        expect(dialog).to_contain_text("“Winter” is no longer among your house styles")
        with self.one_change():
            dialog.get_by_role("button", name="Remove it from this finish").click()
        expect(page.get_by_role("button", name="House style: none")).to_be_visible()

    def test_a_new_version_renews_the_finishes_that_have_the_old_one(self):
        page = self.page
        self.keep_green_border("Autumn")
        first = page.url
        page.get_by_role("button", name="Shelf").click()
        page.get_by_label("New photos start in").select_option(label="Autumn")
        self.bring_data(("second.png", encoded(np.full((400, 400, 3), 60, np.uint8))))
        self.on_bench()
        second = page.url
        self.assertNotEqual(first, second)
        self.step("Border")
        with self.one_change():
            self.type_in("Border colour, typed", "#0000FF")
        dialog = self.dialog()
        dialog.get_by_role("button", name="Keep a style from this finish").click()
        with self.one_change():
            dialog.get_by_role("button", name="Save the style").click()
        dialog.get_by_role("button", name="Renew 1 finish").click()
        expect(page.get_by_text("One finish was renewed")).to_be_visible()
        page.goto(first)
        self.on_bench()
        self.step("Border")
        expect(page.get_by_label("Border colour, typed")).to_have_value("#0000FF")
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_label("Border colour, typed")).to_have_value("#1F6B4B")
        # The style's own colour is offered to a finish that has another one.
        offered = page.get_by_role("radiogroup", name="Border colour, offered")
        expect(offered.get_by_role("radio", name="#0000FF, house style Autumn")).to_be_visible()
        page.get_by_role("button", name="Shelf").click()
        page.get_by_role("button", name="House styles").click()
        styles = page.get_by_role("dialog", name="House styles").get_by_role("listitem")
        with page.expect_download() as caught:
            styles.filter(has_text="Autumn").get_by_role("link", name="Save as a file").click()
        self.assertEqual(caught.value.suggested_filename, "autumn.style.zip")
        styles.filter(has_text="Autumn").get_by_role("button", name="Remove").click()
        expect(styles.filter(has_text="Autumn")).to_have_count(0)
        page.get_by_label("A house style's file").set_input_files(caught.value.path())
        expect(styles.filter(has_text="Autumn")).to_have_count(1)


class ManyTest(BrowserTest):
    """Several photos finished like one, with a pasted table."""

    def paste_into(self, field, text):
        field.evaluate(
            """(field, text) => {
                const data = new DataTransfer()
                data.setData('text/plain', text)
                const paste = { clipboardData: data, bubbles: true, cancelable: true }
                field.dispatchEvent(new ClipboardEvent('paste', paste))
            }""",
            text,
        )

    def test_several_photos_with_a_pasted_table_become_one_zip(self):
        page = self.page
        # A picture of its own: one that is known already keeps its first name.
        self.bring_data(("pattern.png", encoded(np.full((610, 800, 3), 91, np.uint8))))
        self.on_bench()
        self.use_size("Square post")
        self.step("Text & badges")
        with self.one_change():
            page.get_by_role("button", name="Headline").click()
            expect(page.get_by_label("Words of the text")).to_be_focused()
        with self.one_change():
            page.get_by_label("Words of the text").fill("{name}, {price}")
            page.keyboard.press("Escape")
        page.get_by_role("button", name="Shelf").click()
        photos = [
            (f"cup {n}.png", encoded(np.full((300, 300 + n, 3), 40, np.uint8))) for n in range(3)
        ]
        self.bring_data(*photos)
        shelf = page.get_by_role("list", name="Photos")
        for name, _ in photos:
            shelf.get_by_label(f"Choose {name}").check()
        page.get_by_role("button", name="Finish 3 photos").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Finish them").select_option(label="pattern")
        expect(dialog.get_by_role("list", name="Worth a look")).to_contain_text("“{price}” stands")
        self.paste_into(dialog.get_by_label("price of cup 0.png"), '12 €\n"13 €\n"\n14 €\n')
        expect(dialog.get_by_label("price of cup 2.png")).to_have_value("14 €")
        table = "price\tfile\n9 €\tcup 1.png\n8 €\tcup 0.png\n"
        self.paste_into(dialog.get_by_label("price of cup 0.png"), table)
        expect(dialog.get_by_role("status")).to_contain_text(
            "No row of the table names “cup 2.png”"
        )
        self.paste_into(dialog.get_by_label("price of cup 0.png"), f"{table}7 €\tcup 2.png\n")
        for number, price in enumerate(("8 €", "9 €", "7 €")):
            field = dialog.get_by_label(f"price of cup {number}.png", exact=True)
            expect(field).to_have_value(price)
        # The row in hand is shown as it will be, before anything is made.
        look = dialog.get_by_role("img", name="cup 2.png as it will be")
        dialog.get_by_label("price of cup 2.png").focus()
        expect(look).to_be_visible()
        before = look.get_attribute("src")
        dialog.get_by_label("price of cup 2.png").fill("7.50 €")
        expect(look).not_to_have_attribute("src", before)
        dialog.get_by_label("price of cup 2.png").fill("7 €")
        dialog.get_by_role("button", name="Make 3 finishes").click()
        expect(page.get_by_text("3 finishes, 3 pictures")).to_be_visible()
        expect(page.get_by_role("heading", name="Being checked")).to_be_hidden()
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save all as one zip").click()
        self.assertEqual(caught.value.suggested_filename, "finished-photos.zip")
        with zipfile.ZipFile(Path(caught.value.path())) as archive:
            names = archive.namelist()
            pictures = [Image.open(io.BytesIO(archive.read(name))) for name in names]
        self.assertEqual(names, [f"cup-{n}-1080x1080.jpg" for n in range(3)])
        self.assertEqual({picture.size for picture in pictures}, {(1080, 1080)})
        page.get_by_role("button", name="Open cup 1").click()
        self.on_bench()
        self.step("Text & badges")
        expect(page.locator("button[aria-controls=step-pieces]")).to_contain_text("cup 1, 9 €")
        page.get_by_role("button", name="Contact sheet").click()
        expect(page.get_by_text("3 finishes, 3 pictures")).to_be_visible()


class SheetTest(BrowserTest):
    def test_saving_all_is_paused_gone_on_with_and_called_off(self):
        page = self.page
        self.bring_data(("ash grey.png", encoded(np.full((600, 800, 3), 120, np.uint8))))
        self.on_bench()
        for name in ("Square post", "Tall post", "Story", "Link card"):
            self.add_size(name)
        finish = page.url.rsplit("/", 1)[1]
        page.goto(f"{self.service.url}/sheet?of={finish}")
        expect(page.get_by_text("1 finish, 5 pictures")).to_be_visible()
        expect(page.get_by_role("heading", name="Being checked")).to_be_hidden()
        downloads, asked = [], self.requests()
        page.on("download", lambda file: downloads.append(file))
        made = f"/finishes/{finish}/weigh"
        save = self.button("Save all as one zip")
        with self.held_back(f"**{made}"):
            save.click()
            self.button("Pause").press("Enter")
            expect(self.button("Go on")).to_be_visible()
        # What was under way is finished, and no more is begun.
        expect(page.get_by_text(re.compile("^3 of 5$"))).to_be_visible()
        self.assertEqual((asked.count(made), downloads), (3, []))
        with page.expect_download() as caught:
            self.button("Go on").press("Enter")
        with zipfile.ZipFile(Path(caught.value.path())) as archive:
            sides = [name.removesuffix(".jpg").rsplit("-", 1)[1] for name in archive.namelist()]
        self.assertEqual(sides, ["800x600", "1080x1080", "1080x1350", "1080x1920", "1200x630"])
        with self.held_back(f"**{made}"):
            save.click()
            self.button("Cancel").click()
        expect(save).to_be_visible()
        self.assertEqual((asked.count(made), len(downloads)), (8, 1))


class TryOutTest(BrowserTest):
    """Made-up places with the very file in them."""

    def test_what_is_shown_is_what_would_be_saved(self):
        page = self.page
        self.open_finish_of("mugs-window.jpg")
        self.use_size("Video thumbnail")
        self.add_size("Round avatar")
        self.work_on("Video thumbnail")
        page.get_by_role("button", name="Try-out").click()
        dialog = page.get_by_role("dialog", name="Try-out")
        expect(dialog.get_by_role("radio", name="in a list")).to_be_checked()
        picture = dialog.get_by_role("img", name="mugs-window")
        expect(picture).to_have_js_property("complete", True)
        expect(picture).to_have_js_property("naturalWidth", 1280)
        shown = page.request.get(self.service.url + picture.get_attribute("src")).body()
        for place in ("on a phone", "above a page", "with a link", "in print"):
            dialog.get_by_role("radio", name=place).click()
            expect(dialog.get_by_role("img", name="mugs-window")).to_be_visible()
        dialog.get_by_label("Size to try out").select_option(label="Round avatar")
        expect(dialog.get_by_role("radio", name="beside a name")).to_be_checked()
        expect(dialog.get_by_role("img", name="mugs-window")).to_have_count(3)
        page.keyboard.press("Escape")
        self.step("Export")
        _, saved = self.saved_file()
        self.assertEqual(shown, saved)
