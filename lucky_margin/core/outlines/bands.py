"""Where the bands of a border lie between each other."""

from lucky_margin.core.document import Border, LineBand
from lucky_margin.core.framing import Output
from lucky_margin.core.outlines.outline import Outline


def band_edges(outer: Outline, border: Border, output: Output) -> list[Outline]:
    """``outer``, which is the shape, then the inner edge of each band, from the outside inwards;
    in output pixels."""
    edges = [outer]
    for band, sides in zip(border.bands, output.bands, strict=True):
        edge = edges[-1].inset(sides.top, sides.right, sides.bottom, sides.left)
        if isinstance(band, LineBand):
            edge = edge.cornered(band.corners, band.corner_size * output.short_side)
        edges.append(edge)
    return edges
