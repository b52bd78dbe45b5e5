"""Kept marks: versions, and finishes that keep the one they took."""

import contextlib
import tempfile
import unittest
from pathlib import Path

from lucky_margin.core.document import (
    MarkDesign,
    MarkPiece,
    Overrides,
    Watermark,
    WatermarkChanges,
    new_finish,
)
from lucky_margin.core.errors import NotFound
from lucky_margin.store import Store, used
from tests.support import encoded, noise


class MarkStoreTest(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.store = Store(self.folder)
        self.addCleanup(lambda: self.store.close())
        photo, _ = self.store.photos.add(encoded(noise(20, 20)), "p.png")
        self.sha256 = photo.sha256

    def add(self, *mark):
        return used(self.store.marks.add(*mark))

    def change(self, *mark):
        return used(self.store.marks.change(*mark))

    def finish_using(self, mark):
        finish = new_finish(name="Mugs", photo_sha256=self.sha256)
        return self.store.finishes.create(
            finish.model_copy(update={"watermark": Watermark(mark=mark)})
        )

    def test_a_change_is_a_new_version_and_the_same_again_is_none(self):
        first = self.add("Studio", MarkDesign(words="Pebblewick"))
        self.assertEqual((first.version, first.design.words), (1, "Pebblewick"))
        second = self.change(first.id, "Studio", MarkDesign(words="Pebblewick Pottery"))
        again = self.change(first.id, "Studio", second.design)
        self.assertEqual((second.version, again.version), (2, 2))
        self.assertEqual([mark.version for mark in self.store.marks.list()], [2])

    def test_finishes_keep_their_version_until_they_are_renewed(self):
        mark = self.add("Studio", MarkDesign(words="Old"))
        uses, other = self.finish_using(mark), self.finish_using(None)
        binned = self.finish_using(mark)
        self.store.finishes.set_binned(binned.id, True)
        newer = self.change(mark.id, "Studio", MarkDesign(words="New"))
        found = self.store.finishes.get(uses.id).document.watermark.mark
        self.assertEqual((found.version, found.design.words), (1, "Old"))
        self.assertEqual([one.id for one in self.store.finishes.using_older(newer)], [uses.id])
        self.assertEqual(self.store.finishes.renew(newer), 1)
        renewed = self.store.finishes.get(uses.id)
        self.assertEqual(renewed.document.watermark.mark.design.words, "New")
        self.assertEqual(len(self.store.finishes.revisions(uses.id)), 2)
        undone = self.store.finishes.undo(uses.id, renewed.etag)
        self.assertEqual(undone.document.watermark.mark.design.words, "Old")
        self.assertEqual(len(self.store.finishes.revisions(other.id)), 1)

    def test_marks_placed_as_pieces_and_those_of_one_size_are_renewed_too(self):
        mark = self.add("Studio", MarkDesign(words="Old"))
        other = self.add("Other", MarkDesign(words="Other"))
        finish = new_finish(name="Mugs", photo_sha256=self.sha256)
        pieces = (MarkPiece(id="mark-1", mark=mark), MarkPiece(id="mark-2", mark=other))
        own = Overrides(watermark=WatermarkChanges(mark=mark))
        size = finish.sizes[0].model_copy(update={"overrides": own})
        uses = self.store.finishes.create(
            finish.with_size(size).model_copy(update={"pieces": pieces})
        )
        newer = self.change(mark.id, "Studio", MarkDesign(words="New"))
        self.assertEqual(self.store.finishes.renew(newer), 1)
        renewed = self.store.finishes.get(uses.id).document
        self.assertEqual([piece.mark for piece in renewed.pieces], [newer, other])
        self.assertEqual(renewed.watermark_of(renewed.sizes[0]).mark, newer)
        self.assertEqual(self.store.finishes.using_older(newer), [])

    def test_they_are_there_after_a_restart_and_gone_ones_are_said(self):
        mark = self.add("Studio", MarkDesign(icon="amphora"))
        with contextlib.closing(Store(self.folder)) as again:
            self.assertEqual(used(again.marks.get(mark.id)), mark)
            again.marks.delete(mark.id)
        for call in (
            lambda: self.store.marks.get(mark.id),
            lambda: self.store.marks.delete(mark.id),
            lambda: self.change(mark.id, "x", MarkDesign(words="x")),
        ):
            with self.assertRaisesRegex(NotFound, "was removed"):
                call()
