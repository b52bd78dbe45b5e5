"""Looking after a data folder: snapshots, backups, and whether everything is what it was."""

import contextlib
import io
import json
import os
import sqlite3
import tempfile
import time
import unittest
import zipfile
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from unittest import mock

from lucky_margin.cli import main
from lucky_margin.core.document import SolidColour, new_finish
from lucky_margin.core.errors import BadDocument, Conflict, NotFound, StorageFull, UnusableFolder
from lucky_margin.core.export import export
from lucky_margin.core.scene import Scene
from lucky_margin.store import (
    Store,
    ThinningRule,
    go_back,
    look_over,
    mend,
    restore_backup,
    snapshot_days,
)
from lucky_margin.store.snapshots import DATABASE, take_snapshot
from tests.support import encoded, noise


def run_quietly(*arguments):
    """Exit code, output and errors of the command line."""
    said, wrong = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(said), contextlib.redirect_stderr(wrong):
        code = main(list(arguments))
    return code, said.getvalue(), wrong.getvalue()


class UpkeepTest(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name) / "data"
        self.store = Store(self.folder)
        self.addCleanup(lambda: self.store.close())
        self.photo = self.store.photos.add(encoded(noise(80, 70)), "mugs.png")[0].sha256
        finish = self.store.finishes.create(new_finish(name="Mugs ☘", photo_sha256=self.photo))
        file = export(Scene.of(finish.document, "main", self.store.photos))
        self.store.exports.add(
            file, finish_id=finish.id, revision=finish.revision, size_name="main"
        )
        self.export = file

    def names(self):
        return [entry.document.name for entry in self.store.finishes.list()]

    def reopened(self):
        self.store = Store(self.folder)
        return self.names()

    def damage_database(self):
        self.store.close()
        path = self.folder / DATABASE
        data = bytearray(path.read_bytes())
        data[100 : len(data)] = os.urandom(len(data) - 100)
        path.write_bytes(bytes(data))

    def command(self, *arguments):
        """Exit code, output and errors of a command on the folder."""
        return run_quietly(*arguments, "--data", str(self.folder))


class SnapshotTest(UpkeepTest):
    def snap(self, day):
        return take_snapshot(self.store._database, self.folder, day)

    def test_one_a_day_and_the_newest_seven(self):
        days = [date(2026, 3, 1) + timedelta(days=number) for number in range(9)]
        for day in days:
            self.assertTrue(self.snap(day))
            self.assertFalse(self.snap(day))
        self.assertEqual(
            snapshot_days(self.folder), [day.isoformat() for day in reversed(days[2:])]
        )

    def test_a_damaged_database_is_said_with_the_way_back_and_the_way_back_works(self):
        self.snap(date(2026, 3, 1))
        self.store.finishes.create(new_finish(name="Later", photo_sha256=self.photo))
        self.damage_database()
        with self.assertRaisesRegex(UnusableFolder, "go-back DAY"):
            Store(self.folder)
        code, said, _ = self.command("go-back", "2026-03-01")
        self.assertEqual(code, 0)
        self.assertIn("as it was on 2026-03-01", said)
        self.assertEqual(self.reopened(), ["Mugs ☘"])
        self.assertTrue((self.folder / "before-2026-03-01.sqlite3").is_file())

    def test_no_such_day_and_a_damaged_copy_change_nothing(self):
        self.snap(date(2026, 3, 1))
        self.store.close()
        copy = self.folder / "snapshots" / "2026-03-01.sqlite3"
        before = (self.folder / DATABASE).read_bytes()
        with self.assertRaisesRegex(NotFound, "2026-03-01"):
            go_back(self.folder, "2026-03-02")
        copy.write_bytes(copy.read_bytes()[:5000] + os.urandom(3000))
        with self.assertRaisesRegex(NotFound, "damaged too"):
            go_back(self.folder, "2026-03-01")
        self.assertEqual((self.folder / DATABASE).read_bytes(), before)
        self.assertEqual(self.reopened(), ["Mugs ☘"])

    def test_a_damaged_database_is_not_copied_and_a_full_disk_leaves_older_copies(self):
        self.snap(date(2026, 3, 1))
        unsound = mock.patch("lucky_margin.store.snapshots.is_sound", return_value=False)
        with unsound:
            self.assertFalse(self.snap(date(2026, 3, 2)))
        full = mock.patch(
            "lucky_margin.store.snapshots.full_disk_is_said", side_effect=StorageFull("full")
        )
        with full:
            self.assertFalse(self.snap(date(2026, 3, 2)))
        self.assertEqual(snapshot_days(self.folder), ["2026-03-01"])


