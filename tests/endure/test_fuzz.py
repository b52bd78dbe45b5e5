"""Readers given damaged and hostile files: each is read or refused in one sentence, in time."""

import contextlib
import copy
import hashlib
import io
import itertools
import json
import shutil
import tempfile
import time
import unittest
import warnings
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import tifffile
from PIL import Image

from lucky_margin.core.document import Finish, Tone, new_finish, read_finish
from lucky_margin.core.errors import BadDocument, LuckyMarginError
from lucky_margin.core.export import FINISH, PackageFiles, package, read_package
from lucky_margin.core.photos import decode
from lucky_margin.core.text import face_of, read_font
from lucky_margin.core.tone import cube_text, read_cube
from lucky_margin.store import Store, look_over, restore_backup
from tests.endure import amount
from tests.support import SHA, encoded, gradient, noise

MOST_SECONDS = 20
"""For one file; the limits on hostile ones are a few seconds, and the machine may be busy."""


def damaged(data, rng, most=7):
    """``data`` with bytes changed, taken out, doubled or cut off, in up to ``most`` places."""
    data = bytearray(data)
    for _ in range(rng.integers(1, most + 1)):
        place = int(rng.integers(0, max(1, len(data))))
        match rng.integers(0, 5):
            case 0 | 1 if data:
                data[min(place, len(data) - 1)] = rng.integers(0, 256)
            case 2:
                del data[place : place + int(rng.integers(1, 40))]
            case 3:
                data[place:place] = data[place : place + int(rng.integers(1, 200))]
            case 4:
                data[place : place + 4] = bytes([255, 255, 255, int(rng.integers(0, 256))])
    return bytes(data if rng.random() < 0.9 else data[: int(rng.integers(0, len(data) + 1))])


ODD_VALUES = (
    "", "0", "-1", "1e9", "-1e38", "NaN", "1e-30", "100%", "url(#f)", "url(#g)", "#g", "none",
    "0 0 1e9 1", "rotate(1e9)", "scale(1e6)", "matrix(0 0 0 0 0 0)", "M0 0" + "L9 9" * 5000,
    "x" * 3000, "☘", "file:///etc/passwd", "data:image/png;base64,AAAA",
)  # fmt: skip


def made_odd(drawing, rng):
    """A well-formed drawing with values nobody expects, and parts inside other parts."""
    root = ElementTree.fromstring(drawing)
    for _ in range(rng.integers(1, 4)):
        nodes = list(root.iter())
        node, other = (nodes[rng.integers(0, len(nodes))] for _ in range(2))
        if rng.random() < 0.2 and other is not root:
            node.append(copy.deepcopy(other))
        elif names := list(node.keys()):
            value = ODD_VALUES[rng.integers(0, len(ODD_VALUES))]
            node.set(names[rng.integers(0, len(names))], value)
    return ElementTree.tostring(root)


class FuzzCase(unittest.TestCase):
    def read_all(self, seeds, count, read, least_read=0.0, spoil=damaged):
        """Read ``count`` spoilt copies of ``seeds``; some of them have to come through."""
        rng = np.random.default_rng(20)
        taken = 0
        for number in range(count):
            data = spoil(seeds[number % len(seeds)], rng)
            began = time.monotonic()
            with self.subTest(number), warnings.catch_warnings():
                warnings.simplefilter("ignore")
                try:
                    read(data)
                    taken += 1
                except LuckyMarginError as error:
                    self.assertRegex(str(error), r"^.{5,400}\.$")
                self.assertLess(time.monotonic() - began, MOST_SECONDS)
        self.assertGreaterEqual(taken, least_read * count)


class FuzzTest(FuzzCase):
    def test_photos(self):
        seeds = [
            encoded(gradient(48, 40), kind, **options)
            for kind, options in (
                ("JPEG", {}), ("JPEG", {"progressive": True}), ("PNG", {}), ("WEBP", {}),
                ("WEBP", {"lossless": True}), ("AVIF", {}), ("HEIF", {}), ("GIF", {}), ("BMP", {}),
                ("TIFF", {"compression": "tiff_lzw"}), ("TIFF", {"compression": "jpeg"}),
            )
        ]  # fmt: skip
        for options in ({"compression": "zlib"}, {"planarconfig": "separate"}):
            buffer = io.BytesIO()
            deep = noise(48, 40, 3, np.uint16)
            if "planarconfig" in options:
                deep = np.ascontiguousarray(np.moveaxis(deep, 2, 0))
            tifffile.imwrite(buffer, deep, photometric="rgb", **options)
            seeds.append(buffer.getvalue())
        self.read_all(seeds, amount(400, 20_000), lambda data: decode(data, "photo"), 0.02)

    def test_drawings(self):
        seeds = [
            b"<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 90 60'>" + body + b"</svg>"
            for body in (
                b"<filter id='f'><feGaussianBlur stdDeviation='3'/><feTurbulence numOctaves='2'/>"
                b"</filter><rect width='80' height='50' filter='url(#f)'/>",
                b"<defs><pattern id='p' width='9' height='9' patternUnits='userSpaceOnUse'>"
                b"<circle r='4'/></pattern></defs><path d='M0 0L90 60H3Z' fill='url(#p)' "
                b"stroke='red' stroke-dasharray='3 2'/>",
                b"<style>.a{fill:#c00}</style><text class='a' x='5' y='30'>Pots</text>"
                b"<g id='g'><rect width='9' height='9'/></g><use href='#g' x='20'/>",
            )
        ]

        def read(data):
            return decode(data, "logo.svg")

        self.read_all(seeds, amount(20, 1_500), read)
        self.read_all(seeds, amount(20, 1_500), read, 0.2, made_odd)

    def test_fonts(self):
        data = face_of("anton", 400, italic=False).read_bytes()
        self.read_all([data], amount(25, 1_500), lambda data: read_font(data, SHA))

    def test_colour_tables(self):
        text = cube_text(Tone(exposure=0.5), "Warm").encode()
        self.read_all([text], amount(20, 1_000), read_cube)


