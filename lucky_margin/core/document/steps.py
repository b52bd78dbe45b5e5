"""The steps of the docket that a finish sets and a size may override."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from lucky_margin.core.document.values import Value
from lucky_margin.core.types import LOSSLESS_FORMATS, OPAQUE_FORMATS, ImageFormat

MIN_QUALITY, MAX_QUALITY = 1, 100

DEFAULT_NAME_PATTERN = "{name}-{width}x{height}"

Credit = Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)]
"""A line of copyright or author; empty means "as in the original"."""


class Turn(Value):
    """How the photo is turned before any window is laid on it.

    It is mirrored left to right first, then turned by quarters clockwise, then straightened:
    turned clockwise by a few degrees about its centre. With ``empty_corners`` windows may reach
    past the turned photo's edges, where the backdrop then shows.
    """

    mirrored: bool = False
    quarters: int = Field(default=0, ge=0, le=3)
    straighten: float = Field(default=0, ge=-45, le=45)
    empty_corners: bool = False

    @property
    def is_set(self) -> bool:
        """Whether the photo is turned at all."""
        return self.mirrored or self.quarters > 0 or self.straighten != 0


MOST_ALT_LETTERS = 1000

AltText = Annotated[str, StringConstraints(strip_whitespace=True, max_length=MOST_ALT_LETTERS)]
"""What a picture shows, for those who cannot see it; empty means that nothing is said."""

FILE_DETAILS = (
    *("name_pattern", "keep_camera_data", "keep_place", "author", "copyright"),
    *("title", "description", "alt_text"),
)
"""Fields of the export that every file of a finish has alike."""


class Reveal(Value):
    """An animation from the plain photo to its lifts, one after the other.

    Each comes in over ``seconds``, from one side, from below, or fading in; the whole picture then
    stays for ``pause`` seconds before it begins again.
    """

    way: Literal["side", "below", "fade"] = "side"
    seconds: float = Field(default=1.2, ge=0, le=10)
    pause: float = Field(default=2, ge=0, le=30)
    format: Literal["webp", "gif"] = "webp"


class Export(Value):
    """How a size is written to a file.

    ``max_kb`` (1 KB = 1000 bytes) caps the file's weight and overrides ``quality``; PNG, TIFF, GIF,
    BMP and a ``lossless`` WebP know neither. ``colours`` is the most a PNG or GIF may have; null is
    all of them (for a GIF 256). ``progressive`` is of a JPEG, ``chroma`` of JPEG, AVIF and PDF: by
    quality, as fine as brightness, or at half its sides. ``bleed`` is how much a PDF goes on
    past its trimmed page, in millimetres.
    """

    format: ImageFormat = "jpeg"
    quality: int = Field(default=90, ge=MIN_QUALITY, le=MAX_QUALITY)
    max_kb: float | None = Field(default=None, ge=1, le=1_000_000)
    lossless: bool = False
    colours: int | None = Field(default=None, ge=2, le=256)
    progressive: bool = False
    chroma: Literal["auto", "full", "half"] = "auto"
    bleed: float = Field(default=0, ge=0, le=20)
    reveal: Reveal = Reveal()
    name_pattern: Annotated[str, StringConstraints(min_length=1, max_length=200)] = (
        DEFAULT_NAME_PATTERN
    )
    keep_camera_data: bool = False
    keep_place: bool = False
    author: Credit = ""
    copyright: Credit = ""
    title: Credit = ""
    description: AltText = ""
    alt_text: AltText = ""

    @property
    def is_opaque(self) -> bool:
        """Whether the format has no transparency."""
        return self.format in OPAQUE_FORMATS

    @property
    def is_lossless(self) -> bool:
        """Whether no quality has to be chosen."""
        return self.format in LOSSLESS_FORMATS or (self.format == "webp" and self.lossless)
