"""Colour tables (3D LUTs) in the open ``.cube`` text format, read, applied and written.

The file names its side (``LUT_3D_SIZE n``), perhaps the range of what comes in (``DOMAIN_MIN``,
``DOMAIN_MAX``; 0 and 1 by default), and then lists n x n x n colours, red changing fastest. Both
ends are encoded sRGB here. In between, the table is read with tetrahedral interpolation
(J. Kasson, W. Plouffe and S. Nin, "Tetrahedral interpolation technique for color space
conversion", 1993), which keeps greys on the line between their neighbours.
"""

from dataclasses import dataclass
from typing import Any

import numba
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.arrays import read_only
from lucky_margin.core.document import TableLook, Tone
from lucky_margin.core.errors import TooLarge, UnreadableTable
from lucky_margin.core.sampling import as_16_bits
from lucky_margin.core.tone.apply import needs_bases, toned_values
from lucky_margin.core.tone.detail import needs_detail
from lucky_margin.core.types import AnyPicture, Picture16

MAX_SIDE = 65
MAX_TABLE_BYTES = 12_000_000
WRITTEN_SIDE = 33
"""Side of the tables that are written: what most programs expect."""

OVERLOOKED = 4.0
"""What a written table may be off without a word, in 8-bit steps."""


@dataclass(frozen=True)
class ColourTable:
    """``colours`` has shape (n, n, n, 3), indexed by blue, green and red; encoded sRGB."""

    title: str
    colours: NDArray[np.float32]
    low: tuple[float, float, float] = (0, 0, 0)
    high: tuple[float, float, float] = (1, 1, 1)


def read_cube(data: bytes) -> ColourTable:
    """
    Raises:
        UnreadableTable: it is no ``.cube`` file, of one dimension, or incomplete.
        TooLarge: more bytes than are taken.
    """
    if len(data) > MAX_TABLE_BYTES:
        raise TooLarge(
            f"This .cube file has {len(data) / 1e6:.0f} MB; at most {MAX_TABLE_BYTES / 1e6:.0f} MB "
            f"are taken, enough for a side of {MAX_SIDE}."
        )
    text = data.decode("utf-8", "replace")
    header: dict[str, str] = {}
    numbers: list[str] = []
    for line in text.splitlines():
        words = line.split(None, 1)
        if not words or words[0].startswith("#"):
            continue
        if words[0][0].isalpha():
            header[words[0].upper()] = words[1].strip() if len(words) > 1 else ""
        else:
            numbers.append(line)
    side = _side(header)
    colours = _numbers(" ".join(numbers))
    if colours.size != 3 * side**3:
        raise UnreadableTable(
            f"This .cube file announces {side**3} colours and has {colours.size / 3:g}; "
            "save it again in the program that made it."
        )
    low, high = _domain(header, "DOMAIN_MIN", 0), _domain(header, "DOMAIN_MAX", 1)
    if any(not a < b for a, b in zip(low, high, strict=True)):
        raise UnreadableTable("This .cube file's DOMAIN_MAX has to lie above its DOMAIN_MIN.")
    title = header.get("TITLE", "").strip('"')
    return ColourTable(title, colours.reshape(side, side, side, 3), low, high)


def _side(header: dict[str, str]) -> int:
    if "LUT_3D_SIZE" not in header:
        kind = "one-dimensional table" if "LUT_1D_SIZE" in header else "LUT_3D_SIZE"
        said = "holds a" if "LUT_1D_SIZE" in header else "has no"
        raise UnreadableTable(f"This file {said} {kind}; a three-dimensional .cube is needed.")
    size = header["LUT_3D_SIZE"]
    if not size.isdecimal() or not 2 <= int(size) <= MAX_SIDE:
        raise UnreadableTable(f"A .cube file's side is from 2 to {MAX_SIDE}, not “{size[:20]}”.")
    return int(size)


def _numbers(text: str) -> NDArray[np.float32]:
    try:
        colours = np.array(text.split(), np.float32)
    except ValueError as error:
        raise UnreadableTable(
            "This .cube file has something other than numbers among its colours."
        ) from error
    if not np.isfinite(colours).all():
        raise UnreadableTable("This .cube file has a colour that is not a number.")
    return colours


def _domain(header: dict[str, str], name: str, default: float) -> tuple[float, float, float]:
    values = _numbers(header.get(name, f"{default} {default} {default}"))
    if values.size != 3:
        raise UnreadableTable(f"This .cube file's {name} needs three numbers.")
    return float(values[0]), float(values[1]), float(values[2])


def with_table(picture: AnyPicture, table: ColourTable, strength: float) -> Picture16:
    """``picture`` with ``table`` by ``strength`` (0..1), at 16 bits; alpha stays."""
    low, high = np.array(table.low, np.float64), np.array(table.high, np.float64)
    laid = read_only(as_16_bits(picture)), read_only(table.colours)
    return _through(*laid, low, 1 / (high - low), float(strength))


def cube_text(tone: Tone, title: str, table: ColourTable | None = None) -> str:
    """The per-pixel part of ``tone`` as a ``.cube`` file; what it cannot hold stands at its top.

    ``table`` is that of the tone's look, if it has one.
    """
    colours = _written(tone, table).reshape(-1, 3)
    safe = "".join(c for c in title if c.isprintable() and c != '"')
    lines = [f'TITLE "{safe}"']
    lines += [f"# Left out: {part}" for part in left_out(tone)]
    error = table_error(tone, table)
    if error.is_seen:
        lines += [f"# Off by up to {error.steps:.0f} of 255 steps, most at {error.colour}"]
    lines += [f"LUT_3D_SIZE {WRITTEN_SIDE}"]
    lines += [f"{r:.6f} {g:.6f} {b:.6f}" for r, g, b in colours.tolist()]
    return "\n".join(lines) + "\n"


