"""Writing in the drawn text itself: the caret, marking, other scripts, input methods."""

import re

from playwright.sync_api import expect

from tests.browser.base import BrowserTest

MARKED = "() => [document.activeElement.selectionStart, document.activeElement.selectionEnd]"
BOXES = "(boxes) => boxes.map((box) => box.getBoundingClientRect().toJSON())"


class WritingTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.open_finish_of("mugs-window.jpg")
        self.step("Text & badges")

    def field(self, label="Words of the text"):
        return super().field(label)

    def write(self, words):
        """A headline with these words, its caret at their end."""
        self.button("Headline", exact=True).click()
        expect(self.field()).to_be_focused()
        self.page.keyboard.insert_text(words)
        expect(self.page.locator(".writing")).to_have_attribute("aria-busy", "false")
        self.caret_is_at(len(words.encode("utf-16-le")) // 2)

    def caret_is_at(self, *places):
        start, end = places if len(places) == 2 else places * 2
        self.wait_until(lambda: self.page.evaluate(MARKED) == [start, end])

    def letters(self, count):
        """Boxes of the letters on the page, as the service lays them out: left to right."""
        self.page.keyboard.press("Control+a")
        boxes = self.page.locator(".writing .marked")
        expect(boxes).to_have_count(count)
        return sorted(boxes.evaluate_all(BOXES), key=lambda box: box["x"])

    def click_between(self, one, other):
        x = (one["x"] + one["width"] + other["x"]) / 2
        self.page.mouse.click(x, one["y"] + one["height"] / 2)

    def test_a_click_between_two_letters_puts_the_caret_there(self):
        self.write("Glaze")
        letters = self.letters(5)
        for place in (2, 4):
            self.click_between(letters[place - 1], letters[place])
            self.caret_is_at(place)
        self.page.keyboard.insert_text("-")
        self.page.keyboard.press("Escape")
        expect(self.page.locator("[data-piece=text-1]")).to_have_attribute("aria-label", "Glaz-e")

    def test_in_text_from_the_right_too(self):
        self.write("שלום")
        letters = self.letters(4)
        # Counted from the right, where it begins.
        self.click_between(letters[2], letters[3])
        self.caret_is_at(1)
        self.click_between(letters[0], letters[1])
        self.caret_is_at(3)

    def test_lines_are_walked_and_marked_with_the_keys(self):
        self.write("Fresh\nfrom\nhere")
        page = self.page
        page.keyboard.press("ArrowUp")
        self.wait_until(lambda: 6 <= page.evaluate(MARKED)[0] <= 10)
        page.keyboard.press("Home")
        self.caret_is_at(6)
        page.keyboard.press("Shift+End")
        self.caret_is_at(6, 10)
        expect(page.locator(".writing .marked")).to_have_count(4)
        page.keyboard.press("ArrowUp")
        page.keyboard.press("ArrowUp")
        page.keyboard.press("Home")
        self.caret_is_at(0)

    def test_a_word_is_marked_by_a_double_click_and_coloured_in_the_docket(self):
        self.write("was new")
        letters, page = self.letters(7), self.page
        x, y = self.middle_of(letters[1])
        page.mouse.dblclick(x, y)
        self.caret_is_at(0, 3)
        colour = page.get_by_label("Marked letters’ colour, typed")
        with self.one_change():
            colour.fill("#B8401A")
            colour.press("Enter")
        # What is marked stays marked while the docket works on it.
        expect(page.locator(".writing .marked")).to_have_count(3)
        self.assertEqual(self.document()["pieces"][0]["parts"][0]["end"], 3)
        page.mouse.move(*self.middle_of(letters[4]))
        page.mouse.down()
        page.mouse.move(*self.middle_of(letters[-1]), steps=4)
        page.mouse.up()
        expect(page.locator(".writing .marked")).not_to_have_count(3)
        expect(self.field()).to_be_focused()

    def middle_of(self, box):
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def document(self):
        finish = self.page.url.rsplit("/", 1)[-1]
        answer = self.page.request.get(f"{self.service.url}/api/finishes/{finish}")
        return answer.json()["document"]

    def test_input_methods_compose_in_the_picture(self):
        self.write("Tea ")
        cdp = self.page.context.new_cdp_session(self.page)
        for text in ("お", "おち", "おちゃ"):
            cdp.send(
                "Input.imeSetComposition",
                {"text": text, "selectionStart": len(text), "selectionEnd": len(text)},
            )
        expect(self.field()).to_have_value("Tea おちゃ")
        with self.one_change():
            cdp.send("Input.insertText", {"text": "お茶"})
        expect(self.field()).to_have_value("Tea お茶")
        self.page.keyboard.press("Escape")
        self.assertEqual(self.document()["pieces"][0]["text"], "Tea お茶")

    def test_undo_copying_and_letters_outside_the_first_plane(self):
        page = self.page
        page.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.write("a👩‍👩‍👧b")
        page.keyboard.press("Home")
        page.keyboard.press("ArrowRight")
        page.keyboard.press("Shift+ArrowRight")
        page.keyboard.press("Control+c")
        page.keyboard.press("End")
        page.keyboard.press("Control+v")
        expect(self.field()).to_have_value("a👩‍👩‍👧b👩‍👩‍👧")
        page.keyboard.press("Control+z")
        expect(self.field()).to_have_value("a👩‍👩‍👧b")
        self.letters(3)

    def test_words_are_written_where_they_are_double_clicked(self):
        self.write("Mugs")
        letters, page = self.letters(4), self.page
        page.keyboard.press("Escape")
        expect(self.field()).to_be_hidden()
        x = letters[2]["x"]
        page.mouse.dblclick(x, letters[2]["y"] + letters[2]["height"] / 2)
        expect(self.field()).to_be_focused()
        self.caret_is_at(2)
        page.get_by_role("heading", name="Checks").click()
        expect(self.field()).to_be_hidden()
        expect(page.locator("header .state")).to_have_text(re.compile("^saved"))
