"""Every route, good and bad."""

import asyncio
import hashlib
import io
import json
import tempfile
import threading
import zipfile
from pathlib import Path
from typing import ClassVar
from unittest import mock
from urllib.parse import unquote

import numpy as np
from fastapi.testclient import TestClient
from PIL import Image

from lucky_margin.core.document import SIZE_LIBRARY, Value
from lucky_margin.core.palette import COLOUR_NAMES
from lucky_margin.core.text import face_of
from lucky_margin.core.tone import LOOKS
from lucky_margin.web import Settings, create_app
from lucky_margin.web.work_desk import Priority
from tests.support import encoded, gradient, noise
from tests.web.client import PHOTO, ServiceTest

NOWHERE = "0" * 16
NO_PHOTO = "0" * 64
BOX = {"left": 0.2, "top": 0.2, "width": 0.6, "height": 0.6}
TALL = {"kind": "set_pixels", "pixels": {"kind": "fixed", "width": 108, "height": 135}}


def opened(response):
    return Image.open(io.BytesIO(response.content))


def line(laid, key):
    """What the docket's line of a step says."""
    return next(one["summary"] for one in laid["docket"] if one["key"] == key)


class PhotoRouteTest(ServiceTest):
    def test_adding_and_adding_again(self):
        self.assertEqual(
            (self.photo["width"], self.photo["height"], self.photo["known"]), (300, 200, False)
        )
        self.assertTrue(self.added(PHOTO, "again.png")["known"])
        listed = self.ok("GET", "/photos")
        self.assertEqual((len(listed["photos"]), listed["total"]), (1, 1))
        self.assertEqual(self.ok("GET", "/photos", params={"offset": 1})["photos"], [])

    def test_reading(self):
        sha256 = self.photo["sha256"]
        self.assertEqual(self.ok("GET", f"/photos/{sha256}")["name"], "mugs.png")
        response = self.call("GET", f"/photos/{sha256}/original")
        self.assertEqual(hashlib.sha256(response.content).hexdigest(), sha256)
        thumbnail = self.call("GET", f"/photos/{sha256}/thumbnail", params={"height": 50})
        self.assertEqual(opened(thumbnail).size, (75, 50))

    def test_refusals(self):
        post = ("POST", "/photos")
        self.refused(415, *post, params={"name": "a.txt"}, content=b"hello")
        self.refused(415, *post, params={"name": "a.jpg"}, content=b"")
        self.refused(415, *post, params={"name": "a.cr3"}, content=b"x")
        self.refused(422, *post, content=PHOTO)
        self.refused(422, *post, params={"name": "x" * 200}, content=PHOTO)
        self.refused(404, "GET", f"/photos/{NO_PHOTO}")
        self.refused(404, "GET", f"/photos/{NO_PHOTO}/thumbnail")
        self.refused(404, "GET", f"/photos/{NO_PHOTO}/original")
        for way in ("..%2f..%2fetc", "%2e%2e%2f%2e%2e%2fetc", "..%5c..%5cetc", "%00", "a%00b"):
            answer = self.call("GET", f"/photos/{way}/thumbnail")
            self.assertIn(answer.status_code, (404, 422), way)
            self.assertNotIn("root:", answer.text)
        problem = self.refused(409, "DELETE", f"/photos/{self.photo['sha256']}")
        self.assertEqual(problem["finishes"], ["mugs"])

    def test_a_body_over_the_limit_is_refused_while_it_comes(self):
        with mock.patch("lucky_margin.web.routes.photos.MAX_PHOTO_BYTES", 1000):
            self.refused(413, "POST", "/photos", params={"name": "a.png"}, content=PHOTO)

    def test_deleting_one_that_nothing_uses(self):
        other = self.added(encoded(gradient(20, 20)), "other.png")
        self.ok("DELETE", f"/photos/{other['sha256']}")
        self.refused(404, "GET", f"/photos/{other['sha256']}")

    def test_a_lost_original_is_gone(self):
        next((self.folder / "originals").rglob(self.photo["sha256"])).unlink()
        self.refused(410, "GET", f"/photos/{self.photo['sha256']}/original")

    def test_a_full_disk_is_said(self):
        with mock.patch("os.fsync", side_effect=OSError(28, "No space left on device")):
            self.refused(
                507, "POST", "/photos", params={"name": "b.png"}, content=encoded(noise(5, 5))
            )


class FinishRouteTest(ServiceTest):
    def test_a_new_finish_is_called_like_its_photo_and_changes_nothing(self):
        self.assertEqual(self.finish["document"]["name"], "mugs")
        size = self.finish["document"]["sizes"][0]
        self.assertEqual(size["pixels"], {"kind": "as_cropped", "ratio": None})

    def test_saving_undoing_redoing(self):
        self.edited(TALL)
        self.assertTrue(self.finish["can_undo"])
        undone = self.ok("POST", f"{self.address}/undo", json={"etag": 2})
        self.assertEqual(undone["document"]["sizes"][0]["pixels"]["kind"], "as_cropped")
        redone = self.ok("POST", f"{self.address}/redo", json={"etag": 3})
        self.assertEqual(redone["document"], self.finish["document"])

    def test_a_stale_save_says_what_is_newer(self):
        first = self.finish
        self.edited(TALL)
        body = {"etag": first["etag"], "document": first["document"] | {"name": "late"}}
        self.assertEqual(self.refused(412, "PUT", self.address, json=body)["etag"], 2)
        for step in ("undo", "redo", "original"):
            with self.subTest(step):
                self.refused(412, "POST", f"{self.address}/{step}", json={"etag": 1})

    def test_the_late_one_can_be_kept_as_a_copy(self):
        copy = self.ok(
            "POST", "/finishes", json={"document": self.finish["document"], "name": "Mine"}
        )
        self.assertEqual(copy["document"]["name"], "Mine")
        self.assertNotEqual(copy["id"], self.finish["id"])

    def test_versions_and_history(self):
        self.edited(TALL)
        self.ok("POST", f"{self.address}/versions", json={"name": "Tall"})
        kept = self.finish["revision"]
        self.edited({"kind": "rename", "name": "Cups"})
        revisions = self.ok("GET", f"{self.address}/revisions")["revisions"]
        self.assertEqual([r["version_name"] for r in revisions], [None, "Tall", None])
        body = {"etag": self.finish["etag"], "revision": kept}
        self.assertEqual(
            self.ok("POST", f"{self.address}/reopen", json=body)["document"]["name"], "mugs"
        )
        self.refused(404, "POST", f"{self.address}/reopen", json={"etag": 4, "revision": 9999})
        self.refused(422, "POST", f"{self.address}/versions", json={"name": "  "})

    def test_back_to_the_original_keeps_the_history(self):
        self.edited(TALL)
        fresh = self.ok("POST", f"{self.address}/original", json={"etag": 2})
        self.assertEqual(fresh["document"]["sizes"][0]["pixels"]["kind"], "as_cropped")
        undone = self.ok("POST", f"{self.address}/undo", json={"etag": fresh["etag"]})
        self.assertEqual(undone["document"], self.finish["document"])

    def test_a_finish_is_renamed_on_the_shelf_and_undo_takes_it_back(self):
        new = {"etag": self.finish["etag"], "name": "Saturday mugs"}
        renamed = self.ok("POST", f"{self.address}/rename", json=new)
        self.assertEqual(renamed["document"]["name"], "Saturday mugs")
        self.assertEqual(renamed["changes"], self.finish["changes"] + 1)
        self.refused(412, "POST", f"{self.address}/rename", json=new)
        self.refused(422, "POST", f"{self.address}/rename", json=new | {"name": " "})
        undone = self.ok("POST", f"{self.address}/undo", json={"etag": renamed["etag"]})
        self.assertEqual(undone["document"]["name"], self.finish["document"]["name"])

    def test_what_stands_out_of_a_new_photo_is_kept_in_view(self):
        picture = np.full((300, 600, 3), 235, np.uint8)
        picture[80:220, 400:520] = (180, 40, 30)
        photo = self.added(encoded(picture), "bowl.png")
        focus = self.ok("POST", "/finishes", json={"photo": photo["sha256"]})["document"]["focus"]
        box = focus["box"]
        self.assertLess(box["left"], 400 / 600)
        self.assertGreater(box["left"] + box["width"], 520 / 600)
        plain = self.added(encoded(np.full((200, 200, 3), 120, np.uint8)), "plain.png")
        bare = self.ok("POST", "/finishes", json={"photo": plain["sha256"]})
        self.assertIsNone(bare["document"]["focus"])

    def test_listing_searching_binning(self):
        self.ok("POST", f"{self.address}/duplicate")
        page = self.ok("GET", "/finishes")
        self.assertEqual((page["total"], page["finishes"][0]["name"]), (2, "mugs (copy)"))
        size = page["finishes"][0]["sizes"][0]
        self.assertEqual((size["width"], size["height"]), (300, 200))
        self.assertEqual(self.ok("GET", "/finishes", params={"search": "COPY"})["total"], 1)
        self.ok("POST", f"{self.address}/bin")
        self.assertEqual(self.ok("GET", "/finishes", params={"binned": True})["total"], 1)
        self.ok("POST", f"{self.address}/restore")
        self.assertEqual(self.ok("GET", "/finishes")["total"], 2)
        self.refused(409, "DELETE", self.address)
        self.ok("POST", f"{self.address}/bin")
        self.ok("DELETE", self.address)
        self.refused(404, "GET", self.address)

    def test_pictures_of_a_finish(self):
        self.edited(TALL)
        picture = self.call(
            "GET", f"{self.address}/picture", params={"size_id": "main", "height": 54}
        )
        self.assertEqual(opened(picture).size, (43, 54))
        self.refused(404, "GET", f"{self.address}/picture", params={"size_id": "other"})

    def test_refusals(self):
        for method, path, body in (
            ("GET", "", None),
            ("PUT", "", {"etag": 1, "document": self.finish["document"]}),
            ("POST", "/undo", {"etag": 1}),
            ("POST", "/redo", {"etag": 1}),
            ("POST", "/original", {"etag": 1}),
            ("POST", "/duplicate", None),
            ("POST", "/bin", None),
            ("POST", "/restore", None),
            ("GET", "/revisions", None),
            ("POST", "/versions", {"name": "x"}),
            ("GET", "/exports", None),
            ("DELETE", "", None),
        ):
            with self.subTest(method + path):
                self.refused(404, method, f"/finishes/{NOWHERE}{path}", json=body)
        self.refused(422, "GET", "/finishes/not-an-id")
        self.refused(404, "POST", "/finishes", json={"photo": NO_PHOTO})
        self.refused(404, "POST", "/finishes", json={})
        self.refused(422, "POST", "/finishes", content=b"{")
        broken = self.finish["document"] | {"sizes": []}
        self.refused(422, "PUT", self.address, json={"etag": 1, "document": broken})
        nan = json.dumps({"etag": 1, "document": self.finish["document"]}).replace("0.04", "NaN")
        self.refused(
            422, "PUT", self.address, content=nan, headers={"content-type": "application/json"}
        )

    def test_odd_names(self):
        for name in ("a/b", "🏺", "x" * 120, "<b>bold</b>", "‮reversed"):
            with self.subTest(name):
                self.assertEqual(
                    self.edited({"kind": "rename", "name": name})["document"]["name"], name
                )

    def test_one_without_a_photo_begins_with_a_size_and_a_ground(self):
        plan = {"name": "Banner", "pixels": {"kind": "fixed", "width": 90, "height": 30}}
        made = self.ok("POST", "/finishes", json={"plan": plan})
        document = made["document"]
        self.assertIsNone(document["photo"])
        self.assertEqual((document["name"], document["sizes"][0]["name"]), ("Banner", "Banner"))
        body = {"draft": made["draft"], "size_id": "main"}
        laid = self.ok("POST", "/bench/draft", json=body)["laid"]
        lacking = [one["key"] for one in laid["docket"] if one["lacks_photo"]]
        self.assertEqual(lacking, ["spots", "tone", "cut_out", "treatments"])
        self.assertEqual(line(laid, "tone"), "needs a photo")
        self.assertEqual(line(laid, "crop"), "90 × 30")
        preview = body | {"channel": "test", "scale": 1, "lossless": True}
        picture = opened(self.call("POST", "/bench/preview", json=preview)).convert("RGB")
        self.assertEqual(picture.size, (90, 30))
        self.assertEqual(picture.getcolors(), [(2700, (0x33, 0x56, 0x6B))])
        ground = {"kind": "colour", "colour": "#FFFFFF"}
        made = self.ok("POST", "/finishes", json={"plan": plan, "ground": ground, "name": "Sale"})
        self.assertEqual(made["document"]["backdrop"], ground)
        self.assertEqual(made["document"]["name"], "Sale")

    def test_one_without_a_photo_needs_both_sides(self):
        plan = {"name": "Free", "pixels": {"kind": "as_cropped"}}
        problem = self.refused(422, "POST", "/finishes", json={"plan": plan})
        self.assertIn("width and height", problem["detail"])


