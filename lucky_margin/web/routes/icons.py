"""The icons that badges and marks may hold."""

from typing import Annotated

import numpy as np
import skia
from fastapi import APIRouter, Query, Response

from lucky_margin.core.document import Value
from lucky_margin.core.icons import icon_outline, icons_like
from lucky_margin.web.pictures import FOREVER, PICTURE, picture_response

router = APIRouter(prefix="/icons", tags=["icons"])

SIDE = 48
INK = (30, 42, 47)


class IconList(Value):
    icons: list[str]


@router.get("")
def search_icons(search: Annotated[str, Query(max_length=60)] = "") -> IconList:
    """Icons whose name or tags begin with the words searched for."""
    return IconList(icons=[icon.name for icon in icons_like(search)])


@router.get("/{name}/picture", response_class=Response, responses=PICTURE)
def get_icon(name: str) -> Response:
    """An icon, dark on transparent."""
    path = icon_outline(name, SIDE)
    coverage = np.zeros((SIDE, SIDE), np.uint8)
    canvas = skia.Surface.MakeRasterDirect(skia.ImageInfo.MakeA8(SIDE, SIDE), coverage).getCanvas()
    canvas.translate(SIDE / 2, SIDE / 2)
    canvas.drawPath(path, skia.Paint(AntiAlias=True))
    picture = np.empty((SIDE, SIDE, 4), np.uint8)
    picture[:, :, :3] = INK
    picture[:, :, 3] = coverage
    return picture_response(picture, headers=FOREVER)