class ArchiveFuzzTest(FuzzCase):
    """Finishes as files, and whole shelves: what is read is what was written, or nothing."""

    def test_packages(self):
        photo = encoded(gradient(20, 16))
        finish = new_finish(name="Mugs", photo_sha256=hashlib.sha256(photo).hexdigest())
        files = PackageFiles({finish.photo.sha256: ("mugs.png", photo)})

        def read(data):
            found, brought = read_package(FINISH, data)
            self.assertEqual((found, brought.photos), (finish, files.photos))

        self.read_all([package(FINISH, finish, files)], amount(300, 10_000), read, 0.01, slightly)

    def test_backups(self):
        with tempfile.TemporaryDirectory() as name:
            folder, whole = Path(name), io.BytesIO()
            with contextlib.closing(Store(folder / "data")) as store:
                store.photos.add(encoded(noise(9, 9)), "mugs.png")
                store.write_backup(whole)
            numbers = itertools.count()

            def read(data):
                restored, archive = folder / str(next(numbers)), folder / "backup.zip"
                archive.write_bytes(data)
                try:
                    with archive.open("rb") as file:
                        restore_backup(file, restored)
                    self.assertTrue(look_over(restored).is_sound)
                except LuckyMarginError:
                    self.assertFalse((restored / "lucky-margin.sqlite3").exists())
                    self.assertFalse((restored / "originals").exists())
                    raise
                finally:
                    shutil.rmtree(restored, ignore_errors=True)

            self.read_all([whole.getvalue()], amount(60, 2_000), read, 0.0, slightly)


class BeforeTheBeginningTest(unittest.TestCase):
    def test_an_archive_whose_list_says_it_lies_further_on_is_damaged(self):
        finish = new_finish(name="Mugs", photo_sha256=SHA)
        data = bytearray(package(FINISH, finish, PackageFiles()))
        # Where the list of entries begins (APPNOTE 6.3.10, 4.3.16), and so where they do.
        where = int.from_bytes(data[-6:-2], "little")
        data[-6:-2] = (where + 1000).to_bytes(4, "little")
        with self.assertRaisesRegex(BadDocument, "This is no finish"):
            read_package(FINISH, bytes(data))


def slightly(data, rng):
    """``data`` with one byte changed, as a bad disk does it."""
    spoilt = bytearray(data)
    spoilt[rng.integers(0, len(data))] ^= int(rng.integers(1, 256))
    return bytes(spoilt)


class DocumentFuzzTest(unittest.TestCase):
    """Documents of any version, with any nonsense in any place."""

    NONSENSE = (
        None, True, 0, -1, 10**30, 1e308, "", "x", "\0", [], {}, [[]], {"kind": "x"}, ["a", None],
        {"look": "warm"}, {"tone": None}, {"": {}},
    )  # fmt: skip

    def documents(self):
        plain = json.loads(new_finish(name="Mugs", photo_sha256=SHA).model_dump_json())
        rich = plain | {
            "tone": {"look": {"kind": "stock", "key": "golden", "strength": 40}},
            "export": {"keep_camera_data": True},
            "pieces": [{"kind": "text", "id": "text-1", "text": "Pots"}],
        }
        size = plain["sizes"][0]
        own = {"own": {"tone": {"look": {"key": "golden"}}, "pieces": {"text-1": {"dx": 0.1}}}}
        rich["sizes"] = [size | own]
        older = copy.deepcopy(rich)
        del older["tone"]["look"]["kind"]
        return plain, rich, older

    def test_they_are_read_or_refused_in_one_sentence(self):
        rng = np.random.default_rng(8)
        documents = self.documents()
        taken = 0
        count = amount(3_000, 200_000)
        for number in range(count):
            data = copy.deepcopy(documents[number % len(documents)])
            versions = (1, 2, 3, 4, True, 1.0, "1", None, [1], -1)
            data["version"] = versions[rng.integers(0, 4 if rng.random() < 0.9 else 10)]
            for _ in range(rng.integers(0, 3)):
                self.spoil(data, rng)
            with self.subTest(number, data=data):
                try:
                    self.assertIsInstance(read_finish(data), Finish)
                    taken += 1
                except LuckyMarginError as error:
                    self.assertRegex(str(error), r"^.{5,400}\.$")
        self.assertGreater(taken, count / 6)

    def spoil(self, node, rng):
        """Put nonsense in the place of something inside ``node``, or take it out."""
        while True:
            keys = list(node) if isinstance(node, dict) else list(range(len(node)))
            key = keys[rng.integers(0, len(keys))]
            child = node[key]
            if isinstance(child, dict | list) and child and rng.random() < 0.7:
                node = child
                continue
            if rng.random() < 0.2:
                del node[key]
            else:
                node[key] = copy.deepcopy(self.NONSENSE[rng.integers(0, len(self.NONSENSE))])
            return


class MetadataFuzzTest(unittest.TestCase):
    def test_damaged_blocks_leave_a_good_photo_good(self):
        block = Image.Exif()
        block[0x013B] = "Ana"
        block[0x0112] = 6
        block.get_ifd(0x8825)[1] = "N"
        clean = block.tobytes()
        rng = np.random.default_rng(3)
        for number in range(amount(60, 3_000)):
            data = encoded(gradient(16, 12), "JPEG", exif=damaged(clean, rng)[:60_000])
            with self.subTest(number), warnings.catch_warnings():
                warnings.simplefilter("ignore")
                self.assertEqual(sorted(decode(data).picture.shape[:2]), [12, 16])