class HugeNumberTest(ServiceTest):
    def test_numbers_that_no_row_can_have_are_refused(self):
        huge = 2**70
        self.refused(422, "GET", "/finishes", params={"offset": huge})
        self.refused(422, "GET", f"/exports/{huge}/file")
        self.refused(422, "POST", f"/exports/{huge}/open", json={"etag": 1})
        self.refused(422, "POST", f"{self.address}/reopen", json={"etag": 1, "revision": huge})
        wanted = {"revision": huge, "size_id": "main", "channel": "a"}
        self.refused(422, "POST", f"{self.address}/weigh", json=wanted)
        self.refused(412, "POST", f"{self.address}/undo", json={"etag": huge})
        body = self.draft(view="photo", x=huge, y=0)
        self.refused(422, "POST", "/bench/pixel", json=body)


class BenchRouteTest(ServiceTest):
    def preview(self, **wanted):
        body = self.draft() | {"channel": "test", "scale": 1} | wanted
        return self.call("POST", "/bench/preview", json=body)

    def test_no_picture_is_drawn_for_a_page_that_went_away(self):
        """Asked as the server asks the application, so that the whole way is gone through."""
        named = self.ok("POST", "/drafts", json=self.finish["document"])
        wanted = {"draft": named["draft"], "size_id": "main", "channel": "test", "scale": 1}
        body = json.dumps(wanted).encode()
        busy, left = threading.Event(), asyncio.Event()
        self.addCleanup(busy.set)

        async def ask() -> None:
            request = [{"type": "http.request", "body": body}]

            async def receive():
                if request:
                    return request.pop()
                await left.wait()
                return {"type": "http.disconnect"}

            async def send(_message):
                pass  # nobody is there to read it

            desk = self.app.state.shared.desk
            before = asyncio.ensure_future(desk.run(busy.wait, Priority.STAGE))
            asked = asyncio.ensure_future(self.app(self.scope(body), receive, send))
            await asyncio.sleep(0.2)
            left.set()
            await asyncio.wait_for(asked, 5)
            busy.set()
            await before

        with mock.patch("lucky_margin.web.routes.bench.render") as drawn:
            self.client.portal.call(ask)
        drawn.assert_not_called()

    def scope(self, body):
        """A preview request, for the application."""
        headers = {"host": "127.0.0.1", "content-type": "application/json"}
        headers["content-length"] = str(len(body))
        return {
            "type": "http",
            "method": "POST",
            "path": "/api/bench/preview",
            "raw_path": b"/api/bench/preview",
            "root_path": "",
            "scheme": "http",
            "query_string": b"",
            "headers": [(name.encode(), value.encode()) for name, value in headers.items()],
            "client": ("127.0.0.1", 1),
            "server": ("127.0.0.1", 80),
            "http_version": "1.1",
        }

    def test_another_photo_is_proposed_as_one_edit(self):
        other = self.added(encoded(gradient(120, 90)), "other.png")["sha256"]
        wanted = self.draft() | {"channel": "test"}
        proposal = self.done(self.ok("POST", "/bench/swap", json=wanted | {"sha256": other}))
        self.assertEqual(proposal["edit"]["kind"], "swap_photo")
        laid = self.laid(self.draft(proposal["edit"]))
        self.assertEqual(laid["document"]["photo"]["sha256"], other)
        self.assertEqual(laid["layout"]["photo_width"], 120)
        problem = self.refused(404, "POST", "/bench/swap", json=wanted | {"sha256": NO_PHOTO})
        self.assertTrue(problem["detail"])

    def test_the_steps_are_named_with_their_fields_as_they_come(self):
        steps = self.ok("GET", "/bench/steps")["steps"]
        self.assertEqual(
            [step["key"] for step in steps],
            [
                *("crop", "spots", "tone", "cut_out", "treatments"),
                *("border", "pieces", "watermark", "export"),
            ],
        )
        laid = self.laid(self.draft())
        self.assertEqual([one["key"] for one in laid["docket"]], [one["key"] for one in steps])
        for step, drawn in zip(steps, laid["docket"], strict=True):
            self.assertFalse(drawn["is_set"], step)
            for field, fresh in step["fresh"].items():
                self.assertEqual(self.finish["document"][field], fresh)

    def test_a_step_that_is_switched_on_with_nothing_in_it_begins_with_what_is_usual(self):
        switch = {"kind": "switch_step", "step": "border", "on": True}
        laid = self.laid(self.draft(switch))
        self.assertEqual(line(laid, "border"), "white, 2.5\N{NO-BREAK SPACE}%")
        self.refused(422, "POST", "/bench/draft", json=self.draft(switch | {"step": "crop"}))

    def test_a_draft_is_laid_out_after_its_edit(self):
        laid = self.laid(self.draft(TALL))
        self.assertEqual((laid["layout"]["width"], laid["layout"]["height"]), (108, 135))
        self.assertEqual(line(laid, "crop"), "108 × 135, centred")
        self.assertEqual(line(laid, "border"), "none")
        unsaved = self.ok("GET", self.address)
        self.assertEqual(unsaved["revision"], self.finish["revision"])

    def test_previews_are_the_pixels_asked_for(self):
        self.assertEqual(opened(self.preview()).size, (300, 200))
        self.assertEqual(opened(self.preview(scale=0.5)).size, (150, 100))
        self.assertEqual(opened(self.preview(region=[10, 10, 20, 30])).size, (20, 30))
        self.assertEqual(opened(self.preview(edit=TALL)).size, (108, 135))
        exact = opened(self.preview(lossless=True, view="photo"))
        np.testing.assert_array_equal(np.asarray(exact), noise(300, 200))

    def test_transparency_comes_as_png(self):
        document = self.finish["document"]
        document["export"]["format"] = "png"
        document["sizes"][0]["shape"]["radius"] = 0.5
        self.assertEqual(self.preview(document=document).headers["content-type"], "image/png")
        document["export"]["format"] = "jpeg"
        self.assertEqual(self.preview(document=document).headers["content-type"], "image/jpeg")

    def test_reading_one_pixel(self):
        body = self.draft(view="photo", x=7, y=9)
        expected = "#{:02X}{:02X}{:02X}".format(*noise(300, 200)[9, 7])
        self.assertEqual(self.ok("POST", "/bench/pixel", json=body)["colour"], expected)
        self.refused(422, "POST", "/bench/pixel", json=body | {"x": 300})

    def test_checks(self):
        found = self.ok("POST", "/bench/checks", json=self.draft())["checks"]
        self.assertEqual([check["key"] for check in found], ["sharpness", "noise"])

    def test_the_mean_of_a_disc_is_read_in_linear_light(self):
        photo = np.zeros((40, 40, 3), np.uint8)
        photo[:, 20:] = 255
        sha256 = self.added(encoded(photo), "halves.png")["sha256"]
        document = self.finish["document"] | {"photo": {"sha256": sha256}}
        body = {"document": document, "size_id": "main", "view": "final", "x": 20, "y": 20}
        # The disc of radius 5 has 81 pixels, 35 of them left of x = 20: 46/81 of the light.
        colour = self.ok("POST", "/bench/pixel", json=body | {"radius": 5})["colour"]
        expected = round(255 * (1.055 * (46 / 81) ** (1 / 2.4) - 0.055))
        self.assertAlmostEqual(int(colour[1:3], 16), expected, delta=1)
        self.assertEqual(
            self.ok("POST", "/bench/pixel", json=body | {"x": 0, "radius": 9})["colour"], "#000000"
        )

    def test_a_draft_says_all_its_sizes_and_which_is_in_hand(self):
        plan = SIZE_LIBRARY[0].plan.model_dump(mode="json")
        laid = self.laid(self.draft({"kind": "add_size", "plan": plan}))
        self.assertEqual(laid["size_id"], laid["sizes"][1]["id"])
        self.assertEqual(laid["layout"]["size_id"], laid["size_id"])
        faces = [(size["name"], size["width"], size["overridden"]) for size in laid["sizes"]]
        self.assertEqual(faces, [("As cropped", 300, []), ("Square post", 1080, [])])
        self.assertEqual(laid["here"]["border"], {"on": True, "bands": []})

    def test_a_margin_is_found_and_the_edit_takes_it(self):
        sheet = np.full((100, 120, 3), 255, np.uint8)
        sheet[20:70, 30:90] = noise(60, 50) // 2
        sha256 = self.added(encoded(sheet), "scan.png")["sha256"]
        document = self.finish["document"] | {"photo": {"sha256": sha256}}
        found = self.ok("POST", "/bench/trim", json={"document": document, "size_id": "main"})
        self.assertIn("60 × 50 px", found["message"])
        self.assertIn("left 30, top 20, right 30, bottom 30", found["message"])
        laid = self.laid(self.draft(found["edit"], document))
        self.assertEqual((laid["layout"]["width"], laid["layout"]["height"]), (60, 50))
        nothing = self.ok("POST", "/bench/trim", json=self.draft())
        self.assertEqual((nothing["box"], nothing["edit"]), (None, None))
        self.assertIn("no plain margin", nothing["message"])

    def test_tone_is_measured_and_proposed(self):
        photo = np.full((60, 80, 3), 30, np.uint8)
        photo[:, 40:] = 90
        sha256 = self.added(encoded(photo), "dim.png")["sha256"]
        document = self.finish["document"] | {"photo": {"sha256": sha256}}
        found = self.ok("POST", "/bench/auto", json=self.draft(None, document))
        self.assertIn("exposure", found["message"])
        edits = {choice["name"]: choice["edit"] for choice in found["choices"]}
        self.assertEqual(list(edits), ["gentle", "as measured", "bold"])
        exposures = [edit["changes"]["exposure"] for edit in edits.values()]
        self.assertEqual(exposures, sorted(exposures))
        laid = self.laid(self.draft(edits["as measured"], document))
        self.assertGreater(laid["here"]["tone"]["exposure"], 0.5)
        self.assertTrue(line(laid, "tone").startswith("exposure +"))
        figures = self.ok("POST", "/bench/tone", json=self.draft(None, laid["document"]))
        self.assertAlmostEqual(sum(figures["brightness"]), 1, places=3)
        self.assertEqual((figures["curve"][0], figures["curve"][-1]), (0, 1))
        self.assertEqual(figures["newly_high"], 0)

    def test_a_neutral_is_balanced(self):
        found = self.ok("POST", "/bench/neutral", json={"colour": "#C8B090"})
        self.assertLess(found["edit"]["changes"]["warmth"], 6000)
        self.assertIn("make that spot grey", found["message"])
        self.refused(422, "POST", "/bench/neutral", json={"colour": "grey"})

    def test_a_focus_is_proposed_with_what_it_was_found_by(self):
        photo = np.full((90, 120, 3), 210, np.uint8)
        photo[50:70, 80:100] = (190, 20, 20)
        sha256 = self.added(encoded(photo), "spot.png")["sha256"]
        document = self.finish["document"] | {"photo": {"sha256": sha256}}
        found = self.ok("POST", "/bench/focus", json=self.draft(None, document))
        self.assertRegex(found["message"], r"what stands out in colour and sharpness, \d+ % sure")
        focus = found["edit"]["focus"]
        self.assertAlmostEqual(focus["point"]["x"], 90 / 120, delta=0.08)
        self.assertAlmostEqual(found["box"]["left"], focus["box"]["left"] * 120, delta=0.01)

    def test_the_cut_out_is_saved_as_a_mask(self):
        found = {"kind": "set_subject", "boxes": [BOX]}
        document = self.laid(self.draft(found))["document"]
        response = self.call("POST", "/bench/mask", json=self.draft(None, document))
        mask = opened(response)
        self.assertEqual((mask.mode, mask.size), ("L", (300, 200)))
        self.assertIn("mugs-mask.png", response.headers["content-disposition"])
        problem = self.refused(422, "POST", "/bench/mask", json=self.draft())
        self.assertIn("find the subject first", problem["detail"])

    def test_refusals(self):
        for change in (
            {"size_id": "other"},
            {"document": self.finish["document"] | {"photo": {"sha256": NO_PHOTO}}},
        ):
            for path in ("draft", "checks"):
                with self.subTest(path=path, change=next(iter(change))):
                    self.refused(404, "POST", f"/bench/{path}", json=self.draft() | change)
            response = self.preview(**change)
            self.assertEqual(response.status_code, 404)
        for scale in (0, -1, 2, 1e9):
            self.assertEqual(self.preview(scale=scale).status_code, 422)
        self.assertEqual(self.preview(region=[0, 0, 9999, 1]).status_code, 422)
        self.refused(422, "POST", "/bench/draft", json=self.draft({"kind": "no such edit"}))
        self.refused(422, "POST", "/bench/draft", json=self.draft({"kind": "rename", "name": ""}))
        huge = {
            "kind": "set_pixels",
            "pixels": {"kind": "one_side", "side": "width", "length": 16000},
        }
        self.refused(413, "POST", "/bench/draft", json=self.draft(huge))


