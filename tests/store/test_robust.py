"""What a bad document, a crash, a full disk or two people at once can do to a data folder."""

import contextlib
import io
import json
import os
import shutil
import sqlite3
import stat
import tempfile
import threading
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from unittest import mock

import numpy as np
from PIL import Image

from lucky_margin.core.document import (
    FixedPixels,
    MarkDesign,
    OneSide,
    OtherPhoto,
    PicturePiece,
    Size,
    SizePlan,
    TableLook,
    TextPiece,
    Tone,
    UsedMark,
    Watermark,
    new_finish,
)
from lucky_margin.core.errors import (
    NotFound,
    PhotoInUse,
    StaleSave,
    StorageFull,
    TooLarge,
    UnusableFolder,
)
from lucky_margin.core.photos import decode
from lucky_margin.core.scene import subjects_in
from lucky_margin.core.tone import look_of
from lucky_margin.store import FinishesWanted, PhotosWanted, Store, used
from lucky_margin.store.database import MIGRATIONS, Database, migrate
from lucky_margin.store.derived import DerivedStore
from lucky_margin.store.files import GRACE_SECONDS, FileStore
from lucky_margin.store.finishes import FinishStore
from tests.store.test_store import StoreTest
from tests.support import encoded, gradient, noise

GONE = "ab" * 32


class SoundDocumentTest(StoreTest):
    def test_a_save_refuses_what_could_not_be_laid_out_for_any_size(self):
        started = self.started()
        tall = Size(id="tall", name="Tall", pixels=OneSide(side="height", length=16_000))
        sizes = (*started.document.sizes, tall)
        with self.assertRaisesRegex(TooLarge, "megapixels"):
            self.saved(started, sizes=sizes)
        document = started.document.model_copy(update={"sizes": sizes})
        with self.assertRaises(TooLarge):
            self.store.finishes.create(document)
        self.assertEqual(self.store.finishes.get(started.id), started)

    def test_a_save_refuses_photos_that_are_not_there_wherever_they_are(self):
        started = self.started()
        logo = PicturePiece(id="logo", sha256=GONE)
        for fields in ({"backdrop": OtherPhoto(sha256=GONE)}, {"pieces": (logo,)}):
            with self.subTest(fields), self.assertRaises(NotFound):
                self.saved(started, **fields)
        with self.assertRaises(NotFound):
            self.store.finishes.create(new_finish(name="x", photo_sha256=GONE))


class BrokenEntryTest(StoreTest):
    """A finish whose newest document can't be read, as an older program may have left it."""

    def setUp(self):
        super().setUp()
        self.good = self.started("Good")
        self.bad = self.saved(self.started("Bad"), name="Bad one")
        self.break_document('{"format": "lucky-margin-finish", "version": 4, "sizes": null}')

    def break_document(self, document):
        with sqlite3.connect(self.folder / "lucky-margin.sqlite3") as connection:
            connection.execute(
                "UPDATE revisions SET document = ? WHERE id = ?", (document, self.bad.revision)
            )
        connection.close()

    def entries(self, **options):
        return {entry.name: entry for entry in self.store.finishes.list(FinishesWanted(**options))}

    def test_a_list_says_what_is_wrong_with_it_and_shows_the_others(self):
        for document in ("{}", "no json", "[]", '{"format": "lucky-margin-finish"}'):
            self.break_document(document)
            with self.subTest(document):
                entries = self.entries()
                self.assertEqual(entries["Good"].problem, "")
                self.assertRegex(entries["Bad one"].problem, r"\.$")
                self.assertIsNone(entries["Bad one"].document)
                mark = used(self.store.marks.add("Mark", MarkDesign(words="x")))
                self.assertEqual(self.store.finishes.using_older(mark), [])

    def test_it_can_be_mended_by_going_back(self):
        self.assertTrue(self.entries()["Bad one"].can_undo)
        mended = self.store.finishes.undo(self.bad.id, self.bad.etag)
        self.assertEqual(mended.document.name, "Bad")
        self.assertEqual(self.entries()["Bad"].problem, "")

    def test_it_can_be_replaced_binned_and_deleted(self):
        document = self.good.document.model_copy(update={"name": "New"})
        saved = self.store.finishes.save(self.bad.id, self.bad.etag, document)
        self.assertEqual(saved.document.name, "New")
        self.break_document("{}")
        self.store.finishes.set_binned(self.bad.id, True)
        self.assertEqual(list(self.entries(binned=True)), ["New"])
        self.store.delete_finish(self.bad.id)
        self.assertEqual(list(self.entries(binned=True)), [])


