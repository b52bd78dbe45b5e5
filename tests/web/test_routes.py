"""Every route, good and bad."""

import hashlib
import io
import json
import zipfile
from typing import ClassVar
from unittest import mock

import numpy as np
from PIL import Image

from lucky_margin.core.document import SIZE_LIBRARY, Value
from lucky_margin.core.tone import LOOKS
from tests.support import encoded, gradient, noise
from tests.web.client import PHOTO, ServiceTest

NOWHERE = "0" * 16
NO_PHOTO = "0" * 64
TALL = {"kind": "set_pixels", "pixels": {"kind": "fixed", "width": 108, "height": 135}}


def opened(response):
    return Image.open(io.BytesIO(response.content))


class PhotoRouteTest(ServiceTest):
    def test_adding_and_adding_again(self):
        self.assertEqual(
            (self.photo["width"], self.photo["height"], self.photo["known"]), (300, 200, False)
        )
        self.assertTrue(self.added(PHOTO, "again.png")["known"])
        self.assertEqual(len(self.ok("GET", "/photos")["photos"]), 1)

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
        self.refused(422, "GET", "/photos/..%2f..%2fetc/thumbnail".replace("%2f", "-"))
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


class HugeNumberTest(ServiceTest):
    def test_numbers_that_no_row_can_have_are_refused(self):
        huge = 2**70
        self.refused(422, "GET", "/finishes", params={"offset": huge})
        self.refused(422, "GET", f"/exports/{huge}/file")
        self.refused(422, "POST", f"/exports/{huge}/open", json={"etag": 1})
        self.refused(422, "POST", f"{self.address}/reopen", json={"etag": 1, "revision": huge})
        self.refused(
            422, "POST", f"{self.address}/weigh", json={"revision": huge, "size_id": "main"}
        )
        self.refused(412, "POST", f"{self.address}/undo", json={"etag": huge})
        body = {k: v for k, v in self.draft(view="photo", x=huge, y=0).items() if k != "edit"}
        self.refused(422, "POST", "/bench/pixel", json=body)


