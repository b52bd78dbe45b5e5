"""A client of the service on a data folder of its own."""

import atexit
import shutil
import tempfile
import unittest
from copy import deepcopy
from functools import cache
from pathlib import Path
from typing import ClassVar

from fastapi.testclient import TestClient

from lucky_margin.web import Settings, create_app
from tests.support import encoded, noise

PHOTO = encoded(noise(300, 200))


@cache
def started():
    """A data folder with one photo and one finish of it, and what the service answered when they
    came. Looking for what to keep in view takes a second, so each test works on a copy."""
    folder = tempfile.TemporaryDirectory()
    atexit.register(folder.cleanup)
    app = create_app(Settings(data=Path(folder.name)))
    with TestClient(app, base_url="http://127.0.0.1") as client:
        photo = client.post("/api/photos", params={"name": "mugs.png"}, content=PHOTO).json()
        finish = client.post("/api/finishes", json={"photo": photo["sha256"]}).json()
    return Path(folder.name), photo, finish


class ServiceTest(unittest.TestCase):
    """Starts the service with one photo and one finish of it."""

    COOKIES: ClassVar = {}

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        kept, photo, finish = started()
        shutil.copytree(kept, self.folder, dirs_exist_ok=True)
        self.photo, self.finish = deepcopy(photo), deepcopy(finish)
        self.address = f"/finishes/{self.finish['id']}"
        self.app = create_app(self.settings())
        client = TestClient(
            self.app,
            base_url="http://127.0.0.1",
            raise_server_exceptions=False,
            cookies=self.COOKIES,
        )
        self.client = self.enterContext(client)

    def settings(self):
        return Settings(data=self.folder)

    def call(self, method, path, **options):
        """A request; a document in its body is sent first, and then named, as the page does."""
        body = options.get("json")
        if isinstance(body, dict) and "document" in body:
            sent = self.client.post("/api/drafts", json=body["document"])
            if sent.status_code != 201:
                return sent
            named = {key: value for key, value in body.items() if key != "document"}
            options["json"] = named | sent.json()
        return self.client.request(method, f"/api{path}", **options)

    def ok(self, method, path, **options):
        response = self.call(method, path, **options)
        self.assertLess(response.status_code, 300, response.text)
        return response.json() if response.content else None

    def added(self, data, name):
        return self.ok("POST", "/photos", params={"name": name}, content=data)

    def refused(self, status, method, path, **options):
        """The problem of a request that must be refused with ``status``."""
        response = self.call(method, path, **options)
        self.assertEqual(response.status_code, status, response.text)
        self.assertEqual(response.headers["content-type"], "application/problem+json")
        problem = response.json()
        self.assertEqual(problem["status"], status)
        self.assertRegex(problem["detail"], r"\.$")
        self.assertNotIn("Traceback", problem["detail"])
        return problem

    def draft(self, edit=None, document=None, **more):
        body = {"document": document or self.finish["document"], "size_id": "main"}
        return body | ({"edit": edit} if edit else {}) | more

    def laid(self, body):
        """A draft laid out, as the page holds it."""
        answer = self.ok("POST", "/bench/draft", json=body)
        return answer | answer["laid"]

    def edited(self, edit):
        """Carry out an edit and save it."""
        laid = self.laid(self.draft(edit))
        body = {"etag": self.finish["etag"], "draft": laid["draft"]}
        self.finish = self.ok("PUT", self.address, json=body)
        return self.finish

    def done(self, job):
        """What a job brings."""
        while job["state"] in ("waiting", "running"):
            job = self.ok("GET", f"/jobs/{job['id']}", params={"news": job["news"]})
        self.assertEqual(job["state"], "done", job)
        return job["result"]
