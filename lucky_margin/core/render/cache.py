"""A cache of pictures bounded by bytes. Its presence never changes a pixel, only the time."""

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any, Protocol, TypeVar


class Weighed(Protocol):
    """Anything that says how many bytes it takes, as arrays do."""

    @property
    def nbytes(self) -> int: ...


Picture = TypeVar("Picture", bound=Weighed)

DEFAULT_CACHE_BYTES = 600_000_000


class PictureCache:
    """Least recently used pictures go first. Safe to use from several threads.

    Two threads that miss the same key both make the picture; the results are equal.
    """

    def __init__(self, max_bytes: int = DEFAULT_CACHE_BYTES) -> None:
        self.max_bytes = max_bytes
        self.used_bytes = 0
        self._pictures: OrderedDict[Hashable, Any] = OrderedDict()
        self._lock = threading.Lock()

    def get_or_make(self, key: Hashable, make: Callable[[], Picture]) -> Picture:
        """The picture kept under ``key``, or the one that ``make`` gives, which is kept."""
        with self._lock:
            kept = self._pictures.get(key)
            if kept is not None:
                self._pictures.move_to_end(key)
                found: Picture = kept
                return found
        made = make()
        self._keep(key, made)
        return made

    def _keep(self, key: Hashable, picture: Weighed) -> None:
        with self._lock:
            if picture.nbytes > self.max_bytes or key in self._pictures:
                return
            self._pictures[key] = picture
            self.used_bytes += picture.nbytes
            while self.used_bytes > self.max_bytes:
                _, dropped = self._pictures.popitem(last=False)
                self.used_bytes -= dropped.nbytes
