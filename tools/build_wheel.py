"""Build the wheel, with the built interface inside: ``python -m tools.build_wheel FOLDER``."""

import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

PROJECT = Path(__file__).parents[1]


def build_wheel(folder: Path) -> Path:
    """The wheel, built into ``folder`` from the code and ``frontend/dist``."""
    with tempfile.TemporaryDirectory() as scratch:
        source = Path(scratch)
        for name in ("pyproject.toml", "requirements.txt", "README.md"):
            shutil.copy(PROJECT / name, source)
        ignored = shutil.ignore_patterns("__pycache__", "interface")
        shutil.copytree(PROJECT / "lucky_margin", source / "lucky_margin", ignore=ignored)
        shutil.copytree(PROJECT / "frontend" / "dist", source / "lucky_margin" / "interface")
        pip = (sys.executable, "-m", "pip", "wheel", "--quiet", "--disable-pip-version-check")
        subprocess.run([*pip, "--no-deps", "--wheel-dir", str(folder), str(source)], check=True)
    (wheel,) = folder.glob("lucky_margin-*.whl")
    return wheel


if __name__ == "__main__":
    print(build_wheel(Path(sys.argv[1])))
