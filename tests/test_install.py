"""The wheel outside any checkout, and where compiled loops are kept."""

import os
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from unittest import mock

import numpy as np
from PIL import Image
from playwright.sync_api import expect, sync_playwright

from lucky_margin.compiled_loops import choose_folder
from tests.browser.base import ARGUMENTS, CHROMIUM
from tests.endure import amount
from tests.support import encoded, noise
from tools.build_wheel import build_wheel

SLOW = 300_000
"""Milliseconds."""


class CompiledLoopsTest(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.data = Path(folder.name) / "data"
        environment = mock.patch.dict(os.environ)
        environment.start()
        self.addCleanup(environment.stop)
        os.environ.pop("NUMBA_CACHE_DIR", None)

    def chosen(self, *, code, data=True):
        """What is said, where the code or the data folder can be written or not."""

        def access(path, _):
            return data if self.data in Path(path).parents else code

        with mock.patch("lucky_margin.compiled_loops.os.access", access):
            return choose_folder(self.data)

    def test_beside_the_code_where_that_can_be_written(self):
        self.assertIsNone(self.chosen(code=True))
        self.assertNotIn("NUMBA_CACHE_DIR", os.environ)

    def test_with_the_data_of_an_install_that_is_read_only(self):
        self.assertIsNone(self.chosen(code=False))
        self.assertEqual(os.environ["NUMBA_CACHE_DIR"], str(self.data / "compiled"))

    def test_no_place_is_one_sentence(self):
        self.assertIn("can't be kept", self.chosen(code=False, data=False))
        (self.data / "compiled").rmdir()
        (self.data / "compiled").write_bytes(b"a file in its place")
        self.assertIn("can't be kept", self.chosen(code=False))
        self.assertNotIn("NUMBA_CACHE_DIR", os.environ)


class WheelTest(unittest.TestCase):
    """Installed beside the libraries at hand, run from elsewhere, with no home to write to."""

    @classmethod
    def setUpClass(cls):
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.folder = Path(folder.name)
        wheel = build_wheel(cls.folder)
        where = ("--prefix", str(cls.folder / "installed"))
        pip = (sys.executable, "-m", "pip", "install", "--quiet", "--disable-pip-version-check")
        again = ("--ignore-installed", "--no-deps")
        subprocess.run([*pip, *again, *where, str(wheel)], check=True)
        (packages,) = (cls.folder / "installed").glob("lib/python*/site-packages")
        cls.packages = packages
        cls.environment = {
            **os.environ,
            "PYTHONPATH": str(packages),
            "HOME": "/nonexistent",
            "LUCKY_MARGIN_DATA": str(cls.folder / "data"),
        }

    def start(self, *arguments, **options):
        command = [str(self.folder / "installed" / "bin" / "lucky-margin"), *arguments]
        pipes = {"stdout": subprocess.PIPE, "stderr": subprocess.PIPE, "text": True}
        return subprocess.Popen(command, cwd=self.folder, env=self.environment, **pipes, **options)

    def test_it_finishes_a_photo(self):
        photo = noise(60, 40)
        (self.folder / "mugs.png").write_bytes(encoded(photo))
        with self.start("finish", "mugs.png", "-o", "out.png") as command:
            _, wrong = command.communicate(timeout=300)
        self.assertEqual((command.returncode, wrong), (0, ""))
        np.testing.assert_array_equal(np.asarray(Image.open(self.folder / "out.png")), photo)

    def test_it_serves_the_interface_that_it_brings_along(self):
        with self.start("serve", "--port", "0", "--no-browser") as service:
            try:
                said = service.stdout.readline()
                address = said.split()[4]
                with sync_playwright() as playwright:
                    browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
                    page = browser.new_page()
                    page.goto(address)
                    expect(page.get_by_role("heading", name="Add a photo")).to_be_visible()
                    if amount(False, True):  # its loops would be compiled first, for a minute
                        self.save_a_photo(page)
                    browser.close()
            finally:
                service.kill()  # or it would first compile all of its loops
                service.communicate(timeout=60)
        self.assertTrue((self.packages / "lucky_margin" / "interface" / "index.html").is_file())

    def save_a_photo(self, page):
        """Bring a photo to the bench, and save it as it is."""
        photo = noise(60, 40)
        page.set_default_timeout(SLOW)
        file = {"name": "mugs.png", "mimeType": "image/png", "buffer": encoded(photo)}
        page.get_by_label("Photos to add").set_input_files(file)
        page.get_by_role("button", name="Export…").click()
        page.get_by_role("radio", name="PNG").click()
        page.get_by_text("60 × 40 px, sRGB, lossless").wait_for()
        with page.expect_download() as download:
            page.get_by_role("button", name="Save this size").click()
        saved = np.asarray(Image.open(download.value.path()))
        np.testing.assert_array_equal(saved, photo)


if __name__ == "__main__":
    unittest.main()