class PhotoKindTest(StoreTest):
    def test_every_format_with_and_without_metadata_is_added_once_and_shown(self):
        block = Image.Exif()
        block[0x013B] = "Ana"
        for image_format in ("JPEG", "PNG", "WEBP", "AVIF", "HEIF", "TIFF", "GIF", "BMP"):
            for exif in (None, block):
                buffer = io.BytesIO()
                options = {"exif": exif} if exif and image_format not in ("GIF", "BMP") else {}
                Image.fromarray(noise(60, 40)).save(buffer, image_format, **options)
                with self.subTest(image_format, exif=exif is not None):
                    record, _ = self.store.photos.add(buffer.getvalue(), "photo")
                    self.assertEqual((record.facts.width, record.facts.height), (60, 40))
                    self.assertEqual(self.store.photos.add(buffer.getvalue(), "x"), (record, True))


class NothingHalfDoneTest(StoreTest):
    def files(self, kind):
        return sorted(path.name for path in (self.folder / kind).glob("*/*"))

    def test_a_photo_that_cannot_be_kept_leaves_no_file(self):
        other = encoded(gradient(200, 150))
        before = self.files("originals")
        full = StorageFull("The disk is full.")
        places = (
            mock.patch.object(DerivedStore, "keep", side_effect=full),
            mock.patch.object(type(self.store.photos), "_insert", side_effect=full),
        )
        for place in places:
            with place, self.assertRaises(StorageFull):
                self.store.photos.add(other, "b.png")
            self.assertEqual(self.files("originals"), before)
        self.assertFalse(self.store.photos.add(other, "b.png")[1])

    def test_what_a_crash_left_is_swept_at_start_after_a_day(self):
        originals = FileStore(self.folder / "originals")
        waste = [
            originals.path(originals.add(b"a photo that no row names")),
            self.folder / "originals" / "aa" / ".new-abc",
            self.folder / "exports" / "bb" / ".new-def",
            self.folder / "derived" / ".new-ghi",
        ]
        for path in waste:
            path.parent.mkdir(exist_ok=True)
            path.write_bytes(b"half")
        self.opened()
        self.assertTrue(all(path.exists() for path in waste), "younger than a day")
        for path in (*waste, *(self.folder / "originals").glob("*/*")):
            long_ago = time.time() - GRACE_SECONDS - 60
            os.utime(path, (long_ago, long_ago))
        again = self.opened()
        self.assertFalse(any(path.exists() for path in waste))
        self.assertTrue(again.photos.original(self.photo).exists())

    def test_the_folder_is_synced_before_a_row_names_the_file(self):
        events = []
        real_sync, real_replace = os.fsync, os.replace

        def sync(handle):
            is_folder = stat.S_ISDIR(os.fstat(handle).st_mode)
            events.append("folder" if is_folder else "file")
            real_sync(handle)

        def replace(source, target):
            events.append("name")
            real_replace(source, target)

        insert = type(self.store.photos)._insert

        def inserted(*arguments):
            events.append("row")
            insert(*arguments)

        with (
            mock.patch("os.fsync", sync),
            mock.patch("os.replace", replace),
            mock.patch.object(type(self.store.photos), "_insert", inserted),
        ):
            self.store.photos.add(encoded(gradient(90, 70)), "b.png")
        self.assertEqual(events[:4], ["file", "name", "folder", "folder"])
        self.assertLess(events.index("folder"), events.index("row"))


class VanishedFolderTest(StoreTest):
    def test_it_is_said_and_work_goes_on_when_it_is_back(self):
        started = self.started()
        elsewhere = self.folder.with_name(f"{self.folder.name}-away")
        self.folder.rename(elsewhere)
        for action in (
            lambda: self.saved(started, name="Later"),
            lambda: self.store.finishes.list(),
            lambda: self.store.photos.add(encoded(noise(9, 9)), "new.png"),
        ):
            with self.assertRaisesRegex(UnusableFolder, "is gone; bring its folder or disk back"):
                action()
        shutil.rmtree(self.folder, ignore_errors=True)  # empty folders of what was begun
        elsewhere.rename(self.folder)
        self.assertEqual(self.saved(started, name="Later").document.name, "Later")


