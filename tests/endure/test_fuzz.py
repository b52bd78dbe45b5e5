"""Readers given damaged and hostile files: each is read or refused in one sentence, in time."""

import copy
import io
import json
import time
import unittest
import warnings

import numpy as np
import tifffile
from PIL import Image

from lucky_margin.core.document import Finish, Tone, new_finish, read_finish
from lucky_margin.core.errors import LuckyMarginError
from lucky_margin.core.photos import decode
from lucky_margin.core.text import face_of, read_font
from lucky_margin.core.tone import cube_text, read_cube
from tests.endure import rounds
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


class FuzzTest(unittest.TestCase):
    def read_all(self, seeds, count, read, least_read=0.0, most=7):
        """Read ``count`` damaged copies of ``seeds``; some of them have to come through."""
        rng = np.random.default_rng(20)
        taken = 0
        for number in range(count):
            data = damaged(seeds[number % len(seeds)], rng, most)
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
        self.read_all(seeds, rounds(400, 20_000), lambda data: decode(data, "photo"), 0.02)

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
        self.read_all(seeds, rounds(40, 3_000), lambda data: decode(data, "logo.svg"), 0.05, 1)

    def test_fonts(self):
        data = face_of("anton", 400, italic=False).read_bytes()
        self.read_all([data], rounds(25, 1_500), lambda data: read_font(data, SHA))

    def test_colour_tables(self):
        text = cube_text(Tone(exposure=0.5), "Warm").encode()
        self.read_all([text], rounds(20, 1_000), read_cube)


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
        count = rounds(3_000, 200_000)
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
        for number in range(rounds(60, 3_000)):
            data = encoded(gradient(16, 12), "JPEG", exif=damaged(clean, rng)[:60_000])
            with self.subTest(number), warnings.catch_warnings():
                warnings.simplefilter("ignore")
                self.assertEqual(sorted(decode(data).picture.shape[:2]), [12, 16])
