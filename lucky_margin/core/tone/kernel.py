"""The fused pass: from 16 bits in encoded sRGB to 8 bits, block of a line by block of a line.

A block is so short that all its rows of numbers stay in a core's own caches.
"""

from typing import NamedTuple

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.lines import (
    dither,
    dither_noise,
    load,
    quantise,
    store,
    to_8_bits,
)
from lucky_margin.core.sampling.vector_maths import (
    FAST,
    ZERO,
    Row,
    encode,
    encoded,
    exp2,
    log2,
    singles,
)
from lucky_margin.core.tone.areas import SUBJECT
from lucky_margin.core.tone.bases import DARKEST, MIDDLE_GREY
from lucky_margin.core.tone.curves import STEPS
from lucky_margin.core.tone.masks import covered, let_through, narrow
from lucky_margin.core.tone.oklch import ColourRows, apply_colour
from lucky_margin.core.tone.overlays import fade, tint, wash
from lucky_margin.core.tone.rows import (
    DARK,
    copy,
    highest,
    into_gamut,
    look_up,
    luminance,
    mix,
    multiply,
    smooth,
)
from lucky_margin.core.types import Picture8, Picture16

Floats = NDArray[np.float64]

SHADOW_EV, HIGHLIGHT_EV = singles(1.8, 1.2)
"""The most that shadows and highlights move a region."""

SHADOW_DEPTH = np.float32(4)
"""EV below mid-grey at which shadows act in full."""

WHITE_EV = np.float32(2.4739)
"""How far white lies above mid-grey: log2(1 / 0.18)."""

PAPER_FROM, PAPER = singles(1, 2.4)
"""EV from mid-grey between which a region is more and more taken for white paper."""

PAPER_EV = np.float32(0.18)
"""How much white paper is darkened when highlights are taken back in full."""

LOCAL_CONTRAST = np.float32(0.8)

BLOCK = 1024
"""Pixels of a block."""

_DARKEST, _MIDDLE_GREY, _STEPS = singles(DARKEST, MIDDLE_GREY, STEPS)

Singles = NDArray[np.float32]


class Layers(NamedTuple):
    """Light and colour of the whole photo, first, and of each area; one row for each."""

    balance: Singles
    """The 3 x 3 matrices with exposure in them, shape (n, 9)."""
    local: Singles
    """Exposure (EV), shadows, highlights, local_contrast (-1..1), shape (n, 4)."""
    curves: Singles
    """Linear luminance by encoded, shape (n, STEPS + 1)."""
    has_curve: NDArray[np.bool_]
    colour: Singles
    """How OKLCH is needed (0 not, else see ``oklch``), saturation, muted_colours (-1..1) and grey
    (0..1); shape (n, 4)."""
    by_hue: Singles
    """See ``hues.by_hue``; shape (n, 4, HUE_STEPS + 1)."""
    strength: Singles
    """Shape (n,), 0..1."""
    masks: Floats
    """See ``areas.mask_rows``; shape (m, MASK_FIELDS)."""
    lines: NDArray[np.float32]
    """The laid bases, shape (height, width, 2), or empty."""
    subject: NDArray[np.float32]
    """What the subject covers (0..1), shape (n, height, width); see ``areas.subject_edges``."""


class Overlays(NamedTuple):
    """What is mixed in encoded sRGB at the end."""

    tint: Floats
    """Recolouring's strength, dark and light, fading's strength and colour, and whether it fades
    to transparent; shape (12,), encoded (0..1)."""
    washes: Floats
    """See ``washes.wash_rows``."""
    colours: Floats
    """Theirs, shape (n, 3, STEPS + 1)."""


class Block(NamedTuple):
    """The rows of some pixels beside each other."""

    r: Row
    g: Row
    b: Row
    untouched: tuple[Row, Row, Row]
    """The photo's own light, which masks look at."""
    other: tuple[Row, Row, Row]
    """The colours that an area or a wash makes."""
    base: Row
    """The brightness of the region, in EV from mid-grey."""
    at: Row
    """The same after what was done to it so far."""
    detail: Row
    """How far the pixel is above its region, in EV."""
    moved: Row
    """How far a layer moves the region, in EV."""
    share: Row
    """How much an area or a wash counts; at last the dither's noise."""
    colour: ColourRows


