"""Nothing is lost: drags whose end never comes, answers that break off, drafts that wait."""

import json
import re

from playwright.sync_api import expect

from tests.browser.base import BrowserTest

COUNT_URLS = """
    window.openUrls = new Set();
    const [create, revoke] = [URL.createObjectURL, URL.revokeObjectURL];
    URL.createObjectURL = (blob) => { const url = create(blob); openUrls.add(url); return url; };
    URL.revokeObjectURL = (url) => { openUrls.delete(url); revoke(url); };
"""


class LeftDragTest(BrowserTest):
    """After each of these the next edit is made and saved."""

    def setUp(self):
        super().setUp()
        self.open_finish_of("mugs-window.jpg")
        self.use_size("Tall post")
        self.step("Crop")

    def saved(self):
        return expect(self.page.locator("header .state"))

    def begin_drag(self):
        """Drag a corner of the window, without letting go."""
        grip = self.page.get_by_role("button", name=re.compile("^Bottom right corner"))
        self.drag(self.middle(grip), (-40, -50), drop=False)
        self.wait_until(lambda: "saving" in self.page.locator("header .state").inner_text())

    def next_edit_works(self):
        self.step("Border")
        with self.one_change():
            self.type_in("All sides, typed", "3")

    def test_the_step_is_switched_in_the_middle(self):
        self.begin_drag()
        self.page.keyboard.press("4")
        self.saved().to_have_text(re.compile("^saved"))
        self.page.mouse.up()
        self.next_edit_works()

    def test_the_window_is_left_in_the_middle(self):
        self.begin_drag()
        self.page.evaluate("window.dispatchEvent(new Event('blur'))")
        self.saved().to_have_text(re.compile("^saved"))
        self.page.mouse.up()
        self.next_edit_works()

    def test_the_pointer_is_lost_in_the_middle(self):
        self.page.evaluate(
            "addEventListener('pointerdown', (event) => window.pressed = event, true)"
        )
        self.begin_drag()
        self.page.evaluate("pressed.target.releasePointerCapture(pressed.pointerId)")
        self.page.mouse.move(5, 5)
        self.saved().to_have_text(re.compile("^saved"))
        self.page.mouse.up()
        self.next_edit_works()

    def test_the_finish_is_left_in_the_middle(self):
        self.begin_drag()
        self.page.evaluate("history.back()")
        expect(self.page.get_by_role("heading", name="Add a photo")).to_be_visible()
        self.page.mouse.up()
        self.page.evaluate("history.forward()")
        self.on_bench()
        self.next_edit_works()

    def test_a_field_is_typed_in_and_left_as_it_was(self):
        self.step("Watermark")
        field = self.page.get_by_label("Words")
        field.press("a")
        field.press("Backspace")
        self.page.locator("header.top").click(position={"x": 400, "y": 10})
        self.next_edit_works()


class BrokenAnswerTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.open_finish_of("bowl-top.jpg")
        self.step("Border")

    def answer_once(self, path, **answer):
        """The next request for a path gets this answer, without reaching the service."""
        self.page.route(path, lambda route: route.fulfill(**answer), times=1)

    def test_an_answer_that_breaks_off_is_asked_for_again(self):
        cut = {"status": 200, "body": '{"document": {"na', "content_type": "application/json"}
        self.answer_once("**/api/bench/draft", **cut)
        with self.one_change():
            self.type_in("All sides, typed", "3")

    def test_a_draft_that_the_service_forgot_is_sent_again_unseen(self):
        forgotten = {"title": "UnknownDraft", "status": 404, "detail": "Send it again."}
        for path in ("**/api/bench/draft", "**/api/bench/preview", "**/api/finishes/*"):
            refusal = json.dumps(forgotten)
            self.answer_once(path, status=404, body=refusal, content_type="application/json")
        with self.one_change():
            self.type_in("All sides, typed", "3")
        self.assertEqual(self.page.get_by_role("alert").count(), 0)

    def test_an_edit_that_throws_is_told_and_the_next_one_works(self):
        nothing = {"status": 200, "body": "null", "content_type": "application/json"}
        self.answer_once("**/api/bench/draft", **nothing)
        self.type_in("All sides, typed", "3")
        expect(self.page.get_by_text("Something went wrong on this page")).to_be_visible()
        self.assertTrue(self.errors)
        self.errors.clear()
        with self.one_change():
            self.type_in("All sides, typed", "4")

    def test_what_nobody_catches_is_told_and_the_page_goes_on(self):
        self.page.evaluate("void Promise.reject(new TypeError('nobody catches this'))")
        expect(self.page.get_by_text("Something went wrong on this page")).to_be_visible()
        self.assertIn("nobody catches this", " ".join(self.errors))
        self.errors.clear()
        with self.one_change():
            self.type_in("All sides, typed", "4")

    def test_a_save_whose_answer_is_lost_is_recognised_as_ones_own(self):
        saves = []

        def lose_the_first(route):
            if route.request.method != "PUT" or saves:
                return route.continue_()
            saves.append(route.fetch().status)
            return route.abort()

        self.page.route("**/api/finishes/*", lose_the_first)
        self.type_in("All sides, typed", "3")
        expect(self.page.locator("header .state")).to_have_text("saved · change 1")
        self.assertEqual(saves, [200])
        expect(self.page.get_by_text("changed in another window")).to_be_hidden()
        with self.one_change():
            self.type_in("All sides, typed", "4")


