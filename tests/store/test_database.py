"""The database: transactions that hold, migrations that run once, readers that cannot write."""

import itertools
import os
import signal
import sqlite3
import subprocess
import sys
import tempfile
import textwrap
import time
import unittest
from pathlib import Path

from lucky_margin.core.errors import StorageFull
from lucky_margin.store import Store
from lucky_margin.store.database import Database, full_disk_is_said, migrate, statements


class TemporaryTest(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.database = Database(self.folder / "test.sqlite3")
        self.addCleanup(self.database.close)

    def count(self):
        with self.database.read() as connection:
            return connection.execute("SELECT count(*) FROM things").fetchone()[0]


class TransactionTest(TemporaryTest):
    def setUp(self):
        super().setUp()
        with self.database.write() as connection:
            connection.execute("CREATE TABLE things (name TEXT)")

    def add(self, connection):
        connection.execute("INSERT INTO things VALUES ('x')")

    def test_a_finished_transaction_is_seen_by_other_connections(self):
        with self.database.write() as connection:
            self.add(connection)
            self.assertEqual(self.count(), 0)
        self.assertEqual(self.count(), 1)

    def test_a_failed_one_leaves_no_trace(self):
        with self.assertRaises(ZeroDivisionError), self.database.write() as connection:
            self.add(connection)
            raise ZeroDivisionError
        self.assertEqual(self.count(), 0)

    def test_nested_ones_commit_together(self):
        with self.database.write() as connection:
            with self.database.write() as inner:
                self.add(inner)
            self.add(connection)
            self.assertEqual(self.count(), 0)
        self.assertEqual(self.count(), 2)

    def test_a_failed_inner_one_takes_back_only_its_own(self):
        with self.database.write() as connection:
            self.add(connection)
            with self.assertRaises(ZeroDivisionError), self.database.write() as inner:
                self.add(inner)
                raise ZeroDivisionError
        self.assertEqual(self.count(), 1)

    def test_readers_cannot_write(self):
        with self.database.read() as connection, self.assertRaises(sqlite3.OperationalError):
            self.add(connection)

    def test_readers_are_kept_and_see_what_came_after(self):
        with self.database.read() as outer, self.database.read() as inner:
            self.assertIsNot(outer, inner)
        with self.database.write() as connection:
            self.add(connection)
        with self.database.read() as again:
            self.assertIn(again, (outer, inner))
        self.assertEqual(self.count(), 1)

    def test_it_runs_in_wal_mode_with_foreign_keys(self):
        with self.database.read() as connection:
            self.assertEqual(connection.execute("PRAGMA journal_mode").fetchone()[0], "wal")
            self.assertEqual(connection.execute("PRAGMA foreign_keys").fetchone()[0], 1)

    def test_a_full_disk_is_said_and_nothing_kept(self):
        with self.database.write() as connection:
            pages = connection.execute("PRAGMA page_count").fetchone()[0]
            connection.execute(f"PRAGMA max_page_count = {pages}")
        with (
            self.assertRaisesRegex(StorageFull, "disk is full"),
            self.database.write() as connection,
        ):
            connection.execute("INSERT INTO things VALUES (?)", ("x" * 100_000,))
        self.assertEqual(self.count(), 0)

    def test_other_errors_are_passed_on(self):
        for error in (sqlite3.OperationalError("no such table"), OSError(13, "denied")):
            with self.assertRaises(type(error)), full_disk_is_said():
                raise error


class MigrationTest(TemporaryTest):
    def setUp(self):
        super().setUp()
        self.scripts = self.folder / "migrations"
        self.scripts.mkdir()

    def write(self, name, script):
        (self.scripts / f"{name}.sql").write_text(script)

    def test_they_run_in_order_and_once(self):
        self.write("0002_second", "INSERT INTO things VALUES ('b');")
        self.write(
            "0001_first", "CREATE TABLE things (name TEXT);\nINSERT INTO things VALUES ('a');"
        )
        self.assertEqual(migrate(self.database, self.scripts), ["0001_first", "0002_second"])
        self.assertEqual(migrate(self.database, self.scripts), [])
        self.assertEqual(self.count(), 2)

    def test_a_failing_one_rolls_back_stays_pending_and_runs_once_when_mended(self):
        self.write("0001_first", "CREATE TABLE things (name TEXT);")
        self.write(
            "0002_second", "INSERT INTO things VALUES ('a');\nINSERT INTO nowhere VALUES (1);"
        )
        self.write("0003_third", "INSERT INTO things VALUES ('c');")
        with self.assertRaises(sqlite3.OperationalError):
            migrate(self.database, self.scripts)
        self.assertEqual(self.count(), 0)
        self.write("0002_second", "INSERT INTO things VALUES ('a');")
        self.assertEqual(migrate(self.database, self.scripts), ["0002_second", "0003_third"])
        self.assertEqual(self.count(), 2)

    def test_a_script_is_split_at_its_statements_only(self):
        script = "-- a; comment\nCREATE TABLE t (x TEXT DEFAULT ';');\nSELECT 1;\nSELECT 2"
        self.assertEqual(len(list(statements(script))), 3)

    def test_ours_make_every_table(self):
        migrate(self.database)
        with self.database.read() as connection:
            names = {row["name"] for row in connection.execute("SELECT name FROM sqlite_master")}
        self.assertLessEqual({"photos", "finishes", "revisions", "exports"}, names)


class CrashTest(unittest.TestCase):
    def test_a_process_killed_while_saving_loses_no_committed_change(self):
        """A child saves as fast as it can, saying each change it was told is committed; then it
        is killed. What it said must be there, and the history must hold together."""
        with tempfile.TemporaryDirectory() as folder:
            script = textwrap.dedent(
                f"""
                from pathlib import Path
                from lucky_margin.store import Store
                from tests.support import encoded, noise
                from lucky_margin.core.document import new_finish
                store = Store(Path({folder!r}))
                photo, _ = store.photos.add(encoded(noise(8, 8)), "a.png")
                record = store.finishes.create(new_finish(name="0", photo_sha256=photo.sha256))
                for number in range(1, 100000):
                    document = record.document.model_copy(update={{"name": str(number)}})
                    record = store.finishes.save(record.id, record.etag, document)
                    print(record.id, number, flush=True)
                """
            )
            child = subprocess.Popen(
                [sys.executable, "-c", script], stdout=subprocess.PIPE, text=True, cwd=Path.cwd()
            )
            finish_id, said = "", 0
            while said < 25:
                finish_id, number = child.stdout.readline().split()
                said = int(number)
            time.sleep(0.01)
            os.kill(child.pid, signal.SIGKILL)
            rest = child.communicate()[0].split()
            said = max(said, *(int(word) for word in rest[1::2])) if len(rest) > 1 else said
            self.check(Path(folder), finish_id, said)

    def check(self, folder, finish_id, said):
        store = Store(folder)
        self.addCleanup(store.close)
        record = store.finishes.get(finish_id)
        self.assertGreaterEqual(int(record.document.name), said)
        revisions = store.finishes.revisions(finish_id)
        self.assertEqual(record.revision, revisions[0].id)
        for newer, older in itertools.pairwise(revisions):
            self.assertEqual(newer.parent, older.id)
