"""The command line: exact files, and one sentence with exit code 2 for anything wrong."""

import contextlib
import hashlib
import io
import json
import logging
import os
import socket
import sqlite3
import subprocess
import sys
import tempfile
import unittest
import zipfile
from pathlib import Path
from unittest import mock

import numpy as np
from defusedxml.ElementTree import fromstring
from PIL import Image
from PIL.ExifTags import Base

from lucky_margin.cli import main
from lucky_margin.cli.log import LOG_NAME, MOST_LOG_BYTES, library_output_logged
from lucky_margin.core.document import (
    Export,
    FixedPixels,
    MarkDesign,
    PicturePiece,
    TableLook,
    TextPiece,
    Tone,
    new_finish,
    read_finish,
)
from lucky_margin.core.text import face_of
from lucky_margin.store import FolderLock, Store
from tests.support import encoded, gradient, noise, with_size


def opened(path):
    return Image.open(io.BytesIO(path.read_bytes()))


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


class CutOutCommandTest(CommandTest):
    """A red square in a grey photo."""

    def setUp(self):
        super().setUp()
        photo = np.full((200, 200, 3), 128, np.uint8)
        photo[60:140, 60:140] = (200, 40, 30)
        self.photo.write_bytes(encoded(photo))
        self.out = self.folder / "out.png"

    def finish(self, *options):
        code, _, err = self.run_command("finish", self.photo, *options, "-o", self.out, "--replace")
        return code, err

    def test_the_subject_in_a_box_is_alone_in_the_file(self):
        code, _ = self.finish("--cut-out", "0.2,0.2,0.8,0.8")
        self.assertEqual(code, 0)
        alpha = np.asarray(opened(self.out))[:, :, 3]
        truth = np.zeros((200, 200))
        truth[60:140, 60:140] = 255
        self.assertLess(np.abs(alpha - truth).mean() / 255, 0.005)

    def test_outline_ground_and_room_around_it(self):
        code, _ = self.finish(
            *("--cut-out", "0.2,0.2,0.8,0.8", "--outline", "5%:#00FF00:soft=0%:gap=2%"),
            *("--crop-to-subject", "25%", "--backdrop", "#0000FF"),
        )
        self.assertEqual(code, 0)
        picture = np.asarray(opened(self.out).convert("RGB"))
        self.assertAlmostEqual(picture.shape[0], 120, delta=3)
        middle = picture[picture.shape[0] // 2].astype(int)
        self.assertEqual(tuple(middle[1]), (0, 0, 255))
        self.assertIn((0, 255, 0), {tuple(pixel) for pixel in middle.tolist()})

    def test_shadows_and_words_behind_the_subject(self):
        options = ("--cut-out", "0.2,0.2,0.8,0.8", "--backdrop", "#C0C0C0")
        self.finish(*options)
        plain = np.asarray(opened(self.out).convert("RGB")).astype(int)
        code, _ = self.finish(*options, "--shadow", "soft", "--shadow", "standing")
        self.assertEqual(code, 0)
        shaded = np.asarray(opened(self.out).convert("RGB")).astype(int)
        self.assertTrue((shaded <= plain + 1).all())
        self.assertGreater((plain - shaded)[145:, 100].max(), 30)
        words = ("--text", "WWWWWW", "--text-at", "middle", "--text-colour", "#00FF00")
        self.finish(*options, *words, "--text-size", "20%", "--text-behind")
        behind = np.asarray(opened(self.out).convert("RGB")).astype(int)
        green = (behind[:, :, 1] > 200) & (behind[:, :, 0] < 60)
        self.assertGreater(green.sum(), 100)
        self.assertFalse(green[64:136, 64:136].any())

    def test_the_background_alone_is_greyed(self):
        photo = np.full((200, 200, 3), (90, 110, 150), np.uint8)
        photo[60:140, 60:140] = (200, 40, 30)
        self.photo.write_bytes(encoded(photo))
        code, err = self.finish("--area", "background:saturation=-100,exposure=-0.5,feather=4")
        self.assertEqual((code, err), (0, ""))
        out = np.asarray(opened(self.out).convert("RGB")).astype(int)
        self.assertEqual(tuple(out[100, 100]), (200, 40, 30))
        self.assertLess(np.ptp(out[:50], axis=2).max(), 3)

    def test_the_layers_come_with_the_file(self):
        code, err = self.finish("--cut-out", "0.2,0.2,0.8,0.8", "--outline", "5%", "--layers")
        self.assertEqual((code, err), (0, ""))
        with zipfile.ZipFile(self.out.with_suffix(".ora")) as archive:
            names = [layer.get("name") for layer in fromstring(archive.read("stack.xml"))[0]]
        self.assertEqual(names, ["Subject", "Outline"])

    def test_a_mask_is_taken_as_it_is(self):
        mask = self.folder / "mask.png"
        white = np.zeros((20, 20, 3), np.uint8)
        white[:10] = 255
        mask.write_bytes(encoded(white))
        code, err = self.finish("--mask", mask, "--strict")
        self.assertEqual((code, err), (0, ""))
        alpha = np.asarray(opened(self.out))[:, :, 3]
        self.assertEqual((alpha[:90].min(), alpha[110:].max()), (255, 0))

    def test_a_saved_mask_cuts_out_the_same_again(self):
        mask = self.folder / "saved.png"
        line = self.folder / "line.svg"
        self.finish("--cut-out", "0.2,0.2,0.8,0.8", "--save-mask", mask, "--save-cut-line", line)
        self.assertIn("<path", line.read_text())
        first = np.asarray(opened(self.out))
        self.assertEqual(opened(mask).mode, "L")
        self.finish("--mask", mask)
        apart = np.abs(np.asarray(opened(self.out)).astype(int) - first)[:, :, 3]
        self.assertLess(apart.mean(), 0.5)
        code, err = self.finish("--cut-out", "auto", "--save-mask", mask)
        self.assertEqual(code, 0, err)

    def test_what_should_be_checked_is_said_and_strict_tells_by_the_exit_code(self):
        self.photo.write_bytes(encoded(np.full((90, 90, 3), 128, np.uint8)))
        code, err = self.finish("--cut-out", "auto")
        self.assertEqual(code, 0)
        self.assertRegex(err, "Please check the cut-out")
        code, _ = self.finish("--cut-out", "auto", "--strict")
        self.assertEqual(code, 3)

    def test_options_that_make_no_sense_are_refused_in_a_sentence(self):
        for options, words in (
            (("--outline", "2%"), "--outline needs --cut-out or --mask"),
            (("--cut-out", "0.5,0.1,0.4,0.9"), "left < right"),
            (("--text", "A", "--text-behind"), "--text-behind needs --cut-out or --mask"),
            (("--shadow", "soft"), "--shadow needs --cut-out or --mask"),
            (("--save-mask", "m.png"), "--save-mask needs --cut-out or --mask"),
            (("--square", "1,2,3"), "--square needs 8 numbers"),
            (("--square", "0,0,90,90,90,0,0,90"), "cross or lie in a line"),
            (("--area", "sky:exposure=1"), "--area is written like"),
            (("--area", "subject:blur=1"), "--area knows exposure"),
            (("--area", "subject:exposure=9"), "exposure"),
            (("--cut-out", "here"), "--cut-out needs 4 numbers"),
            (("--cut-out", "auto", "--crop-to-subject", "5%", "--trim"), "leave --trim"),
            (("--cut-out", "auto", "--outline", "2%:wide"), "--outline is written like"),
            (("--cut-out", "auto", "--backdrop", "moonlight"), "one of plain"),
        ):
            code, err = self.finish(*options)
            self.assertEqual(code, 2, options)
            self.assertRegex(err, words)


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
                image = opened(out)
                self.assertEqual((image.size, image.format), ((108, 135), image_format))

    def test_everything_at_once(self):
        out = self.folder / "out.png"
        self.good(
            *("finish", self.photo, "--size", "100x100", "--focus", "0.9,0.4", "--radius", "10%"),
            *("--border", "5%:#FF0000", "--border-outside", "-o", out),
        )
        image = opened(out)
        self.assertEqual(image.getpixel((50, 2)), (255, 0, 0, 255))
        self.assertEqual(image.getpixel((0, 0))[3], 0)
        self.assertGreater(image.getpixel((90, 50))[0], 200)  # the bright right end is in view

    def test_frames_from_the_outside_inwards(self):
        out = self.folder / "out.png"
        frames = ("--frame", "line:10%:#0000FF", "--frame", "checks:10%:#FF0000")
        self.good("finish", self.photo, "--size", "100x100", *frames, "-o", out)
        image = opened(out)
        self.assertEqual(image.getpixel((50, 2)), (0, 0, 255))
        band = [image.getpixel((x, 15)) for x in range(20, 80)]
        self.assertGreater(sum(red > 200 and blue < 60 for red, _, blue in band), 20)
        strip = self.folder / "strip.png"
        strip.write_bytes(encoded(np.full((9, 9, 3), (0, 255, 0), np.uint8)))
        for options in (("--frame", "oak"), ("--frame", "round:6%"), ("--frame", "torn:8%:#FFFFFF"),
                        ("--pattern", "leaves"), ("--pattern", strip)):  # fmt: skip
            self.good("finish", self.photo, "--size", "60x40", *options, "--replace", "-o", out)
        self.assertEqual(opened(out).getpixel((30, 1)), (0, 255, 0))

    def test_treatments_of_all_and_of_a_part(self):
        out = self.folder / "out.png"
        self.good("finish", self.photo, "--treat", "dark-corners", "-o", out)
        dark = opened(out)
        self.good("finish", self.photo, "--treat", "dark-corners:50%", "--replace", "-o", out)
        half = opened(out)
        self.good("finish", self.photo, "--replace", "-o", out)
        plain = opened(out)
        corners = [sum(image.getpixel((299, 199))) for image in (dark, half, plain)]
        self.assertEqual(corners, sorted(corners))
        self.assertLess(abs(2 * corners[1] - corners[0] - corners[2]), 6)
        for style in ("honeycomb", "colour-dots:80%@subject", "blur@background"):
            self.good("finish", self.photo, "--treat", style, "--replace", "-o", out)

    def test_a_part_is_lifted_over_its_grey_base_and_revealed(self):
        out = self.folder / "out.png"
        self.good("finish", self.photo, "--lift", "0.4,0.4,0.8,0.8", "-o", out)
        image = opened(out)
        red, green, blue = image.getpixel((20, 20))[:3]
        self.assertEqual((red, green), (green, blue))
        self.good("finish", self.photo, "--replace", "-o", self.folder / "plain.png")
        plain = opened(self.folder / "plain.png")
        self.assertEqual(image.getpixel((180, 120)), plain.getpixel((180, 120)))
        for suffix in ("webp", "gif"):
            moving = self.folder / f"moving.{suffix}"
            lift = ("--lift", "0.4,0.4,0.8,0.8", "--reveal", "side")
            self.good("finish", self.photo, *lift, "-o", moving)
            self.assertGreater(opened(moving).n_frames, 15)

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

    def test_what_it_shows(self):
        out = self.folder / "out.png"
        self.good("finish", self.photo, "--size", "90x60", "--alt", "Blue mugs", "-o", out)
        self.assertEqual(opened(out).getexif()[Base.ImageDescription], "Blue mugs")

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
        self.assertEqual(opened(out).size, (9, 9))

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
            ("no frame “gold”", ("--frame", "gold", "-o", out)),
            ("of the kind “plank”", ("--frame", "plank:3%", "-o", out)),
            ("3 bands at most", ("--frame", "oak", "--frame", "brass", "-o", out)),
            ("no treatment “oils”", ("--treat", "oils", "-o", out)),
            ("is written like", ("--treat", "blur@sky", "-o", out)),
            ("needs a percentage", ("--treat", "blur:much", "-o", out)),
            ("left < right", ("--lift", "0.8,0.1,0.2,0.9", "-o", out)),
            (".webp or .gif", ("--lift", "0.1,0.1,0.2,0.9", "--reveal", "side", "-o", out)),
            ("Nothing is lifted", ("--reveal", "side", "-o", self.folder / "x.gif")),
            ("suffix", ("--size", "9x9", "-o", self.folder / "x.txt")),
            ("drop one", ("--size", "9x9", "--format", "png", "-o", out)),
            ("100", ("--size", "9x9", "--quality", "101", "-o", out)),
            ("not allowed", ("--size", "9x9", "--quality", "9", "--max-kb", "3", "-o", out)),
            ("4 numbers", ("--window", "1,2,3", "-o", out)),
            ("over 0", ("--window", "1,2,0,9", "-o", out)),
            ("not “round”", ("--shape", "round", "-o", out)),
            ("rounds a rectangle", ("--shape", "star", "--radius", "9%", "-o", out)),
            ("greater than or equal to 3", ("--shape", "polygon:2", "-o", out)),
            ("two of them|a colour such as", ("--backdrop", "green", "-o", out)),
            ("45", ("--straighten", "60", "-o", out)),
            ("16000:1", ("--ratio", "1:99999", "-o", out)),
            ("2 numbers", ("--ratio", "wide", "-o", out)),
            ("knows exposure, contrast", ("--tone", "glow=3", "-o", out)),
            ("1 numbers|needs 1", ("--tone", "exposure=much", "-o", out)),
            ("less than or equal to 5", ("--tone", "exposure=50", "-o", out)),
            ("one of bright-day", ("--look", "sepia", "-o", out)),
            ("can't read gone.cube", ("--look", "gone.cube", "-o", out)),
            ("comes to", ("--size", "0.001x9mm", "-o", out)),
            ("Several sizes need a folder", ("--size", "9x9", "--size", "8x8", "-o", out)),
            ("needs a folder|need a folder", (self.photo, "--size", "9x9", "-o", out)),
        ):
            with self.subTest(options=options):
                self.bad(saying, "finish", self.photo, *options)
        self.bad("No such file", "finish", self.folder / "none.jpg", "--size", "9x9", "-o", out)
        self.bad("invalid choice", "polish")
        self.assertFalse(out.exists())


