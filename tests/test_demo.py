"""The demo data: seeded once, showing the work so far, and sound."""

import contextlib
import io
import tempfile
import unittest
from pathlib import Path

from demo.seed import STORIES, seed
from lucky_margin.core.checks import check
from lucky_margin.core.scene import Scene
from lucky_margin.store import Store


class SeedTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.said = io.StringIO()
        with contextlib.redirect_stdout(cls.said):
            seed(Path(folder.name))
            seed(Path(folder.name))
        cls.store = Store(Path(folder.name))
        cls.addClassCleanup(cls.store.close)

    def test_seeding_again_changes_nothing(self):
        self.assertEqual(self.said.getvalue().count("Seeded"), 1)
        self.assertEqual(len(self.store.photos.list()), 9)
        self.assertEqual(self.store.finishes.count(), len(STORIES))

    def test_every_finish_tells_its_story_in_revisions(self):
        for record in self.store.finishes.list():
            story = next(s for s in STORIES if s.name == record.document.name)
            with self.subTest(story.name):
                labels = [r.label for r in self.store.finishes.revisions(record.id)]
                self.assertEqual(len(labels), 1 + len(story.edits))
                self.assertTrue(all(labels))

    def test_the_main_story_keeps_a_version_from_before_the_border(self):
        record = self.store.finishes.list(search="Thursday")[0]
        kept = [r for r in self.store.finishes.revisions(record.id) if r.version_name]
        self.assertEqual([r.version_name for r in kept], ["Before the border"])
        before = self.store.finishes.revision_document(record.id, kept[0].id)
        self.assertFalse(before.border.is_set)

    def test_no_finish_is_soft(self):
        for record in self.store.finishes.list():
            found = check(Scene(record.document, record.document.sizes[0], self.store.photos))
            with self.subTest(record.document.name):
                self.assertEqual([c.severity for c in found if c.key == "sharpness"], ["ok"])
