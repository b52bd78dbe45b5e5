"""A process killed at any moment loses nothing that it said is kept."""

import json
import os
import random
import signal
import subprocess
import sys
import tempfile
import time
import unittest
from pathlib import Path

from lucky_margin.core.photos import decode
from lucky_margin.store import Store
from tests.endure import rounds

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


class KillTest(unittest.TestCase):
    def test_what_was_said_is_there_and_nothing_half_done_is_in_the_way(self):
        chance = random.Random(11)
        said = {"photo": [], "save": [], "export": []}
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            for turn in range(rounds(3, 100)):
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
