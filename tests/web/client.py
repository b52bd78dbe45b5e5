"""A client of the service on a data folder of its own."""

import tempfile
import unittest
from pathlib import Path

from fastapi.testclient import TestClient

from lucky_margin.web import Settings, create_app
from tests.support import encoded, noise

PHOTO = encoded(noise(300, 200))


class ServiceTest(unittest.TestCase):
    """Starts the service with one photo and one finish of it."""

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.app = create_app(self.settings())
        client = TestClient(self.app, base_url="http://127.0.0.1", raise_server_exceptions=False)
        self.client = self.enterContext(client)
        self.photo = self.added(PHOTO, "mugs.png")
        self.finish = self.ok("POST", "/finishes", json={"photo": self.photo["sha256"]})
        self.address = f"/finishes/{self.finish['id']}"

    def settings(self):
        return Settings(data=self.folder)

    def call(self, method, path, **options):
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
        document = document or self.finish["document"]
        return {"document": document, "size_id": "main", "edit": edit} | more

    def edited(self, edit):
        """Carry out an edit and save it."""
        laid = self.ok("POST", "/bench/draft", json=self.draft(edit))
        body = {"etag": self.finish["etag"], "document": laid["document"]}
        self.finish = self.ok("PUT", self.address, json=body)
        return self.finish
