"""Rules of the repository that a machine can check."""

import ast
import json
import re
import unittest
from pathlib import Path

from docs import write_controls

PACKAGE = Path("lucky_margin")

# Which of our own parts each part may import.
ALLOWED = {
    "core": {"core"},
    "store": {"store", "core"},
    "web": {"web", "store", "core", "__init__"},
    "cli": {"web", "store", "core", "cli", "compiled_loops", "__init__"},
}


def imported(path: Path) -> set[str]:
    """The parts of ours that a module imports."""
    names = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.ImportFrom) and node.module:
            names.add(node.module)
        elif isinstance(node, ast.Import):
            names.update(alias.name for alias in node.names)
    ours = [name.split(".") for name in names if name.split(".")[0] == "lucky_margin"]
    return {parts[1] if len(parts) > 1 else "__init__" for parts in ours}


class ImportTest(unittest.TestCase):
    def test_imports_point_one_way(self):
        for part, allowed in ALLOWED.items():
            place = PACKAGE / part
            for path in [place] if place.is_file() else place.rglob("*.py"):
                with self.subTest(str(path)):
                    self.assertLessEqual(imported(path), allowed)

    def test_the_core_knows_no_web_and_no_database(self):
        for path in (PACKAGE / "core").rglob("*.py"):
            with self.subTest(str(path)):
                self.assertNotRegex(path.read_text(), r"import (sqlite3|fastapi|starlette|uvicorn)")


class FileTest(unittest.TestCase):
    def test_every_python_package_is_pinned_exactly(self):
        for name in ("requirements.txt", "requirements-dev.txt"):
            for line in Path(name).read_text().splitlines():
                if line and not line.startswith(("#", "-r")):
                    self.assertRegex(line, r"^[\w.-]+==[\w.]+$")

    def test_the_lock_file_names_no_registry(self):
        self.assertFalse('"resolved"' in Path("frontend/package-lock.json").read_text())

    def test_the_browser_computes_no_picture(self):
        for path in Path("frontend/src").rglob("*"):
            if path.suffix in (".ts", ".vue"):
                self.assertNotRegex(path.read_text(), r"getImageData|putImageData|getContext\(")

    def test_the_page_of_controls_says_what_the_screen_says(self):
        self.assertEqual(write_controls.PAGE.read_text(), write_controls.page())

    def test_every_explanation_is_of_a_control_that_there_is(self):
        files = [*Path("frontend/src").rglob("*.vue"), *Path("frontend/src").rglob("*.ts")]
        files.append(PACKAGE / "core" / "document" / "docket.py")
        shown = "\n".join(path.read_text() for path in files)

        def labels(texts):
            for label, text in texts.items():
                if label not in ("", "key"):
                    yield label
                    yield from labels(text) if isinstance(text, dict) else ()

        for label in labels(json.loads(write_controls.TEXTS.read_text())):
            # Some are made from the names of fields, such as muted_colours.
            spellings = (label, label.lower(), label.lower().replace(" ", "_"))
            with self.subTest(label):
                self.assertTrue(any(spelling in shown for spelling in spellings))

    def test_explanations_name_keys_that_there_are(self):
        table = Path("frontend/src/composables/keyTable.ts").read_text()
        keys = set(re.findall(r'"key": "([^"]+)"', write_controls.TEXTS.read_text()))
        self.assertGreater(len(keys), 10)
        for key in keys:
            with self.subTest(key):
                self.assertRegex(table, rf"keys: '(.*, )?{re.escape(key)}[',]")

    def test_every_key_is_in_the_one_table(self):
        """Key names are compared nowhere but in the table, its helpers and in fields."""
        for path in Path("frontend/src").rglob("*.ts"):
            if path.name not in ("keys.ts", "keyNames.ts", "schema.d.ts"):
                self.assertIsNone(re.search(r"event\.key\b", path.read_text()), path)
