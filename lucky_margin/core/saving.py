"""Pictures to bytes, as Pillow writes them."""

import os
import sys
import tempfile
from typing import IO, Any, cast

from PIL import Image


def saved(image: Image.Image, image_format: str, **options: Any) -> bytes:
    """What ``image.save`` writes.

    It writes into a file, which lies in memory where the system has such files: while Pillow writes
    a JPEG into a buffer of Python's, no other thread can go on.
    """
    with _passing_file() as file:
        image.save(file, image_format, **options)
        file.seek(0)
        return file.read()


def _passing_file() -> IO[bytes]:
    if sys.platform == "linux":
        return os.fdopen(os.memfd_create("picture"), "w+b")
    return cast(IO[bytes], tempfile.TemporaryFile())
