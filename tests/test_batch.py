"""A folder of photos in a house style: whatever happens in between, each is finished once."""

import contextlib
import hashlib
import io
import os
import signal
import subprocess
import sys
import tempfile
import time
import unittest
from pathlib import Path
from unittest import mock

import numpy as np
from PIL import Image

from lucky_margin.cli import main
from lucky_margin.cli.batch import JOURNAL
from lucky_margin.core.batch import names_of
from lucky_margin.core.document import FixedPixels, HouseStyle, Size, TextPiece, kept_style
from lucky_margin.core.errors import StorageFull
from lucky_margin.core.export import FINISH, STYLE, PackageFiles, package
from lucky_margin.store import Store, import_finish
from tests.endure import amount
from tests.support import encoded, finish_of, gradient

SIZES = (
    Size(id="square", name="Square", pixels=FixedPixels(width=60, height=60)),
    Size(id="wide", name="Wide", pixels=FixedPixels(width=90, height=30)),
)
SIZE_IDS = [size.id for size in SIZES]
LINE = {"bands": [{"kind": "line", "colour": "#1F6B4B", "thickness": dict.fromkeys(
    ("top", "right", "bottom", "left"), 0.1)}]}  # fmt: skip


def a_style(**fields):
    finish = finish_of(
        sizes=SIZES,
        border=LINE,
        pieces=(TextPiece(id="text-1", text="{price}", size=0.3),),
        export={"format": "png", **fields},
    )
    keys = ("sizes", "border", "pieces", "export")
    return kept_style(finish, "0" * 16, "Shop", keys, suggest_light=False)


class BatchCase(unittest.TestCase):
    """A folder of photos, and a style as a file."""

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.photos, self.out = self.folder / "photos", self.folder / "out"
        self.photos.mkdir()
        self.keep_style(a_style())

    def keep_style(self, style):
        self.style = self.folder / "shop.style.zip"
        self.style.write_bytes(package(STYLE, style, PackageFiles()))

    def add_photos(self, count):
        for number in range(count):
            picture = gradient(80 + number, 60)
            (self.photos / f"mug {number:02}.png").write_bytes(encoded(picture))

    def arguments(self, *more, out=None):
        style = ["--style", str(self.style)] if self.style else []
        where = ["-o", str(out or self.out)]
        return ["batch", str(self.photos), *style, *where, *map(str, more)]

    def run_batch(self, *more, out=None):
        """Exit code, standard output and standard error."""
        said, wrong = io.StringIO(), io.StringIO()
        with contextlib.redirect_stdout(said), contextlib.redirect_stderr(wrong):
            code = main(self.arguments("--jobs", 1, *more, out=out))
        return code, said.getvalue(), wrong.getvalue()

    def written(self, folder=None):
        return {
            path.name: path.read_bytes()
            for path in (folder or self.out).iterdir()
            if path.suffix == ".png"
        }

    def started(self, *more):
        """The command in a process group of its own."""
        command = [sys.executable, "-m", "lucky_margin.cli", *self.arguments(*more)]
        return subprocess.Popen(
            command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, start_new_session=True
        )


class WatchTest(BatchCase):
    """A folder looked at again and again; what happens in between is a list."""

    def watched(self, *happenings, more=()):
        """Exit code, output and errors of watching until all of it has happened."""
        left = iter(happenings)

        def sleep(seconds):
            self.assertGreater(seconds, 0)
            happening = next(left, KeyboardInterrupt)
            if happening is KeyboardInterrupt:
                raise KeyboardInterrupt
            happening()

        said, wrong = io.StringIO(), io.StringIO()
        arguments = ["watch", *self.arguments("--jobs", 1, *more)[1:]]
        with (
            contextlib.redirect_stdout(said),
            contextlib.redirect_stderr(wrong),
            mock.patch("lucky_margin.cli.watching.time.sleep", sleep),
        ):
            code = main(arguments)
        return code, said.getvalue().splitlines()[1:], wrong.getvalue()

    def nothing(self):
        pass

    def add_half(self):
        (self.photos / "late.png").write_bytes(encoded(gradient(70, 60))[:200])

    def add_rest(self):
        (self.photos / "late.png").write_bytes(encoded(gradient(70, 60)))

    def test_what_comes_is_finished_once_it_is_whole(self):
        self.add_photos(1)
        code, said, wrong = self.watched(
            self.nothing, self.add_half, self.add_rest, self.nothing, self.nothing
        )
        self.assertEqual(code, 0, wrong)
        self.assertEqual(said, ["1 finished", "1 finished, 1 finished before"])
        self.assertEqual(len(self.written()), 4)

    def test_what_is_wrong_is_said_and_tried_again_with_the_next_change(self):
        table = self.folder / "words.csv"
        table.write_text("file;price\nlate.png;3 €\n", encoding="utf-8")
        self.add_photos(1)

        def mend():
            table.write_text("file;price\nmug 00.png;2 €\nlate.png;3 €\n", encoding="utf-8")

        code, said, wrong = self.watched(
            self.nothing, self.nothing, mend, self.nothing, more=("--table", table)
        )
        self.assertEqual(code, 0)
        self.assertIn("No row of the table names “mug 00.png”; add it.", wrong)
        self.assertEqual(said, ["1 finished"])

    def test_no_folder_and_no_second_folder_are_said(self):
        code, _, wrong = self.watched(self.nothing)
        self.assertEqual((code, wrong), (0, ""))
        self.add_photos(1)
        self.out = self.photos
        code, _, wrong = self.run_batch()
        self.assertEqual(code, 2)
        self.assertIn("another folder than the one with the photos", wrong)
        self.photos = self.folder / "nowhere"
        code, _, wrong = self.watched()
        self.assertEqual(code, 2)
        self.assertIn("is no folder", wrong)