class LookRouteTest(ServiceTest):
    cube = b'TITLE "Night"\nLUT_3D_SIZE 2\n' + b"0.1 0.1 0.2\n" * 8

    def test_the_stock(self):
        stock = self.ok("GET", "/looks")["stock"]
        self.assertEqual({look["key"] for look in stock}, set(LOOKS))

    def test_an_own_look_is_kept_used_replaced_and_forgotten(self):
        tone = {"exposure": 0.5, "look": {"kind": "stock", "key": "golden"}}
        self.ok("POST", "/looks", json={"name": "Mine", "tone": tone})
        saved = self.ok("POST", "/looks", json={"name": "Mine", "tone": tone | {"exposure": 1}})
        own = self.ok("GET", "/looks")["own"]
        self.assertEqual([one["id"] for one in own], [saved["id"]])
        settings = own[0]["look"]["settings"]
        self.assertGreater(settings["exposure"], 1)  # the stock look's is in it
        self.assertAlmostEqual(settings["warmth"], LOOKS["golden"].warmth, places=6)
        document = self.finish["document"] | {"tone": {"look": own[0]["look"]}}
        picture = {"document": document, "size_id": "main", "channel": "a", "scale": 1}
        self.assertEqual(self.call("POST", "/bench/preview", json=picture).status_code, 200)
        self.ok("DELETE", f"/looks/{saved['id']}")
        self.refused(404, "DELETE", f"/looks/{saved['id']}")

    def test_a_table_goes_in_and_a_tone_comes_out(self):
        added = self.ok("POST", "/looks/table", params={"name": "n.cube"}, content=self.cube)
        self.assertEqual(added["look"]["name"], "Night")
        document = self.finish["document"] | {"tone": {"look": added["look"], "local_contrast": 20}}
        cube = self.ok(
            "POST", "/looks/cube", json={"document": document, "size_id": "main", "title": "A/b"}
        )
        self.assertEqual(cube["file_name"], "a-b.cube")
        self.assertEqual(cube["left_out"], ["highlights, shadows and local_contrast"])
        self.assertIsNone(cube["off"])
        self.assertTrue(cube["text"].splitlines()[-1].startswith("0.1"))
        # The look is forgotten, a finish that has it keeps it.
        self.ok("DELETE", f"/looks/{added['id']}")
        picture = {"document": document, "size_id": "main", "channel": "a", "scale": 1}
        self.assertEqual(self.call("POST", "/bench/preview", json=picture).status_code, 200)

    def test_refusals(self):
        post = ("POST", "/looks/table")
        self.refused(415, *post, params={"name": "a.cube"}, content=b"hello")
        self.refused(415, *post, params={"name": "a.cube"}, content=b"")
        self.refused(422, *post, content=self.cube)
        self.refused(422, "POST", "/looks", json={"name": " ", "tone": {}})
        with mock.patch("lucky_margin.web.routes.looks.MAX_TABLE_BYTES", 10):
            self.refused(413, *post, params={"name": "a.cube"}, content=self.cube)
        gone = {"kind": "table", "name": "Gone", "table": "0" * 64}
        document = self.finish["document"] | {"tone": {"look": gone}}
        picture = {"document": document, "size_id": "main", "channel": "a", "scale": 1}
        problem = self.refused(404, "POST", "/bench/preview", json=picture)
        self.assertIn("add its .cube file", problem["detail"])


class TreatmentsRouteTest(ServiceTest):
    def test_every_one_that_is_offered_can_be_taken(self):
        offered = self.ok("GET", "/treatments")
        self.assertGreaterEqual(len(offered), 20)
        for style in offered:
            made = [style["treatment"]]
            self.laid(self.draft({"kind": "set_treatments", "changes": {"made": made}}))


