"""Whether words can be read where they lie, and what would help.

Contrast is that of WCAG 2.2 (relative luminance, success criterion 1.4.3), between the colour
that the letters have on the picture, opacity and blending applied, and the picture with all but
the letters' fill, so that plate, shadow and outline count as behind. It is taken for every pixel
within ``NEAR`` of the letters' edges; the figure is the 10th percentile.
"""

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core import oklab
from lucky_margin.core.document import (
    Box,
    PieceChanges,
    Plate,
    Shadow,
    TextPiece,
    rgb_of,
)
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.pieces import LaidPiece, Part, Sprite, sprite_of
from lucky_margin.core.render.compose import Layer, SpriteLayer, compose
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.layers import behind_subject
from lucky_margin.core.render.render import render
from lucky_margin.core.render.subject_alpha import alpha_near_subject
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.scene import Scene
from lucky_margin.core.text import is_own
from lucky_margin.core.types import Mask, Picture8

NEAR = 2
"""Output pixels from the letters' edges."""

PERCENTILE = 10
WANTED, WANTED_LARGE = 4.5, 3.0
LARGE, LARGE_BOLD, BOLD = 24.0, 18.7, 700
"""Pixels, as seen, from which letters are large; less when they are bold."""

MOST_PIXELS = 1_000_000
"""Of a picture that is judged; a larger part of a picture is judged at a smaller scale."""

_LUMINANCE = np.array([0.2126, 0.7152, 0.0722])
_STEPS = 14
_ALWAYS = ("#FFFFFF", "#1E2A2F")

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Contrast:
    """The measured ratio and the one that is wanted at the size people see."""

    ratio: float
    wanted: float

    @property
    def suffices(self) -> bool:
        """Whether the text can be read."""
        return self.ratio >= self.wanted


@dataclass(frozen=True, eq=False)
class _Seen:
    """A text on its picture: what is behind its letters, and which pixels count."""

    laid: LaidPiece
    behind: Picture8
    edge: NDArray[np.bool_]


def relative_luminance(colours: Floats) -> Floats:
    """WCAG 2.2, of encoded sRGB (0..1) in the last axis."""
    return np.asarray(decode(colours) @ _LUMINANCE)


def contrast_ratio(one: Floats, other: Floats) -> Floats:
    """WCAG 2.2, 1 to 21, of two luminances."""
    return (np.maximum(one, other) + 0.05) / (np.minimum(one, other) + 0.05)


def contrast_of(scene: Scene, piece_id: str) -> Contrast | None:
    """The contrast of a text; None where none of its letters can be seen.

    Raises:
        BadInput: the piece is no text.
        NotFound: it is not on this size.
    """
    piece = text_on(scene, piece_id)
    seen = _seen(scene, piece)
    if seen is None:
        return None
    wanted = wanted_contrast(seen.laid, scene)
    return Contrast(_ratio(seen, piece, piece.colour), wanted)


def wanted_contrast(laid: LaidPiece, scene: Scene) -> float:
    """WCAG 2.2: less of large letters than of small ones, as people see them."""
    piece = laid.piece
    # Of an own font nobody says whether it is bold, so it is not taken to be.
    is_bold = isinstance(piece, TextPiece) and not is_own(piece.family) and piece.weight >= BOLD
    pixels = laid.em * scene.seen_scale
    large = LARGE_BOLD if is_bold else LARGE
    return WANTED_LARGE if pixels >= large else WANTED


def make_readable(scene: Scene, piece_id: str) -> tuple[PieceChanges, str] | None:
    """The least that makes a text readable, and how to say it: the smallest change of the
    letters' OKLab lightness; else a shadow; else a plate. None when it is readable already.

    Raises:
        BadInput, NotFound: as for ``contrast_of``.
    """
    piece = text_on(scene, piece_id)
    seen = _seen(scene, piece)
    if seen is None:
        return None
    wanted = wanted_contrast(seen.laid, scene)
    if _ratio(seen, piece, piece.colour) >= wanted:
        return None
    colour = nearest_readable(seen, piece, wanted)
    if colour:
        return PieceChanges(colour=colour), f"The letters are {colour} now."
    extreme = max(_ALWAYS, key=lambda one: _ratio(seen, piece, one))
    other = next(one for one in _ALWAYS if one != extreme)
    shadow = Shadow(y=0, blur=0.02, colour=other, opacity=1)
    shaded = PieceChanges(colour=extreme, shadow=shadow)
    if _reaches(scene, piece, shaded, wanted):
        return shaded, "A shadow now separates the letters from the picture."
    plate = Plate(colour=other, opacity=0.85)
    return PieceChanges(colour=extreme, plate=plate), "There is now a box behind the letters."


def nearest_readable(seen: _Seen, piece: TextPiece, wanted: float) -> str | None:
    """The colour of nearest lightness, lighter or darker, that reaches ``wanted``."""
    lab = oklab.from_light(decode(np.array(rgb_of(piece.colour)) / 255))
    found: list[tuple[float, str]] = []
    for end in (0.0, 1.0):
        if _ratio(seen, piece, _at_lightness(lab, end)) < wanted:
            continue
        low, high = float(lab[0]), end
        for _ in range(_STEPS):
            middle = (low + high) / 2
            if _ratio(seen, piece, _at_lightness(lab, middle)) >= wanted:
                high = middle
            else:
                low = middle
        found.append((abs(high - float(lab[0])), _at_lightness(lab, high)))
    return min(found)[1] if found else None


