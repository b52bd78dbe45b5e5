"""PDF: pages at their true lengths, without dates, so that the same pages are the same bytes."""

import io
from collections.abc import Sequence
from dataclasses import dataclass

import img2pdf
import numpy as np
import pikepdf
from PIL import Image

from lucky_margin.core.export.metadata import Metadata
from lucky_margin.core.photos.profiles import srgb_profile
from lucky_margin.core.saving import saved
from lucky_margin.core.types import Picture8

POINTS_PER_INCH = 72


SCREEN_PPI = 96
"""Of a picture that says no resolution: CSS pixels to the inch (CSS Values 4, 6.2)."""

LEAST_PPI = 10
"""Of a size that is printed."""

_QUALITY = 95
"""Of the JPEG that stands for a picture that a PDF can't hold as it is."""


@dataclass(frozen=True)
class Page:
    """A JPEG or an opaque PNG, its columns and rows, how many pixels of it are an inch, and how
    many at each side are cut off when it is trimmed."""

    picture: bytes
    sides: tuple[int, int]
    ppi: float = SCREEN_PPI
    bleed: int = 0


def with_bleed(picture: Picture8, pixels: int) -> Picture8:
    """``picture`` that goes on past its edges, mirrored there, so that a cut that is a little off
    shows no white."""
    if pixels == 0:
        return picture
    return np.pad(picture, ((pixels, pixels), (pixels, pixels), (0, 0)), mode="symmetric")


def pdf(page: Page, metadata: Metadata) -> bytes:
    """One page at its true lengths; with bleed it has a trim box."""
    points = POINTS_PER_INCH / page.ppi
    sides = page.sides[0] * points, page.sides[1] * points
    bleed = page.bleed * points
    data: bytes = img2pdf.convert(
        page.picture,
        layout_fun=lambda *_: (*sides, *sides),
        trimborder=(bleed, bleed) if page.bleed else None,
        title=metadata.title or None,
        author=metadata.author or None,
        subject=metadata.description or metadata.alt_text or None,
        nodate=True,
        engine=img2pdf.Engine.internal,
    )
    return data


def pages_together(files: Sequence[bytes]) -> bytes:
    """One PDF of several exported files, in their order: pages of a PDF, JPEG and opaque PNG as
    they are, others as a JPEG on white."""
    with pikepdf.new() as whole:
        for data in files:
            with pikepdf.open(io.BytesIO(_as_pdf(data))) as one:
                whole.pages.extend(one.pages)
        buffer = io.BytesIO()
        whole.save(buffer, deterministic_id=True)
    return buffer.getvalue()


def _as_pdf(data: bytes) -> bytes:
    if data.startswith(b"%PDF"):
        return data
    with Image.open(io.BytesIO(data)) as image:
        ppi = float(image.info.get("dpi", (0,))[0])
        if ppi < LEAST_PPI:  # none is said; a TIFF then says 1
            ppi = SCREEN_PPI
        if image.format != "JPEG" and not (image.format == "PNG" and image.mode == "RGB"):
            data = _on_white(image)
        return pdf(Page(data, image.size, ppi), Metadata())


def _on_white(image: Image.Image) -> bytes:
    clear = image.convert("RGBA")
    flat = Image.alpha_composite(Image.new("RGBA", image.size, "white"), clear).convert("RGB")
    return saved(flat, "JPEG", quality=_QUALITY, subsampling=0, icc_profile=srgb_profile())
