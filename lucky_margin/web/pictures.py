"""Pictures as responses: JPEG where nothing shows through, since it is quick, else PNG."""

from typing import Any
from urllib.parse import quote

from fastapi import Response
from PIL import Image

from lucky_margin.core.png import QUICK, png
from lucky_margin.core.saving import saved
from lucky_margin.core.types import Picture8

FOREVER = {"Cache-Control": "private, max-age=31536000, immutable"}
FRESH = {"Cache-Control": "no-store"}

PREVIEW_QUALITY = 92

PICTURE: dict[int | str, dict[str, Any]] = {
    200: {"description": "The picture.", "content": {"image/jpeg": {}, "image/png": {}}}
}
"""How the OpenAPI document describes a route that answers with a picture."""

FILE: dict[int | str, dict[str, Any]] = {
    200: {"description": "The file.", "content": {"application/octet-stream": {}}}
}
"""The same for a file that is downloaded."""


def attached(name: str) -> dict[str, str]:
    """The headers of a file that is saved under ``name``, in any alphabet (RFC 6266)."""
    return FRESH | {"Content-Disposition": f"attachment; filename*=UTF-8''{quote(name)}"}


def picture_response(
    picture: Picture8, *, headers: dict[str, str], lossless: bool = False
) -> Response:
    """``picture`` for a screen."""
    if lossless or picture.shape[2] == 4:
        return Response(png(picture, level=QUICK), media_type="image/png", headers=headers)
    data = saved(Image.fromarray(picture), "JPEG", quality=PREVIEW_QUALITY, subsampling=0)
    return Response(data, media_type="image/jpeg", headers=headers)
