"""Pictures become bytes without holding up the rest of the service."""

import io
import threading
import time
import unittest

from PIL import Image

from lucky_margin.core.saving import saved
from tests.support import noise

FORMATS = {
    "JPEG": {"quality": 90, "optimize": True, "progressive": True},
    "PNG": {"compress_level": 6},
    "WEBP": {"quality": 80},
    "AVIF": {"quality": 80},
    "TIFF": {"compression": "tiff_lzw"},
    "GIF": {},
    "BMP": {},
}


class SavingTest(unittest.TestCase):
    def test_the_bytes_are_those_that_pillow_writes_into_a_buffer(self):
        image = Image.fromarray(noise(90, 70))
        for image_format, options in FORMATS.items():
            with self.subTest(image_format):
                buffer = io.BytesIO()
                image.save(buffer, image_format, **options)
                self.assertEqual(saved(image, image_format, **options), buffer.getvalue())

    def test_other_threads_go_on_while_a_large_jpeg_is_written(self):
        image = Image.fromarray(noise(4000, 3000))
        saved(image.resize((8, 8)), "JPEG")  # once, so that nothing has to be loaded
        turns, is_over = 0, threading.Event()

        def take_turns():
            nonlocal turns
            while not is_over.is_set():
                turns += 1
                time.sleep(0.001)

        other = threading.Thread(target=take_turns)
        other.start()
        before = turns
        saved(image, "JPEG", quality=95, optimize=True)
        taken = turns - before
        is_over.set()
        other.join()
        self.assertGreater(taken, 30)
