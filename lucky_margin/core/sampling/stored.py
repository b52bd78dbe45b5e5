"""How linear light is kept at 8 or 16 bits."""

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.sampling.lines import (
    dither_noise,
    quantise,
    store,
    store_at_16_bits,
    to_8_bits,
)
from lucky_margin.core.sampling.srgb import ENCODE_STEPS
from lucky_margin.core.sampling.vector_maths import Row, encode


@numba.njit(inline="always")
def _by_table(linear: float, table: NDArray[np.float32]) -> float:
    """sRGB encoding (0..1) of ``linear``, clipped to 0..1."""
    position = min(max(linear, 0.0), 1.0) * ENCODE_STEPS
    index = int(position)
    below = table[index]
    value: float = below + (table[index + 1] - below) * (position - index)
    return value


@numba.njit(inline="always")
def _stored(value: float, noise: float, top: int) -> int:
    """``value`` (0..1) as it is stored: dithered at 8 bits, merely rounded at 16."""
    if top == 255:
        return to_8_bits(255.0 * value, noise)
    return int(min(max(value, 0.0), 1.0) * top + 0.5)


@numba.njit(inline="always")
def store_pixel(
    pixel: NDArray[np.uint8] | NDArray[np.uint16],
    red: float,
    green: float,
    blue: float,
    share: float,
    encode: NDArray[np.float32],
    noise: float,
) -> None:
    """Linear light, premultiplied by ``share`` where there is a fourth channel, as it is kept."""
    top = 255 if pixel.itemsize == 1 else 65535
    if pixel.size == 4:
        pixel[3] = _stored(min(max(share, 0.0), 1.0), noise, top)
        scale = 1.0 / share if share > 0 else 0.0
        red, green, blue = red * scale, green * scale, blue * scale
    pixel[0] = _stored(_by_table(red, encode), noise, top)
    pixel[1] = _stored(_by_table(green, encode), noise, top)
    pixel[2] = _stored(_by_table(blue, encode), noise, top)


@numba.njit(error_model="numpy")
def store_row(
    r: Row, g: Row, b: Row, noise: Row, x: int, y: int, line: NDArray[np.unsignedinteger]
) -> None:
    """A line of linear light, which lies at ``x``, ``y`` in the output, dithered at 8 bits and
    merely rounded at 16; the rows are used up."""
    encode(r)
    encode(g)
    encode(b)
    if line.itemsize == 1:
        dither_noise(x, y, noise)
        quantise(noise, r)
        quantise(noise, g)
        quantise(noise, b)
        store(r, g, b, 0, line)
    else:
        store_at_16_bits(r, g, b, line)