class LibraryRouteTest(ServiceTest):
    def listed(self, of="backdrops", **wanted):
        return [one["key"] for one in self.ok("GET", f"/library/{of}", params=wanted)["items"]]

    def test_stock_is_found_by_word_kind_and_colour(self):
        self.assertEqual(self.listed(search="autumn"), ["backdrop:leaf-fall"])
        self.assertEqual(
            self.listed(kind="seasonal", colour="blue"),
            ["backdrop:snow", "backdrop:stars", "backdrop:sparks"],
        )
        self.assertIn("badge:sold-out", self.listed("badges", kind="news"))
        self.refused(422, "GET", "/library/backdrops", params={"colour": "mauve"})

    def test_favourites_and_what_was_taken_last(self):
        for key in ("backdrop:oak", "backdrop:linen", "badge:gift-idea"):
            self.ok("POST", "/library/recent", json={"key": key})
        self.assertEqual(self.listed(only="recent"), ["backdrop:linen", "backdrop:oak"])
        self.assertEqual(self.listed("badges", only="recent"), ["badge:gift-idea"])
        self.ok("POST", "/library/favourites", json={"key": "backdrop:oak", "favourite": True})
        self.assertEqual(self.listed(only="favourites"), ["backdrop:oak"])
        self.ok("POST", "/library/favourites", json={"key": "backdrop:oak", "favourite": False})
        self.assertEqual(self.listed(only="favourites"), [])
        self.refused(422, "POST", "/library/recent", json={"key": "../../etc"})

    def test_a_backdrop_says_how_many_finishes_have_it_and_they_can_be_listed(self):
        ground = self.ok("GET", "/library/backdrops")["items"][0]
        edit = {"kind": "set_ground", "place": "backdrop", "ground": ground["ground"]}
        self.edited(edit)
        (now, *_) = self.ok("GET", "/library/backdrops")["items"]
        self.assertEqual((now["key"], now["uses"]), (ground["key"], ground["uses"] + 1))
        self.assertEqual(now["used_in"], [self.finish["document"]["name"]])
        listed = self.ok("GET", "/finishes", params={"uses": ground["key"]})
        self.assertEqual([one["id"] for one in listed["finishes"]], [self.finish["id"]])

    def test_photos_are_found_by_name_and_by_a_colour_once_they_were_seen(self):
        sha256 = self.finish["document"]["photo"]["sha256"]
        self.call("GET", f"/photos/{sha256}/thumbnail")
        (photo,) = self.ok("GET", "/photos")["photos"]
        name = photo["name"]
        self.assertEqual(photo["uses"], 1)
        for wanted, count in (
            ({"search": name[:3].upper()}, 1),
            ({"search": "no such"}, 0),
            ({"only": "recent"}, 1),
            ({"only": "favourites"}, 0),
        ):
            self.assertEqual(self.ok("GET", "/photos", params=wanted)["total"], count, wanted)
        colours = [
            colour
            for colour in COLOUR_NAMES
            if self.ok("GET", "/photos", params={"colour": colour})["total"]
        ]
        self.assertTrue(colours)

    def test_pictures_of_stock(self):
        self.assertEqual(
            self.call("GET", "/library/backdrops/oak/picture").headers["content-type"],
            "image/jpeg",
        )
        self.refused(404, "GET", "/library/backdrops/none-such/picture")
        self.refused(404, "GET", "/library/badges/badge:none-such/picture")


class PackageRouteTest(ServiceTest):
    """A finish as a file, opened by another Lucky Margin."""

    def saved(self):
        return self.call("GET", f"/finishes/{self.finish['id']}/file").content

    def test_another_shelf_opens_it_to_the_identical_picture(self):
        self.edited({"kind": "add_text", "purpose": "headline", "text": "Glaze ☘", "palette": []})
        document = self.ok("GET", f"/finishes/{self.finish['id']}")["document"]
        body = {"document": document, "size_id": "main", "channel": "a", "scale": 1}
        body["lossless"] = True
        picture = self.call("POST", "/bench/preview", json=body).content
        data = self.saved()
        self.assertEqual(data, self.saved())
        other = ServiceTest("run")
        other.setUp()
        self.addCleanup(other.doCleanups)
        opened = other.ok("POST", "/finishes/file", content=data)
        self.assertEqual(opened["document"], document)
        again = other.call("POST", "/bench/preview", json=body)
        self.assertEqual(again.content, picture)

    def test_what_is_damaged_climbs_out_or_is_newer_is_refused_and_leaves_nothing(self):
        with zipfile.ZipFile(io.BytesIO(self.saved())) as archive:
            entries = {name: archive.read(name) for name in archive.namelist()}
        photo = next(name for name in entries if name.startswith("photos/"))
        document = json.loads(entries["finish.json"])

        def packed(changes):
            buffer = io.BytesIO()
            with zipfile.ZipFile(buffer, "w") as archive:
                for name, data in (entries | changes).items():
                    if data is not None:
                        archive.writestr(name, data)
            return buffer.getvalue()

        newer = json.dumps(document | {"version": 99})
        other = json.dumps(document | {"format": "lucky-margin-style"})
        before = self.ok("GET", "/finishes")["total"], self.ok("GET", "/photos")["total"]
        for data, words in (
            (packed({photo: b"other bytes"}), "is damaged"),
            (packed({photo: None}), "lacks a file"),
            (packed({"finish.json": newer}), "newer Lucky Margin"),
            (packed({"finish.json": other}), "This is no finish"),
            (packed({"finish.json": "[]"}), "This is no finish"),
            (packed({f"photos/../../{'a' * 64}": b"x", photo: None}), "damaged|lacks"),
            (b"PK\x03\x04 no archive", "This is no finish"),
        ):
            problem = self.refused(422, "POST", "/finishes/file", content=data)
            self.assertRegex(problem["detail"], words)
        after = self.ok("GET", "/finishes")["total"], self.ok("GET", "/photos")["total"]
        self.assertEqual(after, before)

    def backup(self):
        made = self.done(self.ok("POST", "/shelf/backup"))
        data = self.call("GET", f"/shelf/backup/{made['id']}").content
        self.assertEqual(len(data), made["bytes"])
        return data

    def test_only_the_newest_backup_is_kept(self):
        older = self.done(self.ok("POST", "/shelf/backup"))["id"]
        self.assertTrue(self.backup())
        self.refused(404, "GET", f"/shelf/backup/{older}")

    def test_the_whole_shelf_is_an_archive(self):
        with zipfile.ZipFile(io.BytesIO(self.backup())) as archive:
            names = archive.namelist()
        self.assertIn("lucky-margin.sqlite3", names)
        self.assertEqual(sum(name.startswith("originals/") for name in names), 1)

    def test_an_empty_shelf_is_filled_from_a_backup(self):
        archive = self.backup()
        full = self.refused(409, "POST", "/shelf/restore", content=archive)
        self.assertIn("not empty", full["detail"])
        folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        app = create_app(Settings(data=folder))
        with TestClient(app, base_url="http://127.0.0.1") as client:
            use = client.post("/api/shelf/restore", content=archive).json()
            self.assertEqual(use["photos"]["count"], 1)
            shown = client.get(f"/api/finishes/{self.finish['id']}").json()
        self.assertEqual(shown["document"], self.finish["document"])

    def test_disk_use_check_and_thinning(self):
        self.assertEqual(self.ok("GET", "/shelf/disk-use")["photos"]["count"], 1)
        checked = self.done(self.ok("POST", "/shelf/check", json={}))
        self.assertEqual((checked["checked"], checked["damaged"], checked["missing"]), (1, [], []))
        sha256 = self.finish["document"]["photo"]["sha256"]
        path = self.folder / "originals" / sha256[:2] / sha256
        path.write_bytes(b"something else")
        checked = self.done(self.ok("POST", "/shelf/check", json={}))
        self.assertEqual(checked["damaged"], [f"originals/{sha256}"])
        self.assertTrue(path.exists())
        self.done(self.ok("POST", "/shelf/check", json={"mend": True}))
        self.assertFalse(path.exists())
        rule = {"days": 1, "files": True, "remove": True}
        thinned = self.ok("POST", "/shelf/thin", json=rule)
        self.assertEqual(thinned, {"changes": 0, "files": 0, "bytes": 0})


class BadgesRouteTest(ServiceTest):
    def own(self):
        return self.ok("GET", "/library/badges", params={"kind": "own"})["items"]

    def test_pieces_are_kept_as_a_badge_put_on_another_finish_and_forgotten(self):
        burst = {"kind": "badge", "id": "badge-1", "form": "burst"}
        words = {"kind": "text", "id": "text-1", "text": "Neu ☘"}
        kept = self.ok("POST", "/badges", json={"name": "Neu", "parts": [burst, words]})
        (listed,) = self.own()
        self.assertEqual(listed["parts"], kept["parts"])
        laid = self.laid(self.draft({"kind": "paste_pieces", "pieces": listed["parts"]}))
        self.assertEqual([one["kind"] for one in laid["here"]["pieces"]], ["badge", "text"])
        again = self.ok("POST", "/badges", json={"name": "Neu", "parts": [words]})
        (listed,) = self.own()
        self.assertEqual(listed["key"], f"own badge:{again['id']}")
        picture = self.call("GET", f"/library/badges/{listed['key']}/picture")
        self.assertEqual(picture.headers["content-type"], "image/png")
        self.ok("DELETE", f"/badges/{again['id']}")
        self.assertEqual(self.own(), [])
        self.refused(404, "GET", f"/library/badges/{listed['key']}/picture")
        self.refused(404, "DELETE", f"/badges/{again['id']}")

    def test_pictures_and_nothing_at_all_are_refused(self):
        picture = {"kind": "picture", "id": "picture-1", "sha256": NO_PHOTO}
        problem = self.refused(422, "POST", "/badges", json={"name": "Logo", "parts": [picture]})
        self.assertIn("leave pictures out", problem["detail"])
        self.refused(422, "POST", "/badges", json={"name": "Empty", "parts": []})


class FramesRouteTest(ServiceTest):
    def test_stock_and_fresh_ones_are_offered_and_own_ones_kept_and_forgotten(self):
        offered = self.ok("GET", "/frames")
        self.assertGreaterEqual(len(offered["stock"]), 20)
        kinds = ["line", "mat", "pattern", "brushed"]
        self.assertEqual([band["kind"] for band in offered["fresh"]], kinds)
        kept = self.ok("POST", "/frames", json={"name": "Shop", "border": {"bands": []}})
        border = {"bands": [{"kind": "mat", "around": True}]}
        kept = self.ok("POST", "/frames", json={"name": "Shop", "border": border})
        (own,) = self.ok("GET", "/frames")["own"]
        self.assertEqual((own["id"], own["border"]["bands"][0]["kind"]), (kept["id"], "mat"))
        self.ok("DELETE", f"/frames/{kept['id']}")
        problem = self.refused(404, "DELETE", f"/frames/{kept['id']}")
        self.assertIn("frame style", problem["detail"])
        fifty = {"bands": [{"kind": "line"}] * 50}
        self.refused(422, "POST", "/frames", json={"name": "Fifty", "border": fifty})


