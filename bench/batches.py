"""A folder of photos finished by several processes, against the same by one."""

import subprocess
import sys
import tempfile
from pathlib import Path

from bench.figure import seconds
from bench.files import eight_sizes
from bench.material import framed, photo_of
from lucky_margin.core.document import kept_style
from lucky_margin.core.export import STYLE, PackageFiles, package

PHOTOS = 40
REACH = 0.8


def batch_report() -> str:
    """24 MP photos to three sizes each, once each way; starting the processes counts."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        photos = folder / "photos"
        photos.mkdir()
        data = photo_of(24)
        for number in range(PHOTOS):
            # Bytes after a JPEG's end make it another file, and no other picture.
            (photos / f"{number:02}.jpg").write_bytes(data + bytes([number]))
        finish = framed().model_copy(update={"sizes": eight_sizes()[:3]})
        style = kept_style(finish, "0" * 16, "Bench", ("sizes", "border"), suggest_light=False)
        (folder / "bench.style.zip").write_bytes(package(STYLE, style, PackageFiles()))

        def run(out: str, *jobs: str) -> float:
            command = [sys.executable, "-m", "lucky_margin.cli", "batch", str(photos), *jobs]
            command += ["--style", str(folder / "bench.style.zip"), "-o", str(folder / out)]
            return seconds(lambda: subprocess.run(command, check=True, capture_output=True))

        run("first")  # so that nothing is read from disk for the first time
        one, several = run("one", "--jobs", "1"), run("several")
    ratio = f"{several / one:5.2f} x the same in one process"
    times = f"{1000 * several:.1f} ms : {1000 * one:.1f} ms"
    return f"{f'{PHOTOS} photos of 24 MP to three sizes each':52} {ratio} ({times}; reach {REACH})"
