"""Photos, finishes and exports in a data folder."""

import hashlib
import tempfile
import unittest
from pathlib import Path
from unittest import mock

import numpy as np

from lucky_margin.core.document import (
    Border,
    FixedPixels,
    LineBand,
    OtherPhoto,
    Sides,
    SizePlan,
    new_finish,
)
from lucky_margin.core.errors import (
    BadInput,
    Conflict,
    NotFound,
    OriginalMissing,
    PhotoInUse,
    StaleSave,
    StorageFull,
    UnreadablePhoto,
)
from lucky_margin.core.export import export
from lucky_margin.core.photos import decode
from lucky_margin.core.render import render
from lucky_margin.core.scene import DerivedKey, Scene
from lucky_margin.core.stock import folded
from lucky_margin.store import FinishesWanted, PhotosWanted, Store
from lucky_margin.store.derived import DerivedStore
from lucky_margin.store.files import FileStore, whole_file
from tests.support import SHA, encoded, gradient, noise, scene_of


class StoreTest(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.store = self.opened()
        self.data = encoded(noise(300, 200))
        self.photo = self.store.photos.add(self.data, "mugs.png")[0].sha256

    def opened(self):
        store = Store(self.folder)
        self.addCleanup(store.close)
        return store

    def started(self, name="Mugs"):
        return self.store.finishes.create(new_finish(name=name, photo_sha256=self.photo))

    def saved(self, record, **fields):
        document = record.document.model_copy(update=fields)
        return self.store.finishes.save(record.id, record.etag, document)


class PhotoTest(StoreTest):
    def test_the_original_is_kept_byte_for_byte(self):
        path = self.store.photos.original(self.photo)
        self.assertEqual(path.read_bytes(), self.data)
        self.assertEqual(self.photo, hashlib.sha256(self.data).hexdigest())

    def test_the_same_photo_again_is_recognised(self):
        record, known = self.store.photos.add(self.data, "other name.png")
        self.assertEqual((known, record.name), (True, "mugs.png"))
        self.assertEqual(self.store.photos.page().total, 1)

    def test_a_refused_photo_leaves_nothing(self):
        with self.assertRaises(UnreadablePhoto):
            self.store.photos.add(b"no photo", "x.jpg")
        self.assertEqual(self.store.photos.page().total, 1)
        self.assertNotIn(
            hashlib.sha256(b"no photo").hexdigest(), FileStore(self.folder / "originals")
        )

    def found(self, **wanted):
        page = self.store.photos.page(PhotosWanted(**wanted))
        self.assertEqual(page.total, len(page.photos))
        return [photo.name for photo in page.photos]

    def test_photos_are_found_by_name_colour_favour_and_use(self):
        green = np.full((80, 80, 3), (30, 160, 70), np.uint8)
        leaf, _ = self.store.photos.add(encoded(green), "Blattgrün.png")
        self.assertEqual(self.found(search="BLATTGRUN"), ["Blattgrün.png"])
        self.assertEqual(self.found(colour="green", search="att"), ["Blattgrün.png"])
        self.assertEqual(self.found(colour="red", search="att"), [])
        self.assertEqual(self.found(only="favourites"), [])
        self.store.library.set_favourite(f"photo:{leaf.sha256}", True)
        self.assertEqual(self.found(only="favourites"), ["Blattgrün.png"])
        self.assertTrue(self.store.photos.get(leaf.sha256).favourite)
        for sha256 in (leaf.sha256, self.photo):
            self.store.library.note_use(f"photo:{sha256}")
        self.assertEqual(self.found(only="recent"), ["mugs.png", "Blattgrün.png"])

    def test_pages_of_photos_are_newest_first(self):
        names = ["two.png", "three.png"]
        for number, name in enumerate(names):
            self.store.photos.add(encoded(noise(20 + number, 10)), name)
        pages = [self.store.photos.page(offset=offset, limit=1) for offset in range(4)]
        self.assertEqual(
            [photo.name for page in pages for photo in page.photos],
            ["three.png", "two.png", "mugs.png"],
        )
        self.assertEqual([page.total for page in pages], [3, 3, 3, 3])

    def test_a_photo_counts_the_finishes_on_the_shelf_that_have_it_now(self):
        finish = self.started("Uses it")
        self.assertEqual(self.store.photos.get(self.photo).uses, 1)
        self.store.finishes.set_binned(finish.id, True)
        self.assertEqual(self.store.photos.get(self.photo).uses, 0)

    def test_facts_come_back_from_disk(self):
        facts = self.opened().photos.facts(self.photo)
        self.assertEqual(facts, decode(self.data).facts)

    def test_a_preview_never_decodes_the_original_again(self):
        finish = new_finish(name="x", photo_sha256=self.photo)
        again = self.opened()
        with mock.patch("lucky_margin.store.photos.decode", side_effect=AssertionError):
            picture = render(scene_of(finish, again.photos))
        np.testing.assert_array_equal(picture, noise(300, 200))

    def test_lost_levels_are_made_again(self):
        for path in (self.folder / "derived").glob("*.npy"):
            path.unlink()
        np.testing.assert_array_equal(self.opened().photos.level(self.photo, 0), noise(300, 200))

    def test_a_lost_original_is_said_and_comes_back_with_the_same_photo(self):
        self.store.photos.original(self.photo).unlink()
        for path in (self.folder / "derived").glob("*.npy"):
            path.unlink()
        again = self.opened()
        with self.assertRaisesRegex(OriginalMissing, "add the same photo again"):
            again.photos.level(self.photo, 0)
        again.photos.add(self.data, "mugs.png")
        self.assertEqual(again.photos.level(self.photo, 1).shape, (100, 150, 3))

    def test_a_used_photo_is_not_deleted_and_its_users_are_named(self):
        first = self.started("Mugs")
        self.store.finishes.set_binned(self.started("Cups").id, True)
        with self.assertRaisesRegex(PhotoInUse, "Cups .in the bin., Mugs") as caught:
            self.store.photos.delete(self.photo)
        self.assertEqual(len(caught.exception.finishes), 2)
        self.assertEqual(self.store.photos.get(self.photo).sha256, first.document.photo.sha256)

    def test_a_photo_that_is_a_ground_of_a_finish_is_in_use(self):
        sky = self.store.photos.add(encoded(noise(9, 8)), "sky.png")[0].sha256
        started = self.started("Mugs")
        changed = self.saved(started, backdrop=OtherPhoto(sha256=sky))
        # Undone, it is still in the history, where redoing would miss it.
        self.store.finishes.undo(started.id, changed.etag)
        with self.assertRaisesRegex(PhotoInUse, "Mugs"):
            self.store.photos.delete(sky)

    def test_an_unused_photo_is_deleted_with_all_its_files(self):
        self.store.photos.delete(self.photo)
        with self.assertRaises(NotFound):
            self.store.photos.original(self.photo)
        self.assertEqual(list((self.folder / "originals").rglob("*/*")), [])
        self.assertEqual(list((self.folder / "derived").iterdir()), [])


class SavingTest(StoreTest):
    def test_every_change_is_a_revision_with_a_readable_label(self):
        record = self.saved(self.started(), border=Border.of(LineBand(thickness=Sides.all(0.02))))
        record = self.saved(record, name="Cups")
        labels = [
            revision.label.replace("\u00a0", " ")
            for revision in self.store.finishes.revisions(record.id)
        ]
        self.assertEqual(labels, ["Renamed to “Cups”", "Border: white, 2 %", "Started"])
        self.assertEqual((record.etag, record.changes), (3, 3))

    def test_an_unchanged_document_is_no_revision(self):
        record = self.started()
        self.assertEqual(self.saved(record), record)

    def test_a_stale_save_is_refused_and_changes_nothing(self):
        record = self.started()
        newer = self.saved(record, name="Newer")
        for act in (
            lambda: self.saved(record, name="Older"),
            lambda: self.store.finishes.undo(record.id, record.etag),
            lambda: self.store.finishes.redo(record.id, record.etag),
            lambda: self.store.finishes.reopen(record.id, record.etag, record.revision),
        ):
            with self.assertRaises(StaleSave) as caught:
                act()
            self.assertEqual(caught.exception.etag, newer.etag)
        self.assertEqual(self.store.finishes.get(record.id), newer)

    def test_a_failure_in_the_middle_of_a_save_leaves_the_old_state(self):
        record = self.started()
        with (
            mock.patch("lucky_margin.store.finishes._move_head", side_effect=RuntimeError),
            self.assertRaises(RuntimeError),
        ):
            self.saved(record, name="Half")
        self.assertEqual(self.opened().finishes.get(record.id), record)

    def test_a_finish_needs_its_photo(self):
        with self.assertRaises(NotFound):
            self.store.finishes.create(new_finish(name="x", photo_sha256=SHA))


class HistoryTest(StoreTest):
    def test_undo_and_redo_survive_a_restart(self):
        record = self.saved(self.saved(self.started("one"), name="two"), name="three")
        finishes = self.opened().finishes
        record = finishes.undo(record.id, record.etag)
        record = finishes.undo(record.id, record.etag)
        self.assertEqual(
            (record.document.name, record.can_undo, record.can_redo), ("one", False, True)
        )
        finishes = self.opened().finishes
        record = finishes.redo(record.id, record.etag)
        self.assertEqual(
            (record.document.name, record.can_undo, record.can_redo), ("two", True, True)
        )

    def test_a_change_after_an_undo_goes_on_from_there(self):
        record = self.saved(self.started("one"), name="two")
        record = self.store.finishes.undo(record.id, record.etag)
        record = self.saved(record, name="other")
        self.assertFalse(record.can_redo)
        record = self.store.finishes.undo(record.id, record.etag)
        self.assertEqual(self.store.finishes.redo(record.id, record.etag).document.name, "other")

    def test_nothing_to_undo_or_redo_changes_nothing(self):
        record = self.started()
        self.assertEqual(self.store.finishes.undo(record.id, record.etag), record)
        self.assertEqual(self.store.finishes.redo(record.id, record.etag), record)

    def test_a_version_is_opened_again_and_undo_leads_back(self):
        record = self.saved(self.started("one"), name="two")
        kept = self.store.finishes.keep_version(record.id, " Before the border ")
        self.assertEqual((kept.id, kept.version_name), (record.revision, "Before the border"))
        record = self.saved(record, name="three")
        record = self.store.finishes.reopen(record.id, record.etag, kept.id)
        self.assertEqual(record.document.name, "two")
        self.assertIn("Before the border", self.store.finishes.revisions(record.id)[0].label)
        self.assertEqual(self.store.finishes.undo(record.id, record.etag).document.name, "three")

    def test_revisions_of_another_finish_are_not_found(self):
        first, second = self.started(), self.started()
        with self.assertRaises(NotFound):
            self.store.finishes.reopen(first.id, first.etag, second.revision)


class ListTest(StoreTest):
    def test_the_newest_change_comes_first(self):
        first, _ = self.started("first"), self.started("second")
        self.saved(first, name="first again")
        names = [record.document.name for record in self.store.finishes.list()]
        self.assertEqual(names, ["first again", "second"])

    def test_searching_minds_neither_case_nor_accents(self):
        for name in ("Töpferei", "Mugs 100 %", "Straße"):
            self.started(name)
        for words, expected in (
            ("TOPF", ["Töpferei"]),
            ("100 %", ["Mugs 100 %"]),
            ("strasse", ["Straße"]),
            ("_", []),
        ):
            with self.subTest(words):
                wanted = FinishesWanted(search=words)
                found = self.store.finishes.list(wanted)
                self.assertEqual([record.document.name for record in found], expected)
                self.assertEqual(self.store.finishes.count(wanted), len(expected))

    def test_pages(self):
        for number in range(5):
            self.started(str(number))
        page = self.store.finishes.list(offset=2, limit=2)
        self.assertEqual([record.document.name for record in page], ["2", "1"])

    def test_the_bin_holds_finishes_until_they_are_deleted_for_good(self):
        record = self.saved(self.started(), name="Old")
        with self.assertRaises(Conflict):
            self.store.finishes.delete(record.id)
        self.store.finishes.set_binned(record.id, True)
        self.assertEqual(self.store.finishes.list(), [])
        self.assertEqual(len(self.store.finishes.list(FinishesWanted(binned=True))), 1)
        self.store.finishes.set_binned(record.id, False)
        self.assertEqual(len(self.store.finishes.list()), 1)
        self.store.finishes.set_binned(record.id, True)
        self.store.finishes.delete(record.id)
        with self.assertRaises(NotFound):
            self.store.finishes.get(record.id)
        self.store.photos.delete(self.photo)

    def test_folding(self):
        self.assertEqual(folded("  Ñandú ÀÉ "), "nandu ae")


class ExportTest(StoreTest):
    def test_saved_files_are_recorded_and_had_again(self):
        record = self.started()
        file = export(Scene(record.document, record.document.sizes[0], self.store.photos))
        kept = self.store.exports.add(
            file, finish_id=record.id, revision=record.revision, size_name="As cropped"
        )
        again = self.opened().exports
        self.assertEqual(again.list(record.id), [kept])
        self.assertEqual(again.data(kept), file.data)
        self.assertEqual(
            (kept.sha256, kept.bytes, kept.revision), (file.sha256, len(file.data), record.revision)
        )

    def test_deleting_a_finish_removes_files_that_no_other_finish_has(self):
        first, second = self.started(), self.started()
        files = FileStore(self.folder / "exports")
        file = export(Scene(first.document, first.document.sizes[0], self.store.photos))
        for record in (first, second):
            self.store.exports.add(
                file, finish_id=record.id, revision=record.revision, size_name="x"
            )
        with self.assertRaises(Conflict):
            self.store.delete_finish(first.id)
        for record, remains in ((first, True), (second, False)):
            self.store.finishes.set_binned(record.id, True)
            self.store.delete_finish(record.id)
            self.assertEqual(file.sha256 in files, remains)

    def test_unknown_and_lost_files_are_said(self):
        with self.assertRaises(NotFound):
            self.store.exports.get(99)
        record = self.started()
        file = export(Scene(record.document, record.document.sizes[0], self.store.photos))
        kept = self.store.exports.add(
            file, finish_id=record.id, revision=record.revision, size_name="x"
        )
        FileStore(self.folder / "exports").remove(kept.sha256)
        with self.assertRaisesRegex(NotFound, "save the size again"):
            self.store.exports.data(kept)


class FileTest(StoreTest):
    def test_names_that_are_no_hash_are_refused(self):
        files = FileStore(self.folder / "files")
        for name in ("../../etc/passwd", "", "A" * 64, "a" * 63 + "/", "\0" * 64):
            with self.subTest(name), self.assertRaises(ValueError):
                files.path(name)

    def test_a_full_disk_leaves_no_half_file(self):
        path = self.folder / "new" / "file"
        with (
            mock.patch("os.fsync", side_effect=OSError(28, "No space left on device")),
            self.assertRaises(StorageFull),
            whole_file(path) as file,
        ):
            file.write(b"data")
        self.assertEqual(list(path.parent.iterdir()), [])

    def test_a_full_disk_while_adding_a_photo_keeps_nothing_of_it(self):
        with (
            mock.patch("os.fsync", side_effect=OSError(28, "No space left on device")),
            self.assertRaises(StorageFull),
        ):
            self.store.photos.add(encoded(gradient(9, 9)), "new.png")
        self.assertEqual(self.store.photos.page().total, 1)


class DerivedTest(StoreTest):
    def kept(self, derived, photo):
        return derived.load(DerivedKey("level", photo))

    def test_the_folder_is_bounded_and_the_longest_unused_goes(self):
        derived = DerivedStore(self.folder / "few", max_bytes=3 * 31_000)
        for number in range(4):
            derived.keep(DerivedKey("level", f"{number}" * 64), noise(100, 100))
        self.assertIsNone(self.kept(derived, "0" * 64))
        self.assertIsNotNone(self.kept(derived, "3" * 64))

    def test_a_photo_larger_than_the_bound_is_still_kept_while_it_is_used(self):
        derived = DerivedStore(self.folder / "few", max_bytes=10)
        derived.keep(DerivedKey("level", SHA), noise(100, 100))
        np.testing.assert_array_equal(self.kept(derived, SHA), noise(100, 100))

    def test_other_inputs_or_another_version_are_another_array(self):
        derived = DerivedStore(self.folder / "few")
        keys = [
            DerivedKey("bases", SHA),
            DerivedKey("bases", SHA, version=2),
            DerivedKey("bases", SHA, ("1",)),
            DerivedKey("level", SHA, ("1",)),
            DerivedKey("bases", "cd" * 32),
        ]
        for number, key in enumerate(keys):
            derived.get_or_make(key, lambda number=number: np.full((2, 2), number))
        for number, key in enumerate(keys):
            np.testing.assert_array_equal(derived.load(key), number)

    def test_arrays_come_out_read_only(self):
        derived = DerivedStore(self.folder / "few")
        made = derived.get_or_make(DerivedKey("bases", SHA), lambda: np.zeros((2, 2)))
        with self.assertRaises(ValueError):
            made[0, 0] = 1

    def test_on_a_full_disk_a_picture_is_drawn_all_the_same(self):
        full = mock.patch.object(DerivedStore, "keep", side_effect=StorageFull("The disk is full."))
        for path in (self.folder / "derived").glob("*.npy"):
            path.unlink()
        with full:
            level = self.store.photos.level(self.photo, 1)
        self.assertEqual(level.shape, (100, 150, 3))


class OwnSizeTest(StoreTest):
    def plan(self, name, width=90):
        return SizePlan(name=name, pixels=FixedPixels(width=width, height=60))

    def keep(self, name, width=90):
        self.store.own_sizes.put(name, self.plan(name, width))

    def test_they_survive_a_restart_newest_first(self):
        for name in ("Tag", "Card ☘"):
            self.keep(name)
        kept = self.opened().own_sizes.list()
        self.assertEqual([own.value.name for own in kept], ["Card ☘", "Tag"])

    def test_the_same_name_takes_the_place_of_the_older_one(self):
        self.keep("Tag")
        self.keep("Tag", width=50)
        self.assertEqual([own.value.pixels.width for own in self.store.own_sizes.list()], [50])

    def test_there_is_a_most_and_unknown_ones_are_said(self):
        with mock.patch("lucky_margin.store.kept.MOST", 1):
            self.keep("Tag")
            with self.assertRaisesRegex(BadInput, "remove one first"):
                self.keep("Card")
        with self.assertRaises(NotFound):
            self.store.own_sizes.delete(99)