class AtOnceTest(StoreTest):
    def together(self, count, work):
        """What ``count`` threads that begin at the same moment bring."""
        barrier = threading.Barrier(count)

        def begin(number):
            barrier.wait()
            return work(number)

        with ThreadPoolExecutor(count) as pool:
            return list(pool.map(begin, range(count)))

    def test_the_same_photo_from_several_threads_is_one(self):
        data = encoded(noise(500, 400))
        results = self.together(6, lambda _: self.store.photos.add(data, "same.png"))
        self.assertEqual(len({record.sha256 for record, _ in results}), 1)
        self.assertEqual([known for _, known in results].count(False), 1)
        self.assertEqual(self.store.photos.page().total, 2)

    def test_a_lost_level_is_decoded_once_however_many_ask(self):
        for path in (self.folder / "derived").glob("*.npy"):
            path.unlink()
        again = self.opened()
        with mock.patch("lucky_margin.store.photos.decode", side_effect=decode) as counted:
            levels = self.together(6, lambda _: again.photos.level(self.photo, 0))
        self.assertEqual(counted.call_count, 1)
        for level in levels:
            np.testing.assert_array_equal(level, noise(300, 200))
            self.assertFalse(level.flags.writeable)

    def test_of_several_saves_on_one_state_exactly_one_is_taken(self):
        started = self.started()

        def save(number):
            document = started.document.model_copy(update={"name": f"By {number}"})
            try:
                return self.store.finishes.save(started.id, started.etag, document)
            except StaleSave:
                return None

        taken = [state for state in self.together(8, save) if state]
        self.assertEqual(len(taken), 1)
        self.assertEqual(self.store.finishes.get(started.id), taken[0])

    def test_every_answer_to_a_save_is_the_state_it_wrote(self):
        """Two people save in turn as fast as they can; nobody is told the other's state."""
        started = self.started()
        first, second = self.opened(), self.opened()

        def work(number):
            store = (first, second)[number]
            taken = 0
            while taken < 20:  # whoever comes late still gets a turn
                current = store.finishes.get(started.id)
                name = f"By {number}, {taken}"
                document = current.document.model_copy(update={"name": name})
                try:
                    state = store.finishes.save(started.id, current.etag, document)
                except StaleSave:
                    continue
                taken += 1
                self.assertEqual((state.document.name, state.etag), (name, current.etag + 1))

        self.together(2, work)
        self.assertEqual(self.store.finishes.get(started.id).changes, 41)

    def test_no_write_reads_its_answer_outside_its_own_transaction(self):
        started = self.started()
        self.store.photos.facts(self.photo)
        with mock.patch.object(FinishStore, "get", side_effect=AssertionError):
            saved = self.saved(started, name="Cups")
            undone = self.store.finishes.undo(started.id, saved.etag)
            redone = self.store.finishes.redo(started.id, undone.etag)
            opened = self.store.finishes.reopen(started.id, redone.etag, started.revision)
        names = [state.document.name for state in (saved, undone, redone, opened)]
        self.assertEqual(names, ["Cups", "Mugs", "Cups", "Mugs"])


