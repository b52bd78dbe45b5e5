"""What was found of a saved subject is kept, whatever a later version would find."""

import io
import os
import shutil
import tempfile
import time
import unittest
from pathlib import Path
from unittest import mock

import numpy as np

from lucky_margin.core.cut_out import matte_file
from lucky_margin.core.document import Box, CutOut, SubjectOfPhoto, new_finish
from lucky_margin.core.export import FINISH, PackageFiles, package, read_package
from lucky_margin.core.render.shown import shown_photo
from lucky_margin.core.scene import Scene, subjects_in
from lucky_margin.store import Store, export_finish, import_finish, look_over, restore_backup
from tests.support import encoded, noise

BOX = Box(left=0.2, top=0.2, width=0.6, height=0.6)


def other_finding():
    """A version of the finding that finds nothing."""
    return mock.patch(
        "lucky_margin.core.cut_out.coverage",
        lambda working, *_: np.zeros(working.shape[:2], np.float32),
    )


class MatteStoreCase(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name) / "shelf"
        self.store = self.opened(self.folder)
        photo = noise(60, 80)
        photo[15:45, 20:60] = (220, 40, 30)
        self.photo = self.store.photos.add(encoded(photo), "mug.png")[0].sha256

    def opened(self, folder):
        store = Store(folder)
        self.addCleanup(store.close)
        return store

    def reopened(self):
        self.store.close()
        self.store = self.opened(self.folder)

    def document(self, box=BOX):
        finish = new_finish(name="Mug", photo_sha256=self.photo)
        return finish.model_copy(update={"cut_out": CutOut(on=True, boxes=(box,))})

    def found(self, document, store=None):
        scene = Scene.of(document, "main", (store or self.store).photos)
        return np.array(shown_photo(scene).matte())

    def forget_what_can_be_made_again(self):
        """As when room is made for other pictures."""
        shutil.rmtree(self.folder / "derived")
        self.reopened()

    def files(self):
        return [path for path in (self.folder / "mattes").glob("*/*") if path.is_file()]


class MatteStoreTest(MatteStoreCase):
    def test_a_saved_subject_outlives_a_newer_finding(self):
        for when in ("found, then saved", "saved, then found"):
            with self.subTest(when):
                document = self.document(BOX.model_copy(update={"left": 0.1 + 0.01 * len(when)}))
                if when.startswith("found"):
                    before = self.found(document)
                    self.store.finishes.create(document)
                else:
                    self.store.finishes.create(document)
                    before = self.found(document)
                self.assertTrue(before.any())
                self.forget_what_can_be_made_again()
                with other_finding():
                    np.testing.assert_array_equal(self.found(document), before)

    def test_what_was_only_tried_is_not_kept(self):
        self.found(self.document())
        self.assertEqual(self.files(), [])
        self.forget_what_can_be_made_again()
        with other_finding():
            self.assertFalse(self.found(self.document()).any())

    def test_finding_again_is_another_subject(self):
        document = self.document()
        self.store.finishes.create(document)
        self.found(document)
        cut_out = document.cut_out.model_copy(update={"found_by": document.cut_out.found_by + 1})
        with other_finding():
            again = self.found(document.model_copy(update={"cut_out": cut_out}))
        self.assertFalse(again.any())

    def test_it_goes_with_the_last_change_that_shows_it_unless_the_subject_is_kept(self):
        record = self.store.finishes.create(self.document())
        self.found(self.document())
        subject = SubjectOfPhoto(sha256=self.photo, cut_out=self.document().cut_out, box=BOX)
        kept = self.store.subjects.add("Mug", subject)
        (file,) = self.files()
        old = time.time() - 2 * 86_400
        os.utime(file, (old, old))
        self.store.finishes.set_binned(record.id, True)
        self.store.delete_finish(record.id)
        self.reopened()
        self.assertEqual(self.files(), [file])
        self.store.subjects.delete(kept.id)
        self.reopened()
        self.assertEqual(self.files(), [])

    def test_a_damaged_file_is_said_and_the_subject_found_anew(self):
        self.store.finishes.create(self.document())
        before = self.found(self.document())
        (file,) = self.files()
        file.write_bytes(b"no picture")
        self.assertEqual(look_over(self.folder).damaged, [file])
        file.unlink()
        self.assertEqual(look_over(self.folder).missing, ["mattes: a subject that was found"])
        self.forget_what_can_be_made_again()
        np.testing.assert_array_equal(self.found(self.document()), before)
        self.assertTrue(look_over(self.folder).is_sound)

    def test_a_backup_has_it(self):
        self.store.finishes.create(self.document())
        before = self.found(self.document())
        archive = io.BytesIO()
        self.store.write_backup(archive)
        elsewhere = self.folder.with_name("elsewhere")
        restore_backup(archive, elsewhere)
        with other_finding():
            after = self.found(self.document(), self.opened(elsewhere))
        np.testing.assert_array_equal(after, before)

    def test_room_on_the_disk_counts_it(self):
        self.store.finishes.create(self.document())
        self.found(self.document())
        use = self.store.disk_use().cut_outs
        self.assertEqual((use.count, use.bytes), (1, self.files()[0].stat().st_size))


class PackedMatteTest(MatteStoreCase):
    def setUp(self):
        super().setUp()
        self.record = self.store.finishes.create(self.document())
        self.before = self.found(self.document())
        self.other = self.opened(self.folder.with_name("other"))

    def test_a_finish_as_a_file_brings_it(self):
        import_finish(self.other, export_finish(self.store, self.record.document))
        with other_finding():
            after = self.found(self.document(), self.other)
        np.testing.assert_array_equal(after, self.before)

    def test_one_that_is_none_is_left_out(self):
        (subject,) = subjects_in(self.record.document)
        data = export_finish(self.store, self.record.document)
        _, files = read_package(FINISH, data)
        for what, bad in (
            ("no picture", b"nothing"),
            ("other sides", matte_file(self.before[1:])),
            ("not grey", encoded(noise(60, 80))),
        ):
            with self.subTest(what):
                packed = PackageFiles(files.photos, mattes={subject.matte_key.name: bad})
                store = self.opened(self.folder.with_name(what))
                import_finish(store, package(FINISH, self.record.document, packed))
                with other_finding():
                    self.assertFalse(self.found(self.document(), store).any())
