"""Where the renderer gets its photos from."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Protocol

from numpy.typing import NDArray

from lucky_margin.core.errors import NotFound
from lucky_margin.core.photos import DecodedPhoto, PhotoFacts
from lucky_margin.core.sampling import halved
from lucky_margin.core.scene.cache import PictureCache
from lucky_margin.core.text import Face
from lucky_margin.core.tone import ColourTable
from lucky_margin.core.types import AnyPicture


@dataclass(frozen=True)
class DerivedKey:
    """What an array is made from, so that it is found again: a kind of array, the photo's SHA-256,
    further ``inputs`` (letters and digits) and the ``version`` of the algorithm."""

    kind: str
    photo: str
    inputs: tuple[str, ...] = ()
    version: int = 1

    @property
    def name(self) -> str:
        """All of it in one word, for the name of a file."""
        return "-".join((self.photo, self.kind, f"v{self.version}", *self.inputs))


class Sources(Protocol):
    """Photos, colour tables and own fonts by the SHA-256 of their files, and a cache."""

    cache: PictureCache

    def facts(self, sha256: str) -> PhotoFacts:
        """What is known of the photo.

        Raises:
            NotFound: there is no such photo.
        """

    def level(self, sha256: str, number: int) -> AnyPicture:
        """The photo halved ``number`` times in linear light; 0 is the decoded original.

        Raises:
            NotFound: there is no such photo.
            OriginalMissing: its bytes are gone.
        """

    def derived(self, key: DerivedKey, make: Callable[[], NDArray[Any]]) -> NDArray[Any]:
        """The array kept under ``key``, or the one that ``make`` gives, which is kept; read-only.

        The same key always means the same values.
        """

    def table(self, sha256: str) -> ColourTable:
        """The colour table of a look.

        Raises:
            NotFound: there is no such table.
        """

    def font(self, sha256: str) -> Face | None:
        """The face of an own font; None where its file is gone."""


class MemorySources:
    """Photos, tables and fonts held in memory, for the command line and for tests."""

    def __init__(
        self,
        photos: dict[str, DecodedPhoto],
        cache: PictureCache | None = None,
        *,
        tables: dict[str, ColourTable] | None = None,
        fonts: dict[str, Face] | None = None,
    ) -> None:
        self.cache = cache or PictureCache()
        self._photos = photos
        self._tables = tables or {}
        self._fonts = fonts or {}

    def facts(self, sha256: str) -> PhotoFacts:
        """See ``Sources``."""
        return self._photo(sha256).facts

    def level(self, sha256: str, number: int) -> AnyPicture:
        """See ``Sources``."""
        if number == 0:
            return self._photo(sha256).picture
        return self.derived(
            DerivedKey("level", sha256, (str(number),)),
            lambda: halved(self.level(sha256, number - 1)),
        )

    def derived(self, key: DerivedKey, make: Callable[[], NDArray[Any]]) -> NDArray[Any]:
        """See ``Sources``."""
        return self.cache.get_or_make(key, make)

    def table(self, sha256: str) -> ColourTable:
        """See ``Sources``."""
        try:
            return self._tables[sha256]
        except KeyError:
            raise NotFound(
                "This look's colour table is missing; add its .cube file again."
            ) from None

    def font(self, sha256: str) -> Face | None:
        """See ``Sources``."""
        return self._fonts.get(sha256)

    def _photo(self, sha256: str) -> DecodedPhoto:
        try:
            return self._photos[sha256]
        except KeyError:
            raise NotFound("This finish's photo is missing; add the photo again.") from None