_ROWS = 18
"""Rows of a block."""


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def tone_pixels(
    picture: Picture16,
    decode: NDArray[np.float32],
    layers: Layers,
    overlays: Overlays,
    x_origin: int,
    y_origin: int,
) -> Picture8:
    """The toned picture, dithered to 8 bits. See ``lucky_margin.core.tone`` for the order."""
    height, width, channels = picture.shape
    out = np.empty((height, width, channels), np.uint8)
    kept = 1.0 - overlays.tint[7] * overlays.tint[11]
    for j in numba.prange(height):
        rows = np.empty((_ROWS, BLOCK), np.float32)
        y = y_origin + j
        for start in range(0, width, BLOCK):
            block = _block(rows, min(BLOCK, width - start))
            x = x_origin + start
            _tone(picture[j], start, j, x, y, decode, layers, overlays, block)
            dither_noise(x, y, block.share)
            quantise(block.share, block.r)
            quantise(block.share, block.g)
            quantise(block.share, block.b)
            store(block.r, block.g, block.b, start, out[j])
        if channels == 4:
            for i in range(width):
                alpha = picture[j, i, 3] / 257.0 * kept
                out[j, i, 3] = to_8_bits(alpha, dither(x_origin + i, y))
    return out


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def tone_values(
    picture: Picture16, decode: NDArray[np.float32], layers: Layers, overlays: Overlays
) -> NDArray[np.float32]:
    """The colours of ``tone_pixels`` before they are dithered: encoded (0..1), shape
    (height, width, 3)."""
    height, width = picture.shape[:2]
    out = np.empty((height, width, 3), np.float32)
    for j in numba.prange(height):
        rows = np.empty((_ROWS, BLOCK), np.float32)
        for start in range(0, width, BLOCK):
            count = min(BLOCK, width - start)
            block = _block(rows, count)
            _tone(picture[j], start, j, start, j, decode, layers, overlays, block)
            out[j, start : start + count, 0] = block.r
            out[j, start : start + count, 1] = block.g
            out[j, start : start + count, 2] = block.b
    return out


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def area_shares(
    picture: Picture16,
    decode: NDArray[np.float32],
    layers: Layers,
    layer: int,
    x_origin: int,
    y_origin: int,
) -> NDArray[np.float32]:
    """How much the area of ``layer`` counts at each pixel, its strength aside (0..1)."""
    height, width = picture.shape[:2]
    out = np.empty((height, width), np.float32)
    for j in numba.prange(height):
        rows = np.empty((_ROWS, BLOCK), np.float32)
        for start in range(0, width, BLOCK):
            count = min(BLOCK, width - start)
            block = _block(rows, count)
            _load(picture[j], start, j, decode, layers, block)
            _share(layer, 1.0, (start, j), (x_origin + start, y_origin + j), layers, block)
            out[j, start : start + count] = block.share
    return out


@numba.njit(error_model="numpy")
def _block(rows: Singles, count: int) -> Block:
    """The first ``count`` numbers of each row."""
    return Block(
        rows[0, :count],
        rows[1, :count],
        rows[2, :count],
        (rows[3, :count], rows[4, :count], rows[5, :count]),
        (rows[6, :count], rows[7, :count], rows[8, :count]),
        rows[9, :count],
        rows[10, :count],
        rows[11, :count],
        rows[12, :count],
        rows[13, :count],
        ColourRows(rows[14, :count], rows[15, :count], rows[16, :count], rows[17, :count]),
    )


@numba.njit(error_model="numpy")
def _tone(
    line: Picture16,
    start: int,
    j: int,
    x: int,
    y: int,
    decode: NDArray[np.float32],
    layers: Layers,
    overlays: Overlays,
    block: Block,
) -> None:
    """One block of a line, encoded: columns from ``start``, row ``j``, which lie at ``x``, ``y``
    in absolute picture pixels."""
    r, g, b = block.r, block.g, block.b
    _load(line, start, j, decode, layers, block)
    copy(block.untouched[0], r)
    copy(block.untouched[1], g)
    copy(block.untouched[2], b)
    _adjust(0, layers, block, r, g, b)
    for layer in range(1, layers.strength.shape[0]):
        _area(layer, (start, j), (x, y), layers, block)
    into_gamut(r, g, b)
    encode(r)
    encode(g)
    encode(b)
    mixed = overlays.tint
    if mixed[0] > 0:
        tint(mixed[1:4], mixed[4:7], mixed[0], r, g, b)
    for number in range(overlays.washes.shape[0]):
        wash(
            overlays.washes[number], overlays.colours[number], x + 0.5, y + 0.5, block.at,
            block.share, block.other, r, g, b,
        )  # fmt: skip
    if mixed[7] > 0 and mixed[11] == 0:
        fade(mixed[7], mixed[8:11], r, g, b)


@numba.njit(error_model="numpy")
def _load(
    line: Picture16, start: int, j: int, decode: NDArray[np.float32], layers: Layers, block: Block
) -> None:
    """A block's untouched light and, where there are bases, the brightness of its regions."""
    r, g, b = block.untouched
    load(line, start, decode, r, g, b)
    if layers.lines.shape[0] > 0:
        _measure(layers.lines[j], start, r, g, b, block.base, block.detail)
        copy(block.base, block.at)


@numba.njit(error_model="numpy", fastmath=FAST)
def _measure(
    lines: NDArray[np.float32], start: int, r: Row, g: Row, b: Row, base: Row, detail: Row
) -> None:
    for i in range(base.size):
        at = np.uint32(start + i)
        own = log2(max(luminance(r[i], g[i], b[i]), _DARKEST) / _MIDDLE_GREY)
        base[i] = lines[at, 0] * own + lines[at, 1]
        detail[i] = own - base[i]


