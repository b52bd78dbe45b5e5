"""Measuring the toned photo inside a size's window: no border, shape or ground."""

from dataclasses import dataclass

from lucky_margin.core.document import Finish, Size, Tone
from lucky_margin.core.framing import frame_of
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.render import photo_under
from lucky_margin.core.render.sources import Sources
from lucky_margin.core.tone import Clipping, Histogram, clipping_of, histogram_of

MEASURED_SIDE = 480
"""Longest side at which tone is measured, in output pixels."""


@dataclass(frozen=True)
class ToneMeasured:
    """The toned photo, and what its tone clipped that was not clipped before (shares, 0..1)."""

    histogram: Histogram
    newly: Clipping


def measure_tone(finish: Finish, size: Size, sources: Sources) -> ToneMeasured:
    """
    Raises:
        NotFound: the photo is not known.
        TooLarge: the size comes to too many pixels.
    """
    facts = sources.facts(finish.photo.sha256)
    frame = frame_of(finish, size, facts.width, facts.height)
    width, height = frame.output.width, frame.output.height
    grid = Grid.of(width, height, min(1.0, MEASURED_SIDE / max(width, height)), None)
    sha256 = finish.photo.sha256
    before = clipping_of(photo_under(sha256, Tone(), frame, grid, sources))
    picture = photo_under(sha256, finish.tone_of(size), frame, grid, sources)
    after = clipping_of(picture)
    newly = Clipping(max(0.0, after.high - before.high), max(0.0, after.low - before.low))
    return ToneMeasured(histogram_of(picture), newly)
