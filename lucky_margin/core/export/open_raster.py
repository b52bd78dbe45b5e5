"""OpenRaster: a size of a finish with its parts as layers, for an editor (freedesktop.org,
OpenRaster baseline 0.0.3)."""

import io
import zipfile
from pathlib import PurePath
from typing import cast
from xml.etree import ElementTree

import cv2
import numpy as np

from lucky_margin.core.document import FixedPixels
from lucky_margin.core.errors import TooLarge
from lucky_margin.core.export.archive import NO_DATE
from lucky_margin.core.export.file_names import file_names
from lucky_margin.core.export.separating import FlatLayer, separated
from lucky_margin.core.photos.profiles import srgb_profile
from lucky_margin.core.png import png
from lucky_margin.core.progress import Progress, part_of, untold
from lucky_margin.core.render import parts_of, render
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Picture8

LAYERS_TYPE = "image/openraster"
"""The media type."""

MOST_PIXELS = 30_000_000
"""Of a size that is saved in layers, which are all held at once."""

THUMBNAIL_SIDE = 256
"""The longest a thumbnail may be (File Layout)."""


def open_raster(scene: Scene, progress: Progress = untold) -> bytes:
    """A size in layers, lowest part first: they come to the exported picture within 1 of 255.

    Raises:
        Cancelled: by ``progress``.
        NotFound: the photo is not known.
        TooLarge: the size has too many pixels to be held in layers.
    """
    width, height = scene.sides
    if width * height > MOST_PIXELS:
        raise TooLarge(
            f"A file of layers may have {MOST_PIXELS // 1_000_000} megapixels at most; "
            "ask for fewer pixels."
        )
    layers = separated(parts_of(scene))
    progress(0.5)
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_STORED) as archive:

        def put(name: str, data: bytes) -> None:
            archive.writestr(zipfile.ZipInfo(name, NO_DATE), data)

        put("mimetype", LAYERS_TYPE.encode())  # first, and stored, so that it is recognised
        put("stack.xml", _stack(scene, layers))
        told = part_of(progress, 0.5, 1)
        for number, layer in enumerate(layers):
            put(_source(number), _png(layer.pixels))
            told((number + 1) / (len(layers) + 1))
        merged = render(scene)
        put("mergedimage.png", _png(merged))
        put("Thumbnails/thumbnail.png", _png(_thumbnail(merged)))
    return buffer.getvalue()


def layers_name(scene: Scene) -> str:
    """What the file of a size's layers is called: as the exported file, but for the suffix.

    Raises:
        BadInput: the name pattern does not suit.
    """
    return f"{PurePath(file_names(scene.finish, scene.facts)[scene.size.id]).stem}.ora"


def _stack(scene: Scene, layers: list[FlatLayer]) -> bytes:
    """The description of the layers, topmost first."""
    width, height = scene.sides
    image = ElementTree.Element("image", version="0.0.3", w=str(width), h=str(height))
    pixels = scene.size.pixels
    if isinstance(pixels, FixedPixels) and pixels.printed:
        ppi = str(round(pixels.printed.ppi))
        image.attrib |= {"xres": ppi, "yres": ppi}
    stack = ElementTree.SubElement(image, "stack")
    for number, layer in reversed(list(enumerate(layers))):
        ElementTree.SubElement(
            stack,
            "layer",
            {
                "name": layer.name,
                "src": _source(number),
                "x": str(layer.left),
                "y": str(layer.top),
                "composite-op": _OPERATORS.get(layer.blend, f"svg:{layer.blend}"),
            },
        )
    return cast(bytes, ElementTree.tostring(image, "utf-8", xml_declaration=True))


_OPERATORS = {"normal": "svg:src-over"}


def _source(number: int) -> str:
    return f"data/layer{number:03}.png"


def _png(picture: Picture8) -> bytes:
    return png(picture, icc_profile=srgb_profile())


def _thumbnail(picture: Picture8) -> Picture8:
    rows, columns = picture.shape[:2]
    scale = min(1, THUMBNAIL_SIDE / max(rows, columns))
    sides = max(1, round(columns * scale)), max(1, round(rows * scale))
    return np.asarray(cv2.resize(picture, sides, interpolation=cv2.INTER_AREA), np.uint8)
