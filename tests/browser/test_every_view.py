"""Every step and dialog in several sizes of the window: nothing is cut, overlaps or sticks out, axe
finds nothing, and what can be misunderstood is explained."""

import re
from pathlib import Path

import numpy as np
from playwright.sync_api import expect

from lucky_margin.core.checks.legibility import contrast_ratio, relative_luminance
from tests.browser.base import BrowserTest, axe_source
from tests.endure import amount

FAULTS = (Path(__file__).parent / "layout_faults.js").read_text()
OPEN_FOLDS = """
    () => document.querySelectorAll('.fold h2 button[aria-expanded=false]')
        .forEach((button) => button.click())
"""
UNEXPLAINED = """
    () => [...document.querySelectorAll('.docket .slider-row')]
        .filter((row) => !row.dataset.tip).map((row) => row.querySelector('span').textContent)
"""
NARROW, USUAL, ZOOMED = (1024, 700), (1280, 800), (640, 400)
WINDOWS = amount([NARROW, ZOOMED, USUAL], [NARROW, (1440, 900), (1920, 1080), ZOOMED, USUAL])
"""In CSS pixels; ``ZOOMED`` is 1280 x 800 at 200 %. All else is done in the last one."""

LONG_NAME = "A rather long name of a size for the season's banner"
GREY = {"kind": "colour", "colour": "#808080"}
MARK = {"id": 1, "name": "Studio mark of the pottery", "version": 1,
        "design": {"words": "Pebblewick", "line": "pottery", "icon": "amphora"}}  # fmt: skip


def document_with_everything(document, sha256):
    """A finish in which every step and most folds have something set."""
    sizes = [document["sizes"][0]] + [
        {"id": f"size-{number}", "name": name, "pixels": {"kind": "fixed", "width": w, "height": h},
         "seen_width": 400}
        for number, (name, w, h) in enumerate(
            ((LONG_NAME, 1500, 500), ("Tall", 1080, 1920))
        )
    ]  # fmt: skip
    band = {"kind": "band"}
    return document | {
        "sizes": sizes,
        "tone": {
            "exposure": 0.4,
            "areas": [{"masks": [band, {"kind": "subject", "inverted": True}]},
                      {"masks": [{"kind": "hue", "hue": 40, "reach": 20, "softness": 20}]}],
            "washes": [{"stops": [{"at": 0, "colour": "#B8401A"},
                                  {"at": 1, "colour": "#1F6B4B"}]}],
        },
        "treatments": {"made": [
            {"kind": "grain"},
            {"kind": "mosaic", "joint": 0.1, "masks": [{"kind": "ellipse"}, {"kind": "subject"}]},
        ]},
        "lifts": {"lifted": [{"edge": 0.01}, {"tilt": 9}]},
        "border": {"bands": [{"kind": "line", "corners": "round"}, {"kind": "mat"},
                             {"kind": "pattern"}]},
        "pieces": [
            {"kind": "text", "id": "text-1", "text": "A headline of several words", "size": 0.1,
             "outline": {"width": 0.05, "colour": "#1E2A2F"},
             "plate": {"padding": 0.2, "radius": 0.1, "colour": "#1E2A2F", "opacity": 0.5}},
            {"kind": "badge", "id": "badge-1", "form": "burst", "text": "new", "stroke": "#1E2A2F"},
            {"kind": "picture", "id": "picture-1", "sha256": sha256, "ratio": 1, "cut": "circle"},
            {"kind": "mark", "id": "mark-1", "mark": MARK},
        ],
        "watermark": {"text": "Pebblewick Pottery", "place": "repeated"},
        "outside": GREY,
    }  # fmt: skip


class EveryViewTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.open_finish_of("bird-figure.jpg")
        page = self.page
        api, finish = f"{self.service.url}/api", page.url.rsplit("/", 1)[-1]
        state = page.request.get(f"{api}/finishes/{finish}").json()
        photo = state["document"]["photo"]["sha256"]
        document = document_with_everything(state["document"], photo)
        named = page.request.post(f"{api}/drafts", data=document)
        self.assertTrue(named.ok, named.text())
        body = {"etag": state["etag"], "draft": named.json()["draft"]}
        self.assertTrue(page.request.put(f"{api}/finishes/{finish}", data=body).ok)
        page.reload()
        expect(page.locator("button.proof")).to_have_count(3)

    def look(self, what):
        """The view that is open has no fault in any window."""
        for width, height in WINDOWS:
            self.page.set_viewport_size({"width": width, "height": height})
            with self.subTest(what, window=f"{width}x{height}"):
                self.assertEqual(self.lasting_faults(), [])
        with self.subTest(what, axe=True):
            self.assertEqual(self.violations(), [])

    def lasting_faults(self):
        """The faults that are still there when the window has had time to settle."""
        for _ in range(20):
            self.page.wait_for_timeout(150)
            faults = self.page.evaluate(FAULTS)
            if not faults:
                break
        return faults

    def violations(self):
        self.page.evaluate(axe_source())
        found = self.page.evaluate("axe.run().then((result) => result.violations)")
        return [(one["id"], [node["target"] for node in one["nodes"]][:3]) for one in found]

    def unfold(self):
        for _ in range(2):  # a fold may hold others
            self.page.evaluate(OPEN_FOLDS)
            self.page.wait_for_timeout(200)
        self.assertEqual(self.page.evaluate(UNEXPLAINED), [], "sliders without an explanation")

    def test_what_is_told_in_passing_can_be_read(self):
        page = self.page
        self.step("Cut-out")
        self.button("Draw a box").click()
        self.drag(self.middle(page.locator(".stage img.picture")), (0, 40))
        notice = page.get_by_role("alert").filter(has_text="To draw a box, press and drag")
        expect(notice).to_be_visible()
        # It lies over the picture, so axe gives no verdict.
        colours = notice.evaluate(
            "(box) => [box.querySelector('p'), box].map((one, number) =>"
            " getComputedStyle(one)[number ? 'backgroundColor' : 'color'])"
        )
        letters, ground = (
            relative_luminance(np.array(re.findall(r"\d+", colour)[:3], float) / 255)
            for colour in colours
        )
        self.assertGreater(contrast_ratio(letters, ground), 4.5)

    def test_every_step(self):
        page = self.page
        for step in ("Crop", "Spots", "Tone", "Border", "Watermark", "Export"):
            self.step(step)
            self.unfold()
            self.look(step)
            for kind in ("1 line", "2 mat", "3 pattern") if step == "Border" else ():
                page.get_by_role("radio", name=kind, exact=True).click()
                self.look(kind)
        self.step("Text & badges")
        for piece in ("A headline", "Burst", "Picture", "Studio mark"):
            page.get_by_role("list", name="Pieces").get_by_role("button", name=piece).first.click()
            self.unfold()
            self.look(piece)
        self.button("QR code").click()
        self.look("QR code")
        page.keyboard.press("Escape")
        page.keyboard.press("Escape")
        self.look("no step")
        page.keyboard.press("a")
        expect(page.get_by_role("group", name="Every size as seen")).to_be_visible()
        self.look("as seen")

    def test_the_cut_out(self):
        page = self.page
        self.step("Cut-out")
        with self.one_change():
            self.button("Find the subject").click()
        for ready in ("bold", "standing"):
            self.unfold()
            with self.one_change():
                self.button(ready, exact=True).click()
        self.unfold()
        self.look("Cut-out")
        page.get_by_role("radio", name="keep", exact=True).click()
        self.look("Cut-out with a brush")

    def dialog(self, name, field=None):
        dialog = self.page.get_by_role("dialog")
        expect(dialog).to_be_visible()
        if field:
            expect(dialog.get_by_label(field, exact=True)).to_be_focused()
        self.page.wait_for_timeout(400)  # until it has faded in
        self.look(name)
        self.page.keyboard.press("Escape")
        expect(dialog).to_be_hidden()

    def test_every_dialog(self):
        page = self.page
        self.button(re.compile("^saved")).click()
        self.dialog("history")
        self.button("Keep a version").click()
        self.dialog("version", "Name of this version")
        self.button("Keys", exact=True).click()
        self.dialog("keys")
        self.button("+ size").click()
        self.dialog("sizes", "Search sizes")
        page.get_by_role("button", name="This size: name").click()
        page.get_by_role("menuitem", name="Name and displayed width…").click()
        self.dialog("one size", "Name")
        self.step("Tone")
        self.fold("Washes")
        self.button("Try them all").click()
        self.dialog("blend modes")
        self.step("Border")
        page.get_by_role("radio", name="brushed edge", exact=True).click()
        self.button("Try them all").click()
        self.dialog("brushed edges")
        self.step("Watermark")
        self.button("a saved mark").click()
        self.button("Make a mark").click()
        page.get_by_role("dialog").get_by_label("Words", exact=True).fill("Pebblewick")
        self.unfold()
        self.dialog("mark")
        self.step("Export")
        self.button("Save several").click()
        self.dialog("several")
        self.button("Earlier exports").click()
        self.dialog("exports")

    def test_dialogs_of_several_pictures(self):
        page = self.page
        self.button("Try-out").click()
        for place in ("on a phone", "in a list", "above a page", "beside a name", "with a link"):
            page.get_by_role("radio", name=place).click()
            self.look(place)
        page.get_by_role("radio", name="in print").click()
        page.get_by_role("radio", name="dark", exact=True).click()
        self.dialog("try-out")
        self.button("House style: none").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Name of the style").fill(LONG_NAME)
        self.look("keep a style")
        with self.one_change():
            dialog.get_by_role("button", name="Save the style").click()
        expect(dialog.get_by_role("img", name=f"This picture in “{LONG_NAME}”")).to_be_visible()
        self.dialog("house style")
        self.button("Shelf", exact=True).click()
        self.button("House styles…").click()
        self.dialog("house styles")
        page.get_by_label("Choose bird-figure.jpg").check()
        self.button("Finish 1 photo…").click()
        self.dialog("many")
        page.get_by_label("Choose bird-figure", exact=True).first.check()
        self.button("Contact sheet of 1").click()
        expect(page.get_by_role("heading", name="Being checked")).to_be_hidden()
        self.look("contact sheet")

    def test_the_shelf(self):
        page = self.page
        self.button("Shelf", exact=True).click()
        expect(page.get_by_role("heading", name="Photos")).to_be_visible()
        page.wait_for_timeout(500)
        self.look("shelf")
        page.get_by_role("list", name="Photos").get_by_role("button", name="Delete…").first.focus()
        page.keyboard.press("Enter")
        self.dialog("delete")
        self.button("Upkeep").click()
        expect(page.get_by_text("Nothing is that old.")).to_be_visible()
        self.dialog("upkeep")
        page.get_by_role("banner").get_by_role("button", name="Bin").click()
        expect(page.get_by_role("heading", name="Bin")).to_be_visible()
        self.look("bin")
