"""The library in the browser: photos, backdrops and badges found, liked, and put to use."""

import re

import numpy as np
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.support import encoded


def plain(*colour):
    return encoded(np.full((300, 400, 3), colour, np.uint8))


class LibraryTest(BrowserTest):
    def test_photos_are_found_by_colour_liked_and_traced_to_their_finishes(self):
        page = self.page
        self.bring_data(("sea.png", plain(20, 70, 200)), ("moss.png", plain(40, 140, 60)))
        photos = page.get_by_role("list", name="Photos").get_by_role("listitem")
        for name in ("sea", "moss"):
            expect(photos.filter(has_text=name)).to_be_visible()
        page.get_by_label("Colour of photos").select_option("green")
        expect(photos.filter(has_text="sea")).to_be_hidden()
        moss = photos.filter(has_text="moss")
        moss.hover()
        moss.get_by_role("button", name="Favourite: moss.png").click()
        page.get_by_label("Colour of photos").select_option("any colour")
        page.get_by_role("button", name="Favourites").click()
        expect(photos).to_have_count(1)
        moss.get_by_role("button", name="in 1 finish").click()
        finishes = page.get_by_role("list", name="Finishes").get_by_role("listitem")
        expect(finishes).to_have_count(1)
        expect(page.get_by_text("with the photo “moss.png”")).to_be_visible()
        page.get_by_role("button", name="Show all finishes").click()
        expect(finishes.filter(has_text="sea")).to_be_visible()
        page.get_by_label("Search photos").fill("nothing such")
        expect(page.get_by_text("No photo is like that.")).to_be_visible()
        page.get_by_role("button", name="Show all photos").click()
        expect(photos.filter(has_text="sea")).to_be_visible()

    def test_several_photos_are_deleted_together_and_what_is_needed_stays(self):
        page = self.page
        self.bring_data(("one.png", plain(250, 240, 10)), ("two.png", plain(240, 10, 250)))
        finishes = page.get_by_role("list", name="Finishes").get_by_role("listitem")
        finishes.filter(has_text="two").hover()
        finishes.filter(has_text="two").get_by_role("button", name="Bin").click()
        page.get_by_role("button", name="Bin", exact=True).first.click()
        gone = finishes.filter(has_text="two")
        gone.get_by_role("button", name=re.compile("^Delete")).click()
        page.get_by_role("button", name="Delete", exact=True).click()
        page.get_by_role("button", name="Back to the shelf").click()
        for name in ("one.png", "two.png"):
            page.get_by_label(f"Choose {name}").check()
        page.get_by_role("button", name="Delete 2…").click()
        page.get_by_role("button", name="Delete", exact=True).click()
        expect(page.get_by_text(re.compile("one.png: This photo is still used by"))).to_be_visible()
        photos = page.get_by_role("list", name="Photos")
        expect(photos.get_by_text("two", exact=True)).to_be_hidden()
        expect(photos.get_by_text("one", exact=True)).to_be_visible()

    def test_a_backdrop_is_found_by_a_word_and_stands_behind_a_whole_photo(self):
        page = self.page
        self.bring_data(("dish.png", plain(120, 40, 30)))
        self.on_bench()
        self.use_size("Square post")
        self.step("Crop")
        with self.one_change():
            page.get_by_role("radio", name="show the whole photo").click()
        self.fold("Backgrounds")
        place = page.get_by_role("radiogroup", name="Backdrop", exact=True)
        with self.one_change():
            place.get_by_role("radio", name="backdrop", exact=True).click()
        page.get_by_label("Search backdrops").first.fill("autumn")
        offered = page.get_by_role("radiogroup", name="Backdrop, which").get_by_role("radio")
        expect(offered).to_have_count(1)
        with self.one_change():
            offered.click()
        expect(offered).to_be_checked()
        picture = self.saved_picture("Crop")
        self.assertLess(np.abs(np.median(picture[:80], axis=(0, 1)) - (0xF3, 0xE7, 0xD3)).max(), 4)

    def test_a_badge_of_several_parts_is_put_on_and_kept_among_the_recent(self):
        page = self.page
        self.bring_data(("stall.png", plain(90, 110, 90)))
        self.on_bench()
        self.step("Text & badges")
        page.get_by_role("button", name="Badge, arrow").click()
        page.get_by_label("Search badges").fill("discount")
        offered = page.get_by_role("radiogroup", name="Badge of several parts")
        with self.one_change():
            offered.get_by_role("radio", name="Percent off").click()
        self.assertIn("30%", page.locator(".docket").inner_text())
        page.get_by_role("button", name="Badge, arrow").click()
        page.get_by_role("button", name="Recent").click()
        expect(offered.get_by_role("radio")).to_have_count(1)
        page.get_by_label("Search badges").fill("nothing such")
        expect(page.get_by_text("No badge is like that")).to_be_visible()