@dataclass(frozen=True)
class TableError:
    """How far a written table is off at most, in 8-bit steps of one channel, and for which colour
    (``#RRGGBB``)."""

    steps: float
    colour: str

    @property
    def is_seen(self) -> bool:
        """Whether it is more than can be overlooked."""
        return self.steps > OVERLOOKED


def table_error(tone: Tone, table: ColourTable | None = None) -> TableError:
    """The error of the table that ``cube_text`` writes, halfway between its own colours: there the
    interpolation has least to go by. ``table`` is that of the tone's look, if it has one."""
    halfway = _grid((np.arange(WRITTEN_SIDE - 1) + 0.5) / (WRITTEN_SIDE - 1))
    read = with_table(halfway, ColourTable("", _written(tone, table)), 1.0)
    off = np.abs(read / 65_535 - _per_pixel(halfway, tone, table)).max(axis=2)
    row, column = np.unravel_index(int(off.argmax()), off.shape)
    red, green, blue = (int(value) for value in np.rint(halfway[row, column] / 257))
    return TableError(255 * float(off.max()), f"#{red:02X}{green:02X}{blue:02X}")


def _written(tone: Tone, table: ColourTable | None) -> NDArray[np.float32]:
    """The colours that are written, shape (side, side, side, 3), by blue, green and red."""
    grid = _grid(np.linspace(0, 1, WRITTEN_SIDE))
    colours = _per_pixel(grid, tone, table).astype(np.float32)
    return colours.reshape(WRITTEN_SIDE, WRITTEN_SIDE, WRITTEN_SIDE, 3)


def _grid(steps: NDArray[np.float64]) -> Picture16:
    """Every colour of these steps (0..1), red changing fastest: a row for each pair of others."""
    values = np.rint(65_535 * steps).astype(np.uint16)
    blue, green, red = np.meshgrid(values, values, values, indexing="ij")
    return np.stack([red, green, blue], axis=-1).reshape(-1, len(values), 3)


def _per_pixel(
    colours: Picture16, tone: Tone, table: ColourTable | None
) -> NDArray[np.floating[Any]]:
    """What the tone makes of colours by themselves, 0..1."""
    if isinstance(tone.look, TableLook) and table is not None:
        colours = with_table(colours, table, tone.look.strength / 100)
    return toned_values(colours, tone)


def left_out(tone: Tone) -> list[str]:
    """What of ``tone`` depends on more than a pixel's own colour."""
    parts = []
    if needs_bases(tone.model_copy(update={"areas": ()})):
        parts.append("highlights, shadows and local_contrast")
    if needs_detail(tone):
        parts.append("fine_detail, smoothing and sharpening")
    if tone.haze:
        parts.append("haze")
    if any(area.is_set for area in tone.areas):
        parts.append("areas")
    if any(wash.is_set for wash in tone.washes):
        parts.append("washes")
    if tone.fade.amount and tone.fade.colour is None:
        parts.append("fading to transparent")
    return parts


@numba.njit(parallel=True, nogil=True, cache=True, error_model="numpy")
def _through(
    picture: Picture16,
    table: NDArray[np.float32],
    low: NDArray[np.float64],
    scale: NDArray[np.float64],
    strength: float,
) -> Picture16:
    height, width, channels = picture.shape
    out = np.empty_like(picture)
    last = table.shape[0] - 1
    for j in numba.prange(height):
        for i in range(width):
            r = min(max((picture[j, i, 0] / 65535.0 - low[0]) * scale[0], 0.0), 1.0) * last
            g = min(max((picture[j, i, 1] / 65535.0 - low[1]) * scale[1], 0.0), 1.0) * last
            b = min(max((picture[j, i, 2] / 65535.0 - low[2]) * scale[2], 0.0), 1.0) * last
            x, y, z = min(int(r), last - 1), min(int(g), last - 1), min(int(b), last - 1)
            r, g, b = r - x, g - y, b - z
            greatest, least = max(r, g, b), min(r, g, b)
            middle = r + g + b - greatest - least
            x1, y1, z1, x2, y2, z2 = _way(r, g, b)
            for c in range(3):
                value = (1.0 - greatest) * table[z, y, x, c]
                value += (greatest - middle) * table[z + z1, y + y1, x + x1, c]
                value += (middle - least) * table[z + z2, y + y2, x + x2, c]
                value += least * table[z + 1, y + 1, x + 1, c]
                before = picture[j, i, c] / 65535.0
                value = before + strength * (min(max(value, 0.0), 1.0) - before)
                out[j, i, c] = int(value * 65535.0 + 0.5)
            if channels == 4:
                out[j, i, 3] = picture[j, i, 3]
    return out


@numba.njit(error_model="numpy")
def _way(r: float, g: float, b: float) -> tuple[int, int, int, int, int, int]:
    """From a cell's dark corner to its light one along edges, the largest of the three first:
    the first and the second corner on the way, each as steps of red, green and blue."""
    if r > g:
        if g > b:
            return 1, 0, 0, 1, 1, 0
        return (1, 0, 0, 1, 0, 1) if r > b else (0, 0, 1, 1, 0, 1)
    if b > g:
        return 0, 0, 1, 0, 1, 1
    return (0, 1, 0, 0, 1, 1) if b > r else (0, 1, 0, 1, 1, 0)