class OutlinesRouteTest(ServiceTest):
    def test_own_outlines_are_kept_replaced_and_forgotten(self):
        lines = {"lines": [{"width": 0.03, "colour": "#FFAA00"}, {"gap": 0.03}]}
        self.ok("POST", "/outlines", json={"name": "Sticker", "outlines": {"lines": [{}]}})
        kept = self.ok("POST", "/outlines", json={"name": "Sticker", "outlines": lines})
        own = self.ok("GET", "/outlines")["own"]
        self.assertEqual([one["id"] for one in own], [kept["id"]])
        self.assertEqual([line["gap"] for line in own[0]["outlines"]["lines"]], [0, 0.03])
        self.ok("DELETE", f"/outlines/{kept['id']}")
        problem = self.refused(404, "DELETE", f"/outlines/{kept['id']}")
        self.assertIn("set of outlines", problem["detail"])
        too_many = {"lines": [{}] * 6}
        self.refused(422, "POST", "/outlines", json={"name": "Six", "outlines": too_many})


class SubjectRouteTest(ServiceTest):
    """A red square that is cut out of a grey photo, and kept."""

    def setUp(self):
        super().setUp()
        photo = np.full((100, 150, 3), 128, np.uint8)
        photo[30:70, 50:100] = (200, 40, 30)
        self.square = self.added(encoded(photo), "square.png")["sha256"]
        box = {"left": 0.2, "top": 0.1, "width": 0.6, "height": 0.8}
        wanted = {"photo": self.square, "name": "Square", "cut_out": {"on": True, "boxes": [box]}}
        self.cut = self.ok("POST", "/finishes", json=wanted)

    def keep(self, name="Square", **changes):
        cut_out = self.cut["document"]["cut_out"] | changes
        body = {"document": self.cut["document"] | {"cut_out": cut_out}, "size_id": "main"}
        return self.ok("POST", "/subjects", json=body | {"name": name})

    def test_a_subject_is_kept_shown_and_put_in_a_finish(self):
        kept = self.keep()
        self.assertEqual((kept["photo"], kept["ratio"]), (self.square, 1.5))
        box = kept["subject"]["box"]
        self.assertAlmostEqual(box["width"], 50 / 150, delta=0.02)
        picture = self.call("GET", f"/subjects/{kept['subject']['id']}/picture")
        shown = np.asarray(Image.open(io.BytesIO(picture.content)))
        self.assertEqual(tuple(shown[20, 25]), (200, 40, 30, 255))
        add = {"kind": "add_picture", "sha256": self.square, "ratio": 1.5}
        add["subject"] = kept["subject"]
        (piece,) = self.laid(self.draft(add))["document"]["pieces"]
        self.assertEqual(piece["subject"]["name"], "Square")

    def test_kept_anew_it_is_a_new_version(self):
        first = self.keep()["subject"]
        self.assertEqual(self.keep()["subject"]["version"], 1)
        softer = self.keep(edge={"softness": 0.005})["subject"]
        self.assertEqual((softer["id"], softer["version"]), (first["id"], 2))
        self.assertNotEqual(self.keep("Another")["subject"]["id"], first["id"])
        names = [one["subject"]["name"] for one in self.ok("GET", "/subjects")["subjects"]]
        self.assertEqual(names, ["Another", "Square"])
        self.assertEqual(self.ok("POST", f"/subjects/{first['id']}/renew")["finishes"], 0)
        self.ok("DELETE", f"/subjects/{first['id']}")
        self.refused(404, "DELETE", f"/subjects/{first['id']}")

    def test_nothing_cut_out_is_nothing_to_keep(self):
        body = {"document": self.finish["document"], "size_id": "main", "name": "Nothing"}
        problem = self.refused(422, "POST", "/subjects", json=body)
        self.assertIn("find the subject first", problem["detail"])


class DraggedPieceRouteTest(ServiceTest):
    def setUp(self):
        super().setUp()
        badge = {"kind": "badge", "id": "badge-1", "form": "circle", "colour": "#00FF00"}
        self.document = self.finish["document"] | {"pieces": [badge]}

    def preview(self, view, held):
        body = {"document": self.document, "size_id": "main", "channel": "t", "scale": 1}
        response = self.call(
            "POST", "/bench/preview", json=body | {"view": view, "held": held, "lossless": True}
        )
        return np.asarray(opened(response)).astype(int)

    def test_a_dragged_piece_is_drawn_apart_from_the_rest(self):
        alone, bare = (self.preview(view, ["badge-1"]) for view in ("piece", "final"))
        self.assertEqual(alone[100, 150].tolist(), [0, 255, 0, 255])
        self.assertEqual(alone[5, 5, 3], 0)
        self.assertFalse((bare[100, 150] == (0, 255, 0)).all())
        self.assertEqual(self.preview("final", [])[100, 150].tolist(), [0, 255, 0])

    def test_a_drag_comes_back_with_its_guides(self):
        drag = {"kind": "drag_pieces", "ids": ["badge-1"], "dx": 2, "dy": -40, "snap": 5}
        laid = self.laid(self.draft(drag, self.document))
        self.assertIn(150, [guide["x1"] for guide in laid["guides"]])
        self.assertTrue(any(guide["label"].endswith(" px") for guide in laid["guides"]))


class StyleRouteTest(ServiceTest):
    """House styles over the service."""

    def kept(self, **more):
        document = self.finish["document"] | {
            "border": {"bands": [{"kind": "line", "colour": "#0A6B52"}]},
            "watermark": {"text": "Pebblewick"},
        }
        wanted = {"name": "Shop", "parts": ["border", "watermark"]} | more
        return self.ok("POST", "/styles", json=self.draft(document=document) | wanted)

    def taken(self, style, **more):
        """The finish in a style, saved."""
        wanted = self.draft() | {"style": style, "channel": "test"} | more
        edit = self.done(self.ok("POST", "/styles/use", json=wanted))["edit"]
        return self.edited(edit)

    def test_a_style_is_kept_used_renewed_and_forgotten(self):
        kept = self.kept()
        self.assertEqual([line.split(":")[0] for line in kept["gives"]], ["Border", "Watermark"])
        self.assertEqual(kept["colours"], ["#0A6B52"])
        self.assertEqual(kept["fonts"], ["figtree"])
        finish = self.taken(kept["style"])
        self.assertEqual(finish["document"]["watermark"]["text"], "Pebblewick")
        self.assertEqual(finish["document"]["style"]["version"], 1)
        self.assertEqual(self.ok("GET", "/styles")["styles"][0]["older_uses"], 0)
        newer = self.kept(id=kept["style"]["id"], parts=["border"])
        self.assertEqual((newer["style"]["version"], newer["older_uses"]), (2, 1))
        path = f"/styles/{kept['style']['id']}"
        self.assertEqual(self.ok("POST", f"{path}/renew"), {"finishes": 1})
        now = self.ok("GET", self.address)
        self.assertEqual(now["document"]["watermark"]["text"], "")
        self.assertEqual(now["changes"], finish["changes"] + 1)
        self.assertEqual(self.call("DELETE", path).status_code, 204)
        self.refused(404, "POST", f"{path}/renew")
        self.assertEqual(self.ok("GET", "/styles")["styles"], [])

    def test_what_would_change_is_told_part_by_part(self):
        style = self.kept()["style"]
        told = self.ok("POST", "/styles/changes", json=self.draft() | {"style": style})["changes"]
        self.assertEqual([one["key"] for one in told], ["border", "watermark"])
        self.assertEqual([one["now"] for one in told], ["none", "none"])
        parts = {
            one["key"]: one for one in self.ok("POST", "/styles/parts", json=self.draft())["parts"]
        }
        self.assertFalse(parts["border"]["is_set"])
        self.assertTrue(parts["sizes"]["is_set"])

    def test_new_photos_start_in_the_style_that_is_named(self):
        style = self.kept()["style"]
        self.assertIsNone(self.ok("GET", "/styles")["default"])
        self.ok("PUT", "/styles/default", json={"id": style["id"]})
        self.assertEqual(self.ok("GET", "/styles")["default"], style["id"])
        new = {"photo": self.photo["sha256"], "style": style["id"]}
        document = self.ok("POST", "/finishes", json=new)["document"]
        self.assertEqual(document["watermark"]["text"], "Pebblewick")
        self.assertEqual(document["style"]["name"], "Shop")
        self.ok("DELETE", f"/styles/{style['id']}")
        self.assertIsNone(self.ok("GET", "/styles")["default"])
        self.refused(404, "PUT", "/styles/default", json={"id": style["id"]})
        self.refused(404, "POST", "/finishes", json=new)

    def test_a_style_that_gives_nothing_is_refused(self):
        wanted = self.draft() | {"name": "Shop", "parts": []}
        self.refused(422, "POST", "/styles", json=wanted)

    def test_it_goes_out_and_comes_in_as_a_file_with_what_it_needs(self):
        logo = self.added(encoded(noise(40, 30)), "logo.png")["sha256"]
        document = self.finish["document"] | {
            "watermark": {"logo": {"sha256": logo}},
            "pieces": [{"kind": "picture", "id": "picture-1", "sha256": logo}],
        }
        wanted = {"name": "Shop", "parts": ["pieces", "watermark"]}
        kept = self.ok("POST", "/styles", json=self.draft(document=document) | wanted)["style"]
        self.assertIn("Shop", self.refused(409, "DELETE", f"/photos/{logo}")["detail"])
        file = self.call("GET", f"/styles/{kept['id']}/file")
        self.assertIn("shop.style.zip", file.headers["content-disposition"])
        self.ok("DELETE", f"/styles/{kept['id']}")
        self.ok("DELETE", f"/photos/{logo}")
        again = self.ok("POST", "/styles/file", content=file.content)["style"]
        self.assertEqual(again["parts"], kept["parts"])
        self.assertEqual(self.ok("GET", f"/photos/{logo}")["name"], "logo.png")

    def test_other_files_are_refused_and_nothing_is_kept(self):
        def packed(**files):
            buffer = io.BytesIO()
            with zipfile.ZipFile(buffer, "w") as archive:
                for name, text in files.items():
                    archive.writestr(name.replace("_", "/").replace("/json", ".json"), text)
            return buffer.getvalue()

        head = {"format": "lucky-margin-style", "version": 6}
        watermark = {"watermark": {"logo": {"sha256": "ab" * 32}}}
        style = {"id": "0" * 16, "name": "Shop", "parts": watermark}
        lacking = packed(style_json=json.dumps(head | {"style": style}))
        newer = packed(style_json=json.dumps(head | {"version": 99, "style": style}))
        wrong = packed(style_json=json.dumps(head | {"style": {"name": 3}}))
        damaged = packed(
            **{"style_json": json.dumps(head | {"style": style}), f"fonts_{'cd' * 32}": "x"}
        )
        for data in (
            b"",
            b"hello",
            packed(),
            packed(style_json="[]"),
            lacking,
            newer,
            wrong,
            damaged,
        ):
            with self.subTest(data=data[:40]):
                self.refused(422, "POST", "/styles/file", content=data)
        self.assertEqual(self.ok("GET", "/styles")["styles"], [])


