"""Kept subjects: versions, finishes that keep the one they took, and their photos."""

import contextlib
import tempfile
import unittest
from pathlib import Path

from lucky_margin.core.document import (
    Box,
    CutOut,
    PicturePiece,
    Stroke,
    SubjectMask,
    SubjectOfPhoto,
    new_finish,
)
from lucky_margin.core.errors import NotFound, PhotoInUse
from lucky_margin.store import Store, used_subject
from tests.support import encoded, noise


class SubjectStoreTest(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.store = Store(self.folder)
        self.addCleanup(lambda: self.store.close())
        wall, _ = self.store.photos.add(encoded(noise(20, 20)), "wall.png")
        anna, _ = self.store.photos.add(encoded(noise(30, 20)), "anna.png")
        self.wall, self.anna = wall.sha256, anna.sha256

    def subject(self, *strokes):
        box = Box(left=0.1, top=0.1, width=0.5, height=0.8)
        return SubjectOfPhoto(
            sha256=self.anna, cut_out=CutOut(boxes=(box,), strokes=strokes), box=box
        )

    def finish_using(self, kept):
        piece = PicturePiece(id="picture-1", sha256=self.anna, subject=used_subject(kept))
        finish = new_finish(name="Two", photo_sha256=self.wall)
        return self.store.finishes.create(finish.model_copy(update={"pieces": (piece,)}))

    def test_finishes_keep_their_version_until_they_are_renewed(self):
        kept = self.store.subjects.add("Anna", self.subject())
        uses = self.finish_using(kept)
        stroke = Stroke(brush="keep", radius=0.01, points=((0.5, 0.5),))
        newer = self.store.subjects.change(kept.id, "Anna", self.subject(stroke))
        self.assertEqual(newer.version, 2)
        found = self.store.finishes.get(uses.id).document.pieces[0].subject
        self.assertEqual((found.version, found.cut_out.strokes), (1, ()))
        used = used_subject(newer)
        self.assertEqual(self.store.finishes.count_older_uses(used), 1)
        self.assertEqual(self.store.finishes.renew(used), 1)
        renewed = self.store.finishes.get(uses.id)
        self.assertEqual(renewed.document.pieces[0].subject, used)
        self.assertEqual(self.store.finishes.count_older_uses(used), 0)
        undone = self.store.finishes.undo(uses.id, renewed.etag)
        self.assertEqual(undone.document.pieces[0].subject.version, 1)

    def test_only_finishes_that_use_it_are_counted(self):
        kept = self.store.subjects.add("Anna", self.subject())
        self.finish_using(kept)
        newer = used_subject(kept).model_copy(update={"version": 2})
        self.assertEqual(self.store.finishes.count_older_uses(newer), 1)
        other = newer.model_copy(update={"id": kept.id + 1})
        self.assertEqual(self.store.finishes.count_older_uses(other), 0)

    def test_the_photo_of_a_kept_subject_is_not_deleted(self):
        kept = self.store.subjects.add("Anna", self.subject())
        with self.assertRaisesRegex(PhotoInUse, "“Anna”, which you saved"):
            self.store.photos.delete(self.anna)
        self.store.subjects.delete(kept.id)
        self.store.photos.delete(self.anna)
        with self.assertRaises(NotFound):
            self.store.photos.get(self.anna)

    def test_the_picture_that_masks_a_kept_subject_is_not_deleted(self):
        mask = SubjectMask(sha256=self.wall)
        subject = self.subject()
        masked = subject.cut_out.model_copy(update={"mask": mask})
        self.store.subjects.add("Anna", subject.model_copy(update={"cut_out": masked}))
        with self.assertRaises(PhotoInUse):
            self.store.photos.delete(self.wall)

    def test_they_are_there_after_a_restart(self):
        kept = self.store.subjects.add("Anna", self.subject())
        with contextlib.closing(Store(self.folder)) as again:
            self.assertEqual(again.subjects.get(kept.id), kept)


if __name__ == "__main__":
    unittest.main()