class FramingTest(CommandTest):
    def finished(self, *options, name="out.png"):
        """The picture that ``finish`` makes of the photo with these options."""
        out = self.folder / name
        self.good("finish", self.photo, *options, "--replace", "-o", out)
        return opened(out)

    def test_shapes_are_cut_out(self):
        for shape in ("circle", "heart", "polygon:6", "star:5", "blob:3", "arch"):
            with self.subTest(shape):
                image = self.finished("--size", "90x90", "--shape", shape)
                self.assertEqual((image.mode, image.getpixel((0, 0))[3]), ("RGBA", 0))
                self.assertEqual(image.getpixel((45, 50))[3], 255)

    def test_a_ratio_a_window_and_a_turn(self):
        self.assertEqual(self.finished("--ratio", "4:5").size, (160, 200))
        image = self.finished("--window", "10,20,80,60")
        self.assertEqual(image.size, (80, 60))
        whole = opened(self.photo).convert("RGB")
        self.assertEqual(image.getpixel((0, 0)), whole.getpixel((10, 20)))
        self.assertLess(self.finished("--straighten", "5").size[0], 300)

    def test_a_ratio_of_a_fixed_size_says_what_it_did(self):
        out = self.folder / "a.png"
        code, _, err = self.run_command(
            "finish", self.photo, "--size", "100x100", "--ratio", "2:1", "-o", out
        )
        self.assertEqual(code, 0)
        self.assertIn("100 × 50 px: its shorter side", err)
        self.assertEqual(opened(out).size, (100, 50))

    def test_a_contained_photo_shows_the_backdrop(self):
        options = ("--size", "100x100", "--contain", "--backdrop")
        image = self.finished(*options, "#102030")
        self.assertEqual(image.getpixel((50, 2)), (16, 32, 48))
        fading = self.finished(*options, "#000000-#FFFFFF")
        self.assertLess(fading.getpixel((50, 2))[0], 10)
        self.assertGreater(fading.getpixel((50, 97))[0], 245)
        self.assertEqual(self.finished(*options, "blur").mode, "RGB")

    def test_outside_shows_beside_the_shape(self):
        image = self.finished("--size", "60x60", "--shape", "circle", "--outside", "#0000FF")
        self.assertEqual((image.mode, image.getpixel((0, 0))), ("RGB", (0, 0, 255)))

    def test_trimming(self):
        sheet = np.full((90, 120, 3), 250, np.uint8)
        sheet[20:70, 15:95] = noise(80, 50) // 2
        self.photo.write_bytes(encoded(sheet, "PNG"))
        image = self.finished("--trim")
        np.testing.assert_array_equal(np.asarray(image), sheet[20:70, 15:95])
        self.photo.write_bytes(encoded(np.full((9, 9, 3), 7, np.uint8), "PNG"))
        code, _, said = self.run_command(
            *("finish", self.photo, "--trim", "-o", self.folder / "b.png")
        )
        self.assertEqual(code, 0)
        self.assertRegex(said, "^Everything here is plain .* no margin to trim.\n$")

    def test_where_there_is_no_margin_trimming_changes_nothing(self):
        out = self.folder / "trimmed.png"
        options = ("--size", "40x40", "--focus", "0.95,0.5")
        code, _, said = self.run_command("finish", self.photo, *options, "--trim", "-o", out)
        self.assertEqual((code, said), (0, "There is no plain margin to trim.\n"))
        np.testing.assert_array_equal(np.asarray(opened(out)), np.asarray(self.finished(*options)))

    def test_sizes_by_name_measure_and_one_side_in_one_go(self):
        folder = self.folder / "out"
        sizes = ("round-avatar", "50x40mm@200", "x100", "Tall post")
        self.good(
            "finish",
            self.photo,
            *(part for size in sizes for part in ("--size", size)),
            "-o",
            folder,
        )
        found = {path.name: opened(path) for path in folder.iterdir()}
        self.assertEqual(
            set(found),
            {"mugs-400x400.png", "mugs-394x315.jpg", "mugs-150x100.jpg", "mugs-1080x1350.jpg"},
        )
        self.assertEqual(found["mugs-400x400.png"].getpixel((0, 0))[3], 0)
        self.assertEqual(found["mugs-394x315.jpg"].info["dpi"], (200, 200))

    def test_tone_by_number_by_look_and_by_measure(self):
        def grey_of(*options):
            return np.asarray(self.finished("--size", "60x40", *options).convert("L")).astype(int)

        plain = grey_of()
        self.assertGreater(grey_of("--tone", "exposure=1").mean(), plain.mean() + 15)
        ink = np.asarray(self.finished("--size", "60x40", "--look", "Ink")).astype(int)
        self.assertLessEqual(np.ptp(ink[:, :, :3], axis=2).max(), 1)
        weak = grey_of("--look", "golden:10%")
        self.assertLess(np.abs(weak - plain).mean(), 6)
        dim = np.full((40, 60, 3), 40, np.uint8)
        dim[:, 30:] = 70
        self.photo.write_bytes(encoded(dim, "PNG"))
        self.assertGreater(grey_of("--auto").mean(), 80)

    def test_a_focus_that_is_found(self):
        photo = np.full((100, 300, 3), 220, np.uint8)
        photo[40:60, 240:260] = (200, 0, 0)
        self.photo.write_bytes(encoded(photo, "PNG"))
        image = np.asarray(self.finished("--size", "50x50", "--focus", "auto")).astype(int)
        self.assertGreater((image[:, :, 0] - image[:, :, 1]).max(), 150)