class ManyRouteTest(ServiceTest):
    """Many photos finished alike, looked at together, and saved as one archive."""

    def with_text(self, text):
        """The finish with words on it, saved."""
        document = self.finish["document"] | {
            "pieces": [{"kind": "text", "id": "text-1", "text": text}],
            "export": {"format": "png", "alt_text": "A mug"},
        }
        body = {"etag": self.finish["etag"], "document": document}
        self.finish = self.ok("PUT", self.address, json=body)

    def test_a_finish_is_started_like_another_one_with_its_own_words(self):
        self.with_text("{name}: {price}")
        other = self.added(encoded(gradient(120, 90)), "bowl.png")["sha256"]
        new = {"photo": other, "like": self.finish["id"], "row": {"price": "30 €"}}
        made = self.ok("POST", "/finishes", json=new)["document"]
        self.assertEqual((made["name"], made["pieces"][0]["text"]), ("bowl", "bowl: 30 €"))
        self.assertEqual(made["export"]["format"], "png")
        named = self.ok("POST", "/finishes", json=new | {"row": {"name": "Salad bowl"}})
        self.assertEqual(named["document"]["pieces"][0]["text"], "Salad bowl: {price}")
        self.refused(404, "POST", "/finishes", json=new | {"like": NOWHERE})
        face = self.ok("GET", "/finishes")["finishes"][-1]
        self.assertEqual(face["columns"], ["name", "price"])

    def test_what_would_be_started_can_be_looked_at_first(self):
        self.with_text("{price}")
        new = {"photo": self.photo["sha256"], "like": self.finish["id"], "row": {"price": "9 €"}}
        tried = self.ok("POST", "/finishes/trial", json=new)
        self.assertEqual(tried["document"]["pieces"][0]["text"], "9 €")
        (size,) = tried["sizes"]
        self.assertEqual((size["id"], size["width"], size["height"]), ("main", 300, 200))
        wanted = {"draft": tried["draft"], "size_id": "main", "channel": "trial", "scale": 1}
        picture = self.call("POST", "/bench/preview", json=wanted)
        self.assertEqual(opened(picture).size, (300, 200))
        listed = self.ok("GET", "/finishes")["finishes"]
        self.assertEqual([one["id"] for one in listed], [self.finish["id"]])
        self.refused(404, "POST", "/finishes/trial", json=new | {"like": NOWHERE})

    def test_tables_are_read(self):
        text = "file;price\nmugs.png;12 €\n"
        read = self.ok("POST", "/tables/rows", json={"text": text, "photos": ["mugs.png"]})
        self.assertEqual(read["columns"], ["file", "price"])
        self.assertEqual(read["rows"], [{"file": "mugs.png", "price": "12 €"}])
        self.refused(422, "POST", "/tables/rows", json={"text": text, "photos": ["bowl.png"]})
        pasted = self.ok("POST", "/tables/text", content=text.encode("utf-16"))["text"]
        self.assertEqual(pasted, "file\tprice\nmugs.png\t12 €\n")
        self.refused(422, "POST", "/tables/text", content=b"a,a\n1,2")

    def test_finishes_are_looked_at_together(self):
        self.with_text("{price}")
        second = self.ok("POST", "/finishes", json={"photo": self.photo["sha256"]})["id"]
        ids = [second, self.finish["id"]]
        faces = self.ok("POST", "/finishes/faces", json={"ids": ids})["finishes"]
        self.assertEqual([face["id"] for face in faces], ids)
        self.refused(404, "POST", "/finishes/faces", json={"ids": [NOWHERE]})
        looks = self.ok("GET", f"{self.address}/looks")["sizes"]
        self.assertEqual([size["size_id"] for size in looks], ["main"])
        warnings = {one["key"]: one["text"] for one in looks[0]["warnings"]}
        self.assertIn("{price}", warnings["columns"])
        self.assertNotIn("subject", warnings)

    def test_subjects_stand_alike(self):
        self.refused(422, "POST", f"{self.address}/stand", json={"etag": self.finish["etag"]})
        picture = noise(200, 200, 4)
        picture[:, :, 3] = 0
        picture[50:150, 80:120, 3] = 255
        photo = self.added(encoded(picture), "cup.png")["sha256"]
        new = {"photo": photo, "cut_out": {"on": True}}
        made = self.ok("POST", "/finishes", json=new)
        address, wanted = f"/finishes/{made['id']}", {"etag": made["etag"], "height": 0.5}
        stood = self.ok("POST", f"{address}/stand", json=wanted)
        self.assertAlmostEqual(stood["document"]["sizes"][0]["crop"]["window"]["height"], 200, 0)
        self.assertEqual(stood["changes"], made["changes"] + 1)
        self.refused(412, "POST", f"{address}/stand", json=wanted)
        self.assertTrue(self.ok("GET", "/finishes")["finishes"][0]["is_cut_out"])

    def test_files_of_several_finishes_come_as_one_archive(self):
        self.with_text("Mug")
        other = self.ok("POST", "/finishes", json={"photo": self.photo["sha256"]})
        ids = []
        for finish in (self.finish, other):
            address = f"/finishes/{finish['id']}"
            size = {"revision": finish["revision"], "size_id": "main"}
            job = self.ok("POST", f"{address}/weigh", json=size | {"channel": "test"})
            wanted = size | {"sha256": self.done(job)["sha256"]}
            ids.append(self.ok("POST", f"{address}/exports", json=wanted)["id"])
        answer = self.call("GET", "/exports/zip", params={"ids": ids})
        self.assertIn("finished-photos.zip", answer.headers["content-disposition"])
        with zipfile.ZipFile(io.BytesIO(answer.content)) as archive:
            names = archive.namelist()
            self.assertIsNone(archive.testzip())
        wanted = ["mugs-300x200.png", "mugs-300x200.jpg", "alternative-text.csv"]
        self.assertEqual(names, wanted)


class MarkRouteTest(ServiceTest):
    design: ClassVar = {"words": "Pebblewick", "icon": "amphora", "rule": True}

    def test_a_mark_is_drawn_kept_changed_downloaded_and_forgotten(self):
        drawn = opened(self.call("POST", "/marks/drawn", json={"design": self.design}))
        self.assertEqual((drawn.width, drawn.mode), (480, "RGBA"))
        new = {"name": "Studio", "design": self.design}
        kept = self.ok("POST", "/marks", json=new)["mark"]
        path = f"/marks/{kept['id']}"
        svg = self.call("GET", f"{path}/file", params={"kind": "svg", "shade": "light"})
        self.assertTrue(svg.text.startswith("<svg "))
        self.assertIn("studio-light.svg", svg.headers["content-disposition"])
        png = opened(self.call("GET", f"{path}/file", params={"kind": "png"}))
        self.assertEqual((png.width, png.mode), (2000, "RGBA"))
        document = self.finish["document"] | {"watermark": {"mark": kept}}
        self.ok("PUT", self.address, json={"etag": self.finish["etag"], "document": document})
        changed = self.ok("PUT", path, json=new | {"design": {"words": "Pebblewick Pottery"}})
        self.assertEqual((changed["mark"]["version"], changed["older_uses"]), (2, 1))
        self.assertEqual(self.ok("POST", f"{path}/renew"), {"finishes": 1})
        now = self.ok("GET", self.address)
        self.assertEqual(now["document"]["watermark"]["mark"]["version"], 2)
        self.assertEqual(self.call("DELETE", path).status_code, 204)
        self.refused(404, "GET", f"{path}/picture")

    def test_layouts_are_offered_without_words(self):
        layouts = self.ok("GET", "/marks/layouts")["layouts"]
        self.assertEqual(len(layouts), 12)
        self.assertEqual({layout["design"]["words"] for layout in layouts}, {""})
        design = layouts[-1]["design"] | {"words": "Kiln"}
        self.assertEqual(
            opened(self.call("POST", "/marks/drawn", json={"design": design})).mode, "RGBA"
        )

    def test_an_empty_mark_is_refused(self):
        self.refused(422, "POST", "/marks", json={"name": "x", "design": {"words": " "}})
        self.refused(422, "POST", "/marks/drawn", json={"design": {}})

    def test_icons_are_searched_and_shown(self):
        found = self.ok("GET", "/icons", params={"search": "flow"})["icons"]
        self.assertIn("flower", found)
        icon = opened(self.call("GET", "/icons/flower/picture"))
        self.assertGreater(np.asarray(icon)[:, :, 3].mean(), 20)
        self.refused(404, "GET", "/icons/nothing/picture")

    def test_a_plain_background_is_noticed(self):
        logo = np.full((40, 60, 3), 255, np.uint8)
        logo[10:30, 20:40] = 30
        photo = self.added(encoded(logo), "logo.png")
        found = self.ok("GET", f"/bench/background/{photo['sha256']}")
        self.assertEqual(found, {"colour": "#FFFFFF"})

    def test_marks_and_pieces_are_drawn_in_own_fonts(self):
        font = self.ok("POST", "/fonts", content=face_of("anton", 400, False).read_bytes())
        own, shipped = (
            self.call("POST", "/marks/drawn", json={"design": {"words": "Kiln", "family": family}})
            for family in (font["key"], "anton")
        )
        self.assertEqual(own.content, shipped.content)
        mark = {"id": 1, "name": "m", "version": 1, "design": {"words": "K", "family": font["key"]}}
        draft = self.draft({"kind": "add_mark", "mark": mark})
        laid = self.laid(draft)
        self.assertEqual(
            (line(laid, "pieces"), laid["layout"]["pieces"][0]["kind"]), ("1 mark", "mark")
        )

    def test_a_watermark_is_dragged_with_its_guides(self):
        document = self.finish["document"] | {"watermark": {"text": "Pebblewick"}}
        drag = {"kind": "drag_watermark", "dx": -40, "dy": -60}
        laid = self.laid(self.draft(drag, document))
        before = self.laid(self.draft(None, document))
        moved = [laid["layout"]["watermark"][side] for side in ("left", "top")]
        home = [before["layout"]["watermark"][side] for side in ("left", "top")]
        self.assertAlmostEqual(moved[0] - home[0], -40, delta=0.01)
        self.assertAlmostEqual(moved[1] - home[1], -60, delta=0.01)
        document["watermark"]["place"] = "repeated"
        self.refused(422, "POST", "/bench/draft", json=self.draft(drag, document))

    def test_what_a_size_does_of_its_own_is_said(self):
        document = self.finish["document"]
        own = {"border": {"bands": [{"kind": "line"}]}, "watermark": {"spot": {"x": 0, "y": 0}}}
        size = document["sizes"][0] | {"overrides": own}
        laid = self.laid(self.draft(None, document | {"sizes": [size]}))
        self.assertEqual(
            laid["here"]["overrides"],
            [
                {"step": "border", "piece": None, "fields": ["bands"]},
                {"step": "watermark", "piece": None, "fields": ["place"]},
            ],
        )