class OldFolderTest(StoreTest):
    def older(self, folder, until):
        """A data folder as a release with the migrations up to ``until`` left it."""
        database = Database(Path(folder, "lucky-margin.sqlite3"))
        with tempfile.TemporaryDirectory() as scripts:
            for script in sorted(MIGRATIONS.glob("*.sql")):
                if script.stem[:4] <= until:
                    shutil.copy(script, scripts)
            migrate(database, Path(scripts))
        return database

    def fill(self, connection, document):
        """One photo and one finish of it."""
        connection.execute(
            "INSERT INTO photos VALUES (?, 'mugs.png', 9, ?, x'', '2026')",
            (self.photo, json.dumps({"width": 300, "height": 200, "file_format": "PNG", "bits": 8,
                                     "has_alpha": False, "notes": []})),
        )  # fmt: skip
        connection.execute(
            "INSERT INTO finishes (id, name, folded_name, photo_sha256, created_at, changed_at)"
            " VALUES ('0123456789abcdef', 'Old', 'old', ?, '2026', '2026')",
            (self.photo,),
        )
        revision = connection.execute(
            "INSERT INTO revisions (finish_id, label, document, created_at)"
            " VALUES ('0123456789abcdef', 'Started', ?, '2026')",
            (json.dumps(document),),
        ).lastrowid
        connection.execute("UPDATE finishes SET head = ?", (revision,))

    def test_a_database_with_finishes_of_earlier_versions_opens(self):
        """As the first release wrote it: its first migration alone, a document of version 1."""
        finish = new_finish(name="Old", photo_sha256=self.photo)
        old = json.loads(finish.model_dump_json()) | {"version": 1}
        for field in ("turn", "tone", "pieces", "watermark", "backdrop", "outside"):
            del old[field]
        with tempfile.TemporaryDirectory() as folder:
            database = self.older(folder, "0001")
            with database.write() as connection:
                self.fill(connection, old)
            database.close()
            opened = Store(Path(folder))
            self.addCleanup(opened.close)
            self.assertEqual(opened.finishes.get("0123456789abcdef").document, finish)
            self.assertEqual(list(opened.own_sizes.list()), [])
            (photo,) = opened.photos.page(PhotosWanted(search="MUGS")).photos
            self.assertEqual((photo.uses, photo.favourite), (1, False))
            with self.assertRaises(PhotoInUse):
                opened.photos.delete(self.photo)

    def test_what_was_kept_in_tables_of_their_own_is_still_there(self):
        """Sizes, looks and marks, and who uses which mark, as the fifth migration left them."""
        plan = SizePlan(name="Tag", pixels=FixedPixels(width=90, height=60)).model_dump_json()
        look = look_of(Tone(exposure=0.3), "Soft").model_dump_json()
        design = MarkDesign(words="Pebblewick")
        finish = new_finish(name="Old", photo_sha256=self.photo)
        mark = UsedMark(id=2, name="Studio", version=1, design=design)
        finish = finish.model_copy(update={"watermark": Watermark(mark=mark)})
        with tempfile.TemporaryDirectory() as folder:
            database = self.older(folder, "0005")
            with database.write() as connection:
                connection.execute("INSERT INTO own_sizes VALUES (1, ?, '2026')", (plan,))
                connection.execute("INSERT INTO own_looks VALUES (1, ?, '2026')", (look,))
                for number in (2, 7):
                    connection.execute(
                        "INSERT INTO marks VALUES (?, 'Studio', 3, ?, '2026')",
                        (number, design.model_dump_json()),
                    )
                connection.execute("DELETE FROM marks WHERE id = 7")
                self.fill(connection, json.loads(finish.model_dump_json()))
            database.close()
            opened = Store(Path(folder))
            self.addCleanup(opened.close)
            self.assertEqual([kept.name for kept in opened.own_sizes.list()], ["Tag"])
            self.assertEqual([kept.name for kept in opened.own_looks.list()], ["Soft"])
            kept = opened.marks.get(2)
            self.assertEqual((kept.name, kept.version, kept.value), ("Studio", 3, design))
            self.assertEqual(opened.finishes.count_older_uses(used(kept)), 1)
            # The number of a mark that was deleted is not given to another one.
            self.assertGreater(opened.marks.add("New", design).id, 7)


class ReferenceTest(StoreTest):
    def test_what_a_save_refers_to_is_known_and_forgotten_with_its_finish(self):
        started, font, table = self.started(), "ab" * 32, "cd" * 32
        words = TextPiece(id="text-1", text="Mugs", family=font)
        document = started.document.model_copy(
            update={
                "pieces": (words,),
                "tone": Tone(look=TableLook(name="Film", table=table)),
                "backdrop": OtherPhoto(sha256=self.photo),
            }
        )
        self.store.finishes.save(started.id, started.etag, document)
        (subject,) = subjects_in(document)
        expected = {
            ("photo", self.photo), ("font", font), ("table", table),
            ("matte", subject.matte_key.name),
        }  # fmt: skip
        self.assertEqual(self.references(started.id), expected)
        self.store.finishes.set_binned(started.id, True)
        self.store.finishes.delete(started.id)
        self.assertEqual(self.references(started.id), set())

    def references(self, finish_id):
        path = self.folder / "lucky-margin.sqlite3"
        with contextlib.closing(sqlite3.connect(path)) as connection:
            rows = connection.execute(
                "SELECT kind, key FROM refers_to WHERE revision_id IN"
                " (SELECT id FROM revisions WHERE finish_id = ?)",
                (finish_id,),
            )
            return set(rows)