class UnusableTest(UpkeepTest):
    def test_what_is_wrong_with_the_folder_is_one_sentence_and_exit_code_2(self):
        def not_a_database():
            (self.folder / DATABASE).write_bytes(b"no database at all" * 400)

        def a_folder_in_its_place():
            (self.folder / DATABASE).rename(self.folder / "aside")
            (self.folder / DATABASE).mkdir()

        def a_newer_one():
            with contextlib.closing(sqlite3.connect(self.folder / DATABASE)) as connection:
                connection.execute("INSERT INTO migrations VALUES ('9999_future', 'now')")
                connection.commit()

        self.store.close()
        whole = (self.folder / DATABASE).read_bytes()
        for spoil, words in (
            (not_a_database, "is damaged; “lucky-margin snapshots”"),
            (a_newer_one, "newer Lucky Margin"),
            (a_folder_in_its_place, "can't be written"),
        ):
            with self.subTest(spoil.__name__):
                (self.folder / DATABASE).write_bytes(whole)
                spoil()
                code, _, said = self.command("backup", "-o", str(self.folder / "b.zip"))
                self.assertEqual(code, 2)
                self.assertIn(words, said)
                self.assertEqual(said.count("\n"), 1)

    def test_a_folder_without_a_shelf_stays_without_one(self):
        elsewhere = self.folder.with_name("elsewhere")
        for command in (("backup", "-o", str(self.folder / "b.zip")), ("check",)):
            code, _, said = run_quietly(*command, "--data", str(elsewhere))
            self.assertEqual(code, 2)
            self.assertIn("There is no shelf in", said)
            self.assertFalse((elsewhere / DATABASE).exists())

    def test_a_database_that_another_program_holds(self):
        self.store.close()
        with (
            contextlib.closing(sqlite3.connect(self.folder / DATABASE)) as other,
            mock.patch("lucky_margin.store.database.BUSY_TIMEOUT_MS", 1),
        ):
            other.execute("PRAGMA locking_mode = EXCLUSIVE")
            other.execute("BEGIN EXCLUSIVE")
            with self.assertRaisesRegex(UnusableFolder, "locked by another program"):
                Store(self.folder)
        self.assertEqual(self.reopened(), ["Mugs ☘"])


