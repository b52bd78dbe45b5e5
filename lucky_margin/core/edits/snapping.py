"""Drawing what is dragged to lines near it, along one axis."""

from collections.abc import Sequence

from lucky_margin.core.document import Box
from lucky_margin.core.edits.edited import Guide
from lucky_margin.core.framing import Output


def ends_and_middle(start: float, length: float) -> tuple[float, float, float]:
    """The places of something ``length`` long that are drawn to lines, and draw others."""
    return start, start + length / 2, start + length


def snapped(
    start: float, length: float, lines: Sequence[float], reach: float
) -> tuple[float, float | None]:
    """The way to the nearest of ``lines`` within ``reach`` of an end or the middle of something
    ``length`` long that begins at ``start``, and that line; 0 and None without one."""
    ways = [(line - own, line) for own in ends_and_middle(start, length) for line in lines]
    best, line = min(ways, key=lambda way: abs(way[0]))
    return (best, line) if abs(best) <= reach else (0.0, None)


def snapped_box(
    box: Box, across: Sequence[float], down: Sequence[float], reach: float, output: Output
) -> tuple[float, float, list[Guide]]:
    """How far a box (output pixels) is drawn to lines ``across`` the output and ``down`` it, and
    the guides that show to which; nothing without a ``reach``."""
    if reach <= 0:
        return 0.0, 0.0, []
    x, at_x = snapped(box.left, box.width, across, reach)
    y, at_y = snapped(box.top, box.height, down, reach)
    return x, y, lines_at(at_x, at_y, output)


def lines_at(x: float | None, y: float | None, output: Output) -> list[Guide]:
    """The guides along the lines that drew something."""
    found = [Guide(x1=x, y1=0, x2=x, y2=output.height)] if x is not None else []
    return found + ([Guide(x1=0, y1=y, x2=output.width, y2=y)] if y is not None else [])
