"""Words and icons inside badges."""

import skia

from lucky_margin.core.document import BadgeForm, BadgePiece
from lucky_margin.core.icons import icon_outline
from lucky_margin.core.text import FontFinder, TextStyle, fitted_text, typeface

Inside = tuple[float, float, float, float]

_INSIDE: dict[BadgeForm, Inside] = {
    "arrow": (0.06, 0.34, 0.68, 0.66),
    "label": (0.07, 0.14, 0.93, 0.86),
    "circle": (0.17, 0.2, 0.83, 0.8),
    "ring": (0.24, 0.26, 0.76, 0.74),
    "burst": (0.2, 0.24, 0.8, 0.76),
    "star": (0.32, 0.38, 0.68, 0.68),
    "heart": (0.2, 0.2, 0.8, 0.6),
    "bubble": (0.1, 0.12, 0.9, 0.66),
    "ribbon": (0.21, 0.16, 0.79, 0.84),
    "price-tag": (0.41, 0.14, 0.94, 0.86),
}
"""Left, top, right and bottom of the room inside a form, of its sides."""

BODY: Inside = (0.08, 0.14, 0.92, 0.86)
"""The same of a bubble whose pointer is held at the photo, and which is all body."""


def holds_words(form: BadgeForm) -> bool:
    """Whether there is room inside a form."""
    return form in _INSIDE


def lettering_of(
    piece: BadgePiece, width: float, height: float, font: FontFinder
) -> skia.Path | None:
    """The words of a badge, as large as its form has room for, or its icon, about its middle."""
    if piece.form not in _INSIDE or not (piece.text.strip() or piece.icon):
        return None
    room = BODY if piece.form == "bubble" and piece.tip else _INSIDE[piece.form]
    left, top, right, bottom = room
    wide, high = (right - left) * width, (bottom - top) * height
    path = skia.Path()
    if piece.text.strip():
        style = TextStyle(
            typeface(piece.family, font), piece.weight, align="centre", line_spacing=0.9
        )
        laid = fitted_text(piece.text, style, wide, high)
        path.addPath(laid.outline)
        ink = laid.ink
        path.offset(-ink.left - ink.width / 2, -ink.top - ink.height / 2)
    elif piece.icon:
        path.addPath(icon_outline(piece.icon, min(wide, high)))
    path.offset(((left + right) / 2 - 0.5) * width, ((top + bottom) / 2 - 0.5) * height)
    return path