@numba.njit(error_model="numpy")
def _adjust(layer: int, layers: Layers, block: Block, r: Row, g: Row, b: Row) -> None:
    """Linear light after one layer; ``block.at`` moves with its regions when the layer is the
    whole photo's, else ``block.moved`` says how far."""
    multiply(layers.balance[layer], r, g, b)
    if layers.lines.shape[0] > 0:
        _lift_regions(layers.local[layer], block.at, block.detail, block.moved, r, g, b)
        if layer == 0:
            _add(block.moved, block.at)
    if layers.has_curve[layer]:
        _bend(layers.curves[layer], block.colour, r, g, b)
    if layers.colour[layer, 0] > 0:
        apply_colour(r, g, b, layers.colour[layer], layers.by_hue[layer], block.colour)


@numba.njit(error_model="numpy", fastmath=FAST)
def _add(source: Row, target: Row) -> None:
    for i in range(target.size):
        target[i] += source[i]


@numba.njit(error_model="numpy", fastmath=FAST)
def _lift_regions(local: Row, at: Row, detail: Row, moved: Row, r: Row, g: Row, b: Row) -> None:
    """Shadows, highlights and local_contrast, by the brightness of the region after exposure.

    A region that was nearly white before is hardly darkened, so that paper stays white: by what
    exposure and what came before made too bright, and ``PAPER_EV`` more.
    """
    exposure, shadows, highlights = local[0], SHADOW_EV * local[1], HIGHLIGHT_EV * local[2]
    local_contrast = LOCAL_CONTRAST * local[3]
    for i in range(r.size):
        base = at[i] + exposure
        lit = highlights * smooth(base / WHITE_EV)
        kept = max(lit, -PAPER_EV - max(exposure, ZERO) - max(at[i] - PAPER, ZERO))
        lit += (kept - lit) * smooth((at[i] - PAPER_FROM) / (PAPER - PAPER_FROM))
        gain = shadows * smooth(-base / SHADOW_DEPTH) + lit
        moved[i] = exposure + gain
        factor = exp2(gain + local_contrast * detail[i])
        r[i] *= factor
        g[i] *= factor
        b[i] *= factor


@numba.njit(error_model="numpy")
def _bend(curve: Row, scratch: ColourRows, r: Row, g: Row, b: Row) -> None:
    """Colours scaled so that their luminance follows the curve."""
    was, wanted = scratch.chroma, scratch.read
    _luminances(r, g, b, was, wanted)
    look_up(curve, wanted, wanted)
    _scale(was, wanted, r, g, b)


@numba.njit(error_model="numpy", fastmath=FAST)
def _luminances(r: Row, g: Row, b: Row, linear: Row, place: Row) -> None:
    """Luminances, and their places on a curve, in steps."""
    for i in range(r.size):
        linear[i] = luminance(r[i], g[i], b[i])
        place[i] = _STEPS * encoded(linear[i])


@numba.njit(error_model="numpy", fastmath=FAST)
def _scale(was: Row, wanted: Row, r: Row, g: Row, b: Row) -> None:
    """Colours of one luminance made into those of another; black becomes grey."""
    for i in range(r.size):
        y, factor = wanted[i], wanted[i] / max(was[i], DARK)
        is_bright = was[i] > DARK
        r[i] = r[i] * factor if is_bright else y
        g[i] = g[i] * factor if is_bright else y
        b[i] = b[i] * factor if is_bright else y


@numba.njit(error_model="numpy")
def _area(
    layer: int, first: tuple[int, int], place: tuple[int, int], layers: Layers, block: Block
) -> None:
    """Linear light after one area; the block's ``first`` pixel is that of column and row, and lies
    at ``place`` in absolute picture pixels."""
    _share(layer, layers.strength[layer], first, place, layers, block)
    if highest(block.share) <= 0.0:
        return
    r, g, b = block.other
    copy(block.r, r)
    copy(block.g, g)
    copy(block.b, b)
    _adjust(layer, layers, block, r, g, b)
    mix(block.share, r, block.r)
    mix(block.share, g, block.g)
    mix(block.share, b, block.b)
    if layers.lines.shape[0] > 0:
        _add_shares(block.share, block.moved, block.at)


@numba.njit(error_model="numpy", fastmath=FAST)
def _add_shares(share: Row, source: Row, target: Row) -> None:
    for i in range(target.size):
        target[i] += share[i] * source[i]


@numba.njit(error_model="numpy")
def _share(
    layer: int,
    strength: float,
    first: tuple[int, int],
    place: tuple[int, int],
    layers: Layers,
    block: Block,
) -> None:
    """How much a layer counts at each pixel of the block; the rest is as in ``_area``."""
    share, part = block.share, block.moved
    for i in range(share.size):
        share[i] = strength
    for row in range(layers.masks.shape[0]):
        mask = layers.masks[row]
        if mask[0] != layer:
            continue
        if mask[1] == SUBJECT:
            covered(layers.subject[int(mask[3]), first[1]], first[0], part)
        else:
            let_through(
                mask, place[0] + 0.5, place[1] + 0.5, block.untouched, block.base, block.other, part
            )
        narrow(part, mask[2] > 0, share)
