"""QR codes against another library's reader."""

import io
import unittest

import cv2
import numpy as np
from PIL import Image

from lucky_margin.core.codes import qr_code
from lucky_margin.core.errors import BadInput
from lucky_margin.core.photos import decode
from lucky_margin.core.render import render
from lucky_margin.core.scene import MemorySources
from tests.support import SHA, finish_of, gradient, photo_of, scene_of

CODE = "cd" * 32


def read(picture):
    """What another reader finds in an RGB picture."""
    return cv2.QRCodeDetector().detectAndDecode(np.ascontiguousarray(picture[:, :, :3]))[0]


def drawn(data):
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGB"))


class CodeTest(unittest.TestCase):
    def test_it_says_what_it_was_told(self):
        for text in ("https://pebblewick.example/shop?id=12", "Töpferei", "x" * 700):
            with self.subTest(text[:40]):
                self.assertEqual(read(drawn(qr_code(text))), text)

    def test_its_modules_are_whole_pixels_with_a_margin(self):
        picture = drawn(qr_code("Mugs"))
        side = picture.shape[0] / (21 + 8)
        self.assertEqual(side, int(side))
        margin = round(4 * side)
        self.assertTrue((picture[:margin] == 255).all())
        self.assertTrue((picture[margin, margin : margin + round(7 * side)] == 0).all())

    def test_it_is_read_off_a_finished_picture(self):
        code = decode(qr_code("https://pebblewick.example", dark="#1F3B2B"), "code")
        piece = {"kind": "picture", "id": "picture-1", "sha256": CODE, "ratio": 1, "width": 0.35}
        finish = finish_of(600, 600, pieces=[piece])
        sources = MemorySources({SHA: photo_of(gradient(600, 600)), CODE: code})
        self.assertEqual(read(render(scene_of(finish, sources))), "https://pebblewick.example")

    def test_without_a_ground_what_is_behind_shows(self):
        code = np.asarray(Image.open(io.BytesIO(qr_code("Mugs", light=None))))
        self.assertEqual(set(np.unique(code[:, :, 3])), {0, 255})
        self.assertEqual(code[0, 0, 3], 0)

    def test_what_no_reader_would_take_is_refused(self):
        for options, words in (
            ({"text": "  "}, "has to say something"),
            ({"text": "☘" * 3000}, "more than a code can hold"),
            ({"text": "Mugs", "dark": "#E0C040"}, "dark on light"),
            ({"text": "Mugs", "dark": "#FFFFFF", "light": "#000000"}, "dark on light"),
        ):
            with self.subTest(words), self.assertRaisesRegex(BadInput, words):
                qr_code(**options)