class BackupTest(UpkeepTest):
    def backup(self):
        file = io.BytesIO()
        self.store.write_backup(file)
        return file

    def restored(self, file, name="other"):
        folder = self.folder.with_name(name)
        file.seek(0)
        restore_backup(file, folder)
        store = Store(folder)
        self.addCleanup(store.close)
        return store

    def test_a_restored_shelf_is_the_same_in_every_file(self):
        other = self.restored(self.backup())
        self.assertEqual(
            [entry.document for entry in other.finishes.list()],
            [entry.document for entry in self.store.finishes.list()],
        )
        original, copied = (store.photos.original(self.photo) for store in (self.store, other))
        self.assertEqual(original.read_bytes(), copied.read_bytes())
        (record,) = other.exports.list(other.finishes.list()[0].id)
        self.assertEqual(other.exports.data(record), self.export.data)
        self.assertTrue(look_over(self.folder.with_name("other")).is_sound)

    def test_the_command_line_does_the_same_and_refuses_a_folder_in_use(self):
        out = self.folder.with_name("shelf.zip")
        self.assertEqual(self.command("backup", "-o", str(out))[0], 0)
        code, _, said = self.command("backup", "-o", str(out))
        self.assertEqual((code, "--replace" in said), (2, True))
        code, _, said = self.command("restore", str(out))
        self.assertEqual(code, 2)
        self.assertIn("There is a shelf in", said)
        other = self.folder.with_name("third")
        code, _, _ = run_quietly("restore", str(out), "--data", str(other))
        self.assertEqual(code, 0)
        self.assertTrue((other / DATABASE).is_file())

    def test_an_empty_shelf_in_use_takes_a_backup_over(self):
        finish = self.store.finishes.list()[0]
        self.store.library.set_favourite(f"photo:{self.photo}", True)
        self.store.finishes.save(
            finish.id, finish.etag, finish.document.model_copy(update={"name": "Later"})
        )
        file = self.backup()
        other = Store(self.folder.with_name("other"))
        self.addCleanup(other.close)
        other.restore(file)
        self.assertEqual([entry.document.name for entry in other.finishes.list()], ["Later"])
        self.assertEqual(other.library.favourites(), self.store.library.favourites())
        undone = other.finishes.undo(finish.id, other.finishes.get(finish.id).etag)
        self.assertEqual(undone.document.name, "Mugs ☘")
        self.assertTrue(other.look_over().is_sound)
        added = other.finishes.create(new_finish(name="New", photo_sha256=self.photo))
        self.assertGreater(added.revision, undone.revision)

    def test_a_shelf_in_use_that_holds_something_takes_nothing_over(self):
        other = Store(self.folder.with_name("other"))
        self.addCleanup(other.close)
        other.photos.add(encoded(noise(9, 9)), "own.png")
        for file in (self.backup(), io.BytesIO(b"no archive")):
            with self.subTest(), self.assertRaises((Conflict, BadDocument)):
                other.restore(file)
        self.assertEqual(len(list((self.folder.with_name("other") / "originals").glob("*/*"))), 1)
        self.assertEqual(other.finishes.list(), [])
        self.assertFalse(list(self.folder.with_name("other").glob(".new-*")))

    def test_what_is_damaged_climbs_out_or_is_newer_leaves_nothing(self):
        whole = self.backup()
        entries = {}
        with zipfile.ZipFile(whole) as archive:
            for name in archive.namelist():
                entries[name] = archive.read(name)
        original = next(name for name in entries if name.startswith("originals/"))
        manifest = json.loads(entries["backup.json"])

        def changed(**changes):
            return {**entries, **changes}

        for what, spoilt in {
            "a wrong file": changed(**{original: b"other bytes"}),
            "a wrong database": changed(**{DATABASE: entries[DATABASE] + b" "}),
            "a path that climbs out": changed(**{f"../{'a' * 64}": b"x"}),
            "a folder of its own": changed(**{f"derived/{'a' * 64}": b"x"}),
            "no database": {key: entries[key] for key in entries if key != DATABASE},
            "no manifest": {key: entries[key] for key in entries if key != "backup.json"},
            "newer": changed(**{"backup.json": json.dumps(manifest | {"version": 99})}),
            "another kind": changed(**{"backup.json": "[]"}),
        }.items():
            file = io.BytesIO()
            with zipfile.ZipFile(file, "w") as archive:
                for name, data in spoilt.items():
                    archive.writestr(name, data)
            with self.subTest(what), self.assertRaises(BadDocument):
                self.restored(file, "spoilt")
            self.assertFalse((self.folder.with_name("spoilt") / "originals").exists())
            self.assertFalse((self.folder.with_name("spoilt") / DATABASE).exists())
        with self.assertRaises(BadDocument):
            self.restored(io.BytesIO(b"no archive"), "spoilt")

    def test_what_a_kill_left_behind_goes_after_a_day(self):
        for name, age in (("old", 100_000), ("young", 10)):
            left = self.folder / f".new-{name}"
            left.mkdir()
            os.utime(left, (time.time() - age,) * 2)
        self.reopened()
        self.assertEqual([path.name for path in self.folder.glob(".new-*")], [".new-young"])

    def test_a_shelf_in_use_is_not_written_over(self):
        with self.assertRaises(Conflict):
            restore_backup(self.backup(), self.folder)
        self.assertEqual(self.names(), ["Mugs ☘"])


class CheckTest(UpkeepTest):
    def test_a_sound_folder(self):
        found = look_over(self.folder)
        self.assertTrue(found.is_sound)
        self.assertEqual((found.checked, found.unused), (2, []))
        code, said, _ = self.command("check")
        self.assertEqual(code, 0)
        self.assertIn("2 files checked; the database is sound.", said)

    def test_what_is_damaged_missing_or_unused_is_found_and_mended(self):
        original = self.store.photos.original(self.photo)
        original.write_bytes(b"something else")
        (exported,) = (self.folder / "exports").glob("*/*")
        exported.unlink()
        stray = self.store.tables._files.add(b"of no use")
        code, said, _ = self.command("check")
        self.assertEqual(code, 1)
        self.assertIn(f"Damaged: {original}", said)
        self.assertIn("Missing: exports: mugs", said)
        self.assertIn("Unused: 1 files", said)
        mend(look_over(self.folder))
        self.assertFalse(original.exists())
        self.assertNotIn(stray, self.store.tables._files)
        again = look_over(self.folder)
        self.assertEqual((again.damaged, again.unused), ([], []))

    def test_in_use_no_young_file_counts_as_unused(self):
        stray = self.store.tables._files.add(b"on its way in")
        self.assertEqual(self.store.look_over().unused, [])
        path = self.store.tables._files.path(stray)
        os.utime(path, (time.time() - 100_000,) * 2)
        self.assertEqual(self.store.look_over().unused, [path])

    def test_what_an_earlier_revision_needs_is_not_unused(self):
        finish = self.store.finishes.list()[0]
        ground = SolidColour(colour="#FFFFFF")
        self.store.finishes.save(
            finish.id, finish.etag, finish.document.model_copy(update={"backdrop": ground})
        )
        self.assertEqual(look_over(self.folder).unused, [])


