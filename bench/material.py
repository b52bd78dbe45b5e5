"""Photos and finishes to measure with."""

import io
from pathlib import Path

import numpy as np
from PIL import Image

from lucky_margin.core.document import (
    BadgePiece,
    Border,
    Finish,
    FixedPixels,
    LetterOutline,
    LineBand,
    MarginAnchor,
    Piece,
    Plate,
    Repeat,
    Shadow,
    Sides,
    TextPiece,
    Watermark,
    new_finish,
)

DEMO_PHOTO = Path(__file__).parent.parent / "demo" / "photos" / "mugs-window.jpg"
SHA = "ab" * 32
WIDTH, HEIGHT = 1080, 1350

PIECES: tuple[Piece, ...] = (
    TextPiece(id="title", text="New glaze,\nevery Thursday", size=0.12, shadow=Shadow()),
    TextPiece(id="line", text="from nine to five", anchor=MarginAnchor(y=1), plate=Plate()),
    TextPiece(id="price", text="€28", anchor=MarginAnchor(x=1), outline=LetterOutline()),
    BadgePiece(id="burst", form="burst", text="new", anchor=MarginAnchor(x=0, y=0.8)),
    BadgePiece(id="arrow", form="arrow", angle=30, shadow=Shadow()),
    BadgePiece(id="hearts", form="heart", width=0.05, height=0.05, repeat=Repeat()),
)

MARK = Watermark(text="Pebblewick Pottery", place="repeated")


def photo_of(megapixels: int) -> bytes:
    """The demo photo enlarged to 3:2 and this many megapixels, as a JPEG."""
    high = round((megapixels * 1e6 / 1.5) ** 0.5)
    buffer = io.BytesIO()
    Image.open(DEMO_PHOTO).resize((round(1.5 * high), high)).save(buffer, "JPEG", quality=92)
    return buffer.getvalue()


def framed(thickness: float = 0.025) -> Finish:
    """A finish of 1080 x 1350 pixels with a border."""
    finish = new_finish(name="bench", photo_sha256=SHA)
    size = finish.sizes[0].model_copy(update={"pixels": FixedPixels(width=WIDTH, height=HEIGHT)})
    border = Border.of(LineBand(thickness=Sides.all(thickness)))
    return finish.with_size(size).model_copy(update={"border": border})


def jpeg(picture: np.ndarray, quality: int = 90) -> bytes:
    """``picture`` as Pillow encodes it."""
    buffer = io.BytesIO()
    Image.fromarray(picture).save(buffer, "JPEG", quality=quality)
    return buffer.getvalue()