def text_on(scene: Scene, piece_id: str) -> TextPiece:
    """
    Raises:
        BadInput: the piece is no text.
        NotFound: it is not on this size.
    """
    for piece in scene.finish.pieces_of(scene.size):
        if piece.id == piece_id:
            if not isinstance(piece, TextPiece):
                raise BadInput("Only text can be checked for contrast; choose a text.")
            return piece
    raise NotFound("This piece is not on this size; switch it on first.")


def _seen(scene: Scene, piece: TextPiece) -> _Seen | None:
    laid = next(one for one in scene.pieces if one.piece.id == piece.id)
    box = laid.bounds
    scale = min(1.0, (MOST_PIXELS / max(box.width * box.height, 1)) ** 0.5)
    grid = Grid.of(*scene.sides, scale, None)
    region = _around(box, grid)
    if region is None:
        return None
    left, top, width, height = region
    sprite = sprite_of(laid, grid.columns, grid.rows, grid.scale_x, grid.scale_y, part="fill")
    letters = _placed(sprite, left, top, width, height)
    edge = _edge(letters)
    if behind_subject(laid.piece, scene):
        edge &= alpha_near_subject(scene, grid, region) < 0.5
    if not edge.any():
        return None
    but_the_fill: dict[str, Part] = {piece.id: "all but the fill"}
    behind = render(scene, scale=scale, region=region, parts=but_the_fill, rough=True)
    return _Seen(laid, behind[:, :, :3], edge)


def _around(box: Box, grid: Grid) -> tuple[int, int, int, int] | None:
    """The whole pixels of a box and what is near it, as far as they lie on the picture."""
    left = max(0, int(box.left * grid.scale_x) - NEAR - 1)
    top = max(0, int(box.top * grid.scale_y) - NEAR - 1)
    right = min(grid.columns, int(box.right * grid.scale_x) + NEAR + 2)
    bottom = min(grid.rows, int(box.bottom * grid.scale_y) + NEAR + 2)
    return (left, top, right - left, bottom - top) if right > left and bottom > top else None


def _placed(sprite: Sprite, left: int, top: int, width: int, height: int) -> Mask:
    """The part of a sprite's coverage that lies in a region."""
    out = np.zeros((height, width), np.uint8)
    rows, columns = sprite.pixels.shape[:2]
    x0, y0 = max(left, sprite.left), max(top, sprite.top)
    x1, y1 = min(left + width, sprite.left + columns), min(top + height, sprite.top + rows)
    if x1 > x0 and y1 > y0:
        part = sprite.pixels[y0 - sprite.top : y1 - sprite.top, x0 - sprite.left : x1 - sprite.left]
        out[y0 - top : y1 - top, x0 - left : x1 - left] = part[:, :, 3]
    return out


def _edge(letters: Mask) -> NDArray[np.bool_]:
    """Pixels within ``NEAR`` of the letters' edges, inside and outside."""
    inside = (letters > 127).astype(np.uint8)
    disc = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * NEAR + 1, 2 * NEAR + 1))
    return np.asarray(cv2.dilate(inside, disc) != cv2.erode(inside, disc))


def _ratio(seen: _Seen, piece: TextPiece, colour: str) -> float:
    """The figure for letters of ``colour``."""
    solid = np.empty((*seen.behind.shape[:2], 4), np.uint8)
    solid[:] = (*rgb_of(colour), 255)
    letters = Sprite(0, 0, solid, piece.opacity, piece.blend)
    height, width = seen.behind.shape[:2]
    drawn = compose((Layer(seen.behind), SpriteLayer(letters, 0, 0)), (width, height))
    one, other = (
        relative_luminance(picture[seen.edge][:, :3] / 255) for picture in (drawn, seen.behind)
    )
    return float(np.percentile(contrast_ratio(one, other), PERCENTILE))


def _at_lightness(lab: Floats, lightness: float) -> str:
    """The colour of this hue and, as far as there is one, this strength at a lightness."""
    light = oklab.into_gamut(np.array([lightness, lab[1], lab[2]]))
    codes = np.rint(255 * encode(light)).astype(int)
    return "#{:02X}{:02X}{:02X}".format(*codes.tolist())


def _reaches(scene: Scene, piece: TextPiece, changes: PieceChanges, wanted: float) -> bool:
    finish, size = scene.finish, scene.size
    pieces = tuple(
        changes.applied_to(piece) if one.id == piece.id else one for one in finish.pieces
    )
    others = {key: ways for key, ways in size.overrides.pieces.items() if key != piece.id}
    plain = size.with_overrides(pieces=others)
    tried = finish.model_copy(update={"pieces": pieces}).with_size(plain)
    found = contrast_of(Scene(tried, plain, scene.sources), piece.id)
    return found is not None and found.ratio >= wanted
