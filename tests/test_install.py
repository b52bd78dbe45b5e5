"""The wheel outside any checkout, and where compiled loops are kept."""

import os
import subprocess
import sys
import tempfile
import unittest
import urllib.request
from pathlib import Path
from unittest import mock

import numpy as np
from PIL import Image

from lucky_margin.compiled_loops import choose_folder
from tests.support import encoded, noise
from tools.build_wheel import build_wheel


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
                with urllib.request.urlopen(address, timeout=60) as answer:
                    page = answer.read().decode()
                script = page.split('src="')[1].split('"')[0]
                with urllib.request.urlopen(address + script, timeout=60) as answer:
                    self.assertIn("javascript", answer.headers["content-type"])
                with urllib.request.urlopen(f"{address}/api/photos", timeout=60) as answer:
                    self.assertIn(b'"total":0', answer.read())
            finally:
                service.terminate()
                service.communicate(timeout=60)
        self.assertTrue((self.packages / "lucky_margin" / "interface" / "index.html").is_file())


if __name__ == "__main__":
    unittest.main()