class WordsRouteTest(ServiceTest):
    def setUp(self):
        super().setUp()
        piece = {"kind": "text", "id": "text-1", "text": "Glaze", "size": 0.2, "colour": "#808080"}
        document = self.finish["document"] | {"pieces": [piece]}
        self.body = {"document": document, "size_id": "main", "piece": "text-1"}

    def test_the_fonts_and_their_samples(self):
        fonts = self.ok("GET", "/fonts")["fonts"]
        self.assertGreaterEqual(len(fonts), 14)
        words = {"words": "Größe ☘", "weight": 700}
        sample = self.call("GET", "/fonts/caveat/sample", params=words)
        pixels = np.asarray(opened(sample))
        self.assertEqual((pixels.shape[0], pixels.shape[2]), (56, 4))
        self.assertGreater((pixels[:, :, 3] > 200).sum(), 200)
        self.assertEqual(
            self.call("GET", "/fonts/caveat/sample", params={"words": ""}).status_code, 200
        )
        self.refused(422, "GET", "/fonts/arial/sample")
        self.refused(422, "GET", "/fonts/caveat/sample", params={"words": "x" * 61})

    def test_an_own_font_is_added_shown_and_taken_off_the_list(self):
        data = face_of("anton", 400, False).read_bytes()
        font = self.ok("POST", "/fonts", content=data)
        self.assertEqual((font["name"], font["kind"]), ("Anton Regular", "own"))
        self.assertEqual(self.ok("POST", "/fonts", content=data), font)
        offered = self.ok("GET", "/fonts")["fonts"]
        self.assertEqual(offered[0], font)
        words = {"words": "Pebblewick"}
        own = self.call("GET", f"/fonts/{font['key']}/sample", params=words).content
        shipped = self.call("GET", "/fonts/anton/sample", params=words).content
        self.assertEqual(own, shipped)
        self.ok("DELETE", f"/fonts/{font['key']}")
        self.assertEqual(self.ok("GET", "/fonts")["fonts"], offered[1:])
        # Words that are set in it stay as they were.
        after = self.call("GET", f"/fonts/{font['key']}/sample", params=words).content
        self.assertEqual(after, own)
        self.refused(404, "DELETE", f"/fonts/{font['key']}")
        self.refused(415, "POST", "/fonts", content=data[:2000])

    def test_a_text_is_judged_and_mended(self):
        judged = self.ok("POST", "/bench/legibility", json=self.body)
        self.assertLess(judged["ratio"], judged["wanted"])
        sha256 = self.body["document"]["photo"]["sha256"]
        for colour in self.ok("GET", f"/bench/palette/{sha256}")["colours"]:
            self.assertRegex(colour, "^#[0-9A-F]{6}$")
        found = self.ok("POST", "/bench/readable", json=self.body)
        self.assertEqual(found["edit"]["kind"], "set_piece")
        draft = {"document": self.body["document"], "size_id": "main", "edit": found["edit"]}
        laid = self.laid(draft)
        self.assertEqual(line(laid, "pieces"), "“Glaze”")
        after = self.ok(
            "POST", "/bench/legibility", json=self.body | {"document": laid["document"]}
        )
        self.assertGreaterEqual(after["ratio"], after["wanted"])
        again = self.ok("POST", "/bench/readable", json=self.body | {"document": laid["document"]})
        self.assertIsNone(again["edit"])

    def test_calm_places_come_one_after_the_other_or_there_is_none(self):
        first, second = (
            self.ok("POST", "/bench/calm", json=self.body | {"place": place})["edit"]
            for place in (0, 1)
        )
        self.assertNotEqual((first["x"], first["y"]), (second["x"], second["y"]))
        self.body["document"]["pieces"][0] |= {"size": 3, "wrap": None}
        self.assertIn("do not fit", self.ok("POST", "/bench/calm", json=self.body)["message"])

    def test_refusals(self):
        for path in ("legibility", "readable", "calm"):
            self.refused(404, "POST", f"/bench/{path}", json=self.body | {"piece": "text-9"})
        badge = {"kind": "badge", "id": "badge-1"}
        document = self.body["document"] | {"pieces": [badge]}
        self.refused(
            422,
            "POST",
            "/bench/readable",
            json=self.body | {"document": document, "piece": "badge-1"},
        )


class SizeRouteTest(ServiceTest):
    plan: ClassVar = {"name": "Tag", "pixels": {"kind": "fixed", "width": 90, "height": 60}}

    def test_the_library(self):
        self.assertEqual(len(self.ok("GET", "/sizes")["library"]), len(SIZE_LIBRARY))

    def test_own_sizes_are_kept_replaced_and_forgotten(self):
        first = self.ok("POST", "/sizes", json={"plan": self.plan})
        self.ok("POST", "/sizes", json={"plan": self.plan | {"seen_width": 77}})
        own = self.ok("GET", "/sizes")["own"]
        self.assertEqual(
            [(one["plan"]["name"], one["plan"]["seen_width"]) for one in own], [("Tag", 77)]
        )
        self.refused(404, "DELETE", f"/sizes/{first['id']}")
        self.ok("DELETE", f"/sizes/{own[0]['id']}")
        self.assertEqual(self.ok("GET", "/sizes")["own"], [])

    def test_measures_on_paper_come_to_pixels_or_a_sentence(self):
        printed = {"width": 2, "height": 1, "unit": "in", "ppi": 72}
        pixels = self.ok("POST", "/sizes/measure", json={"printed": printed})
        self.assertEqual((pixels["width"], pixels["height"]), (144, 72))
        for bad in ({"ppi": 0}, {"width": 90_000}, {"width": -1}, {"unit": "foot"}):
            with self.subTest(bad):
                self.refused(422, "POST", "/sizes/measure", json={"printed": printed | bad})


