"""Drawings in SVG as photos: drawn once, at a fixed size, in a child process with limits.

A drawing of a few bytes can ask for any amount of time and memory, or end the process that draws
it. So a child does it (``svg_drawing.py``), which is kept for the next one and ended when it
takes too long.
"""

import atexit
import contextlib
import io
import json
import logging
import re
import subprocess
import sys
import threading
from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.photos import svg_drawing
from lucky_margin.core.photos.svg_drawing import (
    LONG_SIDE,
    MOST_DEPTH,
    READY,
    read_message,
    write_message,
)
from lucky_margin.core.types import Picture8

__all__ = ["LONG_SIDE", "MOST_DEPTH", "draw_svg", "is_svg"]

MAX_SVG_BYTES = 10_000_000

MOST_SECONDS = 4.0
"""A drawing that takes longer is taken for a hostile one."""

_ROOT = re.compile(rb"<([\w.-]+:)?svg[\s>/]", re.IGNORECASE)
"""The root element, whose namespace may have a prefix."""

log = logging.getLogger(__name__)


def is_svg(data: bytes) -> bool:
    """Whether some bytes look like an SVG file."""
    start = data[:4096].removeprefix(b"\xef\xbb\xbf").lstrip()
    return start.startswith(b"<") and _ROOT.search(start) is not None


def draw_svg(data: bytes, name: str) -> tuple[Picture8, list[str]]:
    """A drawing as straight RGBA, ``LONG_SIDE`` long, and what is to be said about it.

    Raises:
        UnreadablePhoto: no SVG, a broken one, one with entities or with links out of the file,
            or one that takes too long or too much memory to draw.
        TooLarge: more bytes or embedded pixels than are taken, or too long and narrow.
    """
    if len(data) > MAX_SVG_BYTES:
        raise TooLarge(
            f"“{name}” has more than the {MAX_SVG_BYTES // 1_000_000} MB accepted for an "
            "SVG; save it as PNG first."
        )
    answer = _drawer().draw(data)
    if not answer:
        raise UnreadablePhoto(
            f"“{name}” takes too long or too much memory to draw; save it as PNG instead."
        )
    head, _, png = answer.partition(b"\n")
    said: dict[str, Any] = json.loads(head)
    if "refusal" in said:
        refused = TooLarge if said["too_much"] else UnreadablePhoto
        raise refused(f"“{name}” {said['refusal']}")
    with Image.open(io.BytesIO(png)) as image:
        picture = np.array(image.convert("RGBA"))
    if not picture[:, :, 3].any():
        raise UnreadablePhoto(f"“{name}” is an SVG without anything to see; save it as PNG.")
    return picture, said["notes"]


class _Drawer:
    """The child process, started when it is first needed; it draws one file at a time."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._child: subprocess.Popen[bytes] | None = None

    def draw(self, data: bytes) -> bytes:
        """The child's answer; empty when it died of the file or took too long over it."""
        with self._lock:
            if self._child is not None and self._child.poll() is not None:
                self._end()
            self._child = self._child or _start()
            timer = threading.Timer(MOST_SECONDS, self._child.kill)
            timer.start()
            try:
                answer = _ask(self._child, data)
            finally:
                timer.cancel()
            if not answer:
                self._end()
            return answer

    def close(self) -> None:
        """End the child; the next drawing starts another."""
        with self._lock:
            self._end()

    def _end(self) -> None:
        if self._child is None:
            return
        self._child.kill()
        with contextlib.suppress(BrokenPipeError), self._child:
            pass  # leaving closes the pipes and waits
        log.info("The process that draws SVG files ended (%s).", self._child.returncode)
        self._child = None


def _start() -> subprocess.Popen[bytes]:
    child = subprocess.Popen(
        [sys.executable, "-I", str(Path(svg_drawing.__file__))],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        start_new_session=True,  # Ctrl C on the terminal is not meant for it
    )
    assert child.stdout is not None  # it is a pipe
    child.stdout.read(len(READY))
    return child


def _ask(child: subprocess.Popen[bytes], data: bytes) -> bytes:
    assert child.stdin is not None
    assert child.stdout is not None
    try:
        write_message(child.stdin, data)
    except BrokenPipeError:
        return b""
    return read_message(child.stdout)


@lru_cache(1)
def _drawer() -> _Drawer:
    drawer = _Drawer()
    atexit.register(drawer.close)
    return drawer