class BenchRouteTest(ServiceTest):
    def preview(self, **wanted):
        body = self.draft() | {"channel": "test", "scale": 1} | wanted
        return self.call("POST", "/bench/preview", json=body)

    def test_a_draft_is_laid_out_after_its_edit(self):
        laid = self.ok("POST", "/bench/draft", json=self.draft(TALL))
        self.assertEqual((laid["layout"]["width"], laid["layout"]["height"]), (108, 135))
        self.assertEqual(laid["crop"], "108 × 135, centred")
        self.assertEqual(laid["border"], "none")
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
        body = {k: v for k, v in self.draft(view="photo", x=7, y=9).items() if k != "edit"}
        expected = "#{:02X}{:02X}{:02X}".format(*noise(300, 200)[9, 7])
        self.assertEqual(self.ok("POST", "/bench/pixel", json=body)["colour"], expected)
        self.refused(422, "POST", "/bench/pixel", json=body | {"x": 300})

    def test_checks(self):
        found = self.ok("POST", "/bench/checks", json=self.draft())["checks"]
        self.assertEqual([check["key"] for check in found], ["sharpness"])

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
        laid = self.ok("POST", "/bench/draft", json=self.draft({"kind": "add_size", "plan": plan}))
        self.assertEqual(laid["size_id"], laid["sizes"][1]["id"])
        self.assertEqual(laid["layout"]["size_id"], laid["size_id"])
        faces = [(size["name"], size["width"], size["own"]) for size in laid["sizes"]]
        self.assertEqual(faces, [("As cropped", 300, []), ("Square post", 1080, [])])
        self.assertEqual(laid["here"]["border"]["colour"], "#FFFFFF")

    def test_a_margin_is_found_and_the_edit_takes_it(self):
        sheet = np.full((100, 120, 3), 255, np.uint8)
        sheet[20:70, 30:90] = noise(60, 50) // 2
        sha256 = self.added(encoded(sheet), "scan.png")["sha256"]
        document = self.finish["document"] | {"photo": {"sha256": sha256}}
        found = self.ok("POST", "/bench/trim", json={"document": document, "size_id": "main"})
        self.assertIn("60 × 50 px", found["said"])
        self.assertIn("left 30, top 20, right 30, bottom 30", found["said"])
        laid = self.ok("POST", "/bench/draft", json=self.draft(found["edit"], document))
        self.assertEqual((laid["layout"]["width"], laid["layout"]["height"]), (60, 50))
        nothing = self.ok(
            "POST", "/bench/trim", json={k: v for k, v in self.draft().items() if k != "edit"}
        )
        self.assertEqual((nothing["box"], nothing["edit"]), (None, None))
        self.assertIn("no plain margin", nothing["said"])

    def test_tone_is_measured_and_proposed(self):
        photo = np.full((60, 80, 3), 30, np.uint8)
        photo[:, 40:] = 90
        sha256 = self.added(encoded(photo), "dim.png")["sha256"]
        document = self.finish["document"] | {"photo": {"sha256": sha256}}
        found = self.ok("POST", "/bench/auto", json=self.draft(None, document))
        self.assertIn("exposure", found["said"])
        laid = self.ok("POST", "/bench/draft", json=self.draft(found["edit"], document))
        self.assertGreater(laid["here"]["tone"]["exposure"], 0.5)
        self.assertTrue(laid["tone"].startswith("exposure +"))
        figures = self.ok("POST", "/bench/tone", json=self.draft(None, laid["document"]))
        self.assertAlmostEqual(sum(figures["brightness"]), 1, places=3)
        self.assertEqual((figures["curve"][0], figures["curve"][-1]), (0, 1))
        self.assertEqual(figures["newly_high"], 0)

    def test_a_neutral_is_balanced(self):
        found = self.ok("POST", "/bench/neutral", json={"colour": "#C8B090"})
        self.assertLess(found["edit"]["changes"]["temperature"], -10)
        self.assertIn("make that grey", found["said"])
        self.refused(422, "POST", "/bench/neutral", json={"colour": "grey"})

    def test_the_looks(self):
        looks = self.ok("GET", "/bench/looks")["looks"]
        self.assertEqual({look["key"] for look in looks}, set(LOOKS))

    def test_a_focus_is_proposed_with_what_it_was_found_by(self):
        photo = np.full((90, 120, 3), 210, np.uint8)
        photo[50:70, 80:100] = (190, 20, 20)
        sha256 = self.added(encoded(photo), "spot.png")["sha256"]
        document = self.finish["document"] | {"photo": {"sha256": sha256}}
        found = self.ok("POST", "/bench/focus", json=self.draft(None, document))
        self.assertRegex(found["said"], r"what stands out in colour and sharpness, \d+ % sure")
        focus = found["edit"]["focus"]
        self.assertAlmostEqual(focus["point"]["x"], 90 / 120, delta=0.08)
        self.assertAlmostEqual(found["box"]["left"], focus["box"]["left"] * 120, delta=0.01)

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
    def weighed(self):
        body = {"revision": self.finish["revision"], "size_id": "main"}
        return self.ok("POST", f"{self.address}/weigh", json=body)

    def saved(self, sha256):
        body = {"revision": self.finish["revision"], "size_id": "main", "sha256": sha256}
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

    def test_several_files_come_in_one_archive(self):
        ids = [self.saved(self.weighed()["sha256"])["id"]]
        self.edited({"kind": "set_export", "changes": {"format": "png"}})
        ids.append(self.saved(self.weighed()["sha256"])["id"])
        response = self.call("GET", "/exports/zip", params={"ids": ids})
        self.assertIn("mugs.zip", response.headers["content-disposition"])
        archive = zipfile.ZipFile(io.BytesIO(response.content))
        self.assertEqual(archive.namelist(), ["mugs-300x200.jpg", "mugs-300x200.png"])
        self.refused(404, "GET", "/exports/zip", params={"ids": [*ids, 999]})
        self.refused(422, "GET", "/exports/zip")

    def test_it_is_the_same_after_a_restart(self):
        weighed = self.weighed()
        self.app.state.studio.weighed.__init__()
        self.assertEqual(self.saved(weighed["sha256"])["sha256"], weighed["sha256"])

    def test_another_file_than_the_weighed_one_is_not_saved(self):
        body = {"revision": self.finish["revision"], "size_id": "main", "sha256": NO_PHOTO}
        self.refused(409, "POST", f"{self.address}/exports", json=body)
        self.assertEqual(self.ok("GET", f"{self.address}/exports")["exports"], [])

    def test_a_cap_that_is_not_met_comes_with_edits_that_would_help(self):
        self.edited({"kind": "set_export", "changes": {"format": "png", "max_kb": 20}})
        weighed = self.weighed()
        self.assertFalse(weighed["meets_cap"])
        for suggestion in weighed["suggestions"]:
            self.ok("POST", "/bench/draft", json=self.draft(suggestion["edit"]))
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
        self.refused(404, "POST", f"{self.address}/weigh", json={"revision": 99, "size_id": "main"})
        self.refused(
            404,
            "POST",
            f"{self.address}/weigh",
            json={"revision": self.finish["revision"], "size_id": "x"},
        )
        self.edited({"kind": "set_file_details", "name_pattern": "{nme}"})
        body = {"revision": self.finish["revision"], "size_id": "main"}
        self.refused(422, "POST", f"{self.address}/weigh", json=body)


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
