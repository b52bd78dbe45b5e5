"""PNG files hold the very pixels, and readers other than ours take them."""

import io
import unittest
import zlib

import cv2
import numpy as np
from PIL import Image
from PIL.PngImagePlugin import PngInfo

from lucky_margin.core.photos.profiles import srgb_profile
from lucky_margin.core.png import QUICK, USUAL, png
from lucky_margin.core.saving import saved
from tests.support import DEMO_PHOTOS, gradient, noise


def pictures():
    """Of all kinds, and with sides at which there is nothing to the left or above."""
    yield "smooth", gradient(90, 70)
    yield "noise", noise(61, 43)
    yield "transparent", noise(33, 57, channels=4)
    yield "grey", gradient(64, 48)[:, :, 0].copy()
    yield "a line", noise(50, 1)
    yield "a column", noise(1, 50)
    yield "a pixel", noise(1, 1, channels=4)
    yield "upside down, not contiguous", gradient(40, 30)[::-1]


class PngTest(unittest.TestCase):
    def test_other_readers_find_the_same_pixels(self):
        for name, picture in pictures():
            for level in (QUICK, USUAL):
                with self.subTest(name, level=level):
                    file = png(picture, level=level)
                    with Image.open(io.BytesIO(file)) as image:
                        image.load()
                        np.testing.assert_array_equal(np.asarray(image), picture)
                    read = cv2.imdecode(np.frombuffer(file, np.uint8), cv2.IMREAD_UNCHANGED)
                    if picture.ndim == 3:
                        read = read[:, :, [2, 1, 0, 3][: picture.shape[2]]]
                    np.testing.assert_array_equal(read, picture)

    def test_noise_needs_every_filter(self):
        """So that reading it back tries all of them."""
        file = png(noise(61, 43))
        start = file.index(b"IDAT")
        end = start + 4 + int.from_bytes(file[start - 4 : start])
        lines = np.frombuffer(zlib.decompress(file[start + 4 : end]), np.uint8).reshape(43, -1)
        self.assertEqual(set(lines[:, 0]), set(range(5)))

    def test_it_says_what_pillow_says_besides(self):
        said = PngInfo()
        said.add_itxt("Description", "Mugs, ‘first’ glaze")
        exif = Image.Exif()
        exif[315] = "A potter"
        told = {
            "icc_profile": srgb_profile(),
            "dpi": (300, 300),
            "pnginfo": said,
            "exif": exif.tobytes(),
        }
        picture = noise(20, 10)
        ours, theirs = png(picture, **told), saved(Image.fromarray(picture), "PNG", **told)
        with Image.open(io.BytesIO(ours)) as one, Image.open(io.BytesIO(theirs)) as other:
            one.load()
            other.load()
            self.assertEqual(one.info, other.info)
            self.assertEqual(one.getexif()[315], "A potter")

    def test_photos_are_lighter_than_pillow_makes_them(self):
        weights = []
        for name in ("bird-figure.jpg", "mugs-window.jpg", "vase-grasses.jpg", "scan-margins.png"):
            with Image.open(DEMO_PHOTOS / name) as photo:
                small = photo.convert("RGB")
                small.thumbnail((900, 900))
                weights.append((len(png(np.asarray(small))), len(saved(small, "PNG"))))
        ours, theirs = np.sum(weights, axis=0)
        self.assertLess(ours, theirs)
