"""The service as a whole: who may ask, errors, previews, and no blocking of the event loop."""

import inspect
import tempfile
import threading
from pathlib import Path
from typing import ClassVar
from unittest import mock

from lucky_margin.core import errors
from lucky_margin.store import PhotoStore
from lucky_margin.web import Settings, problems
from lucky_margin.web.guard import HEADERS
from tests.web.client import ServiceTest


class GuardTest(ServiceTest):
    def test_other_hosts_are_refused(self):
        for host in ("evil.example", "127.0.0.1.evil.example:80", "192.168.0.7", ""):
            with self.subTest(host):
                self.refused(421, "GET", "/photos", headers={"host": host})
        for host in ("127.0.0.1:8750", "localhost", "[::1]:80"):
            with self.subTest(host):
                self.ok("GET", "/photos", headers={"host": host})

    def test_other_origins_are_refused(self):
        for origin in ("http://evil.example", "null", "http://127.0.0.1:9999"):
            with self.subTest(origin):
                self.refused(403, "POST", f"{self.address}/bin", headers={"origin": origin})
        self.ok("POST", f"{self.address}/bin", headers={"origin": "http://127.0.0.1"})

    def test_malformed_hosts_and_origins_are_refused(self):
        for origin in ("http://[", "http://[::1", "//", "]"):
            with self.subTest(origin):
                self.refused(403, "POST", f"{self.address}/bin", headers={"origin": origin})
        for host in ("[", "[::1", "]", ":80"):
            with self.subTest(host):
                self.refused(421, "GET", "/photos", headers={"host": host})


class TokenTest(ServiceTest):
    """A shelf that only those may see who have the printed address."""

    TOKEN = "a-long-token"
    COOKIES: ClassVar = {"lucky-margin-token": TOKEN}

    def settings(self):
        return Settings(data=self.folder, token=self.TOKEN)

    def test_who_has_none_or_another_stays_outside(self):
        self.client.cookies.clear()
        for query in ("", "?token=", "?token=another"):
            for path in ("/api/finishes", "/api/openapi.json", "/"):
                answer = self.client.get(path + query)
                self.assertEqual(answer.status_code, 401, path)
                self.assertIn("open the address", answer.json()["detail"])
                self.assertIn("Content-Security-Policy", answer.headers)

    def test_the_printed_address_lets_a_browser_in_and_keeps_the_token_out_of_sight(self):
        self.client.cookies.clear()
        answer = self.client.get(f"/api/finishes?token={self.TOKEN}", follow_redirects=False)
        self.assertEqual((answer.status_code, answer.headers["location"]), (303, "/api/finishes"))
        cookie = answer.headers["set-cookie"]
        self.assertIn("HttpOnly", cookie)
        self.assertIn("SameSite=strict", cookie)
        self.assertEqual(self.ok("GET", "/finishes")["total"], 1)


class SafetyHeaderTest(ServiceTest):
    """Every kind of answer says what may be loaded and that its type is not to be guessed."""

    def setUp(self):
        self.built = self.enterContext(tempfile.TemporaryDirectory())
        (Path(self.built) / "assets").mkdir()
        for name in ("index.html", "favicon.svg", "assets/app.js"):
            (Path(self.built) / name).write_text("<p>")
        super().setUp()

    def settings(self):
        return Settings(data=self.folder, frontend=Path(self.built))

    def test_all_carry_the_same(self):
        sha256 = self.photo["sha256"]
        broken = mock.patch.object(PhotoStore, "page", side_effect=RuntimeError("inside"))
        answers = {
            200: [("GET", "/api/photos"), ("GET", "/"), ("GET", "/favicon.svg"),
                  ("GET", "/assets/app.js"), ("GET", f"/api/photos/{sha256}/original"),
                  ("GET", f"/api/photos/{sha256}/thumbnail"), ("GET", "/api/openapi.json")],
            204: [("POST", f"/api{self.address}/bin")],
            404: [("GET", "/api/nothing"), ("GET", "/nothing"), ("GET", "/assets/none.js"),
                  ("GET", "/assets/../../secret"), ("GET", f"/api/photos/{'0' * 64}")],
            405: [("PATCH", "/api/photos")],
            415: [("POST", "/api/photos?name=x")],
            422: [("GET", "/api/photos/none")],
        }  # fmt: skip
        seen = [
            (status, self.client.request(method, path))
            for status, asked in answers.items()
            for method, path in asked
        ]
        with broken, self.assertLogs("lucky_margin", "ERROR"):
            seen.append((500, self.client.get("/api/photos")))
        seen.append((421, self.client.get("/", headers={"host": "evil.example"})))
        seen.append((403, self.client.get("/", headers={"origin": "http://evil.example"})))
        for status, answer in seen:
            with self.subTest(status=status, url=str(answer.url)):
                self.assertEqual(answer.status_code, status)
                for name, value in HEADERS.items():
                    self.assertEqual(answer.headers[name], value)
        self.assertIn("default-src 'none'", HEADERS["Content-Security-Policy"])
        self.assertNotIn("unsafe-eval", HEADERS["Content-Security-Policy"])


