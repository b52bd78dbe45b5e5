"""The terminal is for what we say; what libraries print goes into the log."""

import logging
import os
import sys
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import Any

LOG_NAME = "log.txt"

MOST_LOG_BYTES = 2_000_000
"""A longer log is put aside at the next start, in place of the one before."""

_STANDARD_ERROR = 2


@contextmanager
def library_output_logged(folder: Path) -> Iterator[None]:
    """While it lasts, what is written to the process's standard error goes into the log of a data
    folder, or nowhere when there is no such folder; what we print still reaches the terminal.

    Image libraries write there directly, past Python's own stream.
    """
    log = _opened(folder)
    terminal = os.dup(_STANDARD_ERROR)
    ours = None
    if _is_standard_error(sys.stderr):
        sys.stderr.flush()
        ours, sys.stderr = sys.stderr, os.fdopen(os.dup(terminal), "w", buffering=1)
    os.dup2(log, _STANDARD_ERROR)
    os.close(log)
    handler = logging.StreamHandler(os.fdopen(os.dup(_STANDARD_ERROR), "w", buffering=1))
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(name)s: %(message)s"))
    logging.getLogger().addHandler(handler)
    try:
        yield
    finally:
        logging.getLogger().removeHandler(handler)
        handler.stream.close()
        os.dup2(terminal, _STANDARD_ERROR)
        os.close(terminal)
        if ours is not None:
            sys.stderr.close()
            sys.stderr = ours


def _opened(folder: Path) -> int:
    """A file descriptor of the log."""
    path = folder / LOG_NAME
    with suppress(OSError):
        if path.exists() and path.stat().st_size > MOST_LOG_BYTES:
            path.replace(path.with_suffix(".old.txt"))
        return os.open(path, os.O_WRONLY | os.O_APPEND | os.O_CREAT, 0o600)
    return os.open(os.devnull, os.O_WRONLY)


def _is_standard_error(stream: Any) -> bool:
    try:
        return bool(stream.fileno() == _STANDARD_ERROR)
    except (AttributeError, OSError, ValueError):
        return False
