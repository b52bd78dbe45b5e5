"""Colour tables: their files, kept for good, since finishes refer to them."""

from functools import lru_cache

from lucky_margin.core.errors import NotFound
from lucky_margin.core.tone import ColourTable, read_cube
from lucky_margin.store.files import FileStore

_READ_KEPT = 8
"""Tables that are kept read; a large one takes 3 MB."""


class TableStore:
    """The colour tables of a data folder."""

    def __init__(self, files: FileStore) -> None:
        self._files = files
        self.get = lru_cache(_READ_KEPT)(self._get)

    def add(self, data: bytes) -> tuple[str, ColourTable]:
        """Keep a ``.cube`` file; returns its SHA-256 and what it holds.

        Raises:
            UnreadableTable: it is not taken; nothing is kept.
            StorageFull: the disk took no more bytes; nothing is kept.
        """
        table = read_cube(data)
        return self._files.add(data), table

    def data(self, sha256: str) -> bytes:
        """The table's file.

        Raises:
            NotFound: it is gone.
        """
        if sha256 not in self._files:
            raise NotFound("This look's colour table is missing; add its .cube file again.")
        return self._files.read(sha256)

    def _get(self, sha256: str) -> ColourTable:
        """See ``core.render.Sources``."""
        return read_cube(self.data(sha256))