class ThinningTest(UpkeepTest):
    """Five changes on each of three days, the last of them today."""

    def setUp(self):
        super().setUp()
        self.finish = self.store.finishes.list()[0]
        self.kept = self.save("exported")
        self.store.exports.add(
            replace(self.export, data=b"another file"),
            finish_id=self.finish.id, revision=self.kept, size_name="main",
        )  # fmt: skip
        named = self.save("named")
        self.store.finishes.keep_version(self.finish.id, "For print")
        for day in (300, 200, 0):
            self.ids = [self.save(f"{day}, {number}") for number in range(5)]
            self.date(self.ids, day)
        self.date([1, self.kept, named], 300)

    def save(self, name):
        record = self.store.finishes.get(self.finish.id)
        document = record.document.model_copy(update={"name": name})
        return self.store.finishes.save(record.id, record.etag, document).revision

    def date(self, ids, days, table="revisions"):
        """Say of rows that they were made so many days ago."""
        made = (datetime.now(UTC) - timedelta(days=days)).isoformat()
        with self.store._database.write() as connection:
            for one in ids:
                connection.execute(f"UPDATE {table} SET created_at = ? WHERE id = ?", (made, one))

    def left(self):
        """Names from the present back to the first, as undo comes to them."""
        record = self.store.finishes.get(self.finish.id)
        names = [record.document.name]
        while record.can_undo:
            record = self.store.finishes.undo(record.id, record.etag)
            names.append(record.document.name)
        return names

    def test_counting_removes_nothing(self):
        before = len(self.store.finishes.revisions(self.finish.id))
        counted = self.store.thin(ThinningRule(days=90), remove=False)
        self.assertEqual((counted.changes, counted.files), (8, 0))
        self.assertGreater(counted.bytes, 1000)
        self.assertEqual(len(self.store.finishes.revisions(self.finish.id)), before)

    def test_each_old_day_keeps_its_last_and_undo_steps_over_the_rest(self):
        self.store.thin(ThinningRule(days=90), remove=True)
        today = [f"0, {number}" for number in (4, 3, 2, 1, 0)]
        self.assertEqual(self.left(), [*today, "200, 4", "300, 4", "named", "exported", "Mugs ☘"])
        self.assertTrue(look_over(self.folder).is_sound)
        again = self.store.thin(ThinningRule(days=90), remove=True)
        self.assertEqual((again.changes, again.bytes), (0, 0))

    def test_old_files_go_with_their_bytes_but_not_what_a_younger_record_needs(self):
        self.date([1, 2], 300, "exports")
        same = self.store.exports.add(
            self.export, finish_id=self.finish.id, revision=self.ids[-1], size_name="again"
        )
        thinned = self.store.thin(ThinningRule(days=90, changes=False, files=True), remove=True)
        self.assertEqual((thinned.changes, thinned.files), (0, 2))
        self.assertEqual(thinned.bytes, len(b"another file"))
        self.assertEqual(self.store.exports.list(self.finish.id), [same])
        self.assertEqual(self.store.exports.data(same), self.export.data)
        self.assertEqual(len(list((self.folder / "exports").glob("*/*"))), 1)

    def test_the_command_counts_and_removes_only_when_told(self):
        self.store.close()
        for options, words in (
            ((), "8 changes and 0 saved files"),
            (("--remove",), "Removed 8 changes"),
            ((), "0 changes"),
        ):
            code, said, _ = self.command("thin", *options)
            self.assertEqual(code, 0)
            self.assertIn(words, said)
        self.assertEqual(self.command("thin", "--days", "0")[0], 2)


if __name__ == "__main__":
    unittest.main()
