"""A process killed at any moment loses nothing that it said is kept."""

import contextlib
import json
import os
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
import unittest
from pathlib import Path

import httpx2

from lucky_margin.core.photos import decode
from lucky_margin.store import Store, look_over
from tests.browser.base import Service
from tests.endure import amount
from tests.support import encoded, noise
from tests.test_batch import BatchCase

CHILD = """
import sys
from pathlib import Path
from lucky_margin.core.document import new_finish
from lucky_margin.core.export import export
from lucky_margin.core.scene import Scene
from lucky_margin.store import Store
from tests.support import encoded, noise

store = Store(Path(sys.argv[1]))
begin = int(sys.argv[2])

def say(kind, *words):
    print(json.dumps([kind, *words]), flush=True)

import json
for number in range(begin, begin + 10_000):
    photo, _ = store.photos.add(encoded(noise(20 + number % 50, 30 + number // 50)), "a.png")
    say("photo", photo.sha256)
    record = store.finishes.create(new_finish(name=str(number), photo_sha256=photo.sha256))
    for turn in range(3):
        document = record.document.model_copy(update={"name": f"{number}, {turn}"})
        record = store.finishes.save(record.id, record.etag, document)
        say("save", record.id, record.document.name)
    file = export(Scene(record.document, record.document.sizes[0], store.photos))
    kept = store.exports.add(file, finish_id=record.id, revision=record.revision, size_name="x")
    say("export", kept.id, kept.sha256)
"""


class BatchKillTest(BatchCase):
    def test_every_file_is_whole_whenever_it_ends_and_the_same_in_the_end(self):
        chance = random.Random(12)
        self.add_photos(8)
        self.run_batch(out=self.folder / "whole")
        whole = self.written(self.folder / "whole")
        self.assertEqual(len(whole), 16)
        for turn in range(amount(1, 50)):
            if turn % 5 == 0:
                shutil.rmtree(self.out, ignore_errors=True)
            process = self.started("--jobs", 2)
            # Two in three are killed while they work, one in three before or after.
            time.sleep(chance.uniform(1, 8))
            with contextlib.suppress(ProcessLookupError):
                os.killpg(process.pid, signal.SIGKILL)
            process.wait()
            there = self.written() if self.out.exists() else {}
            self.assertEqual(there, {name: whole[name] for name in there})
        self.assertEqual(self.run_batch()[0], 0)
        self.assertEqual(self.written(), whole)


class ServiceKillTest(unittest.TestCase):
    """The service itself, killed while photos come in, finishes are saved and files exported."""

    def test_what_it_answered_is_there_when_it_is_started_again(self):
        chance = random.Random(13)
        said = {}
        with tempfile.TemporaryDirectory() as name:
            service = Service(Path(name))
            for turn in range(amount(1, 50)):
                worker = threading.Thread(target=self.work, args=(service.url, turn, said))
                known = len(said)
                worker.start()
                while len(said) == known and worker.is_alive():
                    time.sleep(0.05)
                time.sleep(chance.uniform(0, 1))
                service.process.kill()
                service.stop()
                worker.join()
                service.start()
                for address, wanted in said.items():
                    found = httpx2.get(service.url + address, timeout=60)
                    self.assertEqual(found.status_code, 200, found.text)
                    self.assertGreaterEqual(found.json()["etag"], wanted)
            service.stop()
            self.assertTrue(look_over(Path(name)).is_sound)
        self.assertGreaterEqual(len(said), amount(1, 50))

    def work(self, url, turn, said):
        """Add a photo, save its finish twice and export it, over and over until nobody answers."""
        with (
            httpx2.Client(base_url=f"{url}/api", timeout=60) as client,
            contextlib.suppress(httpx2.TransportError),
        ):
            for number in range(10_000):
                data = encoded(noise(30 + number, 20 + turn))
                sha256 = client.post("/photos?name=a.png", content=data).json()["sha256"]
                finish = client.post("/finishes", json={"photo": sha256}).json()
                address = f"/finishes/{finish['id']}"
                for _ in range(2):
                    renamed = {"etag": finish["etag"], "name": f"{turn}, {number}"}
                    finish = client.post(f"{address}/rename", json=renamed).json()
                    said[f"/api{address}"] = finish["etag"]
                at = {"revision": finish["revision"], "size_id": "main"}
                weighed = client.post(f"{address}/weigh", json=at | {"channel": "a"}).json()
                while weighed["state"] != "done":
                    weighed = client.get(f"/jobs/{weighed['id']}?news={weighed['news']}").json()
                saved = at | {"sha256": weighed["result"]["sha256"]}
                client.post(f"{address}/exports", json=saved).raise_for_status()


class KillTest(unittest.TestCase):
    def test_what_was_said_is_there_and_nothing_half_done_is_in_the_way(self):
        chance = random.Random(11)
        said = {"photo": [], "save": [], "export": []}
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            for turn in range(amount(3, 100)):
                for kind, *words in self.killed(folder, 10_000 * turn, chance):
                    said[kind].append(words)
                self.check(folder, said)
        self.assertGreater(len(said["save"]), 10)

    def killed(self, folder, begin, chance):
        """What a child said before it was killed."""
        child = subprocess.Popen(
            [sys.executable, "-c", CHILD, str(folder), str(begin)],
            stdout=subprocess.PIPE,
            text=True,
            cwd=Path(__file__).parents[2],
        )
        first = child.stdout.readline()
        time.sleep(chance.uniform(0, 0.6))
        os.kill(child.pid, signal.SIGKILL)
        lines = (first + child.communicate()[0]).splitlines()
        return [json.loads(line) for line in lines if line.endswith("]")]

    def check(self, folder, said):
        store = Store(folder)
        try:
            for (sha256,) in said["photo"]:
                photo = decode(store.photos.original(sha256).read_bytes())
                self.assertEqual(store.photos.get(sha256).facts, photo.facts)
            names = dict(said["save"])
            for finish_id, name in names.items():
                number, turn = name.split(", ")
                found_number, found_turn = store.finishes.get(finish_id).document.name.split(", ")
                self.assertEqual(found_number, number)
                self.assertGreaterEqual(int(found_turn), int(turn))
            for export_id, sha256 in said["export"]:
                record = store.exports.get(export_id)
                self.assertEqual(record.sha256, sha256)
                self.assertEqual(len(store.exports.data(record)), record.bytes)
            listed = store.finishes.list(limit=10**6)
            self.assertFalse([entry.problem for entry in listed if entry.problem])
        finally:
            store.close()
