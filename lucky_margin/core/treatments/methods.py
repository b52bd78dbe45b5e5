"""How each treatment is made: planned on the whole photo, textured without it, drawn by both.

A plan depends on the photo, a texture only on the pixels; both are worth keeping. Either may be
absent.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from lucky_margin.core.document import (
    Dots,
    Drawing,
    Glow,
    Grain,
    LensBlur,
    Mosaic,
    Paint,
    Poster,
    Relief,
    SharpZone,
    Treatment,
    Vignette,
)
from lucky_margin.core.treatments.blur import (
    draw_blur,
    draw_sharp_zone,
    plan_blur,
    plan_sharp_zone,
)
from lucky_margin.core.treatments.dots import draw_dots, plan_dots
from lucky_margin.core.treatments.drawing import draw_drawing, plan_drawing
from lucky_margin.core.treatments.glow import draw_glow, plan_glow
from lucky_margin.core.treatments.mosaic import draw_mosaic, plan_mosaic
from lucky_margin.core.treatments.paint import draw_paint, plan_paint
from lucky_margin.core.treatments.poster import draw_poster, plan_poster
from lucky_margin.core.treatments.textures import (
    draw_grain,
    draw_relief,
    grain_texture,
    relief_texture,
)
from lucky_margin.core.treatments.vignette import draw_vignette, vignette_texture
from lucky_margin.core.treatments.working import Pixels, Working
from lucky_margin.core.types import Picture8

MakePlan = Callable[[Any, Working], Any]
MakeTexture = Callable[[Any, Pixels], Any]
Draw = Callable[[Any, Any, Picture8, Pixels], Picture8]


@dataclass(frozen=True)
class Method:
    """How one kind of treatment is made.

    ``draw`` takes the treatment, its plan or its texture, the picture as it was (rows, columns, 3)
    and its pixels. What has ``hard_lines`` looks like its export only if it is drawn in all of its
    pixels and then shrunk.
    """

    draw: Draw
    plan: MakePlan | None = None
    texture: MakeTexture | None = None
    hard_lines: bool = False


_METHODS: dict[type[Treatment], Method] = {
    Mosaic: Method(draw_mosaic, plan=plan_mosaic, hard_lines=True),
    Dots: Method(draw_dots, plan=plan_dots, hard_lines=True),
    Drawing: Method(draw_drawing, plan=plan_drawing, hard_lines=True),
    Poster: Method(draw_poster, plan=plan_poster),
    Paint: Method(draw_paint, plan=plan_paint),
    Relief: Method(draw_relief, texture=relief_texture),
    Grain: Method(draw_grain, texture=grain_texture),
    Vignette: Method(draw_vignette, texture=vignette_texture),
    Glow: Method(draw_glow, plan=plan_glow),
    LensBlur: Method(draw_blur, plan=plan_blur),
    SharpZone: Method(draw_sharp_zone, plan=plan_sharp_zone),
}


def method_of(treatment: Treatment) -> Method:
    """How ``treatment`` is made."""
    return _METHODS[type(treatment)]
