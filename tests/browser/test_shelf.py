"""The shelf: photos come in by any way, are found again, binned and restored."""

import contextlib
import re
import sqlite3
import zipfile
from pathlib import Path

from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.support import DEMO_PHOTOS, encoded, noise


class ShelfTest(BrowserTest):
    def test_an_empty_shelf_helps(self):
        if self.page.get_by_role("list", name="Photos").count() == 0:
            expect(self.page.get_by_text("Your shelf is still empty")).to_be_visible()

    def test_several_photos_make_several_finishes(self):
        self.bring_data(("one.png", encoded(noise(60, 50))), ("two.png", encoded(noise(50, 60))))
        for name in ("one", "two"):
            expect(self.page.get_by_role("button", name=f"Open {name}", exact=True)).to_be_visible()

    def test_a_pasted_picture_gets_a_dated_name(self):
        self.bring_data(("image.png", encoded(noise(70, 50))), kind="paste")
        expect(self.page.get_by_label("Name of this finish")).to_have_value(
            re.compile(r"^Pasted \d{4}-\d\d-\d\d \d\d\.\d\d\.\d\d$")
        )

    def test_picking_takes_the_same_way(self):
        self.page.locator("input[type=file]").set_input_files(DEMO_PHOTOS / "bird-figure.jpg")
        expect(self.page.get_by_label("Name of this finish")).to_have_value("bird-figure")

    def test_a_drop_on_the_bench_starts_a_new_finish(self):
        self.bring_data(("first.png", encoded(noise(61, 50))))
        expect(self.page.get_by_label("Name of this finish")).to_have_value("first")
        self.bring_data(("second.png", encoded(noise(62, 50))))
        expect(self.page.get_by_label("Name of this finish")).to_have_value("second")

    def test_a_bad_file_dropped_on_the_bench_leaves_the_work_where_it_is(self):
        self.bring_data(("kept.png", encoded(noise(63, 50))))
        expect(self.page.get_by_label("Name of this finish")).to_have_value("kept")
        self.bring_data(("broken.jpg", b"no photo"))
        expect(self.page.get_by_text("“broken.jpg” is not a picture")).to_be_visible()
        expect(self.page.get_by_label("Name of this finish")).to_have_value("kept")

    def test_refused_files_say_why_and_the_rest_comes_in(self):
        self.bring_data(
            ("notes.jpg", b"these are words"),
            ("scan.cr3", b"raw"),
            ("good.png", encoded(noise(40, 40))),
        )
        expect(self.page.get_by_role("button", name="Open good", exact=True)).to_be_visible()
        side = self.page.get_by_role("complementary")
        expect(side).to_contain_text("“notes.jpg” is not a picture that can be read")
        expect(side).to_contain_text("the raw files of a camera need to be saved as JPEG")

    def test_a_finish_that_can_t_be_shown_is_undone_from_its_card(self):
        page = self.page
        self.bring_data(("spoilt.png", encoded(noise(64, 50))))
        expect(page.get_by_label("Name of this finish")).to_have_value("spoilt")
        with self.one_change():
            page.get_by_label("Name of this finish").fill("spoilt twice")
            page.keyboard.press("Enter")
        too_tall = '{"kind": "one_side", "side": "height", "length": 16000, "ratio": null}'
        path = self.service.data / "lucky-margin.sqlite3"
        with contextlib.closing(sqlite3.connect(path)) as database, database:
            database.execute(
                "UPDATE revisions SET document = json_set(document, '$.sizes[0].pixels', json(?))"
                " WHERE id = (SELECT head FROM finishes WHERE name = 'spoilt twice')",
                (too_tall,),
            )
        page.goto(self.service.url)
        card = page.get_by_role("listitem").filter(has_text="spoilt twice")
        expect(card).to_contain_text("can’t be shown")
        expect(card).to_contain_text("megapixels")
        card.get_by_role("button", name="Undo its last change").click()
        expect(page.get_by_role("button", name="Open spoilt", exact=True)).to_be_visible()

    def test_tiny_and_thin_photos_can_be_worked_on(self):
        for name, width, height in (("speck.png", 1, 1), ("thin.png", 3000, 9)):
            with self.subTest(name):
                self.bring_data((name, encoded(noise(width, height))))
                expect(self.page.get_by_label("Name of this finish")).to_have_value(name[:-4])
                self.on_bench()
                self.use_size("Square post")
                expect(self.page.get_by_text(re.compile("^Poor:"))).to_be_visible()

    def test_search_bin_and_restore(self):
        page = self.page
        self.bring_data(("Grün.png", encoded(noise(44, 40))), ("Rot.png", encoded(noise(45, 40))))
        expect(page.get_by_role("button", name="Open Rot")).to_be_visible()
        page.get_by_label("Search by name").fill("grun")
        expect(page.get_by_role("button", name="Open Rot")).to_be_hidden()
        card = page.get_by_role("listitem").filter(has_text="Grün").first
        card.hover()
        card.get_by_role("button", name="Bin").click()
        expect(page.get_by_text("Nothing is called “grun”")).to_be_visible()
        page.get_by_role("button", name="Bin", exact=True).first.click()
        page.get_by_role("button", name="Restore Grün").click()
        expect(page.get_by_text("The bin is empty")).to_be_visible()
        page.get_by_role("button", name="Back to the shelf").click()
        expect(page.get_by_role("button", name="Open Grün")).to_be_visible()

    def test_the_shelf_is_checked_and_backed_up_and_no_backup_goes_over_it(self):
        page = self.page
        self.bring_data(("sound.png", encoded(noise(66, 50))))
        expect(page.get_by_label("Name of this finish")).to_have_value("sound")
        self.button("Shelf", exact=True).click()
        self.button("Upkeep").click()
        dialog = page.get_by_role("dialog")
        photos = dialog.get_by_role("row", name="Photos")
        expect(photos).to_contain_text(re.compile(r"\d+ ?[KM]B"))
        dialog.get_by_role("button", name="Check all files").click()
        expect(dialog.get_by_text(re.compile("files checked; all are sound"))).to_be_visible()
        expect(dialog.get_by_role("button", name="Remove them")).to_be_disabled()
        with page.expect_download() as caught:
            dialog.get_by_role("button", name="Back up").click()
        backup = Path(caught.value.path())
        self.assertTrue(zipfile.is_zipfile(backup))
        self.button("Upkeep").click()
        dialog.get_by_label("A backup").set_input_files(backup)
        expect(page.get_by_text("This shelf is not empty")).to_be_visible()
        expect(page.get_by_role("button", name="Open sound", exact=True)).to_be_visible()

    def test_a_used_photo_is_not_deleted(self):
        page = self.page
        self.bring_data(("used.png", encoded(noise(46, 40))), ("other.png", encoded(noise(47, 40))))
        expect(page.get_by_role("button", name="Open used", exact=True)).to_be_visible()
        card = (
            page.get_by_role("list", name="Photos").get_by_role("listitem").filter(has_text="used")
        )
        card.hover()
        card.get_by_role("button", name="Delete…").click()
        page.get_by_role("button", name="Delete", exact=True).click()
        expect(page.get_by_text("still used by used")).to_be_visible()