class ProblemTest(ServiceTest):
    def test_every_error_has_a_status(self):
        kinds = {
            kind
            for _, kind in inspect.getmembers(errors, inspect.isclass)
            if issubclass(kind, errors.LuckyMarginError) and kind is not errors.LuckyMarginError
        }
        self.assertEqual(set(problems.STATUS), kinds)

    def test_a_subclass_has_the_status_of_its_nearest_known_parent(self):
        class Older(errors.StaleSave):
            """One that the table does not know."""

        self.assertEqual(problems.status_of(Older), problems.STATUS[errors.StaleSave])

    def test_a_refusal_names_field_and_rule_and_not_all_that_was_sent(self):
        long = "z" * 5000
        bodies = (
            {"document": {"name": "x"}, "size_id": "main"},
            self.draft(document=self.finish["document"] | {long: 1}),
            self.draft({"kind": long}),
            self.draft({"kind": "rename", "name": long}),
            self.draft({"kind": "set_border", "changes": {long: 1}}),
        )
        for body in bodies:
            detail = self.refused(422, "POST", "/bench/draft", json=body)["detail"]
            self.assertLess(len(detail), 600)
            self.assertNotIn(long, detail)
        named = self.refused(422, "POST", "/bench/draft", json=bodies[0])["detail"]
        self.assertIn('its "format" has to be', named)

    def test_the_description_says_how_refusals_are_sent(self):
        described = self.app.openapi()
        self.assertIs(self.app.openapi(), described)
        operations = [one for path in described["paths"].values() for one in path.values()]
        self.assertGreater(len(operations), 50)
        for operation in operations:
            refusal = operation["responses"]["default"]["content"]
            self.assertEqual(list(refusal), ["application/problem+json"])
            self.assertNotIn("422", operation["responses"])
        self.assertNotIn("HTTPValidationError", described["components"]["schemas"])

    def test_the_unknown_tells_nothing_of_the_inside(self):
        inside = RuntimeError("secret path /data")
        failing = mock.patch("lucky_margin.store.photos.PhotoStore.page", side_effect=inside)
        with failing, self.assertLogs("lucky_margin", "ERROR"):
            problem = self.refused(500, "GET", "/photos")
        self.assertNotIn("secret", str(problem))

    def test_unknown_addresses_and_methods(self):
        self.refused(404, "GET", "/nothing/here")
        self.refused(405, "PATCH", "/photos")

    def test_every_error_of_the_tree_is_in_its_picture(self):
        for kind in problems.STATUS:
            self.assertIn(kind.__name__, errors.__doc__)


class EventLoopTest(ServiceTest):
    def test_slow_work_does_not_block_other_requests(self):
        """While one request works, another is answered."""
        began, may_end = threading.Event(), threading.Event()

        def slow(*args, **kwargs):
            began.set()
            self.assertTrue(may_end.wait(30), "the other request was not answered meanwhile")
            raise errors.NotFound("Slow, and not there.")

        with mock.patch.object(PhotoStore, "add", side_effect=slow):
            answers = []
            sender = threading.Thread(
                target=lambda: answers.append(
                    self.call("POST", "/photos", params={"name": "a"}, content=b"x")
                )
            )
            sender.start()
            self.assertTrue(began.wait(30))
            self.ok("GET", "/sizes")
            may_end.set()
            sender.join()
        self.assertEqual(answers[0].status_code, 404)

    def test_no_route_that_works_runs_on_the_loop(self):
        """A coroutine has its work done elsewhere: at the desk, as a job, or in a thread."""
        endpoints = list(endpoints_of(self.app.routes))
        coroutines = [one for one in endpoints if inspect.iscoroutinefunction(one)]
        elsewhere = r"desk\.run|state\.measured|jobs\.|told\(job\)|run_in_threadpool"
        for one in coroutines:
            if one.__module__.startswith("lucky_margin"):
                self.assertRegex(inspect.getsource(one), elsewhere, one.__name__)
        self.assertGreater(len(coroutines), 15)
        self.assertGreater(len(endpoints), 60)


def endpoints_of(routes):
    """Every route's function, those of included routers too."""
    for route in routes:
        included = getattr(route, "original_router", None)
        if included is not None:
            yield from endpoints_of(included.routes)
        elif hasattr(route, "endpoint"):
            yield route.endpoint
