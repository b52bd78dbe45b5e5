"""Own fonts in a data folder: offered, taken off the list, kept for what is set in them."""

import tempfile
import unittest
from pathlib import Path
from unittest import mock

from lucky_margin.core.errors import BadInput, NotFound, UnreadableFont
from lucky_margin.core.text import face_of
from lucky_margin.store import Store

ANTON, CAVEAT = (face_of(key, 400, False).read_bytes() for key in ("anton", "caveat"))


class FontStoreTest(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.store = Store(self.folder)
        self.addCleanup(lambda: self.store.close())
        self.fonts = self.store.fonts

    def names(self):
        return [font.name for font in self.fonts.list()]

    def test_they_are_listed_by_name_once_each(self):
        for data in (CAVEAT, ANTON, CAVEAT):
            self.fonts.add(data)
        self.assertEqual(self.names(), ["Anton Regular", "Caveat Regular"])

    def test_what_is_refused_leaves_nothing_behind(self):
        with self.assertRaises(UnreadableFont):
            self.fonts.add(ANTON[:500])
        self.assertEqual(self.names(), [])
        self.assertEqual([p for p in (self.folder / "fonts").rglob("*") if p.is_file()], [])

    def test_there_is_an_end_to_them(self):
        with mock.patch("lucky_margin.store.fonts.MOST", 1):
            self.fonts.add(ANTON)
            with self.assertRaisesRegex(BadInput, "at most; remove one"):
                self.fonts.add(CAVEAT)

    def test_a_font_off_the_list_is_still_drawn_after_a_restart(self):
        font = self.fonts.add(ANTON)
        self.fonts.remove(font.sha256)
        with self.assertRaises(NotFound):
            self.fonts.remove(font.sha256)
        self.store.close()
        self.store = Store(self.folder)
        self.assertEqual(self.store.fonts.list(), [])
        self.assertTrue(self.store.photos.font(font.sha256).has("K"))
        self.assertEqual(self.store.fonts.add(ANTON), font)

    def test_a_font_that_was_never_here_is_none_and_may_come_later(self):
        sha256 = self.fonts.add(ANTON).sha256
        path = self.folder / "fonts" / sha256[:2] / sha256
        kept = path.read_bytes()
        self.store.close()
        path.unlink()
        self.store = Store(self.folder)
        self.assertIsNone(self.store.fonts.face(sha256))
        path.write_bytes(kept)
        self.assertIsNotNone(self.store.fonts.face(sha256))
