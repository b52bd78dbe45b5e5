"""The command line: exact files, and one sentence with exit code 2 for anything wrong."""

import contextlib
import hashlib
import io
import json
import os
import socket
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from PIL import Image

from lucky_margin.cli import main
from lucky_margin.core.document import Export, FixedPixels, new_finish
from tests.support import encoded, gradient, noise, with_size


class CommandTest(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.photo = self.folder / "mugs.jpg"
        self.photo.write_bytes(encoded(gradient(300, 200), "JPEG", quality=95))

    def run_command(self, *arguments):
        """Exit code, standard output and standard error of a command."""
        out, err = io.StringIO(), io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            try:
                code = main([str(argument) for argument in arguments])
            except SystemExit as exit_:
                code = exit_.code
        return code, out.getvalue(), err.getvalue()

    def good(self, *arguments):
        code, out, err = self.run_command(*arguments)
        self.assertEqual((code, err), (0, ""))
        return out

    def bad(self, saying, *arguments):
        code, _, err = self.run_command(*arguments)
        self.assertEqual(code, 2)
        self.assertRegex(err, saying)
        self.assertRegex(err, r"\.\n$")
        self.assertEqual(err.count("\n"), 1, err)


class FinishTest(CommandTest):
    def test_one_photo_to_one_file_of_its_suffix(self):
        for suffix, image_format in (
            (".jpg", "JPEG"),
            (".png", "PNG"),
            (".webp", "WEBP"),
            (".avif", "AVIF"),
        ):
            with self.subTest(suffix):
                out = self.folder / f"out{suffix}"
                self.good("finish", self.photo, "--size", "108x135", "-o", out)
                image = Image.open(out)
                self.assertEqual((image.size, image.format), ((108, 135), image_format))

    def test_everything_at_once(self):
        out = self.folder / "out.png"
        self.good(
            *("finish", self.photo, "--size", "100x100", "--focus", "0.9,0.4", "--radius", "10%"),
            *("--border", "5%:#FF0000", "--border-outside", "-o", out),
        )
        image = Image.open(out)
        self.assertEqual(image.getpixel((50, 2)), (255, 0, 0, 255))
        self.assertEqual(image.getpixel((0, 0))[3], 0)
        self.assertGreater(image.getpixel((90, 50))[0], 200)  # the bright right end is in view

    def test_several_photos_to_a_folder(self):
        other = self.folder / "cups.png"
        other.write_bytes(encoded(noise(50, 50)))
        out = self.folder / "new" / "folder"
        self.good("finish", self.photo, other, "--size", "20x20", "--format", "webp", "-o", out)
        self.assertEqual({p.name for p in out.iterdir()}, {"mugs-20x20.webp", "cups-20x20.webp"})

    def test_a_bad_photo_among_several_is_said_and_the_rest_is_made(self):
        broken = self.folder / "broken.jpg"
        broken.write_bytes(b"no photo")
        out = self.folder / "out"
        self.bad("broken.jpg", "finish", broken, self.photo, "--size", "20x20", "-o", out)
        self.assertEqual([p.name for p in out.iterdir()], ["mugs-20x20.jpg"])

    def test_a_weight_cap(self):
        out = self.folder / "out.jpg"
        self.good("finish", self.photo, "--size", "300x200", "--max-kb", "6", "-o", out)
        self.assertLessEqual(out.stat().st_size, 6000)
        png = self.folder / "out.png"
        self.bad(
            "would weigh", "finish", self.photo, "--size", "300x200", "--max-kb", "1", "-o", png
        )
        self.assertFalse(png.exists())

    def test_nothing_is_replaced_unless_asked(self):
        out = self.folder / "out.jpg"
        out.write_text("mine")
        self.bad("--replace", "finish", self.photo, "--size", "9x9", "-o", out)
        self.assertEqual(out.read_text(), "mine")
        self.good("finish", self.photo, "--size", "9x9", "--replace", "-o", out)
        self.assertEqual(Image.open(out).size, (9, 9))

    def test_bad_input(self):
        out = self.folder / "x.jpg"
        for saying, options in (
            ("1080x1350", ("--size", "big", "-o", out)),
            ("whole pixels", ("--size", "10.5x9", "-o", out)),
            ("width", ("--size", "0x9", "-o", out)),
            ("16000", ("--size", "100000x9", "-o", out)),
            ("megapixels", ("--size", "16000x16000", "-o", out)),
            ("0.5,0.4", ("--size", "9x9", "--focus", "middle", "-o", out)),
            ("less than or equal to 1", ("--size", "9x9", "--focus", "3,3", "-o", out)),
            ("finite", ("--size", "9x9", "--focus", "nan,0", "-o", out)),
            ("greater than or equal to 0", ("--size", "9x9", "--border=-3%", "-o", out)),
            ("percentage", ("--size", "9x9", "--border", "thick", "-o", out)),
            ("pattern", ("--size", "9x9", "--border", "3%:blue", "-o", out)),
            ("suffix", ("--size", "9x9", "-o", self.folder / "x.txt")),
            ("drop one", ("--size", "9x9", "--format", "png", "-o", out)),
            ("100", ("--size", "9x9", "--quality", "101", "-o", out)),
            ("not allowed", ("--size", "9x9", "--quality", "9", "--max-kb", "3", "-o", out)),
            ("--size", ("-o", out)),
            ("needs a folder|need a folder", (self.photo, "--size", "9x9", "-o", out)),
        ):
            with self.subTest(options=options):
                self.bad(saying, "finish", self.photo, *options)
        self.bad("No such file", "finish", self.folder / "none.jpg", "--size", "9x9", "-o", out)
        self.bad("invalid choice", "polish")
        self.assertFalse(out.exists())


class RenderTest(CommandTest):
    def setUp(self):
        super().setUp()
        digest = hashlib.sha256(self.photo.read_bytes()).hexdigest()
        finish = new_finish(name="Mugs", photo_sha256=digest)
        finish = with_size(finish, name="Tall", pixels=FixedPixels(width=40, height=50))
        finish = finish.model_copy(update={"export": Export(format="webp")})
        self.document = self.folder / "mugs.finish.json"
        self.document.write_text(finish.model_dump_json())
        self.out = self.folder / "out.png"

    def test_the_photo_is_found_beside_the_document(self):
        self.good("render", self.document, "--size", "Tall", "-o", self.out)
        self.assertEqual(
            (Image.open(self.out).size, Image.open(self.out).format), ((40, 50), "PNG")
        )

    def test_the_photo_can_be_named_and_has_to_be_the_right_one(self):
        elsewhere = self.folder / "sub"
        elsewhere.mkdir()
        moved = self.photo.rename(elsewhere / "moved.jpg")
        self.bad("--photo", "render", self.document, "--size", "main", "-o", self.out)
        self.good("render", self.document, "--photo", moved, "--size", "main", "-o", self.out)
        wrong = self.folder / "wrong.png"
        wrong.write_bytes(encoded(noise(9, 9)))
        self.bad(
            "not the photo",
            "render",
            self.document,
            "--photo",
            wrong,
            "--size",
            "main",
            "-o",
            self.out,
        )

    def test_bad_documents(self):
        for text, saying in (("{", "no JSON"), ("{}", "no finish"), ('"x"', "no finish")):
            self.document.write_text(text)
            with self.subTest(text):
                self.bad(saying, "render", self.document, "--size", "Tall", "-o", self.out)

    def test_an_unknown_size_is_answered_with_the_known_ones(self):
        self.bad("it has “Tall”", "render", self.document, "--size", "Wide", "-o", self.out)


class ProcessTest(unittest.TestCase):
    def test_the_schema_is_printed(self):
        out = subprocess.run(
            [sys.executable, "-m", "lucky_margin.cli", "schema"], capture_output=True, check=True
        )
        self.assertIn("sizes", json.loads(out.stdout)["properties"])

    def test_a_taken_port_is_a_clear_error(self):
        with socket.socket() as taken, tempfile.TemporaryDirectory() as folder:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = str(taken.getsockname()[1])
            run = subprocess.run(
                [sys.executable, "-m", "lucky_margin.cli", "serve", "--data", folder],
                capture_output=True, text=True, env=dict(os.environ) | {"PORT": port},
            )  # fmt: skip
        self.assertEqual(run.returncode, 2)
        self.assertRegex(run.stderr, rf"^Port {port} .* set PORT to another\.\n$")
