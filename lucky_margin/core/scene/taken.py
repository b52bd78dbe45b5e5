"""The photo that the steps work on: as it was taken, or with something flat in it squared up."""

import hashlib
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.document import Square
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.sampling import halved
from lucky_margin.core.scene.sources import DerivedKey, Sources
from lucky_margin.core.squaring import squared, squared_sides
from lucky_margin.core.types import AnyPicture

VERSION = 1
"""Of how photos are squared up."""


def square_inputs(square: Square | None) -> tuple[str, ...]:
    """What names a photo's part that is squared up among what is made of it: nothing for the photo
    itself."""
    if square is None:
        return ()
    return (hashlib.sha256(square.model_dump_json().encode()).hexdigest()[:32],)


@dataclass(frozen=True)
class TakenPhoto:
    """A photo by its SHA-256, and what of it is squared up."""

    sha256: str
    sources: Sources
    square: Square | None = None

    @cached_property
    def inputs(self) -> tuple[str, ...]:
        """What names it among what is made of the photo."""
        return square_inputs(self.square)

    @property
    def key(self) -> tuple[str, ...]:
        """What tells it from every other."""
        return self.sha256, *self.inputs

    @cached_property
    def facts(self) -> PhotoFacts:
        """What is known of it; its sides are those that it is shown with.

        Raises:
            NotFound: there is no such photo.
        """
        facts = self.sources.facts(self.sha256)
        if self.square is None:
            return facts
        width, height = squared_sides(self._corners, self.square.ratio)
        return replace(facts, width=width, height=height)

    def level(self, number: int) -> AnyPicture:
        """Its pixels, halved ``number`` times; see ``Sources.level``."""
        if self.square is None:
            return self.sources.level(self.sha256, number)
        key = DerivedKey("squared", self.sha256, (*self.inputs, str(number)), VERSION)
        return self.sources.derived(key, lambda: self._made(number))

    def _made(self, number: int) -> AnyPicture:
        if number:
            return halved(self.level(number - 1))
        photo = self.sources.level(self.sha256, 0)
        return squared(photo, self._corners, self.facts.width, self.facts.height)

    @property
    def _corners(self) -> NDArray[np.float64]:
        """In photo pixels."""
        assert self.square is not None
        facts = self.sources.facts(self.sha256)
        return np.array(self.square.corners) * (facts.width, facts.height)
