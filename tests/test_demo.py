"""The demo data: seeded once, showing the work so far, and sound."""

import contextlib
import io
import tempfile
import unittest
from pathlib import Path

from demo.seed import PIECES, STORIES, seed
from lucky_margin.core.checks import check
from lucky_margin.core.scene import Scene
from lucky_margin.store import FinishesWanted, Store


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
        self.assertEqual(self.store.photos.page().total, 9)
        self.assertEqual(self.store.finishes.count(), len(STORIES) + len(PIECES))

    def test_every_finish_tells_its_story_in_revisions(self):
        records = {record.name: record for record in self.store.finishes.list()}
        for story in STORIES:
            record = records[story.name]
            with self.subTest(story.name):
                labels = [r.label for r in self.store.finishes.revisions(record.id)]
                self.assertEqual(len(labels), 1 + len(story.edits))
                self.assertTrue(all(labels))

    def test_the_pieces_are_in_the_house_style_with_their_names_and_prices(self):
        (style,) = self.store.styles.list()
        for name, (_, price) in PIECES.items():
            with self.subTest(name):
                (entry,) = self.store.finishes.list(FinishesWanted(search=name))
                self.assertEqual(entry.document.style.id, style.id)
                self.assertEqual([one.text for one in entry.document.pieces], [name, price])
                keys = ("columns", "past", "contrast")
                for size in entry.document.sizes:
                    found = check(Scene(entry.document, size, self.store.photos))
                    self.assertEqual([one.text for one in found if one.key in keys], [])

    def test_the_main_story_keeps_a_version_from_before_the_border(self):
        record = self.store.finishes.list(FinishesWanted(search="Thursday"))[0]
        kept = [r for r in self.store.finishes.revisions(record.id) if r.version_name]
        self.assertEqual([r.version_name for r in kept], ["Before the border"])
        before = self.store.finishes.revision_document(record.id, kept[0].id)
        self.assertFalse(before.border.is_set)

    def test_no_finish_is_soft(self):
        for record in self.store.finishes.list():
            found = check(Scene(record.document, record.document.sizes[0], self.store.photos))
            with self.subTest(record.document.name):
                self.assertEqual([c.severity for c in found if c.key == "sharpness"], ["ok"])