class LetteringTest(CommandTest):
    def setUp(self):
        super().setUp()
        self.plain = self.folder / "plain.png"
        self.plain.write_bytes(encoded(np.full((400, 400, 3), 120, np.uint8)))

    def pixels(self, *options):
        out = self.folder / "out.png"
        self.good("finish", self.plain, *options, "--replace", "-o", out)
        return np.asarray(opened(out).convert("RGB")).astype(int)

    def test_words_where_they_are_asked_for_in_a_colour_that_can_be_read(self):
        out = self.pixels("--text", "Open\\nstudio", "--text-at", "upper-left", "--font", "Anton")
        letters = np.argwhere((out > 220).all(axis=2))
        self.assertGreater(len(letters), 300)
        self.assertLess(letters.max(axis=0).max(), 200)
        auto = self.pixels("--text", "Open", "--text-colour", "auto", "--text-at", "calm")
        self.assertGreater(np.abs(auto - 120).max(), 100)

    def test_an_own_font_by_its_file(self):
        words = ("--text", "Kiln", "--text-size", "20%")
        file = self.folder / "own.ttf"
        file.write_bytes(face_of("anton", 400, False).read_bytes())
        own = self.pixels(*words, "--font", file)
        np.testing.assert_array_equal(own, self.pixels(*words, "--font", "anton"))
        file.write_bytes(b"no font")
        self.bad("not a TTF or OTF", "finish", self.plain, *words, "--font", file, "-o", "x.png")
        self.bad("can't read", "finish", self.plain, *words, "--font", "gone.ttf", "-o", "x.png")

    def test_a_mark_of_words_on_a_spot_and_all_over(self):
        spot = np.abs(self.pixels("--mark-text", "Pebblewick", "--mark-opacity", "60%") - 120)
        self.assertGreater(spot[200:, 200:].max(), 60)
        self.assertEqual(spot[:200, :200].max(), 0)
        everywhere = np.abs(self.pixels("--mark-text", "Pebblewick", "--mark-repeat") - 120)
        for part in (everywhere[:200, :200], everywhere[:200, 200:], everywhere[200:, :200]):
            self.assertGreater(part.max(), 30)

    def test_a_logo_leaves_its_white_box_behind(self):
        logo = np.full((60, 120, 3), 255, np.uint8)
        logo[15:45, 15:105] = (20, 90, 60)
        file = self.folder / "logo.png"
        file.write_bytes(encoded(logo))
        options = ("--mark-file", file, "--mark-at", "middle", "--mark-opacity", "100%")
        out = self.pixels(*options)
        self.assertLess(np.abs(out[200, 200] - (20, 90, 60)).max(), 3)
        self.assertFalse((out > 200).any())

    def test_a_kept_mark_by_its_name(self):
        data = self.folder / "data"
        with contextlib.closing(Store(data)) as store:
            store.marks.add("Studio", MarkDesign(words="Pebblewick", icon="amphora"))
        with mock.patch.dict(os.environ, {"LUCKY_MARGIN_DATA": str(data)}):
            out = self.pixels("--mark", "studio", "--mark-at", "middle", "--mark-opacity", "90%")
            self.assertGreater(np.abs(out - 120)[150:250, 100:300].max(), 80)
            self.bad("“Studio”", "finish", self.plain, "--mark", "none", "-o", "x.png")

    def test_bad_options_say_what_is_known(self):
        self.bad(
            "TTF or OTF file or one of figtree",
            "finish",
            self.plain,
            "--text",
            "a",
            "--font",
            "x",
            "-o",
            "x.png",
        )
        self.bad("one of upper-left", "finish", self.plain, "--text", "a", "--text-at", "x",
                 "-o", "x.png")  # fmt: skip


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
        self.assertEqual((opened(self.out).size, opened(self.out).format), ((40, 50), "PNG"))

    def test_pictures_fonts_and_tables_are_found_beside_it_too(self):
        logo, font = self.folder / "logo.png", self.folder / "own.ttf"
        logo.write_bytes(encoded(np.full((8, 8, 3), (0, 160, 0), np.uint8)))
        font.write_bytes(face_of("anton", 400, False).read_bytes())
        table = self.folder / "grey.cube"
        table.write_text("LUT_3D_SIZE 2\n" + "0.5 0.5 0.5\n" * 8)
        digests = [hashlib.sha256(f.read_bytes()).hexdigest() for f in (logo, font, table)]
        finish = read_finish(json.loads(self.document.read_text()))
        pieces = (
            PicturePiece(id="logo", sha256=digests[0], width=0.4),
            TextPiece(id="text", text="O", family=digests[1], size=0.3, colour="#FF0000"),
        )
        tone = Tone(look=TableLook(name="Grey", table=digests[2]))
        self.document.write_text(
            finish.model_copy(update={"pieces": pieces, "tone": tone}).model_dump_json()
        )
        self.good("render", self.document, "--size", "Tall", "-o", self.out)
        drawn = np.asarray(opened(self.out).convert("RGB")).astype(int)
        for colour in ((0, 160, 0), (255, 0, 0), (128, 128, 128)):
            self.assertGreater((np.abs(drawn - colour).max(axis=2) < 12).sum(), 5)
        logo.unlink()
        self.bad("missing", "render", self.document, "--size", "Tall", "-o", self.out)

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
        for text, saying in (("{", "not JSON"), ("{}", "not a finish"), ('"x"', "not a finish")):
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

    def serve_refused(self, folder):
        """What is said by a service that does not start on the folder."""
        run = subprocess.run(
            [sys.executable, "-m", "lucky_margin.cli", "serve", "--port", "0", "--data", folder],
            capture_output=True, text=True, timeout=60,
        )  # fmt: skip
        self.assertEqual((run.returncode, run.stdout), (2, ""))
        self.assertEqual(run.stderr.count("\n"), 1, run.stderr)
        return run.stderr

    def test_one_service_at_a_time_works_on_a_data_folder(self):
        with tempfile.TemporaryDirectory() as folder:
            lock = FolderLock(Path(folder))
            self.assertIn("Another Lucky Margin is working on", self.serve_refused(folder))
            lock.close()
            FolderLock(Path(folder)).close()

    def test_a_newer_version_s_data_folder_is_left_alone(self):
        with tempfile.TemporaryDirectory() as folder:
            Store(Path(folder)).close()
            path = Path(folder, "lucky-margin.sqlite3")
            with contextlib.closing(sqlite3.connect(path)) as database, database:
                database.execute("INSERT INTO migrations VALUES ('9999_later', '2030-01-01')")
            before = path.read_bytes()
            self.assertIn("used by a newer Lucky Margin", self.serve_refused(folder))
            self.assertEqual(path.read_bytes(), before)


