"""A cache of pictures bounded by bytes. Its presence never changes a pixel, only the time."""

import threading
from collections.abc import Callable, Hashable
from typing import Any, Protocol, TypeVar, cast

from cachetools import LRUCache, cachedmethod

from lucky_margin.core.arrays import shared


class Weighed(Protocol):
    """Anything that says how many bytes it takes, as arrays do."""

    @property
    def nbytes(self) -> int:
        """How many bytes it takes."""
        ...


Picture = TypeVar("Picture", bound=Weighed)

DEFAULT_CACHE_BYTES = 600_000_000

KEY_BYTES = 1000
"""What an entry takes besides its picture. A pointer that reads colours leaves a single pixel for
each place, and a million of those would be a gigabyte of keys."""


class PictureCache:
    """Least recently used pictures go first. Safe to use from several threads: a picture that
    several ask for at once is made once, and arrays come out read-only."""

    def __init__(self, max_bytes: int = DEFAULT_CACHE_BYTES) -> None:
        self._pictures: LRUCache[Hashable, Any] = LRUCache(
            max_bytes, lambda kept: kept.nbytes + KEY_BYTES
        )
        self._changed = threading.Condition()

    @property
    def used_bytes(self) -> int:
        """What all kept pictures take, with their keys."""
        return int(self._pictures.currsize)

    def get_or_make(self, key: Hashable, make: Callable[[], Picture]) -> Picture:
        """The picture kept under ``key``, or the one that ``make`` gives, which is kept."""
        return cast(Picture, self._kept(key, make))

    @cachedmethod(
        lambda self: self._pictures,
        key=lambda _self, key, _make: key,
        condition=lambda self: self._changed,
    )
    def _kept(self, _key: Hashable, make: Callable[[], Picture]) -> Any:
        return shared(make())
