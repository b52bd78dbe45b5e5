"""Where the renderer gets its photos from."""

from typing import Protocol

from lucky_margin.core.errors import NotFound
from lucky_margin.core.photos import DecodedPhoto, PhotoFacts
from lucky_margin.core.render.cache import PictureCache
from lucky_margin.core.sampling import halved
from lucky_margin.core.types import AnyPicture


class Sources(Protocol):
    """Photos by the SHA-256 of their original, and a cache."""

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


class MemorySources:
    """Photos held in memory, for the command line and for tests."""

    def __init__(self, photos: dict[str, DecodedPhoto], cache: PictureCache | None = None) -> None:
        self.cache = cache or PictureCache()
        self._photos = photos

    def facts(self, sha256: str) -> PhotoFacts:
        return self._photo(sha256).facts

    def level(self, sha256: str, number: int) -> AnyPicture:
        if number == 0:
            return self._photo(sha256).picture
        return self.cache.get_or_make(
            ("level", sha256, number), lambda: halved(self.level(sha256, number - 1))
        )

    def _photo(self, sha256: str) -> DecodedPhoto:
        try:
            return self._photos[sha256]
        except KeyError:
            raise NotFound("This finish's photo is not here; add the photo again.") from None