class TerminalTest(CommandTest):
    def test_what_libraries_print_goes_into_the_log_alone(self):
        photo = self.folder / "noise.png"
        photo.write_bytes(encoded(noise(900, 900)))
        data = self.folder / "data"
        data.mkdir()
        command = (
            "import os, sys; from lucky_margin.cli import main;"
            "main(sys.argv[1:-1]); main(sys.argv[1:-1]);"
            "sys.exit(main(['finish', sys.argv[-1], '-o', 'x.jpg']))"
        )
        arguments = ("finish", photo, "--quality", "100", "--replace", "-o", self.folder / "a.jpg")
        done = subprocess.run(
            [sys.executable, "-c", command, *map(str, arguments), str(self.folder / "none.jpg")],
            capture_output=True,
            text=True,
            env=os.environ | {"LUCKY_MARGIN_DATA": str(data)},
            cwd=self.folder,
        )
        self.assertEqual(done.returncode, 2)
        self.assertEqual(done.stderr.count("\n"), 1, done.stderr)
        self.assertIn("none.jpg", done.stderr)
        # libjpeg's own remark on noise at this quality, of both runs.
        log = (data / "log.txt").read_text()
        self.assertEqual(log.count("Suspension not allowed here"), 2, log)

    def test_a_long_log_is_put_aside(self):
        log = self.folder / LOG_NAME
        log.write_bytes(b"x" * (MOST_LOG_BYTES + 1))
        with library_output_logged(self.folder):
            os.write(2, b"from a library\n")
            logging.getLogger("test").warning("from us")
        self.assertRegex(log.read_text(), "^from a library\n.*WARNING test: from us\n$")
        self.assertGreater((self.folder / "log.old.txt").stat().st_size, MOST_LOG_BYTES)