class ExportRouteTest(ServiceTest):
    def wanted(self, **other):
        return {"revision": self.finish["revision"], "size_id": "main", "channel": "a"} | other

    def weighed(self, **other):
        body = self.wanted(**other)
        return self.done(self.ok("POST", f"{self.address}/weigh", json=body))

    def saved(self, sha256, **other):
        body = {"revision": self.finish["revision"], "size_id": "main", "sha256": sha256} | other
        return self.ok("POST", f"{self.address}/exports", json=body)

    def test_what_is_saved_is_what_was_weighed(self):
        weighed = self.weighed()
        exported = self.saved(weighed["sha256"])
        response = self.call("GET", f"/exports/{exported['id']}/file")
        self.assertEqual(len(response.content), weighed["bytes"])
        self.assertEqual(hashlib.sha256(response.content).hexdigest(), weighed["sha256"])
        self.assertIn("mugs-300x200.jpg", response.headers["content-disposition"])
        self.assertEqual(opened(response).size, (300, 200))
        self.assertEqual(self.ok("GET", f"{self.address}/exports")["exports"], [exported])

    def test_a_size_comes_in_layers(self):
        at = {"revision": self.finish["revision"], "size_id": "main"}
        response = self.call("GET", f"{self.address}/layers", params=at)
        self.assertEqual(response.headers["content-type"], "image/openraster")
        self.assertIn("mugs-300x200.ora", response.headers["content-disposition"])
        archive = zipfile.ZipFile(io.BytesIO(response.content))
        self.assertIn(b'name="Photo"', archive.read("stack.xml"))

    def test_several_files_come_in_one_archive(self):
        ids = [self.saved(self.weighed()["sha256"])["id"]]
        self.edited({"kind": "set_export", "changes": {"format": "png"}})
        ids.append(self.saved(self.weighed()["sha256"])["id"])
        pages = self.call("GET", "/exports/pdf", params={"ids": ids})
        self.assertTrue(pages.content.startswith(b"%PDF"))
        self.assertIn("mugs.pdf", pages.headers["content-disposition"])
        response = self.call("GET", "/exports/zip", params={"ids": ids})
        self.assertIn("mugs.zip", response.headers["content-disposition"])
        archive = zipfile.ZipFile(io.BytesIO(response.content))
        self.assertEqual(archive.namelist(), ["mugs-300x200.jpg", "mugs-300x200.png"])
        self.edited({"kind": "set_file_details", "alt_text": "Mugs, blue"})
        ids.append(self.saved(self.weighed()["sha256"])["id"])
        archive = zipfile.ZipFile(
            io.BytesIO(self.call("GET", "/exports/zip", params={"ids": ids}).content)
        )
        lines = archive.read("alternative-text.csv").decode("utf-8-sig").splitlines()
        self.assertEqual(lines[1], "mugs-300x200.jpg,")
        self.assertEqual(lines[3], 'mugs-300x200.png,"Mugs, blue"')
        self.refused(404, "GET", "/exports/zip", params={"ids": [*ids, 999]})
        self.refused(422, "GET", "/exports/zip")

    def test_it_is_the_same_after_a_restart(self):
        weighed = self.weighed()
        self.app.state.shared.close()
        restarted = TestClient(create_app(self.settings()), base_url="http://127.0.0.1")
        self.client = self.enterContext(restarted)  # it remembers nothing that was weighed
        self.assertEqual(self.saved(weighed["sha256"])["sha256"], weighed["sha256"])

    def test_a_reveal_is_weighed_and_saved_beside_the_still(self):
        self.edited({"kind": "add_lift", "shape": {"kind": "circle"}})
        reveal = {"seconds": 0.3, "format": "gif"}
        self.edited({"kind": "set_export", "changes": {"reveal": reveal}})
        still, moving = self.weighed(), self.weighed(reveal=True)
        self.assertEqual((still["image_format"], moving["image_format"]), ("jpeg", "gif"))
        exported = self.saved(moving["sha256"], reveal=True)
        response = self.call("GET", f"/exports/{exported['id']}/file")
        self.assertEqual(response.headers["content-type"], "image/gif")
        self.assertEqual(opened(response).n_frames, 7)
        still_wanted = self.wanted() | {"sha256": moving["sha256"]}
        del still_wanted["channel"]
        self.refused(409, "POST", f"{self.address}/exports", json=still_wanted)

    def test_another_file_than_the_weighed_one_is_not_saved(self):
        body = {"revision": self.finish["revision"], "size_id": "main", "sha256": NO_PHOTO}
        self.refused(409, "POST", f"{self.address}/exports", json=body)
        self.assertEqual(self.ok("GET", f"{self.address}/exports")["exports"], [])

    def test_a_cap_that_is_not_met_comes_with_edits_that_would_help(self):
        self.edited({"kind": "set_export", "changes": {"format": "png", "max_kb": 20}})
        weighed = self.weighed()
        self.assertFalse(weighed["meets_cap"])
        for suggestion in weighed["suggestions"]:
            self.laid(self.draft(suggestion["edit"]))
        self.assertIn("px would do", weighed["suggestions"][-1]["label"])

    def test_opening_as_it_was(self):
        exported = self.saved(self.weighed()["sha256"])
        before = self.finish["document"]
        self.edited(TALL)
        path = f"/exports/{exported['id']}/open"
        self.refused(412, "POST", path, json={"etag": 1})
        opened_again = self.ok("POST", path, json={"etag": self.finish["etag"]})
        self.assertEqual(opened_again["document"], before)

    def test_names_in_any_alphabet_come_through(self):
        self.edited({"kind": "rename", "name": "Töpfe 🏺 “blau”"})
        exported = self.saved(self.weighed()["sha256"])
        disposition = self.call("GET", f"/exports/{exported['id']}/file").headers[
            "content-disposition"
        ]
        self.assertIn("filename*=UTF-8''t%C3%B6pfe-%F0%9F%8F%BA", disposition)

    def test_refusals(self):
        self.refused(404, "GET", "/exports/99/file")
        self.refused(404, "POST", "/exports/99/open", json={"etag": 1})
        self.refused(404, "POST", f"{self.address}/weigh", json=self.wanted(revision=99))
        self.refused(
            404,
            "POST",
            f"{self.address}/weigh",
            json=self.wanted(size_id="x"),
        )
        self.edited({"kind": "set_file_details", "name_pattern": "{nme}"})
        self.refused(422, "POST", f"{self.address}/weigh", json=self.wanted())


class OpenApiTest(ServiceTest):
    def test_every_route_says_what_it_answers(self):
        document = self.ok("GET", "/openapi.json")
        self.assertGreaterEqual(len(document["paths"]), 25)
        for path, methods in document["paths"].items():
            for method, route in methods.items():
                with self.subTest(f"{method} {path}"):
                    self.assertTrue(route["description"])
                    good = next(code for code in route["responses"] if code.startswith("2"))
                    answer = route["responses"][good]
                    self.assertTrue(good == "204" or answer.get("content"), answer)

    def test_no_two_models_share_a_name(self):
        # Such models are told apart by their modules' names, which no client should see.
        schemas = self.ok("GET", "/openapi.json")["components"]["schemas"]
        self.assertEqual([name for name in schemas if "__" in name], [])

    def test_every_body_has_an_example_that_validates(self):
        document = self.ok("GET", "/openapi.json")
        schemas = document["components"]["schemas"]
        for path, methods in document["paths"].items():
            content = methods.get("post", methods.get("put", {})).get("requestBody", {})
            schema = content.get("content", {}).get("application/json", {}).get("schema", {})
            name = schema.get("$ref", "").rsplit("/", 1)[-1]
            if not name:
                continue
            with self.subTest(path):
                model = next(m for m in every_model(Value) if m.__name__ == name)
                self.assertTrue(schemas[name]["examples"])
                for example in schemas[name]["examples"]:
                    model.model_validate(example)


def every_model(root):
    for model in root.__subclasses__():
        yield model
        yield from every_model(model)


class BadEntryTest(ServiceTest):
    """One finish that can't be shown closes neither the shelf nor the bin."""

    def faces(self, **options):
        listed = self.ok("GET", "/finishes", params=options)["finishes"]
        return {face["name"]: face for face in listed}

    def test_it_is_listed_with_what_is_wrong_and_can_be_mended_or_binned(self):
        self.edited({"kind": "rename", "name": "Bad"})
        self.ok("POST", "/finishes", json={"photo": self.photo["sha256"], "name": "Good"})
        tall = {"kind": "one_side", "side": "height", "length": 16_000}
        document = self.finish["document"]
        document = document | {"sizes": [document["sizes"][0] | {"pixels": tall}]}
        body = {"etag": self.finish["etag"], "document": document}
        # Nobody can save such a document any more; one that was saved before is still there.
        self.assertIn("megapixels", self.refused(413, "PUT", self.address, json=body)["detail"])
        with mock.patch("lucky_margin.store.finishes.check_sound"):
            self.finish = self.ok("PUT", self.address, json=body)
        faces = self.faces()
        self.assertIn("megapixels", faces["Bad"]["problem"])
        self.assertEqual((faces["Bad"]["sizes"], faces["Bad"]["can_undo"]), ([], True))
        self.assertEqual((faces["Good"]["problem"], len(faces["Good"]["sizes"])), ("", 1))
        self.ok("POST", f"{self.address}/bin")
        self.assertIn("megapixels", self.faces(binned=True)["Bad"]["problem"])
        self.ok("POST", f"{self.address}/restore")
        self.ok("POST", f"{self.address}/undo", json={"etag": self.finish["etag"]})
        self.assertEqual(self.faces()["Bad"]["problem"], "")

    def test_a_photo_that_is_not_there_is_refused(self):
        grounds = {"backdrop": {"kind": "photo", "sha256": NO_PHOTO}}
        body = {"etag": self.finish["etag"], "document": self.finish["document"] | grounds}
        self.refused(404, "PUT", self.address, json=body)
        self.refused(404, "POST", "/finishes", json={"document": body["document"]})


class OddNameTest(ServiceTest):
    def test_a_mark_of_any_name_is_downloaded_under_it(self):
        for name in ("陶芸", "“Studio”", "Möller 🏺", 'a"b'):
            design = {"words": "Pots"}
            kept = self.ok("POST", "/marks", json={"name": name, "design": design})["mark"]
            for kind in ("png", "svg"):
                answer = self.call("GET", f"/marks/{kept['id']}/file", params={"kind": kind})
                self.assertEqual(answer.status_code, 200, answer.text)
                sent = answer.headers["content-disposition"]
                self.assertTrue(sent.startswith("attachment; filename*=UTF-8''"), sent)
                stem = unquote(sent.partition("''")[2])
                self.assertTrue(stem.endswith(f"-dark.{kind}"), stem)

    def test_a_size_on_paper_beyond_the_limits_is_refused(self):
        for side in (100, 400, 1300):
            printed = {"width": side, "height": side, "unit": "mm", "ppi": 300}
            pixels = round(side / 25.4 * 300)
            if pixels**2 <= 120_000_000:
                self.assertEqual(
                    self.ok("POST", "/sizes/measure", json={"printed": printed})["width"], pixels
                )
            else:
                status = 413 if pixels <= 16_000 else 422
                self.refused(status, "POST", "/sizes/measure", json={"printed": printed})

    def test_the_stand_in_for_a_missing_font_is_not_kept(self):
        missing = self.call("GET", f"/fonts/{NO_PHOTO}/sample")
        self.assertEqual(missing.headers["cache-control"], "no-store")
        shipped = self.call("GET", "/fonts/anton/sample")
        self.assertIn("immutable", shipped.headers["cache-control"])


class NeutralTest(ServiceTest):
    def test_it_says_whether_grey_is_reached(self):
        for colour, reached in (("#B9A58C", True), ("#808080", True), ("#FF0000", False)):
            found = self.ok("POST", "/bench/neutral", json={"colour": colour})
            with self.subTest(colour):
                self.assertEqual("make that spot grey" in found["message"], reached)
                self.assertEqual("pick a greyer one" in found["message"], not reached)
