"""What a photo takes at its peak when it is added: by kinds of file, in a process of its own."""

import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

import imagecodecs
import numpy as np
from PIL import Image

from tests.endure import amount

MB = 1_000_000
MOST = 2_500 * MB

_ADD = """
import re, sys, tempfile
from pathlib import Path
from lucky_margin.store import Store

def peak():
    return 1024 * int(re.search(r"VmHWM:\\s+(\\d+)", Path("/proc/self/status").read_text())[1])

with tempfile.TemporaryDirectory() as folder:
    store = Store(Path(folder))
    data = Path(sys.argv[1]).read_bytes()
    Path("/proc/self/clear_refs").write_text("5")  # the peak from here on
    before = peak()
    facts = store.photos.add(data, "photo")[0].facts
    channels = 4 if facts.has_alpha else 3
    print(peak() - before, facts.width * facts.height * channels * facts.bits // 8)
    store.close()
"""


class MemoryTest(unittest.TestCase):
    def test_at_most_three_times_the_decoded_bytes_and_200_mb(self):
        side = amount(5000, 10_800)
        rows = np.arange(side, dtype=np.uint8)[:, None, None]
        opaque = np.ascontiguousarray(np.broadcast_to(rows, (side, side, 3)))
        clear = np.ascontiguousarray(np.broadcast_to(rows, (side, side, 4)))
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            for what, write in {
                "jpeg": lambda path: Image.fromarray(opaque).save(path, "JPEG"),
                "jpeg in print colours": lambda path: Image.fromarray(clear, "CMYK").save(
                    path, "JPEG"
                ),
                "png with alpha": lambda path: Image.fromarray(clear).save(
                    path, "PNG", compress_level=1
                ),
                "webp without loss": lambda path: Image.fromarray(clear).save(
                    path, "WEBP", lossless=True, quality=0, method=0
                ),
                "16-bit png with alpha": lambda path: path.write_bytes(
                    imagecodecs.png_encode(clear.astype(np.uint16) * 257, level=1)
                ),
            }.items():
                path = folder / "photo"
                write(path)
                told = subprocess.run(
                    [sys.executable, "-c", _ADD, str(path)],
                    capture_output=True,
                    text=True,
                    check=True,
                )
                taken, decoded = map(int, told.stdout.split())
                with self.subTest(what, decoded=decoded // MB):
                    self.assertLess(taken, min(3 * decoded + 200 * MB, MOST))