class KeptDraftTest(BrowserTest):
    def kept(self):
        return self.page.evaluate(
            "Object.entries(localStorage).filter(([key]) => key.startsWith('lucky-margin-draft'))"
        )

    def leave_a_draft(self):
        """Reload the page with a draft in local storage that was never saved."""
        self.open_finish_of("bowl-top.jpg")
        finish = self.page.url.rsplit("/", 1)[-1]
        address = f"{self.service.url}/api/finishes/{finish}"
        state = self.page.request.get(address).json()
        unsaved = {"etag": state["etag"], "document": state["document"] | {"name": "Rescued"}}
        self.page.evaluate(
            "([key, draft]) => localStorage.setItem(key, draft)",
            [f"lucky-margin-draft-{finish}", json.dumps(unsaved)],
        )

    def test_it_stays_until_the_service_has_it(self):
        self.leave_a_draft()
        refusal = {"type": "about:blank", "title": "BadInput", "status": 422, "detail": "No."}

        def handle(route):
            if "Rescued" not in (route.request.post_data or ""):
                return route.continue_()
            return route.fulfill(
                status=422, body=json.dumps(refusal), content_type="application/problem+json"
            )

        self.page.route("**/api/drafts", handle)
        self.page.reload()
        expect(self.page.get_by_text("are still kept in this browser")).to_be_visible()
        self.assertEqual(len(self.kept()), 1)
        # A change that is saved meanwhile does not take its place.
        self.step("Border")
        with self.one_change():
            self.type_in("All sides, typed", "3")
        self.assertEqual(len(self.kept()), 1)
        self.page.unroute("**/api/drafts")
        self.page.reload()
        expect(self.page.get_by_text("kept as a copy on the shelf")).to_be_visible()
        self.assertEqual(self.kept(), [])

    def test_it_comes_back_at_once_when_nothing_is_in_the_way(self):
        self.leave_a_draft()
        self.page.reload()
        expect(self.page.get_by_label("Name of this finish")).to_have_value("Rescued")
        self.wait_until(lambda: self.kept() == [])


class SavingMeanwhileTest(BrowserTest):
    def test_the_file_is_that_of_a_change_made_while_it_was_waited_for(self):
        page, held = self.page, []
        self.open_finish_of("bowl-top.jpg")
        self.step("Export")
        formats = page.get_by_role("radiogroup", name="Format")
        page.route("**/weigh", lambda route: held.append(route))
        with self.one_change():
            formats.get_by_role("radio", name="PNG").click()
        self.wait_until(lambda: len(held) == 1)
        with page.expect_download() as caught:
            page.get_by_role("button", name="Save this size").click()
            with self.one_change():
                formats.get_by_role("radio", name="WebP").click()
            self.wait_until(lambda: len(held) == 2)
            held[0].continue_()
            page.wait_for_timeout(500)  # time to go wrong in
            held[1].continue_()
        self.assertTrue(caught.value.suggested_filename.endswith(".webp"))

    def test_a_file_whose_turn_an_older_request_took_is_asked_for_again(self):
        page, asked = self.page, []
        self.open_finish_of("bowl-top.jpg")
        taken = {"id": "a1" * 16, "news": 1, "state": "cancelled", "progress": 1}

        def weigh(route):
            asked.append(route)
            if len(asked) > 1:
                return route.continue_()
            return route.fulfill(json=taken | {"result": None, "problem": None})

        page.route("**/weigh", weigh)
        self.step("Export")
        with page.expect_download():
            page.get_by_role("button", name="Save this size").click()
        self.assertEqual(len(asked), 2)


class ClosingTest(BrowserTest):
    def test_no_picture_is_kept_in_memory_after_the_bench_is_left(self):
        page = self.page = self.new_page()
        page.add_init_script(COUNT_URLS)
        page.goto(self.service.url)
        for turn in range(3):
            if turn == 0:
                self.bring("bird-figure.jpg")
            else:
                page.get_by_role("button", name="Open bird-figure").click()
            self.on_bench()
            self.step("Tone")
            if turn == 0:  # else it is left while pictures are still on their way
                page.wait_for_timeout(800)
            page.get_by_role("button", name="Shelf").click()
            expect(page.get_by_role("heading", name="Photos")).to_be_visible()
            self.wait_until(lambda: page.evaluate("openUrls.size") == 0)


class QuickTypingTest(BrowserTest):
    def test_a_dialog_that_opens_slowly_takes_no_focus_back(self):
        page = self.page
        self.open_finish_of("bowl-top.jpg")
        page.get_by_role("button", name="+ size").click()
        page.get_by_label("Search sizes").fill("avatar")
        found = page.get_by_role("button", name=re.compile("^Round avatar"))
        found.focus()
        page.wait_for_timeout(600)  # the dialog has faded in
        expect(found).to_be_focused()