class BatchTest(BatchCase):
    def test_many_photos_three_of_them_damaged_and_a_kill_in_between(self):
        count = amount(12, 40)
        self.add_photos(count)
        damaged = (3, count // 2, count - 1)
        for number in damaged:
            path = self.photos / f"mug {number:02}.png"
            path.write_bytes(path.read_bytes()[:100])
        table = self.folder / "words.csv"
        rows = "".join(f"mug {number:02}.png;{number} €\n" for number in reversed(range(count)))
        table.write_text(f"file;price\n{rows}", encoding="utf-8")
        code, said, wrong = self.run_batch("--table", table, "--jobs", 2, out=self.folder / "whole")
        self.assertEqual((code, said), (2, f"{count - 3} finished, 3 failed\n"))
        for number in damaged:
            self.assertIn(f"mug {number:02}.png: “mug {number:02}.png” is", wrong)
        whole = self.written(self.folder / "whole")
        self.assertEqual(len(whole), 2 * (count - 3))
        self.assertEqual(len(set(whole.values())), len(whole))

        process = self.started("--table", table, "--jobs", 1)
        journal = self.out / JOURNAL
        while process.poll() is None and not (
            journal.exists() and journal.read_text().count("made_by") > 2
        ):
            time.sleep(0.02)
        os.killpg(process.pid, signal.SIGKILL)
        process.wait()
        self.assertLess(len(self.written()), len(whole))

        code, said, _ = self.run_batch("--table", table)
        self.assertEqual(code, 2)
        self.assertRegex(said, r"^\d+ finished, \d+ finished before, 3 failed\n$")
        self.assertEqual(self.written(), whole)
        self.assertEqual([path.name for path in self.out.glob(".*")], [])

    def test_words_styles_and_photos_that_changed_are_finished_anew(self):
        self.add_photos(3)
        table = self.folder / "words.csv"
        table.write_text("price\n1\n2\n3\n")
        self.assertEqual(self.run_batch("--table", table)[1], "3 finished\n")
        before = self.written()
        self.assertEqual(self.run_batch("--table", table)[1], "0 finished, 3 finished before\n")
        table.write_text("price\n1\n2\n4\n")
        self.assertEqual(self.run_batch("--table", table)[1], "1 finished, 2 finished before\n")
        changed = {name for name, data in self.written().items() if data != before[name]}
        self.assertEqual(changed, {"mug-02-60x60.png", "mug-02-90x30.png"})
        self.keep_style(a_style(format="jpeg"))
        self.assertEqual(self.run_batch("--table", table)[1], "3 finished\n")
        self.assertEqual(self.written(), {})
        self.assertEqual(len(list(self.out.glob("*.jpg"))), 6)

    def test_photos_are_finished_like_a_finish_from_a_file_or_the_shelf(self):
        self.add_photos(2)
        model = encoded(gradient(70, 50))
        finish = finish_of(
            sizes=SIZES[:1], border=LINE, export={"format": "png"}, name="Blue Mug",
            photo={"sha256": hashlib.sha256(model).hexdigest()},
        )  # fmt: skip
        file = self.folder / "model.finish.zip"
        photos = {finish.photo.sha256: ("mug.png", model)}
        file.write_bytes(package(FINISH, finish, PackageFiles(photos)))
        data = self.folder / "data"
        with contextlib.closing(Store(data)) as store:
            import_finish(store, file.read_bytes())
        self.style = None
        results = []
        with mock.patch.dict(os.environ, LUCKY_MARGIN_DATA=str(data)):
            for number, like in enumerate((file, "blue mug")):
                out = self.folder / str(number)
                code, said, wrong = self.run_batch("--like", like, out=out)
                self.assertEqual((code, said), (0, "2 finished\n"), wrong)
                results.append(self.written(out))
            code, _, wrong = self.run_batch("--like", "Red Mug")
        self.assertEqual(code, 2)
        self.assertIn("There is no finish “Red Mug”", wrong)
        self.assertEqual(*results)
        self.assertEqual(sorted(results[0]), ["mug-00-60x60.png", "mug-01-60x60.png"])
        edge = np.asarray(Image.open(io.BytesIO(results[0]["mug-00-60x60.png"])))[1, 1]
        self.assertEqual(edge.tolist(), [0x1F, 0x6B, 0x4B])

    def test_every_file_has_its_pixels_its_border_and_a_name_of_its_own(self):
        self.keep_style(a_style(name_pattern="shop-{size}"))
        for name in ("Mug.png", "mug.jpg", "mug 2.png"):
            (self.photos / name).write_bytes(encoded(gradient(50, 40), "PNG"))
        code, _, wrong = self.run_batch()
        self.assertEqual(code, 0)
        self.assertEqual(wrong.count("“{price}” stands for a column"), 3)
        self.assertIn("(And 1 more size.)", wrong)
        self.assertEqual(
            sorted(self.written()),
            sorted(
                f"mug{n}-shop-{size}.png" for n in ("", "-2", "-3") for size in ("square", "wide")
            ),
        )
        picture = np.asarray(Image.open(self.out / "mug-shop-wide.png").convert("RGB"))
        self.assertEqual(picture.shape, (30, 90, 3))
        self.assertEqual(tuple(picture[1, 45]), (31, 107, 75))

    def test_names_can_be_told_apart_by_files(self):
        self.assertEqual(
            names_of(["Mug", "mug", "mug 2", "MUG"]), ["Mug", "mug 2", "mug 2 2", "MUG 3"]
        )
        self.assertEqual(len(set(names_of(["x" * 300] * 3))), 3)

    def test_what_is_there_already_is_not_overwritten(self):
        self.add_photos(2)
        self.out.mkdir()
        (self.out / "mug-00-60x60.png").write_text("precious")
        code, said, wrong = self.run_batch()
        self.assertEqual((code, said), (2, "1 finished, 1 failed\n"))
        self.assertIn("already exists; add --replace", wrong)
        self.assertEqual((self.out / "mug-00-60x60.png").read_text(), "precious")
        self.assertFalse((self.out / "mug-00-90x30.png").exists())
        self.assertEqual(self.run_batch("--replace")[0], 0)

    def test_a_full_disk_leaves_nothing_half_done(self):
        self.add_photos(1)
        full = StorageFull("The disk is full.")
        with mock.patch("lucky_margin.cli.batch.whole_file", side_effect=full):
            self.assertEqual(self.run_batch()[:2], (2, "0 finished, 1 failed\n"))
        self.assertEqual(self.written(), {})
        self.assertEqual(self.run_batch()[1], "1 finished\n")

    def test_bad_input_is_one_sentence(self):
        self.assertIn("no photos in", self.run_batch()[2])
        self.add_photos(2)
        table = self.folder / "words.csv"
        table.write_text("price\n1\n")
        self.assertIn("1 row for 2 photos", self.run_batch("--table", table)[2])
        self.assertIn("no house style “None”", self.run_with(style="None")[2])
        self.assertIn("no folder", self.run_with(photos=self.folder / "nowhere")[2])
        self.style.write_bytes(b"no archive")
        self.assertIn("This is no house style", self.run_batch()[2])
        unread = a_style().model_dump(mode="json")
        unread["parts"]["pieces"][0]["family"] = hashlib.sha256(b"no font").hexdigest()
        files = PackageFiles(fonts={hashlib.sha256(b"no font").hexdigest(): b"no font"})
        self.style.write_bytes(package(STYLE, HouseStyle.model_validate(unread), files))
        self.assertIn("font", self.run_batch()[2])
        self.keep_style(a_style())
        (self.out / JOURNAL).write_text("[")
        self.assertIn("is damaged; remove it", self.run_batch()[2])
        self.assertEqual(self.written(), {})

    def run_with(self, style=None, photos=None):
        self.style, self.photos = style or self.style, photos or self.photos
        kept = {"LUCKY_MARGIN_DATA": str(self.folder / "data")}
        try:
            with mock.patch.dict(os.environ, kept):
                return self.run_batch()
        finally:
            self.style, self.photos = self.folder / "shop.style.zip", self.folder / "photos"
